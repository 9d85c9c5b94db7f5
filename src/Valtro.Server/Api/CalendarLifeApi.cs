using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Server.Accounts;
using Valtro.Store;
using Valtro.Core.Speaking;

namespace Valtro.Server.Api;

public sealed record MergeRequest(Guid Into);

/// <param name="Moves">Events that change their home.</param>
/// <param name="Places">Events of elsewhere that are shown on it, and will be on the other.</param>
/// <param name="NewlySees">Audiences that see more on the other calendar, in words.</param>
public sealed record MergePreview(int Moves, int Places, IReadOnlyList<string> NewlySees, IReadOnlyList<string> SeesLess);

/// <param name="Elsewhere">Of its events, how many are shown on other calendars too: they go from there as well.</param>
/// <param name="Editions">Composed ones that tell something of it now.</param>
public sealed record RemovalPreview(int Events, int Elsewhere, IReadOnlyList<EmptiedBody> Empties, IReadOnlyList<LosingEdition> Editions);

public sealed record BinnedCalendar(Guid Id, string Name, string Plate, string Colour, Instant RemovedAt, Instant GoneAt);

/// <summary>Archiving, removing, restoring and merging calendars.</summary>
internal static class CalendarLifeApi
{
    public static void MapCalendarLife(this RouteGroupBuilder api)
    {
        api.MapPost("/calendars/{id:guid}/archive", (Guid id, Life life) => life.ArchiveAsync(id, isArchived: true));
        api.MapDelete("/calendars/{id:guid}/archive", (Guid id, Life life) => life.ArchiveAsync(id, isArchived: false));
        api.MapGet("/calendars/{id:guid}/removal", (Guid id, Life life) => life.PreviewRemovalAsync(id));
        api.MapDelete("/calendars/{id:guid}", (Guid id, Life life) => life.RemoveAsync(id));
        api.MapGet("/calendars/bin", (Life life) => life.BinAsync());
        api.MapPost("/calendars/{id:guid}/restore", (Guid id, Life life) => life.RestoreAsync(id));
        api.MapGet("/calendars/{id:guid}/merge", (Guid id, Guid into, Life life) => life.PreviewMergeAsync(id, into));
        api.MapPost("/calendars/{id:guid}/merge", (Guid id, MergeRequest request, Life life) => life.MergeAsync(id, request.Into));
    }

    public sealed class Life(Access access, CalendarStore calendars, EventStore events, LosingEditions losing, IClock clock)
    {
        private Task<Viewer> AllowedAsync() => access.RequireAsync(OrganisationAction.ManageCalendars, CalendarApi.KeepersOnly);

        private async Task<(Viewer Viewer, Calendar Calendar)> FindAsync(Guid id)
        {
            var viewer = await AllowedAsync();
            return (viewer, await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar"));
        }

        private AuditLine Line(Viewer viewer, AuditAct act, Calendar calendar, Saying? detail = null) => new(viewer.AccountId, act, calendar.Name, detail, clock.GetCurrentInstant());

        public async Task<NoContent> ArchiveAsync(Guid id, bool isArchived)
        {
            var (viewer, calendar) = await FindAsync(id);
            await calendars.ArchiveAsync(viewer.OrganisationId, id, isArchived, clock.GetCurrentInstant(), Line(viewer, isArchived ? AuditAct.CalendarArchived : AuditAct.CalendarRestored, calendar));
            return TypedResults.NoContent();
        }

        public async Task<Ok<RemovalPreview>> PreviewRemovalAsync(Guid id)
        {
            var (viewer, calendar) = await FindAsync(id);
            var home = (await events.OfCalendarAsync(viewer.OrganisationId, id)).Where(one => one.HomeCalendarId == id).ToArray();
            var losses = await losing.OfAsync(calendar);
            return TypedResults.Ok(new RemovalPreview(
                home.Length, home.Count(one => one.Placements.Count > 0),
                [.. (calendar.GoesOut ? losses.Fetched : []).GroupBy(one => one.Kind).Select(group => new EmptiedBody(group.Key, group.Sum(one => one.Programs)))],
                [.. losses.Editions.Where(group => calendar.Disclosure[group.Key] > Detail.Nothing).SelectMany(group => group)]));
        }

        public async Task<NoContent> RemoveAsync(Guid id)
        {
            var (viewer, calendar) = await FindAsync(id);
            await calendars.RemoveAsync(viewer.OrganisationId, id, clock.GetCurrentInstant(), Line(viewer, AuditAct.CalendarRemoved, calendar));
            return TypedResults.NoContent();
        }

        public async Task<Ok<IReadOnlyList<BinnedCalendar>>> BinAsync()
        {
            var viewer = await AllowedAsync();
            return TypedResults.Ok<IReadOnlyList<BinnedCalendar>>([.. (await calendars.BinAsync(viewer.OrganisationId)).Select(calendar => new BinnedCalendar(
                calendar.Id, calendar.Name, calendar.Plate.Code, calendar.Hue.Name, calendar.RemovedAt!.Value, calendar.RemovedAt!.Value + EventStore.KeptInBin))]);
        }

        public async Task<NoContent> RestoreAsync(Guid id)
        {
            var viewer = await AllowedAsync();
            var calendar = await calendars.FindAnyAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
            await calendars.RestoreAsync(viewer.OrganisationId, id, clock.GetCurrentInstant(), Line(viewer, AuditAct.CalendarRestored, calendar));
            return TypedResults.NoContent();
        }

        public async Task<Ok<MergePreview>> PreviewMergeAsync(Guid id, Guid into)
        {
            var (viewer, from, target) = await BothAsync(id, into);
            var all = await events.OfCalendarAsync(viewer.OrganisationId, id);
            Audience[] audiences = [Audience.Members, Audience.Link, Audience.Everyone];
            return TypedResults.Ok(new MergePreview(
                all.Count(one => one.HomeCalendarId == id),
                all.Count(one => one.HomeCalendarId != id),
                [.. audiences.Where(audience => target.Disclosure[audience] > from.Disclosure[audience]).Select(Say)],
                [.. audiences.Where(audience => target.Disclosure[audience] < from.Disclosure[audience]).Select(Say)]));

            string Say(Audience audience) => Spoken.Now.Say(DetailWords.Changed(audience, from.Disclosure[audience], target.Disclosure[audience]));
        }

        public async Task<Ok<ActResponse>> MergeAsync(Guid id, Guid into)
        {
            var (viewer, from, target) = await BothAsync(id, into);
            var moved = (await events.CountsAsync(viewer.OrganisationId)).GetValueOrDefault(id);
            var actId = await calendars.MergeAsync(viewer.OrganisationId, id, into, viewer.AccountId, clock.GetCurrentInstant(), Line(viewer, AuditAct.CalendarMerged, from, Saying.Of("audit.into", ("name", target.Name))));
            return TypedResults.Ok(new ActResponse(actId, moved));
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
}
