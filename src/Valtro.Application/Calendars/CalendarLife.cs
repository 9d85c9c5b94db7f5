using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Calendars;

/// <param name="Moves">Events that change their home.</param>
/// <param name="Places">Events of elsewhere that are shown on it, and will be on the other.</param>
/// <param name="NewlySees">Audiences that see more on the other calendar, in words.</param>
public sealed record MergePreview(int Moves, int Places, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess);

/// <param name="Elsewhere">Of its events, how many are shown on other calendars too: they go from there as well.</param>
/// <param name="Editions">Composed ones that tell something of it now.</param>
public sealed record RemovalPreview(int Events, int Elsewhere, IReadOnlyList<EmptiedBody> Empties, IReadOnlyList<LosingEdition> Editions);

public sealed record BinnedCalendar(Guid Id, string Name, string Plate, string Colour, Instant RemovedAt, Instant GoneAt);

/// <param name="What">page, embed or feed.</param>
/// <param name="Programs">How many programs fetched it on the busiest of the last seven days.</param>
public sealed record EmptiedBody(string What, int Programs);

/// <summary>Archiving, removing, restoring and merging calendars.</summary>
public sealed class CalendarLife(Access access, CalendarStore calendars, EventStore events, LosingEditions losing, IClock clock)
{
    private Task<Viewer> AllowedAsync() => access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);

    private async Task<(Viewer Viewer, Calendar Calendar)> FindAsync(Guid id)
    {
        var viewer = await AllowedAsync();
        return (viewer, await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar"));
    }

    private AuditLine Line(Viewer viewer, AuditAct act, Calendar calendar, Saying? detail = null) =>
        new(viewer.AccountId, act, calendar.Name, detail, clock.GetCurrentInstant());

    public async Task ArchiveAsync(Guid id, bool isArchived)
    {
        var (viewer, calendar) = await FindAsync(id);
        await calendars.ArchiveAsync(viewer.OrganisationId, id, isArchived, clock.GetCurrentInstant(),
            Line(viewer, isArchived ? AuditAct.CalendarArchived : AuditAct.CalendarRestored, calendar));
    }

    public async Task<RemovalPreview> PreviewRemovalAsync(Guid id)
    {
        var (viewer, calendar) = await FindAsync(id);
        var home = (await events.OfCalendarAsync(viewer.OrganisationId, id)).Where(one => one.HomeCalendarId == id).ToArray();
        var losses = await losing.OfAsync(calendar);
        return new RemovalPreview(
            home.Length, home.Count(one => one.Placements.Count > 0),
            [.. (calendar.GoesOut ? losses.Fetched : []).GroupBy(one => one.Form)
                .Select(group => new EmptiedBody(group.Key, group.Sum(one => one.Programs)))],
            [.. losses.Editions.Where(group => calendar.Disclosure[group.Key] > Detail.Nothing).SelectMany(group => group)]);
    }

    public async Task RemoveAsync(Guid id)
    {
        var (viewer, calendar) = await FindAsync(id);
        await calendars.RemoveAsync(viewer.OrganisationId, id, clock.GetCurrentInstant(), Line(viewer, AuditAct.CalendarRemoved, calendar));
    }

    public async Task<IReadOnlyList<BinnedCalendar>> BinAsync()
    {
        var viewer = await AllowedAsync();
        return [.. (await calendars.BinAsync(viewer.OrganisationId)).Select(calendar => new BinnedCalendar(
            calendar.Id, calendar.Name, calendar.Plate.Code, calendar.Hue.Name, calendar.RemovedAt!.Value,
                calendar.RemovedAt!.Value + EventStore.KeptInBin))];
    }

    public async Task RestoreAsync(Guid id)
    {
        var viewer = await AllowedAsync();
        var calendar = await calendars.FindAnyAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        await calendars.RestoreAsync(
            viewer.OrganisationId, id, clock.GetCurrentInstant(), Line(viewer, AuditAct.CalendarRestored, calendar));
    }

    public async Task<MergePreview> PreviewMergeAsync(Guid id, Guid into)
    {
        var (viewer, from, target) = await BothAsync(id, into);
        var all = await events.StandingOnAsync(viewer.OrganisationId, id);
        var foreseen = Foreseen.Of(ActPlanner.Moving(all, id, into), (await access.HouseAsync()).Disclosures);
        var shown = all.Where(one => !one.IsRemoved).ToArray();
        return new MergePreview(
            shown.Count(one => one.Event.HomeCalendarId == id),
            shown.Count(one => one.Event.HomeCalendarId != id),
            [.. foreseen.Readers.Where(one => one.More > 0).Select(one => Say(one.Audience))],
            [.. foreseen.Readers.Where(one => one.Less > 0).Select(one => Say(one.Audience))]);

        string Say(Audience audience) =>
            Spoken.Now.Say(DetailWords.Changed(audience, from.Disclosure[audience], target.Disclosure[audience]));
    }

    public async Task<ActResponse> MergeAsync(Guid id, Guid into)
    {
        var (viewer, from, target) = await BothAsync(id, into);
        var all = await events.StandingOnAsync(viewer.OrganisationId, id);
        var actId = await calendars.MergeAsync(viewer.OrganisationId, id, into, viewer.AccountId, clock.GetCurrentInstant(),
            ActPlanner.Moving(all, id, into), Line(viewer, AuditAct.CalendarMerged, from, Saying.Of("audit.into", ("name", target.Name))));
        return new ActResponse(actId, all.Count(one => !one.IsRemoved && one.Event.HomeCalendarId == id));
    }

    private async Task<(Viewer Viewer, Calendar From, Calendar Into)> BothAsync(Guid id, Guid into)
    {
        var (viewer, from) = await FindAsync(id);
        if (id == into)
            throw new RuleException("into", "calendar.mergedIntoItself");
        var target = await calendars.FindAsync(viewer.OrganisationId, into) ?? throw new RuleException("into", "calendar.noSuch");
        return target.ArchivedAt is null
            ? (viewer, from, target)
            : throw new RuleException("into", "calendar.isArchivedChooseAnother", ("name", target.Name));
    }
}
