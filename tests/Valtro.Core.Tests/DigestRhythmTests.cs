using NodaTime.Text;
using Valtro.Core.Digests;
using Valtro.Core.Time;

namespace Valtro.Core.Tests;

/// <summary>When readers are told next by mail.</summary>
public sealed class DigestRhythmTests
{
    [Theory]
    [InlineData(DigestRhythm.Change, "2026-11-24T10:00:00Z", "2026-11-24T10:15:00Z")]
    [InlineData(DigestRhythm.Daily, "2026-11-24T10:00:00Z", "2026-11-24T10:30:00Z")]
    [InlineData(DigestRhythm.Daily, "2026-11-24T10:30:00Z", "2026-11-25T10:30:00Z")]
    [InlineData(DigestRhythm.Daily, "2026-10-31T23:00:00Z", "2026-11-01T10:30:00Z")]
    [InlineData(DigestRhythm.Daily, "2026-12-31T23:59:59Z", "2027-01-01T10:30:00Z")]
    [InlineData(DigestRhythm.Weekly, "2026-11-24T10:00:00Z", "2026-11-30T10:30:00Z")]
    [InlineData(DigestRhythm.Weekly, "2026-11-30T10:00:00Z", "2026-11-30T10:30:00Z")]
    [InlineData(DigestRhythm.Weekly, "2026-11-30T11:00:00Z", "2026-12-07T10:30:00Z")]
    public void Mornings_are_those_of_the_edition(DigestRhythm rhythm, string now, string next) => Assert.Equal(
        InstantPattern.General.Parse(next).Value, rhythm.NextAfter(InstantPattern.General.Parse(now).Value, Zones.Named("America/Halifax")));
}
