using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>What is found, of each kind the first so many: a file with a fault in every line is read to its end all the same.</summary>
internal sealed class FaultList
{
    private const int MostOfAKind = 25;

    private readonly List<Fault> _listed = [];
    private readonly Dictionary<string, int> _counts = [];
    private readonly int[] _bySeverity = new int[Enum.GetValues<FaultSeverity>().Length];

    public void Add(string code, FaultSeverity severity, int line, int column, string clause,
        params ReadOnlySpan<(string Name, object? Value)> values)
    {
        _bySeverity[(int)severity]++;
        var count = _counts[code] = _counts.GetValueOrDefault(code) + 1;
        if (count <= MostOfAKind)
            _listed.Add(new Fault(code, severity, line, column, clause, Saying.Of($"check.{code}", values)));
    }

    public void Add(CheckedLine at, int character, string code, FaultSeverity severity, string clause,
        params ReadOnlySpan<(string Name, object? Value)> values)
    {
        var (line, column) = at.Position(character);
        Add(code, severity, line, column, clause, values);
    }

    /// <summary>In the words of whoever refused it.</summary>
    public void Add(CheckedLine at, int character, string code, FaultSeverity severity, string clause, Saying said)
    {
        var before = _listed.Count;
        Add(at, character, code, severity, clause);
        if (_listed.Count > before)
            _listed[^1] = _listed[^1] with { Text = said };
    }

    public bool HasAny(IEnumerable<string> codes) => codes.Any(_counts.ContainsKey);

    public CheckResult Result(int lines, int components, int events) => new(
        [.. _listed.OrderBy(one => one.Line).ThenBy(one => one.Column).ThenBy(one => one.Severity)],
        _bySeverity[(int)FaultSeverity.Error], _bySeverity[(int)FaultSeverity.Warning], _bySeverity[(int)FaultSeverity.Note],
        lines, components, events);
}
