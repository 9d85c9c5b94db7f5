using NodaTime;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Events;

/// <summary>Changes one date, a date and all later ones, or every date. Pure: old event + change → new event.</summary>
public sealed class SeriesEdit(CalendarEvent before, Change change, SchoolCalendar school)
{
    private readonly Series _series = before.Series;

    /// <summary>Whether it can be for one date, for later ones, or for all. Dates that were only added or taken out are that of the
    /// series.</summary>
    public bool HasChoice => _series.Recurs && !IsOfSingleDates;

    /// <summary>Nothing is another but which dates there are besides the pattern.</summary>
    private bool IsOfSingleDates => change.Typed is { Series: var typed } content
        && !(Days(typed.Extra).SequenceEqual(Days(_series.Extra)) && Days(typed.Removed).SequenceEqual(Days(_series.Removed)))
        && !RuleOrBreaksChanged
        && EventDates.Find(before, change.SeenFrom, school) is { } seen
        && typed.Timing == seen.Timing
        && content.Differences(seen.Content).All(one => one.Type == typeof(Series));

    /// <param name="keep">Of the exceptions that lose their place, those to keep as extra dates.</param>
    /// <exception cref="RuleException">The change is not possible in that scope; the field is "scope" or one of the form.</exception>
    public ChangeOutcome Apply(ChangeScope scope, IReadOnlySet<LocalDateTime> keep)
    {
        if (!_series.Recurs)
            scope = ChangeScope.Every;
        else if (scope == ChangeScope.Later && IsFirst)
            scope = ChangeScope.Every;
        return change.Act switch
        {
            ChangeAct.Edit when scope == ChangeScope.This => EditThis(),
            ChangeAct.Edit when scope == ChangeScope.Later => EditLater(keep),
            ChangeAct.Edit => EditEvery(keep),
            ChangeAct.Cancel when scope == ChangeScope.This => WithException(Exception() with { IsCancelled = true }),
            ChangeAct.Cancel when scope == ChangeScope.Later => CancelLater(keep),
            ChangeAct.Cancel => new ChangeOutcome(before with { State = EventState.Cancelled }) { Kept = before.Exceptions },
            ChangeAct.Remove => Remove(scope),
            _ => Restore(scope),
        };
    }

    /// <summary>Nothing of the pattern lies before the date seen.</summary>
    private bool IsFirst => !DatesBefore(_series, change.SeenFrom).Any() && !_series.Extra.Any(date => date < change.SeenFrom);

    /// <summary>The date as the form showed it. A series that has lost all its dates is seen as its first one would be.</summary>
    private EventDate Seen => EventDates.Find(before, change.SeenFrom, school)
        ?? (change.SeenFrom == _series.Timing.Start
            ? new EventDate(before, _series.Timing.Occurrence(change.SeenFrom), null)
            : default(EventDate?))
        ?? throw new RuleException("recurrenceId", "scope.noSuchDate");

    private EventException Exception() =>
        before.Exceptions.FirstOrDefault(one => one.RecurrenceId == change.SeenFrom) ?? new EventException(change.SeenFrom);

    private ChangeOutcome CancelLater(IReadOnlySet<LocalDateTime> keep)
    {
        var split = Split(_series with { Timing = _series.Timing.StartingAt(change.SeenFrom) }, 0, before.Content, before.Exceptions, keep);
        return split with { Successor = split.Successor! with { State = EventState.Cancelled } };
    }

    private EventException[] ExceptionsBut(LocalDateTime id) => [.. before.Exceptions.Where(one => one.RecurrenceId != id)];

    private ChangeOutcome WithException(EventException exception)
    {
        var others = ExceptionsBut(exception.RecurrenceId);
        return new ChangeOutcome(before with { Exceptions = exception.IsEmpty ? others : Sorted([.. others, exception]) })
        {
            Kept =
            others
        };
    }

    private static EventException[] Sorted(IEnumerable<EventException> exceptions) => [.. exceptions.OrderBy(one => one.RecurrenceId)];

    private ChangeOutcome EditThis()
    {
        var (typed, seen) = (change.Typed!, Seen);
        if (PatternChanged)
            throw new RuleException("scope", "scope.patternOfOneDate");
        if (typed.Series.Timing.AllDay != _series.Timing.AllDay)
            throw new RuleException("scope", "scope.allDayOfOneDate");
        if (typed.Series.Timing.Zone != _series.Timing.Zone)
            throw new RuleException("scope", "scope.zoneOfOneDate");
        if (typed.Differences(before.Content).Any(field => !field.IsOfOneDate && field.Type != typeof(Series)))
            throw new RuleException("scope", "scope.fieldsOfSeries");
        var exception = Exception();
        var (start, end) = (typed.Series.Timing.Start, typed.Series.Timing.End);
        var ruled = _series.From(change.SeenFrom, school).FirstOrDefault(one => one.RecurrenceId == change.SeenFrom);
        var isWhereItWas = start == ruled.LocalStart && end == ruled.LocalEnd;
        return WithException(exception with
        {
            Start = isWhereItWas ? null : start,
            End = isWhereItWas ? null : end,
            Own = OwnFields.Between(before.Content, typed),
        });
    }

