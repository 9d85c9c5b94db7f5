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

    /// <summary>An address that opens a page; empty where nothing was typed.</summary>
    /// <exception cref="RuleException">It opens none, or holds a password.</exception>
    public static string Check(string field, string? typed)
    {
        if (string.IsNullOrWhiteSpace(typed))
            return "";
        if (!Uri.TryCreate(Completed(typed), UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https")
            || address.OriginalString.Length > Longest || AsciiAddress.Of(address.OriginalString) is null)
            throw new RuleException(field, "event.noAddress", ("url", typed));
        return address.UserInfo.Length == 0
            ? address.AbsoluteUri
            : throw new RuleException(field, "event.linkWithPassword", ("host", address.Host));
    }
}
