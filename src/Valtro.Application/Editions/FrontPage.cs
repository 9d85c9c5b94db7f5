using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Writes a front page.</summary>
internal sealed class FrontPage(Front front, PublicAddresses addresses, WebAssets assets, FrontAsked asked, Instant now)
{
    private const int MostNext = 2;
    private const int MostFound = 40;
    private const int MostPlates = 9;

    private static readonly CompareInfo Letters = CultureInfo.InvariantCulture.CompareInfo;

    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    private readonly ReadingWords _words =
        ReadingWords.For(LanguageOf(asked), front.House.Organisation.Locale);

    /// <summary>The reader's, where pages speak it; else empty.</summary>
    public static string LanguageOf(FrontAsked asked) => asked.Languages.FirstOrDefault(Look.Languages.Contains) ?? "";

    private readonly StringBuilder _page = new(16_384);

    private Organisation Organisation => front.House.Organisation;

    private CultureInfo Culture => _words.CultureFor(Organisation.Locale);

    private string Path => $"/c/{Organisation.Slug}";

    public string Write()
    {
        var address = addresses.FrontPage(Organisation.Slug);
        var about = _words["frontAbout"];
        var entry = assets.Entry("reader/front.ts");
        Add($"""
            <!doctype html>
            <html lang="{_words.Language}"{(_words.IsRightToLeft ? " dir=\"rtl\"" : "")} class="is-page">
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Encode(Organisation.Name)}</title>
            <meta name="description" content="{Encode(about)}">
            <link rel="icon" href="/mark.svg" type="image/svg+xml">
            {HomeScreen.Elements(Encode(Path), front.House.Organisation.Slug).TrimEnd()}
            <link rel="canonical" href="{Encode(address)}">
            <meta property="og:title" content="{Encode(Organisation.Name)}">
            <meta property="og:description" content="{Encode(about)}">
            <meta property="og:type" content="website">
            <meta property="og:url" content="{Encode(address)}">
            {(asked.Find.Length > 0 ? "<meta name=\"robots\" content=\"noindex\">" : "")}
            """);
        _page.Append(entry.Style.Element).Append(entry.Elements);
        Add($"""

            </head>
            <body>
            <main class="front">
            <header class="front-head">
            <div><h1 dir="auto">{Encode(Organisation.Name)}</h1><p class="soft">{Encode(about)}{(Choosable.Length > 1
                ? $" <a href=\"#choose\">{Encode(_words["frontChoose"])}</a>" : "")}</p></div>
            <form role="search" action="{Encode(Path)}" method="get">
            <input type="search" name="find" maxlength="100" aria-label="{Encode(_words["frontFind"])}" placeholder="{Encode(_words["frontFind"])}" value="{Encode(asked.Find)}">
            <button class="plain">{Encode(_words["search"])}</button>
            </form>
            </header>

            """);
        if (front.Archive is { } archive)
            AppendArchive(archive.Term, archive.Entries);
        else if (asked.Find.Length > 0)
            AppendFound();
        else
            AppendSections(front.Lines);
        AppendChoice();
        AppendPast();
        _page.Append("</main>\n</body>\n</html>\n");
        return _page.ToString();
    }

    private void AppendFound()
    {
        var needle = asked.Find;
        var lines = front.Lines.Where(line => Says(needle, line.Name, line.Body?.Description)
            || line.Calendars.Any(calendar => Says(needle, calendar.Name, calendar.Plate.Code))).ToArray();
        var entries = front.Lines.SelectMany(line => line.Coming.Select(entry => (Line: line, Entry: entry)))
            .Where(one => Says(needle, one.Entry.Title, one.Entry.Subtitle, one.Entry.Place, one.Entry.Category?.Name))
            .DistinctBy(one => one.Entry.Id).OrderBy(one => one.Entry.Start, StringComparer.Ordinal).Take(MostFound).ToArray();
        var said = lines.Length + entries.Length == 0
            ? _words["foundNone"]
            : _words.Fill("found", "count", (lines.Length + entries.Length).ToString(CultureInfo.InvariantCulture));
        Add($"<p role=\"status\">{Encode(said)} · <a href=\"{Encode(Path)}\">{Encode(_words["frontEverything"])}</a></p>\n");
        if (entries.Length > 0)
        {
            Add($"<section><h2>{Encode(_words["frontSoon"])}</h2>\n<ul class=\"front-found\">\n");
            foreach (var (line, entry) in entries)
                AppendEntry(line, entry);
            _page.Append("</ul></section>\n");
        }
        if (front.All is { } all)
            Add($"<p><a href=\"{Encode(PathOf(all.Address))}?find={Uri.EscapeDataString(asked.Find)}\">{Encode(_words["frontFindAll"])}</a></p>\n");
        AppendSections(lines);
    }

