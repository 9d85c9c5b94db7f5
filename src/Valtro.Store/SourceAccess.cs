using System.Text.Json;
using Valtro.Core;

namespace Valtro.Store;

/// <summary>What is needed to ask a source. It is kept sealed, the address too: many are secret themselves.</summary>
public sealed record SourceAccess(
    string Address, string? User = null, string? Password = null, string? HeaderName = null, string? HeaderValue = null)
{
    private const int LongestEnd = 24;

    public bool HasSecrets => User is not null || HeaderName is not null;

    public byte[] Seal(Sealing sealing, Guid sourceId) => sealing.Seal(JsonSerializer.Serialize(this), sourceId);

    /// <returns>Null where the operator's key does not open it.</returns>
    public static SourceAccess? Open(Sealing sealing, FollowedSource source) =>
        sealing.Open(source.Access, source.Id) is { } text ? JsonSerializer.Deserialize<SourceAccess>(text) : null;

    /// <summary>So much of an address as may be told: its host, and how the path ends.</summary>
    public static string Shown(Uri address)
    {
        var last = Uri.UnescapeDataString(address.Segments[^1].Trim('/'));
        var end = last.Length <= LongestEnd ? last : $"{last[..2]}…{last[^6..]}";
        var between = address.Segments.Length > 2 ? "/…" : "";
        return Texts.Kept($"{address.Scheme}://{address.Authority}{between}/{end}{(address.Query.Length > 0 ? "?…" : "")}", 200);
    }
}
