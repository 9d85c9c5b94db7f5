using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Acts;

/// <summary>Plans one change of many events and dates: what cannot be changed is left out and named, the rest is one act.</summary>
public sealed class ChosenPlanner(ActPlanner planner, SchoolCalendar school)
{
    /// <summary>As many dates of one event are shown beforehand.</summary>
    public const int DatesShown = 60;

    private static readonly HashSet<LocalDateTime> NoneKept = [];

    public ChosenOutcome Plan(IReadOnlyList<ChosenEvent> chosen, ChosenChange change, ChosenScope scope)
    {
        var (acts, left, dates) = (new List<Act>(), new List<LeftOut>(), new List<ChosenDate>());
        var ofSeries = 0;
        foreach (var one in chosen)
        {
            try
            {
                var (act, concerned) = Plan(one, change, scope);
                if (act.IsNothing)
                {
                    left.Add(new LeftOut(one.Stored, Saying.Of("chosen.asItIs")));
                    continue;
                }
                acts.Add(act);
                dates.AddRange(concerned);
                if (one.Stored.Event.Series.Recurs && (change.IsOfWholeEvent || scope == ChosenScope.Series))
                    ofSeries++;
            }
            catch (RuleException refused)
            {
                left.Add(new LeftOut(one.Stored, refused.Refusals[0].Saying));
            }
        }
        return new ChosenOutcome(Act.All(acts), left, dates, ofSeries);
    }

    private (Act Act, IEnumerable<ChosenDate> Dates) Plan(ChosenEvent one, ChosenChange change, ChosenScope scope)
    {
        if (!one.MayChange)
            throw new RuleException("events", "chosen.notYours");
        if (one.Stored.IsRemoved)
            throw new RuleException("events", "chosen.inBin");
        return change.Act switch
        {
            ChosenAct.Copy => Copy(one, change.Into!.Value),
            ChosenAct.EndWithPlan or ChosenAct.SkipBreaks => Pattern(one, change.Act),
            _ when change.IsOfWholeEvent => Whole(one, change),
            _ when scope == ChosenScope.Series || !one.Stored.Event.Series.Recurs => Every(one, change),
            _ => Some(one, change),
        };
    }

    /// <summary>What belongs to the event and not to its dates.</summary>
    private (Act, IEnumerable<ChosenDate>) Whole(ChosenEvent one, ChosenChange change)
    {
        var seen = Seen(one);
        var content = seen.Content;
        var typed = change.Act switch
        {
            ChosenAct.Category => content with { Category = change.Category },
            ChosenAct.AddTag => content with { Tags = Tagged([.. content.Tags, change.Tag]) },
            ChosenAct.TakeTag => content with { Tags = Tagged(content.Tags.Where(tag => tag != change.Tag)) },
            _ => content,
        };
        var act = Changing(one, seen, typed, StandingOf(one.Stored, change));
        return (act, [new ChosenDate(seen, seen)]);
    }

    private static ValueList<string> Tagged(IEnumerable<string> tags)
    {
        string[] sorted = [.. tags.Distinct().Order(StringComparer.Ordinal)];
        return sorted.Length <= EventDraft.MostTags
            ? [.. sorted]
            : throw new RuleException("tags", "event.tooManyTags", ("count", sorted.Length), ("most", EventDraft.MostTags));
    }

    /// <summary>Null where nothing is said of where it stands.</summary>
    private static Standing? StandingOf(StoredEvent stored, ChosenChange change)
    {
        var (before, calendar) = (stored.Event, change.CalendarId);
        var isDraft = before.State == EventState.Draft;
        if (change.Act is ChosenAct.Calendar or ChosenAct.PlaceOn or ChosenAct.TakeOff && before.State == EventState.Waiting)
            throw new RuleException("events", "chosen.waits");
        return change.Act switch
        {
            ChosenAct.Calendar => new Standing(calendar, null, isDraft),
            ChosenAct.PlaceOn => new Standing(before.HomeCalendarId, [.. before.Placements, calendar], isDraft),
            ChosenAct.TakeOff when before.HomeCalendarId == calendar => throw new RuleException("calendarId", "chosen.ownCalendar"),
            ChosenAct.TakeOff => new Standing(before.HomeCalendarId, [.. before.Placements.Where(id => id != calendar)], isDraft),
            ChosenAct.Draft when !stored.IsUnfinished => throw new RuleException("isDraft", "event.goneOutAlready"),
            ChosenAct.Draft => new Standing(before.HomeCalendarId, null, IsDraft: true),
            ChosenAct.LetOut when stored.IsUnfinished => new Standing(before.HomeCalendarId, null, IsDraft: false),
            _ => null,
        };
    }

