using System.Globalization;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Editions;

/// <summary>Composes what a readership gets, in named steps: in state → passes filter → disclosure cap → in window → merge → title → order
/// → limit.</summary>
/// <remarks>
/// A <see cref="Trace"/> is written by these very steps, so that it cannot tell another story than the delivery. An event on several
/// of the edition's calendars is one event here from the start: what it tells is what the most open of them tells, and it
/// has the plates of all that the audience may know of.
/// </remarks>
public sealed class Composition
{
    private readonly Edition _edition;
    private readonly Dictionary<Guid, Drawn> _sources = [];
    private readonly SchoolCalendar _school;
    private readonly Instant _now;
    private readonly EditionSpan _span;
    private readonly Pattern _title;

    /// <param name="sources">In any order: what is composed is the same.</param>
    /// <param name="now">Decides about showing spans, and where the edition's days begin and end.</param>
    public Composition(Edition edition, IReadOnlyCollection<Source> sources, SchoolCalendar school, Instant now)
    {
        (_edition, _school, _now) = (edition, school, now);
        foreach (var source in sources.OrderBy(source => source.Plate.Code, StringComparer.Ordinal))
            _sources[source.CalendarId] = new Drawn(source, _sources.Count, [source]);
        _span = edition.SpanAt(now, school);
        _title = edition.TitlePattern ?? (sources.Count > 1 ? Pattern.PlateAndTitle : Pattern.TitleAlone);
    }

    /// <summary>A source, where it stands by plate, and the list of it alone, which most entries have.</summary>
    private sealed record Drawn(Source Source, int Rank, IReadOnlyList<Source> Alone);

    /// <summary>The entries that overlap <paramref name="window"/> and the edition's own days.</summary>
    /// <param name="events">Those of its calendars, each once.</param>
    public Composed Compose(IEnumerable<CalendarEvent> events, Window window, Trace? trace = null)
    {
        using var dates = new Dates();
        var days = Narrowed(window);
        var turn = _span.TurnsAt;
        foreach (var calendarEvent in events)
        {
            turn = Sooner(turn, AppearsAt(calendarEvent));
            if (days is { } within)
                AddDates(dates, calendarEvent, within, trace);
            else if (trace?.IsOf(calendarEvent.Id) == true && Tell(calendarEvent, trace) is not null)
                trace.Note(ComposeStep.Window, false, "trace.notWindow");
        }
        if (days is { } open && _edition.WithBreaks)
            AddBreaks(dates, open);
        var order = dates.Order();
        if (_edition.MergesLookAlikes)
            order = order[..new LookAlikes(Union, trace).Merge(dates, order)];
        return new Composed(Titled(dates, Limited(dates, order, trace)), order.Length, Sooner(turn, OverAt(dates, order)));
    }

    /// <summary>The entries of one event, before any limit.</summary>
    public IReadOnlyList<Entry> Dates(CalendarEvent calendarEvent, Window window)
    {
        using var dates = new Dates();
        if (Narrowed(window) is { } days)
            AddDates(dates, calendarEvent, days, null);
        return Titled(dates, dates.Order());
    }

    /// <summary>Whether readers get a file by one of the events that hold it.</summary>
    public bool Tells(IEnumerable<CalendarEvent> holders, Guid fileId, string name) => holders.Any(calendarEvent =>
        Tell(calendarEvent, null) is { } told
            && Shown(told.Disclosed) is var shown
            && (shown.Picture is { } picture ? shown.Content.Files.Append(picture) : shown.Content.Files)
                .Any(file => file.Id == fileId && file.Name == name));

    /// <summary>Whether readers are told by one of the events at a place that it is there.</summary>
    public bool TellsPlace(IEnumerable<CalendarEvent> there) => _edition.Fields.Contains(ShownField.Place)
        && there.Any(calendarEvent => DetailOf(calendarEvent) >= Detail.Headline);

    /// <summary>How much the edition tells of an event: nothing where none of its dates is delivered.</summary>
    public Detail DetailOf(CalendarEvent calendarEvent) =>
        Tell(calendarEvent, null) is { } told && HasDateIn(calendarEvent) ? told.Disclosed.Detail : Detail.Nothing;

