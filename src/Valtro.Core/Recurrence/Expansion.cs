using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>From a rule and its start to the local starts of its dates: lazily, ascending, from anywhere.</summary>
/// <remarks>
/// The pipeline is candidates → limits (both in <see cref="Periods"/>) → set positions → bounds. UNTIL is an instant and is
/// applied where local times are resolved, in <see cref="Series"/>.
/// Work is bounded: a rule that gives nothing over <see cref="MostFruitless"/> periods on end is taken to give nothing any more.
/// That is every year until 9990, eight thousand years of months, nineteen hundred of weeks; days and shorter periods are
/// leapt over by the month, day, hour or minute that a limit excludes.
/// </remarks>
internal sealed class Expansion
{
    public const int MostFruitless = 100_000;

    private readonly RecurrenceRule _rule;
    private readonly Periods _periods;
    private readonly LocalDate _startDate;
    private readonly long _start;
    private readonly int _beforeStart;

    public Expansion(RecurrenceRule rule, LocalDateTime start)
    {
        _rule = rule;
        _periods = Periods.Of(rule, start);
        _startDate = start.Date;
        _start = DayNumbers.Moment(start);
        var set = _periods.Room();
        var positions = SetPositions.Of(rule);
        _periods.Fill(0, set);
        var count = positions?.Choose(set.Count) ?? set.Count;
        while (_beforeStart < count && At(set, positions, _beforeStart) < _start)
            _beforeStart++;
        GivesItsStart = _beforeStart < count && At(set, positions, _beforeStart) == _start;
    }

    /// <summary>Whether the rule gives the start itself; where it does not, the start counts all the same.</summary>
    public bool GivesItsStart { get; }

    /// <summary>The local starts on or after <paramref name="from"/>, at most until 9990.</summary>
    public IEnumerable<LocalDateTime> From(LocalDateTime from)
    {
        var walk = Walk(DayNumbers.Moment(from));
        while (walk.Next(out _))
            yield return walk.Local;
    }

    /// <summary>The same, from a moment on: local seconds from 1970-01-01.</summary>
    /// <remarks>
    /// The start is always the first date, also where the rule does not give it (RFC 5545 3.8.5.3), and counts for COUNT.
    /// A rule without COUNT jumps by arithmetic. One with COUNT does so too where every period gives the same number of
    /// dates, and otherwise counts candidates without building dates.
    /// </remarks>
    public Walking Walk(long from) => new(this, Math.Max(from, _start));

    private static long At(Candidates set, SetPositions? positions, int index) => set[positions is null ? index : positions[index]];

    /// <summary>Where to begin. A day that spills into the next month may stand there too, so that what was counted twice is only seen on a
    /// walk.</summary>
    private long StartIndex(long from)
    {
        if (from <= _start)
            return 0;
        if (!_periods.MaySpill)
            return Math.Max(0, _periods.IndexAtOrBefore(from));
        return _rule.Count is null ? Math.Max(0, _periods.IndexAtOrBefore(from) - 1) : 0;
    }

    /// <summary>The number of dates in the periods before <paramref name="index"/>.</summary>
    private int CountBefore(SetPositions? positions, Candidates set, long index, int enough)
    {
        if (index == 0)
            return 0;
        var constant = positions is null ? (_periods.Size.IsExact ? _periods.Size.Least : null) : positions.Constant(_periods.Size);
        if (constant is { } each)
            return (int)Math.Min(index * each - _beforeStart, enough);
        var count = -_beforeStart;
        for (long earlier = 0, fruitless = 0; earlier < index && count < enough && fruitless < MostFruitless;)
        {
            _periods.Fill(earlier, set);
            var given = positions?.Choose(set.Count) ?? set.Count;
            count += given;
            fruitless = given == 0 ? fruitless + 1 : 0;
            earlier = set.Count == 0 ? set.Resume : earlier + 1;
        }
        return count;
    }

    /// <summary>One walk along the dates. It is a value: copying it forks it, so it is kept in one local variable.</summary>
    public struct Walking
    {
        private readonly Expansion _of;
        private readonly SetPositions? _positions;
        private readonly Candidates _set;
        private readonly long _from;
        private long _index;
        private int _left;
        private int _position;
        private int _count;
        private int _fruitless;
        private bool _startIsDue;
        private long _last;
        private int _day;
        private LocalDate _date;

        internal Walking(Expansion of, long from)
        {
            (_of, _from) = (of, from);
            _positions = SetPositions.Of(of._rule);
            _set = of._periods.Room();
            _left = of._rule.Count ?? int.MaxValue;
            if (!of.GivesItsStart)
            {
                _startIsDue = from <= of._start;
                _left--;
            }
            _index = of.StartIndex(from);
            if (of._rule.Count is not null)
                _left -= of.CountBefore(_positions, _set, _index, _left);
            _last = of._start - 1;
            (_date, _day) = (of._startDate, DayNumbers.Of(of._startDate));
        }

        /// <summary>The date that <see cref="Next"/> gave last.</summary>
        public LocalDateTime Local
        {
            get
            {
                var day = DayNumbers.DayOf(_last);
                // Near the last date, NodaTime steps without going through its calendar; far away our own arithmetic is shorter.
                if (day != _day)
                    (_date, _day) = (Math.Abs(day - _day) < 200 ? _date.PlusDays(day - _day) : DayNumbers.Date(day), day);
                return _date + LocalTime.FromSecondsSinceMidnight((int)(_last - (long)day * DayNumbers.SecondsOfDay));
            }
        }

        /// <returns>False when there are no more.</returns>
        public bool Next(out long moment)
        {
            if (_startIsDue)
            {
                _startIsDue = false;
                moment = _last = _of._start;
                return true;
            }
            while (_left > 0)
            {
                if (_position >= _count && !FillNext())
                    break;
                moment = At(_set, _positions, _position++);
                if (moment <= _last)
                    continue;
                _left--;
                _last = moment;
                if (moment >= _from)
                    return true;
            }
            moment = 0;
            return false;
        }

        private bool FillNext()
        {
            while (_fruitless < MostFruitless && _of._periods.Exists(_index))
            {
                _of._periods.Fill(_index, _set);
                _position = 0;
                _count = _positions?.Choose(_set.Count) ?? _set.Count;
                if (_count > 0)
                {
                    _index++;
                    _fruitless = 0;
                    return true;
                }
                _fruitless++;
                _index = _set.Count == 0 ? _set.Resume : _index + 1;
            }
            return false;
        }
    }
}
