using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Where the address of an entry leads.</summary>
/// <param name="Was">The start by which the address names it, where it is at another time now.</param>
public sealed record EntryFound(CalendarEvent Event, Entry Entry, LocalDateTime? Was);

/// <summary>Finds the entry that an address names, also after it was moved.</summary>
/// <remarks>An address names an event and the start that its rule gave a date. Where the series was changed since, its saves say where the
/// date has gone.</remarks>
public sealed class EntryFinder(EventStore events, RevisionStore revisions, DeliveredStore delivered)
{
    /// <param name="identity">As it stands in the entry's id: of what is told as no more than "Busy" there is no page.</param>
    /// <returns>The entry; null where the edition tells readers of none. It is gone where this edition once delivered it.</returns>
    public async Task<(EntryFound? Found, bool IsGone)> FindAsync(EditionReading reading, Uid identity, LocalDateTime date, Instant now)
    {
        if (await events.WithUidInBinTooAsync(reading.OrganisationId, identity) is not { } stored)
            return (null, false);
        var composition = reading.CompositionAt(now);
        if (!stored.IsRemoved && Find(composition, stored.Event, date) is { } here)
            return (new EntryFound(stored.Event, here, IsAt(here, date) ? null : date), false);
        var (path, wasThere) = await FollowAsync(reading, stored.Event, date);
        if (path is { } to
            && await events.WithUidAsync(reading.OrganisationId, to.Uid) is { } isNow
            && Find(composition, isNow, to.Date) is { } moved)
            return (new EntryFound(isNow, moved, date), false);
        return (null, wasThere && await delivered.WasDeliveredAsync(reading.Address, stored.Event));
    }

    private static Entry? Find(Composition composition, CalendarEvent calendarEvent, LocalDateTime date) =>
        composition.Find(calendarEvent, date) is { Event.Detail: >= Detail.Headline } entry ? entry : null;

    /// <summary>Where a clock change moves it, it is where it should be.</summary>
    private static bool IsAt(Entry entry, LocalDateTime date) =>
        entry.Occurrence.LocalStart == entry.Timing.StartingAt(date).Occurrence(date).LocalStart;

    /// <summary>Through the saves since the last that had a date so named.</summary>
    /// <returns>Where it is now, and whether there ever was one.</returns>
    private async Task<((Uid Uid, LocalDateTime Date)? To, bool WasThere)> FollowAsync(EditionReading reading, CalendarEvent calendarEvent,
        LocalDateTime date)
    {
        var saves = await revisions.OfEventAsync(reading.OrganisationId, calendarEvent);
        var at = 0;
        while (at < saves.Count && EventDates.Find(saves[at].Event, date, reading.School) is null)
            at++;
        if (at == saves.Count)
            return (null, false);
        // What was split off may have been changed, and split, in its turn.
        for (var splits = 0; splits < 50; splits++)
        {
            var (next, place) = await StepsAsync(reading, saves, at, date);
            if (place is null)
                return (null, true);
            if (next is null)
                return ((saves[0].Event.Uid, place.Value), true);
            (saves, date) = (await revisions.OfEventAsync(reading.OrganisationId, next), place.Value);
            at = saves.Count - 1;
        }
        return (null, true);
    }

    /// <returns>The event to which the date went over, if it did, and where it is; nowhere when no date is the same one any more.</returns>
    private async Task<(CalendarEvent? Next, LocalDateTime? Place)> StepsAsync(EditionReading reading, IReadOnlyList<Revision> saves,
        int at, LocalDateTime date)
    {
        while (at > 0)
        {
            var (before, after) = (saves[at].Event, saves[--at]);
            if (after.IsRemoved)
                return (null, null);
            var successor = before.Series.Equals(after.Event.Series)
                ? null
                : await revisions.SuccessorAsync(reading.OrganisationId, before, after.ActId);
            if (Following.Find(before, successor is null ? [after.Event] : [after.Event, successor], date, reading.School) is not { } to)
                return (null, null);
            date = to.Date;
            if (to.Index == 1)
                return (successor, date);
        }
        return (null, date);
    }
}
