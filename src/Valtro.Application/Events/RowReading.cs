using System.Globalization;
using NodaTime;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Typing;
using Valtro.Store;
using Calendar = Valtro.Core.Calendars.Calendar;

namespace Valtro.Application.Events;

/// <summary>Reads single rows of tables, all by the same house.</summary>
/// <param name="culture">In which days, times and repetitions are written.</param>
/// <param name="usual">What is usual on calendars, where a row says nothing.</param>
public sealed class RowReading(House house, CultureInfo culture, LocalDate today, UsualValues usual, RichTexts richTexts)
{
    /// <param name="mine">Calendars that a row may name.</param>
    /// <param name="common">The calendar of a row that names none.</param>
    public ReadRow Read(TableRow row, IReadOnlyCollection<Calendar> mine, Guid? common)
    {
        if (row.IsEmpty)
            return new ReadRow(true, null, null, "", []);
        var refusals = new RefusalList();
        return Read(row, CalendarOf(row.Calendar, common, mine, refusals), refusals);
    }

    /// <param name="zone">Where its times are meant; the calendar's where it is missing.</param>
    public ReadRow Read(TableRow row, Calendar? calendar, RefusalList refusals, DateTimeZone? zone = null)
    {
        var draft = refusals.Try(() => row.Read(culture, today, house.Categories, refusals));
        if (string.IsNullOrWhiteSpace(row.Title))
            refusals.Try(() => Texts.OneLine("title", "what.title", row.Title, Texts.LongestTitle));
        var content = refusals.IsEmpty
            ? refusals.Try(() => usual.Over(calendar!.Id, draft!).Check(SettingOf(calendar, zone), Described(row)))
            : null;
        if (content?.Series.RuleGivesItsStart == false)
        {
            refusals.Add("repeat", "row.offPattern", ("date", content.Series.Timing.Start.Date));
            content = null;
        }
        return new ReadRow(false, calendar, content, content is null ? "" : RuleWords.For(culture.Name).Say(content.Series), refusals.All);
    }

    private DraftSetting SettingOf(Calendar calendar, DateTimeZone? zone) => new(zone ?? calendar.Zone, house.Categories, house.School)
    {
        Places = house.AllPlaces,
        Members = house.Members,
        Shown = calendar.Disclosure,
    };

    private RichText Described(TableRow row) => richTexts.OfLines(row.Description ?? "");

    private static Calendar? CalendarOf(string? text, Guid? common, IReadOnlyCollection<Calendar> mine, RefusalList refusals)
    {
        var name = (text ?? "").Trim();
        var found = name.Length == 0
            ? mine.FirstOrDefault(calendar => calendar.Id == common)
            : Named(name, mine);
        if (found is null)
            refusals.Add("calendar", name.Length == 0 ? "row.calendarMissing" : "row.noSuchCalendar", ("name", name),
                ("plate", mine.FirstOrDefault()?.Plate.Code));
        return found;
    }

    /// <summary>The calendar that somebody means by its plate or its name.</summary>
    public static Calendar? Named(string name, IEnumerable<Calendar> among) => among.FirstOrDefault(calendar =>
        calendar.Plate.Code.Equals(name, StringComparison.OrdinalIgnoreCase)
        || calendar.Name.Equals(name, StringComparison.CurrentCultureIgnoreCase));
}
