using Valtro.Core.Disclosure;

namespace Valtro.Core.Acts;

/// <summary>What an act would do, in numbers, before it is done.</summary>
/// <param name="Events">That are another afterwards.</param>
/// <param name="Removed">Of these, those that go to the bin.</param>
/// <param name="Returned">Of these, those that come out of it.</param>
/// <param name="Readers">Audiences to which something changes, narrowest first.</param>
public sealed record Foreseen(int Events, int Removed, int Returned, IReadOnlyList<ForeseenReaders> Readers)
{
    /// <param name="calendars">What each calendar shows whom.</param>
    public static Foreseen Of(Act act, IReadOnlyDictionary<Guid, Disclosure.Disclosure> calendars) => new(
        act.Writes.Count,
        act.Writes.Count(write => write.IsRemoved && !WasRemoved(write)),
        act.Writes.Count(write => !write.IsRemoved && WasRemoved(write)),
        [.. from audience in Audiences.Readers
            let levels = act.Writes.Select(write => (
                Was: write.Before is null || write.Before.IsRemoved
                    ? Detail.Nothing
                    : WhoSees.Best(audience, write.Before.Event, calendars).Detail,
                Becomes: write.IsRemoved ? Detail.Nothing : WhoSees.Best(audience, write.Event, calendars).Detail)).ToArray()
            let more = levels.Count(level => level.Becomes > level.Was)
            let less = levels.Count(level => level.Becomes < level.Was)
            where more + less > 0
            select new ForeseenReaders(
                audience, more, less, levels.Count(level => level.Becomes > level.Was && level.Becomes == Detail.Times))]);

    private static bool WasRemoved(EventWrite write) => write.Before?.IsRemoved == true;
}

/// <param name="More">Events of which the audience sees more than before.</param>
/// <param name="Less">Events of which it sees less, or nothing any more.</param>
/// <param name="Times">Of those of which it sees more, those of which it sees the times only.</param>
public sealed record ForeseenReaders(Audience Audience, int More, int Less, int Times);
