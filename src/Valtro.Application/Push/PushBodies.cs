using NodaTime;
using Valtro.Application.Sources;
using Valtro.Core.Disclosure;
using Valtro.Core.Push;
using Valtro.Store;

namespace Valtro.Application.Push;

/// <summary>A calendar that a server has.</summary>
/// <param name="IsWritable">As far as the server says.</param>
/// <param name="IsTaken">It is written already.</param>
public sealed record FoundElsewhere(string Address, string Name, bool IsWritable, bool IsTaken);

/// <param name="Access">Where the calendars were found, and who signs in there.</param>
/// <param name="Calendar">The address of the one that is meant, as it was found.</param>
/// <param name="Audience">As whom those are seen who read it there; null where the edition says so.</param>
public sealed record TargetRequest(
    SourceAddress Access, string? Calendar, string? Name, Guid EditionId, Audience? Audience, PushTakes Takes, LocalDate? From,
    LocalDate? Until);

/// <param name="Version">That was seen.</param>
/// <param name="Access">Another password; null where it stays as it is.</param>
public sealed record TargetChange(
    int Version, string? Name, Audience? Audience, PushTakes Takes, LocalDate? From, LocalDate? Until, SourceAddress? Access);

public enum TargetHealth
{
    /// <summary>It was not written yet.</summary>
    New,
    Right,
    Failing,

    /// <summary>Something was changed there, and waits for somebody's word.</summary>
    Asks,
    Leaving,
}

/// <summary>One of the calendars elsewhere.</summary>
/// <param name="EditionName">Of what is written there.</param>
/// <param name="CalendarId">Where that is one calendar.</param>
/// <param name="Problem">Why it fails; empty where it does not.</param>
/// <param name="Done">Of <paramref name="Total"/>, while it is written.</param>
public sealed record TargetListed(
    Guid Id, string Name, string Shown, Guid EditionId, string EditionName, Guid? CalendarId, TargetHealth Health, Instant? RightAt,
    Instant? FailedSince, string Problem, int There, int Asking, bool IsBusy, int? Done, int? Total);

/// <summary>One event that somebody changed there, that was left as it is there, or that is not taken.</summary>
/// <param name="Ours">As it is here: title, when, place; empty where it goes there no more.</param>
/// <param name="Theirs">As it is there; empty where it is gone.</param>
public sealed record TargetOpen(
    string Name, string Title, PushQuestion? Question, IReadOnlyList<string> Ours, IReadOnlyList<string> Theirs, Instant? AskedAt,
    PushAnswer Answer, string Problem);

/// <param name="SetUpBy">Hears of what is asked and what fails.</param>
/// <param name="IsAudienceFixed">The edition says who reads it.</param>
/// <param name="Left">So many stay as somebody made them there.</param>
/// <param name="Refused">So many are not taken.</param>
public sealed record TargetBody(
    Guid Id, string Name, string Shown, Guid EditionId, string EditionName, Guid? CalendarId, string SetUpBy, TargetHealth Health,
    Audience Audience, bool IsAudienceFixed, PushTakes Takes, LocalDate? From, LocalDate? Until, int Version, Instant? RightAt,
    Instant? FailedSince, int Failures, string Problem, int There, int Asking, int Left, int Refused, int Chosen, bool IsBusy, int? Done,
    int? Total, IReadOnlyList<TargetOpen> Open);

/// <param name="Answer">Ours or theirs.</param>
public sealed record TargetAnswer(string Name, PushAnswer Answer);

/// <summary>Days of which something is chosen, or brought from there.</summary>
/// <param name="IsChosen">False where they are to go there no more.</param>
public sealed record TargetDays(LocalDate? From, LocalDate? Until, bool IsChosen);

/// <summary>What came of choosing by days.</summary>
public sealed record ChosenCount(int Count);

/// <summary>A calendar elsewhere into which an event may be written too.</summary>
/// <param name="TakesAll">It goes there by itself, with all of its calendar.</param>
public sealed record TargetOfEvent(Guid Id, string Name, string Shown, bool TakesAll, bool IsChosen);

/// <param name="Targets">Those into which it is to be written; of those that take what is chosen.</param>
public sealed record EventTargets(IReadOnlyList<Guid>? Targets);
