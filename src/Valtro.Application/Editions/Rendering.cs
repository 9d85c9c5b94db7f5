using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Application.Files;
using Valtro.Application.Years;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>What was rendered, and what has to be noted with it.</summary>
public sealed record Made(Artefact Artefact, FeedNotes? Notes);

/// <summary>Makes an edition's artefacts from what is stored now. Pure but for reading the store.</summary>
/// <remarks>Whatever the API accepted can be rendered: what a stored setting or event can be asked for is cut to what is possible, never
/// refused.</remarks>
public sealed class Rendering(
    EditionReadings readings, Feeds feeds, EntryFinder entries, DeliveredStore delivered, EventStore events, RevisionStore revisions,
        FileStore files, PublicAddresses addresses, EntryPages entryPages, AtomFeeds atoms, FileHolders fileHolders, Pictures pictures,
        Work.Measures measures)
{
    /// <summary>How far an edition without an end of its own reaches when all of it is asked for at once.</summary>
    private const int YearsAhead = 2;

    /// <summary>A rendering of what everybody gets.</summary>
    /// <returns>Null when the edition shows its audience nothing.</returns>
    /// <param name="before">What was kept for this key; content that is the same keeps its time of change.</param>
    public async Task<Made?> RenderAsync(EditionAddress edition, ArtefactKey key, Artefact? before, Instant now)
    {
        using var timed = measures.Rendering(key.Kind);
        using var within = Wall.Within(edition.OrganisationId);
        if (await readings.FindAsync(edition) is not { } reading)
            return null;
        var seconds = Seconds(now);
        using var content = await ContentAsync(reading, key, now);
        var written = content.Write(before?.ChangedAt ?? seconds);
        if (before is not null && before.Etag == Rendered.EtagOf(written))
            return new Made(before with
            {
                ContentVersion = edition.ContentVersion,
                ValidUntil = content.Turn,
                ClosesAt = content.ClosesAt,
                Form = key.Form,
            }, content.Notes);
        if (before is not null)
            written = content.Write(seconds);
        var artefact = new Artefact(edition.Id, edition.OrganisationId, edition.Audience, key.ToString(), edition.ContentVersion,
            Rendered.EtagOf(written), written, seconds, content.Turn, content.ClosesAt)
        { Form = key.Form };
        return new Made(artefact, content.Notes);
    }

    /// <summary>What of a feed concerns some calendars, or is about something: its finished components, under a head of their own. Breaks
    /// concern everybody.</summary>
    public async Task<Rendered?> NarrowAsync(EditionAddress edition, ArtefactKey key, Artefact whole, Instant now)
    {
        var narrowing = key.Narrowing!;
        using var timed = measures.Rendering(key.Kind);
        using var within = Wall.Within(edition.OrganisationId);
        if (await readings.FindAsync(edition) is not { } reading)
            return null;
        var chosen = reading.Sources.Where(source => narrowing.Only?.Contains(source.Slug) != false)
            .Select(source => source.CalendarId).ToArray();
        var breaks = Feeds.NamesOfBreaks(reading, now).ToHashSet();
        var concerning = narrowing.Only is null ? null : await delivered.ConcerningAsync(edition, chosen);
        var (page, feed, _) = addresses.InFeed(edition);
        var notice = chosen.Length > 0
            ? null
            : ReadingWords.For(reading.Checked.Look.Language, edition.Locale).Fill("narrowedToNothing", "page", page.AbsoluteUri);
        var address = feed is null ? null : new Uri($"{feed.AbsoluteUri}?{narrowing.Query}");
        return Once(reading, key, FeedSelection.Of(whole.Content, Concerns, address, notice), whole.ChangedAt, whole.ValidUntil,
            whole.ClosesAt);

        bool Concerns(Uid uid, Func<IReadOnlySet<string>> categories) => chosen.Length > 0
            && (breaks.Contains(uid)
                || (concerning?.Contains(uid) != false && (narrowing.About.Count == 0 || categories().Overlaps(narrowing.About))));
    }

    /// <summary>A rendering of what only some ask for.</summary>
    /// <returns>Null when there is no such thing, or readers of the edition are not told of it.</returns>
    public async Task<Rendered?> RenderForSomeAsync(EditionAddress edition, ArtefactKey key, Instant now)
    {
        using var timed = measures.Rendering(key.Kind);
        using var within = Wall.Within(edition.OrganisationId);
        if (await readings.FindAsync(edition) is not { } reading)
            return null;
        return key.Kind switch
        {
            ArtefactKind.News => await NewsAsync(reading, now),
            ArtefactKind.EntryPage => await EntryPageAsync(reading, key, now),
            ArtefactKind.EntryFile => await EntryFileAsync(reading, key, now),
            ArtefactKind.File => await FileAsync(reading, key, now),
            _ => throw new ArgumentOutOfRangeException(nameof(key)),
        };
    }

    private static Instant Seconds(Instant now) => Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds());

    /// <summary>What is written of it, which in a feed says when it last changed; until when it is right, and from when on it must not be
    /// shown.</summary>
    private readonly record struct Content(
        Func<Instant, byte[]> Write, Instant? Turn, Instant? ClosesAt, FeedNotes? Notes = null, IDisposable? Room = null) : IDisposable
    {
        public void Dispose() => Room?.Dispose();
    }

    private async Task<Content> ContentAsync(EditionReading reading, ArtefactKey key, Instant now) => key.Kind switch
    {
        ArtefactKind.Feed =>
            await feeds.WriteAsync(reading, now) is var feed
                ? new Content(feed.Write, feed.Turn, feed.ClosesAt, feed.Notes, feed.Room)
                : default,
        ArtefactKind.Changed => Fixed(await ChangesAsync(reading, now)),
        ArtefactKind.Month when reading.Edition.Limit is null => Fixed(await MonthAsync(reading, key.Month!.Value, now)),
        _ => Fixed(await AllAsync(reading, key.Month, now)),
    };

    private static Content Fixed((byte[] Content, Instant? Turn, Instant? ClosesAt) made) =>
        new(_ => made.Content, made.Turn, made.ClosesAt);

    private static Rendered Once(EditionReading reading, ArtefactKey key, byte[] content, Instant changedAt, Instant? turn,
        Instant? closesAt, bool compresses = true) => new(
        new Artefact(reading.Address.Id, reading.OrganisationId, reading.Address.Audience, key.ToString(), reading.Address.ContentVersion,
            Rendered.EtagOf(content), content, changedAt, turn, closesAt), compresses);

    private async Task<Rendered> NewsAsync(EditionReading reading, Instant now)
    {
        var (body, turn, closes) = await ChangesOfAsync(reading, now);
        var content = atoms.Write(reading.Address, EditionOf(reading, now), body, Seconds(now));
        return Once(reading, ArtefactKey.News, content, body.Changes.Count > 0 ? body.Changes.Max(change => change.At) : Seconds(now),
            turn, closes);
    }

    private async Task<Rendered?> EntryPageAsync(EditionReading reading, ArtefactKey key, Instant now)
    {
        var (id, date) = Names(key);
        if (!DateName.TryRead(date, out var recurrenceId))
            return null;
        var (found, isGone) = await entries.FindAsync(reading, id, recurrenceId, now);
        if (found is null && !isGone)
            return null;
        var styles = entryPages.StylesOf(reading);
        if (found is null)
            return new Rendered(
                Once(reading, key, System.Text.Encoding.UTF8.GetBytes(entryPages.WriteGone(reading, styles)), Seconds(now), null,
                    null).Artefact)
            { Frame = new PageFrame(reading.Checked.Sites, styles), IsGone = true };
        var body = EntryBody.Of(found.Entry, reading.Edition.Zone);
        var place = reading.Places.FirstOrDefault(place => place.Id == found.Entry.Event.Content.Place.Id);
        OccurrenceTimes? was = found.Was is { } start
            ? OccurrenceTimes.Of(
                found.Entry.Timing.StartingAt(start), found.Entry.Timing.StartingAt(start).Occurrence(start), reading.Edition.Zone)
            : null;
        var content = System.Text.Encoding.UTF8.GetBytes(entryPages.Write(reading, styles, found.Event, found.Entry, body, place, was));
        return new Rendered(
            Once(reading, key, content, Seconds(now), null, reading.CompositionAt(now).ClosesAt([found.Event])).Artefact)
        {
            Frame =
                new PageFrame(reading.Checked.Sites, styles)
        };
    }

    private async Task<Rendered?> EntryFileAsync(EditionReading reading, ArtefactKey key, Instant now)
    {
        var (id, date) = Names(key);
        if (date.Length == 0)
            return await events.WithUidAsync(reading.OrganisationId, id) is { } whole && IsKnownBy(reading, whole, id, now)
                ? File(whole, await feeds.WriteEventAsync(reading, whole, now))
                : null;
        if (!DateName.TryRead(date, out var recurrenceId))
            return null;
        var (found, isGone) = await entries.FindAsync(reading, id, recurrenceId, now);
        return found is not null ? File(found.Event, await feeds.WriteDateAsync(reading, found.Entry, now))
            : isGone ? new Rendered(Once(reading, key, [], Seconds(now), null, null).Artefact) { IsGone = true }
            : null;

        Rendered? File(CalendarEvent calendarEvent, (byte[] Content, Instant ChangedAt)? file) => file is not { } of ? null
            : Once(reading, key, of.Content, of.ChangedAt, reading.CompositionAt(now).NextTurn([calendarEvent]),
                reading.CompositionAt(now).ClosesAt([calendarEvent]));
    }

    /// <summary>A file goes to those who see all of an event that holds it, or that something is at the place it shows, in this very
    /// edition.</summary>
    private async Task<Rendered?> FileAsync(EditionReading reading, ArtefactKey key, Instant now)
    {
        var parts = key.Name.Split('/', 3);
        var id = Guid.Parse(parts[0]);
        if (await fileHolders.FindAsync(reading, id, parts[2], now) is not { } holders
            || await files.FindAsync(reading.OrganisationId, id) is not { } file)
            return null;
        var composition = reading.CompositionAt(now);
        var sent = pictures.Narrowed(file, PictureSize.Parse(parts[1]));
        return new Rendered(
            Once(reading, key, sent.Content, Seconds(now), composition.NextTurn(holders), composition.ClosesAt(holders),
                compresses: false).Artefact, compresses: false)
        { File = (sent.Name, sent.Type) };
    }

    /// <summary>A date has no slash in it.</summary>
    private static (Uid Of, string Date) Names(ArtefactKey key)
    {
        var slash = key.Name.LastIndexOf('/');
        return (new Uid(key.Name[..slash]), key.Name[(slash + 1)..]);
    }

    /// <summary>Whether readers know the event by its own name: what is told as no more than "Busy" they know by another.</summary>
    private static bool IsKnownBy(EditionReading reading, CalendarEvent found, Uid identity, Instant now) =>
        reading.CompositionAt(now).Deliver([found]) is [{ Disclosed: { Detail: >= Detail.Headline } told }]
            && told.Uid == identity;

    private async Task<(byte[] Content, Instant? Turn, Instant? ClosesAt)> MonthAsync(EditionReading reading, YearMonth month, Instant now)
    {
        var window = WeeksOf(month, reading);
        var composition = reading.CompositionAt(now);
        var (found, composed) = await events.ComposeAsync(reading, composition, window);
        return (Chunk(reading, YearMonthPattern.Iso.Format(month), window.First, window.End, composed.Entries, now), composed.TurnsAt,
            composition.ClosesAt(found));
    }

    private async Task<(byte[] Content, Instant? Turn, Instant? ClosesAt)> AllAsync(EditionReading reading, YearMonth? month, Instant now)
    {
        var composition = reading.CompositionAt(now);
        var whole = Whole(reading, now);
        var (found, composed) = await events.ComposeAsync(reading, composition, whole);
        if (month is not { } one)
            return (Chunk(reading, "all", whole.First, whole.End, composed.Entries, now, YearsOf(reading, composed.Entries, now)),
                composed.TurnsAt, composition.ClosesAt(found));
        var weeks = WeeksOf(one, reading);
        return (Chunk(reading, YearMonthPattern.Iso.Format(one), weeks.First, weeks.End,
            [.. composed.Entries.Where(entry => entry.Occurrence.Overlaps(weeks, entry.Timing.AllDay))], now), composed.TurnsAt,
                composition.ClosesAt(found));
    }

    /// <summary>All of an edition at once: its own days; without a limit, from a year ago at most, and where it is open, two years
    /// ahead.</summary>
    private static Window Whole(EditionReading reading, Instant now)
    {
        var span = reading.Edition.SpanAt(now, reading.School);
        var today = now.InZone(reading.Edition.Zone).Date;
        var first = span.First ?? today.PlusYears(-1);
        if (reading.Edition.Limit is null)
            first = LocalDate.Max(first, today.PlusYears(-1));
        return new Window(
            first, LocalDate.Min(span.End ?? DayRange.Last, LocalDate.Max(first, today).PlusYears(YearsAhead)), reading.Edition.Zone);
    }

    private async Task<(byte[] Content, Instant? Turn, Instant? ClosesAt)> ChangesAsync(EditionReading reading, Instant now)
    {
        var (body, turn, closes) = await ChangesOfAsync(reading, now);
        return (JsonSerializer.SerializeToUtf8Bytes(body, Json.Options), turn, closes);
    }

    private async Task<(ChangesBody Body, Instant? Turn, Instant? ClosesAt)> ChangesOfAsync(EditionReading reading, Instant now)
    {
        var news = await revisions.SinceAsync(reading.OrganisationId, reading.Calendars, now - LatelyChanged.Lately);
        var today = now.InZone(reading.Edition.Zone).Date;
        var composition = reading.CompositionAt(now);
        var found = LatelyChanged.Of(composition, news, new Window(today.PlusDays(-14), today.PlusYears(1), reading.Edition.Zone));
        var body = new ChangesBody([.. found.Entries.Select(one => ChangeBody.Of(one, reading.Edition.Zone))], found.HoldsBack);
        var events = news.Select(one => one.Now).OfType<CalendarEvent>().ToArray();
        var oldest = found.Entries.Count == 0 ? (Instant?)null : found.Entries.Min(one => one.At) + LatelyChanged.Lately;
        return (body, new[] { composition.NextTurn(events), oldest, LocalTimes.StartOf(today.PlusDays(1), reading.Edition.Zone) }.Min(),
            composition.ClosesAt(events));
    }

    private static byte[] Chunk(EditionReading reading, string name, LocalDate first, LocalDate end, IReadOnlyList<Entry> entries,
        Instant now, YearSheetBody[]? years = null) => JsonSerializer.SerializeToUtf8Bytes(
        new MonthBody(name, first, end, EditionOf(reading, now), [.. entries.Select(entry => EntryBody.Of(entry, reading.Edition.Zone))],
            years ?? []), Json.Options);

    /// <summary>This year and the next. Who is not shown breaks is told nothing of the year plan.</summary>
    private static YearSheetBody[] YearsOf(EditionReading reading, IReadOnlyList<Entry> entries, Instant now)
    {
        var today = now.InZone(reading.Edition.Zone).Date;
        return [.. new[] { today, DayRange.Nearest(today.PlusYears(1)) }
            .Select(day => YearSheet.Of(reading.School, day, reading.YearStartsIn))
            .Select(sheet => YearSheetBody.Of(sheet, Often(sheet), reading.Edition.WithBreaks))];

        IEnumerable<OftenBody> Often(YearSheet sheet)
        {
            // What is told as no more than a time has no name that its dates share.
            var dates = entries.Where(entry => !entry.IsBreak && entry.Event.Detail > Detail.Times
                && entry.Occurrence.LocalStart.Date >= sheet.First && entry.Occurrence.LocalStart.Date < sheet.End).ToArray();
            var often = YearSheet.Often(dates.Select(entry => entry.Event.Identity));
            return dates.Where(entry => often.ContainsKey(entry.Event.Identity)).DistinctBy(entry => entry.Event.Identity)
                .Select(entry => new OftenBody(entry.Event.Identity.ToString(), entry.Title,
                    [.. entry.Sources.Select(source => source.Plate.Code)], often[entry.Event.Identity]));
        }
    }

    private static EditionBody EditionOf(EditionReading reading, Instant now)
    {
        var (edition, address) = (reading.Edition, reading.Address);
        var span = edition.SpanAt(now, reading.School);
        return new EditionBody(
            reading.Title, reading.Intro, address.OrganisationName, edition.Zone.Id, address.Locale, (int)edition.FirstDayOfWeek,
            [.. reading.Sources.Where(source => edition.Told(source) > Detail.Nothing)
                .OrderBy(source => source.Plate.Code, StringComparer.Ordinal)
                .Select(
                    source => new SourceBody(source.Plate.Code, source.Name, source.Hue.Name, edition.TellsPlateOf(source), source.Slug,
                        [.. reading.Named[source.CalendarId].Order(StringComparer.Ordinal)]))],
            LookBody.Of(reading.Checked.Look), span.First, span.End, edition.Limit is not null,
                edition.TitlePattern?.Has(Piece.Plate) != false, reading.Checked.Sites, address.PreviewPath is null,
                reading.Checked.OnFrontPage && address.Audience == Audience.Everyone && address.PreviewPath is null);
    }

    /// <summary>Whole weeks that the month touches.</summary>
    private static Window WeeksOf(YearMonth month, EditionReading reading)
    {
        var first = month.OnDayOfMonth(1).With(DateAdjusters.PreviousOrSame(reading.Edition.FirstDayOfWeek));
        var days = Period.DaysBetween(first, month.OnDayOfMonth(1).PlusMonths(1));
        return new Window(first, first.PlusWeeks((days + 6) / 7), reading.Edition.Zone);
    }
}
