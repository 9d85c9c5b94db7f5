using System.Text;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Intake;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>What holds for every file, however it is written.</summary>
public sealed class ForeignFileTests
{
    private static readonly ForeignSetting Plain = new([], "Untitled", (text, html) => new RichText(html, text), _ => null, _ => false);

    private static IReadOnlyList<ForeignEntry> Read(byte[] file) =>
        [.. new ForeignFile(ForeignText.Open(file, null)).Read(Build.Halifax)];

    /// <summary>RFC 6868 3.</summary>
    [Fact]
    public void A_name_of_a_link_has_its_quotes_again()
    {
        var entry = Assert.Single(Read(Encoding.UTF8.GetBytes("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:20261204T130000Z\r\n"
            + "ATTACH;FILENAME=\"^'Rota^' ^^n\":https://pinewick.example/rota\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")));
        Assert.Equal("\"Rota\" ^n", Assert.Single(EventOf(entry).Content.Links).Label);
    }

    private static CalendarEvent EventOf(ForeignEntry entry) =>
        ForeignContent.Event(entry, Guid.Empty, Core.Disclosure.Disclosure.Open, Plain);

    private static string[] Dates(CalendarEvent one) => [.. EventDates.In(one, Build.Window("2026-09-01", "2027-09-01"), SchoolCalendar.Empty)
        .Take(500).Select(date => $"{date.Occurrence.Start} {date.Occurrence.End} {date.State == EventState.Cancelled} {date.Content.Title}")];

