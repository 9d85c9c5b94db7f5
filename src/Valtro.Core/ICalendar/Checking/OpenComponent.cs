using Valtro.Core.Recurrence;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>A component while its lines are read: what later rules ask of it.</summary>
/// <param name="Kind">Null for one that no standard knows.</param>
internal sealed record OpenComponent(string Name, CheckedLine Begin, ComponentKind? Kind, OpenComponent? Parent)
{
    /// <summary>The first line of each name.</summary>
    public Dictionary<string, CheckedLine> First { get; } = [];

    /// <summary>The times of properties that have one.</summary>
    public Dictionary<string, CheckedTime> Times { get; } = [];

    public List<(CheckedLine Line, CheckedTime Time, int At)> Excluded { get; } = [];

    public List<(CheckedLine Line, CheckedTime Time, int At)> Added { get; } = [];

    public RecurrenceRule? Rule { get; set; }

    public HashSet<string> Children { get; } = [];

    /// <summary>Zones that are named, with where first; of a calendar.</summary>
    public Dictionary<string, CheckedLine> ZonesNamed { get; } = [];

    /// <summary>Zones that are defined; of a calendar.</summary>
    public Dictionary<string, CheckedLine> ZonesDefined { get; } = [];

    /// <summary>By kind and UID: whether there is one without RECURRENCE-ID, and those with one.</summary>
    public Dictionary<(string Kind, string Uid), (bool HasMaster, HashSet<string> Dates, CheckedLine First)> Uids { get; } = [];

    public OpenComponent Calendar => Parent?.Calendar ?? this;

    public string? Value(string name) => First.GetValueOrDefault(name)?.Value;

    /// <summary>Of its rule most programs make nothing.</summary>
    public bool IsGivenUp { get; set; }

    /// <summary>Most programs make a date of what looks like one, be there such a day or not.</summary>
    public bool IsRead => !IsGivenUp && Value("DTSTART") is { Length: >= 8 } start && !start.AsSpan(0, 8).ContainsAnyExceptInRange('0', '9');

    public bool Has(string name) => First.ContainsKey(name);
}
