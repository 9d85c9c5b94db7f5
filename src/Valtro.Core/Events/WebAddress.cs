using System.Text.RegularExpressions;

namespace Valtro.Core.Events;

/// <summary>Addresses on the web as people type them.</summary>
public static partial class WebAddress
{
    private const int Longest = 2_000;

    /// <summary>A host with a dot in it, and what may follow; no scheme and no address for mail.</summary>
    [GeneratedRegex(@"^[\p{L}\d-]+(?:\.[\p{L}\d-]+)*\.\p{L}{2,}(?:[/?#]\S*)?$")]
    private static partial Regex Bare();

    /// <summary>"forms.example/signup": nobody types what every browser adds.</summary>
    public static string? Completed(string? url) => url?.Trim() is { } typed && Bare().IsMatch(typed) ? $"https://{typed}" : url?.Trim();

    /// <summary>An address that opens a page, or whatever else its scheme may open.</summary>
    /// <param name="besides">Schemes that are taken besides those of the web.</param>
    /// <exception cref="RuleException">It opens nothing, or holds a password.</exception>
    public static string Check(string field, string? typed, params ReadOnlySpan<string> besides)
    {
        if (!Uri.TryCreate(Completed(typed), UriKind.Absolute, out var address)
            || !(IsOfWeb(address) || besides.Contains(address.Scheme))
            || address.OriginalString.Length > Longest || AsciiAddress.Of(address.OriginalString) is null)
            throw new RuleException(field, "event.noAddress", ("url", typed));
        return IsOfWeb(address) && address.UserInfo.Length > 0
            ? throw new RuleException(field, "event.linkWithPassword", ("host", address.Host))
            : address.AbsoluteUri;
    }

    internal static bool IsOfWeb(Uri address) => address.Scheme is "http" or "https";
}
