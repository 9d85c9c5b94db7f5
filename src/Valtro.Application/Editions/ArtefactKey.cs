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

    /// <summary>The feed of what concerns some calendars.</summary>
    /// <param name="slugs">Of calendars of the edition; none where those that were asked for have left it.</param>
    public static ArtefactKey FeedOf(IEnumerable<string> slugs) =>
        new(ArtefactKind.Feed, $"only {string.Join(' ', slugs.Distinct().Order(StringComparer.Ordinal))}");

    /// <param name="date">Names one date.</param>
    public static ArtefactKey EntryPage(Uid id, string date) => new(ArtefactKind.EntryPage, $"{id}/{date}");

    /// <param name="date">Names one date; null for all of it.</param>
    public static ArtefactKey EntryFile(Uid id, string? date) => new(ArtefactKind.EntryFile, $"{id}/{date}");

    /// <param name="width">Of a picture: no more than so many dots across.</param>
    public static ArtefactKey File(Guid id, string name, int? width) =>
        new(ArtefactKind.File, $"{id}/{(width == Pictures.CardWidth ? "card" : "whole")}/{name}");

    /// <summary>The month, where it is one.</summary>
    public YearMonth? Month => Kind == ArtefactKind.Month ? MonthPattern.Parse(Name).Value : null;

    /// <summary>Slugs of the calendars to which a reader narrowed a feed; null for all of it.</summary>
    public string[]? Only =>
        Kind == ArtefactKind.Feed && Name.Length > 0 ? Name[5..].Split(' ', StringSplitOptions.RemoveEmptyEntries) : null;

    /// <summary>Made for everybody and kept in the database; what only some ask for is made when they do.</summary>
    public bool IsForAll => Kind is ArtefactKind.Month or ArtefactKind.All or ArtefactKind.Changed || this == Feed;

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
