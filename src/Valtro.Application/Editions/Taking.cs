using NodaTime;
using NodaTime.Text;
using Valtro.Core.Time;

namespace Valtro.Application.Editions;

/// <summary>Forms in which dates of an edition are taken along, besides its feed and its page.</summary>
public enum TakenForm
{
    /// <summary>iCalendar, once: each date an event of its own.</summary>
    Snapshot,

    /// <summary>When somebody is busy (RFC 5545 3.6.4), and nothing else.</summary>
    Busy,

    /// <summary>The feed, or the snapshot of a span, as jCal (RFC 7265).</summary>
    JCal,

    /// <summary>Lines of values with commas between (RFC 4180).</summary>
    Csv,

    /// <summary>Valtro's own JSON, whose version stands in its address (docs/json.md).</summary>
    Json,
}

/// <summary>What somebody takes along of an edition.</summary>
/// <param name="First">The first day; null for as early as the edition goes.</param>
/// <param name="Last">The last day; null for as far as the edition goes.</param>
public sealed record Taking(TakenForm Form, LocalDate? First, LocalDate? Last, Narrowing Narrowing)
{
    /// <summary>A span is no longer.</summary>
    public const int MostYears = 3;

    public bool HasSpan => First is not null || Last is not null;

    public bool IsPossible => IsDay(First) && IsDay(Last)
        && (First is not { } first || Last is not { } last || (first <= last && last <= first.PlusYears(MostYears)));

    private static bool IsDay(LocalDate? day) => day is not { } one || (one >= DayRange.First
        && one <= DayRange.Last.PlusYears(-MostYears));

    public string ContentType => Form switch
    {
        TakenForm.Snapshot or TakenForm.Busy => "text/calendar; charset=utf-8",
        TakenForm.JCal => "application/calendar+json; charset=utf-8",
        TakenForm.Csv => "text/csv; charset=utf-8",
        _ => "application/json; charset=utf-8",
    };

    /// <summary>As it stands in the key.</summary>
    public override string ToString() => $"{Form}|{Say(First)}|{Say(Last)}|{Narrowing}";

    public static Taking Parse(string text)
    {
        var parts = text.Split('|', 4);
        return new(Enum.Parse<TakenForm>(parts[0]), Read(parts[1]), Read(parts[2]), Narrowing.Parse(parts[3]));
    }

    private static string Say(LocalDate? day) => day is { } one ? LocalDatePattern.Iso.Format(one) : "";

    private static LocalDate? Read(string text) => text.Length == 0 ? null : LocalDatePattern.Iso.Parse(text).Value;
}
