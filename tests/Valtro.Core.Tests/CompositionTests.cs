using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

public class CompositionTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private static readonly Edition ForEveryone = new(Audience.Everyone, Build.Halifax, IsoDayOfWeek.Monday);

    private static readonly Table Headlines = new(Detail.Headline, Detail.Headline, Detail.Headline);
    private static readonly Table Times = new(Detail.Times, Detail.Times, Detail.Times);

    private static Source Calendar(Table disclosure, string plate = "PW", SourceFilter? filter = null) =>
        new(Guid.NewGuid(), Plate.Parse(plate), $"Calendar {plate}", Build.Harbour, disclosure, filter);

    private static CalendarEvent On(Source home, CalendarEvent calendarEvent, params Source[] placed) =>
        calendarEvent with { HomeCalendarId = home.CalendarId, Placements = [.. placed.Select(source => source.CalendarId)] };

    private static CalendarEvent On(Source home, string start, string title = "Boat lab", EventState state = EventState.Live) =>
        On(home, Build.Event(Build.Series(start), title, state));

    private static Composition Composition(Edition edition, params Source[] sources) => new(edition, sources, SchoolCalendar.Empty, Now);

    private static IReadOnlyList<Entry> Compose(Edition edition, Source[] sources, params CalendarEvent[] events) =>
        Composition(edition, sources).Compose(events, Build.Window("2026-11-16", "2026-12-14")).Entries;

    private static IReadOnlyList<Entry> Compose(Source source, params CalendarEvent[] events) => Compose(ForEveryone, [source], events);

    private static string[] Titles(IEnumerable<Entry> entries) => [.. entries.Select(entry => entry.Title)];

    private static string Plates(Entry entry) => string.Join(' ', entry.Sources.Select(source => source.Plate.Code));

    [Fact]
    public void A_closed_calendar_gives_nothing()
    {
        var closed = Calendar(Table.ForMembers);
        Assert.Empty(Compose(closed, On(closed, "2026-11-24 14:00")));
    }

    [Fact]
    public void Drafts_stay_inside_unless_an_edition_for_members_has_them_marked_as_such()
    {
        var calendar = Calendar(Table.Open);
        var draft = On(calendar, "2026-11-24 14:00", state: EventState.Draft);
        Assert.Empty(Compose(calendar, draft));
        Assert.Empty(Compose(ForEveryone with { WithUnfinished = true }, [calendar], draft));
        Assert.Equal(EventState.Draft,
            Assert.Single(Compose(ForEveryone with { Audience = Audience.Members, WithUnfinished = true }, [calendar], draft)).Event.State);
    }

    [Fact]
    public void Whole_days_come_first_then_times_ascend_whatever_the_order_of_sources()
    {
        var (boats, school) = (Calendar(Table.Open, "PW"), Calendar(Table.Open, "SCH"));
        CalendarEvent[] events =
        [
            On(boats, Build.Event(Build.Series("2026-11-24 14:00", "FREQ=DAILY;COUNT=2"), "Boats")),
            On(school, Build.Event(Build.DaySeries("2026-11-24", "2026-11-24"), "Drill")),
            On(school, "2026-11-24 09:00", "Knots"),
        ];
        string[] expected = ["Drill", "Knots", "Boats", "Boats"];
        Assert.Equal(expected, Titles(Compose(ForEveryone, [boats, school], events)));
        Assert.Equal(expected, Titles(Compose(ForEveryone, [school, boats], [.. events.Reverse()])));
    }

    [Fact]
    public void An_event_outside_its_showing_span_waits_and_the_edition_knows_until_when_it_is_right()
    {
        var calendar = Calendar(Table.Open);
        var made = On(calendar, "2026-11-25 14:00", "Lantern supper");
        var later = made with { Content = made.Content with { Showing = new ShowingSpan(Build.Day("2026-11-24"), null) } };
        CalendarEvent[] events = [later, On(calendar, "2026-11-24 14:00", "Boats")];
        var composed = Composition(ForEveryone, calendar).Compose(events, Build.Window("2026-11-23", "2026-11-30"));
        Assert.Equal(["Boats"], Titles(composed.Entries));
        Assert.Equal(Instant.FromUtc(2026, 11, 24, 4, 0), composed.TurnsAt);
        Assert.Equal(2,
            new Composition(ForEveryone, [calendar], SchoolCalendar.Empty, composed.TurnsAt!.Value)
                .Compose(events, Build.Window("2026-11-23", "2026-11-30")).Entries.Count);
        Assert.Null(Composition(ForEveryone, calendar with { Disclosure = Table.ForMembers }).NextTurn(events));
    }

    [Fact]
    public void What_an_entry_tells_is_the_least_of_calendar_event_and_edition()
    {
        var calendar = Calendar(Table.Open);
        var made = On(calendar,
            Build.Event(Build.Series("2026-11-25 14:00"), "Radio exam", description: new RichText("<p>Two repeat</p>", "Two repeat")));
        var capped = made with { Content = made.Content with { Cap = new Cap(null, null, Detail.Times) } };
        Assert.Equal((Disclosed.Busy, Detail.Times),
            (Assert.Single(Compose(calendar, capped)).Title, Assert.Single(Compose(calendar, capped)).Event.Detail));
        var least = Assert.Single(Compose(ForEveryone with { Cap = Detail.Headline }, [calendar], made));
        Assert.Equal((Detail.Headline, "Radio exam", ""), (least.Event.Detail, least.Title, least.Event.Content.Description.Text));
        Assert.Equal(Detail.Times, Assert.Single(Compose(ForEveryone with { Cap = Detail.Headline }, [calendar], capped)).Event.Detail);
    }

    /// <summary>How much is told of an event changes nothing about when it is, but that a cancelled date is only known from the headline
    /// on.</summary>
    [Theory]
    [InlineData(Detail.Times, new[] { "Busy 24", "Busy 26" })]
    [InlineData(Detail.Headline, new[] { "Boats 24", "Boats 25 cancelled", "Regatta 26" })]
    [InlineData(Detail.Complete, new[] { "Boats 24", "Boats 25 cancelled", "Regatta 26" })]
    public void Every_level_has_the_same_dates_with_what_it_may_know_of_them(Detail level, string[] expected)
    {
        var calendar = Calendar(new Table(level, level, level));
        var series = On(calendar, Build.Event(Build.Series("2026-11-24 14:00", "FREQ=DAILY;COUNT=3"), "Boats")) with
        {
            Exceptions = [new EventException(Build.Local("2026-11-25 14:00")) { IsCancelled = true },
                new EventException(Build.Local("2026-11-26 14:00")) { Own = OwnFields.None.With("title", "Regatta") }],
        };
        Assert.Equal(expected, Compose(calendar, series).Select(entry =>
            $"{entry.Title} {entry.Occurrence.LocalStart.Day}{(entry.Event.State == EventState.Cancelled ? " cancelled" : "")}"));
        Assert.Equal(2, Compose(ForEveryone with { WithCancelled = false }, [calendar], series).Count);
    }

    [Fact]
    public void An_event_on_several_calendars_is_one_entry_with_the_plates_that_this_audience_may_know()
    {
        var (open, headlines, busy, closed) =
            (Calendar(Table.Open, "SCH"), Calendar(Headlines, "PW"), Calendar(Times, "SLIP"), Calendar(Table.ForMembers, "STF"));
        var shared = On(closed, Build.Event(Build.Series("2026-11-24 14:00"), "Open evening"), open, headlines, busy);
        var entry = Assert.Single(Compose(ForEveryone, [closed, busy, open, headlines], shared));
        Assert.Equal((Detail.Complete, "PW SCH"), (entry.Event.Detail, Plates(entry)));
        var lower = Assert.Single(Compose(ForEveryone, [busy, headlines], shared));
        Assert.Equal((Detail.Headline, "PW"), (lower.Event.Detail, Plates(lower)));
        var least = Assert.Single(Compose(ForEveryone, [busy], shared));
        Assert.Equal(("Busy", ""), (least.Title, Plates(least)));
        Assert.Equal("SLIP", Plates(Assert.Single(Compose(ForEveryone with { TellsPlatesOfBusy = true }, [busy], shared))));
        Assert.Empty(Compose(ForEveryone, [closed], shared));
    }

    [Fact]
    public void A_trace_says_so_too_where_the_edition_is_about_none_of_the_days()
    {
        var calendar = Calendar(Table.Open);
        var lab = On(calendar, "2026-11-24 14:00");
        var trace = new Trace(lab.Id, Build.Local("2026-11-24 14:00"));
        var past = ForEveryone with { Window = new EditionWindow(WindowFrom.Beginning, null, WindowTo.Date, 1, Build.Day("2026-10-31"), true) };
        Assert.Empty(Composition(past, calendar).Compose([lab], Build.Window("2026-11-23", "2026-11-26"), trace).Entries);
        Assert.Equal((false, ComposeStep.Window, 4), (trace.IsIn, trace.Decided.Step, trace.Verdicts.Count));
    }

    [Fact]
    public void A_cancelled_event_is_told_from_the_headline_on_and_its_times_are_free_again()
    {
        var (headlines, busy) = (Calendar(Headlines), Calendar(Times));
        Assert.Equal(EventState.Cancelled,
            Assert.Single(Compose(headlines, On(headlines, "2026-11-24 14:00", "Boats", EventState.Cancelled))).Event.State);
        Assert.Empty(Compose(busy, On(busy, "2026-11-24 14:00", "Boats", EventState.Cancelled)));
    }

    [Fact]
    public void Look_alikes_become_one_with_all_plates_when_the_edition_says_so()
    {
        var (port, starboard, crew) = (Calendar(Table.Open, "PW"), Calendar(Table.Open, "SW"), Calendar(Headlines, "CREW"));
        CalendarEvent[] events = [On(port, "2026-11-24 14:00", "Drill"), On(starboard, "2026-11-24 14:00", "Drill"),
            On(crew, "2026-11-24 14:00", "Drill"), On(crew, "2026-11-24 15:00", "Drill")];
        Source[] all = [port, starboard, crew];
        Assert.Equal(4, Compose(ForEveryone, all, events).Count);
        var merged = Compose(ForEveryone with { MergesLookAlikes = true }, all, events);
        Assert.Equal(["CREW PW SW", "CREW"], merged.Select(Plates));
        Assert.Equal((Detail.Complete, 2), (merged[0].Event.Detail, merged[0].LookAlikes.Count));
    }

    [Fact]
    public void What_is_told_as_busy_looks_like_nothing_else()
    {
        var slipway = Calendar(Times);
        Assert.Equal(2,
            Compose(ForEveryone with { MergesLookAlikes = true }, [slipway], On(slipway, "2026-11-24 14:00", "One"),
                On(slipway, "2026-11-24 14:00", "Two")).Count);
    }

    [Fact]
    public void A_filter_takes_or_leaves_what_it_names()
    {
        var exams = new Category(Guid.NewGuid(), "Assessment", Hue.Named("madder"));
        CalendarEvent[] On(Source source)
        {
            var quiz = CompositionTests.On(source, "2026-11-24 09:00", "Tide quiz");
            var lab = CompositionTests.On(source, "2026-11-24 10:00", "Boat lab");
            var supper = CompositionTests.On(source, "2026-11-24 17:00", "Lanternes d’été");
            return [quiz with { Content = quiz.Content with { Category = exams } },
                lab with { Content = lab.Content with { Tags = ["practical"] } }, supper];
        }

        string[] Taken(FilterMode mode, Guid[]? categories = null, string[]? tags = null, string text = "") =>
            Calendar(Table.Open, filter: new SourceFilter(mode, categories ?? [], tags ?? [], text)) is { } source
                ? Titles(Compose(source, On(source)))
                : [];

        Assert.Equal(["Tide quiz"], Taken(FilterMode.Only, [exams.Id]));
        Assert.Equal(["Tide quiz", "Boat lab"], Taken(FilterMode.Only, [exams.Id], ["Practical"]));
        Assert.Equal(["Lanternes d’été"], Taken(FilterMode.Only, text: "ETE"));
        Assert.Equal(["Boat lab", "Lanternes d’été"], Taken(FilterMode.Except, [exams.Id]));
        Assert.Equal(["Tide quiz"], Taken(FilterMode.Except, tags: ["practical"], text: "lantern"));
        Assert.Empty(Taken(FilterMode.Except, text: "slip"));
        Assert.Equal(3, Taken(FilterMode.Except, text: "nowhere").Length);
    }

    [Fact]
    public void An_event_filtered_out_of_one_calendar_is_still_in_by_the_other_and_has_its_plate_alone()
    {
        var filtered = Calendar(Table.Open, "PW", new SourceFilter(FilterMode.Except, [], [], "Boat"));
        var whole = Calendar(Table.Open, "SW");
        Assert.Equal("SW",
            Plates(
                Assert.Single(
                    Compose(ForEveryone, [filtered, whole], On(filtered, Build.Event(Build.Series("2026-11-24 14:00")), whole)))));
    }

    [Fact]
    public void At_most_so_many_entries_the_earliest_and_how_many_there_were()
    {
        var calendar = Calendar(Table.Open);
        var composed = Composition(ForEveryone with { Limit = 3 }, calendar)
            .Compose([On(calendar, Build.Event(Build.Series("2026-11-24 14:00", "FREQ=DAILY;COUNT=9")))],
                Build.Window("2026-11-23", "2026-12-14"));
        Assert.Equal(9, composed.Found);
        Assert.Equal([24, 25, 26], composed.Entries.Select(entry => entry.Occurrence.LocalStart.Day));
    }

    [Fact]
    public void What_is_over_goes_when_it_is_over_and_the_edition_knows_when()
    {
        var calendar = Calendar(Table.Open);
        CalendarEvent[] events = [On(calendar, "2026-11-23 06:00", "Over"), On(calendar, "2026-11-23 07:30", "Going on"),
            On(calendar, "2026-11-23 15:00", "Later"), On(calendar, "2026-11-20 15:00", "Last week")];
        var fromNow = ForEveryone with { Window = new EditionWindow(WindowFrom.Now, null, WindowTo.Days, 7, null, false) };
        var composed = Composition(fromNow, calendar).Compose(events, Build.Window("2026-11-16", "2026-12-14"));
        Assert.Equal(["Going on", "Later"], Titles(composed.Entries));
        Assert.Equal(Instant.FromUtc(2026, 11, 23, 12, 30), composed.TurnsAt);
        Assert.Equal(["Over", "Going on", "Later"],
            Titles(
                Compose(ForEveryone with { Window = new EditionWindow(WindowFrom.Today, null, WindowTo.Days, 7, null, true) },
                    [calendar], events)));
    }

    [Fact]
    public void Breaks_of_the_year_plan_are_entries_when_the_edition_wants_them()
    {
        var calendar = Calendar(Table.Open);
        var composed = new Composition(ForEveryone with { WithBreaks = true, MergesLookAlikes = true }, [calendar], Build.School(), Now)
            .Compose([], Build.Window("2026-12-01", "2027-01-01"));
        var winter = Assert.Single(composed.Entries);
        Assert.Equal((true, "Winter break", 16), (winter.IsBreak, winter.Title, winter.Timing.Days));
        Assert.Empty(new Composition(ForEveryone, [calendar], Build.School(), Now)
            .Compose([], Build.Window("2026-12-01", "2027-01-01")).Entries);
    }

    [Fact]
    public void Titles_are_written_by_the_pattern_and_a_page_draws_the_plates_itself()
    {
        var (port, starboard) = (Calendar(Table.Open, "PW"), Calendar(Table.Open, "SW"));
        var lab = On(port, Build.Event(Build.Series("2026-11-24 14:00")), starboard);
        var pattern = new Pattern(
            [PatternPart.Of(Piece.Plate), PatternPart.Between(" · "), PatternPart.Of(Piece.Title), PatternPart.Between(" at "),
                PatternPart.Of(Piece.Place)]);
        var composition = Composition(ForEveryone with { TitlePattern = pattern }, port, starboard);
        var entry = Assert.Single(composition.Compose([lab], Build.Window("2026-11-23", "2026-11-30")).Entries);
        Assert.Equal(("Boat lab at Slipway", "PW SW · Boat lab at Slipway", "Boat lab"),
            (entry.Title, composition.FullTitle(entry), entry.Event.Title));
        Assert.Equal("PW SW · Boat lab at Slipway", Assert.Single(composition.Deliver([lab])).Disclosed.Title);
        Assert.Equal("PW SW Boat lab", Assert.Single(Composition(ForEveryone, port, starboard).Deliver([lab])).Disclosed.Title);
        Assert.Equal("Boat lab", Assert.Single(Composition(ForEveryone, port).Deliver([lab])).Disclosed.Title);
    }

    [Fact]
    public void An_edition_may_show_fewer_fields_than_the_detail_allows()
    {
        var calendar = Calendar(Table.Open);
        var made = On(calendar, Build.Event(Build.Series("2026-11-25 14:00"), description: new RichText("<p>Oilskins</p>", "Oilskins")));
        var lab = made with
        {
            Content = made.Content with
            {
                Contact = "office",
                Links = [new EventLink("Rota", "https://pinewick.example/rota")],
                Files = [new EventFile(Guid.NewGuid(), "boat.png", "image/png", 5)]
            }
        };
        var few = Assert.Single(
            Compose(ForEveryone with { Fields = new HashSet<ShownField> { ShownField.Links, ShownField.Picture } }, [calendar], lab)).Event;
        Assert.Equal(("", "", "", 1, 0, "boat.png"),
            (few.Content.Place.Name, few.Content.Description.Html, few.Content.Contact, few.Content.Links.Count, few.Content.Files.Count,
                few.Picture?.Name));
        Assert.Null(Assert.Single(Compose(ForEveryone with { Cap = Detail.Headline }, [calendar], lab)).Event.Picture);
    }

    [Fact]
    public void A_feed_gets_the_whole_events_that_have_a_date_on_the_edition_s_days()
    {
        var calendar = Calendar(Table.Open);
        var weekly = On(calendar, Build.Event(Build.Series("2026-09-08 14:00", "FREQ=WEEKLY"), "Weekly"));
        CalendarEvent[] events = [weekly, On(calendar, "2026-10-01 14:00", "October"), On(calendar, "2027-03-01 14:00", "March"),
            On(calendar, "2026-11-24 14:00", "Draft", EventState.Draft)];
        var fortnight = ForEveryone with { Window = new EditionWindow(WindowFrom.Today, null, WindowTo.Weeks, 2, null, true), Limit = 1 };
        Assert.Equal(["Weekly"], Composition(fortnight, calendar).Deliver(events).Select(one => one.Disclosed.Title));
        Assert.Equal(["Weekly", "October", "March"], Composition(ForEveryone, calendar).Deliver(events).Select(one => one.Disclosed.Title));
        Assert.Equal(["Weekly", "March"],
            Composition(ForEveryone with { Window = new EditionWindow(WindowFrom.Today, null, WindowTo.Open, 1, null, true) }, calendar)
                .Deliver(events).Select(one => one.Disclosed.Title));
        // However long ago it begins.
        Assert.Equal(["Weekly", "October"],
            Composition(
                ForEveryone with
                {
                    Window = new EditionWindow(WindowFrom.Date, new LocalDate(1970, 1, 1), WindowTo.Date, 1,
                    new LocalDate(2026, 12, 31), true)
                }, calendar).Deliver(events).Select(one => one.Disclosed.Title));
    }

    [Fact]
    public void Look_alike_series_are_one_event_of_a_feed()
    {
        var (port, starboard) = (Calendar(Table.Open, "PW"), Calendar(Table.Open, "SW"));
        var series = Build.Series("2026-09-07 10:00", "FREQ=MONTHLY;BYDAY=1MO");
        CalendarEvent[] events = [On(port, Build.Event(series, "Drill")), On(starboard, Build.Event(series, "Drill")),
            On(starboard, Build.Event(Build.Series("2026-09-07 10:00"), "Drill"))];
        Assert.Equal(["PW SW Drill", "SW Drill"],
            Composition(ForEveryone with { MergesLookAlikes = true }, port, starboard).Deliver(events).Select(one => one.Disclosed.Title));
    }

    [Fact]
    public void The_next_turn_is_the_first_of_all_events_that_the_audience_will_see()
    {
        var calendar = Calendar(Table.Open);
        CalendarEvent From(string day, EventState state = EventState.Live) =>
            On(calendar, "2026-12-20 14:00", state: state) is var made
                ? made with { Content = made.Content with { Showing = new ShowingSpan(Build.Day(day), null) } }
                : made;
        Assert.Equal(Instant.FromUtc(2026, 12, 1, 4, 0),
            Composition(ForEveryone, calendar).NextTurn([From("2026-12-03"), From("2026-12-01"), From("2026-11-30", EventState.Draft)]));
        var relative = ForEveryone with { Window = new EditionWindow(WindowFrom.Week, null, WindowTo.Open, 1, null, true) };
        Assert.Equal(Instant.FromUtc(2026, 11, 24, 4, 0), Composition(relative, calendar).NextTurn([From("2026-12-03")]));
    }

    [Theory]
    [InlineData("state", ComposeStep.State, "draft")]
    [InlineData("filter", ComposeStep.Filter, "filters leave it out")]
    [InlineData("detail", ComposeStep.Detail, "nothing")]
    [InlineData("window", ComposeStep.Window, "no day")]
    [InlineData("limit", ComposeStep.Limit, "after the first")]
    [InlineData("in", ComposeStep.Merge, "one entry with 1")]
    public void The_trace_names_the_step_that_decided_and_tells_what_the_delivery_does(string what, ComposeStep decided, string words)
    {
        var calendar = Calendar(what == "detail" ? Table.ForMembers : Table.Open,
            filter: what == "filter" ? new SourceFilter(FilterMode.Except, [], [], "boat") : null);
        var edition = ForEveryone with { Limit = what == "limit" ? 1 : 20, MergesLookAlikes = true };
        var start = what == "window" ? "2027-11-25 14:00" : "2026-11-25 14:00";
        var lab = On(calendar, start, state: what == "state" ? EventState.Draft : EventState.Live);
        var trace = new Trace(lab.Id, Build.Local(start));
        var entries = Composition(edition, calendar)
            .Compose([lab, On(calendar, "2026-11-25 14:00"), On(calendar, "2026-11-24 09:00", "Knots")],
                Build.Window("2026-11-16", "2026-12-14"), trace).Entries;
        Assert.Equal((what == "in", decided), (trace.IsIn, trace.Decided.Step));
        Assert.Contains(words, Build.English.Say(trace.Decided.Saying), StringComparison.Ordinal);
        Assert.Equal(trace.IsIn,
            entries.Any(entry => entry.Event.Identity == lab.Uid.ToString() || entry.LookAlikes.Any(one => one.EventId == lab.Id)));
    }

    [Fact]
    public void Names_are_told_to_whom_the_calendar_that_decides_the_level_tells_them()
    {
        var silent = Calendar(Table.Open with { Names = Audience.Members });
        var telling = Calendar(Table.Open with { Names = Audience.Everyone }, "SW");
        var lab = On(silent, "2026-11-24 14:00");
        lab = lab with { Content = lab.Content with { People = [new Involved(null, "Bo Quilliam")] } };
        int Told(Edition edition, params Source[] sources) =>
            Assert.Single(Compose(edition, sources, lab with { Placements = [telling.CalendarId] })).Event.Content.People.Count;

        Assert.Equal(0, Told(ForEveryone, silent));
        Assert.Equal(1, Told(ForEveryone with { Audience = Audience.Members }, silent));
        Assert.Equal(1, Told(ForEveryone, silent, telling));
        // Where the telling calendar shows less, it does not decide.
        Assert.Equal(0, Told(ForEveryone, silent, telling with { Disclosure = Headlines with { Names = Audience.Everyone } }));
        Assert.Equal(0, Told(ForEveryone with { Fields = Edition.AllFields.Except([ShownField.People]).ToHashSet() }, silent, telling));
    }

    [Fact]
    public void An_edition_takes_events_deadlines_or_both_and_no_times_of_what_takes_none()
    {
        var calendar = Calendar(Table.Open);
        var due = On(calendar, "2026-11-24 14:00", "Essay");
        due = due with { Content = due.Content with { Kind = EventKind.Deadline } };
        var lab = On(calendar, "2026-11-25 14:00");
        string[] Taken(KindsTaken kinds) => Titles(Compose(ForEveryone with { Kinds = kinds }, [calendar], due, lab));

        Assert.Equal(["Essay", "Boat lab"], Taken(KindsTaken.Both));
        Assert.Equal(["Boat lab"], Taken(KindsTaken.Events));
        Assert.Equal(["Essay"], Taken(KindsTaken.Deadlines));
        Assert.Single(Compose(ForEveryone with { Cap = Detail.Times }, [calendar], due, lab));
    }

    [Fact]
    public void A_line_of_text_says_that_something_is_due_unless_it_goes_out_as_a_task()
    {
        var calendar = Calendar(Table.Open);
        var due = On(calendar, "2026-11-24 14:00", "Essay {0}");
        due = due with { Content = due.Content with { Kind = EventKind.Deadline } };
        string Full(DeadlineForm form)
        {
            var edition = ForEveryone with { Deadlines = form, Due = "{0} (due)" };
            return Composition(edition, calendar).FullTitle(Assert.Single(Compose(edition, [calendar], due)));
        }

        Assert.Equal("Essay {0} (due)", Full(DeadlineForm.Events));
        Assert.Equal("Essay {0}", Full(DeadlineForm.Tasks));
        Assert.Equal("Essay {0}", Assert.Single(Compose(calendar, due)).Title);
    }

    [Fact]
    public void An_edition_with_staff_times_tells_members_from_set_up_to_clear_away_and_nobody_else()
    {
        var calendar = Calendar(Table.Open);
        var evening = On(calendar, "2026-11-16 00:30");
        evening = evening with { Content = evening.Content with { StaffSpan = new StaffSpan(60, 15) } };
        var staff = ForEveryone with { Audience = Audience.Members, WithStaffTimes = true };
        var told = Assert.Single(Compose(staff, [calendar], evening)).Occurrence;
        Assert.Equal((Build.Local("2026-11-15 23:30"), evening.Series.Timing.Start), (told.LocalStart, told.RecurrenceId));
        Assert.Equal(NodaTime.Duration.FromMinutes(75), told.End - told.Start - evening.Series.Timing.Duration);
        Assert.Single(Composition(staff, calendar).Compose([evening], Build.Window("2026-11-15", "2026-11-16")).Entries);

        foreach (var edition in new[] { staff with { Audience = Audience.Everyone }, staff with { WithStaffTimes = false } })
        {
            var other = Assert.Single(Compose(edition, [calendar], evening));
            Assert.Equal(evening.Series.Timing.Start, other.Occurrence.LocalStart);
            Assert.Equal(StaffSpan.None, other.Event.Content.StaffSpan);
        }
    }

    [Fact]
    public void An_edition_at_a_place_has_the_dates_that_are_there_and_no_others()
    {
        var calendar = Calendar(Table.Open);
        var (hall, loft) = (new Place(Guid.NewGuid(), "Hall"), new Place(Guid.NewGuid(), "Loft"));
        var weekly = On(calendar, Build.Event(Build.Series("2026-11-16 09:00", "FREQ=WEEKLY;COUNT=3")));
        weekly = weekly with
        {
            Content = weekly.Content with { Place = hall },
            Exceptions = [new EventException(Build.Local("2026-11-23 09:00")) { Own = OwnFields.None.With("place", loft) }],
        };
        var said = On(calendar, "2026-11-17 09:00");
        said = said with { Content = said.Content with { Place = Place.Called("Hall") } };
        var at = ForEveryone with { Feed = FeedForm.Dates, At = new HashSet<Guid> { hall.Id!.Value } };
        Assert.Equal(["16", "30"], Compose(at, [calendar], weekly, said).Select(entry => $"{entry.Occurrence.LocalStart.Day}"));
        var other = at with { At = new HashSet<Guid> { loft.Id!.Value } };
        Assert.Equal(["23"], Compose(other, [calendar], weekly, said).Select(entry => $"{entry.Occurrence.LocalStart.Day}"));
        Assert.Null(Composition(other, calendar).Find(weekly, Build.Local("2026-11-16 09:00")));
        Assert.NotNull(Composition(other, calendar).Find(weekly, Build.Local("2026-11-23 09:00")));
        Assert.Equal(Detail.Nothing, Composition(at, calendar).DetailOf(said));
        Assert.Contains("atPlace", Assert.Throws<RuleException>(() =>
            new EditionDraft("Hall", [new SourceDraft(calendar.CalendarId)], AtPlace: hall.Id).Check(Build.Halifax, IsoDayOfWeek.Monday))
            .Refusals.Select(refusal => refusal.Field));
    }

    private static readonly Guid Bo = Guid.CreateVersion7();

    private static Edition OfBo(Audience audience = Audience.Members) =>
        ForEveryone with { Audience = audience, Feed = FeedForm.Dates, Person = Bo };

    [Fact]
    public void An_edition_of_somebody_has_the_dates_that_they_are_responsible_for_by_their_own_times()
    {
        var calendar = Calendar(Table.Open);
        var weekly = On(calendar, Build.Event(Build.Series("2026-11-16 09:00", "FREQ=WEEKLY;COUNT=4")));
        var bo = new Involved(Bo, "Bo Quilliam", Part.Leads, From: Build.Time("08:30"));
        weekly = weekly with
        {
            Content = weekly.Content with { People = [bo], StaffSpan = new StaffSpan(60, 15) },
            Exceptions =
            [
                new EventException(Build.Local("2026-11-23 09:00")) { Own = OwnFields.None.With("people", new ValueList<Involved>([])) },
                new EventException(Build.Local("2026-11-30 09:00"))
                {
                    Own = OwnFields.None.With("people", new ValueList<Involved>([bo with { From = null }])),
                },
            ],
        };
        var others = On(calendar, "2026-11-17 09:00");
        string[] Told(Edition edition) => [.. Compose(edition, [calendar], weekly, others).Select(entry =>
            $"{entry.Occurrence.LocalStart:dd HH:mm}–{entry.Occurrence.LocalEnd:HH:mm}")];

        Assert.Equal(["16 08:30–10:00", "30 09:00–10:00", "07 08:30–10:00"], Told(OfBo()));
        Assert.Equal(["16 08:30–10:15", "30 08:00–10:15", "07 08:30–10:15"], Told(OfBo() with { WithStaffTimes = true }));
        Assert.Equal(3, Told(OfBo() with { Cap = Detail.Times }).Length);
        Assert.Equal(
            Build.Local("2026-11-16 08:30"),
            Composition(OfBo(), calendar).Find(weekly, Build.Local("2026-11-16 09:00"))!.Value.Occurrence.LocalStart);
        Assert.Null(Composition(OfBo(), calendar).Find(weekly, Build.Local("2026-11-23 09:00")));
        Assert.Equal(Detail.Complete, Composition(OfBo(), calendar).DetailOf(weekly));
        Assert.Equal(Detail.Nothing, Composition(OfBo(), calendar).DetailOf(others));
    }

    [Fact]
    public void Whoever_is_not_told_who_is_responsible_learns_it_by_no_edition_of_theirs()
    {
        var lab = On(Calendar(Table.Open), "2026-11-16 09:00");
        lab = lab with { Content = lab.Content with { People = [new Involved(Bo, "Bo Quilliam")] } };
        int Told(Table disclosure, Audience audience, Audience? seenAs = null)
        {
            var calendar = Calendar(disclosure) with { CalendarId = lab.HomeCalendarId, SeenAs = seenAs };
            return Compose(OfBo(audience) with { Cap = Detail.Times }, [calendar], lab).Count;
        }

        Assert.Equal(1, Told(Table.Open, Audience.Members));
        Assert.Equal(0, Told(Table.Open, Audience.Everyone));
        Assert.Equal(1, Told(Table.Open with { Names = Audience.Everyone }, Audience.Everyone));
        Assert.Equal(0, Told(Table.Open with { Names = Audience.Editors }, Audience.Members));
        Assert.Equal(0, Told(new Table(Detail.Headline, Detail.Nothing, Detail.Nothing), Audience.Members));
        // Somebody who sees a calendar as its editors do, in an edition of their own.
        Assert.Equal(0, Told(Table.Closed, Audience.Members));
        Assert.Equal(1, Told(Table.Closed, Audience.Members, Audience.Editors));
        lab = lab with { Content = lab.Content with { Cap = new Cap(Detail.Headline, null, null) } };
        Assert.Equal(0, Told(Table.Open, Audience.Members));
        Assert.Equal(1, Told(Table.Open, Audience.Members, Audience.Editors));
    }

    [Fact]
    public void An_edition_of_somebody_goes_out_date_by_date() => Assert.Contains("ofPerson", Assert.Throws<RuleException>(() =>
        new EditionDraft("Bo", [new SourceDraft(Guid.CreateVersion7())], OfPerson: Bo).Check(Build.Halifax, IsoDayOfWeek.Monday))
        .Refusals.Select(refusal => refusal.Field));
}
