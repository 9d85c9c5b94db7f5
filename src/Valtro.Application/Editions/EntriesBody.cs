using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Application.Editions;

/// <summary>Which calendar an entry is of, as far as readers may know.</summary>
public sealed record EntryCalendar(string Plate, string Name);

/// <summary>Something to follow from an entry.</summary>
public sealed record EntryLink(string Label, string Url);

/// <summary>An entry for other programs: what is here is there in every answer of this version, and means the same for ever
/// (docs/json.md).</summary>
/// <param name="Id">The same as long as the date is the same.</param>
/// <param name="Start">On the edition's clock: 2026-11-24T14:00:00; of whole days 2026-11-24.</param>
/// <param name="End">Exclusive.</param>
/// <param name="StartsAt">The same as a moment; null for whole days.</param>
/// <param name="Description">Plain text.</param>
/// <param name="DescriptionHtml">The same with emphasis, lists and links.</param>
/// <param name="Page">Where it stands on a page of its own; null for what has none.</param>
public sealed record PublicEntry(
    string Id, string Title, string Subtitle, string Start, string End, bool AllDay, Instant? StartsAt, Instant? EndsAt, string Place,
    IReadOnlyList<EntryCalendar> Calendars, string? Category, IReadOnlyList<string> Tags, EventState State, EventKind Kind,
    Certainty Certainty, bool IsBreak, bool Recurs, string Description, string DescriptionHtml, IReadOnlyList<EntryLink> Links,
        string Contact,
    string? Page)
{
    public static PublicEntry Of(Entry entry, DateTimeZone zone, Uri page, bool hasPages)
    {
        var body = EntryBody.Of(entry, zone);
        return new PublicEntry(
            body.Id, body.Title, body.Subtitle, body.Start, body.End, body.AllDay, body.AllDay ? null : entry.Occurrence.Start,
            body.AllDay ? null : entry.Occurrence.End, body.Place,
            [.. entry.Sources.Select(source => new EntryCalendar(source.Plate.Code, source.Name))], body.Category?.Name, body.Tags,
            body.State, body.Kind, body.Certainty, body.IsBreak, body.Recurs, entry.Event.Content.Description.Text, body.Description,
            [.. body.Links.Select(link => new EntryLink(link.Called(), link.Url))], body.Contact,
            body.HasPage && hasPages ? $"{page.AbsoluteUri}/entries/{body.Id}" : null);
    }
}

/// <summary>What the entries are of.</summary>
/// <param name="Feed">Null for an edition whose readers have addresses of their own.</param>
/// <param name="ChangedAt">When what readers get last changed.</param>
public sealed record PublicEdition(string Name, string Description, string Organisation, string Page, string? Feed, string Zone,
    Instant ChangedAt);

/// <param name="Version">Of this form. Within one, fields are added and none is taken away.</param>
/// <param name="To">The last day.</param>
/// <param name="More">How many entries of the span are left out, since nobody gets so many at once.</param>
public sealed record EntriesBody(
    int Version, PublicEdition Edition, LocalDate From, LocalDate To, int More, IReadOnlyList<PublicEntry> Entries)
{
    private const int Current = 1;

    public static EntriesBody Of(
        EditionReading reading, (Uri Page, Uri? Feed, Uri Files) at, Window window, IReadOnlyList<Entry> entries, int more,
            Instant changed) =>
        new(Current,
            new PublicEdition(reading.Title, reading.Intro, reading.Address.OrganisationName, at.Page.AbsoluteUri, at.Feed?.AbsoluteUri,
                reading.Edition.Zone.Id, changed),
            window.First, window.End.PlusDays(-1), more,
            [.. entries.Select(entry => PublicEntry.Of(entry, reading.Edition.Zone, at.Page, hasPages: at.Feed is not null))]);
}
