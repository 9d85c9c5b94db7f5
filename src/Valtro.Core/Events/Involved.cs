using NodaTime;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>What somebody does at an event.</summary>
public enum Part
{
    Leads,
    Helps,

    /// <summary>An invited speaker.</summary>
    Speaks,
}

/// <summary>Somebody who is responsible for an event: a member, or no more than a name.</summary>
/// <param name="MemberId">Null for somebody who is none.</param>
/// <param name="Name">As the member is called now, or as it was typed.</param>
/// <param name="From">From when on that day, where it is not from the event's beginning.</param>
/// <param name="To">Until when; before <paramref name="From"/> it is on the next day.</param>
public sealed record Involved(Guid? MemberId, string Name, Part Part = Part.Leads, LocalTime? From = null, LocalTime? To = null)
{
    public const int Most = 30;

    public bool HasOwnTimes => From is not null || To is not null;

    /// <summary>When they are taken by one date of the event, on its clock.</summary>
    public (LocalDateTime From, LocalDateTime To) On(LocalDateTime start, LocalDateTime end)
    {
        var from = From is { } given ? Nearest(start, given) : start;
        var to = To is { } until ? Nearest(end, until) : end;
        return (from, to < from ? from : to);
    }

    /// <summary>From when to when a date takes them: by their own times; where they have none, from set-up to clear-away.</summary>
    public (Instant Start, Instant End) TakenBy(in Occurrence date, StaffSpan span)
    {
        var (start, end) = span.Of(date);
        var (from, to) = On(date.LocalStart, date.LocalEnd);
        return (
            From is null ? start : date.Start + (from - date.LocalStart).ToDuration(),
            To is null ? end : date.End + (to - date.LocalEnd).ToDuration());
    }

    /// <summary>The moment with that time that lies nearest: somebody who comes at 23:30 for what begins at 0:15 comes the day
    /// before.</summary>
    private static LocalDateTime Nearest(LocalDateTime moment, LocalTime time)
    {
        var there = moment.Date + time;
        var hours = Period.Between(moment, there, PeriodUnits.Hours).Hours;
        return hours > 12 ? there.PlusDays(-1) : hours < -12 ? there.PlusDays(1) : there;
    }
}