    /// <summary>How a series goes on. Dates that differ and lose their place by it go with those that they were.</summary>
    private (Act, IEnumerable<ChosenDate>) Pattern(ChosenEvent one, ChosenAct what)
    {
        var (before, seen) = (one.Stored.Event, Seen(one));
        if (before.Series.Rule is not { } rule)
            throw new RuleException("events", "chosen.noRule");
        var series = before.Series with { Timing = seen.Timing };
        series = what == ChosenAct.SkipBreaks
            ? series with { InBreaks = InBreaks.Skip }
            : school.PlanOf(seen.Occurrence.LocalStart.Date) is { } plan
            ? series with { Rule = rule.Ending(null, Until.Including(plan.Last + seen.Timing.Start.TimeOfDay, seen.Timing)) }
            : throw new RuleException("events", "chosen.inNoYear");
        var change = new Change(ChangeAct.Edit, seen.Occurrence.RecurrenceId, seen.Content with { Series = series });
        var act = planner.Changing(one.Stored, change, ChangeScope.Every, NoneKept, null, one.About);
        return (act, Concerned(before, act, one.Dates, ofSeries: true));
    }

    /// <summary>The whole event, or all dates of its series.</summary>
    private (Act, IEnumerable<ChosenDate>) Every(ChosenEvent one, ChosenChange change)
    {
        var before = one.Stored.Event;
        RequireOut(one.Stored, change);
        var act = change.Act switch
        {
            ChosenAct.Move => Moving(one, change.Days),
            ChosenAct.Place when Seen(one) is var seen => Changing(one, seen, seen.Content with { Place = change.Place }, null),
            _ => planner.Changing(
                one.Stored, new Change(ActOf(change), one.Dates[0]), ChangeScope.Every, NoneKept, null, one.About),
        };
        return (act, Concerned(before, act, one.Dates, ofSeries: true));
    }

    /// <summary>Dates that differ go along; those that would lose their place are kept as dates of their own.</summary>
    private Act Moving(ChosenEvent one, int days)
    {
        var change = Moved(one.Stored.Event, Seen(one), days);
        var lost = new SeriesEdit(one.Stored.Event, change, school).Apply(ChangeScope.Every, NoneKept).Lost;
        return planner.Changing(
            one.Stored, change, ChangeScope.Every, lost.Select(exception => exception.RecurrenceId).ToHashSet(), null, one.About);
    }

    private EventDate Seen(ChosenEvent one) => EventDates.Find(one.Stored.Event, one.Dates[0], school)
        ?? throw new RuleException("recurrenceId", "scope.noSuchDate");

    private static Change Moved(CalendarEvent before, EventDate seen, int days) =>
        Edit(before, seen, seen.Content, seen.Timing.MovedTo(seen.Timing.Start.PlusDays(days)));

    private static Change Edit(CalendarEvent before, EventDate seen, EventContent typed, Timing? timing = null) => new(
        ChangeAct.Edit, seen.Occurrence.RecurrenceId, typed with { Series = before.Series with { Timing = timing ?? seen.Timing } });

    private Act Changing(ChosenEvent one, EventDate seen, EventContent typed, Standing? where) => planner.Changing(
        one.Stored, Edit(one.Stored.Event, seen, typed), ChangeScope.Every, NoneKept, where, one.About);