    /// <summary>Whether it tells the title of an event, whenever that is.</summary>
    internal bool TellsHeadlineOf(CalendarEvent calendarEvent) => Tell(calendarEvent, null) is { Disclosed.Detail: >= Detail.Headline };

    /// <summary>One date of an event as an entry, in or beside the edition's days: an address that was given away goes on to lead
    /// somewhere.</summary>
    public Entry? Find(CalendarEvent calendarEvent, LocalDateTime recurrenceId)
    {
        if (Tell(calendarEvent, null) is not { } told
            || EventDates.Find(calendarEvent, recurrenceId, _school) is not { } date
            || !Takes(date)
            || !InState(date.State)
            || DateTold(told, date) is not { } disclosed)
            return null;
        return Titled(new Dated(Of(told, disclosed), Taking(date, disclosed)));
    }

    /// <summary>The entry's title with its plates written out, and that it is due: for whatever has no more than a line of text.</summary>
    public string FullTitle(Entry entry) => entry.IsBreak ? entry.Title : Write(entry.Event, entry.Sources, withPlates: true);

    /// <summary>The events that have a date on the edition's days, unexpanded.</summary>
    /// <remarks>A series is delivered whole: programs expand its rule, and a limit of entries says nothing to them.</remarks>
    public IReadOnlyList<Delivered> Deliver(IEnumerable<CalendarEvent> events)
    {
        var told = new List<(CalendarEvent Of, Disclosed Disclosed, IReadOnlyList<Source> Sources, List<CalendarEvent>? LookAlikes)>();
        var lookAlikes = new Dictionary<(string, Series, EventState), int>();
        foreach (var calendarEvent in events)
        {
            if (Tell(calendarEvent, null) is not { } one || !HasDateIn(calendarEvent))
                continue;
            if (_edition.MergesLookAlikes && one.Disclosed.Detail > Detail.Times && calendarEvent.Exceptions.Count == 0)
            {
                var look = (one.Disclosed.Title, calendarEvent.Series, one.Disclosed.State);
                if (lookAlikes.TryGetValue(look, out var index))
                {
                    told[index] = (told[index].Of, told[index].Disclosed, Union(told[index].Sources, one.Sources),
                        [.. told[index].LookAlikes ?? [], calendarEvent]);
                    continue;
                }
                lookAlikes[look] = told.Count;
            }
            told.Add((calendarEvent, one.Disclosed, one.Sources, null));
        }
        return [
            .. told.Select(
                one => new Delivered(one.Of, Shape(one.Disclosed, one.Sources)!, one.Sources, one.LookAlikes ?? [],
                    disclosed => Shape(disclosed, one.Sources)))];
    }

    /// <summary>The breaks of the year plan on the edition's days, where it shows them, up to a horizon.</summary>
    public IReadOnlyList<Entry> Breaks(LocalDate horizon)
    {
        using var dates = new Dates();
        if (_edition.WithBreaks && Narrowed(new Window(DayRange.First, horizon, _edition.Zone)) is { } days)
            AddBreaks(dates, days);
        return Titled(dates, dates.Order());
    }

    /// <summary>Until when what is delivered is right if nobody changes anything.</summary>
    public Instant? NextTurn(IEnumerable<CalendarEvent> events) =>
        events.Aggregate(_span.TurnsAt, (turn, calendarEvent) => Sooner(turn, AppearsAt(calendarEvent)));

    /// <summary>From when on something that is delivered now must not be shown any more, whatever becomes of the rest.</summary>
    public Instant? ClosesAt(IEnumerable<CalendarEvent> events) => events.Aggregate(default(Instant?), (first, calendarEvent) =>
        Comes(calendarEvent) ? Sooner(first, calendarEvent.Content.Showing.ClosesAt(_now, calendarEvent.Series.Timing.Zone)) : first);

    /// <summary>When it appears or disappears by itself.</summary>
    private Instant? AppearsAt(CalendarEvent calendarEvent) =>
        Comes(calendarEvent) ? calendarEvent.Content.Showing.NextTurn(_now, calendarEvent.Series.Timing.Zone) : null;

