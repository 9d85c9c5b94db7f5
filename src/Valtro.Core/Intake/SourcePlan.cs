using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Events;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Intake;

/// <summary>An entry of a followed source, and what its rules say of it.</summary>
/// <param name="Came">As the source has it, on the calendar where it lands or on some other; null where it cannot be read.</param>
/// <param name="IsNarrowedAway">It is none of those that are wanted of the source.</param>
public sealed record SourceEntry(
    string Uid, string Title, CalendarEvent? Came, Ruling Ruling, bool IsNarrowedAway, IReadOnlyList<Saying> Remarks)
{
    public bool Lands => Came is not null && !IsNarrowedAway && Ruling.Landing.To == LandingTo.Calendar;

    /// <summary>The event as it is to be where it lands.</summary>
    public CalendarEvent? Landed { get; init; }

    /// <summary>No date of it is still to come.</summary>
    public bool IsOver(Instant now) => Came is not null && EventDates.Reach(Came).To is { } end && end <= now;
}

/// <summary>What becomes of an entry.</summary>
public enum SourceEntryState
{
    Taken,

    /// <summary>Another of the source says the same for the same calendar: they are one event.</summary>
    Also,

    LeftOut,

    /// <summary>It waits until somebody says what becomes of it.</summary>
    Asks,

    /// <summary>Somebody removed it here.</summary>
    Hidden,

    /// <summary>Somebody took it over: it is no longer changed by its source.</summary>
    Ours,

    /// <summary>It cannot be read.</summary>
    Refused,
}

/// <param name="EventId">Which is here of it, as far as there is one yet.</param>
/// <param name="AlsoOf">The title of the entry with which it is one.</param>
public sealed record SourceOutcome(SourceEntry Entry, SourceEntryState State, Guid? EventId = null, string? AlsoOf = null)
{
    /// <summary>The event as it stands here afterwards, where the entry is one.</summary>
    public CalendarEvent? Is { get; init; }
}

/// <summary>By which name a source knows an event, and how it says it.</summary>
/// <param name="EventId">Null for what the act makes: then <paramref name="Write"/> says which.</param>
public sealed record SourceName(string Uid, CalendarEvent Said, Guid? EventId, int Write = -1);

/// <summary>What is known of a source's entries from before.</summary>
/// <param name="Names">Which events its names stand for, those in the bin too.</param>
/// <param name="Hidden">Names of events that were hidden so long ago that they are gone.</param>
/// <param name="Standing">Its events that are not in the bin.</param>
public sealed record SourceKnown(
    IReadOnlyDictionary<string, KnownIncoming> Names, IReadOnlySet<string> Hidden, IReadOnlyList<StoredEvent> Standing)
{
    public static SourceKnown Nothing { get; } =
        new(new Dictionary<string, KnownIncoming>(), new HashSet<string>(), []);
}

/// <summary>Why what a source says now is not taken by itself.</summary>
public enum HeldBecause
{
    /// <summary>It holds nothing any more.</summary>
    Emptied,

    /// <summary>More than half of what was still to come is gone.</summary>
    Shrunk,

    /// <summary>None of its entries is called as any was before.</summary>
    AllRenamed,
}

/// <summary>What is held back, beside what was taken last.</summary>
/// <param name="Gone">Of what was still to come, so much is missing.</param>
public sealed record HeldBack(HeldBecause Because, int Before, int Now, int Gone);