    private static bool Says(string needle, params string?[] texts) =>
        texts.Any(text => text is not null
            && Letters.IndexOf(text, needle, CompareOptions.IgnoreCase | CompareOptions.IgnoreNonSpace) >= 0);

    /// <summary>An edition of one calendar stands in the smallest group that holds it.</summary>
    private string? GroupOf(FrontLine line) => IsOfSeveral(line) || line.Calendars.Count == 0 ? null : front.House.Groups
        .Where(group => group.Calendars.Contains(line.Calendars[0].Id)).OrderBy(group => group.Calendars.Count).FirstOrDefault()?.Name;

    private static bool IsOfSeveral(FrontLine line) => line.Stored.Draft.TakesAll || line.Calendars.Count > 1;

    private void AppendSections(IEnumerable<FrontLine> lines)
    {
        var inGroups = lines.Select(line => (Group: GroupOf(line), Line: line)).ToArray();
        AppendSection(_words["frontTogether"], inGroups.Where(one => IsOfSeveral(one.Line)));
        foreach (var group in inGroups.Where(one => one.Group is not null).GroupBy(one => one.Group!)
            .OrderBy(group => group.Key, StringComparer.Create(Culture, true)))
            AppendSection(group.Key, group);
        AppendSection(_words["frontOthers"], inGroups.Where(one => one.Group is null && !IsOfSeveral(one.Line)));
    }

    private void AppendSection(string heading, IEnumerable<(string? Group, FrontLine Line)> some)
    {
        var lines = some.Select(one => one.Line)
            .OrderByDescending(line => line.Stored.Draft.TakesAll).ThenBy(line => line.Stored.IsStandard)
            .ThenBy(line => line.Name, StringComparer.Create(Culture, true)).ToArray();
        if (lines.Length == 0)
            return;
        Add($"<section><h2 dir=\"auto\">{Encode(heading)}</h2>\n<ul class=\"front-editions\">\n");
        foreach (var line in lines)
            AppendLine(line);
        _page.Append("</ul></section>\n");
    }

    private void AppendLine(FrontLine line)
    {
        var path = PathOf(line.Address);
        Add($"<li><div class=\"front-what\"><h3>{Plates(line)} <a href=\"{Encode(path)}\" dir=\"auto\">{Encode(line.Name)}</a></h3>\n");
        if (line.Body?.Description is { Length: > 0 } about)
            Add($"<p class=\"soft\" dir=\"auto\">{Encode(about)}</p>\n");
        if (line.Body is null)
            Add($"<p class=\"soft\">{Encode(_words["frontAway"])}</p>\n");
        else if (line.Coming.Count == 0)
            Add($"<p class=\"soft\">{Encode(_words["frontNothing"])}</p>\n");
        else
            Add($"<p>{Encode(_words["frontNext"])} {string.Join(" · ", Next(line))}</p>\n");
        var name = $"<span class=\"visually-hidden\">: {Encode(line.Name)}</span>";
        Add($"""
            </div><div class="front-acts"><a class="plain" href="{Encode(path)}">{Encode(_words["frontLook"])}{name}</a>
            <a class="plain" href="{Encode(path)}?open=list">{Encode(_words["print"])}{name}</a>
            <a class="button" href="{Encode(path)}?open=subscribe">{Encode(_words["subscribe"])}{name}</a></div></li>

            """);
    }

    private IEnumerable<string> Next(FrontLine line)
    {
        return line.Coming.Where(entry => entry.State != EventState.Cancelled).OrderBy(entry => entry.Start, StringComparer.Ordinal)
            .Take(MostNext).Select(entry => $"{Title(line, entry)}, {Encode(Begins(line, entry))}");
    }

    private string Title(FrontLine line, EntryBody entry)
    {
        var title = $"<b dir=\"auto\">{Encode(entry.Title)}</b>";
        if (entry.State == EventState.Cancelled)
            title = $"<s>{title}</s> {Encode(_words["cancelled"])}";
        return entry.HasPage ? $"<a href=\"{Encode($"{PathOf(line.Address)}/entries/{entry.Id}")}\">{title}</a>" : title;
    }

