using Valtro.Core.Acts;
using Valtro.Core.Disclosure;

namespace Valtro.Application.Events;

/// <summary>What an act would do.</summary>
/// <param name="Removed">Of the events, those that go to the bin.</param>
/// <param name="Returned">Of the events, those that come out of it.</param>
/// <param name="NewlySees">"Everyone sees more of 3 events".</param>
public sealed record ForeseenBody(
    int Events, int Removed, int Returned, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess)
{
    public static ForeseenBody Of(Act act, IReadOnlyDictionary<Guid, Disclosure> calendars)
    {
        var foreseen = Foreseen.Of(act, calendars);
        return new ForeseenBody(foreseen.Events, foreseen.Removed, foreseen.Returned,
            [.. foreseen.Readers.Where(one => one.More > 0).Select(one => Say("foreseen.more", one.Audience, one.More))],
            [.. foreseen.Readers.Where(one => one.Less > 0).Select(one => Say("foreseen.less", one.Audience, one.Less))]);
    }

    /// <summary>Of an act that only makes events: each audience, and how many of them it sees.</summary>
    public static IReadOnlyList<string> WhoWillSee(Act act, IReadOnlyDictionary<Guid, Disclosure> calendars)
    {
        var foreseen = Foreseen.Of(act, calendars);
        return [.. from audience in Audiences.Readers
                   let readers = foreseen.Readers.FirstOrDefault(one => one.Audience == audience)
                   let seen = readers?.More ?? 0
                   let said = Say(seen == 0 ? "foreseen.none" : seen == foreseen.Events ? "foreseen.all" : "foreseen.some", audience, seen)
                   select readers is { Times: > 0 }
                       ? Spoken.Now.Say("foreseen.timesOnly", ("seen", said), ("count", readers.Times))
                       : said];
    }

    private static string Say(string code, Audience audience, int events) =>
        Spoken.Now.Say(code, ("audience", DetailWords.Of(audience)), ("count", events));
}