    /// <summary>The sentence, the dates added and removed, or what happens in breaks were changed.</summary>
    private bool PatternChanged
    {
        get
        {
            var typed = change.Typed!.Series;
            return RuleOrBreaksChanged
                || !Days(typed.Extra).SequenceEqual(Days(_series.Extra))
                || !Days(typed.Removed).SequenceEqual(Days(_series.Removed));
        }
    }

    private bool RuleOrBreaksChanged => change.Typed!.Series is var typed
        && (RepeatChanged || typed.InBreaks != _series.InBreaks || typed.CountsTaking != _series.CountsTaking);

    /// <summary>The sentence is compared, not the rule: the last day is a moment in the rule, and moves with the time of day.</summary>
    private bool RepeatChanged => change.Typed!.Series is var typed
        && !(Equals(typed.Rule, _series.Rule) && Equals(typed.Cycle, _series.Cycle))
        && !Equals(RepeatDraft.Of(typed), RepeatDraft.Of(_series));

    private static IEnumerable<LocalDate> Days(IEnumerable<LocalDateTime> dates) => dates.Select(date => date.Date);

    private ChangeOutcome EditEvery(IReadOnlySet<LocalDateTime> keep)
    {
        var (series, days) = Changed(_series, _series.Timing.Start.Date);
        var changed = before with { Content = MergedContent(series) };
        return Rebased(changed, WithoutWhatWasTyped(before.Exceptions), days, 0, keep);
    }

    private ChangeOutcome EditLater(IReadOnlySet<LocalDateTime> keep)
    {
        var (series, days) = Changed(_series, Seen.Occurrence.RecurrenceId.Date);
        return Split(series, days, MergedContent(series), WithoutWhatWasTyped(before.Exceptions), keep);
    }

    /// <summary>The series as the change makes it, and by how many days it moved.</summary>
    /// <param name="startDay">The day that moves: the first of the series, or the one seen.</param>
    private (Series Series, int Days) Changed(Series series, LocalDate startDay)
    {
        var typed = change.Typed!.Series;
        var seen = Seen.Timing;
        var days = Period.DaysBetween(seen.Start.Date, typed.Timing.Start.Date);
        var start = startDay.PlusDays(days) + (typed.Timing.AllDay ? LocalTime.Midnight : TimeOfDay(series, seen, typed.Timing));
        var timing = SameLength(seen, typed.Timing) && typed.Timing.AllDay == series.Timing.AllDay
            ? In(typed.Timing, series.Timing.Start, series.Timing.End, start)
            : In(typed.Timing, typed.Timing.Start, typed.Timing.End, start);
        var rule = RepeatChanged ? typed.Rule : ShiftedRule(series, seen.Start.Date, days, timing);
        if (RepeatChanged && rule?.Until is not null && RepeatDraft.LastDay(rule.Until, typed.Timing) is { } last)
            rule = rule.Ending(null, Until.Including(last + timing.Start.TimeOfDay, timing));
        return (new Series(timing, rule, Retimed(typed.Extra, series.Extra, series, timing, days),
            Retimed(typed.Removed, series.Removed, series, timing, days))
        {
            Cycle = typed.Cycle,
            InBreaks = typed.InBreaks,
            CountsTaking = typed.CountsTaking,
        }, days);
    }

    /// <summary>Where only this date had another time, the series keeps its own.</summary>
    private static LocalTime TimeOfDay(Series series, Timing seen, Timing typed) =>
        seen.Start.TimeOfDay == typed.Start.TimeOfDay && !seen.AllDay ? series.Timing.Start.TimeOfDay : typed.Start.TimeOfDay;

    private static bool SameLength(Timing one, Timing other) => one.AllDay == other.AllDay && one.Duration == other.Duration;

    /// <summary>Of the typed kind and zone, as long as from <paramref name="from"/> to <paramref name="to"/>, starting at
    /// <paramref name="start"/>.</summary>
    private static Timing In(Timing typed, LocalDateTime from, LocalDateTime to, LocalDateTime start) =>
        typed.Between(start, start.Plus(Period.Between(from, to, PeriodUnits.Days | PeriodUnits.AllTimeUnits)));

    private RecurrenceRule? ShiftedRule(Series series, LocalDate seen, int days, Timing timing)
    {
        if (series.Cycle is not null && days != 0)
            throw new RuleException("scope", "scope.cycleCannotMove");
        if (series.Rule is not { } rule)
            return null;
        var shifted = RuleShift.Shift(rule, seen, seen.PlusDays(days));
        return RepeatDraft.LastDay(rule.Until, series.Timing) is { } last
            ? shifted.Ending(null, Until.Including(last.PlusDays(days) + timing.Start.TimeOfDay, timing))
            : shifted;
    }

