using System.Buffers;
using CsCheck;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Tests.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Foreign = Ical.Net;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Series with exceptions, breaks and splits in a feed: what another program makes of them.</summary>
public class FeedOfSeriesTests
{
    private static readonly Series Lab = Build.Series("2026-10-13 14:00", "FREQ=WEEKLY;BYDAY=TU,TH;UNTIL=20261218T180000Z");

    private static string[] Write(CalendarEvent calendarEvent, SchoolCalendar? school = null, Detail detail = Detail.Complete) =>
        TestFeed.Unfolded(TestFeed.Write(TestFeed.Of(calendarEvent, school, detail)));

    /// <summary>The starts in the window; Ical.Net gives what lasts into it too.</summary>
    private static IEnumerable<Instant> ReadBack(IEnumerable<string> feed, Window window) =>
        Foreign.Calendar.Load(string.Join("\r\n", feed))!.GetOccurrences(new Foreign.DataTypes.CalDateTime(window.From.ToDateTimeUtc()))
            .TakeWhile(occurrence => occurrence.Period.StartTime.AsUtc < window.To.ToDateTimeUtc())
            .Where(occurrence => ((Foreign.CalendarComponents.CalendarEvent)occurrence.Source).Status != "CANCELLED")
            .Select(occurrence => Instant.FromDateTimeUtc(occurrence.Period.StartTime.AsUtc))
            .Where(start => start >= window.From)
            .Order();

    private static IEnumerable<Instant> Ours(CalendarEvent calendarEvent, Window window, SchoolCalendar? school = null) =>
        EventDates.In(calendarEvent, window, school ?? SchoolCalendar.Empty)
            .Where(date => date.State != EventState.Cancelled)
            .Select(date => date.Occurrence.Start)
            .Where(start => start >= window.From && start < window.To);

    private static readonly Window Autumn = Build.Window("2026-10-01", "2027-01-31");

    [Fact]
    public void An_extra_date_that_the_rule_gives_already_is_listed_once()
    {
        var tuesday = Build.Local("2026-12-01 14:00");
        var calendarEvent = Build.Event(Lab with { Extra = [tuesday, Build.Local("2026-12-02 14:00")] });
        var feed = Write(calendarEvent);
        Assert.Equal(
            ["RDATE;TZID=America/Halifax:20261202T140000"], feed.Where(line => line.StartsWith("RDATE", StringComparison.Ordinal)));
        Assert.Equal(Ours(calendarEvent, Autumn), ReadBack(feed, Autumn));
        // What the rule would give and was taken out does not come back by it.
        var without = Build.Event(Lab with { Extra = [tuesday], Removed = [tuesday] });
        Assert.Equal(Ours(without, Autumn), ReadBack(Write(without), Autumn));
    }

    [Fact]
    public void A_moved_date_is_a_component_of_its_own_with_the_same_uid()
    {
        var calendarEvent = Build.Event(
            Lab) with
        {
            Exceptions = [
                new EventException(Build.Local("2026-12-01 14:00")) { Start = Build.Local("2026-12-02 09:00"),
                    End = Build.Local("2026-12-02 10:30"), Own = OwnFields.None.With("title", "Storm lab") }]
        };
        var feed = Write(calendarEvent);
        Assert.Equal(2, feed.Count(line => line == $"UID:{calendarEvent.Uid}"));
        Assert.Contains("RECURRENCE-ID;TZID=America/Halifax:20261201T140000", feed);
        Assert.Contains("DTSTART;TZID=America/Halifax:20261202T090000", feed);
        Assert.Contains("SUMMARY:Storm lab", feed);
        Assert.Equal(Ours(calendarEvent, Autumn), ReadBack(feed, Autumn));
    }

