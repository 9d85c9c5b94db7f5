using Microsoft.Extensions.Caching.Memory;
using SkiaSharp;

namespace Valtro.Application.Editions;

/// <summary>The icon of an organisation as pixels, for home screens that take no drawing.</summary>
public sealed class HomeIcons : IDisposable
{
    /// <summary>Widths that there are: one for phones that look for "apple-touch-icon", two that a manifest wants.</summary>
    public static IReadOnlyList<int> Widths { get; } = [180, 192, 512];

    private const int MostKept = 300;

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = MostKept });

    private readonly SKTypeface _letters = Letters();

    private static SKTypeface Letters()
    {
        using var font = typeof(HomeIcons).Assembly.GetManifestResourceStream("atkinson-hyperlegible-latin-700-normal.woff")!;
        return SKTypeface.FromStream(font) ?? throw new InvalidOperationException("The font of icons cannot be read.");
    }

    public bool IsKnown(string organisation, int width) => _known.TryGetValue((organisation, width), out _);

    /// <summary>As PNG: its initials; the plate alone where the font does not have their letters.</summary>
    /// <param name="organisation">Its name.</param>
    public byte[] Draw(string organisation, int width) => _known.GetOrCreate((organisation, width), entry =>
    {
        entry.Size = 1;
        return Drawn(HomeScreen.InitialsOf(organisation), width);
    })!;

    private byte[] Drawn(string initials, int width)
    {
        using var bitmap = new SKBitmap(width, width, SKColorType.Rgba8888, SKAlphaType.Opaque);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColor.Parse(HomeScreen.Spruce));
        canvas.Scale(width / 512f);
        using var dashes = SKPathEffect.CreateDash([28, 18], 0);
        using var line = new SKPaint
        {
            Color = SKColor.Parse(HomeScreen.SprucePale),
            IsAntialias = true,
            IsStroke = true,
            StrokeWidth = 14,
            PathEffect = dashes,
        };
        canvas.DrawLine(96, 384, 416, 384, line);
        using var font = new SKFont(_letters, 190);
        using var ink = new SKPaint { Color = SKColors.White, IsAntialias = true };
        if (font.ContainsGlyphs(initials))
            canvas.DrawText(initials, 256, 312, SKTextAlign.Center, font, ink);
        canvas.Flush();
        using var picture = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return picture.ToArray();
    }

    public void Dispose()
    {
        _known.Dispose();
        _letters.Dispose();
    }
}
