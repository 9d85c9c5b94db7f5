using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Writes the own page of an entry: it needs no script to be read.</summary>
public sealed class EntryPages(WebAssets assets, PublicAddresses addresses, Settings settings)
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    /// <summary>The style sheets that stand in the page.</summary>
    public PageStyle[] StylesOf(EditionReading reading) =>
        [assets.Entry("reader/entry.ts").Style, PageStyle.Of(LookBody.Of(reading.Checked.Look))];

    /// <summary>Says that what an address named is not there any more, whether it was removed or withdrawn.</summary>
    public string WriteGone(EditionReading reading, PageStyle[] styles)
    {
        var words = ReadingWords.For(reading.Checked.Look.Language, reading.Address.Locale);
        var page = new StringBuilder(1_024);
        page.Append(CultureInfo.InvariantCulture, $"""
            <!doctype html>
            <html lang="{words.Language}"{(words.IsRightToLeft ? " dir=\"rtl\"" : "")} class="is-page" {ReadingPages.Shape(LookBody.Of(reading.Checked.Look))}>
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <meta name="robots" content="noindex, nofollow">
            <title>{Html.Encode(words["entryGone"])} · {Html.Encode(reading.Title)}</title>
            <link rel="icon" href="/mark.svg" type="image/svg+xml">

            """);
        foreach (var style in styles)
            page.Append(style.Element);
        var path = new Uri(addresses.Of(reading.Address).Page).AbsolutePath;
        page.Append(CultureInfo.InvariantCulture, $"""

            </head>
            <body>
            <main class="entry-page">
            <p class="entry-back"><a href="{Html.Encode(path)}">{Html.Encode(words["allDates"])}</a> · {Html.Encode(reading.Title)}</p>
            <h1>{Html.Encode(words["entryGone"])}</h1>
            </main>
            </body>
            </html>

            """);
        return page.ToString();
    }

    /// <param name="was">When it was by its address, where it was moved since.</param>
    /// <param name="styles">What <see cref="StylesOf"/> gave, and the answer's policy allows.</param>
    /// <param name="place">The known place where it is, if somebody said where that is.</param>
    public string Write(EditionReading reading, PageStyle[] styles, CalendarEvent calendarEvent, Entry entry, EntryBody body,
        KnownPlace? place, OccurrenceTimes? was)
    {
        var address = reading.Address;
        var at = addresses.Of(address);
        var path = new Uri(at.Page).AbsolutePath;
        var own = $"{at.Page}/entries/{body.Id}";
        var words = ReadingWords.For(reading.Checked.Look.Language, address.Locale);
        var culture = words.CultureFor(address.Locale);
        var when = ReadingDates.When(body, words, culture, reading.Checked.Look.Clock);
        var isOpen = address.Audience == Core.Disclosure.Audience.Everyone;
        var look = LookBody.Of(reading.Checked.Look);
        var page = new StringBuilder(4_096);
        page.Append(CultureInfo.InvariantCulture, $"""
            <!doctype html>
            <html lang="{words.Language}"{(words.IsRightToLeft ? " dir=\"rtl\"" : "")} class="is-page" {ReadingPages.Shape(look)}>
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Html.Encode(body.Title)} · {Html.Encode(when)} · {Html.Encode(reading.Title)}</title>
            <link rel="icon" href="/mark.svg" type="image/svg+xml">
            <meta property="og:title" content="{Html.Encode($"{body.Title}, {when}")}">
            <meta property="og:site_name" content="{Html.Encode(address.OrganisationName)}">
            <meta property="og:type" content="website">
            <meta property="og:url" content="{Html.Encode(own)}">

            """);
        if (body.Picture is { } shared)
            page.Append(CultureInfo.InvariantCulture, $"""
                <meta property="og:image" content="{Html.Encode($"{at.Page}/{shared.Address}?width=1600&form=jpeg")}">
                <meta property="og:image:alt" content="{Html.Encode(shared.Alternative)}">

                """);
        page.Append(isOpen
            ? $"<link rel=\"canonical\" href=\"{Html.Encode(own)}\">\n"
            : "<meta name=\"robots\" content=\"noindex, nofollow\">\n");
        page.Append("<script type=\"application/ld+json\">").Append(StructuredData(reading, entry, body, own, at, place, was))
            .Append("</script>\n");
        foreach (var style in styles)
            page.Append(style.Element);
        page.Append(assets.Entry("reader/entry.ts").Elements).Append("\n</head>\n<body>\n<main class=\"entry-page\">\n");
        page.Append(CultureInfo.InvariantCulture,
            $"<p class=\"entry-back\"><a href=\"{Html.Encode(path)}\">{Html.Encode(words["allDates"])}</a> · {Html.Encode(reading.Title)}</p>\n");
        if (body.Picture is { } picture)
            page.Append(picture.Element(path, "entry-picture", Html));
        page.Append("<div class=\"entry-plates\">");
        foreach (var source in entry.Sources)
            page.Append(CultureInfo.InvariantCulture,
                $"<span class=\"plate hue-{source.Hue.Name}\">{Html.Encode(source.Plate.Code)}</span> <span class=\"soft\">{Html.Encode(source.Name)}</span> ");
        page.Append("</div>\n");
        var struck = body.State == EventState.Cancelled;
        page.Append(
            CultureInfo.InvariantCulture, $"<h1 dir=\"auto\"{(struck ? " class=\"struck\"" : "")}>{Html.Encode(body.Title)}</h1>\n");
        if (body.Subtitle.Length > 0)
            page.Append(CultureInfo.InvariantCulture, $"<p class=\"entry-subtitle\" dir=\"auto\">{Html.Encode(body.Subtitle)}</p>\n");
        if (struck)
            page.Append(CultureInfo.InvariantCulture, $"<p class=\"cancelled\">{Html.Encode(words["cancelled"])}</p>\n");
        else if (body.Certainty == Certainty.Tentative)
            page.Append(CultureInfo.InvariantCulture, $"<p class=\"tentative\">{Html.Encode(words["tentative"])}</p>\n");
        page.Append(CultureInfo.InvariantCulture,
            $"<p class=\"entry-when\"><time datetime=\"{Html.Encode(body.Start)}\" data-end=\"{Html.Encode(body.End)}\" data-zone=\"{Html.Encode(reading.Edition.Zone.Id)}\" data-clock=\"{(reading.Checked.Look.Clock == ClockFace.Twelve ? "twelve" : "twentyFour")}\" data-your-time=\"{Html.Encode(words["yourTime"])}\">{Html.Encode(when)}</time>");
        if (!body.AllDay)
            page.Append(CultureInfo.InvariantCulture,
                $" <span class=\"soft\">{Html.Encode(words.Fill("inZone", "place", ReadingDates.PlaceOf(reading.Edition.Zone.Id)))}</span>");
        page.Append("</p>\n");
        if (was is { } before)
            page.Append(CultureInfo.InvariantCulture,
                $"<p class=\"entry-moved\">{Html.Encode(words.Fill("movedFrom", "when", ReadingDates.When(before.Start, before.End, body.AllDay, culture, reading.Checked.Look.Clock)))}</p>\n");
        if (body.Own is { } clock)
            page.Append(CultureInfo.InvariantCulture,
                $"<p class=\"soft\">{Html.Encode(words.Fill("ownClock", ("place", ReadingDates.PlaceOf(clock.Zone)), ("when", ReadingDates.When(clock.Start, clock.End, false, culture, reading.Checked.Look.Clock))))}</p>\n");
        AppendPlace(page, body, place, path, words);
        if (body.Category is { } category)
            page.Append(CultureInfo.InvariantCulture,
                $"<p><span class=\"category hue-{category.Colour}\">{Html.Encode(category.Name)}</span></p>\n");
        AppendLinks(page, body, path, words);
        // Already sanitised when it was saved.
        if (body.Description.Length > 0)
            page.Append("<div class=\"rich\">").Append(body.Description).Append("</div>\n");
        foreach (var part in body.People.GroupBy(one => one.Part))
            page.Append(CultureInfo.InvariantCulture,
                $"<p>{Html.Encode(words[$"part{part.Key}"])}: {Html.Encode(string.Join(", ", part.Select(Of)))}</p>\n");
        if (body.Contact.Length > 0)
            page.Append(CultureInfo.InvariantCulture, $"<p>{Html.Encode(words["contact"])}: {Html.Encode(body.Contact)}</p>\n");
        page.Append(CultureInfo.InvariantCulture,
            $"<p class=\"entry-acts\">{Html.Encode(words["addToCalendar"])}: <a href=\"{Html.Encode($"{path}/entries/{body.Id}.ics")}\">{Html.Encode(words["thisDate"])}</a>");
        if (calendarEvent.Series.Recurs)
        {
            var series = $"entries/{body.Id.Split('/')[0]}.ics";
            var followed = new UriBuilder($"{at.Page}/{series}") { Scheme = "webcal" };
            page.Append(CultureInfo.InvariantCulture,
                $" · <a href=\"{Html.Encode($"{path}/{series}")}\">{Html.Encode(words["wholeSeries"])}</a>");
            page.Append(CultureInfo.InvariantCulture,
                $" · <a href=\"{Html.Encode(followed.Uri.AbsoluteUri)}\">{Html.Encode(words["followSeries"])}</a>");
        }
        page.Append(CultureInfo.InvariantCulture,
            $"</p>\n<p class=\"entry-acts\"><a href=\"{Html.Encode($"{path}/mail?entry={Uri.EscapeDataString(body.Id.Split('/')[0])}")}\">{Html.Encode(words["tellMe"])}</a></p>\n<p class=\"entry-acts\" id=\"share\" data-title=\"{Html.Encode($"{body.Title}, {when}")}\" data-share=\"{Html.Encode(words["share"])}\" data-copy=\"{Html.Encode(words["copyLink"])}\" data-copied=\"{Html.Encode(words["copied"])}\"></p>\n</main>\n</body>\n</html>\n");
        return page.ToString();
    }

    /// <summary>Somebody, with their own times.</summary>
    private static string Of(PersonBody person) => person switch
    {
        { From: null, To: null } => person.Name,
        { To: null } => $"{person.Name} ({person.From:HH:mm} –)",
        { From: null } => $"{person.Name} (– {person.To:HH:mm})",
        _ => $"{person.Name} ({person.From:HH:mm}–{person.To:HH:mm})",
    };

    /// <summary>The map of the reader's device (RFC 5870), and one on the web where the operator named one.</summary>
    private void AppendPlace(StringBuilder page, EntryBody body, KnownPlace? place, string path, ReadingWords words)
    {
        if (body.Place.Length == 0)
            return;
        page.Append("<p class=\"entry-place\">").Append(Html.Encode(body.Place));
        if (place is { Address.Length: > 0 })
            page.Append(", ").Append(Html.Encode(place.Address));
        if (place is { Latitude: { } latitude, Longitude: { } longitude })
        {
            var (north, east) =
                (latitude.ToString("0.######", CultureInfo.InvariantCulture), longitude.ToString("0.######", CultureInfo.InvariantCulture));
            page.Append(CultureInfo.InvariantCulture, $" · <a href=\"geo:{north},{east}\">{Html.Encode(words["map"])}</a>");
            if (place.MapLink.Length == 0 && settings.MapAddress is { } template)
                AppendMap(template.Replace("{latitude}", north, StringComparison.Ordinal)
                    .Replace("{longitude}", east, StringComparison.Ordinal)
                    .Replace("{place}", Uri.EscapeDataString(body.Place), StringComparison.Ordinal));
        }
        if (place is { MapLink.Length: > 0 })
            AppendMap(place.MapLink);
        page.Append("</p>\n");
        if (place is { AccessNote.Length: > 0 })
            page.Append(CultureInfo.InvariantCulture, $"<p class=\"soft\">{Html.Encode(place.AccessNote)}</p>\n");
        if (place?.Picture is { } picture)
            page.Append(PictureBody.Of(picture, place.Name).Element(path, "place-picture", Html));

        void AppendMap(string map) => page.Append(CultureInfo.InvariantCulture,
            $" · <a href=\"{Html.Encode(map)}\" target=\"_blank\" rel=\"noopener noreferrer\">{Html.Encode(new Uri(map).Host)}</a>");
    }

    private static void AppendLinks(StringBuilder page, EntryBody body, string path, ReadingWords words)
    {
        if (body.Links.Count + body.Files.Count == 0)
            return;
        page.Append("<ul class=\"entry-links\">");
        foreach (var link in body.Links)
            page.Append(CultureInfo.InvariantCulture,
                $"<li><a class=\"button\" href=\"{Html.Encode(link.Url)}\" target=\"_blank\" rel=\"noopener noreferrer\">{Html.Encode(words.NameOf(link))}</a></li>");
        foreach (var file in body.Files)
            page.Append(CultureInfo.InvariantCulture,
                $"<li><a href=\"{Html.Encode($"{path}/{file.Address}")}\" target=\"_blank\" rel=\"noopener\">{Html.Encode(file.Name)}</a> <span class=\"soft\">{Html.Encode(file.Said)}</span></li>");
        page.Append("</ul>\n");
    }

    /// <summary>An Event as schema.org has it. The JSON encoder writes &lt; as \u003C, so nothing in it can end the element.</summary>
    private string StructuredData(
        EditionReading reading, Entry entry, EntryBody body, string own, EditionAddresses at, KnownPlace? place, OccurrenceTimes? was)
    {
        var organizer =
            new Dictionary<string, object> { ["@type"] = "Organization", ["name"] = reading.Address.OrganisationName };
        if (reading.Address.Audience == Core.Disclosure.Audience.Everyone)
            organizer["url"] = addresses.FrontPage(reading.Address.OrganisationSlug);
        var data = new Dictionary<string, object>
        {
            ["@context"] = "https://schema.org",
            ["@type"] = "Event",
            ["name"] = body.Title,
            ["startDate"] = body.Start,
            ["endDate"] = body.AllDay ? NodaTime.Text.LocalDatePattern.Iso.Format(entry.Occurrence.LocalEnd.Date.PlusDays(-1)) : body.End,
            ["eventStatus"] = (body.State, was) switch
            {
                (EventState.Cancelled, _) => "https://schema.org/EventCancelled",
                (_, not null) => "https://schema.org/EventRescheduled",
                _ => "https://schema.org/EventScheduled",
            },
            ["url"] = own,
            ["organizer"] = organizer,
            ["location"] = LocationOf(reading, body, place),
        };
        if (was is { } before)
            data["previousStartDate"] = before.Start;
        if (entry.Event.Content.Description.Text.Length > 0)
            data["description"] = entry.Event.Content.Description.Text;
        if (body.Picture is { } picture)
            data["image"] = $"{at.Page}/{picture.Address}";
        var offers = body.Links.Where(link => link.Kind == LinkKind.Tickets)
            .Select(link => new Dictionary<string, object> { ["@type"] = "Offer", ["url"] = link.Url }).ToArray();
        if (offers.Length > 0)
            data["offers"] = offers;
        return JsonSerializer.Serialize(data, Json.Options);
    }

    /// <summary>Where it is, as well as that is known: in a place, in a call, or with whoever invites to it.</summary>
    private static Dictionary<string, object> LocationOf(EditionReading reading, EntryBody body, KnownPlace? place)
    {
        if (body.Place.Length == 0 && body.Links.FirstOrDefault(link => link.Kind == LinkKind.VideoCall) is { } call)
            return new() { ["@type"] = "VirtualLocation", ["url"] = call.Url };
        var where = new Dictionary<string, object>
        {
            ["@type"] = "Place",
            ["name"] = body.Place.Length > 0 ? body.Place : reading.Address.OrganisationName,
        };
        if (body.Place.Length > 0)
        {
            if (place is { Latitude: { } latitude, Longitude: { } longitude })
                where["geo"] =
                    new Dictionary<string, object> { ["@type"] = "GeoCoordinates", ["latitude"] = latitude, ["longitude"] = longitude };
            if (place is { Address.Length: > 0 })
                where["address"] = place.Address;
        }
        return where;
    }
}
