using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Core.Events;

namespace Valtro.Core.Typing;

/// <summary>A part of a line, wherever it stands.</summary>
/// <param name="Start">Its first word.</param>
/// <param name="End">The word behind it.</param>
internal abstract record LinePart(int Start, int End, string Field);

internal record DayPart(int Start, int End, DaysFound Found) : LinePart(Start, End, "date");

/// <summary>"Fri 7 pm to Sat 10 am": from a time on one day to a time on a later one.</summary>
internal sealed record StretchPart(int Start, int End, DaysFound Found, TimesPart Times) : DayPart(Start, End, Found);

internal sealed record TimesPart(int Start, int End, TimesFound Found) : LinePart(Start, End, "from");

internal sealed record AllDayPart(int Start, int End) : LinePart(Start, End, "allDay");

/// <summary>"all week": which one is asked.</summary>
internal sealed record AllWeekPart(int Start, int End) : LinePart(Start, End, "date");

internal sealed record PatternPart(int Start, int End, RepeatDraft Repeat, bool MayCountWeeks) : LinePart(Start, End, "repeat");

internal sealed record UntilPart(int Start, int End, LocalDate Date) : LinePart(Start, End, "until");

/// <summary>"for 5 dates".</summary>
internal sealed record CountPart(int Start, int End, int Count) : LinePart(Start, End, "count");

/// <summary>"for 2 weeks".</summary>
internal sealed record LastsPart(int Start, int End, Period Length) : LinePart(Start, End, "until");

/// <param name="Named">The first word of its name.</param>
/// <param name="IsKnown">It is on the organisation's list, or stood in quotes.</param>
internal sealed record PlacePart(int Start, int End, int Named, string Name, bool IsKnown) : LinePart(Start, End, "place");

internal sealed record TagPart(int Start, int End, string Tag) : LinePart(Start, End, "tags");

internal sealed record PlatePart(int Start, int End, string Plate) : LinePart(Start, End, "calendarId");

/// <summary>"due", before a day, a time or a pattern.</summary>
internal sealed record DuePart(int Start, int End) : LinePart(Start, End, "kind");

/// <summary>"and", which says nothing by itself.</summary>
internal sealed record JoiningPart(int Start, int End) : LinePart(Start, End, "");

/// <summary>Finds the parts of a line; what is left is its title, or was not understood.</summary>
internal sealed partial class LineParts(LineWords words, Grammar grammar, LocalDate today, IReadOnlyCollection<string> places)
{
    private readonly DayReader _days = new(words, grammar, today);
    private readonly TimeReader _times = new(words, grammar);
    private readonly PatternReader _patterns = new(words, grammar);

    public IReadOnlyList<LinePart> Read()
    {
        var parts = new List<LinePart>();
        for (words.At = 0; !words.IsAtEnd;)
        {
            var start = words.At;
            if (ReadPart() is { } part)
                parts.Add(part);
            else
                words.At = start + 1;
        }
        return parts;
    }

    private LinePart? ReadPart()
    {
        var start = words.At;
        if (words[start].IsQuoted)
            return null;
        return ReadSimple() ?? ReadPlace() ?? Again(start, () => grammar.Skips("and", words) ? new JoiningPart(start, words.At) : null);
    }

    /// <summary>All but places, which end where one of these begins.</summary>
    private LinePart? ReadSimple()
    {
        var start = words.At;
        var word = words.Current;
        if (word.Length > 1 && word[0] is '#' or '@')
        {
            words.Skip();
            return word[0] == '#' ? new TagPart(start, words.At, word[1..]) : new PlatePart(start, words.At, word[1..].ToUpperInvariant());
        }
        return Again(start, () => grammar.Skips("allDay", words) ? new AllDayPart(start, words.At) : null)
            ?? Again(start, ReadDue)
            ?? Again(start, () => grammar.Skips("allWeek", words) ? new AllWeekPart(start, words.At) : null)
            ?? Again(start, () => _patterns.Read() is { } found
                ? new PatternPart(start, words.At, found.Repeat, found.MayCountWeeks) : null)
            ?? Again(start, ReadUntil)
            ?? Again(start, ReadFor)
            ?? Again(start, () => ReadStretch(beginsWithDay: true))
            ?? Again(start, () => ReadStretch(beginsWithDay: false))
            ?? Again(start, () => !IsEitherDayOrTime() && _days.Read() is { } days ? new DayPart(start, words.At, days) : null)
            ?? Again(start, () => !IsEitherDayOrTime() && _times.Read() is { } times ? new TimesPart(start, words.At, times) : null);
    }

