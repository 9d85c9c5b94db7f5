using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Findings;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests;

/// <summary>Each kind finds what it is for, and nothing where all is well.</summary>
public class FindingsTests
{
    /// <summary>A Monday.</summary>
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);

    private static readonly Source Port = Source("PW", "Port Watch");
    private static readonly Source Starboard = Source("SW", "Starboard Watch");
    private static readonly Category Assessment = new(Guid.NewGuid(), "Assessment", Build.Harbour);
    private static readonly Place Hall = new(Guid.NewGuid(), "Hall");

    private static readonly EditionDraft Juniors = new("Juniors", [new SourceDraft(Port.CalendarId), new SourceDraft(Starboard.CalendarId)]);

    private static readonly ProofSurroundings Quiet = new()
    {
        Ours = new Uri("https://calendars.pinewick.example"),
        ReadershipsOf = _ => [],
        ReadersOf = _ => ["Junior families"],
        MostInAWeek = new Dictionary<Guid, int> { [Assessment.Id] = 2 },
        CategoryName = _ => "Assessment",
    };

    private static Source Source(string plate, string name, Table? table = null) =>
        new(Guid.NewGuid(), Plate.Parse(plate), name, Build.Harbour, table ?? Table.Open);

    /// <summary>On a Tuesday within a term, unless it is said when.</summary>
    private static CalendarEvent Lesson(string title = "Boat lab", string start = "2026-11-24 14:00", string? rule = null, Source? on = null,
        Func<EventContent, EventContent>? said = null, int minutes = 60) => On(Build.Event(Build.Series(start, rule,
            minutes: minutes), title), on, said);

    private static CalendarEvent On(CalendarEvent made, Source? on = null, Func<EventContent, EventContent>? said = null) =>
        made with { HomeCalendarId = (on ?? Port).CalendarId, Content = said?.Invoke(made.Content) ?? made.Content };

    private static ProofGround Ground(EditionDraft draft, Source[] sources, ProofSurroundings around, params CalendarEvent[] events)
    {
        var made = draft.Stored(Build.Halifax, IsoDayOfWeek.Monday);
        Source[] filtered = [.. sources.Select(source => source with { Filter = made.Filters.GetValueOrDefault(source.CalendarId) })];
        return new ProofGround(made, filtered, Build.School(), Now, events, around);
    }

    private static IReadOnlyList<Finding> Found(EditionDraft draft, ProofSurroundings around, params CalendarEvent[] events) =>
        FindingKind.Of(Ground(draft, [Port, Starboard], around, events));

    private static IReadOnlyList<Finding> Found(params CalendarEvent[] events) => Found(Juniors, Quiet, events);

    /// <summary>There is one finding, of this kind; what it says, in English.</summary>
    private static string Only(string kind, IReadOnlyList<Finding> found)
    {
        Assert.Equal([kind], found.Select(one => one.Kind));
        return Said(found[0]);
    }

    private static string Said(Finding finding) => $"{Build.English.Say(finding.Title)}: {Build.English.Say(finding.Text)}";

    private static IEnumerable<RemedyWay> Ways(Finding finding) => finding.Remedies.Select(remedy => remedy.Way);

    [Fact]
    public void Nothing_is_wrong_with_a_plain_week() => Assert.Empty(Found(
        Lesson(), Lesson("Knots", "2026-11-25 09:00", on: Starboard),
        Lesson("Tide survey", "2026-11-26 10:00", "FREQ=WEEKLY;UNTIL=20261217T150000Z", said: one => one with
        {
            Links = [new EventLink("Chart", "https://charts.example/tides")],
            Files = [new EventFile(Guid.NewGuid(), "kit.pdf", "application/pdf", 1_000)],
        })));

    [Fact]
    public void Each_kind_has_words_in_both_languages_and_they_are_many()
    {
        Assert.True(FindingKind.All.Count >= 30, $"{FindingKind.All.Count} kinds");
        Assert.Equal(FindingKind.All.Count, FindingKind.All.Select(kind => kind.Code).Distinct().Count());
        foreach (var speech in new[] { Build.English, Speech.For("de") })
        {
            Assert.All(FindingKind.All.SelectMany(kind => new[] { $"finding.{kind.Code}.title", $"finding.{kind.Code}.text" }),
                code => Assert.True(speech.Messages.ContainsKey(code) || speech.Messages.ContainsKey($"{code}_other"), code));
        }
        Assert.Equal(FindingKind.All.OrderBy(kind => kind.Severity).Select(kind => kind.Code), FindingKind.All.Select(kind => kind.Code));
    }

    /// <summary>Each kind is met by one test of this class at least.</summary>
    [Fact]
    public void Each_kind_has_a_test()
    {
        var tests = File.ReadAllText(Path.Combine(ArchitectureTests.Root(), "tests", "Valtro.Core.Tests", "FindingsTests.cs"));
        Assert.All(FindingKind.All, kind => Assert.Contains($"\"{kind.Code}\"", tests, StringComparison.Ordinal));
    }

    // ---- calendars

    [Fact]
    public void A_closed_calendar_is_named_with_what_is_lost_by_it()
    {
        var staff = Source("STF", "Staff room", Table.ForMembers);
        var found = FindingKind.Of(Ground(Juniors, [Port, staff], Quiet, Lesson(), Lesson("Meeting", rule: "FREQ=WEEKLY;COUNT=3", on: staff)));
        Assert.Equal("Staff room shows everyone nothing: 3 dates of the coming year in this edition reach nobody.", Only("sourceClosed", found));
        Assert.Equal([RemedyWay.Opening, RemedyWay.Setting], Ways(found[0]));
        var alone = FindingKind.Of(Ground(Juniors, [staff], Quiet, Lesson("Meeting", on: staff)));
        Assert.Equal(["noEntries", "sourceClosed"], alone.Select(one => one.Kind));
        Assert.Equal([RemedyWay.Opening], Ways(alone[1]));
    }

    [Fact]
    public void A_filter_that_nothing_passes_is_named()
    {
        var narrow = Juniors with
        {
            Sources = [new SourceDraft(Port.CalendarId, new FilterDraft(FilterMode.Only, Text: "regatta")),
            Juniors.Sources[1]]
        };
        CalendarEvent[] events = [Lesson(), Lesson("Knots", on: Starboard)];
        var found = Found(narrow, Quiet, events);
        Assert.StartsWith("Nothing of Port Watch passes: 1 event stands on it", Only("filterMatchesNothing", found), StringComparison.Ordinal);
        Assert.Null(narrow.With(EditionSetting.TakeAllOfIt, Port.CalendarId).Sources[0].Filter);
        Assert.Empty(Found(narrow, Quiet, [.. events, Lesson("Regatta", "2026-11-27 09:00")]));
    }

    [Fact]
    public void A_followed_source_that_is_late_is_named_with_its_reason()
    {
        var late = new LateSource(Guid.NewGuid(), "League", Port.CalendarId, Build.Day("2026-11-20"), Saying.Of("text.plain", ("text", "It asks for a password.")));
        var found = Found(Juniors, Quiet with
        {
            LateSources = [late, late with { Id = Guid.NewGuid(),
            CalendarId = Guid.NewGuid() }]
        }, Lesson());
        Assert.Equal("League is late: It was last right since 20 November 2026. It asks for a password.", Only("sourceLate", found));
        Assert.Equal(late.Id, found[0].Remedies[0].SourceId);
    }

    [Fact]
    public void A_placement_that_nobody_has_signed_off_is_named()
    {
        var found = Found(Juniors, Quiet with { Waiting = [(Lesson("Winter regatta"), Starboard.CalendarId)] }, Lesson());
        Assert.StartsWith("Winter regatta waits for Starboard Watch:", Only("placementWaits", found), StringComparison.Ordinal);
    }

    [Fact]
    public void A_narrower_audience_that_gets_less_than_a_wider_one_elsewhere_is_told_where()
    {
        OtherEdition Other(Audience audience, Detail cap) => new("Open days", audience,
            new Composition(new Edition(audience, Build.Halifax, IsoDayOfWeek.Monday) { Cap = cap }, [Port], SchoolCalendar.Empty, Now));
        var forMembers = Juniors with { Audience = Audience.Members, Cap = Detail.Headline };
        Assert.StartsWith("Open days tells more: everyone get more there of Boat lab",
            Only("lessThanWider", Found(forMembers, Quiet with { Others = [Other(Audience.Everyone, Detail.Complete)] }, Lesson())),
                StringComparison.Ordinal);
        Assert.Empty(Found(forMembers, Quiet with
        {
            Others = [Other(Audience.Everyone, Detail.Headline), Other(Audience.Members,
            Detail.Complete)]
        }, Lesson()));
    }

    [Fact]
    public void An_edition_without_entries_or_whose_days_are_over_says_so()
    {
        Only("noEntries", Found());
        Assert.StartsWith("Nothing is in it", Only("noEntries", Found(Lesson(start: "2026-11-03 14:00"))), StringComparison.Ordinal);
        var past = Juniors with { Window = new WindowDraft(WindowFrom.Beginning, null, WindowTo.Date, null, Build.Day("2026-10-31")) };
        Assert.StartsWith("Its days are over: It ends on 31 October 2026", Only("daysAreOver", Found(past, Quiet, Lesson())), StringComparison.Ordinal);
        Assert.Empty(Found(past.With(EditionSetting.OpenEnd, null), Quiet, Lesson()));
    }

    [Fact]
    public void A_limit_says_how_much_it_cuts()
    {
        var few = Juniors with { Limit = 2 };
        var found = Found(few, Quiet, Lesson(rule: "FREQ=WEEKLY;COUNT=3"));
        Assert.Equal("It ends after 2 entries: 1 later one of the coming year is not delivered.", Only("limitCuts", found));
        Assert.Empty(Found(few.With(EditionSetting.NoLimit, null), Quiet, Lesson(rule: "FREQ=WEEKLY;COUNT=3")));
    }

    [Fact]
    public void Mixed_calendars_whose_titles_do_not_say_whose_they_are_are_named()
    {
        var plain = Juniors with { Title = [new PatternPartDraft(Piece.Title)] };
        Only("calendarsUntold", Found(plain, Quiet, Lesson()));
        Assert.Empty(Found(plain.With(EditionSetting.PlatesBeforeTitles, null), Quiet, Lesson()));
        Assert.Empty(FindingKind.Of(Ground(plain, [Port], Quiet, Lesson())));
    }

    [Fact]
    public void Small_text_in_pale_colours_is_named()
    {
        var pale = Juniors with
        {
            Look = new LookDraft(Size: TextSize.Small, Scheme: Scheme.Light, Colours: new ColoursDraft(Page: "#FFFFFF", Busy: "#FFFFFF", Empty: "#FFFFFF",
                Today: "#FFFFFF", Text: "#6A6A6A", Accent: "#1A5A96")),
        };
        Assert.Contains("The contrast is 5.4 to 1.", Only("smallAndFaint", Found(pale, Quiet, Lesson())), StringComparison.Ordinal);
        Assert.Empty(Found(pale.With(EditionSetting.LargerText, null), Quiet, Lesson()));
    }

    // ---- series

    [Fact]
    public void A_series_without_end_can_end_with_the_plan()
    {
        var found = Found(Lesson(rule: "FREQ=WEEKLY") is var lab
            ? lab with { Content = lab.Content with { Series = lab.Series with { InBreaks = InBreaks.Skip } } } : lab);
        Assert.Equal("Boat lab never ends: Subscribers see it for years; the plan ends on 31 July 2027.", Only("endlessSeries", found));
        Assert.Equal(ChosenAct.EndWithPlan, found[0].Remedies[0].Act);
    }

    [Fact]
    public void A_series_that_goes_on_after_the_last_plan_is_named()
    {
        Assert.Equal(["runsBeyondPlan"], Found(Lesson(start: "2026-11-12 14:00", rule: "FREQ=MONTHLY;UNTIL=20280101T000000Z")).Select(one => one.Kind));
        Assert.Empty(Found(Lesson(start: "2026-11-12 14:00", rule: "FREQ=MONTHLY;UNTIL=20270701T000000Z")));
    }

    [Fact]
    public void A_series_that_takes_place_in_breaks_says_how_often()
    {
        var found = Found(Lesson(rule: "FREQ=WEEKLY;COUNT=8"));
        Assert.Equal("Boat lab runs through breaks: 2 of its dates are in breaks, the first on 22 December 2026 (Winter break).", Only("runsThroughBreaks", found));
        Assert.Equal(ChosenAct.SkipBreaks, found[0].Remedies[0].Act);
    }

    [Fact]
    public void A_single_event_in_a_break_is_information()
    {
        var found = Found(Lesson("Deep clean", "2026-12-22 09:00"));
        Assert.Equal("Deep clean is in a break: That day belongs to Winter break. Nothing to do if it is meant so.", Only("inBreak", found));
        Assert.Equal(Severity.ForInformation, found[0].Severity);
    }

    [Fact]
    public void A_series_that_overlaps_itself_is_named() =>
        Assert.Contains("On 25 November 2026", Only("overlapsItself", Found(Lesson(rule: "FREQ=DAILY;COUNT=3", minutes: 26 * 60))), StringComparison.Ordinal);

    [Fact]
    public void An_event_without_end_is_named_and_a_deadline_is_not()
    {
        Only("withoutEnd", Found(Lesson(minutes: 0)));
        Assert.Empty(Found(Lesson(minutes: 0, said: one => one with { Kind = EventKind.Deadline })));
    }

    [Fact]
    public void What_lasts_for_weeks_may_be_a_mistake()
    {
        Assert.StartsWith("Boat lab lasts 31 days", Only("lastsLong", Found(Lesson(minutes: 31 * 24 * 60))), StringComparison.Ordinal);
        Assert.Empty(Found(On(Build.Event(Build.DaySeries("2026-11-24", "2026-12-18"), "Exhibition"))));
    }

    [Fact]
    public void What_goes_from_midnight_to_midnight_looks_timed() =>
        Only("wholeDayAsTimes", Found(Lesson(start: "2026-11-24 00:00", minutes: 24 * 60)));

    [Fact]
    public void A_whole_day_whose_title_says_a_time_looks_untimed()
    {
        CalendarEvent Day(string title) => On(Build.Event(Build.DaySeries("2026-11-24", "2026-11-24"), title));
        Assert.Contains("18:30", Only("timeInWholeDay", Found(Day("Open evening 18:30"))), StringComparison.Ordinal);
        Only("timeInWholeDay", Found(Day("Regatta at 9 am")));
        Assert.Empty(Found(Day("Harbour day 24.11.2026")));
        Assert.Empty(Found(Day("Room 3.14159")));
    }

    [Fact]
    public void Another_clock_is_named_where_it_shows_another_time()
    {
        CalendarEvent In(string zone) => On(Build.Event(Build.Series("2026-11-24 14:00", zone: Core.Time.Zones.Named(zone)), "Call"));
        Assert.Equal("Call is on another clock: It is at 14:00 in Europe/Oslo; this edition (America/Halifax) shows 09:00.", Only("otherZone", Found(In("Europe/Oslo"))));
        Assert.Empty(Found(In("Atlantic/Bermuda")));
    }

    [Theory]
    [InlineData("FREQ=MONTHLY;COUNT=3;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "2026-11-30 09:00", "position")]
    [InlineData("FREQ=MONTHLY;COUNT=3;SKIP=BACKWARD;RSCALE=GREGORIAN", "2026-11-30 09:00", "moves dates")]
    [InlineData("FREQ=YEARLY;COUNT=2;BYMONTH=11;BYDAY=1SU", "2026-11-01 01:30", "comes twice")]
    [InlineData("FREQ=YEARLY;COUNT=2;BYMONTH=3;BYDAY=2SU", "2027-03-14 02:20", "left out")]
    public void Rules_that_programs_misread_can_become_a_dates_feed(string rule, string start, string why)
    {
        var found = Found(Lesson("Harbour walk", start, rule)).Where(one => one.Kind == "misreadRule").ToArray();
        Assert.Contains(why, Said(Assert.Single(found)), StringComparison.Ordinal);
        Assert.DoesNotContain(
            Found(Juniors.With(EditionSetting.DatesFeed, null), Quiet, Lesson("Harbour walk", start, rule)), one => one.Kind == "misreadRule");
    }

    [Fact]
    public void A_plan_that_ends_soon_is_named_while_series_follow_it()
    {
        var made = Juniors.Stored(Build.Halifax, IsoDayOfWeek.Monday);
        var lab = Lesson(start: "2027-07-13 14:00", rule: "FREQ=WEEKLY;COUNT=2");
        lab = lab with { Content = lab.Content with { Series = lab.Series with { InBreaks = InBreaks.Skip } } };
        IReadOnlyList<Finding> On(LocalDate day) => FindingKind.Of(new ProofGround(
            made, [Port, Starboard], Build.School(), day.AtStartOfDayInZone(Build.Halifax).ToInstant(), [lab], Quiet));
        Assert.Contains("31 July 2027", Only("planEnds", On(new LocalDate(2027, 7, 1))), StringComparison.Ordinal);
        Assert.Empty(On(new LocalDate(2027, 5, 1)));
    }

    // ---- words

    [Fact]
    public void What_everyone_reads_should_not_have_addresses_of_people()
    {
        var told = Lesson(said: one => one with { Contact = "Cy, cy@pinewick.example, +1 902 555 0133" });
        Assert.Contains("an e-mail address and a telephone number", Only("personalDataForEveryone", Found(told)), StringComparison.Ordinal);
        Assert.Empty(Found(Juniors with { Audience = Audience.Members }, Quiet, told));
        Assert.Empty(Found(Juniors with { Cap = Detail.Headline }, Quiet, told));
    }

    [Fact]
    public void Titles_without_words_in_capitals_of_other_years_and_too_long_are_named()
    {
        Only("titleWithoutWords", Found(Lesson(string.Concat(Enumerable.Repeat("⛵", 60)))));
        Only("titleInCapitals", Found(Lesson("OPEN HARBOUR EVENING")));
        Assert.Empty(Found(Lesson("PW 7B")));
        Assert.Contains("Its title says 2025", Only("titleOfOtherYear", Found(Lesson("Regatta 2025"))), StringComparison.Ordinal);
        Assert.Empty(Found(Lesson("Regatta 2026"), Lesson("Plan 2026/27", "2027-02-02 09:00"), Lesson("Kick-off for 2027", "2026-11-26 09:00")));
        Assert.Contains("of 98 characters", Only("titleTooLong", Found(Lesson(new string('a', 95)))), StringComparison.Ordinal);
        Only("textTooLong", Found(Lesson(said: one => one with { Description = new RichText("<p>…</p>", new string('a', 3_001)) })));
        Assert.Empty(Found(Juniors with { Cap = Detail.Times }, Quiet, Lesson("OPEN HARBOUR EVENING 2025")));
    }

    [Fact]
    public void A_title_that_names_another_calendar_may_be_filed_wrongly()
    {
        Assert.Equal("SW boat lab may be on the wrong calendar: It is on Port Watch, and its title names Starboard Watch.",
            Only("namesAnotherCalendar", Found(Lesson("SW boat lab"))));
        Only("namesAnotherCalendar", Found(Lesson("Boat lab of starboard watch")));
        Assert.Empty(Found(Lesson("SWAN lake"), Lesson("PW against SW", "2026-11-26 09:00"), Lesson("SW boat lab", "2026-11-27 09:00") with { Placements = [Starboard.CalendarId] }));
    }

    // ---- files and links

    [Fact]
    public void A_picture_needs_words()
    {
        CalendarEvent With(string alternative) => Lesson(said: one => one with
        {
            Files = [new EventFile(Guid.NewGuid(), "poster.png", "image/png", 1_000)],
            Picture = new PictureNote(alternative),
        });
        Only("pictureWithoutWords", Found(With("")));
        Assert.Empty(Found(With("A lantern over the slipway")));
    }

    [Fact]
    public void Files_that_do_not_reach_readers_say_what_holds_them_back()
    {
        var kit = Lesson(said: one => one with { Files = [new EventFile(Guid.NewGuid(), "kit.pdf", "application/pdf", 1_000)] });
        Assert.Contains("The event itself says less", Only("filesHeldBack", Found(
            kit with { Content = kit.Content with { Cap = new Cap(null, null, Detail.Headline) } })), StringComparison.Ordinal);
        var headlines = Port with { Disclosure = new Table(Detail.Headline, Detail.Headline, Detail.Headline) };
        var byCalendar = FindingKind.Of(Ground(Juniors, [headlines], Quiet, kit));
        Assert.Contains("Its calendar does not show", Only("filesHeldBack", byCalendar), StringComparison.Ordinal);
        Assert.Equal([RemedyWay.Opening, RemedyWay.Event], Ways(byCalendar[0]));
        Assert.Contains("The edition does not deliver files", Only("filesHeldBack",
            Found(Juniors with { Fields = [ShownField.Place] }, Quiet, kit)), StringComparison.Ordinal);
        Assert.Empty(Found(kit));
    }

    [Fact]
    public void Links_that_readers_cannot_follow_are_named_also_within_a_text()
    {
        CalendarEvent To(string url) => Lesson(said: one => one with { Links = [new EventLink("Kit list", url)] });
        IReadOnlyList<Finding> Asked(string url, LinkState state) =>
            Found(Juniors, Quiet with { Links = new Dictionary<string, CheckedLink> { [url] = new(state, Build.Day("2026-11-23")) } }, To(url));
        Assert.Contains("this desk", Only("linkClosed", Found(To("https://calendars.pinewick.example/plan"))), StringComparison.Ordinal);
        Only("linkClosed", Found(To("https://intranet.pinewick.example/kit")));
        Only("linkClosed", Found(To("https://drive.example/login")));
        Assert.Empty(Asked("https://drive.example/login", LinkState.Open));
        Assert.Contains("answers with a sign-in page. Checked on 23 November 2026",
            Only("linkClosed", Asked("https://drive.example/kit", LinkState.AsksForSignIn)), StringComparison.Ordinal);
        Only("linkGone", Asked("https://drive.example/kit", LinkState.Gone));
        Only("linkClosed", Found(Lesson(said: one => one with { Description = new RichText("<a href=\"http://nas.local/kit\">kit</a>", "kit") })));
        Assert.Empty(Found(Juniors with { Cap = Detail.Headline }, Quiet, To("https://drive.example/login")));
    }

    // ---- readers

    [Fact]
    public void A_draft_whose_day_has_come_is_named_and_can_go_out()
    {
        var draft = Lesson(start: "2026-11-24 09:00") with { State = EventState.Draft };
        var found = Found(draft, Lesson("Knots", "2026-11-26 09:00"));
        Assert.StartsWith("Boat lab has not gone out", Only("draftDue", found), StringComparison.Ordinal);
        Assert.Equal(ChosenAct.LetOut, found[0].Remedies[0].Act);
        Assert.Equal(RemedyWay.SignOff, Found(draft with { State = EventState.Waiting }, Lesson("Knots", "2026-11-26 09:00"))[0].Remedies[0].Way);
        Assert.Empty(Found(Lesson(start: "2026-11-27 09:00") with { State = EventState.Draft }, Lesson("Knots", "2026-11-26 09:00")));
    }

    [Fact]
    public void A_showing_span_that_misses_the_event_is_named()
    {
        CalendarEvent Shown(LocalDate? from, LocalDate? until) => Lesson("Supper", said: one =>
            one with { Showing = new ShowingSpan(from, until) });
        Only("shownAtOtherTime", Found(Shown(null, Build.Day("2026-11-23")), Lesson("Knots", "2026-11-26 09:00")));
        Only("shownAtOtherTime", Found(Shown(Build.Day("2026-11-25"), null), Lesson("Knots", "2026-11-26 09:00")));
        Assert.Empty(Found(Shown(Build.Day("2026-11-20"), Build.Day("2026-11-24")), Lesson("Knots", "2026-11-26 09:00")));
    }

    [Fact]
    public void What_is_about_to_begin_should_be_certain()
    {
        Only("stillTentative", Found(Lesson(said: one => one with { Certainty = Certainty.Tentative })));
        Assert.Empty(Found(Lesson(start: "2026-12-01 09:00", said: one => one with { Certainty = Certainty.Tentative })));
    }

    [Fact]
    public void Nobody_fetching_and_nothing_ahead_are_told_apart()
    {
        LatelyFetched Lately(int programs, int days = 30) => new(Now - Duration.FromDays(days), programs, FeedReach.Nothing, null);
        Only("nobodyFetches", Found(Juniors, Quiet with { Fetched = Lately(0) }, Lesson()));
        Assert.Empty(Found(Juniors, Quiet with { Fetched = Lately(0, days: 3) }, Lesson()));
        Assert.Contains("12 programs ask for it", Only("readButEmptyAhead",
            Found(Juniors, Quiet with { Fetched = Lately(12) }, Lesson(start: "2027-03-02 09:00"))), StringComparison.Ordinal);
    }

    [Fact]
    public void What_changed_and_is_not_fetched_by_those_who_usually_come_is_named()
    {
        LatelyFetched Lately(int since, int days) => new(Now - Duration.FromDays(60), 12,
            new FeedReach([new ReachByRhythm(Rhythm.Day, 12, since, ProgramKind.Phone)]), Now - Duration.FromDays(days));
        Assert.Contains("5 of some 12", Only("programsStayOld", Found(Juniors, Quiet with { Fetched = Lately(5, days: 3) }, Lesson())),
            StringComparison.Ordinal);
        Assert.Empty(Found(Juniors, Quiet with { Fetched = Lately(5, days: 1) }, Lesson()));
        Assert.Empty(Found(Juniors, Quiet with { Fetched = Lately(11, days: 3) }, Lesson()));
    }

    [Fact]
    public void Reminders_and_cancelled_dates_that_do_not_go_out_are_named()
    {
        var reminding = Lesson(said: one => one with { Reminder = new Reminder(1, ReminderUnit.Days, null) });
        Only("remindersUntold", Found(reminding));
        Assert.Empty(Found(Juniors.With(EditionSetting.DeliverReminders, null), Quiet, reminding));
        var cancelled = Lesson("Slipway race") with { State = EventState.Cancelled };
        var silent = Juniors with { WithCancelled = false };
        Assert.Contains("Slipway race on 24 November 2026", Only("cancelledUntold", Found(silent, Quiet, cancelled, Lesson("Knots", "2026-11-26 09:00"))), StringComparison.Ordinal);
        Assert.Empty(Found(silent.With(EditionSetting.DeliverCancelled, null), Quiet, cancelled, Lesson("Knots", "2026-11-26 09:00")));
    }

    // ---- look-alikes and clashes

    [Fact]
    public void Copies_on_several_calendars_can_become_one_and_copies_on_one_calendar_can_go()
    {
        CalendarEvent[] copies = [Lesson("Open evening"), Lesson("Open evening", on: Starboard)];
        var apart = Juniors with { MergesLookAlikes = false };
        var found = Found(apart, Quiet, copies);
        Assert.Equal("Open evening stands there 2 times: On 24 November 2026 it is on several calendars at the same time.", Only("lookAlikesApart", found));
        Assert.Empty(Found(apart.With(EditionSetting.MergeLookAlikes, null), Quiet, copies));
        var twice = Found(apart, Quiet, Lesson("Open evening"), Lesson("Open evening"));
        Assert.StartsWith("Open evening stands on Port Watch twice", Only("standsTwice", twice), StringComparison.Ordinal);
        Assert.Equal(ChosenAct.Remove, twice[0].Remedies[0].Act);
    }

    [Fact]
    public void The_same_title_at_other_times_of_a_day_is_information()
    {
        var found = Found(Lesson("Knots"), Lesson("Knots", "2026-11-24 16:00", on: Starboard));
        Assert.Contains("other times (14:00, 16:00)", Only("lookAlikesAtOtherTimes", found), StringComparison.Ordinal);
    }

    [Fact]
    public void What_was_merged_and_says_two_things_is_named()
    {
        var found = Found(Lesson("Open evening"), Lesson("Open evening", on: Starboard, said: one => one with { Place = Place.Called("Loft") }));
        Only("mergedThoughDifferent", found);
        Assert.Equal(EditionSetting.KeepLookAlikesApart, found[0].Remedies[0].Setting);
        Assert.Empty(Found(Lesson("Open evening"), Lesson("Open evening", on: Starboard)));
    }

    [Fact]
    public void Places_people_and_readers_that_are_needed_twice_are_named_once_a_pair()
    {
        CalendarEvent At(string title, Func<EventContent, EventContent> said, Source? on = null) => Lesson(title,
            rule: "FREQ=WEEKLY;COUNT=2", on: on, said: said);
        var hall = Found(At("Radio exam", one => one with { Place = Hall }), At("Rehearsal", one => one with { Place = Hall }, Starboard));
        Assert.Equal("Hall is taken twice: Radio exam (Port Watch) and Rehearsal (Starboard Watch), from 14:00 on, and on 2 days in all.", Only("placeTakenTwice", hall));
        var cy = new Involved(Guid.NewGuid(), "Cy", Part.Leads, null, null);
        Only("personNeededTwice", Found(At("Radio exam", one => one with { People = [cy] }), At("Rehearsal", one => one with { People = [cy] })));
        var shared = Quiet with { ReadershipsOf = _ => ["Junior families"] };
        Assert.Equal(Severity.ForInformation, Found(Juniors, shared, Lesson("Radio exam"), Lesson("Rehearsal")).Single(one => one.Kind == "readersDivided").Severity);
    }

    [Fact]
    public void A_week_with_too_many_of_a_category_is_named_with_its_first_day()
    {
        CalendarEvent Exam(string day) => Lesson($"Exam {day}", $"2026-11-{day} 09:00", said: one => one with { Category = Assessment });
        var found = Found(Exam("24"), Exam("25"), Exam("26"));
        Assert.Equal("The week of 23 November 2026 is heavy: 3 times Assessment for Junior families; the limit is 2.", Only("weekTooFull", found));
        Assert.Equal(Build.Day("2026-11-23"), found[0].Week);
    }

    // ---- all of them

    [Fact]
    public void Nobody_hears_of_events_that_they_do_not_see_all_of()
    {
        Viewer Who(CalendarRole? role) => new(Guid.NewGuid(), Guid.Empty, false,
            role is { } given ? new Dictionary<Guid, CalendarRole> { [Port.CalendarId] = given } : new Dictionary<Guid, CalendarRole>());
        bool Hears(CalendarRole? role, Finding finding, Table table) =>
            Who(role).MayHear(finding, new Dictionary<Guid, Table> { [Port.CalendarId] = table });
        var plain = Found(Lesson(minutes: 0))[0];
        var capped = Found(Lesson(minutes: 0, said: one => one with { Cap = new Cap(Detail.Times, Detail.Times, Detail.Times) }))[0];
        var draft = Found(Lesson() with { State = EventState.Draft }, Lesson("Knots", "2026-11-26 09:00"))[0];
        Assert.Equal([Port.CalendarId], plain.KeptOn);
        Assert.True(Hears(null, plain, Table.Open));
        Assert.False(Hears(null, plain, new Table(Detail.Headline, Detail.Nothing, Detail.Nothing)));
        Assert.False(Hears(null, capped, Table.Open) || Hears(null, draft, Table.Open) || Hears(CalendarRole.Reader, draft, Table.Open));
        Assert.True(Hears(CalendarRole.Editor, capped, Table.ForMembers) && Hears(CalendarRole.Editor, draft, Table.ForMembers));
        Assert.True(Who(null).MayHear(Found()[0], new Dictionary<Guid, Table>()));
    }

    [Fact]
    public void What_readers_get_no_more_of_than_times_is_not_read_aloud()
    {
        var busy = Juniors with { Cap = Detail.Times };
        var found = Found(busy, Quiet, Lesson("OPEN HARBOUR EVENING 2025", said: one => one with
        {
            Contact = "cy@pinewick.example",
            Links = [new EventLink("", "http://nas.local")],
            Files = [new EventFile(Guid.NewGuid(), "poster.png", "image/png", 1)],
        }));
        Assert.Empty(found);
    }

    [Fact]
    public void Of_a_kind_only_so_many_are_named()
    {
        var many = Enumerable.Range(0, 50).Select(index => Lesson($"Lab {index}", minutes: 0)).ToArray();
        Assert.Equal(FindingKind.MostOfAKind, Found(many).Count(one => one.Kind == "withoutEnd"));
    }

    [Fact]
    public void Worst_comes_first_and_each_is_told_from_the_others()
    {
        var found = Found(Lesson(minutes: 0), Lesson("Knots", "2026-12-22 09:00"), Lesson("Regatta 2025", rule: null, said: one =>
            one with { Links = [new EventLink("", "http://nas.local")] }));
        Assert.Equal(found.OrderBy(one => one.Severity).Select(one => one.Kind), found.Select(one => one.Kind));
        Assert.Equal(found.Count, found.Select(one => (one.Kind, one.About)).Distinct().Count());
        Assert.All(found, one => Assert.NotEmpty(one.Remedies));
    }
}
