using System.Globalization;
using NodaTime;
using Valtro.Core.Typing;

namespace Valtro.Core.Tests.Typing;

/// <summary>Where somebody wants to go, typed on Saturday 28 November 2026.</summary>
public class SpanReaderTests
{
    private static readonly LocalDate Today = new(2026, 11, 28);

    private static string Read(string text, string culture, IsoDayOfWeek firstDayOfWeek = IsoDayOfWeek.Monday) =>
        string.Join(", ", SpanReader.Read(text, CultureInfo.GetCultureInfo(culture), Today, firstDayOfWeek)
            .Select(span => $"{span.Kind} {span.First:uuuu-MM-dd}"));

    [Theory]
    [InlineData("12 march", "en-GB", "Day 2027-03-12")]
    [InlineData("March 12th 2028", "en-GB", "Day 2028-03-12")]
    [InlineData("tomorrow", "en-GB", "Day 2026-11-29")]
    [InlineData("week 49", "en-GB", "Week 2026-11-30, Week 2025-12-01")]
    [InlineData("week 49 2027", "en-GB", "Week 2027-12-06")]
    [InlineData("wk 1", "en-GB", "Week 2027-01-04, Week 2025-12-29")]
    [InlineData("week 53", "en-GB", "Week 2026-12-28")]
    [InlineData("this week", "en-GB", "Week 2026-11-23")]
    [InlineData("next week", "en-GB", "Week 2026-11-30")]
    [InlineData("march", "en-GB", "Month 2027-03-01, Month 2026-03-01")]
    [InlineData("March 2030", "en-GB", "Month 2030-03-01")]
    [InlineData("12. März", "de-DE", "Day 2027-03-12")]
    [InlineData("KW 49", "de-DE", "Week 2026-11-30, Week 2025-12-01")]
    [InlineData("49. Woche", "de-DE", "Week 2026-11-30, Week 2025-12-01")]
    [InlineData("nächste Woche", "de-DE", "Week 2026-11-30")]
    [InlineData("Dezember", "de-DE", "Month 2026-12-01, Month 2025-12-01")]
    [InlineData("week 54", "en-GB", "")]
    [InlineData("week 0", "en-GB", "")]
    [InlineData("week 49 concert", "en-GB", "")]
    [InlineData("49", "en-GB", "")]
    [InlineData("march past", "en-GB", "")]
    [InlineData("boat lab", "en-GB", "")]
    [InlineData("", "en-GB", "")]
    public void Days_weeks_and_months_are_gone_to(string text, string culture, string expected) =>
        Assert.Equal(expected, Read(text, culture));

    /// <summary>Where weeks begin on Sundays, the first one of 2026 that has four days of it begins on 4 January.</summary>
    [Fact]
    public void Weeks_begin_as_the_organisation_writes_them() =>
        Assert.Equal("Week 2026-12-06, Week 2025-11-30", Read("week 49", "en-US", IsoDayOfWeek.Sunday));

    /// <summary>What people type by the letter is asked at each letter.</summary>
    [Fact]
    public void Whatever_is_typed_is_read_or_is_none()
    {
        foreach (var text in new[] { "week", "week 9999999999", "49. ", "in", "0000", "february 30", "🎉🎉", "\"", "next", "week -1" })
            Assert.True(SpanReader.Read(text, CultureInfo.GetCultureInfo("en-GB"), Today, IsoDayOfWeek.Monday).Count <= 2);
    }
}
