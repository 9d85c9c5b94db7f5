using System.Text;
using System.Text.RegularExpressions;
using Valtro.Core.Events;

namespace Valtro.Core.Findings;

/// <summary>What somebody without an account finds behind a link, by what its server answered.</summary>
public static partial class LinkJudge
{
    /// <summary>So much of a page is read: what asks for a password stands at its beginning.</summary>
    public const int Most = 256 * 1024;

    /// <param name="asked">The link.</param>
    /// <param name="answered">Which answered: it may have been sent on.</param>
    /// <param name="status">RFC 9110 15.</param>
    /// <returns>Null where it says nothing for good: a server that fails may be well tomorrow.</returns>
    public static LinkState? Of(Uri asked, Uri answered, int status, ReadOnlySpan<byte> content, Uri ours) => status switch
    {
        401 or 403 or 407 => LinkState.AsksForSignIn,
        404 or 410 => LinkState.Gone,
        >= 200 and < 300 when WasSentToSignIn(asked, answered, ours) || AsksForPassword(content) => LinkState.AsksForSignIn,
        >= 200 and < 300 => LinkState.Open,
        _ => null,
    };

    private static bool WasSentToSignIn(Uri asked, Uri answered, Uri ours) =>
        asked != answered && LinkReach.Of(answered.AbsoluteUri, ours) == Reach.SignIn;

    private static bool AsksForPassword(ReadOnlySpan<byte> content) =>
        PasswordField().IsMatch(Encoding.UTF8.GetString(content[..Math.Min(content.Length, Most)]));

    // No tag is looked for within another, or a page of nothing but beginnings would be read again from each.
    [GeneratedRegex("<input[^<>]{0,400}type\\s*=\\s*[\"']?password", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex PasswordField();
}
