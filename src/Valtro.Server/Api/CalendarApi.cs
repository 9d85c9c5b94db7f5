using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using QRCoder;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;
using Valtro.Server.Accounts;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Api;

public sealed record DisclosureBody(Detail Members, Detail Link, Detail Everyone)
{
    public static DisclosureBody Of(Disclosure disclosure) => new(disclosure.Members, disclosure.Link, disclosure.Everyone);
}

/// <param name="Version">The version that was edited; not needed for a new calendar.</param>
public sealed record CalendarRequest(string? Name, string? Plate, string? Colour, string? Zone, string? Description, DisclosureBody Disclosure, int? Version,
    IReadOnlyList<string>? Readerships = null);

/// <summary>Whether what readers get is what was saved.</summary>
public enum DeliveryState
{
    /// <summary>Nobody outside can fetch it.</summary>
    Closed,

    /// <summary>Saved, and not yet rendered for readers.</summary>
    Pending,
    UpToDate,
}

/// <param name="ChangedAt">When what readers get last changed.</param>
public sealed record DeliveryBody(DeliveryState State, Instant? ChangedAt);

/// <param name="Detail">How much the person who asks sees of its events.</param>
/// <param name="Events">How many events readers could see; null for those who do not keep the calendar.</param>
public sealed record CalendarResponse(
    Guid Id, string Name, string Plate, string Colour, string Zone, string Description, DisclosureBody Disclosure,
    Detail Detail, bool MayEdit, bool MayManage, int? Events, int Version, DeliveryBody Delivery,
    IReadOnlyList<string> Readerships);

/// <param name="SnippetThatFits">A script that makes a frame as high as what is in it.</param>
/// <param name="SnippetFixed">A frame of fixed height, for sites that strip scripts.</param>
public sealed record PublishingResponse(
    Guid CalendarId, bool IsOpen, string Page, string Embed, string Feed, string Webcal, string SnippetThatFits, string SnippetFixed, DeliveryBody Delivery);

public sealed record PlateProposal(string Plate);

internal static class CalendarApi
{
    private const string KeepersOnly = "Only an administrator can make calendars and say whom they are for.";

    public static void MapCalendars(this RouteGroupBuilder api)
    {
        api.MapGet("/calendars", List);
        api.MapPost("/calendars", Add);
        api.MapGet("/calendars/plate", ProposePlate);
        api.MapGet("/calendars/{id:guid}", Get);
        api.MapPut("/calendars/{id:guid}", Save);
        api.MapGet("/calendars/{id:guid}/publishing", Publishing);
        api.MapGet("/calendars/{id:guid}/feed-code.svg", FeedCode).Produces(200, contentType: "image/svg+xml");
    }

    private static async Task<Ok<IReadOnlyList<CalendarResponse>>> List(Access access, CalendarStore calendars, CalendarView view)
    {
        var viewer = await access.ViewerAsync();
        return TypedResults.Ok(await view.ShowAsync(viewer, await calendars.ListAsync(viewer.OrganisationId)));
    }

    private static async Task<Ok<CalendarResponse>> Get(Guid id, Access access, CalendarView view) =>
        TypedResults.Ok(await view.FindAsync(await access.ViewerAsync(), id));

    private static async Task<Created<CalendarResponse>> Add(CalendarRequest request, Access access, CalendarStore calendars, CalendarView view)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.MayManageCalendars, KeepersOnly);
        var calendar = await calendars.AddAsync(viewer.OrganisationId, Check(request));
        return TypedResults.Created($"/api/calendars/{calendar.Id}", (await view.ShowAsync(viewer, [calendar]))[0]);
    }

    private static async Task<Results<Ok<CalendarResponse>, ProblemHttpResult>> Save(
        Guid id, CalendarRequest request, Access access, CalendarStore calendars, CalendarView view)
    {
        var viewer = await access.ViewerAsync();
        Access.Require(viewer.MayManageCalendars, KeepersOnly);
        await view.FindAsync(viewer, id);
        if (request.Version is not { } version)
            throw new RuleException("version", "The version that was edited is missing.");
        try
        {
            var calendar = await calendars.SaveAsync(viewer.OrganisationId, id, version, Check(request));
            return TypedResults.Ok((await view.ShowAsync(viewer, [calendar]))[0]);
        }
        catch (ChangedMeanwhileException)
        {
            return Problems.Of(Problem.ChangedMeanwhile, current: await view.FindAsync(viewer, id));
        }
    }

    private static async Task<Ok<PlateProposal>> ProposePlate(string? name, Access access, CalendarStore calendars)
    {
        var viewer = await access.ViewerAsync();
        var taken = (await calendars.ListAsync(viewer.OrganisationId)).Select(calendar => calendar.Plate.Code).ToHashSet();
        return TypedResults.Ok(new PlateProposal(Plate.Propose(name?[..Math.Min(name.Length, Texts.LongestName)], taken).Code));
    }

    private static async Task<Ok<PublishingResponse>> Publishing(Guid id, Access access, CalendarView view, PublicAddresses addresses)
    {
        var (calendar, shown, organisation) = await view.KeptAsync(await access.ViewerAsync(), id);
        var address = addresses.Of(organisation.Slug, calendar.Slug);
        return TypedResults.Ok(new PublishingResponse(
            id,
            calendar.Disclosure.Everyone > Detail.Nothing,
            address.Page,
            address.Embed,
            address.Feed,
            address.Webcal,
            addresses.SnippetThatFits(address, calendar.Name),
            addresses.SnippetFixed(address, calendar.Name),
            shown.Delivery));
    }

    private static async Task<FileContentHttpResult> FeedCode(Guid id, Access access, CalendarView view, PublicAddresses addresses)
    {
        var (calendar, _, organisation) = await view.KeptAsync(await access.ViewerAsync(), id);
        using var code = QRCodeGenerator.GenerateQrCode(addresses.Of(organisation.Slug, calendar.Slug).Webcal, QRCodeGenerator.ECCLevel.M);
        var svg = new SvgQRCode(code).GetGraphic(8, "#1B2A33", "#FFFFFF", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute);
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(svg), "image/svg+xml");
    }

    private static CalendarSettings Check(CalendarRequest request)
    {
        var refusals = new RefusalList();
        var name = refusals.Try(() => Texts.OneLine("name", "The name", request.Name, Texts.LongestName));
        var plate = refusals.Try(() => Plate.Parse(request.Plate));
        var hue = refusals.Try(() => Hue.Named(request.Colour));
        var zone = refusals.Try(() => Zones.Named(request.Zone));
        var description = refusals.Try(() => Texts.OneLine("description", "The description", request.Description, 1_000, required: false));
        var disclosure = refusals.Try(() => new Disclosure(request.Disclosure.Members, request.Disclosure.Link, request.Disclosure.Everyone));
        var readerships = (request.Readerships ?? [])
            .Select(readership => refusals.Try(() => Texts.OneLine("readerships", "The name of a readership", readership, Texts.LongestName)) ?? "")
            .Distinct()
            .ToArray();
        if (readerships.Length > CalendarSettings.MostReaderships)
            refusals.Add("readerships", $"These are {readerships.Length} readerships. At most {CalendarSettings.MostReaderships} are possible.");
        refusals.ThrowIfAny();
        return new CalendarSettings(name!, plate, hue!, zone!, description!, disclosure!, readerships);
    }
}

