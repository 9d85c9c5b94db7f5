using System.Globalization;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Typing;

namespace Valtro.Core.Tests;

public class TypingTests
{
    private static readonly CultureInfo British = CultureInfo.GetCultureInfo("en-GB");

    private static readonly CultureInfo German = CultureInfo.GetCultureInfo("de");

    /// <summary>A Monday.</summary>
    private static readonly LocalDate Today = new(2026, 11, 23);

    private static LineReading Read(string line) => OneLine.Read(line, British, Today);

    [Theory]
    [InlineData("9", "09:00")]
    [InlineData("9:30", "09:30")]
    [InlineData("930", "09:30")]
    [InlineData("9.30pm", "21:30")]
    [InlineData("21:30", "21:30")]
    [InlineData("12am", "00:00")]
    [InlineData("12pm", "12:00")]
    [InlineData("25", null)]
    [InlineData("9:75", null)]
    [InlineData("13pm", null)]
    [InlineData("noon", null)]
    public void Times_as_people_type_them(string typed, string? time) =>
        Assert.Equal(time is null ? null : Build.Time(time), Typed.Time(typed, British));

    [Theory]
    [InlineData("24 Nov", "2026-11-24")]
    [InlineData("24th November 2027", "2027-11-24")]
    [InlineData("Tue, 24 Nov", "2026-11-24")]
    [InlineData("24.11.", "2026-11-24")]
    [InlineData("24/11/26", "2026-11-24")]
    [InlineData("2026-11-24", "2026-11-24")]
    [InlineData("8 Jan", "2027-01-08")]
    [InlineData("tomorrow", "2026-11-24")]
    [InlineData("Friday", "2026-11-27")]
    [InlineData("31 Feb", null)]
    [InlineData("soon", null)]
    public void Days_as_people_type_them(string typed, string? day) =>
        Assert.Equal(day is null ? null : Build.Day(day), Typed.Day(typed, British, Today));

    [Fact]
    public void The_example_of_the_help_is_read_whole()
    {
        var reading = Read("Sail repair every Tue 14:00–15:30 in Slipway until 18 Dec #practical @PW");
        var draft = reading.Draft;
        Assert.Equal(("Sail repair", "Slipway", "PW"), (draft.Title, draft.Place, reading.CalendarPlate));
        Assert.Equal((Build.Day("2026-11-24"), Build.Time("14:00"), Build.Time("15:30")), (draft.Date, draft.From, draft.To));
        Assert.Equal((RepeatPattern.Weekly, Build.Day("2026-12-18")), (draft.Repeat!.Pattern, draft.Repeat.Until));
        Assert.Equal(["practical"], draft.Tags);
        Assert.Empty(reading.Unread);
    }

