using NodaTime;

namespace Valtro.Core.Recurrence;

/// <summary>Hours, minutes and seconds, counted in nominal local time from the start. INTERVAL keeps its phase through all
/// limits.</summary>
internal sealed class ClockPeriods : Periods
{
    private readonly long _anchor;
    private readonly long _step;
    private readonly int _unit;
    private readonly DayLimits _limits;
    private readonly int _hours;
    private readonly long _minutes;
    private readonly long _seconds;
    private readonly int[] _within;

    public ClockPeriods(RuleParts parts, LocalDateTime start)
    {
        _unit = parts.Frequency switch { Frequency.Hourly => 3_600, Frequency.Minutely => 60, _ => 1 };
        _step = (long)_unit * parts.Interval;
        var moment = DayNumbers.Moment(start);
        _anchor = moment - moment % _unit + (moment % _unit < 0 ? -_unit : 0);
        _limits = new DayLimits(parts);
        _hours = parts.Hours.Aggregate(0, (set, hour) => set | 1 << hour);
        _minutes = parts.Frequency == Frequency.Hourly ? 0 : parts.Minutes.Aggregate(0L, (set, minute) => set | 1L << minute);
        _seconds = parts.Frequency == Frequency.Secondly ? parts.Seconds.Aggregate(0L, (set, second) => set | 1L << second) : 0;
        _within = parts.Frequency switch
        {
            Frequency.Hourly => TimesOfHour(parts, start.TimeOfDay),
            Frequency.Minutely => TimesOfMinute(parts, start.TimeOfDay),
            _ => [0],
        };
    }

    public override Candidates Room() => new(1, new int[_within.Length]);

    public override SetSize Size =>
        _limits.IsEmpty && _hours == 0 && _minutes == 0 && _seconds == 0 ? SetSize.Exactly(_within.Length) : SetSize.Unknown;

    public override long IndexAtOrBefore(long moment) => Floor(moment - _anchor, _step);

    public override bool Exists(long index) => _anchor + index * _step < (DayNumbers.Last + 1L) * DayNumbers.SecondsOfDay;

    public override void Fill(long index, Candidates candidates)
    {
        var moment = _anchor + index * _step;
        var day = DayNumbers.DayOf(moment);
        var second = (int)(moment - (long)day * DayNumbers.SecondsOfDay);
        if (!_limits.Allows(day, out var nextDay))
            candidates.Clear(IndexAtOrAfter((long)nextDay * DayNumbers.SecondsOfDay));
        else if (_hours != 0 && (_hours & 1 << second / 3_600) == 0)
            candidates.Clear(IndexAtOrAfter(moment - second % 3_600 + 3_600));
        else if (_minutes != 0 && (_minutes & 1L << second / 60 % 60) == 0)
            candidates.Clear(IndexAtOrAfter(moment - second % 60 + 60));
        else
        {
            candidates.Clear(index + 1);
            if (_seconds != 0 && (_seconds & 1L << second % 60) == 0)
                return;
            for (var position = 0; position < _within.Length; position++)
                candidates.Times[position] = second + _within[position];
            candidates.Add(day);
        }
    }

    private long IndexAtOrAfter(long moment) => -Floor(_anchor - moment, _step);
}