    private string Begins(FrontLine line, EntryBody entry) =>
        ReadingDates.Begins(entry, _words, Culture, line.Body!.Look.Clock, line.Address.TodayAt(now));

    private static string Plates(FrontLine line)
    {
        var more = (line.Body?.Sources.Count ?? 0) - MostPlates;
        return $"{PlatesOf(line.Body?.Sources.Take(MostPlates) ?? [])}{(more > 0 ? $" <span class=\"soft\">+{more}</span>" : "")}";
    }

    private static string PlatesOf(IEnumerable<SourceBody> sources) => string.Join(' ', sources.Select(source =>
        $"<span class=\"plate hue-{source.Colour}\" title=\"{Encode(source.Name)}\">{Encode(source.Plate)}</span>"));

    /// <summary>All open calendars, to choose some of: one page and one subscription for just those.</summary>
    private void AppendChoice()
    {
        if (Choosable.Length < 2)
            return;
        Add($"<section class=\"front-choice\" id=\"choose\"><h2>{Encode(_words["frontChoose"])}</h2>\n<p>{Encode(_words["frontChooseWhy"])}</p>\n<form action=\"{Encode(Path)}\" method=\"get\"><div class=\"front-ticks\">\n");
        foreach (var source in Choosable)
            Add($"<label><input type=\"checkbox\" name=\"only\" value=\"{Encode(source.Slug)}\"> <span class=\"plate hue-{source.Colour}\">{Encode(source.Plate)}</span> <span dir=\"auto\">{Encode(source.Name)}</span></label>\n");
        Add($"</div><button class=\"button\">{Encode(_words["frontShowThese"])}</button></form></section>\n");
    }

    /// <summary>Terms that are over, each with a page of its own.</summary>
    private void AppendPast()
    {
        if (front.Past.Count == 0)
            return;
        var links = front.Past.Select(term =>
            $"<a href=\"{Encode($"{Path}?term={term.First:uuuu-MM-dd}")}\" dir=\"auto\">{Encode($"{term.Name} {term.First.Year}")}</a>");
        Add($"<p class=\"front-past\">{Encode(_words["frontPast"])} {string.Join(", ", links)}</p>\n");
    }

    /// <summary>Everything of a term that is over, month by month.</summary>
    private void AppendArchive(NamedDays term, IReadOnlyList<EntryBody> entries)
    {
        var line = front.All!;
        Add($"<p><a href=\"{Encode(Path)}\">{Encode(_words["frontEverything"])}</a></p>\n");
        Add($"<h2 dir=\"auto\">{Encode($"{term.Name}, {term.First.ToString("d MMM uuuu", Culture)} – {term.Last.ToString("d MMM uuuu", Culture)}")}</h2>\n");
        if (entries.Count == 0)
            Add($"<p class=\"soft\">{Encode(_words["foundNone"])}</p>\n");
        foreach (var month in entries.GroupBy(entry => ReadingDates.FirstDayOf(entry).ToYearMonth()))
        {
            Add($"<section><h3>{Encode(month.Key.OnDayOfMonth(1).ToString("MMMM uuuu", Culture))}</h3>\n<ul class=\"front-found\">\n");
            foreach (var entry in month)
                AppendEntry(line, entry);
            _page.Append("</ul></section>\n");
        }
    }

    private void AppendEntry(FrontLine line, EntryBody entry)
    {
        var sources = line.Body?.Sources.Where(source => entry.Plates.Contains(source.Plate)) ?? [];
        var where = entry.Place.Length > 0 ? $", {Encode(entry.Place)}" : "";
        Add($"<li>{PlatesOf(sources)} {Title(line, entry)}<span class=\"soft\">, {Encode(Begins(line, entry))}{where}</span></li>\n");
    }

    private SourceBody[] Choosable => [.. (front.All?.Body?.Sources ?? [])
        .Where(source => source.CanBeChosen).OrderBy(source => source.Name, StringComparer.Create(Culture, true))];

    private string PathOf(EditionAddress address) => new Uri(addresses.Of(address).Page).AbsolutePath;

    private static string Encode(string text) => Html.Encode(text);

    private void Add(FormattableString text) => _page.Append(text.ToString(CultureInfo.InvariantCulture));
}
