using System.Buffers;
using System.Security.Cryptography;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Server.Api;
using Valtro.Store;

namespace Valtro.Server.Public;

/// <summary>The parts of an edition that are rendered and kept: its feed, and a month of its entries.</summary>
public readonly record struct ArtefactKey
{
    private static readonly YearMonthPattern MonthPattern = YearMonthPattern.Iso;
    private static readonly YearMonth Earliest = new(1900, 1);
    private static readonly YearMonth Latest = new(2199, 11);

    /// <summary>The month, or null for the feed.</summary>
    public YearMonth? Month { get; }

    private ArtefactKey(YearMonth? month) => Month = month;

    public static ArtefactKey Feed { get; } = new(null);

    public static ArtefactKey Of(YearMonth month) => new(month);

    /// <summary>From 2026-11; false when that is no month between 1900 and 2199.</summary>
    public static bool TryMonth(string? text, out ArtefactKey key)
    {
        var parsed = MonthPattern.Parse(text ?? "");
        var possible = parsed.Success && parsed.Value.CompareTo(Earliest) >= 0 && parsed.Value.CompareTo(Latest) <= 0;
        key = possible ? new ArtefactKey(parsed.Value) : default;
        return possible;
    }

    public override string ToString() => Month is { } month ? $"month:{MonthPattern.Format(month)}" : "feed";
}

/// <param name="Page">The reading page's address.</param>
/// <param name="IsLive">It tells open pages when it changes; a preview on the desk does not.</param>
public sealed record EditionBody(
    string Name, string Description, string Organisation, string Zone, string Locale, int FirstDayOfWeek, string Plate, string Colour,
    string Page, string Feed, string Webcal, bool IsLive);

/// <param name="Address">Where readers of this edition fetch it.</param>
public sealed record FileBody(string Name, string Type, long Size, string Address);

/// <param name="End">Exclusive; for whole days the day after the last one.</param>
/// <param name="Description">Sanitised HTML.</param>
/// <param name="Own">The same on the event's own clock, where it is not the calendar's.</param>
public sealed record EntryBody(
    string Id, string Title, string Start, string End, bool AllDay, string Place, string Description, EventState State, string Plate, string Colour,
    ElsewhereBody? Own, IReadOnlyList<EventLink> Links, IReadOnlyList<FileBody> Files, string Contact);

/// <summary>What a reading page needs for a month: the weeks that the month touches.</summary>
public sealed record MonthBody(string Month, LocalDate From, LocalDate To, EditionBody Edition, IReadOnlyList<EntryBody> Entries);

