namespace Valtro.Core.Calendars;

/// <summary>One of the twelve calendar colours. Each has its own hatch, so that print and colour-blind readers can tell them
/// apart.</summary>
/// <param name="Name">The name in the database, in style sheets and on screen.</param>
/// <param name="Hex">The colour for white text upon it (contrast of 7:1 or more) and for COLOR in feeds.</param>
/// <param name="NearestCss">The nearest CSS3 colour name: RFC 7986 5.9 allows no other.</param>
public sealed record Hue(string Name, string Hex, string NearestCss)
{
    public static IReadOnlyList<Hue> All { get; } =
    [
        new("harbour", "#1F5F8B", "steelblue"),
        new("timber", "#8A4A12", "saddlebrown"),
        new("heather", "#5A3D7A", "darkslateblue"),
        new("kelp", "#1E6B54", "seagreen"),
        new("madder", "#9A2F4F", "brown"),
        new("moss", "#3F5A14", "darkolivegreen"),
        new("slate", "#424B52", "darkslategray"),
        new("fjord", "#0E5A66", "teal"),
        new("plum", "#7A2672", "purple"),
        new("navy", "#25397F", "midnightblue"),
        new("peat", "#5E4712", "olive"),
        new("umber", "#6B2B22", "maroon"),
    ];

    /// <exception cref="RuleException">There is no such colour.</exception>
    public static Hue Named(string? name) =>
        All.FirstOrDefault(hue => hue.Name == name)
        ?? throw new RuleException(
            "colour", "calendar.noSuchColour", ("name", name), ("choices", string.Join(", ", All.Select(hue => hue.Name))));
}
