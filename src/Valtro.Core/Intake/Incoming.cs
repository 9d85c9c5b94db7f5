using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Intake;

/// <summary>What becomes of an event from outside.</summary>
public enum IncomingState
{
    /// <summary>Nobody knows it yet, or it rests in the bin.</summary>
    New,

    /// <summary>It came before, and says something else by now.</summary>
    Changed,

    /// <summary>It came before, and says nothing new, whatever was changed here since.</summary>
    Same,

    /// <summary>One of that name is on that calendar and day already, which somebody made here.</summary>
    There,

    /// <summary>It cannot be taken.</summary>
    Refused,
}

/// <summary>An event from outside, as it would be kept.</summary>
/// <param name="Uid">By which its source knows it.</param>
/// <param name="Line">Of the file; for a sheet its row.</param>
/// <param name="Event">Its home is the calendar for which it is meant. It has no id.</param>
/// <param name="Remarks">What was not taken, or not as it stood there.</param>
public sealed record Incoming(string Uid, int Line, CalendarEvent Event, IReadOnlyList<Saying> Remarks);

/// <summary>The event that a source's name stands for.</summary>
/// <param name="Said">As the source said it when it was taken last; null where it was never taken from there.</param>
public sealed record KnownIncoming(StoredEvent Stored, CalendarEvent? Said);

/// <summary>An event from outside, beside what is here of it.</summary>
/// <param name="After">As it is when it is taken; null where nothing would be another.</param>
/// <param name="Dropped">Dates changed here that are none of the series any more.</param>
/// <param name="ChangedHere">Fields that were changed here too; what comes from outside counts.</param>
public sealed record IncomingOutcome(
    IncomingState State, CalendarEvent? After, IReadOnlyList<LocalDateTime> Dropped, IReadOnlyList<EventField> ChangedHere)
{
    /// <summary>Compares it with what it was when it was taken last: only what the source changed since is taken, so that what was added
    /// or put right here stays.</summary>
    public static IncomingOutcome Of(Incoming incoming, KnownIncoming? known, SchoolCalendar school)
    {
        if (known is null)
            return new(IncomingState.New, incoming.Event, [], []);
        var (now, said) = (known.Stored.Event, known.Said ?? known.Stored.Event);
        var fields = incoming.Event.Content.Differences(said.Content).ToHashSet();
        // What no source says is nobody's difference: notes, files, who sees it.
        if (known.Said is null)
            fields.RemoveWhere(field => field.IsUnsaid(incoming.Event.Content));
        var home = incoming.Event.HomeCalendarId;
        return Of(incoming.Event, known, said, fields, now.Content.With(incoming.Event.Content, fields.Contains), now with
        {
            Placements = now.Calendars.Contains(home) ? now.Placements : [.. now.Placements.Append(home).Order()],
        }, school);
    }

    /// <summary>The same from a followed source: it stands where the source's rules say, and what was put right here stays for good
    /// (<see cref="Followed"/>).</summary>
    public static IncomingOutcome Following(Incoming incoming, KnownIncoming? known, SchoolCalendar school)
    {
        if (known is null)
            return new(IncomingState.New, incoming.Event, [], []);
        var (now, said) = (known.Stored.Event, known.Said ?? known.Stored.Event);
        var fields = incoming.Event.Content.Differences(said.Content).ToHashSet();
        fields.RemoveWhere(field => Followed.IsOurs(field) && (known.Said is null || !field.IsSame(now.Content, said.Content)));
        var content = now.Content.With(incoming.Event.Content, fields.Contains);
        // Whoever wants it told to fewer gets that, the source's rules or somebody here.
        if (content.Cap != incoming.Event.Content.Cap && incoming.Event.Content.Cap != said.Content.Cap)
            content = content with { Cap = Narrowed(content.Cap, incoming.Event.Content.Cap) };
        var home = incoming.Event.HomeCalendarId;
        return Of(incoming.Event, known, said, fields, content, now with
        {
            HomeCalendarId = home,
            Placements = [.. now.Placements.Where(id => id != home)],
            Source = incoming.Event.Source,
        }, school);
    }

    /// <summary>Written so that it is seen to be somebody's here: the source does not open it again.</summary>
    private static Cap Narrowed(Cap here, Cap source)
    {
        var both = here.And(source);
        return both == source ? new Cap(both[Audience.Members], both[Audience.Link], both[Audience.Everyone]) : both;
    }

    private static IncomingOutcome Of(
        CalendarEvent incoming, KnownIncoming known, CalendarEvent said, HashSet<EventField> fields, EventContent content,
        CalendarEvent standing, SchoolCalendar school)
    {
        var now = known.Stored.Event;
        var exceptions = incoming.Exceptions.SequenceEqual(said.Exceptions) ? now.Exceptions : incoming.Exceptions;
        var kept = exceptions.Where(one => content.Series.Gives(one.RecurrenceId, school)).ToArray();
        var after = standing with
        {
            Content = content,
            Exceptions = kept,
            State = incoming.State != said.State ? incoming.State : now.State,
        };
        ValueTuple<LocalDateTime[], EventField[]> remarks = (
            [.. exceptions.Where(one => !kept.Contains(one)).Select(one => one.RecurrenceId)],
            [.. fields.Where(field => !field.IsSame(now.Content, said.Content) && !field.IsSame(now.Content, incoming.Content))]);
        if (known.Stored.IsRemoved)
            return new(IncomingState.New, after, remarks.Item1, remarks.Item2);
        return ActPlanner.IsSame(after, now)
            ? new(IncomingState.Same, null, [], [])
            : new(IncomingState.Changed, after, remarks.Item1, remarks.Item2);
    }
}