    [Fact]
    public void A_cancelled_date_stays_and_a_removed_one_is_excluded()
    {
        var calendarEvent = Build.Event(Lab with { Removed = [Build.Local("2026-12-03 14:00")] }) with
        {
            Exceptions =
            [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true }]
        };
        var feed = Write(calendarEvent);
        Assert.Contains("STATUS:CANCELLED", feed);
        Assert.Contains("EXDATE;TZID=America/Halifax:20261203T140000", feed);
        Assert.Equal(Ours(calendarEvent, Autumn), ReadBack(feed, Autumn));
    }

    [Theory]
    [InlineData(InBreaks.Skip)]
    [InlineData(InBreaks.Move)]
    [InlineData(InBreaks.Ignore)]
    public void Breaks_are_excluded_and_moved_dates_added(InBreaks inBreaks)
    {
        var school = Build.School(null, new NamedDays("Half week", Build.Day("2026-10-26"), Build.Day("2026-10-28")),
            new NamedDays("Week", Build.Day("2026-11-09"), Build.Day("2026-11-13")));
        var calendarEvent = Build.Event(Lab with { InBreaks = inBreaks }) with
        {
            Exceptions =
            [
                new EventException(Build.Local("2026-10-27 14:00")) { Own = OwnFields.None.With("place", Place.Called("Loft")) },
                new EventException(
                    Build.Local("2026-11-10 14:00")) { Start = Build.Local("2026-11-14 10:00"), End = Build.Local("2026-11-14 11:00") },
            ],
        };
        Assert.Equal(Ours(calendarEvent, Autumn, school), ReadBack(Write(calendarEvent, school), Autumn));
    }

    [Fact]
    public void The_day_cycle_is_delivered_date_by_date()
    {
        var school = Build.School(new DayCycle(CycleUnit.Days, 6, true));
        var calendarEvent = Build.Event(
            Build.Series(
                "2026-09-07 14:00") with
            { Cycle = new CyclePattern([3], [], null, null), Removed = [Build.Local("2026-09-17 14:00")] });
        var year = Build.Window("2026-08-01", "2027-07-31");
        Assert.Equal(Ours(calendarEvent, year, school), ReadBack(Write(calendarEvent, school), year));
        Assert.DoesNotContain(Write(calendarEvent, school), line => line.StartsWith("RRULE:FREQ=D", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=30;SKIP=FORWARD;COUNT=30")]
    [InlineData("RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=FORWARD")]
    [InlineData("RSCALE=GREGORIAN;FREQ=YEARLY;SKIP=BACKWARD")]
    public void Programs_that_know_no_skip_find_the_same_dates(string rule)
    {
        var calendarEvent = Build.Event(Build.Series("2024-01-31 14:00", rule));
        var years = Build.Window("2024-01-01", "2029-01-01");
        var feed = Write(calendarEvent);
        Assert.DoesNotContain(feed, line => line.Contains("SKIP", StringComparison.Ordinal));
        Assert.Equal(Ours(calendarEvent, years), ReadBack(feed, years));
    }

    [Theory]
    [InlineData("2026-08-31 08:15", "RSCALE=GREGORIAN;FREQ=MONTHLY;INTERVAL=3;BYMONTH=10,11;SKIP=BACKWARD")]
    [InlineData("2026-08-31 08:15", "FREQ=MONTHLY;INTERVAL=3;BYMONTH=10")]
    [InlineData("2026-08-31 08:15", "FREQ=MONTHLY;INTERVAL=3;BYMONTH=11")]
    [InlineData("2026-09-01 14:00", "FREQ=DAILY;INTERVAL=7;BYDAY=MO")]
    [InlineData("2026-09-01 14:00", "FREQ=YEARLY;BYMONTHDAY=30;BYMONTH=2")]
    public void A_rule_that_matches_no_day_outside_is_left_out_and_its_dates_are_listed(string start, string rule)
    {
        var calendarEvent = Build.Event(Build.Series(start, rule));
        var years = Build.Window("2026-01-01", "2031-01-01");
        var feed = Write(calendarEvent);
        Assert.DoesNotContain(feed.SkipWhile(line => line != "BEGIN:VEVENT"), line => line.StartsWith("RRULE", StringComparison.Ordinal));
        Assert.Equal(Ours(calendarEvent, years), ReadBack(feed, years));
    }

    [Fact]
    public void A_split_off_series_names_the_one_it_continues()
    {
        var before = Uid.New();
        Assert.Contains($"RELATED-TO;RELTYPE=SIBLING:{before}", Write(Build.Event(Lab) with { Continues = before }));
        Assert.DoesNotContain(Write(Build.Event(Lab) with { Continues = before }, detail: Detail.Times),
            line => line.Contains(before.Text, StringComparison.Ordinal));
    }

    [Fact]
    public void An_exception_that_an_audience_may_not_know_of_does_not_show()
    {
        var text = Build.Event(
            Lab) with
        {
            Exceptions = [
                new EventException(Build.Local("2026-12-01 14:00")) { Own =
                    OwnFields.None.With("description", new RichText("<p>marker</p>", "marker")) }]
        };
        Assert.Contains(Write(text), line => line.StartsWith("RECURRENCE-ID", StringComparison.Ordinal));
        Assert.Equal(Write(Build.Event(Lab) with { Uid = text.Uid }, detail: Detail.Headline), Write(text, detail: Detail.Headline));
        var cancelled = text with { Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true }] };
        var removed = Build.Event(Lab with { Removed = [Build.Local("2026-12-01 14:00")] }) with { Uid = text.Uid };
        Assert.Equal(Write(removed, detail: Detail.Times), Write(cancelled, detail: Detail.Times));
    }

    [Fact]
    public void Categories_are_told_and_tags_only_to_those_who_see_all()
    {
        var calendarEvent = Build.Event(Lab);
        calendarEvent = calendarEvent with
        {
            Content =
            calendarEvent.Content with { Category = new Category(Guid.NewGuid(), "Assessment", Build.Harbour), Tags = ["practical"] }
        };
        Assert.Contains("CATEGORIES:Assessment", Write(calendarEvent));
        Assert.Contains("CATEGORIES:practical", Write(calendarEvent));
        Assert.DoesNotContain("CATEGORIES:practical", Write(calendarEvent, detail: Detail.Headline));
        Assert.DoesNotContain(Write(calendarEvent, detail: Detail.Times), line => line.StartsWith("CATEGORIES", StringComparison.Ordinal));
    }

    /// <summary>What Ical.Net is known to read otherwise than the standard says, each found by the test below and looked up in RFC
    /// 5545.</summary>
    private static bool IsReadOtherwise(RecurrenceRule rule) =>
        // 3.3.10: BYSETPOS takes the whole set of a week or a day, and over the times of day.
        rule.Parts.SetPositions.Count > 0
        // BYWEEKNO in a calendar year whose first or last days belong to a week of the year beside it.
        || rule.Parts.WeekNumbers.Count > 0
        // BYDAY with a number beside BYMONTHDAY or BYYEARDAY: it limits.
        || (rule.Parts.Weekdays.Any(weekday => weekday.Ordinal != 0) && rule.Parts.MonthDays.Count + rule.Parts.YearDays.Count > 0)
        // BYMONTHDAY in a yearly rule without BYMONTH: it means every month.
        || (rule.Frequency == Frequency.Yearly && rule.Parts is { MonthDays.Count: > 0, Months.Count: 0 })
        // BYHOUR and BYMINUTE on a day on which the clocks change: Ical.Net takes the offset of the start's time of day.
        || rule.Parts.Hours.Count + rule.Parts.Minutes.Count > 0
        // BYMONTH beside BYYEARDAY: it limits.
        || rule.Parts is { YearDays.Count: > 0, Months.Count: > 0 }
        // An end in a yearly rule (a COUNT may be delivered as one): the year it lies in counts up to it, not up to its anniversary of the
        // start.
        || rule is { Frequency: Frequency.Yearly, Count: not null }
        || rule.Frequency < Frequency.Daily;

    private static readonly Gen<(CalendarEvent Event, SchoolCalendar School)> Generated =
        from rule in SeriesProperties.Rules.Where(rule => !IsReadOtherwise(rule))
        from day in Gen.Int[0, 300]
            // At the hour that clocks skip programs name a date by the time before or after the gap; the standard does not say which.
        from minute in Gen.Int[16, 95].Select(quarter => quarter * 15)
        from zone in Gen.Int[0, 4]
            .Select(index => new[] { "America/Halifax", "Europe/Oslo", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC" }[index])
        from inBreaks in Gen.Enum<InBreaks>()
        from removed in Gen.Int[0, 30].Array[0, 3]
        from exceptions in Gen.Select(Gen.Int[0, 30], Gen.Int[0, 3], Gen.Int[-2, 2]).Array[0, 3]
            // Ical.Net gives up with an exception on a rule that gives nothing any more.
        let start = Build.Day("2026-08-01").PlusDays(day).AtMidnight().PlusMinutes(minute)
        where GoesOn(rule, start)
        select Made(rule, start, zone, inBreaks, removed, exceptions);

    private static bool GoesOn(RecurrenceRule rule, LocalDateTime start) =>
        rule.Count is not null
            || new Series(Timing.Timed(start, start, DateTimeZone.Utc), rule).Pattern(Build.Local("2029-01-01 00:00"), SchoolCalendar.Empty)
                .Any();

    private static (CalendarEvent, SchoolCalendar) Made(RecurrenceRule rule, LocalDateTime start, string zone, InBreaks inBreaks,
        int[] removed, (int At, int Kind, int Days)[] exceptions)
    {
        var series = new Series(Timing.Timed(start, start.PlusMinutes(60), DateTimeZoneProviders.Tzdb[zone]), rule) { InBreaks = inBreaks };
        var ids = series.Pattern(start, SchoolCalendar.Empty).TakeWhile(id => id.Year < 2100).Take(31).ToArray();
        var out_ = removed.Select(at => ids[at % ids.Length]).Distinct().Order().ToArray();
        var own = exceptions
            .Select(one => (Id: ids[one.At % ids.Length], one.Kind, one.Days))
            .DistinctBy(one => one.Id)
            .Where(one => !out_.Contains(one.Id))
            // Two dates at one moment are one for Ical.Net: each moves to a minute of its own.
            .Select((one, index) => one.Kind switch
            {
                0 => new EventException(one.Id) { IsCancelled = true },
                1 => new EventException(one.Id) { Own = OwnFields.None.With("title", "Own") },
                _ =>
                    new EventException(one.Id)
                    {
                        Start = one.Id.PlusDays(one.Days).PlusMinutes(7 + index),
                        End = one.Id.PlusDays(one.Days).PlusMinutes(67 + index)
                    },
            });
        return (Build.Event(series with { Removed = out_ }) with { Exceptions = [.. own.OrderBy(one => one.RecurrenceId)] },
            Build.School());
    }

    [Fact]
    public void Two_hundred_generated_series_are_read_back_with_the_same_instants()
    {
        var window = new Window(Build.Day("2026-08-01"), Build.Day("2028-06-01"), DateTimeZone.Utc);
        Generated.Sample(given =>
        {
            var feed = Write(given.Event, given.School);
            var (ours, theirs) = (Ours(given.Event, window, given.School).ToArray(), ReadBack(feed, window).ToArray());
            Assert.True(ours.SequenceEqual(theirs),
                $"Ours {string.Join(' ', ours.Except(theirs).Take(4))}, theirs {string.Join(' ', theirs.Except(ours).Take(4))} of {string.Join('\n', feed.SkipWhile(line => line != "BEGIN:VEVENT"))}");
        }, iter: 200, threads: 1);
    }
}