    /// <summary>It is shown for a time only, and then to this audience.</summary>
    private bool Comes(CalendarEvent calendarEvent) => calendarEvent.Content.Showing != ShowingSpan.Always && InState(calendarEvent.State)
        && calendarEvent.Calendars.Any(id => _sources.TryGetValue(id, out var drawn)
            && drawn.Source.Disclosure.For(_edition.AudienceOn(drawn.Source), calendarEvent.Content.Cap) > Detail.Nothing);

    /// <summary>When the first is over, where that makes it leave.</summary>
    private Instant? OverAt(Dates dates, ReadOnlySpan<int> order)
    {
        Instant? over = null;
        foreach (var place in _span.NotOverAt is null ? [] : order)
        {
            if (dates[place].Occurrence.End is var end && end > _now)
                over = Sooner(over, end);
        }
        return over;
    }

    private static Instant? Sooner(Instant? one, Instant? other) => one is null || other < one ? other ?? one : one;

    // ---- the steps

    private bool InState(EventState state) => state switch
    {
        EventState.Live => true,
        EventState.Cancelled => _edition.WithCancelled,
        _ => _edition is { WithUnfinished: true, Audience: Audience.Members or Audience.Editors },
    };

    private Told? Tell(CalendarEvent calendarEvent, Trace? trace)
    {
        var notes = trace?.IsOf(calendarEvent.Id) == true ? trace : null;
        var inState = InState(calendarEvent.State);
        notes?.Note(
            ComposeStep.State, inState, inState ? "trace.state" : $"trace.notState.{calendarEvent.State.ToString().ToLowerInvariant()}");
        if (!inState)
            return null;
        var (seen, passes, plates) = (default(MostOpen), false, default(IReadOnlyList<Source>));
        Look(calendarEvent.HomeCalendarId);
        for (var index = 0; index < calendarEvent.Placements.Count; index++)
            Look(calendarEvent.Placements[index]);
        notes?.Note(ComposeStep.Filter, passes, passes ? "trace.filter" : "trace.notFilter");
        var disclosed = Disclosed.Of(calendarEvent, seen.Detail, seen.Grants)?.Called(_edition.Busy);
        notes?.Note(ComposeStep.Detail, disclosed is not null,
            disclosed is null
                ? seen.Detail == Detail.Times ? "trace.takesNoTime" : "trace.notDetail"
                : $"trace.detail.{seen.Detail.ToString().ToLowerInvariant()}");
        return disclosed is null ? null : new Told(calendarEvent, disclosed, calendarEvent.Series.Timing, plates ?? []);

        void Look(Guid calendarId)
        {
            if (!_sources.TryGetValue(calendarId, out var drawn) || drawn.Source.Filter?.Passes(calendarEvent) == false
                || !_edition.Takes(calendarEvent.Content.Kind)
                || (_edition.ChoosesDates && !calendarEvent.Contents.Any(_edition.Takes)))
                return;
            var most = Visibility.Of(
                calendarEvent, drawn.Source.Disclosure, _edition.AudienceOn(drawn.Source), _now, seesUnfinished: _edition.WithUnfinished);
            var granted = drawn.Source.Disclosure.GrantsOf(_edition.AudienceOn(drawn.Source)) | _edition.Grants;
            // Whoever is not told who is responsible does not learn it by what stands here.
            if (_edition.Person is not null && !(most == Detail.Complete && granted.HasFlag(Grants.Names)))
                return;
            passes = true;
            var here = Disclosure.Disclosure.Least(most, _edition.Cap);
            seen = seen.And(here, granted);
            if (TellsPlate(here))
                plates = plates is null ? drawn.Alone : Union(plates, drawn.Alone);
        }
    }

    private bool TellsPlate(Detail detail) => detail >= Detail.Headline || (detail == Detail.Times && _edition.TellsPlatesOfBusy);

