using System.Globalization;

namespace Valtro.Core.Editions;

/// <summary>A colour as style sheets write it: #RRGGBB.</summary>
public readonly record struct Colour(byte Red, byte Green, byte Blue)
{
    /// <exception cref="RuleException">It is not written as # and six hexadecimal digits.</exception>
    public static Colour Parse(string field, string? text) =>
        text is { Length: 7 }
            && text[0] == '#'
            && int.TryParse(text.AsSpan(1), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var value)
            ? new Colour((byte)(value >> 16), (byte)(value >> 8), (byte)value)
            : throw new RuleException(field, "edition.noColour", ("text", text));

    public static Colour Of(string text) => Parse("colour", text);

    /// <summary>Relative luminance, 0 to 1 (WCAG 2.2, "relative luminance").</summary>
    public double Luminance => 0.2126 * Linear(Red) + 0.7152 * Linear(Green) + 0.0722 * Linear(Blue);

    /// <summary>From 1 to 21 (WCAG 2.2, "contrast ratio").</summary>
    public double ContrastWith(Colour other)
    {
        var (one, two) = (Luminance, other.Luminance);
        return (Math.Max(one, two) + 0.05) / (Math.Min(one, two) + 0.05);
    }

    /// <summary>A mixture; 0 is this colour, 1 the other.</summary>
    public Colour Mixed(Colour other, double share) =>
        new(Part(Red, other.Red, share), Part(Green, other.Green, share), Part(Blue, other.Blue, share));

    public override string ToString() => $"#{Red:X2}{Green:X2}{Blue:X2}";

    private static byte Part(byte one, byte other, double share) => (byte)Math.Round(one + (other - one) * share);

    private static double Linear(byte part)
    {
        var value = part / 255.0;
        return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
    }
}
