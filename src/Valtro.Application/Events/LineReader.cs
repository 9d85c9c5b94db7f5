using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Typing;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Application.Events;

/// <param name="Events">What goes into the form; several where the line says several days with a time each.</param>
/// <param name="CalendarId">The calendar whose plate stands in the line; null where none does.</param>
/// <param name="Pieces">The whole line, each piece with what it was taken for.</param>
/// <param name="Questions">Nothing is saved while there is one.</param>
public sealed record LineResponse(
    IReadOnlyList<EventForm> Events, Guid? CalendarId, IReadOnlyList<Understood> Understood, IReadOnlyList<LinePiece> Pieces,
    IReadOnlyList<LineQuestion> Questions);

/// <summary>Reads a line of text as an event of the organisation: its known places, the person's calendars, today where it is.</summary>
public sealed class LineReader(Access access, IClock clock)
{
    public async Task<LineResponse> ReadAsync(string text)
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var mine = house.Calendars.Values.Where(one => viewer.May(CalendarAction.Contribute, one.Id)).ToArray();
        var reading = OneLine.Read(
            text, CultureInfo.GetCultureInfo(Spoken.LocaleIn(house.Organisation)),
            clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date,
            [.. house.Places.Select(known => known.Place.Name)], [.. mine.Select(calendar => calendar.Plate.Code)]);
        var calendar = mine.FirstOrDefault(one => one.Plate.Code == reading.CalendarPlate);
        return new LineResponse(
            [.. reading.Drafts.Select(draft => new EventForm(draft) { CalendarId = calendar?.Id ?? Guid.Empty })],
            calendar?.Id,
            [.. reading.Understood.Select(one =>
                one.Field == "calendarId" && calendar is not null ? one with { Means = calendar.Name } : one)],
            reading.Pieces,
            reading.Questions);
    }
}