    /// <summary>Dates added and removed before follow the series: by days, and where they had its time, to its new time. New ones were
    /// chosen where they are.</summary>
    private static LocalDateTime[] Retimed(
        IReadOnlyList<LocalDateTime> typed, IReadOnlyList<LocalDateTime> old, Series series, Timing timing, int days)
    {
        var known = Days(old).ToHashSet();
        return [.. typed.Select(date => Moved(date, known.Contains(date.Date) ? days : 0, series, timing)).Distinct().Order()];
    }

    /// <summary>Where a date is that moved with its series: by days, and where it had the series' time, to its new one.</summary>
    internal static LocalDateTime Moved(LocalDateTime date, int days, Series series, Timing timing) =>
        date.Date.PlusDays(days) + TimeOf(date.TimeOfDay, series, timing);

    private static LocalTime TimeOf(LocalTime time, Series series, Timing timing) =>
        timing.AllDay
            ? LocalTime.Midnight
            : time == series.Timing.Start.TimeOfDay || series.Timing.AllDay || series.Rule?.KeepsTimeOfDay != false
            ? timing.Start.TimeOfDay
            : time;

    /// <summary>Only what was changed on screen is changed in the series: a date's own title does not become everybody's.</summary>
    private EventContent MergedContent(Series series)
    {
        var (typed, seen) = (change.Typed!, Seen.Content);
        return typed.With(before.Content, field => field.IsOfOneDate && field.IsSame(typed, seen)) with { Series = series };
    }

    /// <summary>What was typed for every date goes for the date seen too, whatever of its own it had.</summary>
    private IEnumerable<EventException> WithoutWhatWasTyped(IEnumerable<EventException> exceptions)
    {
        var (typed, seen) = (change.Typed!, Seen);
        var isMoved = typed.Series.Timing != seen.Timing;
        return exceptions.Select(exception => exception.RecurrenceId != change.SeenFrom ? exception : exception with
        {
            Own = exception.Own.Without(field => !field.IsSame(typed, seen.Content)),
            Start = isMoved ? null : exception.Start,
            End = isMoved ? null : exception.End,
        }).Where(exception => !exception.IsEmpty);
    }

    /// <summary>The series ends before the date seen, and another goes on from there.</summary>
    /// <param name="later">The series from the date seen on.</param>
    private ChangeOutcome Split(
        Series later, int days, EventContent content, IEnumerable<EventException> exceptions, IReadOnlySet<LocalDateTime> keep)
    {
        var at = change.SeenFrom;
        if (_series.Extra.Contains(at))
            throw new RuleException("scope", "scope.addedByHand");
        var passed = DatesBefore(_series, at).ToArray();
        var first = later.Timing.Start.Date;
        var rest = later with
        {
            Rule = later.Rule is { Count: { } count } && count == _series.Rule?.Count
                ? later.Rule.Ending(Math.Max(1, count - _series.Spent(passed, school)), null)
                : later.Rule,
            Cycle = later.Cycle is { Count: { } cycleCount } && cycleCount == _series.Cycle?.Count
                ? later.Cycle with { Count = Math.Max(1, cycleCount - passed.Length) }
                : later.Cycle,
            Extra = [.. later.Extra.Where(date => date.Date >= first)],
            Removed = [.. later.Removed.Where(date => date.Date >= first)],
        };
        var successor = before with
        {
            Id = Guid.Empty,
            Uid = default,
            Content = content with { Series = rest },
            Continues = before.Uid,
            Exceptions = [],
        };
        var outcome = Rebased(successor, exceptions.Where(one => one.RecurrenceId >= at), days, passed.Length, keep);
        return outcome with { Event = Ended(passed), Successor = outcome.Event };
    }

    /// <summary>What is left before the date seen.</summary>
    private CalendarEvent Ended(LocalDateTime[] passed)
    {
        var at = change.SeenFrom;
        LocalDateTime[] extra = [.. _series.Extra.Where(date => date < at)];
        // Where only dates added by hand lie before, the first of them is where it begins.
        var isByHand = passed.Length == 0;
        var ended = _series with
        {
            Timing = isByHand ? _series.Timing.StartingAt(extra[0]) : _series.Timing,
            Rule = isByHand
                ? null
                : _series.Rule is { Count: not null } && !_series.CountsTaking
                ? _series.Rule.Ending(passed.Length, null)
                : _series.Rule?.Ending(null, Until.Including(passed[^1], _series.Timing)),
            Cycle = isByHand ? null : _series.Cycle is { } cycle ? cycle with { Until = at.Date.PlusDays(-1), Count = null } : null,
            Extra = isByHand ? extra[1..] : extra,
            Removed = [.. _series.Removed.Where(date => date < at)],
        };
        return before with
        {
            Content = before.Content with { Series = ended },
            Exceptions = [.. before.Exceptions.Where(one => one.RecurrenceId < at)],
        };
    }

