using System.Globalization;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>Reads a line such as "Sail repair every Tue 14:00–15:30 in Slipway until 18 Dec #practical".</summary>
/// <remarks>
/// Parts may stand in any order (see <see cref="LineParts"/>); what is no part is the title where it stands together, and is asked about
/// where it does not. Nothing is guessed in silence: what may mean two things is a question with choices, each of which is the line
/// written so that it means one. “…” keeps words together and lets nothing be read in them.
/// </remarks>
public sealed class OneLine
{
    private readonly Grammar _grammar;
    private readonly LocalDate _today;
    private readonly IReadOnlyCollection<string> _places;
    private readonly IReadOnlyCollection<string>? _plates;
    private readonly LineWords _words;
    private readonly ChosenParts _chosen;
    private readonly TitleDoubts _doubts;
    private readonly List<Understood> _understood = [];
    private readonly List<(int At, LineQuestion Question)> _questions = [];
    private (int Start, int End) _title;
    private bool _isTitleQuoted;

    private OneLine(
        string text, CultureInfo culture, LocalDate today, IReadOnlyCollection<string> places, IReadOnlyCollection<string>? plates)
    {
        (_grammar, _today, _places, _plates) = (Grammar.Of(culture), today, places, plates);
        _words = new LineWords(text, IsDayOrTime);
        _doubts = new TitleDoubts(_words, _grammar);
        _chosen = new ChosenParts(_words, _grammar, new LineParts(_words, _grammar, today, places).Read());
    }

    /// <param name="today">Where "tomorrow" and weekdays count from.</param>
    /// <param name="places">Known ones, by name.</param>
    /// <param name="plates">Of the calendars that events can be put on; null where that does not matter.</param>
    public static LineReading Read(string text, CultureInfo culture, LocalDate today, IReadOnlyCollection<string>? places = null,
        IReadOnlyCollection<string>? plates = null)
    {
        if (text.Length > 500)
            throw new RuleException("line", "line.tooLong", ("count", text.Length));
        return new OneLine(text, culture, today, places ?? [], plates).Read();
    }

    private bool IsDayOrTime(string word) => word.Length > 0
        && (Typed.Time(word, _grammar.Culture) is not null
            || _grammar.Weekday(word) is not null
            || _grammar.Month(word) is not null
            || _grammar.DayOfMonth(word) is not null
            || Typed.Day(word, _grammar.Culture, _today) is not null);

    private LineReading Read()
    {
        ChooseTitle();
        var drafts = Drafts();
        return new LineReading(
            drafts, Of<PlatePart>()?.Plate, _understood, Pieces(),
            [.. _questions.OrderBy(one => one.At).Select(one => one.Question)]);
    }

    private T? Of<T>()
        where T : LinePart => _chosen.Of<T>();

    private bool IsFree(int word) => _chosen.IsFree(word);

    // ---------------------------------------------------------------- title, and what is left

    private IEnumerable<(int Start, int End)> Left()
    {
        for (var start = 0; start < _words.Count; start++)
        {
            if (_chosen.Parts.Any(part => part.Start <= start && start < part.End))
                continue;
            var end = start + 1;
            while (!_words[start].IsQuoted && IsFree(end))
                end++;
            yield return (start, end);
            start = end - 1;
        }
    }

    /// <summary>More than dashes and dots.</summary>
    private bool Says((int Start, int End) run) =>
        Enumerable.Range(run.Start, run.End - run.Start).Any(word => _words[word].Text.Any(char.IsLetterOrDigit));

    private void ChooseTitle()
    {
        var left = Left().Where(Says).ToArray();
        var quoted = left.Where(run => _words[run.Start].IsQuoted).ToArray();
        _isTitleQuoted = quoted.Length > 0;
        _title = _isTitleQuoted
            ? quoted[0]
            : left.FirstOrDefault(run => !_chosen.SaidTwice.Any(part => part.Start < run.End && run.Start < part.End));
        var asked = _isTitleQuoted ? [] : _chosen.Parts.Where(IsPerhapsTitle).ToArray();
        AskAboutListedDays();
        if (_doubts.SayWhen(_title.Start, _title.End))
            AskAboutTitle();
        foreach (var part in asked)
            Ask(part.Start, part.Field, (part.Start, part.End), "ask.title", [], [.. Sure(part), InTitle(part.Start, part.End)]);
        AskWhatHangs();
        if (_questions.Count == 0 && _doubts.SayDay(_title.Start, _title.End))
            AskAboutTitle();
        foreach (var run in left.Where(run => run != _title && !asked.Any(part => part.End == run.Start)))
            Ask(run.Start, "unread", run, "ask.unread", [],
                [.. AsPlace(run), InTitle(run.Start, run.End), LeftOut(run.Start, run.End)]);
        if (TitleText is { Length: > 0 } title)
            _understood.Add(new Understood("title", title, title));
    }