/// <summary>Calendars as one person may see them.</summary>
public sealed class CalendarView(CalendarStore calendars, EventStore events, EditionStore editions, OrganisationStore organisations)
{
    /// <summary>Those of which the person sees anything at all.</summary>
    public async Task<IReadOnlyList<CalendarResponse>> ShowAsync(Viewer viewer, IEnumerable<Calendar> all)
    {
        var counts = await events.CountsAsync(viewer.OrganisationId);
        var feeds = await editions.FeedsAsync(viewer.OrganisationId);
        return [.. from calendar in all
                   let detail = viewer.DetailOn(calendar.Id, calendar.Disclosure, Cap.None)
                   where detail > Detail.Nothing
                   select Show(viewer, calendar, detail, counts.GetValueOrDefault(calendar.Id), feeds)];
    }

    /// <exception cref="NotFoundException">There is none, or the person sees nothing of it.</exception>
    public async Task<CalendarResponse> FindAsync(Viewer viewer, Guid id) => (await FindBothAsync(viewer, id)).Shown;

    /// <summary>A calendar that the person keeps, with what publishing it needs.</summary>
    /// <exception cref="ForbiddenException">They see it but do not keep it.</exception>
    public async Task<(Calendar Calendar, CalendarResponse Shown, Organisation Organisation)> KeptAsync(Viewer viewer, Guid id)
    {
        var (calendar, shown) = await FindBothAsync(viewer, id);
        Access.Require(viewer.MayEdit(id), "Only those who keep a calendar publish it.");
        return (calendar, shown, (await organisations.FindAsync(viewer.OrganisationId))!);
    }

    private async Task<(Calendar Calendar, CalendarResponse Shown)> FindBothAsync(Viewer viewer, Guid id)
    {
        var calendar = await calendars.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("calendar");
        var shown = await ShowAsync(viewer, [calendar]);
        return shown.Count == 0 ? throw new NotFoundException("calendar") : (calendar, shown[0]);
    }

    private static CalendarResponse Show(
        Viewer viewer, Calendar calendar, Detail detail, int count, IReadOnlyDictionary<Guid, (bool IsCurrent, Instant ChangedAt)> feeds)
    {
        var keeps = viewer.AudienceOf(calendar.Id) == Audience.Editors;
        return new CalendarResponse(
            calendar.Id, calendar.Name, calendar.Plate.Code, calendar.Hue.Name, calendar.Zone.Id, calendar.Description,
            DisclosureBody.Of(calendar.Disclosure), detail, viewer.MayEdit(calendar.Id), viewer.MayManageCalendars, keeps ? count : null,
            calendar.Version, Delivery(calendar, feeds), keeps ? calendar.Readerships : []);
    }

    private static DeliveryBody Delivery(Calendar calendar, IReadOnlyDictionary<Guid, (bool IsCurrent, Instant ChangedAt)> feeds)
    {
        if (calendar.Disclosure.Everyone == Detail.Nothing)
            return new DeliveryBody(DeliveryState.Closed, null);
        return feeds.TryGetValue(calendar.Id, out var feed)
            ? new DeliveryBody(feed.IsCurrent ? DeliveryState.UpToDate : DeliveryState.Pending, feed.ChangedAt)
            : new DeliveryBody(DeliveryState.Pending, null);
    }
}
