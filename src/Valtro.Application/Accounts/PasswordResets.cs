using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Accounts;

/// <summary>Sends the link with which somebody sets a new password. It works once, for two hours: a set password changes the stamp that it
/// is made of.</summary>
public sealed class PasswordResets(UserManager<Account> users, AccountStore accounts, OrganisationStore organisations, MailStore mails,
    PublicAddresses addresses, IClock clock)
{
    /// <summary>An account gets one such mail in this time, whoever asks how often.</summary>
    public static readonly Duration AtMostEvery = Duration.FromMinutes(10);

    /// <returns>When the last one went, where that was so lately that no other goes; else null.</returns>
    public async Task<Instant?> SendAsync(Guid organisationId, Account account)
    {
        if (await accounts.MayMailResetAsync(account.Id, AtMostEvery, clock.GetCurrentInstant()) is { } sent)
            return sent;
        using var within = Wall.Within(organisationId);
        var organisation = (await organisations.FindAsync(organisationId))!;
        var token = await users.GeneratePasswordResetTokenAsync(account);
        var link = addresses.Desk(
            $"/reset#{account.Id:N}.{Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes(token)).Replace('+', '-').Replace('/', '_').TrimEnd('=')}");
        var speech = Speech.For(Speech.LocaleOf(account.Language, organisation.Locale));
        await mails.PostAsync(organisationId, new MailLetter(
            account.Email,
            speech.Say("mail.reset.subject", ("organisation", organisation.Name)),
            speech.Say("mail.reset.body", ("name", account.Name), ("organisation", organisation.Name), ("link", link))),
                clock.GetCurrentInstant());
        return null;
    }

    /// <returns>The account and the token that a link names, or null.</returns>
    public async Task<(Account Account, string Token)?> ReadAsync(string? secret)
    {
        var parts = (secret ?? "").Split('.', 2);
        if (parts.Length != 2
            || !Guid.TryParseExact(parts[0], "N", out var id)
            || await users.FindByIdAsync(id.ToString()) is not { } account)
            return null;
        var base64 = parts[1].Replace('-', '+').Replace('_', '/');
        var bytes = new byte[base64.Length];
        return Convert.TryFromBase64String(base64.PadRight((base64.Length + 3) / 4 * 4, '='), bytes, out var length)
            ? (account, System.Text.Encoding.UTF8.GetString(bytes, 0, length))
            : null;
    }
}
