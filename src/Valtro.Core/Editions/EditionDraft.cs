using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.Speaking;

namespace Valtro.Core.Editions;

/// <summary>A filter as it was typed.</summary>
public sealed record FilterDraft(
    FilterMode Mode, IReadOnlyList<Guid>? Categories = null, IReadOnlyList<string>? Tags = null, string? Text = null);

public sealed record SourceDraft(Guid CalendarId, FilterDraft? Filter = null);

public sealed record WindowDraft(
    WindowFrom From = WindowFrom.Beginning, LocalDate? FromDate = null, WindowTo To = WindowTo.Open, int? Count = null,
        LocalDate? ToDate = null, bool WithPast = true);

/// <summary>Colours of one's own instead of the palette's; null where the palette's stands.</summary>
public sealed record ColoursDraft(
    string? Page = null, string? Grid = null, string? Busy = null, string? Empty = null, string? Today = null, string? Text = null,
        string? Accent = null);

public sealed record LookDraft(
    EditionView View = EditionView.Month, IReadOnlyList<EditionView>? Views = null, string? Title = null, string? Intro = null,
    bool Navigation = true, bool Legend = true,
    bool ZoneLabel = true, int? FirstDayOfWeek = null, ClockFace Clock = ClockFace.Reader, string? Language = null, string? Palette = null,
    ColoursDraft? Colours = null,
    DateStyle Dates = DateStyle.Short, TextSize Size = TextSize.Normal, Density Density = Density.Normal, Corner Corner = Corner.Square,
    Scheme Scheme = Scheme.Reader,
    OnEntry OnEntry = OnEntry.Details, string? EmptyText = null, string? FailedText = null, Grouping Grouping = Grouping.Day,
    SeveralDays SeveralDays = SeveralDays.Each,
    IReadOnlyList<PatternPartDraft>? Line = null, bool PicturesInMonth = false);

/// <summary>A piece, or text between pieces.</summary>
public sealed record PatternPartDraft(Piece? Piece = null, string? Text = null);

