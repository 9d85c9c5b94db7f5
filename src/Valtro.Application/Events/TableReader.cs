using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.Typing;
using Valtro.Core.YearPlans;
using Valtro.Store;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Application.Events;

/// <summary>A row as it was understood.</summary>
/// <param name="IsThere">One of that name is on that calendar and day already.</param>
public sealed record ReadRow(
    bool IsEmpty, Calendar? Calendar, EventContent? Content, string Words, IReadOnlyList<Refusal> Refusals, bool IsThere = false);

/// <summary>Reads a table of events as people type it.</summary>
public sealed class TableReader(Access access, EventStore events, RichTexts richTexts, Templates templates, IClock clock)
{
    /// <param name="common">The calendar of rows that name none.</param>
    /// <exception cref="RuleException">There are too many.</exception>
    public async Task<IReadOnlyList<ReadRow>> ReadAsync(IReadOnlyList<TableRow> rows, Guid? common)
    {
        if (rows.Count > TableRow.Most)
            throw new RuleException("rows", "row.tooMany", ("count", rows.Count), ("most", TableRow.Most));
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var organisation = house.Organisation;
        var mine = house.Calendars.Values.Where(calendar => viewer.May(CalendarAction.Edit, calendar.Id)).ToArray();
        var reading = new RowReading(
            house, CultureInfo.GetCultureInfo(Spoken.LocaleIn(organisation)), clock.GetCurrentInstant().InZone(organisation.TimeZone).Date,
            await templates.UsualAsync(viewer, house), richTexts);
        ReadRow[] read = [.. rows.Select(row => reading.Read(row, mine, common))];
        return await MarkedAsync(viewer.OrganisationId, read, house.School);
    }

    /// <summary>With those marked that are there already, by calendar, title and day.</summary>
    private async Task<IReadOnlyList<ReadRow>> MarkedAsync(Guid organisationId, ReadRow[] rows, SchoolCalendar school)
    {
        var read = rows.Where(row => row.Content is not null).ToArray();
        if (read.Length == 0)
            return rows;
        // Around most of them: one day with a slip of the pen does not lead the others away.
        var middle = read.Select(DayOf).Order().ElementAt(read.Length / 2);
        var zone = read[0].Content!.Series.Timing.Zone;
        var window = new Window(DayRange.Nearest(middle.PlusMonths(-18)), DayRange.Nearest(middle.PlusMonths(18)), zone);
        var there = (await events.InWindowAsync(organisationId, [.. read.Select(row => row.Calendar!.Id).Distinct()], window))
            .ToLookup(one => (one.HomeCalendarId, one.Content.Title.ToUpperInvariant()));
        return [.. rows.Select(row => row.Content is null ? row : row with
        {
            IsThere = there[(row.Calendar!.Id, row.Content.Title.ToUpperInvariant())]
                .Any(one => EventDates.In(one, new Window(DayOf(row), DayOf(row).PlusDays(1), zone), school).Any()),
        })];

        static LocalDate DayOf(ReadRow row) => row.Content!.Series.Timing.Start.Date;
    }
}
