using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Application.Events;

/// <summary>What a change would do, in each scope, before it is made.</summary>
public sealed class ChangePreviews(EventDesk desk, EventChanges changes)
{
    private const int DatesShown = 4;
    private const int MostCounted = 2_000;

    public async Task<ChangePreview> OfAsync(OnDesk found, ChangeRequest request)
    {
        var change = await changes.ReadAsync(found, request);
        var edit = new SeriesEdit(found.Event, change, found.School);
        var (placed, asked) = found.Planner.PlacementsOf(found.Event, EventChanges.WhereOf(request));
        ChangeScope[] scopes = edit.HasChoice ? [ChangeScope.This, ChangeScope.Later, ChangeScope.Every] : [ChangeScope.Every];
        var seen = EventDates.Find(found.Event, change.SeenFrom, found.School);
        return new ChangePreview(
            seen?.Title ?? found.Event.Content.Title,
            seen is { } shown ? found.Words.Say(shown.Timing) : found.Words.Say(found.Event.Series),
            EventChanges.DifferencesOf(found, change, request, placed),
            edit.HasChoice,
            [.. scopes.Select(scope => Foresee(found, edit, change, request, scope))],
            !found.ChangesAtOnce,
            NewlySees(found, change, request, placed, desk.Now),
            [.. asked.Select(calendarId => found.Calendars[calendarId].Name)]);
    }

    /// <summary>Who will see more of the event than now: "Everyone: title, time and place".</summary>
    private static string[] NewlySees(OnDesk found, Change change, ChangeRequest request, IReadOnlyList<Guid> placed, Instant now)
    {
        if (change.Typed is not { } typed)
            return [];
        var after = found.Event with
        {
            HomeCalendarId = request.Event?.CalendarId ?? found.Event.HomeCalendarId,
            Placements = placed,
            Content = found.Event.Content with { Cap = typed.Cap, Showing = typed.Showing },
        };
        return [.. WhoSees.Of(after, found.Event, found.NamesAndTables, found.Words, now)
            .Where(who => who.Detail > who.Was)
            .Select(who => Spoken.Now.Say("sees.line", ("audience", DetailWords.Of(who.Audience)), ("said", who.Sentence)))];
    }

    private static ScopeBody Foresee(
        OnDesk found, SeriesEdit edit, Change change, ChangeRequest request, ChangeScope scope)
    {
        try
        {
            found.Planner.RequireWhole(found.Event, scope, EventChanges.WhereOf(request));
            var outcome = edit.Apply(scope, new HashSet<LocalDateTime>());
            var dates = Concerned(found, change, outcome, scope).Take(MostCounted + 1).ToArray();
            return new ScopeBody(
                scope,
                null,
                dates.Length > MostCounted ? null : dates.Length,
                [.. dates.Take(DatesShown).Select(date => found.Words.Say(date.Timing))],
                [.. outcome.Kept.Select(exception => Say(found, exception))],
                [.. outcome.Moved.Select(exception => Say(found, exception))],
                [.. outcome.Lost.Select(lost => new LostBody(
                    DateName.Of(lost.RecurrenceId, found.Event.Series.Timing.AllDay), Say(found, lost)))]);
        }
        catch (RuleException refused)
        {
            return new ScopeBody(scope, Spoken.Now.Say(refused.Refusals[0].Saying), 0, [], [], [], []);
        }
    }

    /// <summary>"Tuesday 1 December 2026: cancelled".</summary>
    private static string Say(OnDesk found, EventException exception) =>
        $"{found.Words.Day(exception.RecurrenceId.Date, withWeekday: true)}: {EventDifference.Say(exception, found.Event.Series.Timing, found.Words)}";

    /// <summary>The dates that a scope is about: as they become, or as they were where they go.</summary>
    private static IEnumerable<EventDate> Concerned(OnDesk found, Change change, ChangeOutcome outcome, ChangeScope scope)
    {
        var goes = change.Act is ChangeAct.Remove;
        var calendarEvent = goes || outcome.IsRemoved ? found.Event : outcome.Successor ?? outcome.Event;
        if (scope == ChangeScope.This)
            return EventDates.Find(calendarEvent, change.SeenFrom, found.School) is { } one ? [one] : [];
        var dates = EventDates.All(calendarEvent, found.School);
        return scope == ChangeScope.Later && outcome.Successor is null
            ? dates.Where(date => date.Occurrence.RecurrenceId >= change.SeenFrom)
            : dates;
    }
}
