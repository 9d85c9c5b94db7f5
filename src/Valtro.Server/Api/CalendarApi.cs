using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using QRCoder;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Version">The version that was edited; not needed for a new calendar.</param>
public sealed record CalendarRequest(
    string? Name, string? Plate, string? Colour, string? Zone, string? Description, DisclosureBody Disclosure, int? Version,
    IReadOnlyList<string>? Readerships = null, bool RequiresSignOff = true)
{
    /// <summary>Of a new calendar: another whose roles and groups it gets.</summary>
    public Guid? Like { get; init; }
}

/// <param name="EditionId">The standard one of the calendar.</param>
/// <param name="SnippetThatFits">A script that makes a frame as high as what is in it.</param>
/// <param name="SnippetFixed">A frame of fixed height, for sites that strip scripts.</param>
public sealed record PublishingResponse(
    Guid CalendarId, Guid EditionId, bool IsOpen, string Page, string Embed, string Feed, string Webcal, string SnippetThatFits,
    string SnippetFixed, DeliveryBody Delivery);

public sealed record PlateProposal(string Plate);

internal static class CalendarApi
{
    public static void MapCalendars(this RouteGroupBuilder api)
    {
        api.MapGet("/calendars", List);
        api.MapPost("/calendars", Add);
        api.MapGet("/calendars/plate", ProposePlate);
        api.MapGet("/calendars/{id:guid}", Get);
        api.MapPut("/calendars/{id:guid}", Save);
        api.MapGet("/calendars/{id:guid}/publishing", Publishing);
        api.MapGet("/calendars/{id:guid}/feed-code.svg", FeedCode).Produces(200, contentType: "image/svg+xml");
        api.MapGet("/calendars/{id:guid}/link", Link);
        api.MapPost("/calendars/{id:guid}/link", MakeLink);
        api.MapDelete("/calendars/{id:guid}/link", WithdrawLink);
    }

    private static async Task<Ok<IReadOnlyList<CalendarResponse>>> List(Access access, CalendarView view)
    {
        var viewer = await access.ViewerAsync();
        return TypedResults.Ok(await view.ShowAsync(viewer, (await access.HouseAsync()).Calendars.Values));
    }

    private static async Task<Ok<CalendarResponse>> Get(Guid id, Access access, CalendarView view) =>
        TypedResults.Ok(await view.FindAsync(await access.ViewerAsync(), id));

