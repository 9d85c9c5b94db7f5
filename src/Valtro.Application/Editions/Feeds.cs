using System.Buffers;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>A feed made from what is stored now.</summary>
/// <param name="Write">With when it last changed.</param>
/// <param name="Turn">When it becomes another by itself.</param>
/// <param name="Room">To be given back once it is written.</param>
public readonly record struct WrittenFeed(Func<Instant, byte[]> Write, Instant? Turn, Instant? ClosesAt, FeedNotes Notes, IDisposable Room);

/// <summary>Makes the feeds of editions, each component stamped by what was delivered last, and files of single events and dates.</summary>
/// <remarks>Only what goes out as a feed is noted. Files read what was noted, and note nothing.</remarks>
public sealed class Feeds(EventStore events, DeliveredStore delivered, PublicAddresses addresses)
{
    /// <summary>How far an edition without an end of its own reaches in a feed of dates, from 1 January.</summary>
    private const int YearsOfDates = 3;

    /// <summary>A feed of dates has no more: what is over goes first, then what is furthest ahead.</summary>
    public const int MostDates = 20_000;

    public async Task<WrittenFeed> WriteAsync(EditionReading reading, Instant now)
    {
        var memory = await delivered.OfAsync(reading.Address);
        var composition = reading.CompositionAt(now);
        var components = ComponentsOf(reading, now);
        var (names, turn, closesAt) = reading.Edition.Feed == FeedForm.Dates
            ? await AddDatesAsync(reading, composition, components, memory, now)
            : await AddSeriesAsync(reading, composition, components, memory, now);
        var stamps = new Stamps(components.Written, memory.Stamps, memory.Floor, reading.Address.ContentVersion,
            Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds()));
        var notes = new FeedNotes(stamps.Changed, names,
            [.. reading.Sources.SelectMany(source => new[] { (source.Slug, source.CalendarId), (source.Plate.Code, source.CalendarId) })]);
        return new WrittenFeed(
            changed => Write(reading, components, stamps, changed), Sooner(turn, YearEnds(reading, now)), closesAt, notes, components);
    }

    /// <summary>All that its readers get, date by date: on the edition's own days, else as far as a feed of dates reaches.</summary>
    public async Task<IReadOnlyList<Entry>> EntriesAsync(EditionReading reading, Instant now)
    {
        var (_, composed) = await events.ComposeAsync(reading, reading.CompositionAt(now), WindowOfDates(reading, now));
        return AtMost(composed.Entries, now);
    }

    internal static Window WindowOfDates(EditionReading reading, Instant now) =>
        WindowOfDates(reading, now, reading.Edition.Limit is not null);

    /// <summary>One event with all its dates, as the feed has it.</summary>
    /// <returns>Null when the edition does not deliver it.</returns>
    public async Task<(byte[] Content, Instant ChangedAt)?> WriteEventAsync(EditionReading reading, CalendarEvent found, Instant now)
    {
        if (reading.CompositionAt(now).Deliver([found]) is not [{ Disclosed.Detail: > Detail.Times } one])
            return null;
        var memory = await delivered.OfAsync(reading.Address);
        using var components = ComponentsOf(reading, now);
        components.AddSeries(one, memory.Names.GetValueOrDefault(new SourceDate(found.Id, null))?.Uid ?? one.Disclosed.Uid);
        return Write(reading, components, memory, now, known => known);
    }

    /// <summary>One date as a file: an event of its own, which replaces no other date of the same series.</summary>
    public Task<(byte[] Content, Instant ChangedAt)> WriteDateAsync(EditionReading reading, Entry entry, Instant now) =>
        WriteDatesAsync(reading, [entry], now);

    /// <summary>Dates as a file, each an event of its own.</summary>
    public async Task<(byte[] Content, Instant ChangedAt)> WriteDatesAsync(
        EditionReading reading, IReadOnlyList<Entry> entries, Instant now)
    {
        var memory = await delivered.OfAsync(reading.Address);
        var composition = reading.CompositionAt(now);
        using var components = ComponentsOf(reading, now);
        // Which of the feed's components a date takes its stamp from: the first that went out.
        var stampedAs = new Dictionary<ComponentName, ComponentName[]>();
        foreach (var entry in entries)
        {
            if (entry.IsBreak)
            {
                components.AddDate(entry, entry.Title, NameOfBreak(reading, entry));
                continue;
            }
            var date = new SourceDate(entry.EventId!.Value, entry.Occurrence.RecurrenceId);
            var series = memory.Names.GetValueOrDefault(date with { Date = null })?.Uid ?? entry.Event.Uid;
            var goesOutAlone = reading.Edition.Feed == FeedForm.Dates || entry.Event.Detail == Detail.Times;
            var own = goesOutAlone && memory.Names.GetValueOrDefault(date) is { } known ? known.Uid
                : entry.IsOnlyDate ? series
                : OutwardNames.OfDate(series, entry.Occurrence.RecurrenceId);
            components.AddDate(entry, composition.FullTitle(entry), own);
            stampedAs[new ComponentName(own, "")] = [
                new ComponentName(series, NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(entry.Occurrence.RecurrenceId)),
                new ComponentName(series, "")];
        }
        return Write(reading, components, memory, now, name => memory.Stamps.ContainsKey(name)
            ? name
            : stampedAs.GetValueOrDefault(name)?.FirstOrDefault(memory.Stamps.ContainsKey) ?? name);
    }

    /// <param name="stampedAs">What a component takes its stamp from.</param>
    private (byte[] Content, Instant ChangedAt) Write(EditionReading reading, Components components, FeedMemory memory, Instant now,
        Func<ComponentName, ComponentName> stampedAs)
    {
        // A file says what the feed said last, so that the same content is the same bytes.
        var known = components.Written.Select(component => (component, Stamp: memory.Stamps.GetValueOrDefault(stampedAs(component.Name))))
            .Where(one => one.Stamp is not null)
            .ToDictionary(one => one.component.Name, one => one.Stamp! with { Name = one.component.Name, Digest = null, GoneAt = null });
        var changedAt = known.Count == 0
            ? Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds())
            : known.Values.Max(stamp => stamp.ChangedAt);
        return (Write(reading, components, new Stamps(components.Written, known, memory.Floor, reading.Address.ContentVersion, changedAt),
            changedAt), changedAt);
    }

    private Components ComponentsOf(EditionReading reading, Instant now) =>
        new(reading.School, addresses.InFeed(reading.Address).Files, PlacesOf(reading), Components.HorizonAt(now, reading.Edition.Zone),
            reading.Edition);

    private static Dictionary<Guid, PlaceTold> PlacesOf(EditionReading reading) =>
        reading.Places.ToDictionary(place => place.Id, place => place.Told);

    private async Task<(IReadOnlyList<OutwardName> Names, Instant? Turn, Instant? ClosesAt)> AddSeriesAsync(
        EditionReading reading, Composition composition, Components components, FeedMemory memory, Instant now)
    {
        var found = await events.OfCalendarsAsync(reading.OrganisationId, reading.Calendars);
        var all = composition.Deliver(found).ToLookup(one => one.Disclosed.Detail > Detail.Times);
        Delivered[] series = [.. all[true]];
        // A rule would say which of the busy dates belong together.
        var window = WindowOfDates(reading, now, hasLimit: false);
        var busy = AtMost([.. all[false].SelectMany(one => composition.Dates(one.Event, window))], now);
        Outgoing[] outgoing =
        [
            .. series.Select(one => new Outgoing([
                (new SourceDate(one.Event.Id, null), one.Disclosed.Uid),
                .. one.LookAlikes.Select(other => (new SourceDate(other.Id, null), (Uid?)other.Uid))])),
            .. busy.Select(entry => new Outgoing([(new SourceDate(entry.EventId!.Value, entry.Occurrence.RecurrenceId), null)])),
        ];
        var (names, changed) = OutwardNames.Give(outgoing, memory.Names, memory.OutSince, Uid.New);
        for (var index = 0; index < series.Length; index++)
            components.AddSeries(series[index], names[index]);
        for (var index = 0; index < busy.Count; index++)
            components.AddDate(busy[index], composition.FullTitle(busy[index]), names[series.Length + index]);
        foreach (var closed in composition.Breaks(Components.HorizonAt(now, reading.Edition.Zone)))
            components.AddDate(closed, closed.Title, NameOfBreak(reading, closed));
        return (changed, composition.NextTurn(found), composition.ClosesAt(found));
    }

    private async Task<(IReadOnlyList<OutwardName> Names, Instant? Turn, Instant? ClosesAt)> AddDatesAsync(
        EditionReading reading, Composition composition, Components components, FeedMemory memory, Instant now)
    {
        var window = WindowOfDates(reading, now, reading.Edition.Limit is not null);
        var (found, composed) = await events.ComposeAsync(reading, composition, window);
        var entries = AtMost(composed.Entries, now);
        var outgoing = entries.Where(entry => !entry.IsBreak)
            .Select(
                entry => new Outgoing(
                    [(new SourceDate(entry.EventId!.Value, entry.Occurrence.RecurrenceId), null),
                        .. entry.LookAlikes.Select(other => (other, (Uid?)null))]))
                .ToArray();
        var (names, changed) = OutwardNames.Give(outgoing, memory.Names, memory.OutSince, Uid.New);
        var next = 0;
        foreach (var entry in entries)
            components.AddDate(entry, composition.FullTitle(entry), entry.IsBreak ? NameOfBreak(reading, entry) : names[next++]);
        return (changed, composed.TurnsAt, composition.ClosesAt(found));
    }

    internal static IReadOnlyList<Entry> AtMost(IReadOnlyList<Entry> entries, Instant now) => entries.Count <= MostDates ? entries
        : [.. entries.Where(entry => entry.Occurrence.End > now).OrderBy(entry => entry.Occurrence.Start).Take(MostDates)];

    /// <summary>The edition's own days; where it is open, from 1 January of last year, some years on. So its bytes change by the clock once
    /// a year only.</summary>
    private static Window WindowOfDates(EditionReading reading, Instant now, bool hasLimit)
    {
        var span = reading.Edition.SpanAt(now, reading.School);
        var year = now.InZone(reading.Edition.Zone).Year;
        var first = span.First ?? new LocalDate(year - 1, 1, 1);
        if (!hasLimit)
            first = LocalDate.Max(first, new LocalDate(year - 1, 1, 1));
        var last = new LocalDate(Math.Min(Math.Max(year, first.Year) + YearsOfDates, DayRange.Last.Year), 1, 1);
        return new Window(first, span.End is { } end && end < last ? end : last, reading.Edition.Zone);
    }

    /// <summary>By which readers' programs know the breaks of the year plan; none where the edition does not show them.</summary>
    internal static IEnumerable<Uid> NamesOfBreaks(EditionReading reading, Instant now) =>
        reading.CompositionAt(now).Breaks(DayRange.Last).Select(closed => NameOfBreak(reading, closed));

    private static Uid NameOfBreak(EditionReading reading, Entry closed) =>
        OutwardNames.OfDate(Uid.Of(reading.Address.Id), closed.Occurrence.LocalStart);

    private static Instant YearEnds(EditionReading reading, Instant now) =>
        LocalTimes.StartOf(new LocalDate(now.InZone(reading.Edition.Zone).Year + 1, 1, 1), reading.Edition.Zone);

    private static Instant? Sooner(Instant? one, Instant other) => one < other ? one : other;

    private byte[] Write(EditionReading reading, Components components, Stamps stamps, Instant changed)
    {
        var (page, feed, _) = addresses.InFeed(reading.Address);
        var head =
            new FeedHead(Uid.Of(reading.Address.FeedUid), reading.Title, reading.Intro, reading.Sources.FirstOrDefault()?.Hue ?? Hue.All[0],
            page, feed, changed, reading.Edition.Zone)
            { Freshness = reading.Checked.Freshness };
        var output = new ArrayBufferWriter<byte>(64 * 1024);
        FeedWriter.Write(output, head, components, stamps);
        return output.WrittenSpan.ToArray();
    }
}
