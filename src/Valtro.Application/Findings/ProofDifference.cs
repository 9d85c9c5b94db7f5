using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Findings;
using Valtro.Core.Speaking;

namespace Valtro.Application.Findings;

/// <summary>What an edition would be if something were otherwise, against what it is.</summary>
/// <param name="Entries">How many there are now in the coming year.</param>
/// <param name="Becomes">How many there would be.</param>
/// <param name="Leave">Of the entries that would not be there any more the first, in words.</param>
/// <param name="MoreLeave">How many there are beyond these.</param>
/// <param name="Arrive">Of those that would be new, or on another day, the first.</param>
/// <param name="Gone">Findings that would not be there any more, by title.</param>
/// <param name="Come">Findings that would be new.</param>
/// <param name="Readers">Whose readers get that.</param>
public sealed record ProofDifference(
    int Entries, int Becomes, IReadOnlyList<string> Leave, int MoreLeave, IReadOnlyList<string> Arrive, int MoreArrive,
    IReadOnlyList<string> Gone, IReadOnlyList<string> Come, Audience Readers)
{
    private const int EntriesShown = 4;

    /// <param name="heard">Those that the person may hear of.</param>
    public static ProofDifference Between(
        ProofGround now, ProofGround then, Func<IReadOnlyList<Finding>, IReadOnlyList<Finding>> heard)
    {
        var (before, after) = (heard(FindingKind.Of(now)), heard(FindingKind.Of(then)));
        var (are, become) = (EntriesOf(now), EntriesOf(then));
        var leave = are.ExceptBy(become.Select(NameOf), NameOf).ToArray();
        var arrive = become.ExceptBy(are.Select(NameOf), NameOf).ToArray();
        return new ProofDifference(
            are.Length, become.Length, Said(leave), Math.Max(0, leave.Length - EntriesShown), Said(arrive),
            Math.Max(0, arrive.Length - EntriesShown), Titles(before, after), Titles(after, before), now.Edition.Audience);
    }

    private static Entry[] EntriesOf(ProofGround ground) => [.. ground.Composed.Entries.Where(entry => !entry.IsBreak)];

    private static (Guid?, LocalDateTime, LocalDate) NameOf(Entry entry) =>
        (entry.EventId, entry.Occurrence.RecurrenceId, entry.Occurrence.LocalStart.Date);

    private static string[] Said(IEnumerable<Entry> entries) =>
        [.. entries.Take(EntriesShown).Select(entry => Spoken.Now.Say(
            Saying.Of("finding.when", ("title", entry.Title), ("day", entry.Occurrence.LocalStart.Date))))];

    private static string[] Titles(IReadOnlyList<Finding> some, IReadOnlyList<Finding> without) =>
        [.. some.ExceptBy(without.Select(one => (one.Kind, one.About)), one => (one.Kind, one.About))
            .Select(one => Spoken.Now.Say(one.Title)).Take(FindingKind.MostOfAKind)];
}
