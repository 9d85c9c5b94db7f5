using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.Typing;
using Valtro.Store;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Application.Events;

/// <param name="Events">What goes into the form; several where the line says several days with a time each.</param>
/// <param name="CalendarId">The calendar whose plate stands in the line; null where none does.</param>
/// <param name="Pieces">The whole line, each piece with what it was taken for.</param>
/// <param name="Questions">Nothing is saved while there is one.</param>
public sealed record LineResponse(
    IReadOnlyList<EventForm> Events, Guid? CalendarId, IReadOnlyList<Understood> Understood, IReadOnlyList<LinePiece> Pieces,
    IReadOnlyList<LineQuestion> Questions);

/// <summary>Reads fields for a day or a time, and lines of text as events of the organisation: its known places, the person's calendars,
/// today where it is.</summary>
public sealed class LineReader(Access access, Templates templates, IClock clock)
{
    /// <summary>No day and no time is written in more characters.</summary>
    private const int LongestCell = 100;

    /// <summary>What a field for a day says: two days where it could be either, none where it is none.</summary>
    /// <param name="near">A day without a year is the one nearest to this; where it is missing, to today.</param>
    public async Task<IReadOnlyList<LocalDate>> DaysAsync(string text, LocalDate? near)
    {
        var house = await access.HouseAsync();
        return text.Length > LongestCell
            ? []
            : Typed.Days(text, Culture(house), Today(house), near is { } day ? DayRange.Nearest(day) : null);
    }

    /// <summary>What a field for a time says; null where it is none.</summary>
    public async Task<LocalTime?> TimeAsync(string text) =>
        text.Length > LongestCell ? null : Typed.Time(text, Culture(await access.HouseAsync()));

    public async Task<LineResponse> ReadAsync(string text)
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var mine = house.Calendars.Values.Where(one => viewer.May(CalendarAction.Contribute, one.Id)).ToArray();
        var reading = OneLine.Read(
            text, Culture(house), Today(house),
            [.. house.Places.Select(known => known.Place.Name)], [.. mine.Select(calendar => calendar.Plate.Code)]);
        var calendar = mine.FirstOrDefault(one => one.Plate.Code == reading.CalendarPlate);
        EventForm[] forms = [.. reading.Drafts.Select(draft => new EventForm(draft) { CalendarId = calendar?.Id ?? Guid.Empty })];
        if (calendar is not null)
        {
            var usual = await templates.UsualAsync(viewer, house);
            forms = [.. forms.Select(form => usual.Over(calendar.Id, form))];
        }
        return new LineResponse(
            forms,
            calendar?.Id,
            [.. reading.Understood.Select(one =>
                one.Field == "calendarId" && calendar is not null ? one with { Means = calendar.Name } : one)],
            reading.Pieces,
            reading.Questions);
    }

    private static CultureInfo Culture(House house) => CultureInfo.GetCultureInfo(Spoken.LocaleIn(house.Organisation));

    private LocalDate Today(House house) => clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date;
}
