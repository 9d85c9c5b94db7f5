using System.Text;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Foreign = Ical.Net;

namespace Valtro.Core.Tests.ICalendar;

public class FeedTests
{
    private static string Write(params CalendarEvent[] events) => Write(Detail.Complete, events);

    private static string Write(Detail detail, params CalendarEvent[] events) =>
        TestFeed.Write(TestFeed.Of(events.Select(calendarEvent => Delivered.AtLevel(calendarEvent, detail)!)));

    private static string[] Unfolded(string feed) => TestFeed.Unfolded(feed);

    [Fact]
    public void Lines_have_at_most_75_octets_and_whole_characters()
    {
        var feed = Write(Build.Event(Build.Series("2026-11-24 14:00"), string.Concat(Enumerable.Repeat("Ålesund ⛵ 🚣 ", 14)).Trim()));
        foreach (var line in feed.Split("\r\n"))
        {
            Assert.True(Encoding.UTF8.GetByteCount(line) <= 75);
            Assert.DoesNotContain('\uFFFD', line);
        }
        Assert.Contains("SUMMARY:" + string.Concat(Enumerable.Repeat("Ålesund ⛵ 🚣 ", 14)).Trim(), Unfolded(feed));
    }

    [Fact]
    public void Every_line_ends_with_carriage_return_and_line_feed_and_nothing_follows()
    {
        var feed = Write(Build.Event(Build.Series("2026-11-24 14:00")));
        Assert.Equal(feed.Count(character => character == '\n'), feed.Split("\r\n").Length - 1);
        Assert.EndsWith("END:VCALENDAR\r\n", feed, StringComparison.Ordinal);
    }

    [Fact]
    public void Text_is_escaped() =>
        Assert.Contains(@"DESCRIPTION:a\, b\; c\\d\ne",
            Unfolded(Write(Build.Event(Build.Series("2026-11-24 14:00"), description: new RichText("", "a, b; c\\d\ne\u0001")))));

    [Fact]
    public void The_head_says_what_the_feed_is()
    {
        var lines = Unfolded(Write());
        Assert.Contains("NAME:Port Watch", lines);
        Assert.Contains(@"DESCRIPTION:Navigation\, and more", lines);
        Assert.Contains("REFRESH-INTERVAL;VALUE=DURATION:PT1H", lines);
        // What most programs read instead.
        Assert.Contains("X-WR-CALNAME:Port Watch", lines);
        Assert.Contains(@"X-WR-CALDESC:Navigation\, and more", lines);
        Assert.Contains("X-WR-TIMEZONE:America/Halifax", lines);
        Assert.Contains("X-PUBLISHED-TTL:PT1H", lines);
        Assert.Contains("COLOR:steelblue", lines);
        Assert.Contains("SOURCE;VALUE=URI:https://dates.pinewick.example/c/pinewick/port-watch.ics", lines);
    }

    [Fact]
    public void All_day_events_are_dates_with_an_exclusive_end()
    {
        var lines = Unfolded(Write(Build.Event(Build.DaySeries("2026-11-27", "2026-11-29"))));
        Assert.Contains("DTSTART;VALUE=DATE:20261127", lines);
        Assert.Contains("DTEND;VALUE=DATE:20261130", lines);
        Assert.DoesNotContain("BEGIN:VTIMEZONE", lines);
    }

    [Fact]
    public void What_has_no_length_has_no_end() =>
        Assert.DoesNotContain("DTEND", Write(Build.Event(Build.Series("2026-11-24 16:00", minutes: 0))), StringComparison.Ordinal);

    [Fact]
    public void A_cancelled_event_stays_and_says_so() =>
        Assert.Contains("STATUS:CANCELLED", Unfolded(Write(Build.Event(Build.Series("2026-11-24 14:00"), state: EventState.Cancelled))));

    [Fact]
    public void Busy_times_say_nothing_else()
    {
        var calendarEvent =
            Build.Event(Build.Series("2026-11-24 14:00"), "marker", place: "marker", description: new RichText("<p>marker</p>", "marker"));
        var feed = Write(Detail.Times, calendarEvent);
        Assert.DoesNotContain("marker", feed, StringComparison.Ordinal);
        Assert.DoesNotContain(calendarEvent.Uid.ToString(), feed, StringComparison.Ordinal);
        Assert.Contains("SUMMARY:Busy", feed, StringComparison.Ordinal);
    }

    [Fact]
    public void The_same_events_give_the_same_bytes()
    {
        var calendarEvent = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY"));
        Assert.Equal(Write(calendarEvent), Write(calendarEvent));
    }

    [Fact]
    public void A_zone_is_described_by_its_yearly_rule_for_a_series_without_end()
    {
        var lines = Unfolded(Write(Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY"))));
        Assert.Contains("RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU", lines);
        Assert.Contains("RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU", lines);
    }

    [Theory]
    [InlineData("America/Halifax")]
    [InlineData("Europe/Oslo")]
    [InlineData("Australia/Lord_Howe")]
    [InlineData("Asia/Kathmandu")]
    [InlineData("America/Sao_Paulo")]
    [InlineData("Europe/Dublin")]
    [InlineData("UTC")]
    public void Another_reader_finds_the_same_instants(string zone)
    {
        foreach (var (start, rule) in new[]
        {
            ("2026-03-01 09:00", "FREQ=WEEKLY;BYDAY=MO,TH"),
            ("2015-06-01 18:30", "FREQ=DAILY;INTERVAL=5;COUNT=900"),
            // Starts that their rules do not give: 1 March is a Sunday, 1 September a Tuesday.
            ("2026-03-01 09:00", "FREQ=WEEKLY;BYDAY=MO,TH;COUNT=20"),
            ("2026-09-01 09:00", "FREQ=DAILY;BYDAY=FR;COUNT=1"),
            ("2026-09-01 01:15", "FREQ=WEEKLY;INTERVAL=2;UNTIL=20281218T180000Z"),
        })
        {
            var calendarEvent = Build.Event(Build.Series(start, rule, DateTimeZoneProviders.Tzdb[zone]));
            var window = new Window(new LocalDate(2026, 1, 1), new LocalDate(2029, 1, 1), DateTimeZone.Utc);
            var ours = calendarEvent.Content.Series.In(window).Select(occurrence => occurrence.Start);
            Assert.Equal(ours, ReadByIcalNet(Write(calendarEvent), window));
        }
    }

    [Fact]
    public void Another_reader_finds_extra_and_removed_dates()
    {
        var series = Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=5") with
        {
            Extra = [Build.Local("2026-11-26 10:00")],
            Removed = [Build.Local("2026-12-01 14:00")]
        };
        var window = Build.Window("2026-01-01", "2027-12-31");
        Assert.Equal(series.In(window).Select(occurrence => occurrence.Start), ReadByIcalNet(Write(Build.Event(series)), window));
    }

    private static IEnumerable<Instant> ReadByIcalNet(string feed, Window window)
    {
        var calendar = Foreign.Calendar.Load(feed)!;
        return calendar.GetOccurrences(new Foreign.DataTypes.CalDateTime(window.From.ToDateTimeUtc()))
            .Select(occurrence => Instant.FromDateTimeUtc(occurrence.Period.StartTime.AsUtc))
            .TakeWhile(start => start < window.To);
    }
}
