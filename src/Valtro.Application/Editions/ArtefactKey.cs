using NodaTime;
using NodaTime.Text;
using Valtro.Application.Files;
using Valtro.Core.Events;
using Valtro.Core.Time;

namespace Valtro.Application.Editions;

/// <summary>What is rendered of an edition.</summary>
public enum ArtefactKind
{
    Feed,

    /// <summary>The entries of a month.</summary>
    Month,

    /// <summary>Every entry: for editions with a limit, which may not be looked at a month at a time.</summary>
    All,

    /// <summary>Entries that moved or were cancelled lately.</summary>
    Changed,

    /// <summary>The same as a feed of news.</summary>
    News,

    /// <summary>An entry's own page.</summary>
    EntryPage,

    /// <summary>An event, or one of its dates, as a file.</summary>
    EntryFile,

    /// <summary>A file of an event.</summary>
    File,

    /// <summary>Dates of a span, in one of the forms in which they are taken along.</summary>
    Taken,
}

/// <summary>To what a reader narrowed a feed.</summary>
/// <param name="Only">Slugs of calendars of the edition: none where those that were asked for have left it; null for all of them.</param>
/// <param name="About">Names of categories and tags, any of which an entry has; none for whatever it is about.</param>
public sealed record Narrowing(IReadOnlyList<string>? Only, IReadOnlyList<string> About)
{
    private const int MostWords = 20;
    private const int LongestWord = 100;

    /// <summary>As it stands in the key: ordered, so that the same is written once.</summary>
    public static Narrowing Of(IEnumerable<string>? only, IEnumerable<string> about) => new(
        only is null ? null : [.. only.Distinct().Order(StringComparer.Ordinal)],
        [.. about.Select(word => word.Trim().ToLowerInvariant()).Where(word => word.Length is > 0 and <= LongestWord).Distinct()
            .Take(MostWords).Order(StringComparer.Ordinal)]);

    public bool IsNone => Only is null && About.Count == 0;

    /// <summary>As an address says it.</summary>
    public string Query => string.Join('&', (Only is null ? [] : new[] { $"only={string.Join(',', Only)}" })
        .Concat(About.Select(word => $"about={Uri.EscapeDataString(word)}")));

    public override string ToString() =>
        $"{(Only is null ? "*" : string.Join(' ', Only))}/{string.Join(' ', About.Select(Uri.EscapeDataString))}";

    public static Narrowing Parse(string text)
    {
        var parts = text.Split('/');
        return new(parts[0] == "*" ? null : parts[0].Split(' ', StringSplitOptions.RemoveEmptyEntries),
            [.. parts[1].Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Uri.UnescapeDataString)]);
    }
}

/// <summary>A part of an edition that is rendered by itself.</summary>
/// <param name="Name">What of its kind: a month, calendars that a reader narrowed a feed to, an event and its date, a file.</param>
public readonly record struct ArtefactKey(ArtefactKind Kind, string Name)
{
    private static readonly YearMonthPattern MonthPattern = YearMonthPattern.Iso;

    /// <summary>The last of which all weeks are possible days.</summary>
    private static readonly YearMonth LastMonth = DayRange.Last.PlusMonths(-1).ToYearMonth();

    public static ArtefactKey Feed { get; } = new(ArtefactKind.Feed, "");

    public static ArtefactKey All { get; } = new(ArtefactKind.All, "");

    public static ArtefactKey Changed { get; } = new(ArtefactKind.Changed, "");

    public static ArtefactKey News { get; } = new(ArtefactKind.News, "");

    public static ArtefactKey Of(YearMonth month)
    {
        var first = DayRange.First.ToYearMonth();
        return new(ArtefactKind.Month,
            MonthPattern.Format(month.CompareTo(first) < 0 ? first : month.CompareTo(LastMonth) > 0 ? LastMonth : month));
    }

    /// <summary>The feed, or what of it is asked for.</summary>
    public static ArtefactKey FeedOf(Narrowing narrowing) => narrowing.IsNone ? Feed : new(ArtefactKind.Feed, narrowing.ToString());

    /// <param name="date">Names one date.</param>
    public static ArtefactKey EntryPage(Uid id, string date) => new(ArtefactKind.EntryPage, $"{id}/{date}");

    /// <param name="date">Names one date; null for all of it.</param>
    public static ArtefactKey EntryFile(Uid id, string? date) => new(ArtefactKind.EntryFile, $"{id}/{date}");

    public static ArtefactKey File(Guid id, string name, PictureSize size) => new(ArtefactKind.File, $"{id}/{size}/{name}");

    public static ArtefactKey Taken(Taking taking) => new(ArtefactKind.Taken, taking.ToString());

    /// <summary>The month, where it is one.</summary>
    public YearMonth? Month => Kind == ArtefactKind.Month ? MonthPattern.Parse(Name).Value : null;

    /// <summary>What somebody takes along.</summary>
    public Taking? Taking => Kind == ArtefactKind.Taken ? Taking.Parse(Name) : null;

    /// <summary>To what a reader narrowed a feed; null for all of it.</summary>
    public Narrowing? Narrowing => Kind == ArtefactKind.Feed && Name.Length > 0 ? Narrowing.Parse(Name) : null;

    /// <summary>Made for everybody and kept in the database; what only some ask for is made when they do.</summary>
    public bool IsForAll => Kind is ArtefactKind.Month or ArtefactKind.All or ArtefactKind.Changed || this == Feed;

    /// <summary>How this program writes it: parts are read by scripts and pages that know the fields of their day.</summary>
    public string Form => Kind is ArtefactKind.Month or ArtefactKind.All or ArtefactKind.Changed ? PartForm.Digest : "";

    /// <summary>From 2026-11, or "all"; false when that is neither, or no month that is possible.</summary>
    public static bool TryPart(string? text, out ArtefactKey key)
    {
        if (text == "all")
        {
            key = All;
            return true;
        }
        var parsed = MonthPattern.Parse(text ?? "");
        key = parsed.Success ? Of(parsed.Value) : default;
        return parsed.Success && key.Month == parsed.Value;
    }

    /// <summary>As it stands in the database and in the log.</summary>
    public override string ToString() => Kind switch
    {
        ArtefactKind.Month => $"month:{Name}",
        _ when Name.Length > 0 => $"{Kind.ToString().ToLowerInvariant()} {Name}",
        _ => Kind.ToString().ToLowerInvariant(),
    };
}
