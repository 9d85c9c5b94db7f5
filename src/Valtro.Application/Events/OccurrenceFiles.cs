using System.Buffers;
using System.Globalization;
using System.Text;
using MiniExcelLibs;
using MiniExcelLibs.Attributes;
using MiniExcelLibs.Csv;
using MiniExcelLibs.OpenXml;
using NodaTime;
using NodaTime.Text;
using Valtro.Application.Editions;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>Forms in which a list of dates is taken along.</summary>
public enum ListForm
{
    /// <summary>iCalendar: each date an event of its own.</summary>
    Ics,

    /// <summary>Lines of values with commas between them (RFC 4180), in UTF-8.</summary>
    Csv,

    /// <summary>A sheet (ISO/IEC 29500).</summary>
    Xlsx,
}

/// <summary>Writes lists of dates as files.</summary>
public static class OccurrenceFiles
{
    private const string DayFormat = "yyyy-mm-dd";

    /// <summary>Of the columns.</summary>
    private static readonly string[] Names =
        ["day", "from", "lastDay", "to", "title", "place", "calendars", "category", "tags", "stateOf", "description"];

    private static readonly HashSet<ShownField> WithoutFiles =
        [.. Enum.GetValues<ShownField>().Except([ShownField.Files, ShownField.Picture])];

    public static string TypeOf(ListForm form) => form switch
    {
        ListForm.Ics => "text/calendar; charset=utf-8",
        ListForm.Csv => "text/csv; charset=utf-8",
        _ => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    };

    /// <summary>A date as a line of a table says it.</summary>
    /// <param name="End">Of whole days the day after the last.</param>
    private sealed record Line(
        LocalDateTime Start, LocalDateTime End, bool AllDay, Disclosed Told, string Title, IEnumerable<string> Calendars);

    /// <param name="page">Where the list is on the desk.</param>
    public static byte[] Write(
        ListForm form, IReadOnlyList<SeenOccurrence> dates, House house, Uri page, Instant now) => form == ListForm.Ics
        ? WriteCalendar(dates, house.Organisation, page, now)
        : WriteTable(form, dates.Select(seen => LineOf(
            seen.Date.Occurrence, seen.Date.Event.Series.Timing.AllDay, seen.Disclosed, seen.Disclosed.Title,
            seen.Sight.Calendars.Select(id => house.Calendars[id].Name), house.Organisation.TimeZone)), Spoken.Now);

    /// <summary>What an edition's readers get, as a table.</summary>
    public static byte[] WriteTable(ListForm form, IEnumerable<Entry> entries, DateTimeZone zone, Speech speech) =>
        WriteTable(form, entries.Select(entry => LineOf(
            entry.Occurrence, entry.Timing.AllDay, entry.Event, entry.Title, entry.Sources.Select(source => source.Name), zone)), speech);

    private static byte[] WriteTable(ListForm form, IEnumerable<Line> lines, Speech speech) => form == ListForm.Csv
        ? WriteTable(lines, speech, ExcelType.CSV, new CsvConfiguration
        {
            // Programs for sheets take a text without this mark for one of their own code page.
            StreamWriterFunc = stream => new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true)),
        })
        : WriteTable(lines, speech, ExcelType.XLSX, new OpenXmlConfiguration
        {
            DynamicColumns = [Column(speech, "day", DayFormat, 12), Column(speech, "lastDay", DayFormat, 12), Column(speech, "title", "", 36)],
        });

    private static Line LineOf(
        Occurrence date, bool allDay, Disclosed told, string title, IEnumerable<string> calendars, DateTimeZone zone) => allDay
        ? new Line(date.LocalStart, date.LocalEnd, true, told, title, calendars)
        : new Line(date.Start.InZone(zone).LocalDateTime, date.End.InZone(zone).LocalDateTime, false, told, title, calendars);

    private static DynamicExcelColumn Column(Speech speech, string name, string format, int width) =>
        new(Say(speech, name)) { Format = format, Width = width };

    private static string Say(Speech speech, string name) => speech.Say($"list.{name}");

    private static byte[] WriteTable(
        IEnumerable<Line> lines, Speech speech, ExcelType type, MiniExcelLibs.IConfiguration configuration)
    {
        string[] headings = [.. Names.Select(name => Say(speech, name))];
        var states = Enum.GetValues<EventState>()
            .ToDictionary(state => state, state => Say(speech, $"state.{state.ToString().ToLowerInvariant()}"));
        var rows = lines.Select(line =>
            headings.Zip(Cells(line, states, type)).ToDictionary(cell => cell.First, cell => cell.Second));
        using var output = new MemoryStream();
        output.SaveAs(rows, sheetName: Say(speech, "sheet"), excelType: type, configuration: configuration);
        return output.ToArray();
    }

    /// <summary>In the order of <see cref="Names"/>.</summary>
    private static object[] Cells(Line line, Dictionary<EventState, string> states, ExcelType type)
    {
        var (start, end, allDay, told, title, calendars) = line;
        return
        [
            Day(start.Date),
            allDay ? "" : Time(start.TimeOfDay),
            Day(allDay ? end.Date.PlusDays(-1) : end.Date),
            allDay ? "" : Time(end.TimeOfDay),
            Text(title),
            Text(told.Content.Place.Name),
            Text(string.Join(", ", calendars)),
            Text(told.Content.Category?.Name ?? ""),
            Text(string.Join(", ", told.Content.Tags)),
            states[told.State],
            Text(told.Content.Description.Text),
        ];

        object Day(LocalDate day) => type == ExcelType.CSV ? LocalDatePattern.Iso.Format(day) : day.ToDateTimeUnspecified();

        static string Time(LocalTime time) => time.ToString("HH:mm", CultureInfo.InvariantCulture);

        // A program for sheets would reckon with what begins like a formula.
        string Text(string said) => type == ExcelType.CSV && said.Length > 0 && "=+-@\t\r".Contains(said[0]) ? $"'{said}" : said;
    }

    /// <summary>Of what is due the title says so.</summary>
    private static Disclosed Called(Disclosed told, Organisation organisation) => told.Content.IsDeadline
        ? told.Titled(ReadingWords.For("", organisation.Locale).Fill("titleDue", "title", told.Title))
        : told;

    private static byte[] WriteCalendar(IReadOnlyList<SeenOccurrence> dates, Organisation organisation, Uri page, Instant now)
    {
        var zone = organisation.TimeZone;
        using var components = new Components(
            SchoolCalendar.Empty, page, new Dictionary<Guid, PlaceTold>(), Components.HorizonAt(now, zone));
        foreach (var (date, told) in dates.Select(seen => (seen.Date, seen.Disclosed)))
        {
            // The standard has no state for a draft, and whoever gets the file would take it for settled.
            if (!Visibility.LeavesTheHouse(told.State))
                continue;
            var name = told.Detail > Detail.Times ? date.Occurrence.RecurrenceId : date.Occurrence.LocalStart;
            components.AddDate(
                date, Called(told.Showing(WithoutFiles), organisation), told.Uid.Hidden($"listed {name:uuuu-MM-dd'T'HH:mm:ss}"));
        }
        var stamps = new Stamps(components.Written, new Dictionary<ComponentName, Stamp>(), 0, 0, now);
        var head = new FeedHead(
            Uid.Of(organisation.Id), organisation.Name, "", Hue.All[0], page, null, now, zone);
        var output = new ArrayBufferWriter<byte>(64 * 1024);
        FeedWriter.Write(output, head, components, stamps);
        return output.WrittenSpan.ToArray();
    }
}
