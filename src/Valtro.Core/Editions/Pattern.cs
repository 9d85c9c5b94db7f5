using System.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Core.Editions;

/// <summary>What a pattern can put into a title or a line.</summary>
public enum Piece
{
    Plate,
    Calendar,
    Title,
    Subtitle,
    Place,
    Category,
    Date,
    Time,

    /// <summary>Those who lead it.</summary>
    People,
}

/// <summary>A piece, or text between pieces.</summary>
public readonly record struct PatternPart(Piece? Piece, string Text)
{
    public static PatternPart Of(Piece piece) => new(piece, "");

    public static PatternPart Between(string text) => new(null, text);
}

/// <summary>How an edition writes its titles and the lines of its lists.</summary>
public sealed record Pattern(IReadOnlyList<PatternPart> Parts)
{
    public const int MostParts = 15;
    public const int LongestText = 20;

    public static Pattern TitleAlone { get; } = new([PatternPart.Of(Piece.Title)]);

    /// <summary>As soon as there are two sources, so that nobody has to guess whose an entry is.</summary>
    public static Pattern PlateAndTitle { get; } =
        new([PatternPart.Of(Piece.Plate), PatternPart.Between(" "), PatternPart.Of(Piece.Title)]);

    /// <summary>How lines read unless an edition says otherwise.</summary>
    public static Pattern Line { get; } =
        new([PatternPart.Of(Piece.Time), PatternPart.Of(Piece.Plate), PatternPart.Of(Piece.Title), PatternPart.Of(Piece.Place)]);

    /// <summary>What a piece says of an entry; when it is stands beside it.</summary>
    public static string ValueOf(Piece piece, Disclosed disclosed, IReadOnlyList<Source> sources) => piece switch
    {
        Piece.Plate => string.Join(' ', sources.Select(source => source.Plate.Code)),
        Piece.Calendar => string.Join(", ", sources.Select(source => source.Name)),
        Piece.Title => disclosed.Title,
        Piece.Subtitle => disclosed.Content.Subtitle,
        Piece.Place => disclosed.Content.Place.Name,
        Piece.Category => disclosed.Content.Category?.Name ?? "",
        Piece.People => string.Join(", ", disclosed.Content.People.Where(one => one.Part == Part.Leads).Select(one => one.Name)),
        _ => "",
    };

    public bool Has(Piece piece) => Parts.Any(part => part.Piece == piece);

    /// <summary>The pieces with their values; text stands only between two that are not empty, or at the ends beside one.</summary>
    public string Write(Func<Piece, string> valueOf)
    {
        var written = new StringBuilder();
        var waiting = "";
        var isLastWritten = true;
        foreach (var part in Parts)
        {
            if (part.Piece is not { } piece)
            {
                waiting += part.Text;
                continue;
            }
            var value = valueOf(piece);
            if (value.Length > 0)
                written.Append(written.Length > 0 || isLastWritten ? waiting : "").Append(value);
            isLastWritten = value.Length > 0;
            // What stands before an empty piece goes with it; what follows it may still join the next.
            waiting = "";
        }
        return written.Append(isLastWritten ? waiting : "").ToString().Trim();
    }
}
