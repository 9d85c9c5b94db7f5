using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Application.Work;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Mail;

/// <summary>The mail server did not take a mail.</summary>
internal sealed class MailNotTakenException(Exception why) : Exception(why.Message, why);

/// <summary>Hands mail over to the SMTP server of the settings (RFC 5321).</summary>
internal sealed class MailWorker(MailStore mails, Settings settings, IClock clock) : IWorker
{
    /// <summary>Without a mail server mail is kept, and looked at again: somebody may name one.</summary>
    private static readonly Duration LooksAgainAfter = Duration.FromHours(1);

    public WorkKind Kind => WorkKind.Mail;

    public int AtOnce => 2;

    public Duration Claim => Duration.FromMinutes(3);

    public Duration? WaitAfter(int failures) => failures < 8 ? Duration.FromMinutes(Math.Pow(2, failures - 1)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var id = Guid.Parse(work.Key);
        if (settings.Smtp is not { } smtp)
            return clock.GetCurrentInstant() + LooksAgainAfter;
        if (await mails.FindAsync(id) is not { } letter)
            return null;
        try
        {
            await SendAsync(smtp, id, letter, stopping);
        }
        catch (Exception failed) when (failed is not OperationCanceledException || !stopping.IsCancellationRequested)
        {
            throw new MailNotTakenException(failed);
        }
        await mails.SentAsync(id, clock.GetCurrentInstant());
        return null;
    }

    private async Task SendAsync(SmtpSettings smtp, Guid id, MailLetter letter, CancellationToken stopping)
    {
        var message = new MimeMessage
        {
            Subject = letter.Subject,
            Body = letter.Html is { } html
                ? new MultipartAlternative(new TextPart("plain") { Text = letter.Body }, new TextPart("html") { Text = html })
                : new TextPart("plain") { Text = letter.Body },
            // The same mail, tried again, is the same message: whoever got it twice can tell.
            MessageId = $"{id:N}@{settings.PublicUrl.Host}",
            Date = clock.GetCurrentInstant().ToDateTimeOffset(),
        };
        message.From.Add(MailboxAddress.Parse(settings.MailFrom));
        message.To.Add(MailboxAddress.Parse(letter.Recipient));
        message.Headers.Add("Auto-Submitted", "auto-generated");
        if (letter.EndAddress is { } end)
        {
            // RFC 8058 3.1: a press in the mail program ends it, without a page.
            message.Headers.Add("List-Unsubscribe", $"<{end}>");
            message.Headers.Add("List-Unsubscribe-Post", "List-Unsubscribe=One-Click");
        }
        using var client = new SmtpClient { Timeout = 20_000 };
        await client.ConnectAsync(smtp.Host, smtp.Port,
            smtp.Port == 465 ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTlsWhenAvailable, stopping);
        if (smtp.User is { } user)
            await client.AuthenticateAsync(user, smtp.Password ?? "", stopping);
        await client.SendAsync(message, stopping);
        await client.DisconnectAsync(quit: true, stopping);
    }
}

/// <summary>Gathers news of one person into one mail.</summary>
internal sealed class GatherWorker(MailStore mails, PublicAddresses addresses, Settings settings, IClock clock) : IWorker
{
    public WorkKind Kind => WorkKind.Gather;

    public int AtOnce => 1;

    public Duration Claim => Duration.FromMinutes(1);

    public Duration? WaitAfter(int failures) => failures < 8 ? Duration.FromMinutes(Math.Pow(2, failures - 1)) : null;

    public Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var parts = work.Key.Split('/');
        return mails.GatherAsync(
            Guid.Parse(parts[0]), Guid.Parse(parts[1]), Duration.FromSeconds(settings.GatherSeconds), clock.GetCurrentInstant(), Write);
    }

    private MailLetter Write(Gathered gathered)
    {
        var speech = Speech.For(gathered.Locale);
        var news = gathered.News;
        var subject = news.Count == 1
            ? speech.Say(news[0].Saying)
            : speech.Say("mail.news.subject", ("count", news.Count), ("organisation", gathered.OrganisationName));
        var lines = news.GroupBy(one => one.Path).Select(group =>
            string.Join('\n', group.Select(one => $"- {speech.Say(one.Saying)}"))
                + $"\n  {addresses.Desk(OrganisationAddress.At(gathered.OrganisationSlug, group.Key))}");
        return new MailLetter(
            gathered.Recipient, subject,
            speech.Say("mail.news.body", ("name", gathered.Name), ("news", string.Join("\n\n", lines)),
                ("organisation", gathered.OrganisationName)));
    }
}
