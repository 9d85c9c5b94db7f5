using NodaTime;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>By what readers of an edition get a file.</summary>
public sealed class FileHolders(EventStore events)
{
    /// <returns>The events that hold it; of the picture of a place, those that are there. Null where readers are told of none of
    /// them.</returns>
    public async Task<IReadOnlyList<CalendarEvent>?> FindAsync(EditionReading reading, Guid fileId, string name, Instant now)
    {
        var composition = reading.CompositionAt(now);
        var holders = await events.WithFileAsync(reading.OrganisationId, fileId);
        if (composition.Tells(holders, fileId, name))
            return holders;
        if (reading.Places.FirstOrDefault(place => place.Picture is { } picture && picture.Id == fileId && picture.Name == name)
            is not { } shown)
            return null;
        CalendarEvent[] there = [.. (await events.NamingAsync(ListKind.Place, reading.OrganisationId, shown.Id))
            .Where(one => !one.IsRemoved).Select(one => one.Event)];
        return composition.TellsPlace(there) ? there : null;
    }
}
