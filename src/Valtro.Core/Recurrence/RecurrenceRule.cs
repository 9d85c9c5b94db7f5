using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>FREQ of a recurrence rule that Valtro expands so far (RFC 5545 3.3.10).</summary>
public enum Frequency
{
    Daily,
    Weekly,
}

/// <summary>The inclusive end of a rule: an instant for timed events, a date for all-day ones (RFC 5545 3.3.10, UNTIL).</summary>
public abstract record Until
{
    private Until()
    {
    }

    public sealed record Moment(Instant Instant) : Until;

    public sealed record Day(LocalDate Date) : Until;
}

/// <summary>A recurrence rule: RECUR of RFC 5545 3.3.10, validated once, immutable.</summary>
/// <remarks>
/// Weekdays limit a daily rule and expand a weekly one. A weekly rule without weekdays recurs on the weekday of its start.
/// </remarks>
public sealed record RecurrenceRule
{
    public const int LargestInterval = 10_000;
    public const int LargestCount = 100_000;

    public Frequency Frequency { get; }
    public int Interval { get; }
    public int? Count { get; }
    public Until? Until { get; }

    /// <summary>BYDAY, ascending from Monday, without duplicates.</summary>
    public IReadOnlyList<IsoDayOfWeek> Weekdays { get; }

    /// <summary>WKST: the day on which the weeks of INTERVAL begin. Monday unless said.</summary>
    public IsoDayOfWeek WeekStart { get; }

    /// <exception cref="RuleException">RFC 5545 forbids it; the part is named in the refusal's field.</exception>
    public RecurrenceRule(
        Frequency frequency,
        int interval = 1,
        int? count = null,
        Until? until = null,
        IEnumerable<IsoDayOfWeek>? weekdays = null,
        IsoDayOfWeek weekStart = IsoDayOfWeek.Monday)
    {
        if (interval is < 1 or > LargestInterval)
            throw new RuleException("INTERVAL", $"INTERVAL is {interval}. It has to be from 1 to {LargestInterval}.");
        if (count is < 1 or > LargestCount)
            throw new RuleException("COUNT", $"COUNT is {count}. It has to be from 1 to {LargestCount}.");
        if (count is not null && until is not null)
            throw new RuleException("COUNT", "COUNT and UNTIL stand in the same rule. Use one of them.");
        Frequency = frequency;
        Interval = interval;
        Count = count;
        Until = until;
        Weekdays = (weekdays ?? []).Distinct().Order().ToArray();
        WeekStart = weekStart;
    }

    /// <summary>Checks what can be known only with the start.</summary>
    /// <exception cref="RuleException">UNTIL is of another kind than the start, or before it.</exception>
    public RecurrenceRule CheckedAgainst(LocalDateTime start, DateTimeZone? zone)
    {
        switch (Until)
        {
            case Until.Moment moment when zone is null:
                throw new RuleException("UNTIL", $"UNTIL is a time ({moment.Instant}) but the event lasts all day. Use a date such as 20261218.");
            case Until.Day when zone is not null:
                throw new RuleException("UNTIL", "UNTIL is a date but the event has a time. Use a UTC time such as 20261218T235959Z.");
            case Until.Moment moment when moment.Instant < Time.LocalTimes.InZone(start, zone!).ToInstant():
                throw new RuleException("UNTIL", "The rule ends before its first date. Use an end on or after the start.");
            case Until.Day day when day.Date < start.Date:
                throw new RuleException("UNTIL", "The rule ends before its first date. Use an end on or after the start.");
        }
        return this;
    }

    public bool Equals(RecurrenceRule? other) => other is not null && RuleText.Format(this) == RuleText.Format(other);

    public override int GetHashCode() => RuleText.Format(this).GetHashCode(StringComparison.Ordinal);

    public override string ToString() => RuleText.Format(this);
}
