using System.Globalization;
using Microsoft.Extensions.Caching.Memory;
using SkiaSharp;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Application.Files;

/// <summary>A size in which pictures are sent: as WebP, or as JPEG for programs that know no other; or as they are.</summary>
public readonly record struct PictureSize(int Width, bool IsJpeg)
{
    public static PictureSize Whole { get; } = default;

    public bool IsWhole => Width == 0;

    /// <summary>The one that an address asks for; a width that is not made is the picture as it is.</summary>
    public static PictureSize Of(int? width, string? form) =>
        width is { } wanted && Pictures.Widths.Contains(wanted) ? new(wanted, form == "jpeg") : Whole;

    /// <summary>As keys of artefacts name it.</summary>
    public override string ToString() => IsWhole ? "whole" : $"{Width}{(IsJpeg ? "jpeg" : "webp")}";

    public static PictureSize Parse(string text) =>
        text == "whole" ? Whole : new(int.Parse(text[..^4], CultureInfo.InvariantCulture), text.EndsWith("jpeg", StringComparison.Ordinal));
}

/// <summary>Pictures that people bring: made small enough for pages, upright, and without what the camera wrote about place and
/// person.</summary>
public sealed class Pictures : IDisposable
{
    private const int LongestSide = 2_000;
    private const int Quality = 85;

    /// <summary>A small file can unpack to more than the memory holds.</summary>
    private const long MostDots = 50_000_000;

    /// <summary>The widths that are made besides the picture's own, so that nobody can ask for any number of them.</summary>
    public static readonly IReadOnlyList<int> Widths = [480, 960, 1_600];

    private readonly MemoryCache _memory = new(new MemoryCacheOptions { SizeLimit = 32 * 1024 * 1024 });

    /// <summary>The picture painted anew: at most 2,000 dots long, turned as the camera was held, nothing of its metadata left. Other files
    /// as they are.</summary>
    /// <exception cref="RuleException">Its name says that it is a picture, and it is none.</exception>
    public static byte[] Cleaned(string name, string type, byte[] content)
    {
        if (FormatOf(type) is not { } format)
            return content;
        using var codec = SKCodec.Create(new SKMemoryStream(content));
        if (codec is not null && (long)codec.Info.Width * codec.Info.Height > MostDots)
            throw new RuleException(
                "files", "file.pictureTooLarge", ("name", name), ("width", codec.Info.Width), ("height", codec.Info.Height));
        using var painted = codec is null ? null : SKBitmap.Decode(codec);
        if (codec is null || painted is null)
            throw new RuleException("files", "file.pictureUnreadable", ("name", name));
        using var upright = Upright(painted, codec.EncodedOrigin);
        return Encoded(upright,
            Math.Max(upright.Width, upright.Height) > LongestSide ? LongestSide / (double)Math.Max(upright.Width, upright.Height) : 1,
                format);
    }

    /// <summary>The picture as narrow as it is wanted, and no wider than it is; other files as they are.</summary>
    public StoredFile Narrowed(StoredFile file, PictureSize size)
    {
        if (size.IsWhole || FormatOf(file.Type) is null)
            return file;
        var key = (file.Id, file.Version, size);
        if (_memory.Get<StoredFile>(key) is { } kept)
            return kept;
        using var picture = SKBitmap.Decode(file.Content);
        if (picture is null)
            return file;
        var format = size.IsJpeg ? SKEncodedImageFormat.Jpeg : SKEncodedImageFormat.Webp;
        // JPEG knows no gaps: they are as paper is.
        using var opaque = size.IsJpeg && picture.AlphaType != SKAlphaType.Opaque ? OnPaper(picture) : null;
        var narrow = file with
        {
            Type = size.IsJpeg ? "image/jpeg" : "image/webp",
            Content = Encoded(opaque ?? picture, Math.Min(1, size.Width / (double)picture.Width), format),
        };
        return _memory.Set(key, narrow, new MemoryCacheEntryOptions { Size = narrow.Content.Length });
    }

    private static SKBitmap OnPaper(SKBitmap picture)
    {
        var paper = new SKBitmap(picture.Width, picture.Height);
        using var canvas = new SKCanvas(paper);
        canvas.Clear(SKColors.White);
        canvas.DrawBitmap(picture, 0, 0);
        return paper;
    }

    private static SKEncodedImageFormat? FormatOf(string type) => type switch
    {
        "image/png" => SKEncodedImageFormat.Png,
        "image/jpeg" => SKEncodedImageFormat.Jpeg,
        "image/webp" => SKEncodedImageFormat.Webp,
        _ => null,
    };

    private static byte[] Encoded(SKBitmap picture, double scale, SKEncodedImageFormat format)
    {
        using var scaled = scale >= 1 ? null : picture.Resize(
            new SKImageInfo(Math.Max(1, (int)(picture.Width * scale)), Math.Max(1, (int)(picture.Height * scale))),
                new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using var image = SKImage.FromBitmap(scaled ?? picture);
        using var data = image.Encode(format, Quality);
        return data.ToArray();
    }

    /// <summary>Exif orientations 3, 6 and 8 (turned) are turned back; mirrored ones are left as they are: no camera makes them.</summary>
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        var degrees =
            origin switch { SKEncodedOrigin.BottomRight => 180, SKEncodedOrigin.RightTop => 90, SKEncodedOrigin.LeftBottom => 270, _ => 0 };
        var isLying = degrees is 90 or 270;
        var upright = new SKBitmap(isLying ? picture.Height : picture.Width, isLying ? picture.Width : picture.Height);
        using var canvas = new SKCanvas(upright);
        canvas.Translate(upright.Width / 2f, upright.Height / 2f);
        canvas.RotateDegrees(degrees);
        canvas.DrawBitmap(picture, -picture.Width / 2f, -picture.Height / 2f);
        return upright;
    }

    public void Dispose() => _memory.Dispose();
}