    private IEnumerable<LocalDateTime> DatesBefore(Series series, LocalDateTime at) =>
        series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).TakeWhile(date => date < at);

    /// <summary>Puts exceptions on the dates of the changed series: the date moved as the series did, else the same position of the
    /// rule.</summary>
    /// <param name="passed">How many dates of the old pattern lie before the changed one's first.</param>
    private ChangeOutcome Rebased(
        CalendarEvent changed, IEnumerable<EventException> exceptions, int days, int passed, IReadOnlySet<LocalDateTime> keep)
    {
        var (series, timing) = (changed.Series, changed.Series.Timing);
        var placed = new List<EventException>();
        var lost = new List<EventException>();
        var extra = series.Extra.ToList();
        var (kept, moved) = (new List<EventException>(), new List<EventException>());
        foreach (var exception in exceptions)
        {
            var id = Moved(exception.RecurrenceId, days, _series, timing);
            var place = series.Gives(id, school) ? id : SamePosition(exception.RecurrenceId, series, passed);
            if (place is { } found && placed.All(one => one.RecurrenceId != found))
            {
                placed.Add(exception with { RecurrenceId = found });
                (found == exception.RecurrenceId ? kept : moved).Add(exception);
                continue;
            }
            lost.Add(exception);
            if (!keep.Contains(exception.RecurrenceId))
                continue;
            var own = exception.Start ?? exception.RecurrenceId.Date + timing.Start.TimeOfDay;
            if (!extra.Contains(own))
                extra.Add(own);
            var alone = exception with { RecurrenceId = own, Start = exception.End is null ? null : own };
            if (!alone.IsEmpty && placed.All(one => one.RecurrenceId != own))
                placed.Add(alone);
        }
        extra.Sort();
        return new ChangeOutcome(
            changed with { Content = changed.Content with { Series = series with { Extra = extra } }, Exceptions = Sorted(placed) })
        {
            Kept = kept,
            Moved = moved,
            Lost = lost,
        };
    }

    /// <summary>Where the pattern only moved, the fifth date stays the fifth, though it is not the same number of days later.</summary>
    private LocalDateTime? SamePosition(LocalDateTime id, Series series, int passed)
    {
        if (change.Act != ChangeAct.Edit || RepeatChanged || series.Rule is null || _series.Extra.Contains(id))
            return null;
        var position = DatesBefore(_series, id).Count() - passed;
        return series.Pattern(LocalDate.MinIsoValue.AtMidnight(), school).Skip(position).Select(date => (LocalDateTime?)date)
            .FirstOrDefault();
    }

    private ChangeOutcome Remove(ChangeScope scope)
    {
        if (scope == ChangeScope.Every)
            return new ChangeOutcome(before) { IsRemoved = true };
        var at = change.SeenFrom;
        if (scope == ChangeScope.Later)
            return new ChangeOutcome(Ended([.. DatesBefore(_series, at)]))
            {
                Lost =
                [.. before.Exceptions.Where(one => one.RecurrenceId >= at)]
            };
        var series = _series.Extra.Contains(at) && !_series.Pattern(at, school).Take(1).Contains(at)
            ? _series with { Extra = [.. _series.Extra.Where(date => date != at)] }
            : _series with { Removed = [.. _series.Removed.Append(at).Distinct().Order()] };
        return new ChangeOutcome(
            before with { Content = before.Content with { Series = series }, Exceptions = ExceptionsBut(at) })
        { Kept = ExceptionsBut(at) };
    }

    private ChangeOutcome Restore(ChangeScope scope)
    {
        bool IsMeant(LocalDateTime id) => scope switch
        {
            ChangeScope.This => id == change.SeenFrom,
            ChangeScope.Later => id >= change.SeenFrom,
            _ => true,
        };
        if (before.State == EventState.Cancelled && scope != ChangeScope.Every)
            throw new RuleException("scope", "scope.allCancelled");
        var exceptions = before.Exceptions
            .Where(one => !IsMeant(one.RecurrenceId) || (scope != ChangeScope.This && !one.IsCancelled))
            .ToArray();
        return new ChangeOutcome(before with
        {
            State = scope == ChangeScope.Every && before.State == EventState.Cancelled ? EventState.Live : before.State,
            Content = before.Content with { Series = _series with { Removed = [.. _series.Removed.Where(id => !IsMeant(id))] } },
            Exceptions = before.State == EventState.Cancelled ? before.Exceptions : exceptions,
        })
        { Kept = exceptions };
    }
}
