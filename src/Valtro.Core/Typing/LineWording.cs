using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Typing;

/// <summary>Says what was read of a line, in its language.</summary>
internal sealed class LineWording(Grammar grammar)
{
    public string Say(RepeatDraft repeat, LocalDate date)
    {
        var timing = Timing.WholeDays(date, date, DateTimeZone.Utc);
        var refusals = new RefusalList();
        repeat.Check(refusals);
        var rule = refusals.IsEmpty ? refusals.Try(() => (repeat with { Ends = RepeatEnd.Never }).RuleFor(timing)) : null;
        var said = RuleWords.For(grammar.Culture.Name);
        return rule is null
            ? ""
            : said.Say(new Series(timing, rule)).Replace($", {said.AllDay}", "", StringComparison.Ordinal);
    }

    public string Say(Days days) => days.Last is { } last
        ? Say("choice.days", ("first", grammar.Speech.Day(days.First)), ("last", grammar.Speech.Day(last)))
        : Say(days.First);

    public string Say(TimesFound times) =>
        times.To is { } to ? Say("typed.fromTo", ("from", $"{times.From:HH:mm}"), ("to", $"{to:HH:mm}")) : $"{times.From:HH:mm}";

    public string Say(LocalDate date) => grammar.Speech.Day(date, withWeekday: true);

    public string Say(string code, params (string Name, object? Value)[] values) => grammar.Speech.Say(code, values);

    /// <summary>As it can be read again.</summary>
    public static string Written(TimesFound times) => times.To is { } to ? $"{times.From:HH:mm}–{to:HH:mm}" : $"{times.From:HH:mm}";
}
