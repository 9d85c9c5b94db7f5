using System.Security.Cryptography;
using System.Text;

namespace Valtro.Store;

/// <summary>Seals what the database is to keep without telling it: AES-256-GCM with a key of the operator's, which stands in a file of its
/// own (docs/operations.md).</summary>
/// <param name="keys">The first seals; all open, so that a key can be replaced. None where the operator gave none.</param>
public sealed class Sealing(IReadOnlyList<byte[]> keys)
{
    private const int NonceBytes = 12;

    private const int TagBytes = 16;

    private const int KeyBytes = 32;

    public bool IsPossible => keys.Count > 0;

    /// <summary>Keys as a file has them: a line each, 32 bytes in Base64.</summary>
    /// <exception cref="InvalidOperationException">A line is none; the message names its number.</exception>
    public static Sealing FromFile(string path)
    {
        var keys = new List<byte[]>();
        foreach (var (line, number) in File.ReadLines(path).Select((line, index) => (line.Trim(), index + 1)).Where(one => one.Item1 != ""))
        {
            var key = new byte[KeyBytes];
            if (!Convert.TryFromBase64String(line, key, out var count) || count != KeyBytes)
                throw new InvalidOperationException(
                    $"Line {number} of {path} is no key. It has to be 32 random bytes in Base64, as “openssl rand -base64 32” gives them.");
            keys.Add(key);
        }
        return keys.Count > 0 ? new Sealing(keys) : throw new InvalidOperationException($"{path} holds no key.");
    }

    /// <param name="owner">Whose it is: it opens for no other.</param>
    public byte[] Seal(string text, Guid owner)
    {
        var open = Encoding.UTF8.GetBytes(text);
        var kept = new byte[NonceBytes + TagBytes + open.Length];
        RandomNumberGenerator.Fill(kept.AsSpan(0, NonceBytes));
        using var cipher = new AesGcm(keys[0], TagBytes);
        cipher.Encrypt(kept.AsSpan(0, NonceBytes), open, kept.AsSpan(NonceBytes + TagBytes), kept.AsSpan(NonceBytes, TagBytes),
            owner.ToByteArray());
        return kept;
    }

    /// <returns>Null where no key opens it.</returns>
    public string? Open(byte[] kept, Guid owner)
    {
        if (kept.Length < NonceBytes + TagBytes)
            return null;
        var open = new byte[kept.Length - NonceBytes - TagBytes];
        foreach (var key in keys)
        {
            using var cipher = new AesGcm(key, TagBytes);
            try
            {
                cipher.Decrypt(kept.AsSpan(0, NonceBytes), kept.AsSpan(NonceBytes + TagBytes), kept.AsSpan(NonceBytes, TagBytes), open,
                    owner.ToByteArray());
                return Encoding.UTF8.GetString(open);
            }
            catch (AuthenticationTagMismatchException)
            {
                // Another key may have sealed it.
            }
        }
        return null;
    }
}
