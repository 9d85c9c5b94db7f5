using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Events;

/// <summary>One date that a draft would make.</summary>
/// <param name="Remark">What is special about it, in words, or empty.</param>
public readonly record struct ConsequenceDate(Occurrence Occurrence, string Remark);

/// <summary>What follows from a draft before it is saved.</summary>
/// <param name="Words">The pattern said back.</param>
/// <param name="Count">How many dates, or null when there is no end.</param>
/// <param name="Dates">The first <see cref="Shown"/> dates.</param>
/// <param name="Last">The last date, when there is one.</param>
/// <param name="Remarks">Things the editor should know of the whole.</param>
public sealed record Consequences(
    string Words,
    int? Count,
    IReadOnlyList<ConsequenceDate> Dates,
    Occurrence? Last,
    IReadOnlyList<string> Remarks)
{
    /// <summary>As many dates as a school year has weeks; the rest is a number.</summary>
    public const int Shown = 60;

    public static Consequences Of(Series series, RuleWords words)
    {
        var dates = new List<ConsequenceDate>();
        Occurrence? last = null;
        var count = 0;
        foreach (var occurrence in series.IsEndless ? series.All().Take(Shown) : series.All())
        {
            if (count++ < Shown)
                dates.Add(new ConsequenceDate(occurrence, Remark(series.Timing, occurrence, last)));
            last = occurrence;
        }
        return new Consequences(
            words.Say(series),
            series.IsEndless ? null : count,
            dates,
            series.IsEndless ? null : last,
            RemarksOn(series, dates));
    }

    private static string Remark(Timing timing, Occurrence occurrence, Occurrence? before)
    {
        if (timing.AllDay)
            return "";
        var start = $"{timing.Start:HH:mm}";
        switch (LocalTimes.EffectOf(occurrence.RecurrenceId, timing.Zone))
        {
            case ClockEffect.Skipped:
                return $"the clocks skip {start} that day, so {occurrence.LocalStart:HH:mm}";
            case ClockEffect.Repeated:
                return $"{start} happens twice that day, the first is meant";
        }
        if (before is not { } earlier)
            return "";
        var change = timing.Zone.GetUtcOffset(occurrence.Start).Milliseconds - timing.Zone.GetUtcOffset(earlier.Start).Milliseconds;
        return change switch
        {
            > 0 => $"clocks went forward, still {start}",
            < 0 => $"clocks went back, still {start}",
            _ => "",
        };
    }

    private static List<string> RemarksOn(Series series, List<ConsequenceDate> dates)
    {
        var remarks = new List<string>();
        if (series.Rule is not null && !Expansion.GivesItsStart(series.Rule, series.Timing.Start.Date))
            remarks.Add("The first day is not one of the weekdays chosen. It counts as the first date all the same.");
        if (dates.Count > 1 && dates[0].Occurrence.End > dates[1].Occurrence.Start)
            remarks.Add("Each date lasts beyond the start of the next one.");
        if (series.IsEndless)
            remarks.Add("This goes on without end. Give it a last day when you know one.");
        return remarks;
    }
}
