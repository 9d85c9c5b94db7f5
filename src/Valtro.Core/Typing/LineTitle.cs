using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>The title of a line: what is no part and stands together, or stands in quotes. What could be either is asked.</summary>
/// <param name="places">Known ones, by name.</param>
internal sealed class LineTitle(
    LineWords words, Grammar grammar, ChosenParts chosen, LineQuestions questions, LineWording wording, IReadOnlyCollection<string> places)
{
    private readonly TitleDoubts _doubts = new(words, grammar);
    private (int Start, int End) _span;
    private bool _isQuoted;

    public string Text => _isQuoted
        ? words[_span.Start].Text
        : words.Written(_span.Start, _span.End).Trim(' ', '-', '–', '—', ',', ';', ':');

    public void Choose()
    {
        var left = Runs().Where(Says).ToArray();
        var quoted = left.Where(run => words[run.Start].IsQuoted).ToArray();
        _isQuoted = quoted.Length > 0;
        _span = _isQuoted
            ? quoted[0]
            : left.FirstOrDefault(run => !chosen.SaidTwice.Any(part => part.Start < run.End && run.Start < part.End));
        var asked = _isQuoted ? [] : chosen.Parts.Where(IsPerhapsTitle).ToArray();
        AskAboutListedDays();
        if (_doubts.SayWhen(_span.Start, _span.End))
            AskAboutIt();
        foreach (var part in asked)
            questions.Ask(part.Start, part.Field, (part.Start, part.End), "ask.title", [], [.. Sure(part), With(part.Start, part.End)]);
        AskWhatHangs();
        if (questions.IsEmpty && _doubts.SayDay(_span.Start, _span.End))
            AskAboutIt();
        foreach (var run in left.Where(run => run != _span && !asked.Any(part => part.End == run.Start)))
            questions.Ask(run.Start, "unread", run, "ask.unread", [],
                [.. AsPlace(run), With(run.Start, run.End), questions.LeftOut(run.Start, run.End)]);
    }

    /// <summary>The title in quotes with these words, and with what stands right behind them.</summary>
    public LineChoice With(int start, int end)
    {
        while (chosen.IsFree(end) && start >= _span.End && end != _span.Start)
            end++;
        var hasTitle = _span.End > _span.Start;
        if (hasTitle && (end < _span.Start || _span.End < start))
        {
            var title = LineWords.Quoted($"{Text} {words.Written(start, end)}");
            return new LineChoice(wording.Say("choice.title"),
                LineWords.Squeezed($"{title} {words.Cut((_span.Start, _span.End), (start, end))}"));
        }
        // They stand together.
        var (first, last) = hasTitle ? (Math.Min(_span.Start, start), Math.Max(_span.End, end)) : (start, end);
        return new LineChoice(wording.Say("choice.title"), words.With(first, last, LineWords.Quoted(words.Written(first, last))));
    }

    /// <summary>What belongs to no part, and what it is then.</summary>
    public IEnumerable<(int Start, int End, string Field)> Left() =>
        Runs().Select(run => (run.Start, run.End, run == _span ? "title" : Says(run) ? "unread" : ""));

    private IEnumerable<(int Start, int End)> Runs()
    {
        for (var start = 0; start < words.Count; start++)
        {
            if (chosen.Parts.Any(part => part.Start <= start && start < part.End))
                continue;
            var end = start + 1;
            while (!words[start].IsQuoted && chosen.IsFree(end))
                end++;
            yield return (start, end);
            start = end - 1;
        }
    }

    /// <summary>More than dashes and dots.</summary>
    private bool Says((int Start, int End) run) =>
        Enumerable.Range(run.Start, run.End - run.Start).Any(word => words[word].Text.Any(char.IsLetterOrDigit));

    private void AskAboutIt()
    {
        if (!_isQuoted)
            questions.Ask(_span.Start, "title", _span, "ask.sentence", [],
                [new LineChoice(wording.Say("choice.title"), words.With(_span.Start, _span.End, LineWords.Quoted(Text)))]);
    }

    /// <summary>"the week of 7 December", "by Friday", "Mon 7 to Wed 9": what stands before the day makes another one of it.</summary>
    private void AskWhatHangs()
    {
        if (_isQuoted || _span.End == _span.Start || !_doubts.Hangs(_span.End - 1))
            return;
        if (chosen.Parts.FirstOrDefault(part => part.Start == _span.End) is not { } behind
            || questions.IsAsked(behind.Start))
            return;
        string[] meant = behind switch
        {
            DayPart day => [.. (day.Found.Question?.Choices ?? [day.Found.Days]).Select(wording.Say)],
            TimesPart { Found.IsOfEitherHalf: false } times => [LineWording.Written(times.Found)],
            TimesPart times => [LineWording.Written(times.Found), LineWording.Written(times.Found.Later())],
            _ => [],
        };
        if (meant.Length > 0)
            questions.Ask(behind.Start, behind.Field, (_span.End - 1, behind.End), "ask.hangs", [],
                [
                    .. meant.Select(one => new LineChoice(one, words.With(_span.End - 1, behind.End, one))),
                    With(behind.Start, behind.End),
                ]);
    }

    /// <summary>"10, 11 and 12 December": the month is said once, of days that could be part of the title as well.</summary>
    private void AskAboutListedDays()
    {
        foreach (var joining in chosen.Parts.OfType<JoiningPart>())
        {
            if (chosen.Parts.OfType<DayPart>().FirstOrDefault(day => day.Start == joining.End) is not { } last)
                continue;
            var (start, days) = (joining.Start, new List<LocalDate> { last.Found.Days.First });
            while (chosen.IsFree(start - 1)
                && (grammar.DayOfMonth(words[start - 1].Text), grammar.Weekday(words[start - 1].Text)) is var (day, weekday)
                && (day is not null || weekday is not null))
            {
                start--;
                if (day < last.Found.Days.First.Day)
                    days.Insert(0, last.Found.Days.First.PlusDays(day.Value - last.Found.Days.First.Day));
            }
            if (days.Count > 1)
                questions.Ask(start, "date", (start, last.End), "ask.days", [],
                [
                    new LineChoice(string.Join(", ", days.Select(wording.Say)),
                        words.With(start, last.End, string.Join($" {grammar.First("and")} ", days.Select(wording.Say)))),
                    With(start, last.End),
                ]);
        }
    }

    /// <summary>Plain numbers among words of the title: they may belong to it.</summary>
    private bool IsPerhapsTitle(LinePart part) => part switch
    {
        DayPart { Found.IsPlain: true } => chosen.IsInTitle(part) || chosen.BeginsTitle(part),
        TimesPart { Found.IsPlain: true } => chosen.IsFree(part.Start - 1),
        // “Weekly planning”.
        PatternPart => chosen.BeginsTitle(part),
        // “Noon concert”.
        TimesPart => chosen.BeginsTitle(part) && !words[part.Start].Text.Any(char.IsDigit),
        _ => false,
    };

    private LineChoice[] Sure(LinePart part) => part switch
    {
        DayPart day => [questions.Choice(part, day.Found.Question?.Choices[0] ?? day.Found.Days)],
        TimesPart times when times.Found.IsOfEitherHalf =>
            [questions.Choice(part, times.Found), questions.Choice(part, times.Found.Later())],
        TimesPart times => [questions.Choice(part, times.Found)],
        PatternPart when words.Written(part.Start, part.End) is var pattern =>
            [new LineChoice(pattern, LineWords.Squeezed($"{words.Cut((part.Start, part.End))} {pattern}"))],
        _ => [],
    };

    /// <summary>A known place that nothing introduces.</summary>
    private LineChoice[] AsPlace((int Start, int End) run)
    {
        var place = words.Written(run.Start, run.End);
        return chosen.Of<PlacePart>() is null && places.Contains(place, StringComparer.CurrentCultureIgnoreCase)
            ?
            [
                new LineChoice(wording.Say("choice.place", ("place", place)),
                    words.With(run.Start, run.End, $"{grammar.First("in")} {place}")),
            ]
            : [];
    }
}
