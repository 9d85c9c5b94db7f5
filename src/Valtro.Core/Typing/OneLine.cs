using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>One thing that was understood of a line.</summary>
/// <param name="Field">The form's field.</param>
/// <param name="Words">The words that say it; empty when nothing said it and a usual value stands in.</param>
/// <param name="Means">What it was read as.</param>
public sealed record Understood(string Field, string Words, string Means);

/// <summary>An event said in one line.</summary>
/// <param name="Draft">What goes into the form.</param>
/// <param name="CalendarPlate">The plate after @, or null.</param>
/// <param name="Unread">Words that mean nothing here. They are shown, never dropped in silence.</param>
public sealed record LineReading(
    EventDraft Draft, string? CalendarPlate, IReadOnlyList<Understood> Understood, IReadOnlyList<string> Unread);

/// <summary>Reads a line such as "Sail repair every Tue 14:00–15:30 in Slipway until 18 Dec #practical".</summary>
/// <remarks>
/// The grammar, as the help page prints it, with the words of the language (typing.json, here English):
/// <code>
/// line    = title { part }            the title ends where the first part begins; “…” keeps words together
/// part    = day | times | "every" pattern | "in" place | "until" day | "for" number "dates" | "#"tag | "@"plate
/// day     = ["on"] ( 24 Nov | 24.11. | 2026-11-24 | today | tomorrow | a weekday: the next one )
/// times   = ["at" | "from"] time [ ("–" | "-" | "to") time ] | "all day"
/// pattern = [number | "second" | "other"] weekdays | "weekday" | [number] ("day" | "days")
///         | [number] ("week" | "weeks" | "month" | "months" | "year" | "years") [ "on" weekdays | "on the" position ]
///         | position "of the month"
/// position = 24th | (first … fifth | last) (weekday's name | "weekday" | "day")
/// </code>
/// </remarks>
public sealed partial class OneLine
{
    private readonly Grammar _grammar;
    private readonly LocalDate _today;
    private readonly LineWords _words;
    private readonly List<Understood> _understood = [];
    private readonly List<string> _unread = [];
    private readonly List<string> _tags = [];
    private string _title = "";
    private string _place = "";
    private string? _plate;
    private LocalDate? _date;
    private (LocalTime From, LocalTime? To)? _times;
    private bool _allDay;
    private RepeatDraft? _repeat;
    private LocalDate? _until;
    private int? _count;

    private OneLine(string text, CultureInfo culture, LocalDate today)
    {
        (_grammar, _today) = (Grammar.Of(culture), today);
        _words = new LineWords(text);
    }

    /// <param name="today">Where "tomorrow" and weekdays count from, and the day that stands in when none is said.</param>
    public static LineReading Read(string text, CultureInfo culture, LocalDate today)
    {
        if (text.Length > 500)
            throw new RuleException("line", "line.tooLong", ("count", text.Length));
        return new OneLine(text, culture, today).Read();
    }

    private LineReading Read()
    {
        ReadTitle();
        while (!_words.IsAtEnd)
        {
            if (!ReadPart())
                _unread.Add(_words.Take());
        }
        return new LineReading(Draft(), _plate, _understood, _unread);
    }

    private void ReadTitle()
    {
        var title = new List<string>();
        while (!_words.IsAtEnd && (title.Count == 0 ? !IsTagOrPlate(_words.Current) : !BeginsPart()))
            title.Add(Unquoted(_words.Take()));
        _title = string.Join(" ", title);
        if (_title.Length > 0)
            _understood.Add(new Understood("title", _title, _title));
    }

    private bool BeginsPart()
    {
        // A place ends where a part begins, so it is not read here: reading it would ask this again.
        if (_grammar.Is("in", _words.Current))
            return _words.Left > 1;
        var (at, understood) = (_words.At, _understood.Count);
        var before = (_place, _plate, _date, _times, _allDay, _repeat, _until, _count, Tags: _tags.Count);
        var begins = ReadPart();
        _words.At = at;
        (_place, _plate, _date, _times, _allDay, _repeat, _until, _count, _) = before;
        _tags.RemoveRange(before.Tags, _tags.Count - before.Tags);
        _understood.RemoveRange(understood, _understood.Count - understood);
        return begins;
    }

    private bool ReadPart()
    {
        var start = _words.At;
        var word = _words.Current;
        // The longest first: "alle" begins a pattern, "all day" is none.
        var isRead = _grammar.Coming("allDay", _words) > 0 ? ReadAllDay()
            : _grammar.Is("every", word) ? ReadPattern()
            : _grammar.Is("until", word) ? _words.Skip() && ReadUntil()
            : _grammar.Is("for", word) ? ReadCount()
            : _grammar.Is("in", word) ? ReadPlace()
            : _grammar.Is("on", word) ? _words.Skip() && ReadDay()
            : _grammar.Is("from", word) ? _words.Skip() && (ReadTimes(start) || ReadDay())
            : IsTagOrPlate(word) ? ReadTagOrPlate()
            : ReadTimes(start) || ReadDay();
        if (!isRead)
            _words.At = start;
        return isRead;
    }

