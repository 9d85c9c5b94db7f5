using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Intake;

/// <summary>What a rule looks at.</summary>
public enum RuleBy
{
    /// <summary>The title begins with a word; brackets before it do not count.</summary>
    TitleBegins,

    /// <summary>The title has a word somewhere.</summary>
    TitleHas,

    /// <summary>It is sorted by a word.</summary>
    Category,

    /// <summary>The place has a word somewhere.</summary>
    PlaceHas,
}

/// <summary>What becomes of an entry of a followed source.</summary>
public enum LandingTo
{
    Calendar,
    LeaveOut,

    /// <summary>It waits until somebody says what becomes of it.</summary>
    Ask,
}

public enum LandingAs
{
    AsItCame,
    Deadline,
    Event,
}

/// <param name="CalendarId">Only where it goes on one.</param>
public sealed record Landing(LandingTo To, Guid? CalendarId = null, LandingAs As = LandingAs.AsItCame)
{
    public static Landing Asked { get; } = new(LandingTo.Ask);

    public static Landing LeftOut { get; } = new(LandingTo.LeaveOut);
}

/// <summary>Entries in which one of some words stands go on one calendar, or nowhere.</summary>
/// <param name="WithoutWord">The word that fits, and what parts it from the rest, is taken off the title's beginning.</param>
public sealed record SourceRule(RuleBy By, IReadOnlyList<string> Words, Landing Landing, bool WithoutWord = false)
{
    private const int MostWords = 30;

    private const string Separators = " \t–—-:|/·.,;)]}>";

    private const string Openers = " \t([{<#";

    /// <exception cref="RuleException">No word, or too many; it goes on no calendar.</exception>
    internal SourceRule Checked(string field)
    {
        var words = Words.Select(word => Texts.OneLine($"{field}.words", "what.ruleWord", word, Texts.LongestName, required: false))
            .Where(word => word.Length > 0).Distinct(StringComparer.CurrentCultureIgnoreCase).ToArray();
        if (words.Length is 0 or > MostWords)
            throw new RuleException($"{field}.words", "source.ruleWords", ("most", MostWords));
        if (Landing.To == LandingTo.Calendar && Landing.CalendarId is null)
            throw new RuleException($"{field}.landing", "source.ruleCalendar");
        return this with { Words = words, Landing = Landing.To == LandingTo.Calendar ? Landing : new Landing(Landing.To) };
    }

    /// <summary>The title as it is to be where this rule fits; null where it does not.</summary>
    internal string? Fits(string title, IReadOnlyList<string> categories, string place)
    {
        foreach (var word in Words)
        {
            switch (By)
            {
                case RuleBy.TitleBegins when EndOfBeginning(title, word) is { } end:
                    return WithoutWord && title[end..].Trim(Separators.ToCharArray()) is { Length: > 0 } ? Rest(title, end) : title;
                case RuleBy.TitleHas when Has(title, word):
                case RuleBy.PlaceHas when Has(place, word):
                case RuleBy.Category when categories.Contains(word, StringComparer.CurrentCultureIgnoreCase):
                    return title;
            }
        }
        return null;
    }

    private static bool Has(string text, string word) => text.Contains(word, StringComparison.CurrentCultureIgnoreCase);

    private static string Rest(string title, int end) => title[end..].TrimStart(Separators.ToCharArray()).TrimEnd();

    /// <summary>Where a word ends with which a title begins; null where it does not. "7B" does not begin "7Bx".</summary>
    private static int? EndOfBeginning(string title, string word)
    {
        var start = title.Length - title.TrimStart(Openers.ToCharArray()).Length;
        // Words may themselves begin with what opens: "[7B]".
        foreach (var from in start == 0 ? [0] : new[] { start, 0 })
        {
            if (title.AsSpan(from).StartsWith(word, StringComparison.CurrentCultureIgnoreCase)
                && from + word.Length is var end
                && (end == title.Length || !(char.IsLetterOrDigit(title[end]) && char.IsLetterOrDigit(word[^1]))))
                return end;
        }
        return null;
    }
}

