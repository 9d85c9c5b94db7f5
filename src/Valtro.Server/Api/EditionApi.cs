using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using QRCoder;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Server.Accounts;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Version">The version that was edited; not needed for a new one.</param>
public sealed record EditionRequest(EditionDraft Edition, int? Version = null);

/// <summary>Where an edition is delivered, and what to paste.</summary>
/// <param name="IsReady">Somebody can fetch it: it is for everyone, or it has its secret address.</param>
public sealed record EditionDelivery(
    bool IsReady, string Page, string Embed, string Feed, string Webcal, string Atom, string OEmbed, string SnippetThatFits, string SnippetFixed, string SnippetLink);

/// <param name="Freshness">Whether what readers get is what was saved.</param>
/// <param name="FetchedBy">How many programs fetched it in the last seven days.</param>
public sealed record EditionLine(
    Guid Id, string Name, Audience Audience, IReadOnlyList<SourceBody> Sources, EditionView View, bool IsStandard, Guid? CalendarId, DeliveryBody Freshness, int FetchedBy, bool MayEdit, bool MayRead);

/// <param name="Addresses">Where it is; null for one for members, and for one with a link that was never made.</param>
public sealed record EditionResponse(
    Guid Id, string Name, EditionDraft Edition, int Version, bool IsStandard, Guid? CalendarId, bool IsRemoved, DeliveryBody Freshness, EditionDelivery? Addresses, Instant? LinkMadeAt);

/// <summary>A source of which the edition's audience gets nothing.</summary>
/// <param name="Entries">How many entries are missing for it.</param>
/// <param name="MayOpen">The person who asks can open it.</param>
public sealed record ClosedSource(Guid CalendarId, string Name, string Plate, string Colour, int Entries, bool MayOpen);

/// <summary>An edition before it is saved.</summary>
/// <param name="Path">Where its reading page can be looked at.</param>
/// <param name="Entries">How many entries it has on its days, a year at most.</param>
/// <param name="Merged">How many look-alikes became one with others.</param>
/// <param name="Contrast">Of the faintest text on its page, light and dark.</param>
/// <param name="Example">The title of its first entry, as feeds write it.</param>
public sealed record EditionPreview(string Path, int Entries, int Merged, IReadOnlyList<ClosedSource> Closed, double Contrast, double DarkContrast, string? Example);

/// <summary>Colours by name, for choosing.</summary>
public sealed record PaletteChoice(string Name, PaletteBody Light, PaletteBody Dark);

/// <summary>An edition that was removed, until it is gone for good.</summary>
public sealed record BinnedEdition(Guid Id, string Name, Instant RemovedAt, Instant GoneAt);

internal static class EditionApi
{
    public static void MapEditions(this RouteGroupBuilder api)
    {
        api.MapGet("/editions", List);
        api.MapPost("/editions", Add);
        api.MapPost("/editions/preview", Preview).ReadsOnly();
        api.MapGet("/editions/palettes", Palettes);
        api.MapGet("/editions/bin", (EditionDesk desk) => desk.BinAsync());
        api.MapGet("/editions/{id:guid}", Get);
        api.MapPut("/editions/{id:guid}", Save);
        api.MapDelete("/editions/{id:guid}", Remove);
        api.MapPost("/editions/{id:guid}/restore", Restore);
        api.MapGet("/editions/{id:guid}/link", Link);
        api.MapPost("/editions/{id:guid}/link", MakeLink);
        api.MapDelete("/editions/{id:guid}/link", WithdrawLink);
        api.MapGet("/editions/{id:guid}/code.svg", (Guid id, string? of, EditionDesk desk) => Code(id, of, desk, asPicture: false)).Produces(200, contentType: "image/svg+xml");
        api.MapGet("/editions/{id:guid}/code.png", (Guid id, string? of, EditionDesk desk) => Code(id, of, desk, asPicture: true)).Produces(200, contentType: "image/png");
    }

    private static async Task<Ok<IReadOnlyList<EditionLine>>> List(EditionDesk desk) => TypedResults.Ok(await desk.ListAsync());

    private static Ok<IReadOnlyList<PaletteChoice>> Palettes() =>
        TypedResults.Ok<IReadOnlyList<PaletteChoice>>([.. Palette.All.Select(one => new PaletteChoice(one.Key, PaletteBody.Of(one.Value.Light), PaletteBody.Of(one.Value.Dark)))]);

    private static async Task<Ok<EditionResponse>> Get(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.GetAsync(id));

    private static async Task<Created<EditionResponse>> Add(EditionRequest request, Access access, EditionDesk desk)
    {
        var made = await desk.AddAsync(request.Edition);
        return TypedResults.Created(access.At($"/api/editions/{made.Id}"), made);
    }

    private static async Task<Results<Ok<EditionResponse>, ProblemHttpResult>> Save(Guid id, EditionRequest request, EditionDesk desk)
    {
        if (request.Version is not { } version)
            throw new RuleException("version", "request.versionMissing");
        try
        {
            return TypedResults.Ok(await desk.SaveAsync(id, version, request.Edition));
        }
        catch (ChangedMeanwhileException)
        {
            return Problems.Of(Problem.ChangedMeanwhile, current: await desk.GetAsync(id));
        }
    }

    private static async Task<NoContent> Remove(Guid id, EditionDesk desk)
    {
        await desk.RemoveAsync(id, isRemoved: true);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Restore(Guid id, EditionDesk desk)
    {
        await desk.RemoveAsync(id, isRemoved: false);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<EditionPreview>> Preview(EditionRequest request, Guid? id, EditionDesk desk) => TypedResults.Ok(await desk.PreviewAsync(id, request.Edition));

    private static async Task<Ok<LinkResponse>> Link(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.LinkAsync(id));

    private static async Task<Ok<LinkResponse>> MakeLink(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.MakeLinkAsync(id));

    private static async Task<Ok<LinkResponse>> WithdrawLink(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.WithdrawLinkAsync(id));

    /// <param name="of">"page", or "feed" for a code that subscribes.</param>
    private static async Task<FileContentHttpResult> Code(Guid id, string? of, EditionDesk desk, bool asPicture)
    {
        var delivery = (await desk.GetAsync(id)).Addresses ?? throw new NotFoundException("address");
        using var code = QRCodeGenerator.GenerateQrCode(of == "feed" ? delivery.Webcal : delivery.Page, QRCodeGenerator.ECCLevel.M);
        return asPicture
            ? TypedResults.File(new PngByteQRCode(code).GetGraphic(12, [0x1B, 0x2A, 0x33], [0xFF, 0xFF, 0xFF]), "image/png", $"code-{(of == "feed" ? "feed" : "page")}.png")
            : TypedResults.File(System.Text.Encoding.UTF8.GetBytes(new SvgQRCode(code).GetGraphic(8, "#1B2A33", "#FFFFFF", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute)), "image/svg+xml");
    }
}