/// <summary>What a followed source says, beside what is here of it: worked out before it is done.</summary>
/// <param name="Gone">Names of what it does not say any more, or what is not wanted of it any more.</param>
/// <param name="News">What is another, in a few sentences.</param>
public sealed record SourcePlan(
    Act Act, IReadOnlyList<SourceOutcome> Outcomes, IReadOnlyList<SourceName> Names, IReadOnlyList<string> Gone,
    int Made, int Changed, int Removed, IReadOnlyList<Saying> News)
{
    private const int MostNews = 3;

    /// <summary>Whether it is to be asked before it is taken.</summary>
    /// <param name="before">As it was taken last.</param>
    public static HeldBack? Holds(IReadOnlyList<SourceEntry> before, IReadOnlyList<SourceEntry> entries, Instant now)
    {
        var uids = entries.Select(entry => entry.Uid).ToHashSet(StringComparer.Ordinal);
        // Many sources tell only what is to come: what is over may go.
        var ahead = before.Where(entry => !entry.IsOver(now)).ToArray();
        var gone = ahead.Count(entry => !uids.Contains(entry.Uid));
        HeldBecause? because = before.Count == 0 ? null
            : entries.Count == 0 ? HeldBecause.Emptied
            : !before.Any(entry => uids.Contains(entry.Uid)) ? HeldBecause.AllRenamed
            : gone * 2 > ahead.Length ? HeldBecause.Shrunk
            : null;
        return because is { } why ? new HeldBack(why, before.Count, entries.Count, gone) : null;
    }

    public static SourcePlan Of(
        IReadOnlyList<SourceEntry> entries, SourceKnown known, ActPlanner planner, SchoolCalendar school, Instant now)
    {
        var (acts, outcomes, names) = (new List<Act>(), new List<SourceOutcome>(), new List<SourceName>());
        var (claimed, news) = (new HashSet<Guid>(), new List<Saying>());
        var (made, changed) = (0, 0);
        foreach (var alike in entries.GroupBy(KeyOf))
        {
            var first = alike.First();
            if (!first.Lands)
            {
                outcomes.AddRange(alike.Select(entry => new SourceOutcome(entry, StateOf(entry))));
                continue;
            }
            var here = alike.Select(entry => known.Names.GetValueOrDefault(entry.Uid))
                .Where(one => one is not null && !claimed.Contains(one.Stored.Event.Id))
                .OrderBy(one => one!.Stored.IsRemoved).FirstOrDefault();
            var state = here is null
                ? alike.All(entry => known.Hidden.Contains(entry.Uid)) ? SourceEntryState.Hidden : SourceEntryState.Taken
                : here.Stored.Event.Source is null ? SourceEntryState.Ours
                : here.Stored.IsRemoved && here.Said is not null ? SourceEntryState.Hidden
                : SourceEntryState.Taken;
            var id = here?.Stored.Event.Id;
            var outcome = state == SourceEntryState.Taken
                ? IncomingOutcome.Following(new Incoming(first.Uid, 0, first.Landed!, []), here, school)
                : null;
            outcomes.AddRange(alike.Select((entry, place) => place == 0
                ? new SourceOutcome(entry, state, id) { Is = outcome is null ? null : outcome.After ?? here?.Stored.Event }
                : new SourceOutcome(entry, SourceEntryState.Also, id, first.Title)));
            if (id is { } claims)
                claimed.Add(claims);
            // What is let be is compared, once it is shown again, with what was taken last.
            if (state != SourceEntryState.Taken)
                continue;
            var write = -1;
            if (outcome?.After is { } after)
            {
                write = acts.Count;
                acts.Add(planner.Fetching(here?.Stored, after));
                if (here is null || outcome!.State == IncomingState.New)
                    made++;
                else
                    changed++;
                if (here is not null && NewsOf(here.Stored.Event, after) is { } said)
                    news.Add(said);
            }
            names.AddRange(alike.Select(entry => new SourceName(entry.Uid, first.Landed!, id, write)));
        }
        var lost = Lost(entries, known, claimed, now);
        news.AddRange(lost.Select(one => Saying.Of("source.lost", ("title", one.Event.Content.Title))));
        acts.AddRange(lost.Select(planner.Losing));
        var gone = lost.Select(one => one.Event.Id).ToHashSet();
        // In the order in which they came.
        var places = entries.Select((entry, place) => (entry, place)).ToDictionary(one => one.entry.Uid, one => one.place);
        return new SourcePlan(Act.All(acts), [.. outcomes.OrderBy(one => places[one.Entry.Uid])], names,
            [.. known.Names.Where(one => gone.Contains(one.Value.Stored.Event.Id)).Select(one => one.Key)],
            made, changed, lost.Count, [.. news.Take(MostNews)]);
    }

    private static SourceEntryState StateOf(SourceEntry entry) =>
        entry.Came is null ? SourceEntryState.Refused
        : entry.IsNarrowedAway || entry.Ruling.Landing.To == LandingTo.LeaveOut ? SourceEntryState.LeftOut
        : SourceEntryState.Asks;

    /// <summary>What readers could not tell apart is one: each for itself where it repeats, or does not land.</summary>
    private static object KeyOf(SourceEntry entry)
    {
        if (!entry.Lands || entry.Landed is not { } landed || landed.Series.Recurs)
            return entry.Uid;
        var (content, timing) = (landed.Content, landed.Series.Timing);
        return (landed.HomeCalendarId, content.Title, content.Kind, timing.Start, timing.End, timing.AllDay, timing.Zone.Id, landed.State,
            (content.Place, content.Description.Text));
    }

    /// <summary>Events that stand here, and of which the source, or its rules, want nothing any more. What is over stays where the source
    /// only tells it no more.</summary>
    private static List<StoredEvent> Lost(
        IReadOnlyList<SourceEntry> entries, SourceKnown known, HashSet<Guid> claimed, Instant now)
    {
        var told = entries.Select(entry => entry.Uid).ToHashSet(StringComparer.Ordinal);
        var stillTold = known.Names.Where(one => told.Contains(one.Key)).Select(one => one.Value.Stored.Event.Id).ToHashSet();
        return [.. known.Standing.Where(one => !claimed.Contains(one.Event.Id)
            && (stillTold.Contains(one.Event.Id) || EventDates.Reach(one.Event).To is not { } end || end > now))];
    }

    private static Saying? NewsOf(CalendarEvent before, CalendarEvent after)
    {
        if (after.State == EventState.Cancelled && before.State != EventState.Cancelled)
            return Saying.Of("source.cancelled", ("title", after.Content.Title));
        if (after.Series.Timing.Start != before.Series.Timing.Start)
            return Saying.Of("source.moved", ("title", after.Content.Title), ("date", before.Series.Timing.Start.Date));
        return after.Content.Title != before.Content.Title
            ? Saying.Of("source.renamed", ("title", after.Content.Title), ("before", before.Content.Title))
            : null;
    }
}
