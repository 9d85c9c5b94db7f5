using System.Security.Cryptography;
using System.Text;
using Valtro.Core.Speaking;

namespace Valtro.Core.Findings;

/// <summary>One kind of thing that can be wrong with an edition. Its code is its name; its words are the messages
/// finding.{code}.title and .text.</summary>
public abstract class FindingKind
{
    /// <summary>So many of a kind are named; more would be read by nobody.</summary>
    public const int MostOfAKind = 20;

    protected FindingKind() => Code = char.ToLowerInvariant(GetType().Name[0]) + GetType().Name[1..];

    /// <summary>Every kind there is, worst first.</summary>
    public static IReadOnlyList<FindingKind> All { get; } =
    [
        .. typeof(FindingKind).Assembly.GetTypes()
            .Where(type => type.IsSubclassOf(typeof(FindingKind)) && !type.IsAbstract)
            .Select(type => (FindingKind)Activator.CreateInstance(type)!)
            .OrderBy(kind => kind.Severity).ThenBy(kind => kind.Code, StringComparer.Ordinal),
    ];

    public string Code { get; }

    public abstract Severity Severity { get; }

    /// <summary>It says what only those know who keep the event: its settings, who is responsible.</summary>
    protected virtual bool IsForKeepers => false;

    /// <summary>What there is of it, in the order in which people would put it right.</summary>
    public abstract IEnumerable<Finding> In(ProofGround ground);

    /// <summary>All that is wrong with an edition, worst first.</summary>
    public static IReadOnlyList<Finding> Of(ProofGround ground) =>
        [.. All.SelectMany(kind => kind.In(ground).DistinctBy(finding => finding.About).Take(MostOfAKind))];

    /// <summary>Of the edition as a whole, a calendar or a week.</summary>
    protected Finding About(
        string about, Saying? where, IReadOnlyList<Remedy> remedies, params ReadOnlySpan<(string Name, object? Value)> values) =>
        new(Code, Severity, Short(about), Saying.Of($"finding.{Code}.title", values), Saying.Of($"finding.{Code}.text", values), where,
            remedies)
        { IsPlain = !IsForKeepers };

    /// <summary>Of an event; its title is the value "title".</summary>
    protected Finding About(in TellsOf told, IReadOnlyList<Remedy> remedies, params ReadOnlySpan<(string Name, object? Value)> values) =>
        About(told.Event.Id.ToString("N"), told.When, remedies, [("title", told.Title), .. values]).Naming(told.Event);

    private const int LongestName = 80;

    private static string Short(string about) => about.Length <= LongestName
        ? about
        : Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(about)))[..32];
}

/// <summary>A kind that is found event by event.</summary>
public abstract class FindingOfEvents : FindingKind
{
    public override IEnumerable<Finding> In(ProofGround ground) =>
        ground.Told.Select(told => In(told, ground)).OfType<Finding>();

    /// <returns>Null where nothing is wrong.</returns>
    protected abstract Finding? In(TellsOf told, ProofGround ground);
}
