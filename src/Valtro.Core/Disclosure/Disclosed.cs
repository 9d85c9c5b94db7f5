using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Disclosure;

/// <summary>What an audience gets of an event, or of one of its dates: the only form in which one leaves the house.</summary>
/// <param name="Content">What the level tells; all else is as if it had not been said. When it happens is told by dates alone.</param>
/// <param name="Title">"Busy" at <see cref="Detail.Times"/>; else the event's, or what an edition's pattern made of it.</param>
/// <param name="Uid">The event's UID, or one that cannot be linked with it at <see cref="Detail.Times"/>.</param>
public sealed record Disclosed(Detail Detail, EventContent Content, string Title, EventState State, Uid Uid)
{
    /// <summary>What a time is called that is told as no more, where nobody says it in another language.</summary>
    public const string Busy = "Busy";

    /// <summary>When nothing is told of when: dates tell that.</summary>
    private static readonly Series Untold = new(Timing.WholeDays(new(2000, 1, 1), new(2000, 1, 1), DateTimeZone.Utc));

    /// <summary>What was granted beside the level.</summary>
    public Grants Granted { get; private init; }

    /// <summary>The UID as addresses write it.</summary>
    public string Identity => Uid.InAddress;

    /// <summary>The first file that is one, where it is told.</summary>
    public EventFile? Picture { get; private init; }

    /// <summary>The event as a whole at that level, or null when there is nothing to see.</summary>
    /// <remarks>Who is looking decides <see cref="Visibility"/>; this alone decides which fields that gives them.</remarks>
    public static Disclosed? Of(CalendarEvent calendarEvent, Detail detail, Grants grants = Grants.None) =>
        Make(calendarEvent, calendarEvent.Content, calendarEvent.State, detail, grants);

    /// <summary>One date at that level, with what is its own.</summary>
    public static Disclosed? Of(EventDate date, Detail detail, Grants grants = Grants.None) =>
        Make(date.Event, date.Content, date.State, detail, grants);

    /// <summary>What readers of an edition get: only live and cancelled events, no notes.</summary>
    public static Disclosed? ForReaders(CalendarEvent calendarEvent, Detail detail) =>
        Visibility.LeavesTheHouse(calendarEvent.State) ? Of(calendarEvent, detail) : null;

    /// <summary>One of its dates, told as much as this is.</summary>
    public Disclosed? Likewise(EventDate date) => Of(date, Detail, Granted);

    /// <summary>A break of the year plan, which every audience may know.</summary>
    public static Disclosed OfBreak(YearPlans.NamedDays closed) => new(
        Detail.Headline, new EventContent(Untold) { Title = closed.Name }, closed.Name, EventState.Live,
        Uid.Of(new Guid(closed.First.Year * 10_000 + closed.First.Month * 100 + closed.First.Day, 0, 0, new byte[8])));

    /// <summary>The same under a title that an edition's pattern made of it.</summary>
    public Disclosed Titled(string title) => title == Title ? this : this with { Title = title };

    /// <summary>The same, called so where no more than its times are told.</summary>
    public Disclosed Called(string busy) => Detail == Detail.Times ? Titled(busy) : this;

    /// <summary>The same with fewer fields.</summary>
    public Disclosed Showing(IReadOnlySet<ShownField> fields) => this with
    {
        Content = Content.Without(field => field.ShownWith is { } shown && !fields.Contains(shown)),
        Picture = fields.Contains(ShownField.Picture) ? Picture : null,
    };

    private static Disclosed? Make(CalendarEvent calendarEvent, EventContent content, EventState state, Detail detail, Grants grants)
    {
        if (detail == Detail.Nothing || (detail == Detail.Times && (state == EventState.Cancelled || content.TakesNoTime)))
            return null;
        var seen = content.SeenBy(detail, grants, Untold);
        return detail == Detail.Times
            ? new(detail, seen, Busy, EventState.Live, calendarEvent.Uid.Hidden("times"))
            : new(detail, seen, seen.Title, state, calendarEvent.Uid)
            {
                Picture = seen.Files.FirstOrDefault(file => file.IsPicture),
                Granted = grants,
            };
    }
}
