using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Foreign = Ical.Net;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Feeds of what is due, of what is not certain, and of what takes no time.</summary>
public class FeedOfKindsTests
{
    private static CalendarEvent Due(string start, bool allDay = false, string? rule = null)
    {
        var made = Build.Event(Build.Series(allDay ? $"{start} 00:00" : start, rule, minutes: 0), "Essay");
        var series = allDay
            ? made.Series with { Timing = Core.Time.Timing.WholeDays(Build.Day(start), Build.Day(start), Build.Halifax) }
            : made.Series;
        return made with { Content = made.Content with { Kind = EventKind.Deadline, Series = series } };
    }

    private static CalendarEvent With(Func<EventContent, EventContent> change)
    {
        var made = Build.Event(Build.Series("2026-11-25 18:30"), "Open harbour");
        return made with { Content = change(made.Content) };
    }

    private static string Feed(CalendarEvent calendarEvent, Detail detail = Detail.Complete) =>
        TestFeed.Write(TestFeed.Of(calendarEvent, detail: detail)).Replace("\r\n ", "", StringComparison.Ordinal);

    [Fact]
    public void A_deadline_is_a_moment_without_length_that_keeps_nobody_busy()
    {
        var feed = Feed(Due("2026-12-04 17:00"));
        Assert.DoesNotContain("DTEND", feed, StringComparison.Ordinal);
        Assert.Contains("TRANSP:TRANSPARENT\r\n", feed, StringComparison.Ordinal);
        var read = Assert.Single(Foreign.Calendar.Load(feed)!.Events);
        Assert.Equal(read.DtStart!.AsUtc, read.GetOccurrences().First().Period.EffectiveEndTime!.AsUtc);
    }

    [Fact]
    public void A_deadline_on_a_day_is_all_day_and_transparent()
    {
        var feed = Feed(Due("2026-12-04", allDay: true));
        Assert.Contains("DTSTART;VALUE=DATE:20261204\r\n", feed, StringComparison.Ordinal);
        Assert.Contains("TRANSP:TRANSPARENT\r\n", feed, StringComparison.Ordinal);
        Assert.True(Assert.Single(Foreign.Calendar.Load(feed)!.Events).IsAllDay);
    }

    [Fact]
    public void A_deadline_that_recurs_is_read_with_all_its_dates()
    {
        var read = Foreign.Calendar.Load(Feed(Due("2026-11-27 16:00", rule: "FREQ=WEEKLY;COUNT=4")))!;
        Assert.Equal(4, Assert.Single(read.Events).GetOccurrences().Count());
    }

    [Fact]
    public void What_is_not_certain_says_so_and_what_is_cancelled_is_that()
    {
        var tentative = With(content => content with { Certainty = Certainty.Tentative });
        Assert.Equal("TENTATIVE", Assert.Single(Foreign.Calendar.Load(Feed(tentative))!.Events).Status);
        Assert.Equal("CANCELLED",
            Assert.Single(Foreign.Calendar.Load(Feed(tentative with { State = EventState.Cancelled }))!.Events).Status);
    }

    [Theory]
    [InlineData(Transparency.Usual, "OPAQUE")]
    [InlineData(Transparency.Free, "TRANSPARENT")]
    [InlineData(Transparency.Busy, "OPAQUE")]
    public void Whether_it_takes_time_is_told(Transparency transparency, string told) =>
        Assert.Contains(
            $"TRANSP:{told}\r\n", Feed(With(content => content with { Transparency = transparency })), StringComparison.Ordinal);

    [Fact]
    public void Who_gets_times_only_hears_of_no_deadline() =>
        Assert.DoesNotContain("BEGIN:VEVENT", Feed(Due("2026-12-04 17:00"), Detail.Times), StringComparison.Ordinal);

    [Fact]
    public void A_video_call_is_a_conference_and_a_link_without_words_has_its_host()
    {
        var feed = Feed(With(content => content with
        {
            Links = [new EventLink("", "https://calls.pinewick.example/oslo", LinkKind.VideoCall),
                new EventLink("", "https://pinewick.example/map", LinkKind.Map)],
        }));
        Assert.Contains(
            "CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO;LABEL=\"calls.pinewick.example\":https://calls.pinewick.example/oslo\r\n", feed,
            StringComparison.Ordinal);
        Assert.Single(feed.Split("CONFERENCE"), part => part.StartsWith(";VALUE", StringComparison.Ordinal));
        Assert.Contains("LABEL=\"pinewick.example\":https://pinewick.example/map\r\n", feed, StringComparison.Ordinal);
    }
}
