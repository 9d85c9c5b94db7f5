using System.Buffers;
using System.Text.Json;
using NodaTime;
using Valtro.Application.Events;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Makes what is taken along of an edition: the same composition as its page and its feed, in another form.</summary>
public sealed class Takings(
    EditionReadings readings, Feeds feeds, Rendering rendering, EventStore events, PublicAddresses addresses, Work.Measures measures)
{
    /// <summary>So far ahead it is said when somebody is busy, where no span is asked for.</summary>
    private const int BusyDays = 92;

    /// <summary>What is made of some entries.</summary>
    /// <param name="MoreAt">Until when it is right besides; null for as long as its entries are.</param>
    private readonly record struct Made(byte[] Content, Instant? MoreAt = null);

    /// <returns>Null when the edition shows its audience nothing.</returns>
    /// <param name="feed">All of the feed as it is now: stamps and names are taken from what went out.</param>
    public async Task<Rendered?> RenderAsync(EditionAddress edition, Taking taking, Artefact feed, Instant now)
    {
        using var timed = measures.Rendering(ArtefactKind.Taken);
        using var within = Wall.Within(edition.OrganisationId);
        var key = ArtefactKey.Taken(taking);
        if (taking is { Form: TakenForm.JCal, HasSpan: false })
        {
            var whole = taking.Narrowing.IsNone
                ? feed
                : (await rendering.NarrowAsync(edition, ArtefactKey.FeedOf(taking.Narrowing), feed, now))?.Artefact;
            return whole is null ? null : Kept(whole, key, JCalWriter.Of(whole.Content), whole.ValidUntil, whole.ClosesAt);
        }
        if (await readings.FindAsync(edition) is not { } reading)
            return null;
        var composition = reading.CompositionAt(now);
        var window = WindowOf(reading, taking, now);
        var (found, composed) = await events.ComposeAsync(reading, composition, window);
        var chosen = composed.Entries.Where(Concerns).ToArray();
        var entries = Feeds.AtMost(chosen, now);
        var made = taking.Form switch
        {
            TakenForm.Busy => Busy(reading, window, entries, feed, now),
            TakenForm.Csv => new Made(OccurrenceFiles.WriteTable(ListForm.Csv, entries, reading.Edition.Zone, SpeechOf(reading))),
            TakenForm.Json => new Made(JsonSerializer.SerializeToUtf8Bytes(
                EntriesBody.Of(reading, addresses.InFeed(edition), window, entries, chosen.Length - entries.Count, feed.ChangedAt),
                Json.Options)),
            TakenForm.JCal => new Made(JCalWriter.Of((await feeds.WriteDatesAsync(reading, entries, now)).Content)),
            _ => new Made((await feeds.WriteDatesAsync(reading, entries, now)).Content),
        };
        // Where no span is asked for, what is shown goes on with the year.
        var turns = new[] { composed.TurnsAt, made.MoreAt, feed.ValidUntil }.Min();
        return Kept(feed, key, made.Content, turns, composition.ClosesAt(found));

        bool Concerns(Entry entry) => entry.IsBreak
            || ((taking.Narrowing.Only is not { } only
                    || entry.Sources.Any(source => only.Contains(source.Slug)))
                && (taking.Narrowing.About.Count == 0 || AboutOf(entry.Event.Content).Intersect(
                    taking.Narrowing.About, StringComparer.OrdinalIgnoreCase).Any()));
    }

    private static IEnumerable<string> AboutOf(EventContent content) =>
        content.Category is { } category ? content.Tags.Append(category.Name) : content.Tags;

    private static Speech SpeechOf(EditionReading reading) => Speech.For(
        reading.Checked.Look.Language is { Length: > 0 } own ? own : reading.Address.Locale.Split('-')[0]);

    private static Rendered Kept(Artefact feed, ArtefactKey key, byte[] content, Instant? turn, Instant? closesAt) => new(feed with
    {
        Key = key.ToString(),
        Content = content,
        Etag = Rendered.EtagOf(content),
        ValidUntil = turn,
        ClosesAt = closesAt,
    });

    private static Window WindowOf(EditionReading reading, Taking taking, Instant now)
    {
        var whole = taking.Form == TakenForm.Busy
            ? new Window(reading.Address.TodayAt(now), reading.Address.TodayAt(now).PlusDays(BusyDays), reading.Edition.Zone)
            : Feeds.WindowOfDates(reading, now);
        var first = taking.First ?? LocalDate.Min(whole.First, taking.Last ?? whole.First);
        var end = taking.Last?.PlusDays(1) ?? LocalDate.Max(whole.End, first.PlusDays(1));
        return new Window(LocalDate.Max(first, end.PlusYears(-Taking.MostYears - 2)), end, reading.Edition.Zone);
    }

    /// <summary>Days that have passed are told no more: it is another each day.</summary>
    private static Made Busy(EditionReading reading, Window window, IReadOnlyList<Entry> entries, Artefact feed, Instant now)
    {
        var zone = reading.Edition.Zone;
        var today = LocalTimes.StartOf(now.InZone(zone).Date, zone);
        var output = new ArrayBufferWriter<byte>(4_096);
        FreeBusyWriter.Write(
            output, Uid.Of(reading.Address.FeedUid).Hidden("busy"), Instant.Max(feed.ChangedAt, today),
            new Interval(LocalTimes.StartOf(window.First, zone), LocalTimes.StartOf(window.End, zone)),
            entries.Where(entry => !entry.IsBreak).Select(EditionObjects.DateOf).Where(date => date.TakesTime)
                .Select(date => (new Interval(date.Start, date.End), date.IsCertain)));
        return new Made(output.WrittenSpan.ToArray(), LocalTimes.StartOf(now.InZone(zone).Date.PlusDays(1), zone));
    }
}
