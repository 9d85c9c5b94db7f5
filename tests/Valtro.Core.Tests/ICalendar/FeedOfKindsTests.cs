using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
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

    /// <summary>As an edition delivers it.</summary>
    private static string Feed(CalendarEvent calendarEvent, Func<Edition, Edition> edition, Detail detail = Detail.Complete)
    {
        var components = TestFeed.Components(edition: edition(new Edition(Audience.Everyone, Build.Halifax, NodaTime.IsoDayOfWeek.Monday)));
        if (Delivered.AtLevel(calendarEvent, detail) is { } delivered)
            components.AddSeries(delivered, delivered.Disclosed.Uid);
        return TestFeed.Write(components).Replace("\r\n ", "", StringComparison.Ordinal);
    }

    private static Edition Tasks(Edition edition) => edition with { Deadlines = DeadlineForm.Tasks };

    private static Func<Edition, Edition> Reminding(Reminding reminding, Reminder? reminder = null) =>
        edition => edition with { Reminding = reminding, Reminder = reminder };

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

    [Fact]
    public void A_deadline_as_a_task_is_due_and_begins_nowhere()
    {
        var feed = Feed(Due("2026-12-04 17:00"), Tasks);
        Assert.Contains("BEGIN:VTODO\r\n", feed, StringComparison.Ordinal);
        Assert.Contains("DUE;TZID=America/Halifax:20261204T170000\r\n", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("TRANSP", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("BEGIN:VEVENT", feed, StringComparison.Ordinal);
        var read = Assert.Single(Foreign.Calendar.Load(feed)!.Todos);
        Assert.Equal(("Essay", "NEEDS-ACTION"), (read.Summary, read.Status));
        Assert.Equal("DUE;VALUE=DATE:20261204", TestFeed.Unfolded(Feed(Due("2026-12-04", allDay: true), Tasks)).Single(line =>
            line.StartsWith("DUE", StringComparison.Ordinal)));
    }

    [Fact]
    public void A_task_that_recurs_is_one_for_each_date_and_a_cancelled_date_says_so()
    {
        var weekly = Due("2026-11-27 16:00", rule: "FREQ=WEEKLY;COUNT=4");
        weekly = weekly with { Exceptions = [new EventException(Build.Local("2026-12-04 16:00")) { IsCancelled = true }] };
        var todos = Foreign.Calendar.Load(Feed(weekly, Tasks))!.Todos;
        Assert.Equal(4, todos.Select(one => one.Uid).Distinct().Count());
        Assert.Equal("CANCELLED", Assert.Single(todos, one => one.Due!.Value.Day == 4).Status);
        Assert.All(todos, one => Assert.Null(one.DtStart));
    }

    [Fact]
    public void What_takes_place_is_no_task() =>
        Assert.DoesNotContain("VTODO", Feed(With(content => content), Tasks), StringComparison.Ordinal);

    [Theory]
    [InlineData(1, ReminderUnit.Days, 18, "-PT24H30M")]
    [InlineData(0, ReminderUnit.Days, 8, "-PT10H30M")]
    [InlineData(0, ReminderUnit.Days, 20, "PT1H30M")]
    [InlineData(2, ReminderUnit.Days, null, "-PT48H")]
    [InlineData(90, ReminderUnit.Minutes, null, "-PT1H30M")]
    [InlineData(0, ReminderUnit.Minutes, null, "PT0H")]
    public void A_reminder_is_said_from_the_start(int amount, ReminderUnit unit, int? at, string trigger)
    {
        var reminder = new Reminder(amount, unit, at is { } hour ? new NodaTime.LocalTime(hour, 0) : null);
        var evening = With(content => content with { Reminder = reminder });
        var feed = Feed(evening, Reminding(Core.Editions.Reminding.AsEventsSay));
        Assert.Contains(
            $"BEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:{trigger}\r\nDESCRIPTION:Open harbour\r\nEND:VALARM\r\nEND:VEVENT\r\n",
            feed, StringComparison.Ordinal);
        Assert.Single(Assert.Single(Foreign.Calendar.Load(feed)!.Events).Alarms);
    }

    [Fact]
    public void The_evening_before_a_whole_day_is_before_its_midnight()
    {
        var due = Due("2026-12-04", allDay: true);
        due = due with { Content = due.Content with { Reminder = new Reminder(1, ReminderUnit.Days, new NodaTime.LocalTime(18, 0)) } };
        Assert.Contains("TRIGGER:-PT6H\r\n", Feed(due, Reminding(Core.Editions.Reminding.AsEventsSay)), StringComparison.Ordinal);
        Assert.Contains("TRIGGER;RELATED=END:-PT6H\r\n",
            Feed(due, edition => Tasks(edition) with { Reminding = Core.Editions.Reminding.AsEventsSay }), StringComparison.Ordinal);
    }

    [Fact]
    public void Reminders_are_only_in_feeds_that_deliver_them_and_of_what_tells_all()
    {
        var hour = new Reminder(1, ReminderUnit.Hours);
        var evening = With(content => content with { Reminder = hour });
        Assert.DoesNotContain("VALARM", Feed(evening), StringComparison.Ordinal);
        Assert.DoesNotContain("VALARM", Feed(evening, Reminding(Core.Editions.Reminding.Nothing)), StringComparison.Ordinal);
        Assert.DoesNotContain(
            "VALARM", Feed(evening, Reminding(Core.Editions.Reminding.AsEventsSay), Detail.Headline), StringComparison.Ordinal);
        var none = With(content => content);
        Assert.DoesNotContain("VALARM", Feed(none, Reminding(Core.Editions.Reminding.AsEventsSay)), StringComparison.Ordinal);
        Assert.Contains("TRIGGER:-PT1H\r\n", Feed(none, Reminding(Core.Editions.Reminding.Everything, hour)), StringComparison.Ordinal);
        Assert.DoesNotContain(
            "VALARM", Feed(none, Reminding(Core.Editions.Reminding.Everything, hour), Detail.Times), StringComparison.Ordinal);
        Assert.DoesNotContain("VALARM",
            Feed(none with { State = EventState.Cancelled }, Reminding(Core.Editions.Reminding.Everything, hour)),
            StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(61, ReminderUnit.Days, null)]
    [InlineData(-1, ReminderUnit.Hours, null)]
    [InlineData(1, ReminderUnit.Hours, 18)]
    public void A_reminder_that_means_nothing_is_refused(int amount, ReminderUnit unit, int? at) => Assert.Equal("reminder",
        Assert.Single(Assert.Throws<RuleException>(
            () => new Reminder(amount, unit, at is { } hour ? new NodaTime.LocalTime(hour, 0) : null).Check("reminder")).Refusals).Field);

    [Fact]
    public void Who_is_responsible_is_a_participant_and_stands_below_the_text_where_names_are_told()
    {
        var evening = With(content => content with
        {
            Description = new RichText("<p>Chowder</p>", "Chowder"),
            People = [new Involved(null, "Ada & Bo"), new Involved(null, "Captain Marr", Part.Speaks)],
        });
        Edition Words(Edition edition) => edition with
        {
            PartNames = new Dictionary<Part, string> { [Part.Leads] = "Led by", [Part.Speaks] = "Speaker" },
        };
        Assert.DoesNotContain("Captain Marr", Feed(evening, Words), StringComparison.Ordinal);

        var components = TestFeed.Components(edition: Words(new Edition(Audience.Members, Build.Halifax, NodaTime.IsoDayOfWeek.Monday)));
        var told = Disclosed.Of(evening, Detail.Complete, Grants.Names)!;
        components.AddSeries(new Delivered(evening, told, [], [], disclosed => disclosed), told.Uid);
        var feed = TestFeed.Write(components).Replace("\r\n ", "", StringComparison.Ordinal);
        var read = Assert.Single(Foreign.Calendar.Load(feed)!.Events);
        Assert.Equal("Chowder\n\nLed by: Ada & Bo\nSpeaker: Captain Marr", read.Description);
        Assert.Contains("<p>Chowder</p><p>Led by: Ada &amp\\; Bo</p>", feed, StringComparison.Ordinal);
        Assert.Contains("PARTICIPANT-TYPE:SPEAKER\r\nSUMMARY:Captain Marr\r\nEND:PARTICIPANT\r\n", feed, StringComparison.Ordinal);
    }

    [Fact]
    public void A_known_place_has_its_address_behind_its_name_and_a_location_of_its_own()
    {
        var hall = new Place(Guid.NewGuid(), "Hall");
        var evening = With(content => content with { Place = hall });
        var components = TestFeed.Components(places: new Dictionary<Guid, PlaceTold>
        {
            [hall.Id!.Value] = new(new Coordinates(43.9412, -60.0315), "1 Quay Road, Pinewick", "Two steps; ring at the side door"),
        });
        components.AddSeries(Delivered.AtLevel(evening, Detail.Headline)!, evening.Uid);
        components.AddSeries(Delivered.AtLevel(evening, Detail.Times)!, new Uid("busy"));
        var feed = TestFeed.Write(components).Replace("\r\n ", "", StringComparison.Ordinal);
        var read = Foreign.Calendar.Load(feed)!.Events;
        Assert.Equal("Hall, 1 Quay Road, Pinewick", read.Single(one => one.Uid != "busy").Location);
        Assert.Contains("GEO:43.9412;-60.0315\r\n", feed, StringComparison.Ordinal);
        Assert.Contains(
            "NAME:Hall\r\nDESCRIPTION:1 Quay Road\\, Pinewick\\nTwo steps\\; ring at the side door\r\nGEO:43.9412;-60.0315\r\nEND:VLOCATION\r\n",
            feed, StringComparison.Ordinal);
        Assert.Single(feed.Split("BEGIN:VLOCATION").Skip(1));
    }

    /// <summary>A date that was moved, in a feed of dates: the evening before is before its own start.</summary>
    [Fact]
    public void A_moved_date_reminds_before_when_it_really_is()
    {
        var weekly = Build.Event(Build.Series("2026-11-25 14:00", "FREQ=WEEKLY;COUNT=2"));
        weekly = weekly with
        {
            Content = weekly.Content with { Reminder = new Reminder(1, ReminderUnit.Days, new NodaTime.LocalTime(18, 0)) },
            Exceptions = [new EventException(Build.Local("2026-12-02 14:00"))
            {
                Start = Build.Local("2026-12-02 16:00"), End = Build.Local("2026-12-02 17:00"),
            }],
        };
        var edition = Reminding(Core.Editions.Reminding.AsEventsSay)(
            new Edition(Audience.Everyone, Build.Halifax, NodaTime.IsoDayOfWeek.Monday));
        var components = TestFeed.Components(edition: edition);
        foreach (var date in EventDates.All(weekly, YearPlans.SchoolCalendar.Empty))
            components.AddDate(date, Disclosed.Of(date, Detail.Complete)!, new Uid($"{date.Occurrence.Start}"));
        var triggers = TestFeed.Unfolded(TestFeed.Write(components)).Where(line => line.StartsWith("TRIGGER", StringComparison.Ordinal));
        Assert.Equal(["TRIGGER:-PT20H", "TRIGGER:-PT22H"], triggers);
    }
}
