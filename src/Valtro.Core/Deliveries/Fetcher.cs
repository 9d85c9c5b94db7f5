using NodaTime;

namespace Valtro.Core.Deliveries;

/// <summary>How often a program asks.</summary>
public enum Rhythm
{
    HalfHour,
    Hour,
    FewHours,
    Day,

    /// <summary>Less than once a day, or nobody knows yet.</summary>
    Seldom,
}

/// <summary>What one program asked for since it was counted last.</summary>
/// <param name="Times">How often.</param>
/// <param name="Had">When the version came to be that it said it has; null where it said none.</param>
/// <param name="Has">When the version came to be that it got.</param>
public sealed record Asked(int Times, Instant First, Instant Last, Instant? Had, Instant Has);

/// <summary>One program on one day. On another day it is another, which is only known to be the same as that of the day before.</summary>
/// <param name="Before">How often it asked the day before; null where it did not come.</param>
/// <param name="Has">When the version came to be that it got last.</param>
/// <param name="Waited">How long the last version that was new to it had been there.</param>
public sealed record Fetcher(ProgramKind Kind, Rhythm? Before, int Times, Instant First, Instant Last, Instant Has, Duration? Waited)
{
    private static readonly Duration UpToHalfHour = Duration.FromMinutes(45);
    private static readonly Duration UpToHour = Duration.FromMinutes(100);
    private static readonly Duration UpToFewHours = Duration.FromHours(13);

    /// <summary>How often it asks: by how far apart it asked today; while it asked only once, as it did yesterday.</summary>
    public Rhythm Rhythm => Times < 2 || First == Last
        ? Before is null ? Rhythm.Seldom : Before == Rhythm.Seldom ? Rhythm.Day : Before.Value
        : ((Last - First) / (Times - 1)) switch
        {
            var apart when apart <= UpToHalfHour => Rhythm.HalfHour,
            var apart when apart <= UpToHour => Rhythm.Hour,
            var apart when apart <= UpToFewHours => Rhythm.FewHours,
            _ => Rhythm.Day,
        };

    /// <param name="today">As it is known of today so far; null where it comes for the first time.</param>
    /// <param name="yesterday">As it was the day before.</param>
    public static Fetcher Asking(ProgramKind kind, Fetcher? today, Fetcher? yesterday, Asked asked)
    {
        var had = asked.Had ?? today?.Has ?? yesterday?.Has;
        var waited = had < asked.Has ? Duration.Max(Duration.Zero, asked.First - asked.Has) : today?.Waited;
        return new Fetcher(kind, yesterday?.Rhythm, (today?.Times ?? 0) + asked.Times,
            today is null ? asked.First : Instant.Min(today.First, asked.First),
            today is null ? asked.Last : Instant.Max(today.Last, asked.Last),
            today is null ? asked.Has : Instant.Max(today.Has, asked.Has), waited);
    }
}
