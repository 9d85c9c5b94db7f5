using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

public class EventDraftTests
{
    private static EventContent Check(EventDraft draft, RichText? description = null) =>
        draft.Check(Build.Setting, description ?? RichText.Empty);

    private static string? Refused(string field, EventDraft draft) => Build.Refused(field, () => Check(draft));

    [Fact]
    public void A_sentence_becomes_a_rule()
    {
        var content = Check(Build.Draft(repeat: Build.Weekly(2, [4, 2], RepeatEnd.On, "2026-12-18")));
        Assert.Equal("FREQ=WEEKLY;UNTIL=20261218T180000Z;INTERVAL=2;BYDAY=TU,TH", RuleText.Format(content.Series.Rule!));
    }

    [Fact]
    public void A_rule_becomes_the_same_sentence_again()
    {
        foreach (var repeat in new[] { Build.Weekly(2, [2, 4], RepeatEnd.On, "2026-12-18"), Build.Weekly(ends: RepeatEnd.After, count: 3),
            Build.Weekly() })
        {
            var content = Check(Build.Draft(repeat: repeat));
            var again = RepeatDraft.Of(content.Series)!;
            Assert.Equal(
                (repeat.Interval, repeat.Ends, repeat.Until, repeat.Count), (again.Interval, again.Ends, again.Until, again.Count));
            Assert.Equal(repeat.Weekdays, again.Weekdays);
        }
    }

    [Fact]
    public void The_last_day_counts_also_where_the_clocks_changed_before_it()
    {
        var content = Check(Build.Draft("2026-10-20", repeat: Build.Weekly(ends: RepeatEnd.On, until: "2026-11-10")));
        Assert.Equal(new LocalDate(2026, 11, 10), content.Series.All().Last().LocalStart.Date);
    }

    [Fact]
    public void Whole_days_end_inclusively()
    {
        var content = Check(
            Build.Draft() with
            {
                AllDay = true,
                EndDate = Build.Day("2026-11-26"),
                Repeat = Build.Weekly(ends: RepeatEnd.On, until: "2026-12-01")
            });
        Assert.Equal(3, content.Series.Timing.Days);
        Assert.Equal("FREQ=WEEKLY;UNTIL=20261201;BYDAY=TU", RuleText.Format(content.Series.Rule!));
    }

    [Fact]
    public void An_end_before_the_start_is_refused()
    {
        Assert.Contains("later than the start", Refused("to", Build.Draft(from: "14:00", to: "13:00")), StringComparison.Ordinal);
        Assert.NotNull(Refused("endDate", Build.Draft() with { AllDay = true, EndDate = Build.Day("2026-11-23") }));
    }

    [Fact]
    public void An_end_on_a_later_day_is_fine() =>
        Assert.Equal(Duration.FromHours(11),
            Check(Build.Draft(from: "22:00", to: "09:00") with { EndDate = Build.Day("2026-11-25") }).Series.Timing.Duration);

    [Fact]
    public void A_weekly_rule_without_a_weekday_is_refused() =>
        Assert.NotNull(Refused("repeat.weekdays", Build.Draft(repeat: Build.Weekly(weekdays: []))));

    [Fact]
    public void A_weekday_that_is_none_is_refused() =>
        Assert.NotNull(Refused("repeat.weekdays", Build.Draft(repeat: Build.Weekly(weekdays: [0]))));

    [Fact]
    public void A_series_that_ends_before_it_starts_is_refused() =>
        Assert.NotNull(Refused("repeat.until", Build.Draft(repeat: Build.Weekly(ends: RepeatEnd.On, until: "2026-11-23"))));

    [Theory]
    [InlineData(0)]
    [InlineData(-3)]
    [InlineData(100_001)]
    [InlineData(null)]
    public void A_number_of_dates_that_is_none_is_refused(int? count) =>
        Assert.NotNull(Refused("repeat.count", Build.Draft(repeat: Build.Weekly(ends: RepeatEnd.After, count: count))));

    [Fact]
    public void Every_zero_weeks_is_refused() => Assert.NotNull(Refused("repeat.interval", Build.Draft(repeat: Build.Weekly(interval: 0))));

    [Fact]
    public void An_unknown_zone_is_refused_with_one_that_would_be_right() =>
        Assert.Contains("America/Halifax", Refused("zone", Build.Draft() with { Zone = "Atlantis/Pinewick" }), StringComparison.Ordinal);

    [Fact]
    public void A_title_of_ten_thousand_characters_is_refused() =>
        Assert.Contains("10000", Refused("title", Build.Draft(title: new string('x', 10_000))), StringComparison.Ordinal);

    [Theory]
    [InlineData("Boat\u0007lab")]
    [InlineData("Boat\nlab")]
    [InlineData("Boat\u202Elab")]
    public void A_title_of_control_characters_is_refused(string title) =>
        Assert.Contains("control characters", Refused("title", Build.Draft(title: title)), StringComparison.Ordinal);

