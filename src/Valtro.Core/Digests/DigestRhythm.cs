using NodaTime;

namespace Valtro.Core.Digests;

/// <summary>How often somebody is told by mail what changed.</summary>
public enum DigestRhythm
{
    /// <summary>Soon after: several changes within a quarter of an hour are one mail.</summary>
    Change,

    /// <summary>In the morning of a day after which there is something to tell.</summary>
    Daily,

    /// <summary>On Monday morning.</summary>
    Weekly,
}

public static class DigestRhythms
{
    private static readonly Duration Together = Duration.FromMinutes(15);
    private static readonly LocalTime Morning = new(6, 30);

    /// <summary>When somebody is told next.</summary>
    /// <param name="zone">The edition's.</param>
    public static Instant NextAfter(this DigestRhythm rhythm, Instant now, DateTimeZone zone)
    {
        if (rhythm == DigestRhythm.Change)
            return now + Together;
        var day = now.InZone(zone).Date;
        if (rhythm == DigestRhythm.Weekly)
            day = day.With(DateAdjusters.NextOrSame(IsoDayOfWeek.Monday));
        var next = At(day);
        return next > now ? next : At(day.PlusDays(rhythm == DigestRhythm.Weekly ? 7 : 1));

        Instant At(LocalDate on) => on.At(Morning).InZoneLeniently(zone).ToInstant();
    }
}
