using NodaTime;
using Valtro.Application.Outside;
using Valtro.Core;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Application.Sources;

/// <summary>What is needed to ask an address.</summary>
/// <param name="Address">https or webcal.</param>
/// <param name="User">With <paramref name="Password"/> where it wants one.</param>
/// <param name="HeaderName">Of a header that it wants instead.</param>
public sealed record SourceAddress(string? Address, string? User, string? Password, string? HeaderName, string? HeaderValue)
{
    /// <exception cref="RuleException">It is none that is asked, or the operator has no key to seal it with.</exception>
    internal (Uri Address, OutsideSecrets Secrets) Checked(IOutside outside, Settings settings) => settings.Sealing.IsPossible
        ? (outside.Check(Address), OutsideSecrets.Checked(User, Password, HeaderName, HeaderValue))
        : throw new RuleException("address", "source.noKey");
}

/// <summary>One of the first entries that an address has.</summary>
/// <param name="Words">When it is.</param>
public sealed record LookedEntry(string Title, string Words);

/// <summary>A word that many of its entries have, and how many.</summary>
public sealed record LookedWord(string Word, int Count);

/// <summary>What an address has, looked at before it is followed.</summary>
/// <param name="Name">As it calls itself; its host where it does not.</param>
/// <param name="Zone">In which its times without one are taken to be.</param>
/// <param name="Entries">The first that are still to come; of all where none is.</param>
/// <param name="Beginnings">Words with which several titles begin: classes, groups.</param>
public sealed record SourceLook(
    string Name, int Count, LocalDate? First, LocalDate? Last, string Zone, int Bytes, IReadOnlyList<LookedEntry> Entries,
    IReadOnlyList<LookedWord> Beginnings, IReadOnlyList<LookedWord> Categories, int Unreadable);

/// <summary>A source to be followed from now on.</summary>
/// <param name="Rules">Null where all goes on a calendar of its own.</param>
public sealed record SourceRequest(SourceAddress Address, string? Name, int EveryMinutes, SourceRules? Rules);

/// <param name="Version">Of the rules that were seen.</param>
/// <param name="Address">Null where it stays as it is.</param>
public sealed record SourceChange(int Version, string? Name, int EveryMinutes, SourceRules? Rules, SourceAddress? Address);

public enum SourceHealth
{
    /// <summary>It was not asked yet.</summary>
    New,
    Right,
    Failing,

    /// <summary>What it says now waits for somebody's word.</summary>
    Held,
}

/// <summary>One of the followed sources.</summary>
/// <param name="Problem">Why it fails; empty where it does not.</param>
/// <param name="Calendars">On which it lands something.</param>
public sealed record SourceListed(
    Guid Id, string Name, string Shown, SourceHealth Health, Instant? RightAt, Instant? FailedSince, int Failures, string Problem,
    IReadOnlyList<Guid> Calendars, bool IsBusy);

/// <summary>How it went on one day.</summary>
public sealed record SourceDay(LocalDate Day, int Changed, int Same, int Failed, int Held);

/// <param name="News">What was another, or why it failed, in sentences.</param>
public sealed record SourceFetchBody(
    Instant At, FetchOutcome Outcome, int Bytes, int Made, int Changed, int Removed, IReadOnlyList<string> News);

/// <summary>What is held back.</summary>
/// <param name="Gone">Of what was still to come, so much is missing.</param>
public sealed record SourceHeld(HeldBecause Because, Instant At, int Before, int Now, int Gone);

/// <summary>A followed source.</summary>
/// <param name="HasSecrets">It is told a password or a header.</param>
/// <param name="Follower">By whose rights it lands where it does.</param>
/// <param name="Days">The last thirty.</param>
/// <param name="Fetches">The latest times that it changed, failed, was held back, or had other rules.</param>
public sealed record FollowedBody(
    Guid Id, string Name, string Shown, bool HasSecrets, string Follower, int EveryMinutes, int Version, bool IsBusy, SourceRules Rules,
    SourceHealth Health, Instant? RightAt, Instant? ChangedAt, Instant? FailedSince, int Failures, string Problem, Instant DueAt, int Bytes,
    SourceHeld? Held, Guid? OwnCalendar, IReadOnlyList<SourceDay> Days, IReadOnlyList<SourceFetchBody> Fetches);

/// <summary>An entry as it came, and what becomes of it.</summary>
/// <param name="Words">When it is.</param>
/// <param name="Title">As it becomes.</param>
/// <param name="Rule">The place of the rule that says so; null where none does.</param>
/// <param name="IsByHand">Somebody said so of this entry.</param>
/// <param name="AlsoOf">The title of the one with which it is one event.</param>
/// <param name="Remarks">What was not taken as it stood; why it is refused.</param>
public sealed record SourceEntryBody(
    string Uid, string Came, string Words, SourceEntryState State, string Title, Guid? CalendarId, bool IsDeadline, bool IsCancelled,
    int? Rule, bool IsByHand, string? AlsoOf, Guid? EventId, IReadOnlyList<string> Remarks);

/// <summary>How much a rule decides.</summary>
/// <param name="Next">The next of them, in words; empty where none is to come.</param>
public sealed record RuleCount(int Count, string Next);

/// <summary>How many of its events an audience sees.</summary>
public sealed record SourceSeen(int Members, int Link, int Everyone);

/// <summary>What its rules would make of what it said last.</summary>
/// <param name="Rules">In their order; the last is of what fits none.</param>
/// <param name="Entries">Those that ask first, then those still to come.</param>
/// <param name="Total">Of all that there are.</param>
public sealed record SourcePreview(
    IReadOnlyList<RuleCount> Rules, IReadOnlyList<SourceEntryBody> Entries, int Total, int Taken, int LeftOut, int Asking, SourceSeen Seen,
    int Made, int Changed, int Removed);

/// <param name="Landing">What becomes of it; null for what the rules say.</param>
public sealed record SourceChoice(string Uid, Landing? Landing);

/// <param name="IsTaken">False where it is to stay as it was.</param>
public sealed record HeldDecision(bool IsTaken);

/// <summary>Where an event comes from, for whoever looks at it.</summary>
/// <param name="MayManage">They may open the source.</param>
public sealed record SourceOfEvent(Guid Id, string Name, Instant? RightAt, SourceHealth Health, bool MayManage);
