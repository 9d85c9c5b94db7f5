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
    private readonly IReadOnlyCollection<string>? _plates;
    private readonly LineWords _words;
    private readonly ChosenParts _chosen;
    private readonly List<Understood> _understood = [];
    private readonly LineWording _wording;
    private readonly LineQuestions _questions;
    private readonly LineTitle _title;

    private OneLine(
        string text, CultureInfo culture, LocalDate today, IReadOnlyCollection<string> places, IReadOnlyCollection<string>? plates)
    {
        (_grammar, _today, _plates) = (Grammar.Of(culture), today, plates);
        _words = new LineWords(text, IsDayOrTime);
        _wording = new LineWording(_grammar);
        _questions = new LineQuestions(_words, _wording);
        _chosen = new ChosenParts(_words, _grammar, new LineParts(_words, _grammar, today, places).Read());
        _title = new LineTitle(_words, _grammar, _chosen, _questions, _wording, places);
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
        _title.Choose();
        if (_title.Text is { Length: > 0 } title)
            _understood.Add(new Understood("title", title, title));
        var drafts = Drafts();
        return new LineReading(
            drafts, Of<PlatePart>()?.Plate, _understood, Pieces(),
            _questions.InOrder);
    }

    private T? Of<T>()
        where T : LinePart => _chosen.Of<T>();

    private IReadOnlyList<EventDraft> Drafts()
    {
        var place = Place();
        var tags = _chosen.Parts.OfType<TagPart>().ToArray();
        var allDay = Of<AllDayPart>();
        EventDraft[] drafts = [.. _chosen.Sessions.Select(session => Draft(session, place, [.. tags.Select(tag => tag.Tag)], allDay))];
        if (Of<DuePart>() is { } due)
            _understood.Add(new Understood("kind", _words.Written(due.Start, due.End), _wording.Say("typed.due")));
        if (allDay is not null)
            _understood.Add(new Understood("allDay", _words.Written(allDay.Start, allDay.End), _wording.Say("typed.allDay")));
        foreach (var tag in tags)
            _understood.Add(new Understood("tags", $"#{tag.Tag}", tag.Tag));
        if (Of<PlatePart>() is { } plate)
        {
            _understood.Add(new Understood("calendarId", $"@{plate.Plate}", plate.Plate));
            if (_plates?.Contains(plate.Plate) == false)
                _questions.Ask(plate.Start, "calendarId", (plate.Start, plate.End), "ask.plate", [],
                    [_questions.LeftOut(plate.Start, plate.End)]);
        }
        return drafts;
    }

    private string Place()
    {
        if (Of<PlacePart>() is not { } place)
            return "";
        _understood.Add(new Understood("place", _words.Written(place.Start, place.End), place.Name));
        if (!place.IsKnown)
            _questions.Ask(place.Start, "place", (place.Start, place.End), "ask.place", [],
                [
                    new LineChoice(_wording.Say("choice.place", ("place", place.Name)),
                        _words.With(place.Named, place.End, LineWords.Quoted(place.Name))),
                    _title.With(place.Start, place.End),
                ]);
        return place.Name;
    }

    private EventDraft Draft(LineSession session, string place, string[] tags, AllDayPart? allDay)
    {
        var (pattern, until, count) = (Of<PatternPart>(), Of<UntilPart>(), Of<CountPart>());
        var times = allDay is null ? session.Times : null;
        var days = Days(session, pattern);
        var date = days.First;
        var isOneByOne = pattern is not null && session.Day is not StretchPart && days.Last is { } end
            && LineRepeats.IsOneByOne(pattern.Repeat, Period.DaysBetween(date, end) + 1);
        var repeat = pattern is null
            ? null
            : LineRepeats.Completed(pattern.Repeat, date, until?.Date ?? LastOf(date) ?? (isOneByOne ? days.Last : null), count?.Count);
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
            _questions.Ask(untimed.Start, "from", (untimed.Start, untimed.End), "ask.sameTime", [],
                [
                    new LineChoice(_wording.Say(other.Found),
                        _words.With(untimed.Start, untimed.End, $"{_wording.Say(days)} {LineWording.Written(other.Found)}")),
                    _questions.LeftOut(untimed.Start - 1, untimed.End),
                ]);
        if (times is null && allDay is null && !isDue)
            _understood.Add(new Understood("allDay", "", _wording.Say("typed.noTime")));
        var lastDay = isOneByOne ? null : days.Last ?? (repeat is null && times is null && !isDue ? until?.Date ?? LastOf(date) : null);
        return new EventDraft
        {
            Title = _title.Text,
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

    private void SayPattern(PatternPart pattern, RepeatDraft repeat, LocalDate date)
    {
        _understood.Add(new Understood("repeat", _words.Written(pattern.Start, pattern.End), _wording.Say(repeat, date)));
        if (!pattern.MayCountWeeks || _questions.IsAsked(pattern.Start))
            return;
        var weekday = ("weekday", _grammar.NameOf((IsoDayOfWeek)repeat.Weekday!.Value));
        string[] meant =
        [
            _wording.Say("choice.ofTheMonth", ("ordinal", _grammar.First($"ordinal.{repeat.Ordinal}")), weekday),
            _wording.Say("choice.everyWeeks", ("count", repeat.Ordinal), weekday),
        ];
        _questions.Ask(pattern.Start, "repeat", (pattern.Start, pattern.End), "ask.counts", [],
            [.. meant.Select(one => new LineChoice(one, _words.With(pattern.Start, pattern.End, one)))]);
    }

    /// <summary>The day, said or not; what of it is not settled is asked.</summary>
    private Days Days(LineSession session, PatternPart? pattern)
    {
        if (Of<AllWeekPart>() is { } week)
        {
            var monday = _today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
            Days[] weeks = [new(monday, monday.PlusDays(4)), new(monday.PlusWeeks(1), monday.PlusDays(11))];
            _questions.Ask(week.Start, "date", (week.Start, week.End), "ask.week", [],
                [.. weeks.Select(one => _questions.Choice(week, one))]);
            return weeks[0];
        }
        if (session.Day is { } day)
        {
            var days = day.Found.Days;
            var said = day is StretchPart { Times.Found: var found } && Of<AllDayPart>() is null
                ? _wording.Say("typed.stretch", ("first", _wording.Say(days.First)), ("from", $"{found.From:HH:mm}"),
                    ("last", _wording.Say(days.Last!.Value)), ("to", $"{found.To:HH:mm}"))
                : _wording.Say(days);
            _understood.Add(new Understood("date", _words.Written(day.Start, day.End),
                days.First < _today ? _wording.Say("typed.past", ("day", said)) : said));
            if (day.Found.Question is { } question && !_questions.IsAsked(day.Start))
                _questions.Ask(day.Start, "date", (day.Start, day.End), question.Code, question.Values,
                    [.. question.Choices.Select(one => _questions.Choice(day, one))]);
            return days;
        }
        if (pattern is not null)
        {
            var first = LineRepeats.FirstDay(pattern.Repeat, _today);
            _understood.Add(new Understood("date", "", _wording.Say("typed.fromDay", ("day", _wording.Say(first)))));
            return new Days(first);
        }
        _understood.Add(new Understood("date", "", _wording.Say("typed.noDay", ("day", _wording.Say(_today)))));
        _questions.Ask(_words.Count, "date", (0, 0), "ask.day", [],
            [.. new[] { _today, _today.PlusDays(1) }.Select(one =>
                new LineChoice(_wording.Say(one), LineWords.Squeezed($"{_words.Line} {_grammar.Speech.Day(one)}")))]);
        return new Days(_today);
    }

    /// <summary>"Thu–Sat 10:00" is on each of these days, or all of them are meant and the time only says when it begins.</summary>
    private void AskAboutEachDay(DayPart day, LocalDate last, TimesPart times)
    {
        if (_questions.IsAsked(day.Start))
            return;
        var daily = $"{_grammar.Speech.Day(day.Found.Days.First)} {_grammar.First("daily")} {_grammar.First("until")} {_grammar.Speech.Day(last)}";
        _questions.Ask(day.Start, "date", (day.Start, day.End), "ask.eachDay", [],
            [
                new LineChoice(_wording.Say("choice.eachDay", ("time", _wording.Say(times.Found))), _words.With(day.Start, day.End, daily)),
                new LineChoice(_wording.Say("choice.wholeDays", ("days", _wording.Say(day.Found.Days))),
                    LineWords.Squeezed(_words.Cut((times.Start, times.End)))),
            ]);
    }

    /// <summary>A deadline has one day, and one time at most: of more it is asked which.</summary>
    private (Days Days, TimesPart? Times, LocalTime? From, LocalTime? To) AskWhenDue(LineSession session, Days days, TimesPart? times)
    {
        var (from, to) = (times?.Found.From, times?.Found.To);
        if (session.Day is { } day && days.Last is { } last && !_questions.IsAsked(day.Start))
        {
            var (ofStretch, first) = (day is StretchPart, days.First);
            _questions.Ask(day.Start, "date", (day.Start, day.End), "ask.due", [],
                [On(first, ofStretch ? from : null), On(last, ofStretch ? to : null)]);

            LineChoice On(LocalDate one, LocalTime? at) =>
                new($"{_wording.Say(one)} {at:HH:mm}".Trim(), _words.With(day.Start, day.End, $"{_wording.Say(one)} {at:HH:mm}"));
        }
        else if (times is not null && to is not null && !_questions.IsAsked(times.Start))
        {
            _questions.Ask(times.Start, "from", (times.Start, times.End), "ask.due", [],
                [.. new[] { from, to }.Select(at => new LineChoice($"{at:HH:mm}", _words.With(times.Start, times.End, $"{at:HH:mm}")))]);
        }
        return (new Days(days.First), times, from, from);
    }

    private void SayTimes(TimesPart? times, LocalTime? to, bool isDue)
    {
        if (times is null)
            return;
        _understood.Add(new Understood("from", _words.Written(times.Start, times.End), _wording.Say(times.Found)));
        if (times.Found.To is null && !isDue)
            _understood.Add(new Understood("to", "", _wording.Say("typed.noEnd", ("to", $"{to:HH:mm}"))));
        if (times.Found.IsOfEitherHalf && !_questions.IsAsked(times.Start))
            _questions.Ask(times.Start, "from", (times.Start, times.End), "ask.half", [],
                [_questions.Choice(times, times.Found), _questions.Choice(times, times.Found.Later())]);
    }

    /// <summary>When a repetition ends. Where nothing repeats, it is the last day of what has no time, else it means nothing.</summary>
    private void Ends(RepeatDraft? repeat, LineSession session, bool isTimed)
    {
        foreach (var part in _chosen.Parts.Where(part => part is UntilPart or LastsPart or CountPart))
        {
            var isDays = repeat is null && !isTimed && part is not CountPart && session.Day is { Found.Days.Last: null };
            if (repeat is null && !isDays)
            {
                _questions.Ask(part.Start, "unread", (part.Start, part.End),
                    part is CountPart ? "typed.forNothing" : "typed.untilNothing", [], [_questions.LeftOut(part.Start, part.End)]);
                continue;
            }
            _understood.Add(new Understood(part.Field, _words.Written(part.Start, part.End), part switch
            {
                CountPart count => _wording.Say("typed.dates", ("count", count.Count)),
                UntilPart until => _wording.Say(until.Date),
                _ => repeat is null ? "" : _wording.Say(repeat.Until!.Value),
            }));
        }
    }

    private LocalDate? LastOf(LocalDate date) => Of<LastsPart>() is { } lasts ? (date + lasts.Length).PlusDays(-1) : null;

    private IReadOnlyList<LinePiece> Pieces()
    {
        var spans = _chosen.Parts.Select(part => (part.Start, part.End, part.Field))
            .Concat(_title.Left())
            .OrderBy(span => span.Start);
        return [.. spans.Select(span => new LinePiece(_words.Written(span.Start, span.End), span.Field, _questions.IsAsked(span.Start)))];
    }
}
