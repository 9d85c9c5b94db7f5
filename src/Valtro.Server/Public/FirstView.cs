using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Editions;
using Valtro.Core.Events;

namespace Valtro.Server.Public;

/// <summary>
/// The first view of a reading page as the script will draw it, so that it is painted from the first response. The script puts
/// its own in the place of it; the same classes (src/web/reader) see to it that nothing moves. Until then nothing in it can be pressed.
/// </summary>
internal sealed class FirstView
{
    private const int MostOnDay = 6;

    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    private readonly EditionBody _edition;
    private readonly ReadingWords _words;
    private readonly CultureInfo _culture;
    private readonly LocalDate _today;
    private readonly PageAddresses _at;
    private readonly StringBuilder _page;
    private readonly string _time;

    private FirstView(StringBuilder page, EditionBody edition, ReadingWords words, PageAddresses at, LocalDate today)
    {
        (_page, _edition, _words, _at, _today) = (page, edition, words, at, today);
        _culture = words.CultureFor(edition.Locale);
        _time = edition.Look.Clock switch { ClockFace.Twelve => "h:mm tt", ClockFace.TwentyFour => "HH:mm", _ => _culture.DateTimeFormat.ShortTimePattern };
    }

    public static void Write(StringBuilder page, EditionBody edition, ReadingWords words, PageAddresses at, LocalDate today, MonthBody part, IReadOnlyList<EntryBody> entries) =>
        new FirstView(page, edition, words, at, today).Write(part, entries);

    private void Write(MonthBody part, IReadOnlyList<EntryBody> entries)
    {
        var view = _edition.Look.View;
        var day = Clamped(_today, part);
        Add($"<main class=\"edition view-{Word(view)}\" aria-label=\"{Text(_edition.Name)}\" aria-busy=\"true\" inert>");
        WriteHead(view, day);
        switch (view)
        {
            case EditionView.Month or EditionView.SmallMonth:
                WriteMonth(YearMonthOf(day), entries, view == EditionView.SmallMonth);
                break;
            case EditionView.Week:
                WriteColumns(WeekOf(day), 7, entries);
                break;
            case EditionView.Day:
                WriteColumns(day, 1, entries);
                break;
            case EditionView.Cards:
                WriteCards(entries, day);
                break;
            default:
                WriteList(entries, day, _edition.IsWhole ? part.To : YearMonthOf(day).PlusMonths(2).OnDayOfMonth(1), Or(_edition.Look.EmptyText, _words["nothing"]));
                break;
        }
        Add($"<footer class=\"edition-foot\">{(_edition.Look.ZoneLabel ? $"<span>{Text(_words.Fill("zone", "place", ReadingDates.PlaceOf(_edition.Zone)))}</span>" : "")}<span class=\"stretch\"></span>");
        Add($"<div class=\"search\"><input type=\"search\" placeholder=\"{Text(_words["search"])}\" aria-label=\"{Text(_words["search"])}\"></div>");
        Add($"<button type=\"button\" class=\"as-link\">{Text(_words["changes"])}</button>");
        if (_at.Page.Length > 0)
            Add($"<a class=\"only-embedded\" href=\"{Text(_at.Page)}\">{Text(_words["wholePage"])}</a><button type=\"button\" class=\"as-link\">{Text(_words["copyLink"])}</button><span></span>");
        Add($"<button type=\"button\" class=\"as-link\">{Text(_words["printMonths"])}</button><button type=\"button\" class=\"as-link\">{Text(_words["printList"])}</button></footer></main>");
    }

