namespace Valtro.Core.ICalendar.Reading;

/// <summary>A content line of somebody's file, unfolded (RFC 5545 3.1).</summary>
/// <param name="Name">In capitals.</param>
/// <param name="Value">As it stands there, still escaped.</param>
/// <param name="Line">Of the file, from 1, on which it begins.</param>
public sealed record ForeignLine(string Name, string Value, int Line)
{
    /// <summary>Names in capitals, values without quotation marks; more than one value of a parameter with commas between.</summary>
    public IReadOnlyList<(string Name, string Value)> Parameters { get; init; } = [];

    /// <summary>It was longer than anybody reads: the rest is left out.</summary>
    public bool IsCut { get; init; }

    /// <summary>Where in the text of the unfolded line each further line of the file begins, and at which of its columns that is.</summary>
    public IReadOnlyList<(int Offset, int Column)> Folds { get; init; } = [];

    /// <summary>How many characters of the unfolded line stand before the value.</summary>
    public int ValueAt { get; init; }

    public string? Parameter(string name)
    {
        foreach (var one in Parameters)
        {
            if (one.Name == name)
                return one.Value;
        }
        return null;
    }

    /// <summary>Where in the file a character of the unfolded line stands: line and column, from 1.</summary>
    public (int Line, int Column) PositionOf(int offset)
    {
        var folds = 0;
        while (folds < Folds.Count && Folds[folds].Offset <= offset)
            folds++;
        return folds == 0 ? (Line, offset + 1) : (Line + folds, offset - Folds[folds - 1].Offset + Folds[folds - 1].Column);
    }
}
