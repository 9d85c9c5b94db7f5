namespace Valtro.Core.ICalendar.Checking;

/// <summary>A parameter as it is written.</summary>
/// <param name="Values">Without quotation marks.</param>
/// <param name="At">Where its name begins in the line.</param>
internal readonly record struct CheckedParameter(string Name, IReadOnlyList<string> Values, int At)
{
    public string Value => Values.Count > 0 ? Values[0] : "";
}

/// <summary>A content line, unfolded, that knows where each of its characters stands in the file.</summary>
/// <param name="Name">In capitals.</param>
/// <param name="ValueAt">Where the value begins in the line.</param>
internal sealed record CheckedLine(
    string Name, IReadOnlyList<CheckedParameter> Parameters, string Value, int ValueAt, int Line, IReadOnlyList<(int At, int Line)> Folds)
{
    /// <summary>Line and column of the file for a character of the unfolded line.</summary>
    public (int Line, int Column) Position(int at)
    {
        for (var fold = Folds.Count - 1; fold >= 0; fold--)
        {
            // A line that goes on begins with a blank that is not its own.
            if (Folds[fold].At <= at)
                return (Folds[fold].Line, at - Folds[fold].At + 2);
        }
        return (Line, at + 1);
    }

    public CheckedParameter? Parameter(string name)
    {
        foreach (var one in Parameters)
        {
            if (one.Name == name)
                return one;
        }
        return null;
    }

    public string? this[string parameter] => Parameter(parameter)?.Value;
}
