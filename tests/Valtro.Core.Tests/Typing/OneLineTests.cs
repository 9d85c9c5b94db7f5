using System.Globalization;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Typing;
using Xunit.Abstractions;

namespace Valtro.Core.Tests.Typing;

/// <summary>Lines as people type them, read on Monday 23 November 2026.</summary>
public class OneLineTests(ITestOutputHelper output)
{
    private static readonly LocalDate Today = new(2026, 11, 23);
    private static readonly string[] Places = ["Hall", "Loft", "Slipway", "Aula", "Saal", "Turnhalle", "Boat house"];

    private static LineReading Read(string line, string culture = "en-GB") =>
        OneLine.Read(line, CultureInfo.GetCultureInfo(culture), Today, Places, ["PW", "SCH"]);

    /// <summary>A line for each phrase: "phrase => what it means", or "phrase => ? the fields that are asked about".</summary>
    private static IEnumerable<(string Phrase, string Meaning)> Phrases(string language) =>
        from line in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Typing", $"phrases.{language}.txt"))
        let parts = line.Split(" => ")
        where parts.Length == 2
        select (parts[0], parts[1]);

    private static string Say(LineReading reading)
    {
        if (reading.Questions.Count > 0)
            return "? " + string.Join(", ", reading.Questions.Select(question => question.Field));
        var place = reading.Draft.Place.Length > 0 ? $" | in {reading.Draft.Place}" : "";
        return $"{reading.Draft.Title} | {string.Join(" + ", reading.Drafts.Select(Say))}{place}";
    }

    private static string Say(EventDraft draft)
    {
        var last = draft.EndDate is { } end ? $"..{end:uuuu-MM-dd}" : "";
        var time = draft.Kind == EventKind.Deadline ? $"due {draft.From:HH:mm}".Trim()
            : draft.AllDay ? "all day" : $"{draft.From:HH:mm}-{draft.To:HH:mm}";
        var rule = draft.Repeat is null ? "" : $" {RuleText.Format(draft.CheckSeries(Build.Setting).Rule!)}";
        return $"{draft.Date:uuuu-MM-dd}{last} {time}{rule}";
    }

    /// <summary>The bar is that none is read as something else than it means without asking.</summary>
    [Theory]
    [InlineData("en", "en-GB")]
    [InlineData("de", "de-DE")]
    public void Each_phrase_is_read_as_it_is_meant_or_asked_about(string language, string culture)
    {
        var phrases = Phrases(language).ToArray();
        Assert.True(phrases.Length >= 150, $"{phrases.Length} phrases");
        var said = phrases.Select(one => (one.Phrase, one.Meaning, Said: Say(Read(one.Phrase, culture)))).ToArray();
        var asked = said.Count(one => one.Said[0] == '?');
        output.WriteLine($"{language}: {said.Length} phrases, {said.Length - asked} read at once, {asked} asked about");
        Assert.True(said.All(one => one.Said == one.Meaning), string.Join("\n", said.Where(one => one.Said != one.Meaning)
            .Select(one => $"{one.Phrase} => {one.Said} and not {one.Meaning}")));
    }

    /// <summary>Whichever choice somebody takes, in the end nothing is left to ask: no choice leads in a circle.</summary>
    [Theory]
    [InlineData("en", "en-GB")]
    [InlineData("de", "de-DE")]
    public void Every_choice_settles_what_it_is_about(string language, string culture)
    {
        foreach (var (phrase, _) in Phrases(language))
            Settle(phrase, depth: 0);

        void Settle(string line, int depth)
        {
            Assert.True(depth < 7, $"“{line}” is never settled.");
            if (Read(line, culture).Questions is [{ } question, ..])
            {
                Assert.NotEmpty(question.Choices);
                foreach (var choice in question.Choices)
                {
                    Assert.NotEqual(line, choice.Line);
                    Settle(choice.Line, depth + 1);
                }
            }
        }
    }

    [Theory]
    [InlineData("en", "en-GB")]
    [InlineData("de", "de-DE")]
    public void Every_word_of_the_line_is_shown_as_what_it_was_taken_for(string language, string culture)
    {
        foreach (var (phrase, _) in Phrases(language))
        {
            var shown = string.Concat(Read(phrase, culture).Pieces.Select(piece => piece.Text));
            Assert.Equal(Letters(phrase), Letters(shown));
        }

        static string Letters(string text) => string.Concat(text.Where(char.IsLetterOrDigit));
    }

    [Fact]
    public void The_example_of_the_help_is_read_whole()
    {
        var reading = Read("Sail repair every Tue 14:00–15:30 in Slipway until 18 Dec #practical @PW");
        var draft = reading.Draft;
        Assert.Equal(("Sail repair", "Slipway", "PW"), (draft.Title, draft.Place, reading.CalendarPlate));
        Assert.Equal((Build.Day("2026-11-24"), Build.Time("14:00"), Build.Time("15:30")), (draft.Date, draft.From, draft.To));
        Assert.Equal((RepeatPattern.Weekly, Build.Day("2026-12-18")), (draft.Repeat!.Pattern, draft.Repeat.Until));
        Assert.Equal(["practical"], draft.Tags);
        Assert.Empty(reading.Questions);
    }

