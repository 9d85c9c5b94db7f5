using NodaTime;
using Valtro.Application.Editions;
using Valtro.Application.Work;
using Valtro.Core.Digests;
using Valtro.Core.Editions;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Digests;

/// <summary>Tells readers of an edition by mail what changed since they were told last: nothing where nothing did.</summary>
/// <remarks>The same computation as what changed lately on its page: it tells a change only to those who may know what was and what
/// is.</remarks>
internal sealed class DigestWorker(
    SubscriberStore subscribers, EditionStore editions, EditionReadings readings, RevisionStore revisions, DigestLetters letters,
        IClock clock)
        : IWorker
{
    public WorkKind Kind => WorkKind.Digest;

    public int AtOnce => 1;

    public Duration Claim => Duration.FromMinutes(5);

    public Duration? WaitAfter(int failures) => failures < 10 ? Duration.FromMinutes(Math.Pow(2, failures - 1)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        var (organisationId, edition) = (work.OrganisationId!.Value, Guid.Parse(work.Key));
        var now = clock.GetCurrentInstant();
        var goingOut = await editions.GoingOutAsync(edition);
        while (await subscribers.DueAsync(organisationId, edition, now) is { Count: > 0 } due)
        {
            stopping.ThrowIfCancellationRequested();
            var told = new List<(Subscriber, Instant, MailLetter?)>();
            foreach (var some in due.GroupBy(one => one.Audience))
            {
                var address = goingOut.FirstOrDefault(one => one.Audience == some.Key && one.AccountId is null);
                told.AddRange(await OfAsync(address, [.. some], now));
            }
            await subscribers.ToldAsync(organisationId, told, now);
        }
        return await subscribers.NextAsync(organisationId, edition);
    }

    /// <param name="address">Null while it does not go out: nobody is told anything then.</param>
    private async Task<IReadOnlyList<(Subscriber, Instant, MailLetter?)>> OfAsync(
        EditionAddress? address, IReadOnlyList<Subscriber> due, Instant now)
    {
        using var within = Wall.Within(due[0].OrganisationId);
        if (address is null || await readings.FindAsync(address) is not { } reading)
            return [.. due.Select(one => (one, one.Rhythm.NextAfter(now, DateTimeZone.Utc), (MailLetter?)null))];
        var zone = reading.Edition.Zone;
        var since = Instant.Max(due.Min(one => one.ToldUntil!.Value), now - LatelyChanged.Lately);
        var today = now.InZone(zone).Date;
        var news = await revisions.SinceAsync(reading.OrganisationId, reading.Calendars, since);
        var found = LatelyChanged.Of(
            reading.CompositionAt(now), news, new Window(today.PlusDays(-14), today.PlusYears(1), zone));
        return [.. due.Select(one =>
        {
            var concerning = found.Entries.Where(change => change.At >= one.ToldUntil && Concerns(one, change, reading))
                .Select(change => ChangeBody.Of(change, zone)).ToArray();
            return (one, one.Rhythm.NextAfter(now, zone),
                concerning.Length == 0 ? null : letters.Changes(one, reading, concerning, found.HoldsBack && one.EventId is null));
        })];
    }

    private static bool Concerns(Subscriber subscriber, ChangedEntry change, EditionReading reading)
    {
        if (subscriber.EventId is { } one)
            return change.Entry.EventId == one || change.Entry.LookAlikes.Any(other => other.EventId == one);
        return subscriber.Only is not { } only || change.Entry.Sources.Any(source => only.Intersect(
            reading.Named[source.CalendarId].Append(source.Slug).Append(source.Plate.Code), StringComparer.OrdinalIgnoreCase).Any());
    }
}
