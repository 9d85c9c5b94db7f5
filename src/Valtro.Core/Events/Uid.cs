using System.Security.Cryptography;
using System.Text;

namespace Valtro.Core.Events;

/// <summary>By which name programs outside know something, for ever (RFC 7986 5.3): a text that nobody guesses, or what its source called
/// it.</summary>
/// <remarks>Equal by its characters. The default one names nothing yet.</remarks>
public readonly record struct Uid(string Text) : IComparable<Uid>
{
    public bool IsNone => string.IsNullOrEmpty(Text);

    /// <summary>As a part of an address.</summary>
    public string InAddress => Uri.EscapeDataString(Text ?? "");

    /// <summary>As an address gives it to the server: with all taken apart but slashes.</summary>
    public static Uid OfAddress(string part) => new(part.Replace("%2F", "/", StringComparison.OrdinalIgnoreCase));

    public static Uid New() => Of(Guid.NewGuid());

    public static Uid Of(Guid guid) => new(guid.ToString());

    /// <summary>Another one, the same each time, from which there is no way back to this one.</summary>
    /// <remarks>Only a name that nobody can guess hides itself: whoever brings in names from outside has to add a secret.</remarks>
    public Uid Hidden(string purpose)
    {
        var key = Guid.TryParse(Text, out var guid) ? guid.ToByteArray() : Encoding.UTF8.GetBytes(ToString());
        return Of(new Guid(HMACSHA256.HashData(key, Encoding.ASCII.GetBytes(purpose)).AsSpan(0, 16)));
    }

    public int CompareTo(Uid other) => string.CompareOrdinal(Text, other.Text);

    public override string ToString() => Text ?? "";
}
