using NodaTime;
using Valtro.Core.Time;

namespace Valtro.Core.Recurrence;

/// <summary>FREQ of a recurrence rule (RFC 5545 3.3.10), from short to long.</summary>
public enum Frequency
{
    Secondly,
    Minutely,
    Hourly,
    Daily,
    Weekly,
    Monthly,
    Yearly,
}

/// <summary>What becomes of the 29th to 31st in months that have none (RFC 7529 4.1).</summary>
public enum Skip
{
    Omit,
    Backward,
    Forward,
}

/// <summary>The inclusive end of a rule: an instant for timed events, a date for all-day ones (RFC 5545 3.3.10, UNTIL).</summary>
public abstract record Until
{
    private Until()
    {
    }

    public sealed record Moment(Instant Instant) : Until;

    public sealed record Day(LocalDate Date) : Until;

    /// <summary>It lies after a day, wherever one looks from.</summary>
    public bool IsBeyond(LocalDate day) => this switch
    {
        Day until => until.Date > day,
        Moment until => until.Instant > day.PlusDays(2).AtMidnight().InUtc().ToInstant(),
        _ => false,
    };

    /// <summary>The end that still takes in a date starting at <paramref name="last"/>.</summary>
    public static Until Including(LocalDateTime last, Timing timing) => timing.AllDay
        ? new Day(last.Date)
        : new Moment(LocalTimes.InZone(last, timing.Zone).ToInstant());
}

/// <summary>A weekday of BYDAY.</summary>
/// <param name="Ordinal">1 is the first of the month or year, -1 the last; 0 is each.</param>
public readonly record struct NumberedWeekday(IsoDayOfWeek Weekday, int Ordinal = 0) : IComparable<NumberedWeekday>
{
    /// <summary>By weekday, then by number.</summary>
    public int CompareTo(NumberedWeekday other) => ((int)Weekday, Ordinal).CompareTo(((int)other.Weekday, other.Ordinal));
}

/// <summary>The parts of a rule as somebody wrote them, unchecked.</summary>
public sealed record RuleParts
{
    public required Frequency Frequency { get; init; }
    public int Interval { get; init; } = 1;
    public int? Count { get; init; }
    public Until? Until { get; init; }
    public IReadOnlyList<int> Seconds { get; init; } = [];
    public IReadOnlyList<int> Minutes { get; init; } = [];
    public IReadOnlyList<int> Hours { get; init; } = [];
    public IReadOnlyList<NumberedWeekday> Weekdays { get; init; } = [];
    public IReadOnlyList<int> MonthDays { get; init; } = [];
    public IReadOnlyList<int> YearDays { get; init; } = [];
    public IReadOnlyList<int> WeekNumbers { get; init; } = [];
    public IReadOnlyList<int> Months { get; init; } = [];
    public IReadOnlyList<int> SetPositions { get; init; } = [];

    /// <summary>WKST: the day on which weeks begin. Monday unless said.</summary>
    public IsoDayOfWeek WeekStart { get; init; } = IsoDayOfWeek.Monday;

    public Skip Skip { get; init; }
}

/// <summary>A recurrence rule: RECUR of RFC 5545 3.3.10 with SKIP of RFC 7529, validated once, immutable.</summary>
public sealed record RecurrenceRule
{
    public const int LargestInterval = 10_000;
    public const int LargestCount = 100_000;

    /// <summary>The parts, each list ascending and without duplicates.</summary>
    public RuleParts Parts { get; }

    public Frequency Frequency => Parts.Frequency;

    public int Interval => Parts.Interval;

    public int? Count => Parts.Count;

    public Until? Until => Parts.Until;

    /// <summary>True when its dates all have the start's time of day, so that they follow when it moves.</summary>
    public bool KeepsTimeOfDay => Parts is { Frequency: >= Frequency.Daily, Hours.Count: 0, Minutes.Count: 0, Seconds.Count: 0 };

    /// <exception cref="RuleException">RFC 5545 forbids it; the part is named in the refusal's field.</exception>
    public RecurrenceRule(RuleParts parts)
    {
        RuleChecks.Check(parts);
        Parts = parts with
        {
            Seconds = Sorted(parts.Seconds),
            Minutes = Sorted(parts.Minutes),
            Hours = Sorted(parts.Hours),
            Weekdays = Sorted(parts.Weekdays),
            MonthDays = Sorted(parts.MonthDays),
            YearDays = Sorted(parts.YearDays),
            WeekNumbers = Sorted(parts.WeekNumbers),
            Months = Sorted(parts.Months),
            SetPositions = Sorted(parts.SetPositions),
        };
    }

    /// <summary>Checks what can be known only with the start.</summary>
    /// <param name="zone">Null for whole days.</param>
    /// <exception cref="RuleException">UNTIL is of another kind than the start, or before it; or whole days are given times.</exception>
    public RecurrenceRule CheckedAgainst(LocalDateTime start, DateTimeZone? zone)
    {
        RuleChecks.CheckAgainst(this, start, zone);
        return this;
    }

    /// <summary>The same rule with another end.</summary>
    public RecurrenceRule Ending(int? count, Until? until) => new(Parts with { Count = count, Until = until });

    public bool Equals(RecurrenceRule? other) => other is not null && RuleText.Format(this) == RuleText.Format(other);

    public override int GetHashCode() => RuleText.Format(this).GetHashCode(StringComparison.Ordinal);

    public override string ToString() => RuleText.Format(this);

    /// <summary>Most lists are written in order already.</summary>
    private static IReadOnlyList<T> Sorted<T>(IReadOnlyList<T> values)
        where T : IComparable<T>
    {
        for (var index = 1; index < values.Count; index++)
        {
            if (values[index - 1].CompareTo(values[index]) >= 0)
                return [.. values.Distinct().Order()];
        }
        return values;
    }
}
