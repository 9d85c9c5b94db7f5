using NodaTime;
using NodaTime.Text;
using Valtro.Core.Events;

namespace Valtro.Core.Editions;

/// <summary>By which name the readers of an edition know an event, or one of its dates.</summary>
/// <param name="Own">The name that is its own; null where it never needed one, because it went out under another's.</param>
/// <param name="Uid">The name under which it goes out.</param>
public sealed record OutwardName(SourceDate Source, Uid? Own, Uid Uid);

/// <summary>What goes out as one component.</summary>
/// <param name="Sources">Those of which it is told: the first, and look-alikes that became one with it. Each with the name that is its own,
/// where it has one from the start.</param>
public readonly record struct Outgoing(IReadOnlyList<(SourceDate Source, Uid? Own)> Sources);

/// <summary>Gives names that readers' programs know things by, and keeps them (RFC 7986 5.3).</summary>
/// <remarks>Look-alikes that became one keep the name that was out first. When they part, the one whose own it is keeps it, and the other
/// gets its own.</remarks>
public static class OutwardNames
{
    /// <summary>The name of one date, that shows nobody which others belong to it.</summary>
    /// <param name="of">A secret of the event, or of the edition.</param>
    public static Uid OfDate(Uid of, LocalDateTime date) => of.Hidden(LocalDateTimePattern.GeneralIso.Format(date));

    /// <param name="outgoing">All that goes out, in its order.</param>
    /// <param name="known">Names given before.</param>
    /// <param name="outSince">Since which content version a name is out; null for one that never was, or is no more.</param>
    /// <param name="make">Makes a name that nobody can guess, for what has none of its own.</param>
    /// <returns>A name for each, and those to note: they are new, or others than before.</returns>
    public static (Uid[] Names, IReadOnlyList<OutwardName> Changed) Give(
        IReadOnlyList<Outgoing> outgoing, IReadOnlyDictionary<SourceDate, OutwardName> known, Func<Uid, long?> outSince, Func<Uid> make)
    {
        var owners = new Dictionary<Uid, int>();
        for (var index = 0; index < outgoing.Count; index++)
        {
            foreach (var (source, own) in outgoing[index].Sources)
            {
                if ((own ?? known.GetValueOrDefault(source)?.Own) is { } name)
                    owners.TryAdd(name, index);
            }
        }
        var names = new Uid[outgoing.Count];
        var taken = new HashSet<Uid>(outgoing.Count);
        var changed = new List<OutwardName>();
        for (var index = 0; index < outgoing.Count; index++)
        {
            var sources = outgoing[index].Sources;
            var name = names[index] = Chosen(sources, index) ?? make();
            taken.Add(name);
            for (var place = 0; place < sources.Count; place++)
            {
                var (source, own) = sources[place];
                var before = known.GetValueOrDefault(source);
                var isMade = own is null && before?.Own is null && place == 0 && !owners.ContainsKey(name) && before?.Uid != name;
                var after = new OutwardName(source, own ?? before?.Own ?? (isMade ? name : null), name);
                // What goes out under the name that it has from the start need not be noted.
                if (before is null ? own != name : before != after)
                    changed.Add(after);
            }
        }
        return (names, changed);

        Uid? Chosen(IReadOnlyList<(SourceDate Source, Uid? Own)> sources, int index)
        {
            if (sources is [{ Own: { } only } one] && !known.ContainsKey(one.Source) && !taken.Contains(only))
                return only;
            Uid? best = null;
            long? since = null;
            foreach (var (source, own) in sources)
            {
                var before = known.GetValueOrDefault(source);
                foreach (var name in new[] { before?.Uid, own ?? before?.Own })
                {
                    if (name is not { } candidate
                        || taken.Contains(candidate)
                        || (owners.TryGetValue(candidate, out var owner) && owner != index))
                        continue;
                    var at = outSince(candidate);
                    if (best is null || (at is not null && (since is null || at < since)))
                        (best, since) = (candidate, at);
                }
            }
            return best;
        }
    }
}
