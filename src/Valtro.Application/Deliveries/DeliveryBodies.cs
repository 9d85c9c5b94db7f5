using NodaTime;
using Valtro.Core.Deliveries;

namespace Valtro.Application.Deliveries;

/// <summary>Who has the newest version of an edition, or of all that carry a calendar.</summary>
/// <param name="ChangedAt">When it came to be; null where nothing is rendered.</param>
/// <param name="Since">How many programs have it.</param>
/// <param name="Usual">How many come on a usual day.</param>
/// <param name="Most">As often as this most of them ask, at least.</param>
/// <param name="Last">As often as this nearly all of them ask.</param>
public sealed record ReachBody(Guid Id, ReachState State, Instant? ChangedAt, int Since, int Usual, Rhythm? Most, Rhythm? Last)
{
    public static ReachBody Of(Guid id, FeedReach reach, Instant? changed) =>
        new(id, reach.State, changed, reach.Since, reach.Usual, reach.Most, reach.Last);
}

/// <param name="Editions">That the person composes.</param>
/// <param name="Calendars">That the person keeps, in whatever edition they go out.</param>
public sealed record ReachesResponse(IReadOnlyList<ReachBody> Editions, IReadOnlyList<ReachBody> Calendars);

/// <param name="Usual">How many of them come on a usual day.</param>
/// <param name="Since">How many have the newest version.</param>
/// <param name="Share">From 0 to 1.</param>
/// <param name="Mostly">Where most of them run.</param>
public sealed record RhythmBody(Rhythm Rhythm, double Usual, int Since, double Share, ProgramKind Mostly);

/// <param name="Programs">How many programs fetched the feed.</param>
/// <param name="WithNewest">How many of them had what was newest on that day.</param>
/// <param name="Times">How often they asked.</param>
/// <param name="Readers">How many looked at a page or a frame.</param>
/// <param name="Views">How often.</param>
/// <param name="LateMinutes">How long what changed on that day could not be rendered.</param>
public sealed record DayBody(LocalDate Day, int Programs, int WithNewest, int Times, int Readers, int Views, int LateMinutes);

/// <param name="Site">Its host; empty where the browser did not say it.</param>
public sealed record SiteBody(string Site, int Views);

/// <summary>How many programs of a kind come on a usual day.</summary>
public sealed record KindBody(ProgramKind Kind, double Usual);

/// <summary>Who fetched what of an edition.</summary>
/// <param name="HalfWithinMinutes">Within so many minutes half of what was new was fetched.</param>
/// <param name="LastFetchAt">Of a program, today or yesterday.</param>
/// <param name="Kinds">Those that come.</param>
/// <param name="Subscribers">How many readers are told by mail what changes.</param>
public sealed record DeliveriesResponse(
    Guid Id, string Name, Guid? CalendarId, ReachBody Reach, IReadOnlyList<RhythmBody> Rhythms, IReadOnlyList<KindBody> Kinds,
    IReadOnlyList<DayBody> Days, IReadOnlyList<SiteBody> Sites, int? HalfWithinMinutes, Instant? LastFetchAt, LocalDate? TermFrom,
    int Subscribers);