    private void AskAboutTitle()
    {
        if (!_isTitleQuoted)
            Ask(_title.Start, "title", _title, "ask.sentence", [],
                [new LineChoice(Say("choice.title"), With(_title.Start, _title.End, Quoted(TitleText)))]);
    }

    /// <summary>"the week of 7 December", "by Friday", "Mon 7 to Wed 9": what stands before the day makes another one of it.</summary>
    private void AskWhatHangs()
    {
        if (_isTitleQuoted || _title.End == _title.Start || !_doubts.Hangs(_title.End - 1))
            return;
        if (_chosen.Parts.FirstOrDefault(part => part.Start == _title.End) is not { } behind
            || _questions.Any(one => one.At == behind.Start))
            return;
        string[] meant = behind switch
        {
            DayPart day => [.. (day.Found.Question?.Choices ?? [day.Found.Days]).Select(Say)],
            TimesPart { Found.IsOfEitherHalf: false } times => [Written(times.Found)],
            TimesPart times => [Written(times.Found), Written(times.Found.Later())],
            _ => [],
        };
        if (meant.Length > 0)
            Ask(behind.Start, behind.Field, (_title.End - 1, behind.End), "ask.hangs", [],
                [.. meant.Select(one => new LineChoice(one, With(_title.End - 1, behind.End, one))), InTitle(behind.Start, behind.End)]);
    }

    /// <summary>"10, 11 and 12 December": the month is said once, of days that could be part of the title as well.</summary>
    private void AskAboutListedDays()
    {
        foreach (var joining in _chosen.Parts.OfType<JoiningPart>())
        {
            if (_chosen.Parts.OfType<DayPart>().FirstOrDefault(day => day.Start == joining.End) is not { } last)
                continue;
            var (start, days) = (joining.Start, new List<LocalDate> { last.Found.Days.First });
            while (IsFree(start - 1)
                && (_grammar.DayOfMonth(_words[start - 1].Text), _grammar.Weekday(_words[start - 1].Text)) is var (day, weekday)
                && (day is not null || weekday is not null))
            {
                start--;
                if (day < last.Found.Days.First.Day)
                    days.Insert(0, last.Found.Days.First.PlusDays(day.Value - last.Found.Days.First.Day));
            }
            if (days.Count > 1)
                Ask(start, "date", (start, last.End), "ask.days", [],
                [
                    new LineChoice(string.Join(", ", days.Select(Say)),
                        With(start, last.End, string.Join($" {_grammar.First("and")} ", days.Select(Say)))),
                    InTitle(start, last.End),
                ]);
        }
    }

    private string TitleText => _isTitleQuoted
        ? _words[_title.Start].Text
        : _words.Written(_title.Start, _title.End).Trim(' ', '-', '–', '—', ',', ';', ':');

    /// <summary>Plain numbers among words of the title: they may belong to it.</summary>
    private bool IsPerhapsTitle(LinePart part) => part switch
    {
        DayPart { Found.IsPlain: true } => _chosen.IsInTitle(part) || _chosen.BeginsTitle(part),
        TimesPart { Found.IsPlain: true } => IsFree(part.Start - 1),
        // “Weekly planning”.
        PatternPart => _chosen.BeginsTitle(part),
        // “Noon concert”.
        TimesPart => _chosen.BeginsTitle(part) && !_words[part.Start].Text.Any(char.IsDigit),
        _ => false,
    };

    private LineChoice[] Sure(LinePart part) => part switch
    {
        DayPart day => [Choice(part, day.Found.Question?.Choices[0] ?? day.Found.Days)],
        TimesPart times when times.Found.IsOfEitherHalf => [Choice(part, times.Found), Choice(part, times.Found.Later())],
        TimesPart times => [Choice(part, times.Found)],
        PatternPart => [new LineChoice(
            _words.Written(part.Start, part.End), Squeezed($"{Cut((part.Start, part.End))} {_words.Written(part.Start, part.End)}"))],
        _ => [],
    };