    [Fact]
    public void The_example_of_the_German_help_is_read_whole()
    {
        var reading = Read("Segel flicken jeden Di 14:00–15:30 in Slipway bis 18. Dez #praktisch @PW", "de");
        Assert.Equal(("Segel flicken", "Slipway", "PW"), (reading.Draft.Title, reading.Draft.Place, reading.CalendarPlate));
        Assert.Equal((RepeatPattern.Weekly, Build.Day("2026-12-18")), (reading.Draft.Repeat!.Pattern, reading.Draft.Repeat.Until));
        Assert.Equal("Jeden Dienstag", reading.Understood.Single(one => one.Field == "repeat").Means);
        Assert.Empty(reading.Questions);
    }

    /// <summary>It was published to everyone as "Spring", 07:30.</summary>
    [Fact]
    public void The_line_that_was_misread_is_asked_about_and_read_once_it_is_settled()
    {
        var asked = Read("Spring concert 4 May 7:30 pm in Hall @SCH");
        var question = Assert.Single(asked.Questions);
        Assert.Equal(("date", "4 May", "no year is written, and 4 May 2026 is over"), (question.Field, question.Words, question.Why));
        var settled = Read(question.Choices[0].Line);
        Assert.Empty(settled.Questions);
        Assert.Equal(("Spring concert", "Hall", "SCH"), (settled.Draft.Title, settled.Draft.Place, settled.CalendarPlate));
        Assert.Equal((Build.Day("2027-05-04"), Build.Time("19:30")), (settled.Draft.Date, settled.Draft.From));
    }

    [Fact]
    public void What_is_assumed_or_over_is_said()
    {
        var reading = Read("Choir 3 November 2026 14:00");
        Assert.Contains(reading.Understood,
            one => one is { Field: "to", Words: "" } && one.Means.Contains("no end is said", StringComparison.Ordinal));
        Assert.Contains(reading.Understood, one => one.Field == "date" && one.Means.EndsWith("which is over", StringComparison.Ordinal));
        Assert.Contains(Read("Regatta 24 Nov").Understood,
            one => one is { Field: "allDay", Words: "" } && one.Means.Contains("no time is said", StringComparison.Ordinal));
        Assert.Contains(Read("Regatta 24 Nov all day").Understood, one => one is { Field: "allDay", Words: "all day" });
    }

    /// <summary>Where the locale writes the year first, 3/4 may be either.</summary>
    [Theory]
    [InlineData("Trip 3/4/2027", "en-GB", "2027-04-03")]
    [InlineData("Trip 3/4/2027", "en-US", "2027-03-04")]
    [InlineData("Trip 3.4.2027", "de", "2027-04-03")]
    [InlineData("Trip 3/4/2027", "en-ZA", null)]
    [InlineData("Trip 3.4.2027", "en-US", null)]
    [InlineData("Trip 13/4/2027", "en-ZA", "2027-04-13")]
    public void The_locale_says_which_comes_first_the_day_or_the_month(string line, string culture, string? day)
    {
        var reading = Read(line, culture);
        if (day is null)
            Assert.Equal(2, Assert.Single(reading.Questions).Choices.Count);
        else
            Assert.Equal(Build.Day(day), reading.Draft.Date);
    }

    [Fact]
    public void A_plate_of_nobody_s_is_asked_about() =>
        Assert.Equal("calendarId", Assert.Single(Read("Choir Fri 9:00–10:00 @NONE").Questions).Field);

    [Theory]
    [InlineData("")]
    [InlineData("#")]
    [InlineData("every every every")]
    [InlineData("in in in in")]
    [InlineData("for for until until")]
    [InlineData("“")]
    [InlineData("\"\"")]
    [InlineData("–")]
    [InlineData("9–")]
    [InlineData("to to to 9 to")]
    [InlineData("in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a in a")]
    public void No_line_breaks_the_reader(string line) => Assert.NotNull(Read(line).Draft);

    /// <summary>Words of phrases thrown together: whatever comes out, nothing breaks, every choice can be read, and nothing is
    /// lost.</summary>
    [Theory]
    [InlineData("en", "en-GB")]
    [InlineData("de", "de-DE")]
    public void Thrown_together_words_break_nothing(string language, string culture)
    {
        var words = Phrases(language).SelectMany(one => one.Phrase.Split(' ')).Distinct().ToArray();
        var random = new Random(20261123);
        for (var run = 0; run < 3_000; run++)
        {
            var line = string.Join(' ', Enumerable.Range(0, random.Next(1, 9)).Select(_ => words[random.Next(words.Length)]));
            var reading = Read(line, culture);
            foreach (var choice in reading.Questions.SelectMany(question => question.Choices).Where(choice => choice.Line.Length <= 500))
                Assert.NotNull(Read(choice.Line, culture));
            Assert.All(reading.Pieces,
                piece => Assert.True(piece.Field != "unread" || reading.Questions.Count > 0, $"{line}: {piece.Text}"));
        }
    }
}
