using System.Buffers;
using System.Text;
using MiniExcelLibs;
using MiniExcelLibs.Attributes;
using MiniExcelLibs.Csv;
using MiniExcelLibs.OpenXml;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
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

    private static readonly HashSet<ShownField> WithoutFiles =
        [.. Enum.GetValues<ShownField>().Except([ShownField.Files, ShownField.Picture])];

    public static string TypeOf(ListForm form) => form switch
    {
        ListForm.Ics => "text/calendar; charset=utf-8",
        ListForm.Csv => "text/csv; charset=utf-8",
        _ => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    };

    /// <param name="page">Where the list is on the desk.</param>
    public static byte[] Write(
        ListForm form, IReadOnlyList<ListedDate> dates, Organisation organisation, Uri page, Instant now) => form switch
        {
            ListForm.Ics => WriteCalendar(dates, organisation, page, now),
            ListForm.Csv => WriteTable(dates, organisation.TimeZone, ExcelType.CSV, new CsvConfiguration
            {
                // Programs for sheets take a text without this mark for one of their own code page.
                StreamWriterFunc = stream => new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true)),
            }),
            _ => WriteTable(dates, organisation.TimeZone, ExcelType.XLSX, new OpenXmlConfiguration
            {
                DynamicColumns = [Column("day", DayFormat, 12), Column("lastDay", DayFormat, 12), Column("title", "", 36)],
            }),
        };

    private static DynamicExcelColumn Column(string name, string format, int width) => new(Header(name)) { Format = format, Width = width };

    private static string Header(string name) => Spoken.Now.Say($"list.{name}");

    private static byte[] WriteTable(
        IReadOnlyList<ListedDate> dates, DateTimeZone zone, ExcelType type, MiniExcelLibs.IConfiguration configuration)
    {
        using var output = new MemoryStream();
        output.SaveAs(
            dates.Select(date => Row(date, zone, type)), sheetName: Header("sheet"), excelType: type, configuration: configuration);
        return output.ToArray();
    }

    private static Dictionary<string, object?> Row(ListedDate listed, DateTimeZone zone, ExcelType type)
    {
        var (date, told) = (listed.Seen.Date, listed.Seen.Disclosed);
        var allDay = date.Event.Series.Timing.AllDay;
        var (start, end) = allDay
            ? (date.Occurrence.LocalStart, date.Occurrence.LocalEnd)
            : (date.Occurrence.Start.InZone(zone).LocalDateTime, date.Occurrence.End.InZone(zone).LocalDateTime);
        return new Dictionary<string, object?>
        {
            [Header("day")] = Day(start.Date),
            [Header("from")] = allDay ? "" : start.ToString("HH:mm", null),
            [Header("lastDay")] = Day(allDay ? end.Date.PlusDays(-1) : end.Date),
            [Header("to")] = allDay ? "" : end.ToString("HH:mm", null),
            [Header("title")] = Text(told.Title),
            [Header("place")] = Text(told.Content.Place.Name),
            [Header("calendars")] = Text(string.Join(", ", listed.Calendars.Select(calendar => calendar.Name))),
            [Header("category")] = Text(told.Content.Category?.Name ?? ""),
            [Header("tags")] = Text(string.Join(", ", told.Content.Tags)),
            [Header("stateOf")] = Spoken.Now.Say($"list.state.{told.State.ToString().ToLowerInvariant()}"),
            [Header("description")] = Text(told.Content.Description.Text),
        };

        object Day(LocalDate day) => type == ExcelType.CSV ? day.ToString("uuuu-MM-dd", null) : day.ToDateTimeUnspecified();

        // A program for sheets would reckon with what begins like a formula.
        string Text(string said) => type == ExcelType.CSV && said.Length > 0 && "=+-@\t\r".Contains(said[0]) ? $"'{said}" : said;
    }

    private static byte[] WriteCalendar(IReadOnlyList<ListedDate> dates, Organisation organisation, Uri page, Instant now)
    {
        var zone = organisation.TimeZone;
        using var components = new Components(
            SchoolCalendar.Empty, page, new Dictionary<Guid, Coordinates>(), Components.HorizonAt(now, zone));
        foreach (var (date, told) in dates.Select(listed => (listed.Seen.Date, listed.Seen.Disclosed)))
        {
            // The standard has no state for a draft, and whoever gets the file would take it for settled.
            if (!Visibility.LeavesTheHouse(told.State))
                continue;
            var name = told.Detail > Detail.Times ? date.Occurrence.RecurrenceId : date.Occurrence.LocalStart;
            components.AddDate(date, told.Showing(WithoutFiles), told.Uid.Hidden($"listed {name:uuuu-MM-dd'T'HH:mm:ss}"));
        }
        var stamps = new Stamps(components.Written, new Dictionary<ComponentName, Stamp>(), 0, 0, now);
        var head = new FeedHead(
            Uid.Of(organisation.Id), organisation.Name, "", Hue.All[0], page, null, now, zone);
        var output = new ArrayBufferWriter<byte>(64 * 1024);
        FeedWriter.Write(output, head, components, stamps);
        return output.WrittenSpan.ToArray();
    }
}
