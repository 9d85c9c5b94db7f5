using System.Buffers;
using System.Security.Cryptography;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Time;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>Makes an edition's artefacts from what is stored now. Pure but for reading the store.</summary>
public sealed class Rendering(EditionReadings readings, EventStore events, RevisionStore revisions, PublicAddresses addresses)
{
    /// <summary>How far an edition without an end of its own reaches when all of it is asked for at once.</summary>
    private const int YearsAhead = 2;

    /// <returns>Null when the edition shows its audience nothing.</returns>
    /// <param name="before">What was kept for this key; content that is the same keeps its time of change.</param>
    public async Task<Artefact?> RenderAsync(EditionAddress edition, ArtefactKey key, Artefact? before, Instant now)
    {
        using var within = Wall.Within(edition.OrganisationId);
        if (await readings.FindAsync(edition) is not { } reading)
            return null;
        var seconds = Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds());
        var (write, turn) = await ContentAsync(reading, key, now);
        var content = write(before?.ChangedAt ?? seconds);
        if (before is not null && before.Etag == Etag(content))
            return before with { ContentVersion = edition.ContentVersion, ValidUntil = turn };
        if (before is not null)
            content = write(seconds);
        return new Artefact(edition.Id, edition.OrganisationId, edition.Audience, key.ToString(), edition.ContentVersion, Etag(content), content, seconds, turn);
    }

    /// <summary>One entry, with the edition it is in; null when it tells readers of no such date.</summary>
    /// <param name="identity">As it stands in the entry's id: of what is told as no more than "Busy" there is no page.</param>
    public async Task<(EditionReading Reading, CalendarEvent Event, Entry Entry, EntryBody Body)?> EntryAsync(EditionAddress edition, Guid identity, LocalDateTime recurrenceId, Instant now)
    {
        using var within = Wall.Within(edition.OrganisationId);
        if (await readings.FindAsync(edition) is not { } reading || await events.WithUidAsync(edition.OrganisationId, identity) is not { } happening)
            return null;
        return reading.CompositionAt(now).Find(happening, recurrenceId) is { Event.Detail: >= Detail.Headline } entry
            ? (reading, happening, entry, Body(entry, reading.Edition.Zone))
            : null;
    }

    /// <summary>Whether readers know the event by its own name: what is told as no more than "Busy" they know by another.</summary>
    public bool IsKnownBy(EditionReading reading, CalendarEvent happening, Guid identity, Instant now) =>
        reading.CompositionAt(now).Deliver([happening]) is [{ Disclosed: { Detail: >= Detail.Headline } told }] && told.Identity == identity.ToString();

    /// <summary>An iCalendar file of one event, or of one of its dates alone.</summary>
    /// <param name="only">The date; null for all of it.</param>
    public byte[]? File(EditionReading reading, CalendarEvent happening, Entry? only, Instant now)
    {
        if (reading.CompositionAt(now).Deliver([happening]) is not [var delivered])
            return null;
        return Write(reading, [only is { } date ? delivered.Alone(date) : delivered], delivered.Disclosed.Stamp.Changed);
    }

    /// <returns>What is written of it, which in a feed says when it last changed.</returns>
    private async Task<(Func<Instant, byte[]> Write, Instant? Turn)> ContentAsync(EditionReading reading, ArtefactKey key, Instant now)
    {
        if (key.Month is { } month && reading.Edition.Limit is null)
            return Fixed(await MonthAsync(reading, month, now));
        if (key.Month is not null || key == ArtefactKey.All)
            return Fixed(await AllAsync(reading, key.Month, now));
        var found = await events.OfCalendarsAsync(reading.OrganisationId, reading.Calendars);
        if (key == ArtefactKey.Changed)
            return Fixed(await ChangesAsync(reading, found, now));
        var concerning = key.Only is { } plates ? reading.Sources.Where(source => plates.Split(' ').Contains(source.Plate.Code)).Select(source => source.CalendarId).ToHashSet() : null;
        var composition = reading.CompositionAt(now, concerning);
        var delivered = composition.Deliver(found);
        return (changed => Write(reading, delivered, changed), composition.NextTurn(found));

        static (Func<Instant, byte[]>, Instant?) Fixed((byte[] Content, Instant? Turn) made) => (_ => made.Content, made.Turn);
    }

    private byte[] Write(EditionReading reading, IReadOnlyList<Delivered> delivered, Instant changed)
    {
        var (page, feed, files) = addresses.InFeed(reading.Address);
        var head = new FeedHead(reading.Address.FeedUid, reading.Title, reading.Intro, reading.Sources.FirstOrDefault()?.Hue ?? Hue.All[0], page, feed, files, changed);
        var output = new ArrayBufferWriter<byte>(64 * 1024);
        FeedWriter.Write(output, head, delivered, reading.School);
        return output.WrittenSpan.ToArray();
    }

    private async Task<(byte[] Content, Instant? Turn)> MonthAsync(EditionReading reading, YearMonth month, Instant now)
    {
        var window = WeeksOf(month, reading);
        var composed = reading.CompositionAt(now).Compose(await events.InWindowAsync(reading.OrganisationId, reading.Calendars, window), window);
        return (Chunk(reading, YearMonthPattern.Iso.Format(month), window.First, window.End, composed.Entries, now), composed.TurnsAt);
    }

    private async Task<(byte[] Content, Instant? Turn)> AllAsync(EditionReading reading, YearMonth? month, Instant now)
    {
        var span = reading.Edition.SpanAt(now, reading.School);
        var today = now.InZone(reading.Edition.Zone).Date;
        var first = span.First ?? today.PlusYears(-1);
        var window = new Window(first, LocalDate.Max(first.PlusDays(1), LocalDate.Min(span.End ?? LocalDate.MaxIsoValue, LocalDate.Max(first, today).PlusYears(YearsAhead))), reading.Edition.Zone, 5_000);
        var composed = reading.CompositionAt(now).Compose(await events.InWindowAsync(reading.OrganisationId, reading.Calendars, window), window);
        if (month is not { } one)
            return (Chunk(reading, "all", window.First, window.End, composed.Entries, now), composed.TurnsAt);
        var weeks = WeeksOf(one, reading);
        return (Chunk(reading, YearMonthPattern.Iso.Format(one), weeks.First, weeks.End, [.. composed.Entries.Where(entry => entry.Occurrence.Overlaps(weeks, entry.Timing.AllDay))], now), composed.TurnsAt);
    }

    private async Task<(byte[] Content, Instant? Turn)> ChangesAsync(EditionReading reading, IReadOnlyList<CalendarEvent> found, Instant now)
    {
        var since = now - LatelyChanged.Lately;
        var changed = await revisions.ChangedSinceAsync(reading.OrganisationId, found, since);
        var today = now.InZone(reading.Edition.Zone).Date;
        var entries = LatelyChanged.Of(reading.CompositionAt(now), changed, new Window(today.PlusDays(-14), today.PlusYears(1), reading.Edition.Zone));
        var body = new ChangesBody([.. entries.Select(one =>
        {
            var was = OccurrenceTimes.Of(one.Before.Timing, one.Before.Occurrence, reading.Edition.Zone);
            return new ChangeBody(one.Change, one.At, Body(one.Entry, reading.Edition.Zone), was.Start, was.End, one.Before.Event.Place, one.More);
        })]);
        var oldest = entries.Count == 0 ? (Instant?)null : entries.Min(one => one.At) + LatelyChanged.Lately;
        return (JsonSerializer.SerializeToUtf8Bytes(body, Json.Options), new[] { reading.CompositionAt(now).NextTurn(found), oldest, reading.Edition.Zone.AtStartOfDay(today.PlusDays(1)).ToInstant() }.Min());
    }

    private static byte[] Chunk(EditionReading reading, string name, LocalDate first, LocalDate end, IReadOnlyList<Entry> entries, Instant now) => JsonSerializer.SerializeToUtf8Bytes(
        new MonthBody(name, first, end, EditionOf(reading, now), [.. entries.Select(entry => Body(entry, reading.Edition.Zone))]), Json.Options);

    private static EditionBody EditionOf(EditionReading reading, Instant now)
    {
        var (edition, address) = (reading.Edition, reading.Address);
        var span = edition.SpanAt(now, reading.School);
        return new EditionBody(
            reading.Title, reading.Intro, address.OrganisationName, edition.Zone.Id, address.Locale, (int)edition.FirstDayOfWeek,
            [.. reading.Sources.Where(source => edition.Told(source) > Detail.Nothing).OrderBy(source => source.Plate.Code, StringComparer.Ordinal)
                .Select(source => new SourceBody(source.Plate.Code, source.Name, source.Hue.Name, edition.TellsPlateOf(source)))],
            LookBody.Of(reading.Checked.Look), span.First, span.End, edition.Limit is not null, edition.TitlePattern?.Has(Piece.Plate) != false, reading.Checked.Sites, address.PreviewPath is null);
    }

    /// <summary>Whole weeks that the month touches.</summary>
    private static Window WeeksOf(YearMonth month, EditionReading reading)
    {
        var first = month.OnDayOfMonth(1).With(DateAdjusters.PreviousOrSame(reading.Edition.FirstDayOfWeek));
        var days = Period.DaysBetween(first, month.OnDayOfMonth(1).PlusMonths(1));
        return new Window(first, first.PlusWeeks((days + 6) / 7), reading.Edition.Zone);
    }

    private static EntryBody Body(Entry entry, DateTimeZone zone)
    {
        var times = OccurrenceTimes.Of(entry.Timing, entry.Occurrence, zone, entry.Event.Detail);
        var picture = entry.Event.Picture;
        return new EntryBody(
            $"{entry.Event.Identity}/{times.RecurrenceId}", entry.Title, times.Start, times.End, entry.Timing.AllDay, entry.Event.Place,
            entry.Event.Description.Html, entry.Event.State, [.. entry.Sources.Select(source => source.Plate.Code)], CategoryBody.Of(entry.Event.Category),
            EventDesk.Elsewhere(entry.Timing, entry.Occurrence, zone) is null ? null : new ElsewhereBody(entry.Timing.Zone.Id, OccurrenceTimes.At(entry.Occurrence.Start, entry.Timing.Zone), OccurrenceTimes.At(entry.Occurrence.End, entry.Timing.Zone)),
            entry.Event.Links,
            [.. entry.Event.Files.Where(file => file.Id != picture?.Id).Select(Body)],
            picture is null ? null : Body(picture),
            entry.Event.Contact, entry.Event.Detail > Detail.Times && !entry.IsBreak, entry.IsBreak);
    }

    private static FileBody Body(EventFile file) => new(file.Name, file.Type, file.Size, $"files/{file.Id}/{Uri.EscapeDataString(file.Name)}");

    /// <summary>A strong validator of the content alone: changes that readers cannot see do not show in it.</summary>
    private static string Etag(byte[] content) => Convert.ToHexStringLower(SHA256.HashData(content).AsSpan(0, 16));
}
