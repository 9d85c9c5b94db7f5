namespace Valtro.Core;

/// <summary>Addresses as programs read them that know no other script: hosts in A-labels (RFC 5890 2.3.2.1), the rest percent-encoded (RFC
/// 3986 2.1).</summary>
public static class AsciiAddress
{
    /// <param name="address">Absolute; of whatever scheme.</param>
    /// <returns>Null for what no program can open.</returns>
    public static string? Of(string? address)
    {
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri))
            return null;
        try
        {
            return uri.HostNameType == UriHostNameType.Dns && uri.IdnHost != uri.Host
                ? new UriBuilder(uri) { Host = uri.IdnHost }.Uri.AbsoluteUri
                : uri.AbsoluteUri;
        }
        catch (UriFormatException)
        {
            // A host that has no A-label: too long, or of characters that no name may hold.
            return null;
        }
    }
}