    /// <summary>"9.10" is the ninth of October to some and ten past nine to others: it is not read without more.</summary>
    private bool IsEitherDayOrTime() => grammar.WritesDaysWithDots && DottedForm().Match(words.Current) is { Success: true } dotted
        && int.Parse(dotted.Groups[2].ValueSpan, CultureInfo.InvariantCulture) is >= 1 and <= 12
        && !grammar.Is("oClock", words.Ahead(1));

    private LinePart? Again(int start, Func<LinePart?> read)
    {
        words.At = start;
        var part = read();
        if (part is null)
            words.At = start;
        return part;
    }

    /// <summary>Before when; "due diligence" is none.</summary>
    private DuePart? ReadDue()
    {
        var start = words.At;
        if (!grammar.Skips("due", words) || words.IsAtEnd)
            return null;
        var end = words.At;
        if (ReadSimple() is not (DayPart or TimesPart or PatternPart))
            return null;
        words.At = end;
        return new DuePart(start, end);
    }

    private UntilPart? ReadUntil()
    {
        var start = words.At;
        if (!grammar.Skips("until", words))
            return null;
        if (_days.Read() is { Days.Last: null, Question: null or { Code: "ask.year" } } day)
            return new UntilPart(start, words.At, day.Days.First);
        grammar.Skips("article", words);
        return _days.ReadMonth() is { } month ? new UntilPart(start, words.At, month) : null;
    }

    /// <summary>Where nothing of it could mean something else: a half of the day that one of them says holds for both;
    /// both ends are said in the same order.</summary>
    private StretchPart? ReadStretch(bool beginsWithDay)
    {
        var start = words.At;
        grammar.Skips("from", words);
        if (ReadMoment(today, beginsWithDay) is not { } first || !(grammar.Skips("to", words) || grammar.Skips("until", words))
            || ReadMoment(first.Day, beginsWithDay) is not { } last || last.Day <= first.Day || !(first.IsSure || last.IsSure))
            return null;
        return new StretchPart(start, words.At, new DaysFound(new Days(first.Day, last.Day), IsPlain: false, Question: null),
            new TimesPart(start, words.At, new TimesFound(first.Time, last.Time, IsOfEitherHalf: false, IsPlain: false)));
    }

    /// <summary>"Fri 7 pm", "19:00 on Friday".</summary>
    private (LocalDate Day, LocalTime Time, bool IsSure)? ReadMoment(LocalDate from, bool beginsWithDay)
    {
        var before = beginsWithDay ? null : _times.ReadOne();
        return _days.ReadSure(from) is { } day && (beginsWithDay ? _times.ReadOne() : before) is { } found
            ? (day, found.Time, found.IsSure)
            : null;
    }

    private LinePart? ReadFor()
    {
        var start = words.At;
        if (!grammar.Skips("for", words) || grammar.Amount(words.Current) is not (> 0 and <= 1_000 and var amount))
            return null;
        words.Skip();
        return grammar.Skips("dates", words) ? new CountPart(start, words.At, amount)
            : grammar.Skips("day", words) ? new LastsPart(start, words.At, Period.FromDays(amount))
            : grammar.Skips("week", words) ? new LastsPart(start, words.At, Period.FromWeeks(amount))
            : grammar.Skips("month", words) ? new LastsPart(start, words.At, Period.FromMonths(amount))
            : null;
    }

    /// <summary>A known place as far as its name goes; of another all words up to the next part.</summary>
    private PlacePart? ReadPlace()
    {
        var start = words.At;
        if (!grammar.Skips("in", words) && !grammar.Skips("at", words))
            return null;
        grammar.Skips("article", words);
        var named = words.At;
        if (words.IsAtEnd)
        {
            words.At = start;
            return null;
        }
        if (words[named].IsQuoted)
        {
            words.Skip();
            return new PlacePart(start, words.At, named, words[named].Text, IsKnown: true);
        }
        for (var length = Math.Min(6, words.Left); length > 0; length--)
        {
            var name = words.Coming(length);
            if (places.FirstOrDefault(place => string.Equals(place, name, StringComparison.CurrentCultureIgnoreCase)) is not { } known)
                continue;
            words.Skip(length);
            return new PlacePart(start, words.At, named, known, IsKnown: true);
        }
        do
        {
            words.Skip();
        }
        while (!words.IsAtEnd && !words[words.At].IsQuoted && !BeginsPart());
        return new PlacePart(start, words.At, named, words.Written(named, words.At), IsKnown: false);
    }

    private bool BeginsPart()
    {
        var start = words.At;
        var begins = ReadSimple() is not null;
        words.At = start;
        return begins;
    }

    [GeneratedRegex(@"^(\d{1,2})\.(\d{2})$")]
    private static partial Regex DottedForm();
}