    // ---------------------------------------------------------------- questions and their choices

    private void Ask(
        int at, string field, (int Start, int End) said, string code, (string Name, object? Value)[] values, LineChoice[] choices) =>
        _questions.Add((at, new LineQuestion(field, _words.Written(said.Start, said.End), Say(code, values), choices)));

    private LineChoice Choice(LinePart part, Days days) => new(Say(days), With(part.Start, part.End, Say(days)));

    private LineChoice Choice(LinePart part, TimesFound times) => new(Say(times), With(part.Start, part.End, Written(times)));

    private static string Written(TimesFound times) => times.To is { } to ? $"{times.From:HH:mm}–{to:HH:mm}" : $"{times.From:HH:mm}";

    /// <summary>A known place that nothing introduces.</summary>
    private LineChoice[] AsPlace((int Start, int End) run)
    {
        var place = _words.Written(run.Start, run.End);
        return Of<PlacePart>() is null && _places.Contains(place, StringComparer.CurrentCultureIgnoreCase)
            ? [new LineChoice(Say("choice.place", ("place", place)), With(run.Start, run.End, $"{_grammar.First("in")} {place}"))]
            : [];
    }

    private LineChoice LeftOut(int start, int end) => new(Say("choice.leaveOut"), With(start, end, ""));

    /// <summary>The title in quotes with these words, and with what stands right behind them.</summary>
    private LineChoice InTitle(int start, int end)
    {
        while (IsFree(end) && start >= _title.End && end != _title.Start)
            end++;
        var hasTitle = _title.End > _title.Start;
        if (hasTitle && (end < _title.Start || _title.End < start))
            return new LineChoice(Say("choice.title"),
                Squeezed($"{Quoted($"{TitleText} {_words.Written(start, end)}")} {Cut((_title.Start, _title.End), (start, end))}"));
        // They stand together.
        var (first, last) = hasTitle ? (Math.Min(_title.Start, start), Math.Max(_title.End, end)) : (start, end);
        return new LineChoice(Say("choice.title"), With(first, last, Quoted(_words.Written(first, last))));
    }

    private static string Quoted(string text) => $"“{string.Concat(text.Where(letter => !LineWords.Quotes.Contains(letter)))}”";

    private string With(int start, int end, string text) =>
        Squeezed($"{_words.Line[.._words[start].Start]} {text} {_words.Line[_words[end - 1].End..]}");

    private string Cut(params (int Start, int End)[] spans)
    {
        var line = _words.Line;
        foreach (var (start, end) in spans.OrderByDescending(span => span.Start))
            line = $"{line[.._words[start].Start]} {line[_words[end - 1].End..]}";
        return line;
    }

    private static string Squeezed(string line) => string.Join(' ', line.Split(' ', StringSplitOptions.RemoveEmptyEntries));

    // ---------------------------------------------------------------- what it comes to

    private IReadOnlyList<EventDraft> Drafts()
    {
        var place = Place();
        var tags = _chosen.Parts.OfType<TagPart>().ToArray();
        var allDay = Of<AllDayPart>();
        EventDraft[] drafts = [.. _chosen.Sessions.Select(session => Draft(session, place, [.. tags.Select(tag => tag.Tag)], allDay))];
        if (Of<DuePart>() is { } due)
            _understood.Add(new Understood("kind", _words.Written(due.Start, due.End), Say("typed.due")));
        if (allDay is not null)
            _understood.Add(new Understood("allDay", _words.Written(allDay.Start, allDay.End), Say("typed.allDay")));
        foreach (var tag in tags)
            _understood.Add(new Understood("tags", $"#{tag.Tag}", tag.Tag));
        if (Of<PlatePart>() is { } plate)
        {
            _understood.Add(new Understood("calendarId", $"@{plate.Plate}", plate.Plate));
            if (_plates?.Contains(plate.Plate) == false)
                Ask(plate.Start, "calendarId", (plate.Start, plate.End), "ask.plate", [], [LeftOut(plate.Start, plate.End)]);
        }
        return drafts;
    }

    private string Place()
    {
        if (Of<PlacePart>() is not { } place)
            return "";
        _understood.Add(new Understood("place", _words.Written(place.Start, place.End), place.Name));
        if (!place.IsKnown)
            Ask(place.Start, "place", (place.Start, place.End), "ask.place", [],
                [new LineChoice(Say("choice.place", ("place", place.Name)), With(place.Named, place.End, Quoted(place.Name))),
                    InTitle(place.Start, place.End)]);
        return place.Name;
    }

