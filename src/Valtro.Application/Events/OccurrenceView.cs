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
public readonly record struct SeenOccurrence(EventDate Date, Disclosed Disclosed, Sight Sight, bool IsYours);

/// <summary>Dates as one person may see them.</summary>
public sealed class OccurrenceView(Access access, EventStore events, IClock clock)
{
    /// <summary>Days.</summary>
    public const int LongestWindow = 400;

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
        return [.. from calendarEvent in found
                   let sight = viewer.Of(calendarEvent, disclosures, now)
                   where sight.Detail > Detail.Nothing && sight.Calendars.Any(id => only is null || only.Contains(id))
                   let isYours = !Visibility.LeavesTheHouse(calendarEvent.State)
                       && viewer.May(CalendarAction.Contribute, calendarEvent.HomeCalendarId)
                   let told = Disclosed.Of(calendarEvent, sight.Detail)?.Called(busy)
                   from date in EventDates.In(calendarEvent, window, school)
                   let disclosed = date.Exception is null ? told : Disclosed.Of(date, sight.Detail)?.Called(busy)
                   where disclosed is not null
                   orderby date.Occurrence.Start, date.Occurrence.End descending, calendarEvent.Id
                   select new SeenOccurrence(date, disclosed, sight, isYours)];
    }
}