/// <summary>Makes an edition's artefacts from what is stored now. Pure but for reading the store.</summary>
public sealed class Rendering(CalendarStore calendars, EventStore events, YearPlanStore yearPlans, PublicAddresses addresses)
{
    /// <returns>Null when the edition shows its audience nothing.</returns>
    /// <param name="before">What was kept for this key; content that is the same keeps its time of change.</param>
    public async Task<Artefact?> RenderAsync(EditionAddress edition, ArtefactKey key, Artefact? before, Instant now)
    {
        using var within = Wall.Within(edition.OrganisationId);
        var calendar = await calendars.FindAsync(edition.OrganisationId, edition.CalendarId);
        if (calendar is null || calendar.Disclosure[edition.Audience] == Detail.Nothing)
            return null;
        // The version is read before the events: at worst the artefact is taken for older than it is, and made again.
        var seconds = Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds());
        var found = await EventsAsync(calendar, key, edition);
        var school = await yearPlans.SchoolAsync(edition.OrganisationId);
        var source = new Source(calendar.Id, calendar.Plate, calendar.Name, calendar.Hue, calendar.Disclosure, found);
        var content = key.Month is { } month
            ? Month(edition, calendar, source, school, month, now)
            : Feed(edition, calendar, source, school, before?.ChangedAt ?? seconds, now);
        var turn = Composition.NextTurn([source], edition.Audience, now);
        if (before is not null && before.Etag == Etag(content))
            return before with { ContentVersion = calendar.ContentVersion, ValidUntil = turn };
        if (key.Month is null && before is not null)
            content = Feed(edition, calendar, source, school, seconds, now);
        return new Artefact(edition.Id, edition.OrganisationId, edition.Audience, key.ToString(), calendar.ContentVersion, Etag(content), content, seconds, turn);
    }

    private async Task<IReadOnlyList<CalendarEvent>> EventsAsync(Calendar calendar, ArtefactKey key, EditionAddress edition) =>
        key.Month is { } month
            ? await events.InWindowAsync(calendar.OrganisationId, [calendar.Id], WindowOf(month, edition, calendar.Zone))
            : await events.OfCalendarAsync(calendar.OrganisationId, calendar.Id);

    /// <summary>Whole weeks that the month touches.</summary>
    private static Window WindowOf(YearMonth month, EditionAddress edition, DateTimeZone zone)
    {
        var first = month.OnDayOfMonth(1).With(DateAdjusters.PreviousOrSame((IsoDayOfWeek)edition.FirstDayOfWeek));
        var days = Period.DaysBetween(first, month.OnDayOfMonth(1).PlusMonths(1));
        return new Window(first, first.PlusWeeks((days + 6) / 7), zone);
    }

    private byte[] Feed(EditionAddress edition, Calendar calendar, Source source, SchoolCalendar school, Instant changed, Instant now)
    {
        var address = addresses.Of(edition);
        var head = new FeedHead(edition.FeedUid, calendar.Name, calendar.Description, calendar.Hue, new Uri(address.Page), new Uri(address.Feed), changed);
        var output = new ArrayBufferWriter<byte>(64 * 1024);
        FeedWriter.Write(output, head, [.. Composition.Disclose(source, edition.Audience, now)], school);
        return output.WrittenSpan.ToArray();
    }

    private byte[] Month(EditionAddress edition, Calendar calendar, Source source, SchoolCalendar school, YearMonth month, Instant now)
    {
        var address = edition.PreviewPath is { } path ? new EditionAddresses(path, path, "", "") : addresses.Of(edition);
        var window = WindowOf(month, edition, calendar.Zone);
        var body = new MonthBody(
            YearMonthPattern.Iso.Format(month),
            window.First,
            window.End,
            new EditionBody(
                calendar.Name, calendar.Description, edition.OrganisationName, calendar.Zone.Id, edition.Locale, edition.FirstDayOfWeek,
                calendar.Plate.Code, calendar.Hue.Name, address.Page, address.Feed, address.Webcal, edition.PreviewPath is null),
            [.. Composition.Compose([source], edition.Audience, window, school, now).Select(entry => Body(entry, calendar.Zone, address.Page))]);
        return JsonSerializer.SerializeToUtf8Bytes(body, Json.Options);
    }

    private static EntryBody Body(Entry entry, DateTimeZone zone, string page)
    {
        var times = OccurrenceTimes.Of(entry.Timing, entry.Occurrence, zone, entry.Event.Detail);
        return new EntryBody(
            $"{entry.Event.Identity}/{times.RecurrenceId}", entry.Event.Title, times.Start, times.End, entry.Timing.AllDay, entry.Event.Place,
            entry.Event.Description.Html, entry.Event.State, entry.Event.Detail > Detail.Times ? entry.Source.Plate.Code : "", entry.Source.Hue.Name,
            EventDesk.Elsewhere(entry.Timing, entry.Occurrence, zone) is null ? null : new ElsewhereBody(entry.Timing.Zone.Id, OccurrenceTimes.At(entry.Occurrence.Start, entry.Timing.Zone), OccurrenceTimes.At(entry.Occurrence.End, entry.Timing.Zone)),
            entry.Event.Links,
            [.. entry.Event.Files.Select(file => new FileBody(file.Name, file.Type, file.Size, $"{page}/files/{file.Id}/{Uri.EscapeDataString(file.Name)}"))],
            entry.Event.Contact);
    }

    /// <summary>A strong validator of the content alone: changes that readers cannot see do not show in it.</summary>
    private static string Etag(byte[] content) => Convert.ToHexStringLower(SHA256.HashData(content).AsSpan(0, 16));
}
