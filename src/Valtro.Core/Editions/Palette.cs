using Valtro.Core.Speaking;

namespace Valtro.Core.Editions;

/// <summary>The colours of a reading page.</summary>
/// <param name="Page">Behind everything.</param>
/// <param name="Grid">Lines between days; carries no text.</param>
/// <param name="Busy">Behind days with entries.</param>
/// <param name="Empty">Behind days without.</param>
/// <param name="Today">Behind today.</param>
/// <param name="Accent">Links and marks.</param>
public sealed record Palette(Colour Page, Colour Grid, Colour Busy, Colour Empty, Colour Today, Colour Text, Colour Accent)
{
    /// <summary>The least contrast of text (WCAG 2.2, 1.4.3, level AA).</summary>
    public const double Least = 4.5;

    /// <summary>For what matters less; the text's own colour where a paler one would be too faint on any ground.</summary>
    public Colour Soft
    {
        get
        {
            var soft = Text.Mixed(Page, 0.27);
            return new[] { Page, Busy, Empty, Today }.All(ground => soft.ContrastWith(ground) >= Least) ? soft : Text;
        }
    }

    /// <summary>Text upon the accent.</summary>
    public Colour OnAccent => Page.ContrastWith(Accent) >= Text.ContrastWith(Accent) ? Page : Text;

    /// <summary>Of all pairs that carry text, the fainter ones last.</summary>
    public double Contrast => Pairs.Min(pair => pair.Over.ContrastWith(pair.Ground));

    private IEnumerable<(string Field, string What, Colour Over, Colour Ground)> Pairs =>
    [
        ("text", "contrast.text", Text, Page),
        ("busy", "contrast.busy", Text, Busy),
        ("empty", "contrast.empty", Text, Empty),
        ("today", "contrast.today", Text, Today),
        ("accent", "contrast.accent", Accent, Page),
    ];

    /// <summary>What is too faint to be read, with the ratio that it has.</summary>
    /// <param name="prefix">Of the field that a refusal names.</param>
    public IEnumerable<Refusal> TooFaint(string prefix) => Pairs
        .Select(pair => (pair.Field, pair.What, Ratio: pair.Over.ContrastWith(pair.Ground)))
        .Where(pair => pair.Ratio < Least)
        .Select(pair => new Refusal($"{prefix}.{pair.Field}", Saying.Of(
            "edition.contrast", ("what", Saying.Of(pair.What)), ("ratio", Math.Floor(pair.Ratio * 10) / 10), ("least", Least))));

    /// <summary>Our own palettes, each light and dark.</summary>
    public static IReadOnlyDictionary<string, (Palette Light, Palette Dark)> All { get; } = new Dictionary<string, (Palette, Palette)>
    {
        ["paper"] = (Of("#FFFDF9", "#DDD5C7", "#FFFDF9", "#FAF7F1", "#E2EDE7", "#1B2A33", "#2D6A8E"),
            Of("#1B252B", "#35424A", "#1B252B", "#151D22", "#20352F", "#ECE6D9", "#8FC3E4")),
        ["quay"] = (Of("#F6F9FA", "#C9D6DB", "#E7F0F3", "#F6F9FA", "#FBE9C8", "#15303B", "#0E5A66"),
            Of("#13212A", "#2F4550", "#1B303B", "#13212A", "#3D3419", "#E4EEF1", "#7CC7D6")),
        ["heath"] = (Of("#FCFAFC", "#DCD2DE", "#F3ECF5", "#FCFAFC", "#E6F0DC", "#2C2233", "#6B3A86"),
            Of("#1F1A24", "#42384A", "#2B2332", "#1F1A24", "#2A3420", "#EEE6F2", "#CDA8E2")),
        ["plain"] = (Of("#FFFFFF", "#D6D6D6", "#FFFFFF", "#F6F6F6", "#EFEFEF", "#1C1C1C", "#1A5A96"),
            Of("#161616", "#3C3C3C", "#1E1E1E", "#161616", "#2E2E2E", "#F0F0F0", "#8CC0F2")),
    };

    private static Palette Of(string page, string grid, string busy, string empty, string today, string text, string accent) =>
        new(Colour.Of(page), Colour.Of(grid), Colour.Of(busy), Colour.Of(empty), Colour.Of(today), Colour.Of(text), Colour.Of(accent));
}
