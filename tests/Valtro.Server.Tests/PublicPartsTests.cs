using NodaTime;
using Valtro.Application;
using Valtro.Application.Editions;
using Valtro.Core.Time;

namespace Valtro.Server.Tests;

public class PublicPartsTests
{
    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    [Theory]
    [InlineData("2026-11", true)]
    [InlineData("1900-01", true)]
    [InlineData("2199-11", true)]
    [InlineData("2199-12", false)]
    [InlineData("1899-12", false)]
    [InlineData("2026-00", false)]
    [InlineData("2026-11-01", false)]
    [InlineData("2026-11'; drop table artefact", false)]
    [InlineData("", false)]
    [InlineData(null, false)]
    public void A_key_is_made_of_a_real_month_only(string? text, bool isMonth)
    {
        Assert.Equal(isMonth, ArtefactKey.TryPart(text, out var key));
        if (isMonth)
            Assert.Equal($"month:{text}", key.ToString());
    }

    [Fact]
    public void The_feed_has_a_key_of_its_own() => Assert.Equal("feed", ArtefactKey.Feed.ToString());

    private static OccurrenceTimes Times(Timing timing) => OccurrenceTimes.Of(timing, timing.Occurrence(timing.Start), timing.Zone);

    [Fact]
    public void Times_carry_the_offset_of_their_own_moment()
    {
        var night = Times(Timing.Timed(new LocalDateTime(2026, 10, 31, 23, 0), new LocalDateTime(2026, 11, 1, 6, 0), Halifax));
        Assert.Equal(("2026-10-31T23:00:00-03:00", "2026-11-01T06:00:00-04:00"), (night.Start, night.End));
    }

    [Fact]
    public void A_time_in_a_gap_is_written_as_it_is_and_named_as_it_was_meant()
    {
        var gap = Times(Timing.Timed(new LocalDateTime(2027, 3, 14, 2, 30), new LocalDateTime(2027, 3, 14, 4, 0), Halifax));
        Assert.Equal(("2027-03-14T02:30:00", "2027-03-14T03:30:00-03:00"), (gap.RecurrenceId, gap.Start));
    }

    [Fact]
    public void Whole_days_are_dates_with_an_exclusive_end()
    {
        var regatta = Times(Timing.WholeDays(new LocalDate(2026, 11, 27), new LocalDate(2026, 11, 29), Halifax));
        Assert.Equal(("2026-11-27", "2026-11-27", "2026-11-30"), (regatta.RecurrenceId, regatta.Start, regatta.End));
    }

    [Fact]
    public void Snippets_hold_no_markup_that_people_typed()
    {
        var addresses = new PublicAddresses(new Settings("", new Uri("https://dates.pinewick.example"), 1, 1, 1, null, null, "", 1, 1));
        var address = addresses.Of("pinewick", "port-watch");
        foreach (var snippet in new[] { addresses.SnippetThatFits(address, "\"><script>alert(1)</script>", Core.Editions.EditionView.List,
            5), PublicAddresses.SnippetFixed(address, "\"><script>alert(1)</script>") })
            Assert.DoesNotContain("<script>alert", snippet, StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_compressed_is_what_was_rendered()
    {
        var content = System.Text.Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("Ålesund ", 500)));
        var rendered = new Rendered(
            new Store.Artefact(Guid.NewGuid(), Guid.NewGuid(), Core.Disclosure.Audience.Everyone, "feed", 1, "etag", content,
                Instant.FromUtc(2026, 11, 23, 12, 0), null));
        using var gzip = new System.IO.Compression.GZipStream(
            new MemoryStream(rendered.Gzip!.Content), System.IO.Compression.CompressionMode.Decompress);
        using var plain = new MemoryStream();
        gzip.CopyTo(plain);
        Assert.Equal(content, plain.ToArray());
        Assert.True(rendered.Brotli!.Content.Length < content.Length / 10);
    }
}
