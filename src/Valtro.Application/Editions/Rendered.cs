using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using NodaTime;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What an answer says beside its bytes.</summary>
/// <param name="Sites">Whose pages may hold it in a frame; null for any.</param>
/// <param name="Styles">That stand in the page.</param>
public sealed record PageFrame(IReadOnlyList<string>? Sites, PageStyle[] Styles);

/// <summary>An artefact ready to be sent: compressed once, not for every reader.</summary>
public sealed class Rendered
{
    private readonly Lazy<EditionBody> _edition;
    private readonly bool _compresses;
    private readonly Lazy<SentForm?> _gzip;
    private readonly Lazy<SentForm?> _brotli;
    private SinceWhen? _lastModified;

    /// <param name="compresses">Whether it is worth it: pictures are compressed already.</param>
    public Rendered(Artefact artefact, bool compresses = true)
    {
        Artefact = artefact;
        _edition = new(() => JsonSerializer.Deserialize<OfEdition>(artefact.Content, Json.Options)!.Edition);
        _compresses = compresses;
        Plain = new SentForm(null, artefact.Content, artefact.Etag);
        _gzip = new(() => compresses ? Compress("gzip", output => new GZipStream(output, CompressionLevel.Optimal)) : null);
        _brotli = new(() => compresses ? Compress("br", output => new BrotliStream(output, CompressionLevel.Optimal)) : null);
    }

    /// <summary>A strong validator of the content alone: changes that readers cannot see do not show in it.</summary>
    public static string EtagOf(byte[] content) => Convert.ToHexStringLower(SHA256.HashData(content).AsSpan(0, 16));

    public Artefact Artefact { get; }

    /// <summary>What a month, or all of an edition, says of the edition.</summary>
    public EditionBody Edition => _edition.Value;

    private sealed record OfEdition(EditionBody Edition);

    /// <summary>What is in a month, or in all of an edition. It is read each time: kept, it would take many times what it is written
    /// in.</summary>
    public MonthBody ReadPart() => JsonSerializer.Deserialize<MonthBody>(Artefact.Content, Json.Options)!;

    public SentForm Plain { get; }

    /// <summary>Made when somebody first takes it: on the way of a change nobody waits for a form that nobody asks for.</summary>
    public SentForm? Gzip => _gzip.Value;

    /// <inheritdoc cref="Gzip"/>
    public SentForm? Brotli => _brotli.Value;

    /// <summary>Since when it is as it is.</summary>
    public SinceWhen LastModified => _lastModified ??= SinceWhen.After(Artefact.ChangedAt);

    /// <summary>Of a page.</summary>
    public PageFrame? Frame { get; init; }

    /// <summary>Of a file: its name and type.</summary>
    public (string Name, string Type)? File { get; init; }

    /// <summary>It says no more than that what the address named is not there any more (RFC 9110 15.5.11).</summary>
    public bool IsGone { get; init; }

    /// <summary>Bytes that it takes in memory at most: both compressed forms of a text take less than the text.</summary>
    public int Size => Artefact.Content.Length * (_compresses ? 2 : 1) + BesidesContent;

    /// <summary>About what is read of the edition, and what each object takes.</summary>
    private const int BesidesContent = 6 * 1024;

    private SentForm Compress(string encoding, Func<Stream, Stream> wrap)
    {
        using var output = new MemoryStream();
        using (var compressing = wrap(output))
            compressing.Write(Artefact.Content);
        return new SentForm(encoding, output.ToArray(), $"{Artefact.Etag}-{encoding}");
    }
}

/// <summary>A whole second, as headers know no less.</summary>
/// <param name="Text">As it stands in a header (RFC 9110 5.6.7).</param>
public sealed record SinceWhen(Instant At, string Text)
{
    /// <summary>The first of them after something happened.</summary>
    public static SinceWhen After(Instant happened)
    {
        var at = Instant.FromUnixTimeSeconds(happened.ToUnixTimeSeconds() + 1);
        return new(at, at.ToDateTimeOffset().ToString("R", CultureInfo.InvariantCulture));
    }
}

/// <summary>As it is sent.</summary>
/// <param name="Encoding">Null where it is not compressed.</param>
/// <param name="Etag">A strong validator names the bytes, so each form has its own; without its marks.</param>
public sealed record SentForm(string? Encoding, byte[] Content, string Etag)
{
    /// <summary>As it stands in a header.</summary>
    public string Tag { get; } = $"\"{Etag}\"";
}

/// <summary>What readers get.</summary>
/// <param name="Age">How long ago it was certainly right, a second at least; zero when it is.</param>
public readonly record struct Copy(Rendered Rendered, Duration Age);