    private EventDraft Draft(LineSession session, string place, string[] tags, AllDayPart? allDay)
    {
        var (pattern, until, count) = (Of<PatternPart>(), Of<UntilPart>(), Of<CountPart>());
        var times = allDay is null ? session.Times : null;
        var days = Days(session, pattern);
        var date = days.First;
        var isOneByOne = pattern is not null && session.Day is not StretchPart && days.Last is { } end
            && IsOneByOne(pattern.Repeat, Period.DaysBetween(date, end) + 1);
        var repeat = pattern is null
            ? null
            : Completed(pattern.Repeat, date, until?.Date ?? LastOf(date) ?? (isOneByOne ? days.Last : null), count?.Count);
        if (pattern is not null)
            SayPattern(pattern, repeat!, date);
        // What holds for all of them is said once.
        if (session == _chosen.Sessions[0])
            Ends(repeat, session, times is not null);
        var (from, to) = (times?.Found.From, times?.Found.To ?? times?.Found.From.PlusHours(1));
        var isDue = Of<DuePart>() is not null;
        if (isDue)
            (days, times, from, to) = AskWhenDue(session, pattern is null ? days : new Days(date), times);
        if (session.Day is not StretchPart)
            SayTimes(times, isDue ? from : to, isDue);
        if (times is not null && pattern is null && !isDue && session.Day is { Found.Days.Last: { } last } and not StretchPart)
            AskAboutEachDay(session.Day, last, times);
        if (times is null && allDay is null && session.Day is { } untimed
            && _chosen.Sessions.FirstOrDefault(one => one.Times is not null)?.Times is { } other)
            Ask(untimed.Start, "from", (untimed.Start, untimed.End), "ask.sameTime", [],
                [
                    new LineChoice(Say(other.Found), With(untimed.Start, untimed.End, $"{Say(days)} {Written(other.Found)}")),
                    LeftOut(untimed.Start - 1, untimed.End),
                ]);
        if (times is null && allDay is null && !isDue)
            _understood.Add(new Understood("allDay", "", Say("typed.noTime")));
        var lastDay = isOneByOne ? null : days.Last ?? (repeat is null && times is null && !isDue ? until?.Date ?? LastOf(date) : null);
        return new EventDraft
        {
            Title = TitleText,
            Kind = isDue ? EventKind.Deadline : EventKind.Event,
            AllDay = from is null,
            Date = date,
            EndDate = lastDay ?? (to < from ? date.PlusDays(1) : default(LocalDate?)),
            From = from,
            To = to,
            Place = place,
            Repeat = repeat,
            Tags = tags,
        };
    }

    /// <summary>"1 to 24 December, daily": so many days are no length of a date, but from when to when there are dates.</summary>
    private static bool IsOneByOne(RepeatDraft repeat, int days) => days > repeat.Interval * repeat.Pattern switch
    {
        RepeatPattern.Daily => 1,
        RepeatPattern.Weekly when repeat.Weekdays is { Count: > 1 } => 1,
        RepeatPattern.Weekly => 7,
        RepeatPattern.Monthly => 28,
        _ => 365,
    };

    private void SayPattern(PatternPart pattern, RepeatDraft repeat, LocalDate date)
    {
        _understood.Add(new Understood("repeat", _words.Written(pattern.Start, pattern.End), Say(repeat, date)));
        if (!pattern.MayCountWeeks || _questions.Any(one => one.At == pattern.Start))
            return;
        var weekday = ("weekday", _grammar.NameOf((IsoDayOfWeek)repeat.Weekday!.Value));
        string[] meant =
        [
            Say("choice.ofTheMonth", ("ordinal", _grammar.First($"ordinal.{repeat.Ordinal}")), weekday),
            Say("choice.everyWeeks", ("count", repeat.Ordinal), weekday),
        ];
        Ask(pattern.Start, "repeat", (pattern.Start, pattern.End), "ask.counts", [],
            [.. meant.Select(one => new LineChoice(one, With(pattern.Start, pattern.End, one)))]);
    }

