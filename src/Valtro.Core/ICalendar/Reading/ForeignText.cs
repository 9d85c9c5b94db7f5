using System.Text;
using System.Text.Unicode;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>In which characters somebody's file is written.</summary>
public static class ForeignText
{
    /// <summary>What older programs of a region write, besides Unicode.</summary>
    public static IReadOnlyList<string> Encodings { get; } =
        ["utf-8", "utf-16", "windows-1252", "windows-1250", "windows-1251", "windows-1253", "windows-1254", "macintosh"];

    private const int Sample = 4_096;

    static ForeignText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>What a file is most probably written in: what its first bytes say; UTF-8 where all of it is that (RFC 5545 3.1.4); else
    /// what was usual in the west of Europe.</summary>
    public static string Guess(ReadOnlySpan<byte> file)
    {
        if (file is [0xEF, 0xBB, 0xBF, ..])
            return "utf-8";
        if (file is [0xFF, 0xFE, ..] or [0xFE, 0xFF, ..] || LooksLikeUtf16(file))
            return "utf-16";
        return Utf8.IsValid(file) || Utf8.IsValid(WithoutFoldsInLetters(file)) ? "utf-8" : "windows-1252";
    }

    /// <summary>Lines are folded by bytes: some programs do so in the midst of a letter (RFC 5545 3.1 warns of it).</summary>
    private static byte[] WithoutFoldsInLetters(ReadOnlySpan<byte> file)
    {
        var (kept, length) = (new byte[file.Length], 0);
        for (var index = 0; index < file.Length; index++)
        {
            var fold = file[index..] switch
            {
                [(byte)'\r', (byte)'\n', (byte)' ' or (byte)'\t', >= 0x80 and < 0xC0, ..] => 3,
                [(byte)'\n', (byte)' ' or (byte)'\t', >= 0x80 and < 0xC0, ..] => 2,
                _ => 0,
            };
            if (fold > 0)
                index += fold - 1;
            else
                kept[length++] = file[index];
        }
        return kept[..length];
    }

    /// <summary>Every other byte is nought: Latin letters in two bytes each.</summary>
    private static bool LooksLikeUtf16(ReadOnlySpan<byte> file)
    {
        var start = file[..Math.Min(file.Length, Sample)];
        return start.Length >= 8 && start.Count((byte)0) > start.Length / 3;
    }

    /// <summary>Reads it as text; what stands at its beginning to say how it is written is left out.</summary>
    /// <param name="encoding">One of <see cref="Encodings"/>; null for what it is most probably.</param>
    /// <exception cref="RuleException">There is no such encoding.</exception>
    public static StreamReader Open(byte[] file, string? encoding)
    {
        var name = encoding ?? Guess(file);
        if (!Encodings.Contains(name))
            throw new RuleException("encoding", "intake.noSuchEncoding", ("name", name), ("choices", Encodings));
        if (name == "utf-8" && !Utf8.IsValid(file))
            file = WithoutFoldsInLetters(file);
        var isBigEndian = name == "utf-16" && file is [0xFE, 0xFF, ..] or [0, ..];
        return new StreamReader(new MemoryStream(file, writable: false),
            isBigEndian ? Encoding.BigEndianUnicode : Encoding.GetEncoding(name), detectEncodingFromByteOrderMarks: encoding is null);
    }
}