/// <summary>What a rule said of an entry.</summary>
/// <param name="Rule">Its place; null where none fits, or where somebody said it of this entry.</param>
public sealed record Ruling(int? Rule, Landing Landing, string Title);

/// <summary>Which entries of a followed source go where: the first rule that fits decides.</summary>
public sealed record SourceRules
{
    private const int MostRules = 50;

    public IReadOnlyList<SourceRule> Rules { get; init; } = [];

    /// <summary>Of what fits no rule.</summary>
    public Landing Else { get; init; } = Landing.Asked;

    /// <summary>Only what is on this day or later.</summary>
    public LocalDate? From { get; init; }

    /// <summary>Only what is on this day or earlier.</summary>
    public LocalDate? Until { get; init; }

    /// <summary>Only what says this in its title, place or description.</summary>
    public string Text { get; init; } = "";

    /// <summary>Only what is sorted by one of these words; empty for all.</summary>
    public IReadOnlyList<string> Only { get; init; } = [];

    /// <summary>Readers see of it what its calendars show; else nobody but members does.</summary>
    public bool IsOpen { get; init; }

    /// <summary>The calendars on which something may go.</summary>
    public IEnumerable<Guid> Calendars() =>
        Rules.Select(rule => rule.Landing).Append(Else).Select(landing => landing.CalendarId).OfType<Guid>().Distinct();

    /// <exception cref="RuleException">Something of it cannot be.</exception>
    public SourceRules Checked()
    {
        if (Rules.Count > MostRules)
            throw new RuleException("rules", "source.tooManyRules", ("most", MostRules));
        if (From > Until)
            throw new RuleException("until", "intake.untilBeforeFrom");
        if (Only.Count > MostRules)
            throw new RuleException("only", "intake.tooManyAnswers", ("most", MostRules));
        var refusals = new RefusalList();
        var rules = Rules.Select((rule, place) => refusals.Try(() => rule.Checked($"rules.{place}"))).ToArray();
        var text = refusals.Try(() => Texts.OneLine("text", "what.ruleWord", Text, Texts.LongestTitle, required: false)) ?? "";
        if (Else is { To: LandingTo.Calendar, CalendarId: null })
            refusals.Add("else", "source.ruleCalendar");
        foreach (var day in new[] { ("from", From), ("until", Until) })
            refusals.Try(() => Check(day.Item1, day.Item2));
        refusals.ThrowIfAny();
        return this with { Rules = rules!, Text = text, Else = Else.To == LandingTo.Calendar ? Else : new Landing(Else.To) };

        static bool Check(string field, LocalDate? day)
        {
            if (day is { } said)
                DayRange.Check(field, said);
            return true;
        }
    }

    /// <param name="byHand">What somebody said of this entry.</param>
    public Ruling Of(string title, IReadOnlyList<string> categories, string place, Landing? byHand = null)
    {
        foreach (var (rule, index) in Rules.Select((rule, index) => (rule, index)))
        {
            // What was said of one entry counts for where it goes; its title is the rule's all the same.
            if (rule.Fits(title, categories, place) is { } fitted)
                return byHand is null ? new Ruling(index, rule.Landing, fitted) : new Ruling(null, byHand, fitted);
        }
        return new Ruling(null, byHand ?? Else, title);
    }

    /// <summary>An event as it is to be where it lands.</summary>
    public static CalendarEvent Landed(CalendarEvent came, Ruling ruling) => came with
    {
        Content = ruling.Landing.As switch
        {
            LandingAs.Deadline => came.Content with { Title = ruling.Title, Kind = EventKind.Deadline, Series = Due(came.Series) },
            LandingAs.Event => came.Content with { Title = ruling.Title, Kind = EventKind.Event },
            _ => came.Content with { Title = ruling.Title },
        },
    };

    /// <summary>What is due has no length; it is due when it begins.</summary>
    private static Series Due(Series series)
    {
        var timing = series.Timing;
        return series with
        {
            Timing = timing.AllDay
                ? Timing.WholeDays(timing.Start.Date, timing.Start.Date, timing.Zone)
                : Timing.Timed(timing.Start, timing.Start, timing.Zone),
        };
    }
}
