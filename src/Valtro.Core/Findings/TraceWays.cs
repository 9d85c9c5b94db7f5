using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Editions;
using Valtro.Core.Events;

namespace Valtro.Core.Findings;

/// <summary>How a date that an edition does not deliver comes into it.</summary>
public static class TraceWays
{
    /// <summary>By the rule that kept it out; nothing where it is in.</summary>
    public static IReadOnlyList<Remedy> Of(
        Trace trace, CalendarEvent calendarEvent, LocalDateTime date, Edition edition, IReadOnlyList<Source> sources)
    {
        var seeEvent = Remedy.At(calendarEvent.Id, date);
        if (trace.IsIn)
            return [];
        var on = sources.Where(source => calendarEvent.Calendars.Contains(source.CalendarId)).ToArray();
        return trace.Decided.Step switch
        {
            ComposeStep.State => calendarEvent.State switch
            {
                EventState.Draft => [Remedy.Doing(ChosenAct.LetOut, calendarEvent.Id, date), seeEvent],
                EventState.Waiting => [Remedy.SignOff, seeEvent],
                _ => [Remedy.Set(EditionSetting.DeliverCancelled), seeEvent],
            },
            ComposeStep.Filter when on.FirstOrDefault(source => source.Filter?.Passes(calendarEvent) == false) is { } filtered =>
                [Remedy.Set(EditionSetting.TakeAllOfIt, filtered.CalendarId), Remedy.Edition],
            ComposeStep.Filter => [Remedy.Edition, seeEvent],
            ComposeStep.Detail when on.FirstOrDefault(source =>
                source.Disclosure[edition.AudienceOn(source)] == Disclosure.Detail.Nothing) is { } closed && on.All(source =>
                source.Disclosure[edition.AudienceOn(source)] == Disclosure.Detail.Nothing) => [Remedy.Open(closed.CalendarId), seeEvent],
            ComposeStep.Detail => [seeEvent],
            ComposeStep.Window when trace.Decided.Saying.Code == "trace.cancelled" =>
                [Remedy.Set(EditionSetting.DeliverCancelled), seeEvent],
            ComposeStep.Limit => [Remedy.Set(EditionSetting.NoLimit), Remedy.Edition],
            _ => [Remedy.Edition],
        };
    }
}
