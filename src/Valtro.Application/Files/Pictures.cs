using Microsoft.Extensions.Caching.Memory;
using SkiaSharp;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Application.Files;

/// <summary>Pictures that people bring: made small enough for pages, upright, and without what the camera wrote about place and
/// person.</summary>
public sealed class Pictures : IDisposable
{
    private const int LongestSide = 2_000;
    private const int Quality = 85;

    /// <summary>A small file can unpack to more than the memory holds.</summary>
    private const long MostDots = 50_000_000;

    /// <summary>The only width that is made besides the picture's own, so that nobody can ask for any number of them.</summary>
    public const int CardWidth = 480;

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

    /// <summary>The picture for a card; whatever else is asked for is the file as it is.</summary>
    public StoredFile Narrowed(StoredFile file, int? width)
    {
        if (width != CardWidth || FormatOf(file.Type) is null)
            return file;
        if (_memory.Get<StoredFile>(file.Id) is { } kept)
            return kept;
        using var picture = SKBitmap.Decode(file.Content);
        if (picture is null || picture.Width <= CardWidth)
            return file;
        var narrow =
            file with { Type = "image/webp", Content = Encoded(picture, CardWidth / (double)picture.Width, SKEncodedImageFormat.Webp) };
        return _memory.Set(file.Id, narrow, new MemoryCacheEntryOptions { Size = narrow.Content.Length });
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
