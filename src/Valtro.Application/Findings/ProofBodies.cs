using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Findings;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>A way to put something right; which of the rest is said depends on the way.</summary>
/// <param name="Date">Of the event, as its name.</param>
public sealed record RemedyBody(
    RemedyWay Way, Guid? EventId, string? Date, Guid? CalendarId, Guid? SourceId, LocalDate? Day, ChosenAct? Act, EditionSetting? Setting)
{
    public static RemedyBody Of(Remedy remedy) => new(
        remedy.Way, remedy.EventId, remedy.Date is { } date ? IsoTime.Of(date) : null, remedy.CalendarId, remedy.SourceId, remedy.Day,
        remedy.Act, remedy.Setting);
}

/// <param name="By">The name of whoever lets it be.</param>
public sealed record PutOffBody(string Reason, string By, Instant At);

/// <summary>Something that is wrong with an edition, in words.</summary>
/// <param name="About">With <paramref name="Kind"/> it names it.</param>
/// <param name="Where">What it is about, where the title does not say.</param>
/// <param name="Since">When it was found first; null where it was found only now.</param>
public sealed record FindingBody(
    string Kind, string About, Severity Severity, string Title, string Text, string Where, Instant? Since, PutOffBody? PutOff,
    IReadOnlyList<RemedyBody> Remedies)
{
    public static FindingBody Of(Finding finding, StoredFinding? stored) => new(
        finding.Kind, finding.About, finding.Severity, Spoken.Now.Say(finding.Title), Spoken.Now.Say(finding.Text),
        finding.Where is { } where ? Spoken.Now.Say(where) : "", stored?.Since,
        stored?.PutOff is { } put ? new PutOffBody(put.Reason, put.By, put.At) : null,
        [.. finding.Remedies.Select(RemedyBody.Of)]);
}

/// <summary>How many findings are open.</summary>
public sealed record FindingCounts(int KeepsFromReaders, int ToLookAt, int ForInformation)
{
    public static FindingCounts None { get; } = new(0, 0, 0);

    public static FindingCounts Of(IEnumerable<Severity> severities) => Of(severities.Select(severity => (severity, 1)));

    public static FindingCounts Of(IEnumerable<(Severity Severity, int Number)> numbers)
    {
        var counted = numbers.AggregateBy(one => one.Severity, 0, (sum, one) => sum + one.Number).ToDictionary();
        return new FindingCounts(
            counted.GetValueOrDefault(Severity.KeepsFromReaders), counted.GetValueOrDefault(Severity.ToLookAt),
            counted.GetValueOrDefault(Severity.ForInformation));
    }
}

/// <param name="First">Its first day.</param>
/// <param name="IsBreak">Most of its days are closed.</param>
/// <param name="IsHeavy">It holds more of something than anybody wants.</param>
public sealed record ProofWeek(LocalDate First, int Entries, bool IsBreak, bool IsHeavy);

/// <summary>An entry as it is delivered.</summary>
/// <param name="EventId">Null for a break.</param>
/// <param name="LookAlikes">How many others became one with it.</param>
public sealed record ProofLine(
    Guid? EventId, string RecurrenceId, string Start, string End, bool AllDay, string Title, string Place, EventState State,
    IReadOnlyList<SourceBody> Sources, int LookAlikes);

/// <summary>What became of an entry within a fortnight.</summary>
/// <param name="Start">Where it is now; of what was removed, where it was.</param>
/// <param name="WasStart">Of what was moved.</param>
/// <param name="More">Later dates of the same series to which the same happened.</param>
/// <param name="At">When that was saved, and went out.</param>
public sealed record ChangedLine(
    Guid EventId, string RecurrenceId, string Title, IReadOnlyList<SourceBody> Sources, string Start, bool AllDay, EntryChange Change,
    string? WasStart, int More, Instant At);

/// <summary>An edition read before its readers do.</summary>
/// <param name="Entries">How many there are in the coming year.</param>
/// <param name="Lines">The first of them from the day that was asked for on.</param>
/// <param name="More">How many come after these.</param>
/// <param name="WentOutAt">When what readers get last changed.</param>
/// <param name="Programs">How many fetched it on the busiest day of a fortnight.</param>
/// <param name="Kinds">For how many kinds of mistakes it was looked through.</param>
public sealed record ProofResponse(
    Guid Id, string Name, Audience Audience, Guid? CalendarId, bool IsInTheMaking, int Version, int Entries,
    IReadOnlyList<FindingBody> Findings, IReadOnlyList<ProofWeek> Weeks, IReadOnlyList<ProofLine> Lines, int More, Instant? WentOutAt,
    int Programs, int Kinds);

/// <param name="Reason">Why it is let be; null takes it up again.</param>
public sealed record PutOffRequest(string? Kind, string? About, string? Reason);

public sealed record SettingRequest(EditionSetting Setting, Guid? CalendarId, int Version);

/// <param name="Said">The rule in words.</param>
public sealed record VerdictBody(ComposeStep Step, bool Passes, string Said);

/// <summary>Why a date is, or is not, in an edition.</summary>
/// <param name="Verdicts">In the order in which the rules were met; the last one decided.</param>
/// <param name="Remedies">How to change that; nothing where it is in.</param>
public sealed record TraceBody(
    Guid EditionId, string Edition, Audience Audience, bool IsStandard, bool IsIn, IReadOnlyList<VerdictBody> Verdicts,
    IReadOnlyList<RemedyBody> Remedies);

/// <summary>Where a date goes.</summary>
/// <param name="When">In words.</param>
public sealed record WhereResponse(Guid EventId, string RecurrenceId, string Title, string When, IReadOnlyList<TraceBody> Editions);

public sealed record NamedEdition(Guid Id, string Name);

/// <summary>A finding with the editions in which it is found; in words as the first of them has it.</summary>
public sealed record NeedBody(IReadOnlyList<NamedEdition> Editions, FindingBody Finding);

/// <summary>What is open to a person, but for sources and calendars elsewhere, which have lists of their own.</summary>
/// <param name="Findings">The worst first; what is for information only counts.</param>
/// <param name="More">How many there are beyond these.</param>
/// <param name="ToDecide">How many changes wait for their decision.</param>
/// <param name="Failing">How much has not gone out, for administrators.</param>
public sealed record NeedsResponse(
    IReadOnlyList<NeedBody> Findings, int More, FindingCounts Counts, int ToDecide, int Failing);
