using System.Text.Encodings.Web;
using NodaTime;
using Valtro.Application.Files;
using Valtro.Application.Years;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>A calendar of an edition as its readers know it.</summary>
/// <param name="CanBeChosen">Readers can tell its entries apart, so they can narrow the page to it.</param>
/// <param name="Slug">By which addresses of narrowed pages and feeds name it.</param>
/// <param name="Named">What else such addresses may call it: plates, and slugs of before.</param>
public sealed record SourceBody(string Plate, string Name, string Colour, bool CanBeChosen, string Slug, IReadOnlyList<string> Named);

/// <summary>Colours as style sheets write them.</summary>
public sealed record PaletteBody(
    string Page, string Grid, string Busy, string Empty, string Today, string Text, string Soft, string Accent, string OnAccent)
{
    public static PaletteBody Of(Palette palette) => new(
        palette.Page.ToString(), palette.Grid.ToString(), palette.Busy.ToString(), palette.Empty.ToString(), palette.Today.ToString(),
        palette.Text.ToString(),
        palette.Soft.ToString(), palette.Accent.ToString(), palette.OnAccent.ToString());
}

/// <summary>A piece of a line, or text between pieces.</summary>
public sealed record PatternPartBody(Piece? Piece, string Text);

/// <param name="Language">Empty for the reader's own.</param>
public sealed record LookBody(
    EditionView View, IReadOnlyList<EditionView> Views, bool Navigation, bool Legend, bool ZoneLabel, ClockFace Clock, string Language,
    PaletteBody Light, PaletteBody Dark,
    DateStyle Dates, TextSize Size, Density Density, Corner Corner, Scheme Scheme, OnEntry OnEntry, string EmptyText, string FailedText,
    Grouping Grouping, SeveralDays SeveralDays, IReadOnlyList<PatternPartBody> Line, bool PicturesInMonth)
{
    public static LookBody Of(Look look) => new(
        look.View, look.Views, look.Navigation, look.Legend, look.ZoneLabel, look.Clock, look.Language, PaletteBody.Of(look.Light),
        PaletteBody.Of(look.Dark),
        look.Dates, look.Size, look.Density, look.Corner, look.Scheme, look.OnEntry, look.EmptyText, look.FailedText, look.Grouping,
        look.SeveralDays,
        [.. look.Line.Parts.Select(part => new PatternPartBody(part.Piece, part.Text))], look.PicturesInMonth);
}

/// <summary>What a reading page has to know of its edition. No address stands here: the page knows where it is.</summary>
/// <param name="From">The first day it is about; null from the beginning.</param>
/// <param name="To">The first day after it; null when it is open.</param>
/// <param name="IsWhole">It has a limit: all its entries are one part, "all".</param>
/// <param name="ShowsPlates">Whether entries carry their plates.</param>
/// <param name="Sites">Whose pages may hold it in a frame; null for any.</param>
/// <param name="IsOnFrontPage">The organisation has a front page, which lists it.</param>
/// <param name="IsLive">It tells open pages when it changes; a preview on the desk does not.</param>
public sealed record EditionBody(
    string Name, string Description, string Organisation, string Zone, string Locale, int FirstDayOfWeek, IReadOnlyList<SourceBody> Sources,
    LookBody Look,
    LocalDate? From, LocalDate? To, bool IsWhole, bool ShowsPlates, IReadOnlyList<string>? Sites, bool IsLive, bool IsOnFrontPage);

/// <param name="Address">Below the page.</param>
/// <param name="Said">Its kind and size: "PDF, 120 kB".</param>
public sealed record FileBody(string Name, string Type, long Size, string Address, string Said)
{
    public static FileBody Of(EventFile file) => new(
        file.Name, file.Type, file.Size, AddressOf(file.Id, file.Name),
        $"{Path.GetExtension(file.Name).TrimStart('.').ToUpperInvariant()}, {SizeOf(file.Size)}");

    /// <summary>Below the page.</summary>
    public static string AddressOf(Guid id, string name) => $"files/{id}/{Uri.EscapeDataString(name)}";

    /// <summary>In whole numbers, which every language writes alike.</summary>
    private static string SizeOf(long bytes) =>
        bytes < 1_000_000 ? $"{Math.Max(1, bytes / 1_000)} kB" : $"{(bytes + 500_000) / 1_000_000} MB";
}

/// <summary>The picture of an entry. It is there in some widths, too (?width=480, 960 or 1600; &amp;form=jpeg for programs that know no
/// WebP).</summary>
/// <param name="Address">Below the page.</param>
/// <param name="Alternative">What it shows; empty where nobody has said.</param>
/// <param name="Focus">Which part stays in sight where it is cut.</param>
public sealed record PictureBody(string Address, string Alternative, Focus Focus)
{
    public static PictureBody? Of(EventFile? file, PictureNote note) =>
        file is null ? null : new(FileBody.Of(file).Address, note.Alternative, note.Focus);

