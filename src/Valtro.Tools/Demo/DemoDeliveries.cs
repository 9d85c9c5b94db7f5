using NodaTime;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>Programs and readers that came in the last fortnight, made up: each asks in its own rhythm, and each afternoon something
/// changed. One afternoon the rendering was late.</summary>
internal sealed class DemoDeliveries(Database database, Guid organisationId, DateTimeZone zone, Instant now)
{
    private const int Days = 14;
    private const int ChangedAtHour = 15;
    private const int LateDaysAgo = 4;
    private static readonly Duration Late = Duration.FromMinutes(40);

    private readonly DeliveryStore _deliveries = new(database);

    private LocalDate Today => now.InZone(zone).Date;

    public async Task RunAsync()
    {
        foreach (var (name, programs, readers, hasNewest) in new[]
            { ("Juniors for families", 240, 54, 0.88), ("Next at school", 31, 40, 1), ("Harbour almanac", 12, 6, 0) })
        {
            if (await database.FirstAsync<Guid?>(
                "select id from edition where organisation_id = @organisationId and name = @name", new { organisationId, name }) is { } id)
                await SeedAsync(id, programs, readers, hasNewest);
        }
        await _deliveries.FoldAsync(now);
    }

    private async Task SeedAsync(Guid edition, int programs, int readers, double hasNewest)
    {
        for (var ago = Days; ago >= 0; ago--)
        {
            var day = Today.PlusDays(-ago);
            if (ago > 0)
                await database.ExecuteAsync("""
                    insert into feed_version (organisation_id, edition_id, audience, etag, changed_at, late_since)
                    values (@organisationId, @edition, 'everyone', md5(@changed::text), @changed, @late)
                    """, new
                {
                    organisationId,
                    edition,
                    changed = Changed(day),
                    late = ago == LateDaysAgo ? Changed(day) - Late : (Instant?)null,
                });
            await _deliveries.KeepAsync(
                [.. Enumerable.Range(0, programs).Select(number => ProgramOn(edition, number, day, ago, hasNewest)).OfType<FetcherNote>(),
                    .. Enumerable.Range(0, readers).Select(number => ReaderOn(edition, number, day)).OfType<FetcherNote>()]);
            await _deliveries.KeepAsync(
            [
                new SiteNote(organisationId, edition, day, "families.pinewick.example", readers * 3 / 2 + Chance(ago, 7) / 8),
                new SiteNote(organisationId, edition, day, "learning.pinewick.example", readers / 2 + Chance(ago, 11) / 16),
                new SiteNote(organisationId, edition, day, "", 1 + Chance(ago, 3) % 3),
            ]);
        }
    }

    private Instant At(LocalDate day, double hour) => day.AtStartOfDayInZone(zone).ToInstant() + Duration.FromMinutes((long)(hour * 60));

    private Instant Changed(LocalDate day) => At(day, ChangedAtHour);

    private FetcherNote? ProgramOn(Guid edition, int number, LocalDate day, int ago, double hasNewest)
    {
        var (every, kind) = (number % 25) switch
        {
            < 2 => (0.5, ProgramKind.Desktop),
            < 12 => (1.0, ProgramKind.Phone),
            < 19 => (5.0, number % 3 == 0 ? ProgramKind.Desktop : ProgramKind.Phone),
            < 24 => (24.0, number % 4 == 0 ? ProgramKind.Other : ProgramKind.Web),
            _ => (100.0, ProgramKind.Other),
        };
        var chance = Chance(number, ago);
        var comes = every > 24 ? chance % 5 == 0 : chance % (day.DayOfWeek >= IsoDayOfWeek.Saturday ? 8 : 20) != 0;
        var first = At(day, every >= 24 ? chance % 23 : every * (chance % 10) / 10);
        // On the late day many had come before what was new was there.
        var early = ago == LateDaysAgo && chance % 3 == 0 ? Duration.FromHours(9) : Duration.Zero;
        var last = Instant.Min(now, first + Duration.FromMinutes((long)(Math.Floor(23 / every) * every * 60)) - early);
        if (!comes || first > now)
            return null;
        last = Instant.Max(first, last);
        // The version that is rendered first when the demo has begun is a little newer than all that is made up.
        var newest = last >= Changed(day) ? Changed(day) : Changed(day.PlusDays(-1));
        var has = ago == 0 ? Chance(number, 99) < hasNewest * 100 ? now + Duration.FromMinutes(2) : Changed(day.PlusDays(-1)) : newest;
        return Note(edition, "feed", number, day, kind, new Asked(
            Math.Max(1, (int)((last - first).TotalHours / every) + 1), first, last, Changed(day.PlusDays(-1)) - Duration.FromDays(1), has));
    }

    private FetcherNote? ReaderOn(Guid edition, int number, LocalDate day)
    {
        var at = At(day, 7 + (Chance(number, day.Day) % 14));
        return Chance(number, day.Day) % 3 == 0 || at > now
            ? null
            : Note(edition, number % 3 == 0 ? "page" : "embed", number, day, ProgramKind.Browser, new Asked(1, at, at, null, at));
    }

    private FetcherNote Note(Guid edition, string form, int number, LocalDate day, ProgramKind kind, Asked asked) => new(
        organisationId, edition, Audience.Everyone, form, day, At(day.PlusDays(1), 0), Named(number, day), Named(number, day.PlusDays(-1)),
        kind, asked, null);

    private static byte[] Named(int number, LocalDate day) => [(byte)(number >> 8), (byte)number, (byte)day.Month, (byte)day.Day];

    /// <summary>From 0 to 99, the same for the same.</summary>
    private static int Chance(int one, int other) => (int)((uint)((one + 1) * 7919 + (other + 1) * 104729) * 2654435761u >> 16) % 100;
}
