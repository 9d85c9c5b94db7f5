using System.Text;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Foreign = Ical.Net;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>From and to by the clock on the wall, where programs outside give all dates of a rule the exact length of the first (RFC 5545
/// 3.8.5.3).</summary>
public class FeedOfNightsTests
{
    private static string[] Write(CalendarEvent calendarEvent) => TestFeed.Unfolded(TestFeed.Write(TestFeed.Of(calendarEvent)));

    private static IEnumerable<(Instant, Instant)> ReadBack(string[] feed, int count) =>
        Foreign.Calendar.Load(string.Join("\r\n", feed))!.GetOccurrences(new Foreign.DataTypes.CalDateTime(2026, 9, 1)).Take(count)
            .Select(
                occurrence => (Instant.FromDateTimeUtc(occurrence.Period.StartTime.AsUtc),
                    Instant.FromDateTimeUtc(occurrence.Period.EffectiveEndTime!.AsUtc)))
            .Order();

    private static IEnumerable<(Instant, Instant)> Ours(CalendarEvent calendarEvent, int count) =>
        EventDates.All(calendarEvent, YearPlans.SchoolCalendar.Empty).Take(count)
            .Select(date => (date.Occurrence.Start, date.Occurrence.End)).Order();

    [Theory]
    [InlineData("2026-10-03 22:00", 480)]
    [InlineData("2026-10-31 22:00", 480)]
    [InlineData("2027-03-13 22:00", 480)]
    [InlineData("2027-03-06 22:00", 1_440)]
    public void Another_program_reads_every_night_with_the_length_that_it_has(string start, int minutes)
    {
        var watch = Build.Event(Build.Series(start, "FREQ=WEEKLY;BYDAY=SA", minutes: minutes));
        Assert.Equal(Ours(watch, 40), ReadBack(Write(watch), 40));
    }

    [Fact]
    public void Nights_that_differ_are_named_up_to_a_horizon_that_moves_on_1_January()
    {
        var watch = Build.Event(Build.Series("2026-10-03 22:00", "FREQ=WEEKLY;BYDAY=SA", minutes: 480));
        string[] At(Instant now)
        {
            var components = TestFeed.Components(now: now);
            components.AddSeries(Editions.Delivered.AtLevel(watch, Core.Disclosure.Detail.Complete)!, watch.Uid);
            return [.. components.Written.Select(component => component.Name.RecurrenceId)];
        }
        var dates = At(Instant.FromUtc(2026, 12, 31, 12, 0));
        Assert.Equal(["", "2026-10-31T22:00:00", "2027-03-13T22:00:00"], dates[..3]);
        Assert.Equal(dates, At(Instant.FromUtc(2026, 9, 2, 0, 0)));
        Assert.Equal("2031-11-01T22:00:00", dates[^1]);
        Assert.Equal("2032-11-06T22:00:00", At(Instant.FromUtc(2027, 1, 1, 12, 0))[^1]);
    }

    [Fact]
    public void A_first_night_that_differs_does_not_give_its_length_to_all()
    {
        var feed = Write(Build.Event(Build.Series("2026-10-31 22:00", "FREQ=WEEKLY;BYDAY=SA;COUNT=3", minutes: 480)));
        Assert.Contains("DURATION:PT8H", feed);
        Assert.Contains("RECURRENCE-ID;TZID=America/Halifax:20261031T220000", feed);
        Assert.Contains("DTEND;TZID=America/Halifax:20261101T060000", feed);
    }

    [Fact]
    public void By_day_nothing_differs_and_no_date_is_named() =>
        Assert.DoesNotContain(Write(Build.Event(Build.Series("2026-10-03 09:00", "FREQ=DAILY", minutes: 90))),
            line => line.StartsWith("RECURRENCE-ID", StringComparison.Ordinal));

    [Fact]
    public void An_event_in_the_hour_that_does_not_exist_is_where_it_was_moved()
    {
        var feed = Write(Build.Event(Build.Series("2027-03-14 02:30", minutes: 45)));
        Assert.Contains("DTSTART;TZID=America/Halifax:20270314T033000", feed);
        Assert.Contains("DTEND;TZID=America/Halifax:20270314T041500", feed);
    }

    [Fact]
    public void A_series_of_the_31st_never_runs_out_of_dates()
    {
        var feed = Write(Build.Event(Build.Series("1990-01-31 14:00", "RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=FORWARD")));
        Assert.Contains(
            feed, line => line.StartsWith("RDATE", StringComparison.Ordinal) && line.Contains("20300301T140000", StringComparison.Ordinal));
    }

    [Fact]
    public void A_place_that_is_known_is_told_with_where_it_is()
    {
        var slipway = new Place(Guid.NewGuid(), "Slipway");
        var components =
            TestFeed.Components(places: new Dictionary<Guid, PlaceTold> { [slipway.Id!.Value] = new(new(44.648766, -63.575237), "", "") });
        var made = Build.Event(Build.Series("2026-10-03 09:00"));
        var calendarEvent = made with { Content = made.Content with { Place = slipway } };
        components.AddSeries(Editions.Delivered.AtLevel(calendarEvent, Core.Disclosure.Detail.Complete)!, calendarEvent.Uid);
        Assert.Contains("GEO:44.648766;-63.575237", TestFeed.Unfolded(TestFeed.Write(components)));
    }

    [Theory]
    [InlineData("20261124T140000Z-4711@calendar.example")]
    [InlineData("Boats, oars; and a back\\slash")]
    [InlineData("a name that another program gave it, and so long that no line of a feed holds it in one piece, as lines have 75 octets ⛵")]
    public void A_name_from_outside_goes_out_as_it_is_and_is_selected_by(string name)
    {
        var one = Build.Event(Build.Series("2026-11-24 14:00")) with { Uid = new Uid(name) };
        var whole = TestFeed.Write(TestFeed.Of(one));
        Assert.Equal(name, Assert.Single(Foreign.Calendar.Load(whole)!.Events).Uid);
        var chosen = new List<Uid>();
        FeedSelection.Of(
            Encoding.UTF8.GetBytes(whole), (uid, _) => { chosen.Add(uid); return true; }, new Uri("https://pinewick.example"), null);
        Assert.Equal([one.Uid], chosen);
        Assert.Equal(one.Uid, Uid.OfAddress(Uri.UnescapeDataString(one.Uid.InAddress.Replace("%2F", "%252F", StringComparison.Ordinal))));
    }

    [Fact]
    public void What_a_component_is_about_is_read_from_it_folded_escaped_and_without_regard_to_case()
    {
        var one = Build.Event(Build.Series("2026-11-24 14:00"));
        var word = $"Out, and about; {new string('é', 60)}";
        var whole = TestFeed.Write(TestFeed.Of(one with
        {
            Content = one.Content with { Category = new Category(Guid.Empty, "Trips", Build.Harbour), Tags = [word] },
        }));
        IReadOnlySet<string>? told = null;
        FeedSelection.Of(Encoding.UTF8.GetBytes(whole), (_, about) => (told = about()).Count > 0, new Uri("https://pinewick.example"), null);
        Assert.Equal(["Trips", word], told!.Order(StringComparer.Ordinal).Reverse());
        Assert.Contains("TRIPS", told!);
    }

    [Fact]
    public void Finished_components_are_selected_byte_for_byte_with_the_zones_that_they_need()
    {
        var here = Build.Event(Build.Series("2026-10-31 22:00", "FREQ=WEEKLY;BYDAY=SA;COUNT=3", minutes: 480),
            string.Concat(Enumerable.Repeat("Ålesund ⛵ ", 20)).Trim());
        var there = Build.Event(Build.Series("2026-10-31 22:00", zone: DateTimeZoneProviders.Tzdb["Europe/Oslo"]));
        var whole = TestFeed.Write(
            TestFeed.Of([.. new[] { here, there }.Select(one => Editions.Delivered.AtLevel(one, Core.Disclosure.Detail.Complete)!)]));
        var some = Select(uid => uid == here.Uid, null);
        Assert.Equal(Components(whole).Where(one => one.Contains(here.Uid.ToString(), StringComparison.Ordinal)), Components(some));
        Assert.Equal(2, Components(some).Count());
        Assert.Contains("TZID:America/Halifax", some, StringComparison.Ordinal);
        Assert.DoesNotContain("Oslo", some, StringComparison.Ordinal);
        Assert.Contains(
            "SOURCE;VALUE=URI:https://dates.pinewick.example/c/pinewick/port-watch.ics?only=port-watch", TestFeed.Unfolded(some));
        var none = Select(_ => false, "It has left; see https://pinewick.example");
        Assert.Contains("DESCRIPTION:It has left\\; see https://pinewick.example", TestFeed.Unfolded(none));
        Assert.Empty(Foreign.Calendar.Load(none)!.Events);

        string Select(Func<Uid, bool> selects, string? notice) => Encoding.UTF8.GetString(
            FeedSelection.Of(Encoding.UTF8.GetBytes(whole), (uid, _) => selects(uid),
                new Uri("https://dates.pinewick.example/c/pinewick/port-watch.ics?only=port-watch"), notice));

        static IEnumerable<string> Components(string feed) =>
            feed.Split("BEGIN:VEVENT").Skip(1).Select(one => one.Replace("END:VCALENDAR\r\n", "", StringComparison.Ordinal));
    }
}