    public static TheoryData<string, string, string> Series => new()
    {
        { "2026-09-01 09:00", "FREQ=WEEKLY;BYDAY=TU,TH;COUNT=20", "Boat lab" },
        { "2026-09-01 22:00", "FREQ=DAILY;COUNT=90", "Night, with; marks \\ and\nlines" },
        { "2026-09-30 09:00", "RSCALE=GREGORIAN;FREQ=MONTHLY;COUNT=6;BYMONTHDAY=31;SKIP=BACKWARD", "Last days" },
        { "2026-10-13 14:00", "FREQ=WEEKLY;BYDAY=TU;UNTIL=20261218T180000Z", "Übung 🚣🏽‍♀️" },
        { "2026-09-01 09:00", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1;COUNT=5", "Reports" },
    };

    /// <summary>Our own feeds come back as they went out: two of our own readings, of what an independent writer did not make.</summary>
    [Theory]
    [MemberData(nameof(Series))]
    public void What_we_write_we_read(string start, string rule, string title)
    {
        var series = Build.Series(start, rule, minutes: 480);
        var second = series.All().Skip(1).First().RecurrenceId;
        var third = series.All().Skip(2).First().RecurrenceId;
        var sent = Build.Event(series with { Extra = [Build.Local("2027-03-05 11:00")], Removed = [third] }, title) with
        {
            Exceptions = [new EventException(second) { Start = second.PlusHours(1), End = second.PlusHours(3) }],
        };
        var entry = Assert.Single(Read(Encoding.UTF8.GetBytes(TestFeed.Write(TestFeed.Of(sent)))));
        Assert.Empty(entry.Refusals);
        Assert.Equal(Dates(sent).Select(date => date.Replace("\n", " ", StringComparison.Ordinal)), Dates(EventOf(entry)));
        Assert.Equal(sent.Uid.Text, entry.Uid);
    }

    [Fact]
    public void Whatever_is_broken_in_a_file_the_reading_of_it_ends()
    {
        var folder = Path.Combine(ArchitectureTests.Root(), "tests", "Valtro.Core.Tests", "ICalendar", "Wild");
        var files = Directory.EnumerateFiles(folder, "*.ics").Order(StringComparer.Ordinal).Select(File.ReadAllBytes).ToArray();
        var random = new Random(7);
        for (var number = 0; number < 3_000; number++)
        {
            var file = (byte[])files[random.Next(files.Length)].Clone();
            for (var change = random.Next(1, 6); change > 0; change--)
            {
                var at = random.Next(file.Length);
                file = random.Next(3) switch
                {
                    0 => [.. file[..at], .. file[Math.Min(file.Length, at + random.Next(1, 20))..]],
                    1 => [.. file[..at], (byte)random.Next(256), .. file[at..]],
                    _ => [.. file[..at], .. file[at..Math.Min(file.Length, at + 40)], .. file[at..]],
                };
            }
            try
            {
                foreach (var entry in Read(file).Where(entry => entry.Series is not null))
                    Assert.True(Dates(EventOf(entry)).Length <= 500);
            }
            catch (RuleException refused)
            {
                Assert.Contains("intake.noCalendar", refused.Message, StringComparison.Ordinal);
            }
            catch (Exception wrong) when (wrong is not Xunit.Sdk.XunitException)
            {
                Assert.Fail($"{wrong}\n{Encoding.Latin1.GetString(file)}");
            }
        }
    }

    [Fact]
    public void A_description_of_five_million_characters_is_cut_and_the_rest_of_the_file_read()
    {
        var file = new StringBuilder("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Long\r\nDTSTART:20261204T090000\r\nDESCRIPTION:");
        for (var line = 0; line < 70_000; line++)
            file.Append(new string('x', 74)).Append("\r\n ");
        file.Append("\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:b\r\nSUMMARY:After\r\nDTSTART:20261205T090000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n");
        var entries = Read(Encoding.UTF8.GetBytes(file.ToString()));
        Assert.Equal(["Long", "After"], entries.Select(entry => entry.Title));
        Assert.InRange(entries[0].Says!.Description.Length, 1_000, Texts.LongestDescription);
        Assert.Contains(entries[0].Remarks, remark => remark.Code == "intake.descriptionCut");
        Assert.Equal(70_008, entries[1].Line);
    }

    [Fact]
    public void Every_character_of_a_line_is_found_again_in_the_file()
    {
        var reader = new LineReader(new StringReader("BEGIN:VEVENT\r\nSUMMARY;LANGUAGE=en:Boat\r\n  lab\r\n\t at low water\r\nUID:a\r\n"));
        reader.Read();
        var line = reader.Read()!;
        Assert.Equal(("SUMMARY", "Boat lab at low water", "en"), (line.Name, line.Value, line.Parameter("LANGUAGE")));
        var text = $"SUMMARY;LANGUAGE=en:{line.Value}";
        Assert.Equal((2, 21), line.PositionOf(line.ValueAt));
        Assert.Equal((3, 3), line.PositionOf(text.IndexOf("lab", StringComparison.Ordinal)));
        Assert.Equal((4, 3), line.PositionOf(text.IndexOf("at low", StringComparison.Ordinal)));
        Assert.Equal(5, reader.Read()!.Line);
    }

    [Theory]
    [InlineData("4/12/2026", DayOrder.DayFirst, "2026-12-04")]
    [InlineData("4/12/2026", DayOrder.MonthFirst, "2026-04-12")]
    [InlineData("4.12.26", DayOrder.DayFirst, "2026-12-04")]
    [InlineData("31/12/2026", DayOrder.MonthFirst, "31/12/2026")]
    [InlineData("4/12/2026 18:00", DayOrder.DayFirst, "2026-12-04 18:00")]
    [InlineData("4 Dec 2026", DayOrder.MonthFirst, "4 Dec 2026")]
    public void Days_in_numbers_are_read_in_the_order_that_is_said(string cell, DayOrder order, string plain) =>
        Assert.Equal(plain, Core.Typing.SheetDates.Plain(cell, order));

    [Theory]
    [InlineData("2026-12-04 18:00", null, "2026-12-04", "18:00")]
    [InlineData("2026-12-04T18:00:00Z", "", "2026-12-04", "18:00")]
    [InlineData(null, "4/12/2026, 6:00 PM", "4/12/2026", "6:00 PM")]
    [InlineData("4 Dec", "18:00", "4 Dec", "18:00")]
    [InlineData(null, "2026-12-04", "2026-12-04", null)]
    [InlineData("4 Dec", null, "4 Dec", null)]
    public void A_day_and_a_time_in_one_cell_are_told_apart(string? day, string? time, string? isDay, string? isTime) =>
        Assert.Equal((isDay, isTime), Core.Typing.SheetDates.Apart(day, time));
}
