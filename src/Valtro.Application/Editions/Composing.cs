using NodaTime;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Composes editions from what is stored.</summary>
internal static class Composing
{
    /// <summary>The entries of a window, and the events of which they are.</summary>
    /// <remarks>An edition with a limit has its earliest: as many years are looked at as are needed for them.</remarks>
    public static async Task<(IReadOnlyList<CalendarEvent> Found, Composed Composed)> ComposeAsync(
        this EventStore events, EditionReading reading, Composition composition, Window whole)
    {
        for (var years = 1; ; years *= 2)
        {
            var looked = DayRange.Nearest(whole.First).PlusYears(Math.Min(years, 300));
            var end = reading.Edition.Limit is null ? whole.End : LocalDate.Min(whole.End, looked);
            var window = new Window(whole.First, end, reading.Edition.Zone);
            var found = await events.InWindowAsync(reading.OrganisationId, reading.Calendars, window);
            var composed = composition.Compose(found, window);
            if (window.End >= whole.End || composed.Found >= reading.Edition.Limit)
                return (found, composed);
        }
    }
}
