using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Typing;
using CultureInfo = System.Globalization.CultureInfo;

namespace Valtro.Application.Events;

/// <summary>A row as it was understood.</summary>
public sealed record ReadRow(bool IsEmpty, Calendar? Calendar, EventContent? Content, string Words, IReadOnlyList<Refusal> Refusals);

/// <summary>Reads a table of events as people type it.</summary>
public sealed class TableReader(Access access, EventDesk desk, IClock clock)
{
    /// <param name="usual">The calendar of rows that name none.</param>
    /// <exception cref="RuleException">There are too many.</exception>
    public async Task<IReadOnlyList<ReadRow>> ReadAsync(IReadOnlyList<TableRow> rows, Guid? usual)
    {
        if (rows.Count > TableRow.Most)
            throw new RuleException("rows", "row.tooMany", ("count", rows.Count), ("most", TableRow.Most));
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var organisation = house.Organisation;
        var mine = house.Calendars.Values.Where(calendar => viewer.May(CalendarAction.Edit, calendar.Id)).ToArray();
        var settings = new Dictionary<Guid, DraftSetting>();
        foreach (var calendar in mine)
            settings[calendar.Id] = settings.Count == 0
                ? await desk.SettingAsync(calendar)
                : settings.Values.First() with { CalendarZone = calendar.Zone };
        var culture = CultureInfo.GetCultureInfo(Spoken.LocaleIn(organisation));
        var today = clock.GetCurrentInstant().InZone(organisation.TimeZone).Date;
        return [.. rows.Select(row => Read(row, usual, mine, settings, culture, today))];
    }

    private static ReadRow Read(
        TableRow row, Guid? usual, Calendar[] mine, Dictionary<Guid, DraftSetting> settings, CultureInfo culture, LocalDate today)
    {
        if (row.IsEmpty)
            return new ReadRow(true, null, null, "", []);
        var refusals = new RefusalList();
        var calendar = CalendarOf(row.Calendar, usual, mine, refusals);
        var draft = row.Read(culture, today, refusals);
        if (string.IsNullOrWhiteSpace(row.Title))
            refusals.Try(() => Texts.OneLine("title", "what.title", row.Title, Texts.LongestTitle));
        var content = refusals.IsEmpty ? refusals.Try(() => draft.Check(settings[calendar!.Id], RichText.Empty)) : null;
        return new ReadRow(false, calendar, content, content is null ? "" : RuleWords.For(culture.Name).Say(content.Series), refusals.All);
    }

    private static Calendar? CalendarOf(string? text, Guid? usual, Calendar[] mine, RefusalList refusals)
    {
        var name = (text ?? "").Trim();
        var found = name.Length == 0
            ? mine.FirstOrDefault(calendar => calendar.Id == usual)
            : mine.FirstOrDefault(calendar => calendar.Plate.Code.Equals(name, StringComparison.OrdinalIgnoreCase)
                || calendar.Name.Equals(name, StringComparison.CurrentCultureIgnoreCase));
        if (found is null)
            refusals.Add("calendar", name.Length == 0 ? "row.calendarMissing" : "row.noSuchCalendar", ("name", name),
                ("plate", mine.FirstOrDefault()?.Plate.Code));
        return found;
    }
}
