using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>How much a fault matters, worst first.</summary>
public enum FaultSeverity
{
    /// <summary>The standard forbids it: programs may refuse the file, or read something else.</summary>
    Error,

    /// <summary>It is advised against, or many programs trip over it.</summary>
    Warning,

    /// <summary>It is allowed, and some programs misread it.</summary>
    Note,
}

/// <summary>Something that is wrong with an iCalendar stream, or may be.</summary>
/// <param name="Code">Of its kind.</param>
/// <param name="Line">Of the file, from 1.</param>
/// <param name="Column">In characters, from 1.</param>
/// <param name="Clause">Which rule it breaks: "RFC 5545 3.6.1".</param>
/// <param name="Text">What is wrong, and what to do, in words.</param>
public sealed record Fault(string Code, FaultSeverity Severity, int Line, int Column, string Clause, Saying Text);

/// <summary>What a check came to.</summary>
/// <param name="Faults">By line; of each kind the first so many.</param>
/// <param name="Errors">How many there are, those that are not listed too.</param>
/// <param name="Components">How many events, tasks, journal entries and spans of free and busy were read.</param>
/// <param name="Events">How many events most programs read of it, faults or not, several components of one UID as one; held against three
/// libraries of others.</param>
public sealed record CheckResult(
    IReadOnlyList<Fault> Faults, int Errors, int Warnings, int Notes, int Lines, int Components, int Events);