    private bool ReadDay()
    {
        if (_date is not null || TakeDay(out var words) is not { } date)
            return false;
        _date = date;
        _understood.Add(new Understood("date", words, Say(date)));
        return true;
    }

    private bool ReadUntil()
    {
        if (TakeDay(out var words) is not { } date)
            return false;
        _until = date;
        _understood.Add(new Understood("until", Say("typed.until", ("words", words)), Say(date)));
        return true;
    }

    /// <summary>The longest run of up to four words that is a day.</summary>
    private LocalDate? TakeDay(out string words)
    {
        for (var length = Math.Min(4, _words.Left); length > 0; length--)
        {
            words = _words.Coming(length);
            if (Typed.Day(words, _grammar.Culture, _today) is not { } day)
                continue;
            _words.Skip(length);
            return day;
        }
        words = "";
        return null;
    }

    private bool ReadCount()
    {
        var start = _words.At;
        if (!int.TryParse(_words.Ahead(1), NumberStyles.None, _grammar.Culture, out var count) || !_grammar.Is("dates", _words.Ahead(2)))
            return false;
        _words.Skip(3);
        _count = count;
        _understood.Add(new Understood("count", _words.Since(start), Say("typed.dates", ("count", count))));
        return true;
    }

    private bool ReadPlace()
    {
        _words.Skip();
        _grammar.Skips("article", _words);
        var place = new List<string>();
        while (!_words.IsAtEnd && (place.Count == 0 || !BeginsPart()))
            place.Add(Unquoted(_words.Take()));
        if (place.Count == 0 || _place.Length > 0)
            return false;
        _place = string.Join(" ", place);
        _understood.Add(new Understood("place", Say("typed.place", ("place", _place)), _place));
        return true;
    }

    private bool ReadAllDay()
    {
        if (!_grammar.Skips("allDay", _words))
            return false;
        _allDay = true;
        _understood.Add(new Understood("allDay", Say("typed.allDay"), Say("typed.allDay")));
        return true;
    }

    private bool ReadTagOrPlate()
    {
        var word = _words.Take();
        if (word[0] == '#')
            _tags.Add(word[1..]);
        else
            _plate = word[1..].ToUpperInvariant();
        _understood.Add(new Understood(word[0] == '#' ? "tags" : "calendarId", word, word[1..]));
        return true;
    }

    private bool ReadTimes(int start)
    {
        if (_times is not null)
            return false;
        var word = _words.Current;
        var match = SpanForm().Match(word);
        LocalTime? from = match.Success ? TimeOf(match.Groups[1].Value) : LooksLikeTime(word, start) ? TimeOf(word) : null;
        var to = match.Success ? TimeOf(match.Groups[2].Value) : null;
        if (from is not { } begins || (match.Success && to is null))
            return false;
        _words.Skip();
        _grammar.Skips("oClock", _words);
        if (!match.Success && !_words.IsAtEnd && _grammar.Is("to", _words.Current) && TimeOf(_words.Ahead(1)) is { } ends)
        {
            to = ends;
            _words.Skip(2);
            _grammar.Skips("oClock", _words);
        }
        // "9–3pm" and "2-3.30pm": the half of the day is said once.
        if (to is { } end && end < begins && begins.Hour <= 12 && end.PlusHours(12) > begins && end.Hour < 12)
            to = end.PlusHours(12);
        else if (match.Groups[2].Value.Contains('p', StringComparison.OrdinalIgnoreCase)
            && to is { Hour: > 12 } late
            && begins.Hour < 8
            && begins.PlusHours(12) < late)
            begins = begins.PlusHours(12);
        _times = (begins, to);
        var words = _words.Since(start);
        _understood.Add(
            new Understood("from", words,
                to is { } until ? Say("typed.fromTo", ("from", $"{begins:HH:mm}"), ("to", $"{until:HH:mm}")) : $"{begins:HH:mm}"));
        return true;
    }

    /// <summary>A bare number is a time only after "at" or "from", or before "to"; with a colon or am and pm it always is.</summary>
    private bool LooksLikeTime(string word, int start) =>
        ClockForm().IsMatch(word) || _words.At > start || _grammar.Is("oClock", _words.Ahead(1))
        || (_words.Left > 2 && _grammar.Is("to", _words.Ahead(1)) && char.IsDigit(word[0]) && TimeOf(_words.Ahead(2)) is not null);

    private bool ReadPattern()
    {
        var start = _words.At;
        if (_repeat is not null || new PatternReader(_words, _grammar).Read() is not { } repeat)
            return false;
        _repeat = repeat;
        _understood.Add(new Understood("repeat", _words.Since(start), ""));
        return true;
    }

