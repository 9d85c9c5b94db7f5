using System.Net.Mail;
using Valtro.Core;

namespace Valtro.Application.Accounts;

internal static class EmailAddresses
{
    /// <exception cref="RuleException">It is none that mail could go to.</exception>
    public static string Check(string field, string? text)
    {
        var address = Texts.OneLine(field, "what.emailAddress", text, 254);
        return MailAddress.TryCreate(address, out var parsed)
            && parsed.Address == address
            && parsed.Host.Contains('.', StringComparison.Ordinal)
            ? address
            : throw new RuleException(field, "person.noEmailAddress", ("address", address));
    }
}
