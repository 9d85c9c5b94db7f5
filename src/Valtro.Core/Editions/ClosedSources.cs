using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Editions;

/// <summary>Sources that show an edition's audience nothing.</summary>
public static class ClosedSources
{
    /// <returns>Each with how many entries there were of it in the window if it did.</returns>
    public static IEnumerable<(Source Source, int Lost)> Of(
        Edition edition, IEnumerable<Source> sources, SchoolCalendar school, Instant now, IReadOnlyCollection<CalendarEvent> events,
        Window window) =>
        from source in sources
        where source.Disclosure[edition.AudienceOn(source)] == Detail.Nothing
        let opened = new Composition(
            edition with { Limit = null }, [source with { Disclosure = Disclosure.Disclosure.Open }], school, now)
        select (source, opened.Compose(events, window).Entries.Count(entry => !entry.IsBreak));
}
