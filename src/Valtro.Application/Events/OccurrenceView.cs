using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>A date as one person may see it.</summary>
/// <param name="IsYours">They make events on its calendar, and it has not gone out yet.</param>
public sealed record SeenOccurrence(EventDate Date, Disclosed Disclosed, Sight Sight, bool IsYours) : IComparable<SeenOccurrence>
{
    /// <summary>The person is responsible for it.</summary>
    public bool IsMine { get; init; }

    /// <summary>As they happen; of those that begin together the longest first, and else always in the same order.</summary>
    public int CompareTo(SeenOccurrence? other)
    {
        if (other is null)
            return 1;
        var (mine, theirs) = (Date.Occurrence, other.Date.Occurrence);
        var by = mine.Start.CompareTo(theirs.Start);
        by = by != 0 ? by : theirs.End.CompareTo(mine.End);
        by = by != 0 ? by : Date.Event.Id.CompareTo(other.Date.Event.Id);
        return by != 0 ? by : mine.RecurrenceId.CompareTo(theirs.RecurrenceId);
    }
}

/// <summary>Dates as one person may see them.</summary>
public sealed class OccurrenceView(Access access, EventStore events, IClock clock)
{
    /// <summary>Days.</summary>
    public const int LongestWindow = 400;

    private const int MostDates = 20_000;

    /// <exception cref="RuleException">They are more than one answer may hold.</exception>
    public static void CheckCount(int dates)
    {
        if (dates > MostDates)
            throw new RuleException("to", "window.tooManyDates", ("count", dates), ("most", MostDates));
    }

    /// <exception cref="RuleException">The window is too long, or ends before it begins.</exception>
    public async Task<IReadOnlyList<SeenOccurrence>> InAsync(Viewer viewer, LocalDate from, LocalDate to, IReadOnlySet<Guid>? only)
    {
        var house = await access.HouseAsync();
        var (organisation, school) = (house.Organisation, house.School);
        var window = Window.Asked(from, to, organisation.TimeZone, LongestWindow);
        var disclosures = house.Calendars.Values
            .Where(calendar => viewer.DetailOn(calendar.Id, calendar.Disclosure) > Detail.Nothing)
            .ToDictionary(calendar => calendar.Id, calendar => calendar.Disclosure);
        var asked = disclosures.Keys.Where(id => only is null || only.Contains(id)).ToArray();
        var found = await events.InWindowAsync(viewer.OrganisationId, asked, window);
        var now = clock.GetCurrentInstant();
        var busy = Spoken.Now.Say("busy.title");
        var dates = new List<SeenOccurrence>(found.Count);
        foreach (var calendarEvent in found)
        {
            var sight = viewer.Of(calendarEvent, disclosures, now);
            if (sight.Detail == Detail.Nothing || (only is not null && !sight.Calendars.Any(only.Contains)))
                continue;
            var isYours = !Visibility.LeavesTheHouse(calendarEvent.State)
                && viewer.May(CalendarAction.Contribute, calendarEvent.HomeCalendarId);
            var granted = sight.Grants & (Grants.Names | Grants.StaffSpan);
            var told = Disclosed.Of(calendarEvent, sight.Detail, granted)?.Called(busy);
            foreach (var date in EventDates.In(calendarEvent, window, school))
            {
                if ((date.Exception is null ? told : Disclosed.Of(date, sight.Detail, granted)?.Called(busy)) is { } disclosed)
                    dates.Add(new SeenOccurrence(date, disclosed, sight, isYours)
                    {
                        IsMine = disclosed.Content.People.Any(one => one.MemberId == viewer.AccountId),
                    });
            }
        }
        dates.Sort();
        return dates;
    }
}