    private EventDraft Draft()
    {
        var date = _date ?? FirstDay();
        if (_date is null)
            _understood.Add(new Understood("date", "", Say(_repeat is null ? "typed.noDay" : "typed.fromDay", ("day", Say(date)))));
        var repeat = Completed(date);
        if (repeat is not null && _repeat is not null)
        {
            var index = _understood.FindIndex(one => one.Field == "repeat");
            _understood[index] = _understood[index] with { Means = Say(repeat, date) };
        }
        else if (repeat is null && (_until is not null || _count is not null))
            _unread.Add(Say(_until is not null ? "typed.untilNothing" : "typed.forNothing"));
        var from = _allDay ? null : _times?.From;
        var to = from is null ? default(LocalTime?) : _times!.Value.To ?? from.Value.PlusHours(1);
        if (from is not null && _times!.Value.To is null)
            _understood.Add(new Understood("to", "", Say("typed.noEnd", ("to", $"{to:HH:mm}"))));
        if (from is null && !_allDay)
            _understood.Add(new Understood("allDay", "", Say("typed.noTime")));
        var endDate = to < from ? date.PlusDays(1) : default(LocalDate?);
        return new EventDraft
        {
            Title = _title,
            AllDay = from is null,
            Date = date,
            EndDate = endDate,
            From = from,
            To = to,
            Place = _place,
            Repeat = repeat,
            Tags = _tags,
        };
    }

    private RepeatDraft? Completed(LocalDate date)
    {
        if (_repeat is not { } repeat)
            return null;
        return repeat with
        {
            Weekdays = repeat is { Pattern: RepeatPattern.Weekly, Weekdays.Count: 0 } ? [(int)date.DayOfWeek] : repeat.Weekdays,
            MonthDay = repeat is { By: MonthPosition.Day, MonthDay: null } ? date.Day : repeat.MonthDay,
            Month = repeat.Pattern == RepeatPattern.Yearly ? date.Month : null,
            Ends = _until is not null ? RepeatEnd.On : _count is not null ? RepeatEnd.After : RepeatEnd.Never,
            Until = _until,
            Count = _count,
        };
    }

    /// <summary>The first day from today on that the pattern gives.</summary>
    private LocalDate FirstDay()
    {
        if (_repeat is not { } repeat)
            return _today;
        var (rule, timing) = (Completed(_today)! with { Ends = RepeatEnd.Never }, Time.Timing.WholeDays(_today, _today, DateTimeZone.Utc));
        var refusals = new RefusalList();
        rule.Check(refusals);
        return refusals.IsEmpty && repeat.Pattern != RepeatPattern.Daily
            ? new Recurrence.Series(timing, rule.RuleFor(timing)).Pattern(_today.AtMidnight(), YearPlans.SchoolCalendar.Empty)
                .Where(day => day.Date > _today || new Recurrence.Series(timing, rule.RuleFor(timing)).RuleGivesItsStart)
                    .Select(day => day.Date).FirstOrDefault(_today)
            : _today;
    }

    private string Say(RepeatDraft repeat, LocalDate date)
    {
        var timing = Time.Timing.WholeDays(date, date, DateTimeZone.Utc);
        var refusals = new RefusalList();
        repeat.Check(refusals);
        var rule = refusals.IsEmpty ? refusals.Try(() => (repeat with { Ends = RepeatEnd.Never }).RuleFor(timing)) : null;
        var words = Recurrence.RuleWords.For(_grammar.Culture.Name);
        return rule is null
            ? ""
            : words.Say(new Recurrence.Series(timing, rule)).Replace($", {words.AllDay}", "", StringComparison.Ordinal);
    }

    private string Say(LocalDate date) => _grammar.Speech.Day(date, withWeekday: true);

    private string Say(string code, params (string Name, object? Value)[] values) => _grammar.Speech.Say(code, values);

    private LocalTime? TimeOf(string text) => Typed.Time(text, _grammar.Culture);

    private static bool IsTagOrPlate(string word) => word.Length > 1 && (word[0] is '#' or '@');

    private static string Unquoted(string word) => word.Length > 1 && word[0] is '"' or '“' ? word[1..^1] : word;

    [GeneratedRegex(@"^(\d{1,2}(?:[:.h]?\d{2})?(?:am|pm)?)[–—-](\d{1,2}(?:[:.h]?\d{2})?(?:am|pm)?)$", RegexOptions.IgnoreCase)]
    private static partial Regex SpanForm();

    [GeneratedRegex(@"^\d{1,2}(?:[:h]\d{2}(?:am|pm)?|\.\d{2}(?:am|pm)|(?:am|pm))$", RegexOptions.IgnoreCase)]
    private static partial Regex ClockForm();
}