    /// <summary>The day, said or not; what of it is not settled is asked.</summary>
    private Days Days(LineSession session, PatternPart? pattern)
    {
        if (Of<AllWeekPart>() is { } week)
        {
            var monday = _today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
            Days[] weeks = [new(monday, monday.PlusDays(4)), new(monday.PlusWeeks(1), monday.PlusDays(11))];
            Ask(week.Start, "date", (week.Start, week.End), "ask.week", [], [.. weeks.Select(one => Choice(week, one))]);
            return weeks[0];
        }
        if (session.Day is { } day)
        {
            var days = day.Found.Days;
            var said = day is StretchPart { Times.Found: var found } && Of<AllDayPart>() is null
                ? Say("typed.stretch", ("first", Say(days.First)), ("from", $"{found.From:HH:mm}"), ("last", Say(days.Last!.Value)),
                    ("to", $"{found.To:HH:mm}"))
                : Say(days);
            _understood.Add(new Understood("date", _words.Written(day.Start, day.End),
                days.First < _today ? Say("typed.past", ("day", said)) : said));
            if (day.Found.Question is { } question && !_questions.Any(one => one.At == day.Start))
                Ask(day.Start, "date", (day.Start, day.End), question.Code, question.Values,
                    [.. question.Choices.Select(one => Choice(day, one))]);
            return days;
        }
        if (pattern is not null)
        {
            var first = FirstDay(pattern.Repeat);
            _understood.Add(new Understood("date", "", Say("typed.fromDay", ("day", Say(first)))));
            return new Days(first);
        }
        _understood.Add(new Understood("date", "", Say("typed.noDay", ("day", Say(_today)))));
        Ask(_words.Count, "date", (0, 0), "ask.day", [],
            [.. new[] { _today, _today.PlusDays(1) }.Select(one =>
                new LineChoice(Say(one), Squeezed($"{_words.Line} {_grammar.Speech.Day(one)}")))]);
        return new Days(_today);
    }

    /// <summary>"Thu–Sat 10:00" is on each of these days, or all of them are meant and the time only says when it begins.</summary>
    private void AskAboutEachDay(DayPart day, LocalDate last, TimesPart times)
    {
        if (_questions.Any(one => one.At == day.Start))
            return;
        var daily = $"{_grammar.Speech.Day(day.Found.Days.First)} {_grammar.First("daily")} {_grammar.First("until")} {_grammar.Speech.Day(last)}";
        Ask(day.Start, "date", (day.Start, day.End), "ask.eachDay", [],
            [
                new LineChoice(Say("choice.eachDay", ("time", Say(times.Found))), With(day.Start, day.End, daily)),
                new LineChoice(Say("choice.wholeDays", ("days", Say(day.Found.Days))), Squeezed(Cut((times.Start, times.End)))),
            ]);
    }

    /// <summary>A deadline has one day, and one time at most: of more it is asked which.</summary>
    private (Days Days, TimesPart? Times, LocalTime? From, LocalTime? To) AskWhenDue(LineSession session, Days days, TimesPart? times)
    {
        var (from, to) = (times?.Found.From, times?.Found.To);
        if (session.Day is { } day && days.Last is { } last && !_questions.Any(one => one.At == day.Start))
        {
            var (ofStretch, first) = (day is StretchPart, days.First);
            Ask(day.Start, "date", (day.Start, day.End), "ask.due", [],
                [On(first, ofStretch ? from : null), On(last, ofStretch ? to : null)]);

            LineChoice On(LocalDate one, LocalTime? at) =>
                new($"{Say(one)} {at:HH:mm}".Trim(), With(day.Start, day.End, $"{Say(one)} {at:HH:mm}"));
        }
        else if (times is not null && to is not null && !_questions.Any(one => one.At == times.Start))
        {
            Ask(times.Start, "from", (times.Start, times.End), "ask.due", [],
                [.. new[] { from, to }.Select(at => new LineChoice($"{at:HH:mm}", With(times.Start, times.End, $"{at:HH:mm}")))]);
        }
        return (new Days(days.First), times, from, from);
    }

    private void SayTimes(TimesPart? times, LocalTime? to, bool isDue)
    {
        if (times is null)
            return;
        _understood.Add(new Understood("from", _words.Written(times.Start, times.End), Say(times.Found)));
        if (times.Found.To is null && !isDue)
            _understood.Add(new Understood("to", "", Say("typed.noEnd", ("to", $"{to:HH:mm}"))));
        if (times.Found.IsOfEitherHalf && !_questions.Any(one => one.At == times.Start))
            Ask(times.Start, "from", (times.Start, times.End), "ask.half", [],
                [Choice(times, times.Found), Choice(times, times.Found.Later())]);
    }

