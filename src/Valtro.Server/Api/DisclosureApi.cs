using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Editions;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Version">The version of the calendar that was looked at.</param>
public sealed record DisclosureRequest(DisclosureBody Disclosure, int Version);

/// <summary>An event by its title, for a list of those that a change concerns.</summary>
public sealed record TitledEvent(Guid Id, string Title);

/// <summary>What a changed table lets one audience see, or takes from it.</summary>
/// <param name="Revealed">How many events it newly sees, or sees more of.</param>
/// <param name="WithEmail">Those in which it newly reads an e-mail address; at most 20 are named.</param>
/// <param name="WithNames">Those of which it is newly told who is responsible, where nothing else is told newly, too.</param>
/// <param name="Hidden">How many events it sees less of, or not any more.</param>
/// <param name="Drafts">How many stay inside all the same.</param>
/// <param name="Empties">Addresses at which there will be nothing any more.</param>
/// <param name="Editions">Editions for this audience that lose what they tell of the calendar.</param>
public sealed record OpeningBody(
    Audience Audience, Detail Was, Detail Becomes, int Revealed, Counted WithEmail, Counted WithPhone, Counted WithFile,
    Counted WithNames, int Hidden,
    int Drafts, IReadOnlyList<EmptiedBody> Empties,
    IReadOnlyList<LosingEdition> Editions);

public sealed record Counted(int Count, IReadOnlyList<TitledEvent> Events);

/// <summary>Who sees how much of a calendar: looked at before it is changed, and changed.</summary>
internal static class DisclosureApi
{
    private const int Named = 20;

    private static readonly string[] Kinds = ["page", "embed", "feed"];

    public static void MapDisclosure(this RouteGroupBuilder api)
    {
        api.MapPost("/calendars/{id:guid}/disclosure/preview", Preview).ReadsOnly();
        api.MapPut("/calendars/{id:guid}/disclosure", Save);
    }

    private static async Task<Ok<IReadOnlyList<OpeningBody>>> Preview(
        Guid id, DisclosureRequest request, Access access, CalendarStore calendars, EventStore events, LosingEditions losing)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);
        var calendar = await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        var table = Check(request);
        var openings = Opening.Of(await events.OfCalendarAsync(viewer.OrganisationId, id), calendar.Disclosure, table);
        if (!openings.Any(one => one.Becomes == Detail.Nothing))
            return TypedResults.Ok<IReadOnlyList<OpeningBody>>([.. openings.Select(one => Body(one, calendar, [], []))]);
        var losses = await losing.OfAsync(calendar);
        return TypedResults.Ok<IReadOnlyList<OpeningBody>>(
            [.. openings.Select(one =>
                Body(one, calendar, losses.Fetched, one.Becomes == Detail.Nothing ? [.. losses.Editions[one.Audience]] : []))]);
    }

    private static async Task<Results<Ok<CalendarResponse>, ProblemHttpResult>> Save(
        Guid id, DisclosureRequest request, Access access, CalendarStore calendars, CalendarView view, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);
        var calendar = await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        var settings = new CalendarSettings(calendar.Name, calendar.Plate, calendar.Hue, calendar.Zone, calendar.Description,
            Check(request) with { Names = calendar.Disclosure.Names }, calendar.Readerships)
        { RequiresSignOff = calendar.RequiresSignOff };
        return await CalendarApi.SaveAsync(viewer, id, request.Version, settings, view, clock);
    }

    private static Disclosure Check(DisclosureRequest request) =>
        new(request.Disclosure.Members, request.Disclosure.Link, request.Disclosure.Everyone) { Names = request.Disclosure.Names };

    private static OpeningBody Body(
        Opening opening, Calendar calendar, IReadOnlyList<FetchCount> fetched, IReadOnlyList<LosingEdition> losing)
    {
        var goesOut = opening.Audience == Audience.Everyone || (opening.Audience == Audience.Link && calendar.HasSecretLink);
        return new OpeningBody(
            opening.Audience, opening.Was, opening.Becomes, opening.Revealed.Count, Count(opening.WithEmail), Count(opening.WithPhone),
            Count(opening.WithFile), Count(opening.WithNames), opening.Hidden.Count, opening.Drafts,
            opening.Becomes == Detail.Nothing && goesOut
                ? [
                    .. Kinds.Select(
                        kind => new EmptiedBody(
                            kind, fetched.Where(one => one.Audience == opening.Audience && one.Form == kind).Sum(one => one.Programs)))]
                : [],
            losing);
    }

    private static Counted Count(IReadOnlyList<CalendarEvent> events) =>
        new(events.Count, [.. events.Take(Named).Select(one => new TitledEvent(one.Id, one.Content.Title))]);
}