    private static async Task<Created<CalendarResponse>> Add(
        CalendarRequest request, Access access, CalendarStore calendars, CalendarView view, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);
        var settings = Check(request);
        var now = clock.GetCurrentInstant();
        var calendar = await calendars.AddAsync(
            viewer.OrganisationId, settings, now, request.Like,
            [new AuditLine(viewer.AccountId, AuditAct.CalendarMade, settings.Name, null, now),
                .. DisclosureChange.Audit(viewer, settings.Name, Disclosure.Closed, settings.Disclosure, now)]);
        return TypedResults.Created(access.At($"/api/calendars/{calendar.Id}"), (await view.ShowAsync(viewer, [calendar]))[0]);
    }

    private static async Task<Results<Ok<CalendarResponse>, ProblemHttpResult>> Save(
        Guid id, CalendarRequest request, Access access, CalendarView view, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);
        await view.FindAsync(viewer, id);
        if (request.Version is not { } version)
            throw new RuleException("version", "request.versionMissing");
        var settings = Check(request);
        return await SaveAsync(viewer, id, version, settings, view, clock);
    }

    internal static async Task<Results<Ok<CalendarResponse>, ProblemHttpResult>> SaveAsync(
        Viewer viewer, Guid id, int version, CalendarSettings settings, CalendarView view, IClock clock)
    {
        try
        {
            return TypedResults.Ok(await view.SaveAsync(viewer, id, version, settings, clock.GetCurrentInstant()));
        }
        catch (ChangedMeanwhileException)
        {
            return Problems.Of(Problem.ChangedMeanwhile, current: await view.FindAsync(viewer, id));
        }
    }

    private static async Task<Ok<PlateProposal>> ProposePlate(string? name, Access access)
    {
        await access.RequireAsync(OrganisationAction.ManageCalendars, CalendarView.KeepersOnly);
        var taken = (await access.HouseAsync()).Calendars.Values.Select(calendar => calendar.Plate.Code).ToHashSet();
        return TypedResults.Ok(new PlateProposal(Plate.Propose(name?[..Math.Min(name.Length, Texts.LongestName)], taken).Code));
    }

    private static async Task<Ok<PublishingResponse>> Publishing(Guid id, Access access, CalendarView view, PublicAddresses addresses)
    {
        var (calendar, shown, organisation) = await view.KeptAsync(await access.ViewerAsync(), id);
        var address = addresses.Of(organisation.Slug, calendar.Slug);
        return TypedResults.Ok(new PublishingResponse(
            id,
            (await access.HouseAsync()).Editions.First(edition => edition.CalendarId == id).Id,
            calendar.Disclosure.Everyone > Detail.Nothing,
            address.Page,
            address.Embed,
            address.Feed,
            address.Webcal,
            addresses.SnippetThatFits(address, calendar.Name, Core.Editions.EditionView.Month, null),
            PublicAddresses.SnippetFixed(address, calendar.Name),
            shown.Delivery));
    }

    private static async Task<FileContentHttpResult> FeedCode(Guid id, Access access, CalendarView view, PublicAddresses addresses)
    {
        var (calendar, _, organisation) = await view.KeptAsync(await access.ViewerAsync(), id);
        using var code = QRCodeGenerator.GenerateQrCode(addresses.Of(organisation.Slug, calendar.Slug).Webcal, QRCodeGenerator.ECCLevel.M);
        var svg = new SvgQRCode(code).GetGraphic(8, "#1B2A33", "#FFFFFF", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute);
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(svg), "image/svg+xml");
    }

    private static async Task<Ok<LinkResponse>> Link(
        Guid id, Access access, CalendarView view, SecretLinkStore links, PublicAddresses addresses)
    {
        var (calendar, _, _) = await view.KeptAsync(await access.ViewerAsync(), id);
        return TypedResults.Ok(Show(calendar, await links.FindAsync(calendar.OrganisationId, calendar.EditionId), addresses));
    }

    /// <summary>Makes the secret address, or replaces it: the old one is answered with 410 from then on.</summary>
    private static async Task<Ok<LinkResponse>> MakeLink(
        Guid id, Access access, CalendarView view, SecretLinkStore links, PublicAddresses addresses, IClock clock)
    {
        var viewer = await access.ViewerAsync();
        var (calendar, _, _) = await view.KeptAsync(viewer, id);
        var now = clock.GetCurrentInstant();
        var link = await links.MakeAsync(calendar.OrganisationId, calendar.EditionId, now, isReplaced => new AuditLine(
            viewer.AccountId, isReplaced ? AuditAct.LinkReplaced : AuditAct.LinkMade, calendar.Name, null, now));
        return TypedResults.Ok(Show(calendar, link, addresses));
    }

    private static async Task<Ok<LinkResponse>> WithdrawLink(
        Guid id, Access access, CalendarView view, SecretLinkStore links, PublicAddresses addresses, IClock clock)
    {
        var viewer = await access.ViewerAsync();
        var (calendar, _, _) = await view.KeptAsync(viewer, id);
        var now = clock.GetCurrentInstant();
        await links.WithdrawAsync(calendar.OrganisationId, calendar.EditionId, now,
            new AuditLine(viewer.AccountId, AuditAct.LinkWithdrawn, calendar.Name, null, now));
        return TypedResults.Ok(Show(calendar, null, addresses));
    }

    private static LinkResponse Show(Calendar calendar, SecretLink? link, PublicAddresses addresses) =>
        addresses.Show(link, showsNothing: calendar.Disclosure.Link == Detail.Nothing);

    internal static CalendarSettings Check(CalendarRequest request)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "what.name", request.Name, Texts.LongestName));
        var plate = refusals.Try(() => Plate.Parse(request.Plate));
        var hue = refusals.Try(() => Hue.Named(request.Colour));
        var zone = refusals.Try(() => Zones.Named(request.Zone));
        var description = refusals.Try(() => Texts.OneLine("description", "what.description", request.Description, 1_000, required: false));
        var disclosure =
            refusals.Try(() => new Disclosure(request.Disclosure.Members, request.Disclosure.Link, request.Disclosure.Everyone)
            {
                Names = request.Disclosure.Names,
            });
        var readerships = (request.Readerships ?? [])
            .Select(readership => refusals.Try(() => Texts.OneLine("readerships", "what.readership", readership, Texts.LongestName)) ?? "")
            .Distinct()
            .ToArray();
        if (readerships.Length > CalendarSettings.MostReaderships)
            refusals.Add(
                "readerships", "calendar.tooManyReaderships", ("count", readerships.Length), ("most", CalendarSettings.MostReaderships));
        refusals.ThrowIfAny();
        return new CalendarSettings(
            name!, plate, hue!, zone!, description!, disclosure!, readerships)
        { RequiresSignOff = request.RequiresSignOff };
    }
}