    /// <summary>In a test of its own: the test runner itself cannot pass half a character on.</summary>
    [Fact]
    public void A_title_with_half_a_character_is_refused() => Assert.NotNull(Refused("title", Build.Draft(title: "Boat\uD800lab")));

    [Fact]
    public void A_title_is_trimmed() => Assert.Equal("Boat lab", Check(Build.Draft(title: "  Boat lab ")).Title);

    [Fact]
    public void Everything_that_is_wrong_is_said_at_once()
    {
        var refused = Assert.Throws<RuleException>(() =>
            Check(new EventDraft { Date = Build.Day("2026-11-24"), Place = new string('x', 500), Repeat = Build.Weekly(weekdays: []) }));
        Assert.Equal(["from", "place", "repeat.weekdays", "title", "to"], refused.Refusals.Select(refusal => refusal.Field).Order());
    }

    [Fact]
    public void An_end_on_a_day_needs_the_day() =>
        Assert.NotNull(Refused("repeat.until", Build.Draft(repeat: Build.Weekly(ends: RepeatEnd.On))));

    [Fact]
    public void A_last_day_beyond_the_calendar_is_refused() =>
        Assert.NotNull(Refused("repeat.until", Build.Draft(repeat: Build.Weekly(ends: RepeatEnd.On, until: "2200-01-01"))));

    [Fact]
    public void A_missing_date_is_refused() => Assert.NotNull(Refused("date", Build.Draft() with { Date = null }));

    [Theory]
    [InlineData("1899-12-31")]
    [InlineData("2200-01-02")]
    public void A_date_beyond_the_calendar_is_refused(string date) => Assert.NotNull(Refused("date", Build.Draft(date)));

    [Fact]
    public void An_event_of_years_is_refused() =>
        Assert.Contains(
            "731", Refused("endDate", Build.Draft() with { AllDay = true, EndDate = Build.Day("2029-01-01") }), StringComparison.Ordinal);

    [Fact]
    public void Contents_that_say_the_same_are_told_from_those_that_do_not()
    {
        var one = Check(Build.Draft(repeat: Build.Weekly()));
        Assert.True(one.Equals(Check(Build.Draft(repeat: Build.Weekly()))));
        Assert.False(one.Equals(Check(Build.Draft())));
        Assert.False(one.Equals(Check(Build.Draft(repeat: Build.Weekly(), title: "Another"))));
        Assert.False(one.Equals(Check(Build.Draft(repeat: Build.Weekly()), new RichText("<p>x</p>", "x"))));
        Assert.False(one.Equals(Check(Build.Draft(to: "16:00", repeat: Build.Weekly()))));
        Assert.False(one.Equals(Check(Build.Draft(repeat: Build.Weekly()) with { Zone = "Europe/Oslo" })));
    }

    [Fact]
    public void A_description_beyond_measure_is_refused() =>
        Assert.NotNull(Build.Refused("description", () => Check(Build.Draft(), new RichText(new string('x', 20_001), "x"))));

    [Theory]
    [InlineData("javascript:alert(1)")]
    [InlineData("/relative")]
    [InlineData("ftp://pinewick.example/")]
    [InlineData("")]
    public void A_link_that_readers_cannot_open_is_refused(string url) =>
        Assert.EndsWith(".",
            Build.Refused("links", () => (Build.Draft() with { Links = [new EventLink("Map", url)] }).Check(Build.Setting, RichText.Empty)),
                StringComparison.Ordinal);

    [Theory]
    [InlineData("forms.example/signup", "https://forms.example/signup")]
    [InlineData(" pinewick.example ", "https://pinewick.example/")]
    [InlineData("http://pinewick.example/map", "http://pinewick.example/map")]
    public void A_link_as_people_type_it_gets_its_scheme(string typed, string url) => Assert.Equal(
        url, (Build.Draft() with { Links = [new EventLink("Map", typed)] }).Check(Build.Setting, RichText.Empty).Links[0].Url);

    [Fact]
    public void What_is_said_besides_is_trimmed_and_a_link_without_a_label_is_called_by_its_host()
    {
        var content = (Build.Draft() with
        {
            Links = [new EventLink(" ", "https://pinewick.example/map"), new EventLink("Call", "tel:+19025550143")],
            Contact = "  Harbour office ",
            Notes = " first\r\nsecond\t. ",
            ShowFrom = Build.Day("2026-11-01"),
        }).Check(Build.Setting, RichText.Empty);
        Assert.Equal(["pinewick.example", "Call"], content.Links.Select(link => link.Called()));
        Assert.Equal(("Harbour office", "first\nsecond ."), (content.Contact, content.Notes));
        Assert.Equal(new ShowingSpan(Build.Day("2026-11-01"), null), content.Showing);
    }