    /// <summary>What a place looks like.</summary>
    public static PictureBody Of(PlacePicture picture, string place) =>
        new(FileBody.AddressOf(picture.Id, picture.Name), place, Focus.Centre);

    /// <summary>The picture in its widths, as an element of a page.</summary>
    /// <param name="page">The path of the edition's page.</param>
    public string Element(string page, string cssClass, HtmlEncoder html)
    {
        const string sizes = "sizes=\"(min-width: 760px) 720px, 100vw\"";
        string Set(string form) =>
            html.Encode(string.Join(", ", Pictures.Widths.Select(width => $"{page}/{Address}?width={width}{form} {width}w")));
        var at = html.Encode($"{page}/{Address}?width=960&form=jpeg");
        var focus = Focus.ToString().ToLowerInvariant();
        return $"""
            <picture><source type="image/webp" srcset="{Set("")}" {sizes}><img class="{cssClass} focus-{focus}" src="{at}"
            srcset="{Set("&form=jpeg")}" {sizes} alt="{html.Encode(Alternative)}"></picture>

            """;
    }
}

/// <summary>Somebody responsible, as readers know them.</summary>
public sealed record PersonBody(string Name, Part Part, LocalTime? From, LocalTime? To);

/// <param name="End">Exclusive; for whole days the day after the last one.</param>
/// <param name="Description">Sanitised HTML.</param>
/// <param name="Plates">Whose it is, as far as readers may know.</param>
/// <param name="Own">The same on the event's own clock, where it is not the edition's.</param>
/// <param name="Recurs">There is a file of all its dates, too, that can be subscribed to.</param>
/// <param name="HasPage">It has a page of its own, below the edition's.</param>
public sealed record EntryBody(
    string Id, string Title, string Subtitle, string Start, string End, bool AllDay, string Place, string Description, EventState State,
    IReadOnlyList<string> Plates, CategoryBody? Category,
    ElsewhereBody? Own, IReadOnlyList<EventLink> Links, IReadOnlyList<FileBody> Files, PictureBody? Picture, string Contact, bool HasPage,
        bool IsBreak, EventKind Kind, Certainty Certainty,
        IReadOnlyList<PersonBody> People, bool Recurs, IReadOnlyList<string> Tags)
{
    /// <param name="zone">The edition's.</param>
    public static EntryBody Of(Entry entry, DateTimeZone zone)
    {
        var (told, content, timing, date) = (entry.Event, entry.Event.Content, entry.Timing, entry.Occurrence);
        var times = OccurrenceTimes.Of(timing, date, zone, told.Detail);
        var tells = told.Detail > Detail.Times;
        return new EntryBody(
            tells ? $"{told.Identity}/{times.RecurrenceId}" : OutwardNames.OfDate(told.Uid, date.RecurrenceId).ToString(),
            entry.Title, content.Subtitle, times.Start, times.End, timing.AllDay, content.Place.Name, content.Description.Html, told.State,
            [.. entry.Sources.Select(source => source.Plate.Code)],
            CategoryBody.Of(content.Category),
            ElsewhereBody.OnItsOwn(timing, date, zone),
            content.Links,
            [.. content.Files.Where(file => file.Id != told.Picture?.Id).Select(FileBody.Of)],
            PictureBody.Of(told.Picture, content.Picture),
            content.Contact,
            HasPage: tells && !entry.IsBreak,
            entry.IsBreak,
            content.Kind,
            content.Certainty,
            [.. content.People.Select(one => new PersonBody(one.Name, one.Part, one.From, one.To))],
            Recurs: tells && !entry.IsBreak && !entry.IsOnlyDate,
            content.Tags);
    }
}

/// <summary>What a reading page needs for a month (the weeks that it touches), or for all of an edition with a limit.</summary>
/// <param name="Month">Like 2026-11, or "all".</param>
/// <param name="Years">This year and the next as sheets; with "all" only.</param>
public sealed record MonthBody(
    string Month, LocalDate From, LocalDate To, EditionBody Edition, IReadOnlyList<EntryBody> Entries, IReadOnlyList<YearSheetBody> Years);

/// <summary>An entry that is not as it was.</summary>
/// <param name="More">Later dates to which the same happened.</param>
public sealed record ChangeBody(EntryChange Change, Instant At, EntryBody Entry, string WasStart, string WasEnd, string WasPlace, int More)
{
    public static ChangeBody Of(ChangedEntry changed, DateTimeZone zone)
    {
        var was = OccurrenceTimes.Of(changed.Before.Timing, changed.Before.Occurrence, zone);
        var entry = EntryBody.Of(changed.Entry, zone);
        return new ChangeBody(changed.Change, changed.At, changed.Change == EntryChange.Removed ? entry with { HasPage = false } : entry,
            was.Start, was.End, changed.Before.Event.Content.Place.Name, changed.More);
    }
}

/// <param name="HoldsBack">More has changed than is told.</param>
public sealed record ChangesBody(IReadOnlyList<ChangeBody> Changes, bool HoldsBack);
