using NodaTime;
using NodaTime.Text;

namespace Valtro.Server.Public;

/// <summary>The parts of an edition that are rendered: its feed, a month of its entries, all of them, and what changed lately.</summary>
public readonly record struct ArtefactKey
{
    private static readonly YearMonthPattern MonthPattern = YearMonthPattern.Iso;
    private static readonly YearMonth Earliest = new(1900, 1);
    private static readonly YearMonth Latest = new(2199, 11);

    private readonly string _name;

    /// <summary>The month, where it is one.</summary>
    public YearMonth? Month { get; }

    /// <summary>Plates to which a reader narrowed a feed, ascending with spaces between; null for all of it. Never kept.</summary>
    public string? Only { get; private init; }

    private ArtefactKey(string name, YearMonth? month = null) => (_name, Month) = (name, month);

    public static ArtefactKey Feed { get; } = new("feed");

    /// <summary>Every entry: for editions with a limit, which may not be looked at a month at a time.</summary>
    public static ArtefactKey All { get; } = new("all");

    /// <summary>Entries that moved or were cancelled lately.</summary>
    public static ArtefactKey Changed { get; } = new("changed");

    public static ArtefactKey Of(YearMonth month) => new($"month:{MonthPattern.Format(month)}", month);

    /// <summary>The feed of what concerns some calendars.</summary>
    public static ArtefactKey FeedOf(IEnumerable<string> plates) => Feed with { Only = string.Join(' ', plates.Distinct().Order(StringComparer.Ordinal)) };

    /// <summary>From 2026-11, or "all"; false when that is neither, or no month between 1900 and 2199.</summary>
    public static bool TryPart(string? text, out ArtefactKey key)
    {
        if (text == "all")
        {
            key = All;
            return true;
        }
        var parsed = MonthPattern.Parse(text ?? "");
        var possible = parsed.Success && parsed.Value.CompareTo(Earliest) >= 0 && parsed.Value.CompareTo(Latest) <= 0;
        key = possible ? Of(parsed.Value) : default;
        return possible;
    }

    public override string ToString() => _name ?? "";
}