    [Fact]
    public void A_cap_above_what_its_calendars_show_is_refused_audience_by_audience_unless_it_stood_there_before()
    {
        var setting = Build.Setting with { Shown = new Core.Disclosure.Disclosure(Detail.Complete, Detail.Headline, Detail.Times) };
        var draft = Build.Draft() with { Cap = new CapDraft(null, Detail.Complete, Detail.Headline) };
        Assert.Contains("people with the link headline", Build.Refused("cap.link", () => draft.Check(setting, RichText.Empty)),
            StringComparison.Ordinal);
        Assert.Contains(
            "everyone times", Build.Refused("cap.everyone", () => draft.Check(setting, RichText.Empty)), StringComparison.Ordinal);
        Assert.Equal(Detail.Complete,
            draft.Check(setting with { CapBefore = new Cap(null, Detail.Complete, Detail.Headline) }, RichText.Empty).Cap.Link);
        Assert.Equal(Detail.Times,
            (Build.Draft() with { Cap = new CapDraft(null, null, Detail.Times) }).Check(setting, RichText.Empty).Cap.Everyone);
    }

    [Fact]
    public void Too_much_of_anything_is_refused_at_its_field()
    {
        var draft = Build.Draft() with
        {
            Links = [.. Enumerable.Repeat(new EventLink("Map", "https://pinewick.example/"), EventDraft.MostLinks + 1)],
            Files = [.. Enumerable.Range(0, EventDraft.MostFiles + 1).Select(_ => Guid.NewGuid())],
            Contact = new string('x', 300),
            Notes = new string('x', 6_000),
        };
        foreach (var field in new[] { "links", "files", "contact", "notes" })
            Assert.NotNull(Build.Refused(field, () => draft.Check(Build.Setting, RichText.Empty)));
    }

    [Fact]
    public void One_date_has_no_links_files_or_audience_of_its_own()
    {
        var series = Build.Event(Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=4"));
        foreach (var typed in new[] { series.Content with { Contact = "Ada" },
            series.Content with { Cap = new Cap(Detail.Times, null, null) }, series.Content with { Notes = "x" } })
        {
            var edit = new SeriesEdit(series,
                new Change(ChangeAct.Edit, Build.Local("2026-12-01 14:00"),
                    typed with
                    {
                        Series = series.Series with
                        {
                            Timing =
                        series.Series.Timing.StartingAt(Build.Local("2026-12-01 14:00"))
                        }
                    }), SchoolCalendar.Empty);
            Assert.NotNull(Build.Refused("scope", () => edit.Apply(ChangeScope.This, new HashSet<NodaTime.LocalDateTime>())));
            Assert.True(
                edit.Apply(ChangeScope.Every, new HashSet<NodaTime.LocalDateTime>()).Event.Content with { Series = typed.Series } == typed);
        }
    }

    [Fact]
    public void A_deadline_ends_when_it_is_due_whatever_end_was_typed()
    {
        var draft = Build.Draft() with
        {
            Kind = EventKind.Deadline,
            From = new LocalTime(17, 0),
            To = new LocalTime(9, 0),
            EndDate = Build.Day("2026-12-24"),
        };
        var timing = Check(draft).Series.Timing;
        Assert.Equal((timing.Start, new LocalTime(17, 0)), (timing.End, timing.Start.TimeOfDay));
        Assert.Equal(1, Check(draft with { AllDay = true }).Series.Timing.Days);
    }

    [Fact]
    public void A_deadline_without_a_time_is_asked_when_it_is_due() => Assert.Equal(
        "When is it due? A time such as 17:00, or any time that day.",
        Refused("from", Build.Draft() with { Kind = EventKind.Deadline, From = null, To = null }));

    [Fact]
    public void A_link_keeps_its_kind_and_needs_no_words()
    {
        var link = Assert.Single(
            Check(Build.Draft() with { Links = [new EventLink(" ", "pinewick.example/rota", LinkKind.SignUp)] }).Links);
        Assert.Equal(new EventLink("", "https://pinewick.example/rota", LinkKind.SignUp), link);
        Assert.Equal("pinewick.example", link.Called());
    }

    [Fact]
    public void People_are_members_by_their_accounts_or_names_once_each_and_those_who_lead_come_first()
    {
        var bo = Guid.NewGuid();
        var setting = Build.Setting with { Members = new Dictionary<Guid, string> { [bo] = "Bo Quilliam" } };
        var draft = Build.Draft() with
        {
            People = [new Involved(null, " Capt. Marr ", Part.Speaks), new Involved(bo, "bo", Part.Leads, From: new LocalTime(13, 0)),
                new Involved(bo, "Bo again", Part.Helps)],
        };
        Assert.Equal(
            [new Involved(bo, "Bo Quilliam", From: new LocalTime(13, 0)), new Involved(null, "Capt. Marr", Part.Speaks)],
            draft.Check(setting, RichText.Empty).People);
        Assert.Contains(
            "Nobody", Refused("people", Build.Draft() with { People = [new Involved(Guid.NewGuid(), "Nobody")] }),
            StringComparison.Ordinal);
        Involved[] many = [.. Enumerable.Range(0, Involved.Most + 1).Select(one => new Involved(null, $"x{one}"))];
        Assert.NotNull(Refused("people", Build.Draft() with { People = many }));
    }
}