    [Theory]
    [InlineData("Choir every Tue and Thu 9-10", "FREQ=WEEKLY;BYDAY=TU,TH")]
    [InlineData("Choir every second Friday at 9", "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR")]
    [InlineData("Choir every weekday 9-10", "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR")]
    [InlineData("Choir every 3 days 9-10", "FREQ=DAILY;INTERVAL=3")]
    [InlineData("Choir every 2 weeks on Mon 9-10", "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO")]
    [InlineData("Choir every month on the 24th 9-10", "FREQ=MONTHLY;BYMONTHDAY=24")]
    [InlineData("Choir every month on the last Friday 9-10", "FREQ=MONTHLY;BYDAY=-1FR")]
    [InlineData("Choir every second Tuesday of the month 9-10", "FREQ=MONTHLY;BYDAY=2TU")]
    [InlineData("Choir every last weekday of the month 9-10", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1")]
    [InlineData("Choir every Tue 9-10 for 5 dates", "FREQ=WEEKLY;COUNT=5;BYDAY=TU")]
    [InlineData("Choir every day 9-10", "FREQ=DAILY")]
    [InlineData("Choir every week 9-10", "FREQ=WEEKLY;BYDAY=MO")]
    [InlineData("Choir every month 9-10", "FREQ=MONTHLY;BYMONTHDAY=23")]
    [InlineData("Choir every year 9-10", "FREQ=YEARLY;BYMONTHDAY=23;BYMONTH=11")]
    [InlineData("Choir every other Wed 9-10", "FREQ=WEEKLY;INTERVAL=2;BYDAY=WE")]
    [InlineData("Choir every Mon, Wed and Fri 9-10", "FREQ=WEEKLY;BYDAY=MO,WE,FR")]
    [InlineData("Choir every Tue/Thu 9-10", "FREQ=WEEKLY;BYDAY=TU,TH")]
    [InlineData("Choir every last day of the month 9-10", "FREQ=MONTHLY;BYMONTHDAY=-1")]
    [InlineData("Choir every 24th of the month 9-10", "FREQ=MONTHLY;BYMONTHDAY=24")]
    [InlineData("Choir every 2 months on the first Monday 9-10", "FREQ=MONTHLY;INTERVAL=2;BYDAY=1MO")]
    public void Patterns_are_read(string line, string rule)
    {
        var reading = Read(line);
        Assert.Empty(reading.Unread);
        Assert.Equal("Choir", reading.Draft.Title);
        Assert.Equal(rule, RuleText.Format(reading.Draft.CheckSeries(Build.Setting).Rule!));
    }

    [Theory]
    [InlineData("Choir 24 Nov 2-3.30pm", "14:00", "15:30")]
    [InlineData("Choir 24 Nov from 9 to 10:15", "09:00", "10:15")]
    [InlineData("Choir 24 Nov 14:00 – 15:00", "14:00", "15:00")]
    [InlineData("Choir 24 Nov at 9", "09:00", "10:00")]
    [InlineData("Choir 24 Nov 9-3pm", "09:00", "15:00")]
    [InlineData("Choir 24 Nov 9-3", "09:00", "15:00")]
    [InlineData("Choir 24 Nov 11.30am to 2pm", "11:30", "14:00")]
    [InlineData("Choir 24 Nov 14h30-15h30", "14:30", "15:30")]
    public void Times_are_read(string line, string from, string to)
    {
        var reading = Read(line);
        Assert.Empty(reading.Unread);
        Assert.Equal(
            (Build.Day("2026-11-24"), Build.Time(from), Build.Time(to)), (reading.Draft.Date, reading.Draft.From, reading.Draft.To));
    }

    [Theory]
    [InlineData("Chor jeden Di und Do 9-10", "FREQ=WEEKLY;BYDAY=TU,TH")]
    [InlineData("Chor jeden Dienstag und Donnerstag 9-10", "FREQ=WEEKLY;BYDAY=TU,TH")]
    [InlineData("Chor jeden zweiten Freitag um 9", "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR")]
    [InlineData("Chor jeden Werktag 9-10", "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR")]
    [InlineData("Chor alle 3 Tage 9-10", "FREQ=DAILY;INTERVAL=3")]
    [InlineData("Chor alle 2 Wochen am Mo 9-10", "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO")]
    [InlineData("Chor jeden Monat am 24. 9-10", "FREQ=MONTHLY;BYMONTHDAY=24")]
    [InlineData("Chor jeden Monat am letzten Freitag 9-10", "FREQ=MONTHLY;BYDAY=-1FR")]
    [InlineData("Chor jeden zweiten Dienstag im Monat 9-10", "FREQ=MONTHLY;BYDAY=2TU")]
    [InlineData("Chor jeden letzten Werktag im Monat 9-10", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1")]
    [InlineData("Chor jeden letzten Tag des Monats 9-10", "FREQ=MONTHLY;BYMONTHDAY=-1")]
    [InlineData("Chor jeden Di 9-10 für 5 Termine", "FREQ=WEEKLY;COUNT=5;BYDAY=TU")]
    [InlineData("Chor jeden Tag 9-10", "FREQ=DAILY")]
    [InlineData("Chor jede Woche 9-10", "FREQ=WEEKLY;BYDAY=MO")]
    [InlineData("Chor jedes Jahr 9-10", "FREQ=YEARLY;BYMONTHDAY=23;BYMONTH=11")]
    [InlineData("Chor jeden Mo, Mi und Fr 9-10", "FREQ=WEEKLY;BYDAY=MO,WE,FR")]
    [InlineData("Chor alle 2 Monate am ersten Montag 9-10", "FREQ=MONTHLY;INTERVAL=2;BYDAY=1MO")]
    public void Patterns_are_read_in_German(string line, string rule)
    {
        var reading = OneLine.Read(line, German, Today);
        Assert.Empty(reading.Unread);
        Assert.Equal("Chor", reading.Draft.Title);
        Assert.Equal(rule, RuleText.Format(reading.Draft.CheckSeries(Build.Setting).Rule!));
    }

    [Theory]
    [InlineData("Chor 24. Nov 14–15.30 Uhr", "14:00", "15:30")]
    [InlineData("Chor 24.11. von 9 bis 10:15", "09:00", "10:15")]
    [InlineData("Chor am Dienstag um 9 Uhr", "09:00", "10:00")]
    [InlineData("Chor Di, 24. November 2026 14 Uhr bis 15 Uhr", "14:00", "15:00")]
    [InlineData("Chor morgen 9:30", "09:30", "10:30")]
    [InlineData("Chor am 24. November ab 14 Uhr", "14:00", "15:00")]
    [InlineData("Chor 2026-11-24 14:00 – 15:00", "14:00", "15:00")]
    [InlineData("Chor Di 14–15 Uhr in der Aula", "14:00", "15:00", "Aula")]
    [InlineData("Chor Di 14–15 Uhr im Saal", "14:00", "15:00", "Saal")]
    public void Days_times_and_places_are_read_in_German(string line, string from, string to, string place = "")
    {
        var reading = OneLine.Read(line, German, Today);
        Assert.Empty(reading.Unread);
        Assert.Equal(("Chor", place), (reading.Draft.Title, reading.Draft.Place));
        Assert.Equal(
            (Build.Day("2026-11-24"), Build.Time(from), Build.Time(to)), (reading.Draft.Date, reading.Draft.From, reading.Draft.To));
    }

    [Fact]
    public void The_example_of_the_German_help_is_read_whole()
    {
        var reading = OneLine.Read("Segel flicken jeden Di 14:00–15:30 in Slipway bis 18. Dez #praktisch @PW", German, Today);
        Assert.Equal(("Segel flicken", "Slipway", "PW"), (reading.Draft.Title, reading.Draft.Place, reading.CalendarPlate));
        Assert.Equal((RepeatPattern.Weekly, Build.Day("2026-12-18")), (reading.Draft.Repeat!.Pattern, reading.Draft.Repeat.Until));
        Assert.Equal("Jeden Dienstag", reading.Understood.Single(one => one.Field == "repeat").Means);
        Assert.Empty(reading.Unread);
    }

    [Fact]
    public void What_is_assumed_is_said_in_German()
    {
        var reading = OneLine.Read("Regatta ganztägig", German, Today);
        Assert.True(reading.Draft.AllDay);
        Assert.Contains(reading.Understood,
            one => one is { Field: "date", Words: "" } && one.Means == "Montag, 23. November 2026, weil kein Tag gesagt ist");
    }

    [Fact]
    public void Nothing_is_guessed_in_silence()
    {
        var reading = Read("Choir at 9 perhaps");
        Assert.Equal(["perhaps"], reading.Unread);
        Assert.Contains(
            reading.Understood, one => one is { Field: "to", Words: "" } && one.Means.Contains("no end is said", StringComparison.Ordinal));
        Assert.Contains(reading.Understood,
            one => one is { Field: "date", Words: "" } && one.Means.Contains("no day is said", StringComparison.Ordinal));
    }

    [Fact]
    public void What_lasts_all_day_is_said_or_noted()
    {
        Assert.Contains(Read("Regatta 24 Nov all day").Understood, one => one is { Field: "allDay", Words: "all day" });
        Assert.Contains(Read("Regatta 24 Nov").Understood,
            one => one is { Field: "allDay", Words: "" } && one.Means.Contains("no time is said", StringComparison.Ordinal));
        Assert.True(Read("Regatta 24 Nov all day").Draft.AllDay);
    }

    [Fact]
    public void What_ends_after_midnight_ends_on_the_next_day()
    {
        var draft = Read("Night watch 24 Nov 10pm-1am").Draft;
        Assert.Equal((Build.Time("22:00"), Build.Time("01:00"), Build.Day("2026-11-25")), (draft.From, draft.To, draft.EndDate));
    }

    [Theory]
    [InlineData("Choir Fri 9-10 Sat 11-12", "Sat", "11-12")]
    [InlineData("Choir Fri 9-10 in Loft in Hall", "in", "Hall")]
    [InlineData("Choir every Fri every Sat 9-10", "every")]
    [InlineData("Choir every Fri 9-10 until soon", "until", "soon")]
    [InlineData("Choir every Fri 9-10 for ages", "for", "ages")]
    public void What_is_said_twice_or_means_nothing_is_shown(string line, params string[] unread) =>
        Assert.All(unread, word => Assert.Contains(word, Read(line).Unread));

    [Fact]
    public void A_pattern_starts_on_the_first_day_that_it_gives()
    {
        Assert.Equal(Build.Day("2026-11-27"), Read("Choir every Fri 9-10").Draft.Date);
        Assert.Equal(Build.Day("2026-11-30"), Read("Choir every last day of the month 9-10").Draft.Date);
        Assert.Equal(Today, Read("Choir every Mon 9-10").Draft.Date);
    }

    [Fact]
    public void Quotes_keep_words_together() => Assert.Equal("Man in the boat", Read("“Man in the boat” Fri 9-10").Draft.Title);

    [Fact]
    public void A_last_day_without_a_pattern_is_said_to_mean_nothing() =>
        Assert.Contains("nothing repeats", Assert.Single(Read("Choir Fri 9-10 until 18 Dec").Unread), StringComparison.Ordinal);

    [Theory]
    [InlineData("")]
    [InlineData("#")]
    [InlineData("every every every")]
    [InlineData("in in in in")]
    [InlineData("for for until until")]
    [InlineData("“")]
    public void No_line_breaks_the_reader(string line) => Assert.NotNull(Read(line).Draft);

    /// <summary>Without care each place would be read anew inside the one before: this line would take for ever.</summary>
    [Fact]
    public void A_line_of_many_places_is_read_once() => Assert.NotEmpty(Read(string.Concat(Enumerable.Repeat("in a ", 99))).Unread);

    [Fact]
    public void A_line_of_six_hundred_characters_is_refused() => Assert.NotNull(Build.Refused("line", () => Read(new string('x', 600))));

    [Fact]
    public void A_row_of_a_table_is_read_and_what_is_wrong_is_named_by_its_column()
    {
        var refusals = new RefusalList();
        var draft = new TableRow("3 Dec", "9", "10.30", "Knots", "Loft", "PW").Read(British, Today, refusals);
        Assert.True(refusals.IsEmpty);
        Assert.Equal((Build.Day("2026-12-03"), Build.Time("09:00"), Build.Time("10:30")), (draft.Date, draft.From, draft.To));
        new TableRow("31 Feb", "25", "", "Knots", "", "").Read(British, Today, refusals);
        Assert.Equal(["date", "from"], refusals.All.Select(refusal => refusal.Field));
        Assert.True(new TableRow("", null, " ", "", "", null).IsEmpty);
        Assert.True(new TableRow("3 Dec", "", "", "Open day", "", "").Read(British, Today, new RefusalList()).AllDay);
    }
}