    /// <summary>When a repetition ends. Where nothing repeats, it is the last day of what has no time, else it means nothing.</summary>
    private void Ends(RepeatDraft? repeat, LineSession session, bool isTimed)
    {
        foreach (var part in _chosen.Parts.Where(part => part is UntilPart or LastsPart or CountPart))
        {
            var isDays = repeat is null && !isTimed && part is not CountPart && session.Day is { Found.Days.Last: null };
            if (repeat is null && !isDays)
            {
                Ask(part.Start, "unread", (part.Start, part.End), part is CountPart ? "typed.forNothing" : "typed.untilNothing", [],
                    [LeftOut(part.Start, part.End)]);
                continue;
            }
            _understood.Add(new Understood(part.Field, _words.Written(part.Start, part.End), part switch
            {
                CountPart count => Say("typed.dates", ("count", count.Count)),
                UntilPart until => Say(until.Date),
                _ => repeat is null ? "" : Say(repeat.Until!.Value),
            }));
        }
    }

    private LocalDate? LastOf(LocalDate date) => Of<LastsPart>() is { } lasts ? (date + lasts.Length).PlusDays(-1) : null;

    private static RepeatDraft Completed(RepeatDraft repeat, LocalDate date, LocalDate? until, int? count) => repeat with
    {
        Weekdays = repeat is { Pattern: RepeatPattern.Weekly, Weekdays: null or { Count: 0 } } ? [(int)date.DayOfWeek] : repeat.Weekdays,
        MonthDay = repeat is { By: MonthPosition.Day, MonthDay: null } ? date.Day : repeat.MonthDay,
        Month = repeat.Pattern == RepeatPattern.Yearly ? date.Month : null,
        Ends = until is not null ? RepeatEnd.On : count is not null ? RepeatEnd.After : RepeatEnd.Never,
        Until = until,
        Count = until is null ? count : null,
    };

    /// <summary>The first day from today on that the pattern gives.</summary>
    private LocalDate FirstDay(RepeatDraft repeat)
    {
        var (rule, timing) = (Completed(repeat, _today, null, null), Time.Timing.WholeDays(_today, _today, DateTimeZone.Utc));
        var refusals = new RefusalList();
        rule.Check(refusals);
        return refusals.IsEmpty && repeat.Pattern != RepeatPattern.Daily
            ? new Recurrence.Series(timing, rule.RuleFor(timing)).Pattern(_today.AtMidnight(), YearPlans.SchoolCalendar.Empty)
                .Where(day => day.Date > _today || new Recurrence.Series(timing, rule.RuleFor(timing)).RuleGivesItsStart)
                    .Select(day => day.Date).FirstOrDefault(_today)
            : _today;
    }

    private IReadOnlyList<LinePiece> Pieces()
    {
        var asked = _questions.Select(one => one.At).ToHashSet();
        var spans = _chosen.Parts.Select(part => (part.Start, part.End, part.Field))
            .Concat(Left().Select(run => (run.Start, run.End, Field: run == _title ? "title" : Says(run) ? "unread" : "")))
            .OrderBy(span => span.Start);
        return [.. spans.Select(span => new LinePiece(_words.Written(span.Start, span.End), span.Field, asked.Contains(span.Start)))];
    }

    private string Say(RepeatDraft repeat, LocalDate date)
    {
        var timing = Time.Timing.WholeDays(date, date, DateTimeZone.Utc);
        var refusals = new RefusalList();
        repeat.Check(refusals);
        var rule = refusals.IsEmpty ? refusals.Try(() => (repeat with { Ends = RepeatEnd.Never }).RuleFor(timing)) : null;
        var said = Recurrence.RuleWords.For(_grammar.Culture.Name);
        return rule is null
            ? ""
            : said.Say(new Recurrence.Series(timing, rule)).Replace($", {said.AllDay}", "", StringComparison.Ordinal);
    }

    private string Say(Days days) => days.Last is { } last
        ? Say("choice.days", ("first", _grammar.Speech.Day(days.First)), ("last", _grammar.Speech.Day(last)))
        : Say(days.First);

    private string Say(TimesFound times) =>
        times.To is { } to ? Say("typed.fromTo", ("from", $"{times.From:HH:mm}"), ("to", $"{to:HH:mm}")) : $"{times.From:HH:mm}";

    private string Say(LocalDate date) => _grammar.Speech.Day(date, withWeekday: true);

    private string Say(string code, params (string Name, object? Value)[] values) => _grammar.Speech.Say(code, values);
}