    /// <summary>The chosen dates of a series, and no others.</summary>
    private (Act, IEnumerable<ChosenDate>) Some(ChosenEvent one, ChosenChange change)
    {
        RequireOut(one.Stored, change);
        var after = one.Stored.Event;
        foreach (var date in one.Dates)
        {
            var seen = EventDates.Find(after, date, school);
            if (seen is null && change.Act != ChosenAct.Restore)
                continue;
            var asked = change.Act switch
            {
                ChosenAct.Move => Moved(after, seen!.Value, change.Days),
                ChosenAct.Place => Edit(after, seen!.Value, seen.Value.Content with { Place = change.Place }),
                _ => new Change(ActOf(change), date),
            };
            after = new SeriesEdit(after, asked, school).Apply(ChangeScope.This, NoneKept).Event;
        }
        // An event without any date would be seen nowhere, and could be found nowhere either: it goes to the bin.
        if (change.Act == ChosenAct.Remove && !EventDates.All(after, school).Any())
            return Every(one, change);
        var act = ActPlanner.IsSame(after, one.Stored.Event)
            ? Act.Nothing
            : Followed.Checked(Act.Writing(EventWrite.Saving(one.Stored, after, ActDone(change.Act), isRemoved: false, school)));
        return (act, Concerned(one.Stored.Event, act, one.Dates, ofSeries: false));
    }

    private static EventAct ActDone(ChosenAct act) => act switch
    {
        ChosenAct.Cancel => EventAct.Cancelled,
        ChosenAct.Restore => EventAct.Restored,
        _ => EventAct.Changed,
    };

    private static ChangeAct ActOf(ChosenChange change) => change.Act switch
    {
        ChosenAct.Cancel => ChangeAct.Cancel,
        ChosenAct.Restore => ChangeAct.Restore,
        _ => ChangeAct.Remove,
    };

    private static void RequireOut(StoredEvent stored, ChosenChange change)
    {
        if (change.Act == ChosenAct.Cancel && stored.IsUnfinished)
            throw new RuleException("act", "event.notGoneOut");
    }

    /// <summary>A new event, a draft where this one is.</summary>
    private (Act, IEnumerable<ChosenDate>) Copy(ChosenEvent one, (YearPlan Year, NamedDays Term) into)
    {
        var before = one.Stored.Event;
        var from = school.PlanOf(Seen(one).Occurrence.LocalStart.Date) ?? throw new RuleException("into", "chosen.inNoYear");
        var carried = CarriedEvent.Of(before, new Carrying(from, into.Year, into.Term, school.FirstDayOfWeek), school)
            ?? throw new RuleException("into", "chosen.inNoYear");
        if (carried.Content is not { } content)
            throw new RuleException([new Refusal("into", carried.Remarks[0])]);
        if (carried.To.Day == carried.From)
            throw new RuleException("into", "chosen.asItIs");
        var act = planner.Making(content, new Standing(before.HomeCalendarId, before.Placements, before.State != EventState.Live));
        return (act, EventDates.All(act.Writes[0].Event, school).Take(DatesShown).Select(date => new ChosenDate(null, date)));
    }

    private IEnumerable<ChosenDate> Concerned(CalendarEvent before, Act act, IReadOnlyList<LocalDateTime> chosen, bool ofSeries)
    {
        if (act.Writes is not [var write])
            return [];
        if (write.IsRemoved)
            return Was().Select(date => new ChosenDate(date, null));
        if (!ofSeries)
            return chosen.Select(id =>
            {
                var becomes = EventDates.Find(write.Event, id, school);
                return new ChosenDate(EventDates.Find(before, id, school), becomes, becomes is { } date && MeetsOwn(date));
            });
        var was = Was().ToArray();
        var becomes = EventDates.All(write.Event, school).Take(DatesShown).ToArray();
        return was.Length == becomes.Length
            ? was.Zip(becomes, (one, other) => new ChosenDate(one, other))
            : becomes.Select(date => new ChosenDate(null, date));

        IEnumerable<EventDate> Was() => EventDates.All(before, school).Take(DatesShown);
    }

    /// <summary>Moved by a week, a date of every week lies on the next one.</summary>
    private bool MeetsOwn(EventDate date)
    {
        if (date.Exception?.Start is null)
            return false;
        var (first, last) = (date.Timing.Start.Date, date.Timing.End.Date);
        return EventDates.In(date.Event, new Window(first, last.PlusDays(1), date.Timing.Zone), school).Any(other =>
            other.Occurrence.RecurrenceId != date.Occurrence.RecurrenceId && other.Occurrence.Meets(date.Occurrence));
    }
}
