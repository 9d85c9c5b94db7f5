using NodaTime;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Recurrence;

/// <summary>When an event happens: its first date, and what makes more of it.</summary>
/// <param name="Timing">The first date.</param>
/// <param name="Rule">The rule, or null for a one-time event or one that follows the day cycle.</param>
/// <param name="Extra">Further local starts (RDATE), ascending. Breaks do not touch them: somebody chose them.</param>
/// <param name="Removed">Rule positions that fall away (EXDATE), ascending.</param>
public sealed record Series(
    Timing Timing,
    RecurrenceRule? Rule,
    IReadOnlyList<LocalDateTime> Extra,
    IReadOnlyList<LocalDateTime> Removed)
{
    /// <summary>More than any calendar needs of one series at once: a window holds its first so many dates, and no more.</summary>
    public const int MostInWindow = 50_000;

    private Expansion? _expansion;

    public Series(Timing timing, RecurrenceRule? rule = null)
        : this(timing, rule, [], [])
    {
    }

    /// <summary>A copy begins without what was worked out for another rule or start.</summary>
    private Series(Series original)
    {
        (Timing, Rule, Extra, Removed) = (original.Timing, original.Rule, original.Extra, original.Removed);
        (Cycle, InBreaks, CountsTaking) = (original.Cycle, original.InBreaks, original.CountsTaking);
    }

    /// <summary>False where the rule leaves its start out; it counts as the first date all the same.</summary>
    public bool RuleGivesItsStart => Rule is null || Expansion.GivesItsStart;

    /// <summary>The rule made ready, once.</summary>
    private Expansion Expansion => _expansion ??= new Expansion(Rule!, Timing.Start);

    /// <summary>Instead of a rule: the dates follow the day cycle of the year plan.</summary>
    public CyclePattern? Cycle { get; init; }

    public InBreaks InBreaks { get; init; }

    /// <summary>A rule's count is of the dates that take place: what falls in a break is made up for at the end. Else it is of the
    /// positions of the rule, as RFC 5545 has it.</summary>
    public bool CountsTaking { get; init; }

    /// <summary>True when it has more than one date, or may have.</summary>
    public bool Recurs => Rule is not null || Cycle is not null || Extra.Count > 0;

    /// <summary>True when it goes on for ever. What follows the day cycle ends with the year plans.</summary>
    public bool IsEndless => Rule is { Count: null, Until: null };

    /// <summary>True when the year plan has a say in its dates.</summary>
    public bool FollowsYearPlan => Cycle is not null || (InBreaks != InBreaks.Ignore && Rule is not null);

    /// <summary>The dates that overlap <paramref name="window"/>, ascending by start.</summary>
    /// <remarks>The cost depends on the window, not on how far it lies from the first date.</remarks>
    public IEnumerable<Occurrence> In(Window window, SchoolCalendar school)
    {
        // Breaks let a single date be.
        if (!Recurs && Removed.Count == 0)
            return Timing.Occurrence(Timing.Start) is var only && only.Overlaps(window, Timing.AllDay) ? [only] : [];
        // A day on each side is more than any zone's offset or clock change, also one during the event; the exact test follows.
        var from = Timing.AllDay
            ? DayNumbers.Of(window.First) - (long)Timing.Days - LongestMove
            : (window.From - Timing.Duration).ToUnixTimeSeconds() / DayNumbers.SecondsOfDay - 1 - LongestMove;
        var to = Timing.AllDay ? DayNumbers.Of(window.End) : window.To.ToUnixTimeSeconds() / DayNumbers.SecondsOfDay + 2;
        return IsByRuleAlone
            ? ByRuleIn(window, (from - 1) * DayNumbers.SecondsOfDay, to * (long)DayNumbers.SecondsOfDay)
            : In(window, DayNumbers.Date((int)from - 1).AtMidnight(), DayNumbers.Date((int)to).AtMidnight(), school);
    }

    private IEnumerable<Occurrence> In(Window window, LocalDateTime from, LocalDateTime to, SchoolCalendar school)
    {
        var count = 0;
        foreach (var occurrence in From(from, school))
        {
            if (occurrence.RecurrenceId >= to)
                yield break;
            if (!occurrence.Overlaps(window, Timing.AllDay))
                continue;
            yield return occurrence;
            if (++count == MostInWindow)
                yield break;
        }
    }

    /// <summary>The same for the plain case, in one pass: most series are a rule and nothing more.</summary>
    private IEnumerable<Occurrence> ByRuleIn(Window window, long from, long to)
    {
        var dates = Expansion.Walk(from);
        var walk = new LocalTimeWalk(Timing.Zone);
        var moved = default(MovedDates);
        var count = 0;
        while (dates.Next(out var moment) && moment < to)
        {
            var local = dates.Local;
            var occurrence = Timing.At(local, local, moment, ref walk);
            if (IsPast(occurrence))
                break;
            while (moved.TakeBefore(occurrence.Start, out var earlier))
                yield return earlier;
            if (!occurrence.Overlaps(window, Timing.AllDay))
                continue;
            if (++count > MostInWindow)
                break;
            if (occurrence.LocalStart == local)
                yield return occurrence;
            else
                moved.Add(occurrence);
        }
        while (moved.TakeBefore(Instant.MaxValue, out var last))
            yield return last;
    }

    private bool IsByRuleAlone => Rule is not null && Extra.Count == 0 && Removed.Count == 0 && InBreaks == InBreaks.Ignore;

    /// <summary>UNTIL is inclusive.</summary>
    private bool IsPast(in Occurrence occurrence) => Rule!.Until switch
    {
        null => false,
        Until.Day day => occurrence.LocalStart.Date > day.Date,
        Until.Moment moment => occurrence.Start > moment.Instant,
        _ => false,
    };

    /// <summary>The dates whose rule position is on or after <paramref name="from"/>, ascending by start, without duplicates, without end
    /// where there is none.</summary>
    public IEnumerable<Occurrence> From(LocalDateTime from, SchoolCalendar school)
    {
        var walk = new LocalTimeWalk(Timing.Zone);
        var moved = new MovedDates();
        var removed = 0;
        foreach (var (id, start) in Positions(from, school))
        {
            while (removed < Removed.Count && Removed[removed] < id)
                removed++;
            if (removed < Removed.Count && Removed[removed] == id)
                continue;
            var occurrence = Timing.At(id, start, ref walk);
            while (moved.TakeBefore(occurrence.Start, out var earlier))
                yield return earlier;
            if (occurrence.LocalStart == id)
                yield return occurrence;
            else
                moved.Add(occurrence);
        }
        while (moved.TakeBefore(Instant.MaxValue, out var last))
            yield return last;
    }

    /// <summary>All dates; the caller says how many it wants.</summary>
    public IEnumerable<Occurrence> All(SchoolCalendar school) => From(LocalDate.MinIsoValue.AtMidnight(), school);

    /// <summary>Whether the pattern or an extra date gives that rule position, breaks and removals aside.</summary>
    public bool Gives(LocalDateTime id, SchoolCalendar school) => Extra.Contains(id) || Pattern(id, school).FirstOrDefault() == id;

    /// <summary>The rule positions of the pattern alone, without extra dates, removals and breaks.</summary>
    public IEnumerable<LocalDateTime> Pattern(LocalDateTime from, SchoolCalendar school)
    {
        if (Cycle is not null)
            return Cycle.Days(Timing.Start.Date, school).Select(day => day + Timing.Start.TimeOfDay).SkipWhile(start => start < from);
        if (Rule is null)
            return Timing.Start >= from ? [Timing.Start] : [];
        if (Rule.Count is { } count && CountsTaking && InBreaks != InBreaks.Ignore)
            return Taking(count, school).SkipWhile(start => start < from);
        var starts = Expansion.From(from);
        return Rule.Until is { } until ? starts.TakeWhile(NotAfter(until)) : starts;
    }

    /// <summary>Positions of the rule, until so many of them take place.</summary>
    private IEnumerable<LocalDateTime> Taking(int count, SchoolCalendar school)
    {
        foreach (var start in new Expansion(Rule!.Ending(null, null), Timing.Start).From(LocalDate.MinIsoValue.AtMidnight()))
        {
            yield return start;
            if (OutsideBreaks(start, school) is not null && --count == 0)
                yield break;
        }
    }

    /// <summary>How much of its count some positions of the rule spend.</summary>
    public int Spent(IReadOnlyCollection<LocalDateTime> positions, SchoolCalendar school) =>
        CountsTaking ? positions.Count(start => OutsideBreaks(start, school) is not null) : positions.Count;

    private int LongestMove => InBreaks == InBreaks.Move ? 7 : 0;

    private IEnumerable<(LocalDateTime Id, LocalDateTime Start)> Positions(LocalDateTime from, SchoolCalendar school)
    {
        var pattern = InBreaks == InBreaks.Ignore || Rule is null
            ? Pattern(from, school).Select(start => (start, start))
            : Pattern(from, school).Select(start => (start, Start: OutsideBreaks(start, school))).Where(one => one.Start is not null)
                .Select(one => (one.start, one.Start!.Value));
        return Extra.Count == 0 ? pattern : WithExtra(pattern, from);
    }

    private LocalDateTime? OutsideBreaks(LocalDateTime start, SchoolCalendar school)
    {
        if (!school.IsClosed(start.Date))
            return start;
        return InBreaks == InBreaks.Move ? school.NextOpenInWeek(start.Date) + start.TimeOfDay : null;
    }

    /// <summary>UNTIL is inclusive. A day before it no zone needs to be asked.</summary>
    private Func<LocalDateTime, bool> NotAfter(Until until)
    {
        if (until is Until.Day day)
            return local => local.Date <= day.Date;
        var moment = ((Until.Moment)until).Instant;
        var surely = moment.InZone(Timing.Zone).LocalDateTime.PlusDays(-1);
        return local => local < surely || LocalTimes.InZone(local, Timing.Zone).ToInstant() <= moment;
    }

    private IEnumerable<(LocalDateTime Id, LocalDateTime Start)> WithExtra(IEnumerable<(LocalDateTime Id, LocalDateTime Start)> pattern,
        LocalDateTime from)
    {
        var next = 0;
        while (next < Extra.Count && Extra[next] < from)
            next++;
        foreach (var position in pattern)
        {
            for (; next < Extra.Count && Extra[next] < position.Id; next++)
                yield return (Extra[next], Extra[next]);
            if (next < Extra.Count && Extra[next] == position.Id)
                next++;
            yield return position;
        }
        for (; next < Extra.Count; next++)
            yield return (Extra[next], Extra[next]);
    }

    /// <summary>From the first start to the last end, for finding the event by time; null as the end when it has none.</summary>
    /// <remarks>
    /// Wider by a day on each side for an all-day event, which has no zone of its own, and by a week where breaks move dates.
    /// A series that follows the day cycle, or makes up for breaks, reaches as far as it may: the year plan can change.
    /// </remarks>
    public (Instant From, Instant? To) Reach()
    {
        var margin = Duration.FromDays((Timing.AllDay ? 1 : 0) + LongestMove);
        var walk = new LocalTimeWalk(Timing.Zone);
        var first = walk.Resolve(Extra.Count > 0 && Extra[0] < Timing.Start ? Extra[0] : Timing.Start).ToInstant();
        if (IsEndless || Cycle is not null || (CountsTaking && Rule?.Count is not null) || Rule?.Until?.IsBeyond(DayRange.Last) == true)
            return (first - margin, null);
        if (Rule is null && Extra.Count == 0)
            return (first - margin, Timing.Occurrence(Timing.Start).End + Duration.FromHours(Timing.AllDay ? 2 : 0) + margin);
        var last = first;
        foreach (var occurrence in (this with { InBreaks = InBreaks.Ignore, Removed = [] }).All(SchoolCalendar.Empty))
            last = Instant.Max(last, occurrence.End);
        return (first - margin, last + margin);
    }

    public bool Equals(Series? other) =>
        other is not null && Timing == other.Timing && Equals(Rule, other.Rule) && Equals(Cycle, other.Cycle) && InBreaks == other.InBreaks
        && CountsTaking == other.CountsTaking
        && Extra.SequenceEqual(other.Extra) && Removed.SequenceEqual(other.Removed);

    public override int GetHashCode() => HashCode.Combine(Timing, Rule, InBreaks, Extra.Count, Removed.Count);
}

/// <summary>Dates that a clock change or a break has moved on, waiting for their place among the others.</summary>
internal struct MovedDates
{
    private List<Occurrence>? _waiting;

    public void Add(Occurrence occurrence)
    {
        _waiting ??= [];
        var place = _waiting.FindIndex(other => other.Start >= occurrence.Start);
        if (place < 0)
            _waiting.Add(occurrence);
        else if (_waiting[place].Start != occurrence.Start)
            _waiting.Insert(place, occurrence);
    }

    /// <summary>The first that waits, if it starts before an instant; one that starts just then is the same date twice, and goes.</summary>
    public readonly bool TakeBefore(Instant start, out Occurrence occurrence)
    {
        occurrence = default;
        if (_waiting is not { Count: > 0 })
            return false;
        occurrence = _waiting[0];
        if (occurrence.Start > start)
            return false;
        _waiting.RemoveAt(0);
        return occurrence.Start < start || TakeBefore(start, out occurrence);
    }
}
