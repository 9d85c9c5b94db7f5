using System.Text.Json;
using Valtro.Core;

namespace Valtro.Store;

/// <summary>What is needed to ask a source, or a calendar elsewhere. It is kept sealed, the address too: many are secret
/// themselves.</summary>
public sealed record OutsideAccess(
    string Address, string? User = null, string? Password = null, string? HeaderName = null, string? HeaderValue = null)
{
    private const int LongestEnd = 24;

    public bool HasSecrets => User is not null || HeaderName is not null;

    /// <param name="id">Whose it is: it opens as nothing else.</param>
    public byte[] Seal(Sealing sealing, Guid id) => sealing.Seal(JsonSerializer.Serialize(this), id);

    /// <returns>Null where the operator's key does not open it.</returns>
    public static OutsideAccess? Open(Sealing sealing, byte[] access, Guid id) =>
        sealing.Open(access, id) is { } text ? JsonSerializer.Deserialize<OutsideAccess>(text) : null;

    /// <summary>So much of an address as may be told: its host, and how the path ends.</summary>
    public static string Shown(Uri address)
    {
        var last = Uri.UnescapeDataString(address.Segments[^1].Trim('/'));
        var end = last.Length <= LongestEnd ? last : $"{last[..2]}…{last[^6..]}";
        var between = address.Segments.Length > 2 ? "/…" : "";
        return Texts.Kept($"{address.Scheme}://{address.Authority}{between}/{end}{(address.Query.Length > 0 ? "?…" : "")}", 200);
    }
}
