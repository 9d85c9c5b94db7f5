using System.Net;
using System.Text.RegularExpressions;

namespace Valtro.Core.Events;

/// <summary>What may stand between a reader and what a link opens, as far as its address tells.</summary>
public enum Reach
{
    /// <summary>Nothing that can be seen from here.</summary>
    Open,

    /// <summary>It is a screen of our own desk.</summary>
    Desk,

    /// <summary>It is known within a network only.</summary>
    Inside,

    /// <summary>It is called as pages are that ask for sign-in.</summary>
    SignIn,
}

/// <summary>Finds links that readers may not be able to follow, by their addresses alone: nothing is asked of anybody.</summary>
public static partial class LinkReach
{
    private static readonly string[] InsideEndings =
        [".local", ".localhost", ".internal", ".intranet", ".lan", ".corp", ".home", ".home.arpa", ".private"];

    /// <param name="link">As it is typed.</param>
    /// <param name="ours">Where this Valtro is.</param>
    public static Reach Of(string? link, Uri ours)
    {
        if (!Uri.TryCreate(WebAddress.Completed(link), UriKind.Absolute, out var address) || !WebAddress.IsOfWeb(address))
            return Reach.Open;
        if (address.Host == ours.Host && address.Port == ours.Port)
            return address.AbsolutePath is "/c" or "/s" || address.AbsolutePath.StartsWith("/c/", StringComparison.Ordinal)
                || address.AbsolutePath.StartsWith("/s/", StringComparison.Ordinal)
                ? Reach.Open
                : Reach.Desk;
        if (IsInside(address))
            return Reach.Inside;
        return SignInWord().IsMatch($"{address.Host.Split('.')[0]}/{address.AbsolutePath}") ? Reach.SignIn : Reach.Open;
    }

    /// <summary>The addresses behind the links of a description, which is sanitised.</summary>
    public static IEnumerable<string> In(RichText description) =>
        Address().Matches(description.Html).Select(found => WebUtility.HtmlDecode(found.Groups[1].Value));

    /// <summary>RFC 6761, RFC 1918, RFC 4193, and names without a dot.</summary>
    private static bool IsInside(Uri address)
    {
        if (address.HostNameType == UriHostNameType.IPv6)
            return IPAddress.TryParse(address.Host, out var six)
                && (IPAddress.IsLoopback(six) || six.IsIPv6UniqueLocal || six.IsIPv6LinkLocal);
        if (address.HostNameType == UriHostNameType.IPv4)
        {
            var parts = IPAddress.Parse(address.Host).GetAddressBytes();
            return parts[0] is 10 or 127 || (parts[0], parts[1]) is (192, 168) or (169, 254) or (172, >= 16 and < 32);
        }
        return !address.Host.Contains('.', StringComparison.Ordinal)
            || InsideEndings.Any(ending => address.Host.EndsWith(ending, StringComparison.OrdinalIgnoreCase))
            || address.Host.StartsWith("intranet.", StringComparison.OrdinalIgnoreCase);
    }

    [GeneratedRegex(@"(?<=^|[/._-])(log-?in|sign-?in|log-?on|sso|saml2?|oauth2?|anmelden|anmeldung|connexion)(?=$|[/._-])",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex SignInWord();

    [GeneratedRegex("href=\"([^\"]+)\"", RegexOptions.CultureInvariant)]
    private static partial Regex Address();
}