    private void AddDates(Dates dates, CalendarEvent calendarEvent, Window days, Trace? trace)
    {
        var mayReachOut = HasOtherTimes(calendarEvent);
        var expanded = EventDates.In(calendarEvent, mayReachOut ? Around(days) : days, _school);
        // A rule is expanded only for those who are told of it. Where it is known already that there is no date, nothing need be told.
        var isNone = expanded.TryGetNonEnumeratedCount(out var count) && count == 0;
        if ((isNone && trace?.IsOf(calendarEvent.Id) != true) || Tell(calendarEvent, trace) is not { } told)
            return;
        foreach (var date in expanded)
        {
            if (_span.NotOverAt is { } now && date.Occurrence.End <= now && date.Occurrence.Start < now)
                continue;
            var notes = trace?.IsOf(calendarEvent.Id, date.Occurrence.RecurrenceId) == true ? trace : null;
            if (!Takes(date))
            {
                notes?.Note(ComposeStep.Filter, false, "trace.notFilter");
                continue;
            }
            if (!InState(date.State) || DateTold(told, date) is not { } disclosed)
            {
                notes?.Note(ComposeStep.Window, false, "trace.cancelled");
                continue;
            }
            var taken = Taking(date, disclosed);
            if (mayReachOut && !taken.Overlaps(days, allDay: false))
                continue;
            notes?.Note(ComposeStep.Window, true, "trace.window");
            dates.Add(new Dated(Of(told, disclosed), taken));
        }
        if (trace?.IsOf(calendarEvent.Id) == true && trace.Decided.Step < ComposeStep.Window)
            trace.Note(ComposeStep.Window, false, "trace.notWindow");
    }

    /// <summary>One date may be elsewhere than its series, or with somebody else.</summary>
    private bool Takes(in EventDate date) => !_edition.ChoosesDates || _edition.Takes(date.Content);

    /// <summary>It is delivered at other times than the public one.</summary>
    private bool HasOtherTimes(CalendarEvent calendarEvent) =>
        (_edition.WithStaffTimes || _edition.Person is not null)
        && !calendarEvent.Series.Timing.AllDay && !calendarEvent.Content.IsDeadline
        && (calendarEvent.Content.StaffSpan != StaffSpan.None || calendarEvent.Content.People.Count > 0
            || calendarEvent.Exceptions.Count > 0);

    /// <summary>A date as it takes those whom the edition is about: somebody's own times, or from set-up to clear-away.</summary>
    private Occurrence Taking(in EventDate date, Disclosed disclosed)
    {
        if (!HasOtherTimes(date.Event))
            return date.Occurrence;
        var (content, zone) = (date.Content, date.Event.Series.Timing.Zone);
        if (_edition.Person is not { } who)
            return _edition.WithStaffTimes ? disclosed.Content.StaffSpan.Around(date.Occurrence, zone) : date.Occurrence;
        var span = _edition.WithStaffTimes ? content.StaffSpan : StaffSpan.None;
        return content.People.First(one => one.MemberId == who) is var one && one.HasOwnTimes
            ? date.Occurrence.At(one.TakenBy(date.Occurrence, span), zone)
            : span.Around(date.Occurrence, zone);
    }

    /// <summary>With the days from which set-up or clear-away may reach into it.</summary>
    private Window Around(Window days) => new(
        LocalDate.Max(days.First.PlusDays(-1), DayRange.First), LocalDate.Min(days.End.PlusDays(1), DayRange.Last), _edition.Zone);

    /// <summary>All dates without anything of their own are told alike.</summary>
    private Disclosed? DateTold(Told told, EventDate date) =>
        date.Exception is null ? told.Disclosed : told.Disclosed.Likewise(date)?.Called(_edition.Busy);

    private static Told Of(Told told, Disclosed date) => ReferenceEquals(told.Disclosed, date) ? told : told with { Disclosed = date };

    private ReadOnlySpan<int> Limited(Dates dates, ReadOnlySpan<int> order, Trace? trace)
    {
        if (_edition.Limit is not { } most || order.Length <= most)
            return order;
        foreach (var place in trace is null ? [] : order[most..])
        {
            if (LookAlikes.IsOf(trace!, in dates[place]))
                trace!.Note(ComposeStep.Limit, false, "trace.limit", ("count", most));
        }
        return order[..most];
    }

    /// <summary>Writes the titles, and leaves out the fields that the edition does not show: once for all dates that are told
    /// alike.</summary>
    private EntryList Titled(Dates dates, ReadOnlySpan<int> order)
    {
        var entries = new EntryList(order.Length);
        for (var index = 0; index < order.Length; index++)
            entries[index] = Titled(in dates[order[index]]);
        return entries;
    }