/// <summary>What somebody says of an edition, before it is checked. The same form is stored.</summary>
/// <param name="Sites">Web sites whose pages may hold it in a frame; null for any.</param>
/// <param name="TakesAll">It has every calendar that is open to its audience, those to come too. <paramref name="Sources"/> then say only
/// what is taken of some of them.</param>
/// <param name="AtPlace">Only what is at this place of the list, at a part of it, or at the whole that it is a part of.</param>
/// <param name="OfPerson">Only what this member is responsible for, by their own times, so far as readers are told who that is.</param>
/// <param name="RefreshMinutes">How often programs are asked to come; null for what is usual.</param>
/// <param name="KeptSeconds">How long caches on the way may keep what they have; null for what is usual.</param>
/// <param name="OnFrontPage">The organisation's front page lists it, where everyone may have it.</param>
public sealed record EditionDraft(
    string? Name, IReadOnlyList<SourceDraft> Sources, Audience Audience = Audience.Everyone, Detail Cap = Detail.Complete,
    WindowDraft? Window = null, int? Limit = null,
    bool WithCancelled = true, bool WithUnfinished = false, bool WithBreaks = false, bool MergesLookAlikes = true,
    bool TellsPlatesOfBusy = false,
    IReadOnlyList<PatternPartDraft>? Title = null, IReadOnlyList<ShownField>? Fields = null, LookDraft? Look = null,
        IReadOnlyList<string>? Sites = null, FeedForm Feed = FeedForm.Series, KindsTaken Kinds = KindsTaken.Both,
        DeadlineForm Deadlines = DeadlineForm.Events, Reminding Reminding = Reminding.Nothing, Reminder? Reminder = null,
        bool WithStaffTimes = false, bool TakesAll = false, bool OnFrontPage = true, Guid? AtPlace = null,
        Guid? OfPerson = null, int? RefreshMinutes = null, int? KeptSeconds = null)
{
    public const int MostSites = 30;

    /// <summary>The standard edition of a calendar: all of it, as it comes.</summary>
    public static EditionDraft Standard(Guid calendarId, Audience audience) =>
        new(null, [new SourceDraft(calendarId)], audience, MergesLookAlikes: false);

    /// <summary>What a member is responsible for themselves, wherever they see it, as it takes them.</summary>
    public static EditionDraft Own(Guid accountId, string name) =>
        new(name, [], Audience.Members, Feed: FeedForm.Dates, MergesLookAlikes: false, WithStaffTimes: true, TakesAll: true,
            OfPerson: accountId);

    /// <summary>With these calendars, and of those of which something was said, that.</summary>
    public EditionDraft Having(IEnumerable<Guid> calendars) => this with
    {
        Sources = [.. calendars.Distinct()
            .Select(id => Sources.FirstOrDefault(source => source.CalendarId == id) ?? new SourceDraft(id))],
    };

    /// <summary>What is to be saved.</summary>
    /// <exception cref="RuleException">Something of it cannot be; every field is named.</exception>
    /// <param name="isStandard">Its calendar gives it its name.</param>
    public CheckedEdition Check(DateTimeZone zone, IsoDayOfWeek firstDayOfWeek, bool isStandard = false) =>
        Made(zone, firstDayOfWeek, needsName: !isStandard, needsSources: true);

    /// <summary>What was saved: it may have lost all of its calendars since, and is empty then.</summary>
    public CheckedEdition Stored(DateTimeZone zone, IsoDayOfWeek firstDayOfWeek) =>
        Made(zone, firstDayOfWeek, needsName: false, needsSources: false);

    private CheckedEdition Made(DateTimeZone zone, IsoDayOfWeek firstDayOfWeek, bool needsName, bool needsSources)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", Name, Texts.LongestName, required: needsName)) ?? "";
        var look = CheckLook(Look ?? new LookDraft(), refusals);
        if (needsSources && Sources.Count == 0 && !TakesAll)
            refusals.Add("sources", "edition.noCalendar");
        if (Sources.Count > Edition.MostSources && !TakesAll)
            refusals.Add("sources", "edition.tooManyCalendars", ("count", Sources.Count), ("most", Edition.MostSources));
        if (Sources.DistinctBy(source => source.CalendarId).Count() < Sources.Count)
            refusals.Add("sources", "edition.calendarTwice");
        if (Audience == Audience.Editors)
            refusals.Add("audience", "edition.audience");
        if (Cap == Detail.Nothing)
            refusals.Add("cap", "edition.tellsNothing");
        if (Limit is < 1 or > Edition.MostEntries)
            refusals.Add("limit", "edition.limit", ("most", Edition.MostEntries));
        if (WithUnfinished && Audience != Audience.Members)
            refusals.Add("withUnfinished", "edition.unfinishedForMembers");
        if (WithStaffTimes && Audience != Audience.Members)
            refusals.Add("withStaffTimes", "edition.staffTimesForMembers");
        if (AtPlace is not null && Feed == FeedForm.Series)
            refusals.Add("atPlace", "edition.placeByDates");
        if (OfPerson is not null && Feed == FeedForm.Series)
            refusals.Add("ofPerson", "edition.personByDates");
        if (WithStaffTimes && Feed == FeedForm.Series)
            refusals.Add("withStaffTimes", "edition.staffTimesByDates");
        var filters =
            Sources.Select((source, index) => refusals.Try(() => CheckFilter(source.Filter, $"sources.{index}.filter"))).ToArray();
        var window = refusals.Try(() => CheckWindow(Window ?? new WindowDraft()));
        var title = refusals.Try(() => CheckPattern("title", Title, [Piece.Date, Piece.Time]));
        var reminder = refusals.Try(() => Reminder?.Check("reminder"));
        if (Reminding == Reminding.Everything && Reminder is null)
            refusals.Add("reminder", "edition.reminderMissing");
        var sites = CheckSites(refusals);
        var freshness = new Freshness(RefreshMinutes ?? Freshness.Usual.RefreshMinutes, KeptSeconds ?? Freshness.Usual.KeptSeconds);
        freshness.Check(refusals);
        refusals.ThrowIfAny();
        var edition = new Edition(Audience, zone, firstDayOfWeek)
        {
            Cap = Cap,
            Window = window!,
            Limit = Limit,
            WithCancelled = WithCancelled,
            WithUnfinished = WithUnfinished,
            WithBreaks = WithBreaks,
            MergesLookAlikes = MergesLookAlikes,
            TellsPlatesOfBusy = TellsPlatesOfBusy,
            TitlePattern = title,
            Fields = Fields is null ? Edition.AllFields : Fields.ToHashSet(),
            Feed = Feed,
            Kinds = Kinds,
            At = AtPlace is { } place ? new HashSet<Guid> { place } : null,
            Person = OfPerson,
            Deadlines = Deadlines,
            Reminding = Reminding,
            WithStaffTimes = WithStaffTimes && Audience <= Audience.Members,
            Reminder = reminder,
        };
        var bySource = Sources.Select((source, index) => (source.CalendarId, Filter: filters[index]))
            .ToDictionary(one => one.CalendarId, one => one.Filter);
        return new CheckedEdition(name, edition, bySource, look!, sites, OnFrontPage, freshness);
    }

    private static SourceFilter? CheckFilter(FilterDraft? filter, string field)
    {
        if (filter is null)
            return null;
        var text = Texts.OneLine($"{field}.text", "what.filterText", filter.Text, 100, required: false);
        var made = new SourceFilter(
            filter.Mode, filter.Categories ?? [], [.. (filter.Tags ?? []).Select(tag => tag.Trim()).Where(tag => tag.Length > 0)], text);
        if (made.Categories.Count + made.Tags.Count > 50)
            throw new RuleException(field, "edition.filterTooLong");
        return made.Categories.Count + made.Tags.Count + text.Length == 0 ? null : made;
    }

    private static EditionWindow CheckWindow(WindowDraft draft)
    {
        if (draft.From == WindowFrom.Date && draft.FromDate is null)
            throw new RuleException("window.fromDate", "edition.windowFromMissing");
        if (draft.To == WindowTo.Date && draft.ToDate is null)
            throw new RuleException("window.toDate", "edition.windowToMissing");
        if (draft is { From: WindowFrom.Date, To: WindowTo.Date } && draft.ToDate < draft.FromDate)
            throw new RuleException("window.toDate", "edition.windowEndsBefore");
        foreach (var (field, day) in new[] { ("window.fromDate", draft.FromDate), ("window.toDate", draft.ToDate) })
        {
            if (day is { } given)
                DayRange.Check(field, given);
        }
        var most = draft.To switch { WindowTo.Days => 3_650, WindowTo.Weeks => 520, _ => 120 };
        if (draft.To is WindowTo.Days or WindowTo.Weeks or WindowTo.Months && draft.Count is null or < 1 || draft.Count > most)
            throw new RuleException("window.count", "edition.windowCount",
                ("unit", Saying.Of($"unit.{draft.To.ToString().ToLowerInvariant()}")), ("most", most));
        return new EditionWindow(draft.From, draft.FromDate, draft.To, draft.Count ?? 1, draft.ToDate, draft.WithPast);
    }

    private static Pattern? CheckPattern(string field, IReadOnlyList<PatternPartDraft>? parts, Piece[] without)
    {
        if (parts is null || parts.Count == 0)
            return null;
        if (parts.Count > Pattern.MostParts)
            throw new RuleException(field, "edition.patternTooLong", ("count", parts.Count), ("most", Pattern.MostParts));
        if (parts.All(part => part.Piece is null))
            throw new RuleException(field, "edition.patternEmpty");
        if (parts.FirstOrDefault(part => part.Piece is { } piece && without.Contains(piece)) is { } wrong)
            throw new RuleException(
                field, "edition.titleCannotHold", ("piece", Saying.Of($"piece.{wrong.Piece.ToString()!.ToLowerInvariant()}")));
        if (parts.Any(part => part.Piece is null && (part.Text ?? "").Length > Pattern.LongestText))
            throw new RuleException(field, "edition.textBetweenTooLong", ("most", Pattern.LongestText));
        return new Pattern(
            [.. parts.Select(part => part.Piece is { } piece ? PatternPart.Of(piece) : PatternPart.Between(SafeText(field, part.Text)))]);
    }

    /// <summary>One line, with the spaces around it kept.</summary>
    private static string SafeText(string field, string? text) =>
        Texts.OneLine(field, "what.textBetween", text, Pattern.LongestText, required: false) is { Length: > 0 } safe
            ? text!.Replace(text.Trim(), safe, StringComparison.Ordinal)
            : " ";

    private static Look? CheckLook(LookDraft draft, RefusalList refusals)
    {
        var title = refusals.Try(() => Texts.OneLine("look.title", "what.title", draft.Title, Texts.LongestTitle, required: false));
        var intro = refusals.Try(() => Texts.Lines("look.intro", "what.intro", draft.Intro, 1_000));
        var empty = refusals.Try(() => Texts.OneLine("look.emptyText", "what.emptyText", draft.EmptyText, 200, required: false));
        var failed = refusals.Try(() => Texts.OneLine("look.failedText", "what.failedText", draft.FailedText, 200, required: false));
        var line = refusals.Try(() => CheckPattern("look.line", draft.Line, []));
        if (draft.FirstDayOfWeek is < 1 or > 7)
            refusals.Add("look.firstDayOfWeek", "edition.firstDayOfWeek");
        var language = draft.Language ?? "";
        if (language.Length > 0 && !Editions.Look.Languages.Contains(language))
            refusals.Add(
                "look.language", "edition.noSuchLanguage", ("language", language), ("choices", string.Join(", ", Editions.Look.Languages)));
        var name = draft.Palette ?? "paper";
        if (!Palette.All.TryGetValue(name, out var palette))
        {
            refusals.Add("look.palette", "edition.noSuchPalette", ("name", name), ("choices", string.Join(", ", Palette.All.Keys)));
            return null;
        }
        var (light, dark) = draft.Scheme == Scheme.Dark
            ? (palette.Light, Own(palette.Dark, draft.Colours, refusals))
            : (Own(palette.Light, draft.Colours, refusals), palette.Dark);
        IReadOnlyList<EditionView> views = [draft.View,
            .. (draft.Views ?? [EditionView.Month, EditionView.Week, EditionView.List]).Where(view => view != draft.View).Distinct()];
        return new Look(
            draft.View, [.. views.Order()], title ?? "", intro ?? "", draft.Navigation, draft.Legend, draft.ZoneLabel, draft.FirstDayOfWeek,
            draft.Clock, language, name, light, dark,
            draft.Dates, draft.Size, draft.Density, draft.Corner, draft.Scheme, draft.OnEntry, empty ?? "", failed ?? "", draft.Grouping,
                draft.SeveralDays, line ?? Pattern.Line, draft.PicturesInMonth);
    }

    /// <summary>The palette with one's own colours; a pair that cannot be read is refused with its ratio.</summary>
    private static Palette Own(Palette palette, ColoursDraft? own, RefusalList refusals)
    {
        if (own is null)
            return palette;
        Colour Or(string field, string? text, Colour colour) =>
            string.IsNullOrEmpty(text) ? colour : refusals.Try(() => (Colour?)Colour.Parse($"look.colours.{field}", text)) ?? colour;
        var mixed = new Palette(
            Or("page", own.Page, palette.Page), Or("grid", own.Grid, palette.Grid), Or("busy", own.Busy, palette.Busy),
            Or("empty", own.Empty, palette.Empty),
            Or("today", own.Today, palette.Today), Or("text", own.Text, palette.Text), Or("accent", own.Accent, palette.Accent));
        foreach (var refusal in mixed.TooFaint("look.colours"))
            refusals.Add(refusal);
        return mixed;
    }

    /// <summary>Sites as a content security policy names them (CSP 3, 2.3.1): a scheme and a host, or all hosts below one
    /// (*.example.org).</summary>
    private string[]? CheckSites(RefusalList refusals)
    {
        if (Sites is null)
            return null;
        if (Sites.Count > MostSites)
            refusals.Add("sites", "edition.tooManySites", ("count", Sites.Count), ("most", MostSites));
        return [
            .. Sites.Select((site, index) => site.Trim().Length == 0
                ? null
                : refusals.Try(() => CheckedSite($"sites[{index}]", site.Trim()))).OfType<string>().Distinct()];
    }

    private static string CheckedSite(string field, string site)
    {
        var text = site.Contains("://", StringComparison.Ordinal) ? site : $"https://{site}";
        var isBelow = text.Contains("://*.", StringComparison.Ordinal);
        var isSite = Uri.TryCreate(text.Replace("://*.", "://", StringComparison.Ordinal), UriKind.Absolute, out var uri)
            && uri.Scheme is "https" or "http" && uri.UserInfo.Length == 0 && uri.PathAndQuery == "/" && uri.Fragment.Length == 0
            && uri.HostNameType is UriHostNameType.Dns or UriHostNameType.IPv4;
        return isSite && HostOf(uri!) is { } host && !(isBelow && !host.Contains('.', StringComparison.Ordinal))
            ? $"{uri!.Scheme}://{(isBelow ? "*." : "")}{host}{(uri.IsDefaultPort ? "" : $":{uri.Port}")}"
            : throw new RuleException(field, "edition.noSite", ("site", site));
    }

    /// <summary>In ASCII (RFC 5891), or null where it cannot be written so.</summary>
    private static string? HostOf(Uri uri)
    {
        try
        {
            var host = uri.IdnHost;
            return host.Length is > 0 and <= 253 && host.All(character => char.IsAsciiLetterOrDigit(character) || character is '-' or '.')
                ? host
                : null;
        }
        catch (UriFormatException)
        {
            return null;
        }
    }
}

/// <summary>An edition that can be: how it is composed, from what, and how it looks.</summary>
/// <param name="Filters">By source calendar.</param>
/// <param name="Sites">Origins whose pages may hold it in a frame; null for any.</param>
public sealed record CheckedEdition(
    string Name, Edition Edition, IReadOnlyDictionary<Guid, SourceFilter?> Filters, Look Look, IReadOnlyList<string>? Sites,
    bool OnFrontPage, Freshness Freshness);
