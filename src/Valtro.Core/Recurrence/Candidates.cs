namespace Valtro.Core.Recurrence;

/// <summary>The candidate dates of one period: each of its days at each of its times. Filled again for every period.</summary>
internal sealed class Candidates(int mostDays, int[] times)
{
    public int[] Days { get; } = new int[mostDays];

    public int DayCount { get; private set; }

    /// <summary>Seconds of the day, ascending.</summary>
    public int[] Times { get; } = times;

    /// <summary>The next period that can hold something, when this one is empty.</summary>
    public long Resume { get; private set; }

    public int Count => DayCount * Times.Length;

    /// <summary>Local seconds from 1970-01-01, ascending with the position.</summary>
    public long this[int position]
    {
        get
        {
            if (Times.Length == 1)
                return (long)Days[position] * DayNumbers.SecondsOfDay + Times[0];
            var day = position / Times.Length;
            return (long)Days[day] * DayNumbers.SecondsOfDay + Times[position - day * Times.Length];
        }
    }

    public void Clear(long resume) => (DayCount, Resume) = (0, resume);

    public void Add(int day)
    {
        if (day <= DayNumbers.Last)
            Days[DayCount++] = day;
    }
}

/// <summary>BYSETPOS: which of a period's candidates are dates (RFC 5545 3.3.10).</summary>
internal sealed class SetPositions
{
    private readonly int[] _positions;
    private readonly int[] _chosen;

    private SetPositions(int[] positions) => (_positions, _chosen) = (positions, new int[positions.Length]);

    /// <returns>Null when the rule takes every candidate.</returns>
    public static SetPositions? Of(RecurrenceRule rule) =>
        rule.Parts.SetPositions.Count == 0 ? null : new SetPositions([.. rule.Parts.SetPositions]);

    public int this[int chosen] => _chosen[chosen];

    /// <summary>Chooses among <paramref name="count"/> candidates.</summary>
    /// <returns>How many are chosen; their positions ascend.</returns>
    public int Choose(int count)
    {
        var chosen = 0;
        foreach (var position in _positions)
        {
            var index = position > 0 ? position - 1 : count + position;
            if (index >= 0 && index < count)
                _chosen[chosen++] = index;
        }
        if (chosen < 2)
            return chosen;
        Array.Sort(_chosen, 0, chosen);
        var distinct = 1;
        for (var index = 1; index < chosen; index++)
        {
            if (_chosen[index] != _chosen[distinct - 1])
                _chosen[distinct++] = _chosen[index];
        }
        return distinct;
    }

    /// <summary>How many dates every period gives, or null where that differs.</summary>
    public int? Constant(SetSize size)
    {
        if (size.IsExact)
            return Choose(size.Least);
        var isOneSided = _positions[0] > 0 || _positions[^1] < 0;
        return isOneSided && Math.Max(Math.Abs(_positions[0]), Math.Abs(_positions[^1])) <= size.Least ? _positions.Length : null;
    }
}

/// <summary>How many candidates every period has at least, and whether it never has more.</summary>
internal readonly record struct SetSize(int Least, bool IsExact)
{
    public static SetSize Unknown { get; } = new(0, false);

    public static SetSize Exactly(int count) => new(count, true);
}