    private Entry Titled(in Dated date)
    {
        if (date.Told is { Shown: null, Of: not null } told)
            told.Shown = (Shown(told.Disclosed), Write(told.Disclosed, told.Sources, withPlates: false));
        return new Entry(date.Told, date.Occurrence);
    }

    // ---- parts of steps

    /// <summary>Both are by plate already.</summary>
    private List<Source> Union(IReadOnlyList<Source> some, IReadOnlyList<Source> others)
    {
        var union = new List<Source>(some.Count + others.Count);
        for (int one = 0, other = 0; one < some.Count || other < others.Count;)
        {
            var order = one == some.Count ? 1 : other == others.Count ? -1 : RankOf(some[one]) - RankOf(others[other]);
            union.Add(order <= 0 ? some[one] : others[other]);
            (one, other) = (order <= 0 ? one + 1 : one, order >= 0 ? other + 1 : other);
        }
        return union;
    }

    private int RankOf(Source source) => _sources[source.CalendarId].Rank;

    private Disclosed? Shape(Disclosed disclosed, IReadOnlyList<Source> sources) =>
        InState(disclosed.State) ? Shown(disclosed).Titled(Write(disclosed, sources, withPlates: true)) : null;

    private Disclosed Shown(Disclosed disclosed) =>
        _edition.Fields.Count == Edition.AllFields.Count ? disclosed : disclosed.Showing(_edition.Fields);

    private string Write(Disclosed disclosed, IReadOnlyList<Source> sources, bool withPlates)
    {
        if (withPlates && disclosed.Content.IsDeadline && _edition.Deadlines == DeadlineForm.Events)
            return string.Format(CultureInfo.InvariantCulture, _edition.Due, WriteTitle(disclosed, sources, withPlates));
        return WriteTitle(disclosed, sources, withPlates);
    }

    private string WriteTitle(Disclosed disclosed, IReadOnlyList<Source> sources, bool withPlates)
    {
        if (ReferenceEquals(_title, Pattern.TitleAlone) || (!withPlates && ReferenceEquals(_title, Pattern.PlateAndTitle)))
            return disclosed.Title;
        var written = _title.Write(piece => piece == Piece.Plate && !withPlates ? "" : Pattern.ValueOf(piece, disclosed, sources));
        return written.Length > 0 ? written : disclosed.Title;
    }

    /// <returns>Null when the edition is about none of these days.</returns>
    private Window? Narrowed(Window window)
    {
        var first = _span.First is { } from ? LocalDate.Max(from, window.First) : window.First;
        var end = _span.End is { } to ? LocalDate.Min(to, window.End) : window.End;
        if (end <= first)
            return null;
        return first == window.First && end == window.End ? window : new Window(first, end, _edition.Zone);
    }

    /// <summary>Longer than this no rule waits for its next date: 29 February on a given weekday comes after 40 years at most.</summary>
    private const int MostYearsBetweenDates = 41;

    private bool HasDateIn(CalendarEvent calendarEvent)
    {
        if (_span.IsOpen && !_edition.ChoosesDates)
            return true;
        var (from, to) = EventDates.Reach(calendarEvent);
        var first = LocalDate.Max(_span.First ?? DayRange.First, from.InZone(_edition.Zone).Date.PlusDays(-1));
        var end =
            LocalDate.Min(_span.End ?? DayRange.Last, to?.InZone(_edition.Zone).Date.PlusDays(2) ?? first.PlusYears(MostYearsBetweenDates));
        return first < end && EventDates.In(calendarEvent, new Window(first, end, _edition.Zone), _school).Any(date => Takes(date));
    }

    private void AddBreaks(Dates dates, Window days)
    {
        foreach (var closed in _school.Plans.SelectMany(plan => plan.Breaks)
            .Where(closed => closed.First < days.End && closed.Last >= days.First))
        {
            var timing = Timing.WholeDays(closed.First, closed.Last, _edition.Zone);
            var occurrence = timing.Occurrence(timing.Start);
            if (_span.NotOverAt is not { } now || occurrence.End > now)
                dates.Add(new Dated(new Told(null, Disclosed.OfBreak(closed), timing, []), occurrence));
        }
    }
}
