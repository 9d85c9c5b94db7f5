using NodaTime;

namespace Valtro.Core.Typing;

/// <summary>One of the events of a line: a day, and its times.</summary>
internal sealed class LineSession
{
    public DayPart? Day { get; set; }

    public TimesPart? Times { get; set; }
}

/// <summary>Which of a line's parts count, and which events they make.</summary>
internal sealed class ChosenParts
{
    private readonly LineWords _words;
    private readonly Grammar _grammar;
    private readonly List<LinePart> _parts;
    private readonly List<LineSession> _sessions = [];
    private readonly List<LinePart> _saidTwice = [];

    /// <summary>Each is said once; a second day with its time is a second event. Of two days the one that may be part of the title
    /// gives way.</summary>
    public ChosenParts(LineWords words, Grammar grammar, IReadOnlyList<LinePart> parts)
    {
        (_words, _grammar, _parts) = (words, grammar, [.. parts]);
        // “Arts and crafts”; numbers may be days or times.
        _parts.RemoveAll(part => part is JoiningPart && IsInTitle(part)
            && !_words[part.Start - 1].Text.Any(char.IsDigit) && !_words[part.End].Text.Any(char.IsDigit));
        var days = _parts.OfType<DayPart>().ToArray();
        _parts.RemoveAll(part => part is DayPart { Found.IsPlain: true } && (IsInTitle(part) || BeginsTitle(part))
            && days.Any(other => other != part && !IsInTitle(other)));
        var times = _parts.OfType<TimesPart>().ToArray();
        _parts.RemoveAll(part => part is TimesPart { Found.IsPlain: true } && IsInTitle(part)
            && times.Any(other => other != part && !other.Found.IsPlain));
        var session = new LineSession();
        var known = new HashSet<Type>();
        foreach (var part in _parts.ToArray())
        {
            switch (part)
            {
                case DayPart day:
                    if (session.Day is not null && !Begins(day))
                        _saidTwice.Add(day);
                    else if (session.Day is not null)
                        _sessions.Add(session = Next(session, day));
                    else
                        session.Day = day;
                    if (day is StretchPart stretch && session.Day == day)
                        Put(stretch.Times);
                    break;
                case TimesPart one:
                    if (session.Times is not null)
                        _saidTwice.Add(one);
                    else
                        session.Times = one;
                    break;
                case TagPart or JoiningPart:
                    break;
                default:
                    if (!known.Add(part.GetType()))
                        _saidTwice.Add(part);
                    break;
            }
        }
        _parts.RemoveAll(_saidTwice.Contains);
        if (_sessions.Count == 0)
            _sessions.Add(session);
        // "Fri and Sat 9–12", "9–12, Fri and Sat": the time is said once, behind the days or before them.
        var saidOnce = _sessions[^1].Times
            ?? (_sessions[0] is { Times: { } first, Day: { } day0 } && first.Start < day0.Start ? first : null);
        foreach (var untimed in _sessions.Where(one => one.Times is null && _sessions.Count > 1))
            untimed.Times = saidOnce;

        // Another event begins behind "and", or behind the time of the one before.
        bool Begins(DayPart day) => Of<PatternPart>() is null && Of<AllWeekPart>() is null
            && (_parts.Any(part => part is JoiningPart && part.End == day.Start) || session.Times?.End == day.Start);

        // It says its times itself; others before it are not understood.
        void Put(TimesPart ofStretch)
        {
            if (session.Times is { } before)
                _saidTwice.Add(before);
            session.Times = ofStretch;
        }

        LineSession Next(LineSession before, DayPart day)
        {
            if (_sessions.Count == 0)
                _sessions.Add(before);
            return new LineSession { Day = After(before.Day!, day) };
        }
    }

    /// <summary>Words that mean nothing stand before and behind it, as around the number of “Grade 9 May fair”.</summary>
    public bool IsInTitle(LinePart part) => IsFree(part.Start - 1) && IsFree(part.End);

    /// <summary>As the first word of “So geht’s weiter”, which is also short for Sonntag.</summary>
    public bool BeginsTitle(LinePart part) => part is { Start: 0, End: 1 } && IsFree(1);

    /// <summary>No part, and not in quotes.</summary>
    public bool IsFree(int word) =>
        word >= 0 && word < _words.Count && !_words[word].IsQuoted && !_parts.Any(part => part.Start <= word && word < part.End);

    /// <summary>"Fri and Sat": the Saturday behind that Friday.</summary>
    private DayPart After(DayPart before, DayPart day)
    {
        if (day.End > day.Start + 1 || _grammar.Weekday(_words[day.Start].Text) is not { } weekday)
            return day;
        var date = (before.Found.Days.Last ?? before.Found.Days.First).With(DateAdjusters.Next(weekday));
        var after = day with { Found = new DaysFound(new Days(date), IsPlain: true, Question: null) };
        _parts[_parts.IndexOf(day)] = after;
        return after;
    }

    public IReadOnlyList<LinePart> Parts => _parts;

    public IReadOnlyList<LineSession> Sessions => _sessions;

    /// <summary>What says once more what is said already, and is not understood therefore.</summary>
    public IReadOnlyList<LinePart> SaidTwice => _saidTwice;

    public T? Of<T>()
        where T : LinePart => _parts.OfType<T>().FirstOrDefault();
}
