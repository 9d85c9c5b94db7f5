using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>What CLASS says (RFC 5545 3.8.1.3): whom its owner means to tell of it.</summary>
public enum Secrecy
{
    Public,

    /// <summary>When it is, to others.</summary>
    Confidential,

    /// <summary>Nothing, to anybody else.</summary>
    Private,
}

/// <summary>What one component of somebody's file says of an event, or of one date of one.</summary>
/// <param name="Uid">Empty where it says none.</param>
/// <param name="Line">Of the file.</param>
public sealed record ForeignEvent(string Uid, int Line)
{
    public ForeignTime? RecurrenceId { get; init; }
    public long Sequence { get; init; }
    public EventKind Kind { get; init; }
    public string Title { get; init; } = "";

    /// <summary>Plain text.</summary>
    public string Description { get; init; } = "";

    /// <summary>The same as HTML that nobody has sanitised yet; empty where it says none.</summary>
    public string Html { get; init; } = "";

    public string Place { get; init; } = "";
    public IReadOnlyList<string> Categories { get; init; } = [];
    public IReadOnlyList<EventLink> Links { get; init; } = [];
    public string Contact { get; init; } = "";
    public required ForeignTime Start { get; init; }
    public ForeignTime? End { get; init; }
    public Duration? Length { get; init; }
    public IReadOnlyList<string> Rules { get; init; } = [];

    /// <summary>EXRULE, which RFC 2445 knew.</summary>
    public IReadOnlyList<string> ExceptRules { get; init; } = [];

    public IReadOnlyList<(ForeignTime Start, Duration? Length)> Extra { get; init; } = [];
    public IReadOnlyList<ForeignTime> Removed { get; init; } = [];
    public bool IsCancelled { get; init; }
    public Certainty Certainty { get; init; }
    public Transparency Transparency { get; init; }
    public Secrecy Secrecy { get; init; }
    public Reminder? Reminder { get; init; }

    /// <summary>What was not taken, or not as it stands there.</summary>
    public IReadOnlyList<Saying> Remarks { get; init; } = [];

    public bool Recurs => Rules.Count + Extra.Count > 0;

    /// <summary>Some of its times say no zone: whoever brings it in is asked for one.</summary>
    public bool NeedsZone => Start is { IsDate: false, Zone: null };
}