    private void WriteHead(EditionView view, LocalDate day)
    {
        Add("<header class=\"edition-head\"><div class=\"edition-name\">");
        if (_edition.Sources is [var alone])
            Add($"<span class=\"plate hue-{alone.Colour} plate-usual\">{Text(alone.Plate)}</span>");
        Add($"<h1 dir=\"auto\">{Text(_edition.Name)}</h1><span class=\"organisation\">{Text(_edition.Organisation)}</span></div>");
        if (_edition.Description.Length > 0)
            Add($"<p class=\"edition-about\" dir=\"auto\">{Text(_edition.Description)}</p>");
        Add("<div class=\"edition-tools\">");
        var period = PeriodOf(view, day);
        if (period.Length > 0)
            Add($"<h2>{Text(period)}</h2>");
        if (_edition.Look.Navigation && !_edition.IsWhole)
            Add($"<div class=\"joined\"><button type=\"button\"><span class=\"arrow\">‹</span></button><button type=\"button\">{Text(_words["today"])}</button><button type=\"button\"><span class=\"arrow\">›</span></button></div><span class=\"go-to\"></span>");
        Add("<span class=\"stretch\"></span>");
        if (_edition.Look.Views.Count > 1)
            Add($"<div class=\"joined\">{string.Concat(_edition.Look.Views.Select(one => $"<button type=\"button\" aria-pressed=\"{(one == view ? "true" : "false")}\">{Text(_words[Word(one)])}</button>"))}</div>");
        if (_at.Feed.Length > 0)
            Add($"<button type=\"button\" class=\"plain\">{Text(_words["subscribe"])}</button>");
        Add("</div>");
        if (_edition.Look.Legend && _edition.Sources.Count > 1)
        {
            Add($"<div class=\"chooser\"><span class=\"soft\">{Text(_words["show"])}</span>");
            foreach (var source in _edition.Sources)
            {
                var inside = $"<span class=\"plate hue-{source.Colour} plate-small\">{Text(source.Plate)}</span> {Text(source.Name)}";
                Add(source.CanBeChosen ? $"<button type=\"button\" class=\"choice\" aria-pressed=\"true\">{inside}</button>" : $"<span class=\"choice is-fixed\">{inside}</span>");
            }
            Add("</div>");
        }
        Add("</header>");
    }

    private void WriteMonth(YearMonth month, IReadOnlyList<EntryBody> entries, bool isSmall)
    {
        var first = WeekOf(month.OnDayOfMonth(1));
        var chosen = YearMonthOf(_today) == month ? _today : entries.Select(First).Where(day => YearMonthOf(day) == month).DefaultIfEmpty(month.OnDayOfMonth(1)).Min();
        Add($"<div class=\"month{(isSmall ? " is-small" : "")}\"><table class=\"weeks\"><thead><tr>");
        for (var day = first; day < first.PlusDays(7); day = day.PlusDays(1))
            Add($"<th scope=\"col\"{(IsWeekend(day) ? " class=\"is-weekend\"" : "")}><abbr><span class=\"long\">{Text(Say(day, "ddd"))}</span><span class=\"short\" aria-hidden=\"true\">{Text(Say(day, "ddd")[..1])}</span></abbr></th>");
        Add("</tr></thead><tbody>");
        for (var week = first; week < month.PlusMonths(1).OnDayOfMonth(1); week = week.PlusDays(7))
        {
            Add("<tr>");
            for (var day = week; day < week.PlusDays(7); day = day.PlusDays(1))
                WriteCell(day, isFirstOfWeek: day == week, month, [.. entries.Where(entry => StandsOn(entry, day))], day == chosen);
            Add("</tr>");
        }
        Add("</tbody></table><div class=\"chosen-day\">");
        WriteList([.. entries.Where(entry => Touches(entry, chosen))], chosen, chosen.PlusDays(1), _words.Fill("nothingOn", "day", Say(chosen, "dddd d MMMM")));
        Add("</div></div>");
    }

    private void WriteCell(LocalDate day, bool isFirstOfWeek, YearMonth month, IReadOnlyList<EntryBody> entries, bool isChosen)
    {
        string?[] classes = [IsWeekend(day) ? "is-weekend" : null, YearMonthOf(day) != month ? "is-outside" : null, day == _today ? "is-today" : null, entries.Count > 0 ? "is-busy" : "is-empty", isChosen ? "is-chosen" : null];
        Add($"<td class=\"{string.Join(' ', classes.OfType<string>())}\"><button type=\"button\" class=\"day-choice\" aria-pressed=\"{(isChosen ? "true" : "false")}\">{day.Day}<span class=\"marks\" aria-hidden=\"true\">");
        foreach (var entry in entries.Take(4))
            Add($"<i class=\"hue-{HueOf(entry)}\"></i>");
        Add("</span></button><ul class=\"wide-only\">");
        var shown = entries.Count > MostOnDay + 1 ? MostOnDay : entries.Count;
        foreach (var entry in entries.Take(shown))
            Add($"<li><button type=\"button\" class=\"entry{(First(entry) < day && !isFirstOfWeek ? " goes-on" : "")}{State(entry)}\">{Plates(entry)} <span class=\"entry-time\">{Text(entry.AllDay ? "" : First(entry) == day ? Clock(entry.Start) : "…")}</span> <span class=\"entry-title\" dir=\"auto\">{Text(entry.Title)}</span></button></li>");
        if (shown < entries.Count)
            Add($"<li><button type=\"button\" class=\"as-link more\">{Text(_words.Fill("more", "count", (entries.Count - shown).ToString(_culture)))}</button></li>");
        Add("</ul></td>");
    }

    private void WriteColumns(LocalDate first, int days, IReadOnlyList<EntryBody> entries)
    {
        Add($"<ol class=\"columns columns-{days}\">");
        for (var day = first; day < first.PlusDays(days); day = day.PlusDays(1))
        {
            var onDay = entries.Where(entry => StandsOn(entry, day)).ToArray();
            Add($"<li class=\"column{(IsWeekend(day) ? " is-weekend" : "")}{(day == _today ? " is-today" : "")}{(onDay.Length > 0 ? " is-busy" : " is-empty")}\"><h3><b>{Text(DayName(day))}</b> <span>{Text(Say(day, "d MMM"))}</span></h3>");
            if (onDay.Length == 0)
                Add($"<p class=\"nothing\">{Text(_words["nothingDay"])}</p>");
            else
                Add($"<ul>{string.Concat(onDay.Select(entry => $"<li><button type=\"button\" class=\"card-line{State(entry)}\"><span class=\"line-when\">{Text(Span(entry, day, IsOnFirstOnly))} {Plates(entry)}</span><span class=\"line-title\" dir=\"auto\">{Text(entry.Title)}</span>{(entry.Place.Length > 0 ? $"<span class=\"line-place\" dir=\"auto\">{Text(entry.Place)}</span>" : "")}{StateWord(entry)}</button></li>"))}</ul>");
            Add("</li>");
        }
        Add("</ol>");
    }

    private void WriteCards(IReadOnlyList<EntryBody> entries, LocalDate from)
    {
        var end = YearMonthOf(from).PlusMonths(2).OnDayOfMonth(1);
        var shown = entries.Where(entry => Last(entry) >= from && (_edition.IsWhole || First(entry) < end)).ToArray();
        if (shown.Length == 0)
        {
            Add($"<p class=\"nothing\">{Text(Or(_edition.Look.EmptyText, _words["nothing"]))}</p>");
            return;
        }
        Add("<ul class=\"cards\">");
        foreach (var entry in shown)
        {
            var picture = entry.Picture is { } one ? $"<img fetchpriority=\"high\" src=\"{Text($"{_at.Base}/{one.Address}?width=480")}\" alt=\"\">" : $"<span class=\"card-hatch band hue-{HueOf(entry)}\" aria-hidden=\"true\"></span>";
            Add($"<li><button type=\"button\" class=\"card{State(entry)}\">{picture}<span class=\"line-when\">{Text(When(entry))}</span><span class=\"card-title\">{Plates(entry)} <span class=\"line-title\" dir=\"auto\">{Text(entry.Title)}</span></span>{(entry.Place.Length > 0 ? $"<span class=\"line-place\" dir=\"auto\">{Text(entry.Place)}</span>" : "")}{CategoryOf(entry)}{StateWord(entry)}</button></li>");
        }
        Add("</ul>");
    }

    /// <summary>Days beside their lines, every other heading above them (src/web/reader/EntryList.tsx).</summary>
    private void WriteList(IReadOnlyList<EntryBody> entries, LocalDate from, LocalDate end, string empty)
    {
        var groups = GroupsOf(entries, from, end);
        if (groups.Count == 0)
        {
            Add($"<p class=\"nothing\">{Text(empty)}</p>");
            return;
        }
        var grouping = _edition.Look.Grouping;
        var saysDay = grouping != Grouping.Day && !_edition.Look.Line.Any(part => part.Piece == Core.Editions.Piece.Date);
        Add("<ol class=\"days\">");
        foreach (var group in groups)
        {
            Add($"<li class=\"day by-{grouping.ToString().ToLowerInvariant()}{(grouping == Grouping.Day && group[0].Day == _today ? " is-today" : "")}\">{HeadingOf(group.Key, group[0].Day)}<ul>");
            var said = default(LocalDate?);
            foreach (var (on, entry) in group)
            {
                if (saysDay && said != on)
                    Add($"<li class=\"line-day\">{Text(DateOf(on))}</li>");
                said = on;
                Add($"<li><button type=\"button\" class=\"line{State(entry)}\">{string.Concat(_edition.Look.Line.Select(part => $"<span class=\"piece\">{Piece(part, entry, on)}</span>"))}{StateWord(entry)}</button></li>");
            }
            Add("</ul></li>");
        }
        Add("</ol>");
    }

    /// <summary>The lines of a list under the headings that the edition wants, as src/web/reader/groups.ts makes them.</summary>
    private List<Group> GroupsOf(IReadOnlyList<EntryBody> entries, LocalDate from, LocalDate end)
    {
        var lines = new List<(LocalDate Day, EntryBody Entry)>();
        foreach (var entry in entries)
        {
            var first = LocalDate.Max(First(entry), from);
            var last = LocalDate.Min(Last(entry), end.PlusDays(-1));
            for (var day = first; day <= last && (day == first || !IsOnceInList(entry)); day = day.PlusDays(1))
                lines.Add((day, entry));
        }
        var groups = new Dictionary<string, Group>();
        foreach (var line in lines.OrderBy(line => line.Day))
            foreach (var key in KeysOf(line.Day, line.Entry))
            {
                if (!groups.TryGetValue(key, out var group))
                    groups.Add(key, group = new Group(key));
                group.Add(line);
            }
        return _edition.Look.Grouping is Grouping.Calendar or Grouping.Category
            ? [.. groups.Values.OrderBy(group => group.Key, StringComparer.Create(_culture, ignoreCase: false))]
            : [.. groups.Values];
    }

    private sealed class Group(string key) : List<(LocalDate Day, EntryBody Entry)>
    {
        public string Key { get; } = key;
    }

    private IReadOnlyList<string> KeysOf(LocalDate day, EntryBody entry) => _edition.Look.Grouping switch
    {
        Grouping.Day => [Iso(day)],
        Grouping.Week => [Iso(WeekOf(day))],
        Grouping.Month => [YearMonthPattern.Iso.Format(YearMonthOf(day))],
        // What is on two calendars concerns the readers of both.
        Grouping.Calendar => entry.Plates.Count > 0 ? entry.Plates : [""],
        Grouping.Category => [entry.Category?.Name ?? ""],
        _ => [""],
    };

    private string HeadingOf(string key, LocalDate day) => _edition.Look.Grouping switch
    {
        Grouping.Day => $"<h3 class=\"day-name\"><b>{Text(DayName(day))}</b> <span>{Text(Say(day, "d MMM"))}</span></h3>",
        Grouping.Time => "",
        _ when key.Length == 0 => "",
        var grouping => $"<h3 class=\"group-name\">{Text(grouping switch
        {
            Grouping.Week => $"{DateOf(WeekOf(day))} – {DateOf(WeekOf(day).PlusDays(6))}",
            Grouping.Month => Say(day, "MMMM uuuu"),
            Grouping.Calendar => _edition.Sources.FirstOrDefault(source => source.Plate == key)?.Name ?? key,
            _ => key,
        })}</h3>",
    };

    private LocalDate WeekOf(LocalDate day) => day.With(DateAdjusters.PreviousOrSame((IsoDayOfWeek)_edition.FirstDayOfWeek));

    /// <summary>A day as the edition writes dates.</summary>
    private string DateOf(LocalDate day) => _edition.Look.Dates switch
    {
        DateStyle.Long => Say(day, "dddd d MMMM"),
        DateStyle.Numeric => $"{Say(day, "ddd")}, {day.ToString("d", _culture)}",
        _ => Say(day, "ddd d MMM"),
    };

    private string Piece(PatternPartBody part, EntryBody entry, LocalDate day) => part.Piece switch
    {
        Core.Editions.Piece.Time => $"<span class=\"line-when\">{Text(Span(entry, day, IsOnceInList(entry)))}</span>",
        Core.Editions.Piece.Date => $"<span class=\"line-when\">{Text(DateOf(day))}</span>",
        Core.Editions.Piece.Plate => $"<span class=\"line-plates\">{Plates(entry)}</span>",
        Core.Editions.Piece.Calendar => $"<span class=\"line-calendar\">{Text(string.Join(", ", _edition.Sources.Where(source => entry.Plates.Contains(source.Plate)).Select(source => source.Name)))}</span>",
        Core.Editions.Piece.Title => $"<span class=\"line-title\" dir=\"auto\">{Text(entry.Title)}</span>",
        Core.Editions.Piece.Place => entry.Place.Length > 0 ? $"<span class=\"line-place\" dir=\"auto\">{Text(entry.Place)}</span>" : "",
        Core.Editions.Piece.Category => CategoryOf(entry),
        _ => Text(part.Text),
    };

    private string PeriodOf(EditionView view, LocalDate day)
    {
        if (view == EditionView.Day)
            return Say(day, "dddd d MMMM");
        if (view == EditionView.Week)
        {
            var first = WeekOf(day);
            var isOneMonth = YearMonthOf(first) == YearMonthOf(first.PlusDays(6));
            return $"{Say(first, isOneMonth ? "%d" : "d MMMM")}{(isOneMonth && _words.Language == "fr" ? "–" : " – ")}{Say(first.PlusDays(6), "d MMMM uuuu")}";
        }
        return _edition.IsWhole ? "" : Say(day, "MMMM uuuu");
    }

    private LocalDate Clamped(LocalDate day, MonthBody part)
    {
        // The page was asked for with another month, or its edition begins later or has ended.
        if (!_edition.IsWhole && YearMonthPattern.Iso.Parse(part.Month) is { Success: true } month && month.Value != YearMonthOf(day))
            day = month.Value.OnDayOfMonth(1);
        if (_edition.From is { } from && day < from)
            return from;
        return _edition.To is { } end && day >= end ? end.PlusDays(-1) : day;
    }

    private string DayName(LocalDate day) => day == _today ? _words["today"] : day == _today.PlusDays(1) ? _words["tomorrow"] : Say(day, _edition.Look.Dates == DateStyle.Long ? "dddd" : "ddd");

    /// <summary>The whole span in words, as "when" of src/web/reader/speech.ts.</summary>
    private string When(EntryBody entry)
    {
        var (first, last) = (First(entry), Last(entry));
        if (entry.AllDay)
            return first == last ? $"{FullDate(first)}, {_words["allDay"]}" : $"{FullDate(first)} – {FullDate(last)}";
        var begins = $"{FullDate(first)}, {Clock(entry.Start)}";
        if (entry.Start == entry.End)
            return begins;
        var ends = LocalDatePattern.Iso.Parse(entry.End[..10]).Value;
        return ends == first ? $"{begins}–{Clock(entry.End)}" : $"{begins} – {FullDate(ends)}, {Clock(entry.End)}";
    }

    private string FullDate(LocalDate day)
    {
        var (after, dot) = _words.Language switch { "fr" => (" ", ""), "de" => (", ", "."), "ar" => ("، ", ""), _ => (", ", "") };
        var date = _edition.Look.Dates == DateStyle.Numeric ? day.ToString("d", _culture) : Say(day, $"d'{dot}' {(_edition.Look.Dates == DateStyle.Long ? "MMMM" : "MMM")} uuuu");
        return $"{Say(day, "dddd")}{after}{date}";
    }

    private bool IsOnFirstOnly => _edition.Look.SeveralDays == SeveralDays.First;

    /// <summary>A break stands once, with until when it lasts.</summary>
    private bool IsOnceInList(EntryBody entry) => entry.IsBreak || IsOnFirstOnly;

    private string Span(EntryBody entry, LocalDate day, bool isOnce)
    {
        var (first, last) = (First(entry), Last(entry));
        if (isOnce && first != last)
            return $"{(entry.AllDay || day != first ? "" : $"{Clock(entry.Start)}, ")}{_words["until"]} {DateOf(entry.AllDay ? last : LocalDatePattern.Iso.Parse(entry.End[..10]).Value)}{(entry.AllDay ? "" : $" {Clock(entry.End)}")}";
        if (entry.AllDay)
            return first == last ? _words["allDay"] : $"{Days(first, day)}/{Days(first, last)}";
        if (day != first)
            return day == last ? $"{_words["until"]} {Clock(entry.End)}" : _words["allDay"];
        if (entry.Start == entry.End)
            return Clock(entry.Start);
        return first == last ? $"{Clock(entry.Start)}–{Clock(entry.End)}" : $"{Clock(entry.Start)} …";
    }

    private string Plates(EntryBody entry) => !_edition.ShowsPlates ? "" : string.Concat(_edition.Sources.Where(source => entry.Plates.Contains(source.Plate)).Select(source => $"<span class=\"plate hue-{source.Colour} plate-small\">{Text(source.Plate)}</span>"));

    private string HueOf(EntryBody entry) => _edition.Sources.FirstOrDefault(source => entry.Plates.Contains(source.Plate))?.Colour ?? "slate";

    private static string CategoryOf(EntryBody entry) => entry.Category is { } category ? $"<span class=\"category hue-{category.Colour}\">{Text(category.Name)}</span>" : "";

    private static string State(EntryBody entry) => $" is-{entry.State.ToString().ToLowerInvariant()}{(entry.IsBreak ? " is-break" : "")}";

    private string StateWord(EntryBody entry) => entry.State == EventState.Live ? "" : $"<span class=\"{(entry.State == EventState.Cancelled ? "cancelled" : "unfinished")}\">{Text(_words[entry.State.ToString().ToLowerInvariant()])}</span>";

    private bool StandsOn(EntryBody entry, LocalDate day) => IsOnFirstOnly ? First(entry) == day : Touches(entry, day);

    private static bool Touches(EntryBody entry, LocalDate day) => First(entry) <= day && day <= Last(entry);

    private static LocalDate First(EntryBody entry) => LocalDatePattern.Iso.Parse(entry.Start[..10]).Value;

    private static LocalDate Last(EntryBody entry)
    {
        var end = LocalDatePattern.Iso.Parse(entry.End[..10]).Value;
        return end != First(entry) && (entry.AllDay || entry.End[11..16] == "00:00") ? end.PlusDays(-1) : end;
    }

    private string Clock(string moment) => LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(moment[11..16]).Value.ToString(_time, _culture);

    private string Say(LocalDate day, string pattern) => day.ToString(pattern, _culture);

    private static int Days(LocalDate from, LocalDate to) => Period.DaysBetween(from, to) + 1;

    private static YearMonth YearMonthOf(LocalDate day) => day.ToYearMonth();

    private static bool IsWeekend(LocalDate day) => day.DayOfWeek is IsoDayOfWeek.Saturday or IsoDayOfWeek.Sunday;

    private static string Iso(LocalDate day) => LocalDatePattern.Iso.Format(day);

    private static string Word(EditionView view) => char.ToLowerInvariant(view.ToString()[0]) + view.ToString()[1..];

    private static string Or(string text, string usual) => text.Length > 0 ? text : usual;

    private static string Text(string text) => Html.Encode(text);

    private void Add(string html) => _page.Append(html);
}
