using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Push;

/// <summary>What is chosen to be written elsewhere: by days, or for one event by whoever may change it.</summary>
public sealed class PushChoices(
    PushTargets targets, Access access, PushStore store, EventStore events, EventDesk desk, IClock clock)
{
    /// <summary>Chooses all that has a date on some days, or takes it out again.</summary>
    public async Task<ChosenCount> ChooseAsync(Guid id, TargetDays days)
    {
        var (viewer, house, edition, target) = await targets.FoundAsync(id);
        if (target.Takes != PushTakes.Chosen)
            throw new RuleException("takes", "push.takesAll");
        var (from, until) = PushTargets.Range(days);
        var window = new Window(from, until.PlusDays(1), house.Organisation.TimeZone);
        var all = await events.OfCalendarsAsync(viewer.OrganisationId, [.. edition.Sources]);
        Guid[] within = [.. all.Where(one => EventDates.In(one, window, house.School).Any()).Select(one => one.Id)];
        await store.ChooseAsync(
            viewer.OrganisationId, within, days.IsChosen ? [id] : [], days.IsChosen ? [] : [id], clock.GetCurrentInstant());
        return new ChosenCount(within.Length);
    }

    /// <summary>The calendars elsewhere into which events of some calendars may be written too.</summary>
    public async Task<IReadOnlyList<TargetOfEvent>> OfCalendarsAsync(IReadOnlyCollection<Guid> calendars, Guid? eventId)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        Guid[] mine = [.. calendars.Where(id => viewer.May(CalendarAction.Edit, id))];
        var taking = mine.Length == 0 ? [] : Taking(await store.ListAsync(viewer.OrganisationId), house, mine);
        var chosen = eventId is { } id && taking.Count > 0
            ? await store.ChosenForAsync(viewer.OrganisationId, id)
            : new HashSet<Guid>();
        return [.. taking.Select(target => new TargetOfEvent(
            target.Id, target.Name, target.Shown, target.Takes == PushTakes.All, chosen.Contains(target.Id)))];
    }

    private static List<PushTarget> Taking(IReadOnlyList<PushTarget> all, House house, IReadOnlyCollection<Guid> calendars) =>
    [
        .. all.Where(target => !target.IsLeaving
            && house.Editions.FirstOrDefault(edition => edition.Id == target.EditionId)?.Sources.Any(calendars.Contains) == true),
    ];

    /// <summary>Says into which calendars elsewhere an event is written too. What takes all has it anyway.</summary>
    public async Task ChooseForAsync(Guid eventId, EventTargets said)
    {
        var found = await desk.FindForChangeAtOnceAsync(eventId);
        var house = await access.HouseAsync();
        var possible = Taking(await store.ListAsync(found.Viewer.OrganisationId), house, [.. found.Event.Calendars])
            .Where(target => target.Takes == PushTakes.Chosen).Select(target => target.Id).ToArray();
        var wanted = said.Targets ?? [];
        if (wanted.Except(possible).Any())
            throw new RuleException("targets", "push.notForThis");
        var chosen = await store.ChosenForAsync(found.Viewer.OrganisationId, eventId);
        Guid[] added = [.. wanted.Distinct().Where(id => !chosen.Contains(id))];
        Guid[] dropped = [.. possible.Where(id => chosen.Contains(id) && !wanted.Contains(id))];
        if (added.Length + dropped.Length > 0)
            await store.ChooseAsync(found.Viewer.OrganisationId, [eventId], added, dropped, clock.GetCurrentInstant());
    }
}
