using Microsoft.AspNetCore.Http.HttpResults;
using QRCoder;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Editions;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <param name="Version">The version that was edited; not needed for a new one.</param>
/// <param name="IsOut">A new one goes out at once; else it is in the making until it is let out.</param>
public sealed record EditionRequest(EditionDraft Edition, int? Version = null, bool? IsOut = null);

/// <summary>Colours by name, for choosing.</summary>
public sealed record PaletteChoice(string Name, PaletteBody Light, PaletteBody Dark);

internal static class EditionApi
{
    public static void MapEditions(this RouteGroupBuilder api)
    {
        api.MapGet("/editions", List);
        api.MapPost("/editions", Add);
        api.MapPost("/editions/preview", Preview).ReadsOnly();
        api.MapGet("/editions/palettes", Palettes);
        api.MapGet("/editions/bin", async (EditionDesk desk) => TypedResults.Ok(await desk.BinAsync()));
        api.MapGet("/editions/{id:guid}", Get);
        api.MapPut("/editions/{id:guid}", Save);
        api.MapDelete("/editions/{id:guid}", Remove);
        api.MapPost("/editions/{id:guid}/restore", Restore);
        api.MapGet("/editions/{id:guid}/link", Link);
        api.MapPost("/editions/{id:guid}/link", MakeLink);
        api.MapDelete("/editions/{id:guid}/link", WithdrawLink);
        api.MapGet("/account/events/link", async (OwnEvents own) => TypedResults.Ok(await own.LinkAsync()));
        api.MapPost("/account/events/link", async (OwnEvents own) => TypedResults.Ok(await own.MakeAsync()));
        api.MapDelete("/account/events/link", async (OwnEvents own) => TypedResults.Ok(await own.WithdrawAsync()));
        api.MapGet("/editions/{id:guid}/code.svg", (Guid id, string? of, EditionDesk desk) => Code(id, of, desk, asPicture: false))
            .Produces(200, contentType: "image/svg+xml");
        api.MapGet("/editions/{id:guid}/code.png", (Guid id, string? of, EditionDesk desk) => Code(id, of, desk, asPicture: true))
            .Produces(200, contentType: "image/png");
    }

    private static async Task<Ok<IReadOnlyList<EditionLine>>> List(EditionDesk desk) => TypedResults.Ok(await desk.ListAsync());

    private static Ok<IReadOnlyList<PaletteChoice>> Palettes() =>
        TypedResults.Ok<IReadOnlyList<PaletteChoice>>(
            [.. Palette.All.Select(one => new PaletteChoice(one.Key, PaletteBody.Of(one.Value.Light), PaletteBody.Of(one.Value.Dark)))]);

    private static async Task<Ok<EditionResponse>> Get(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.GetAsync(id));

    private static async Task<Created<EditionResponse>> Add(EditionRequest request, Access access, EditionDesk desk)
    {
        var made = await desk.AddAsync(request.Edition, request.IsOut == true);
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

    private static async Task<Ok<EditionPreview>> Preview(EditionRequest request, Guid? id, EditionDesk desk) =>
        TypedResults.Ok(await desk.PreviewAsync(id, request.Edition));

    private static async Task<Ok<LinkResponse>> Link(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.LinkAsync(id));

    private static async Task<Ok<LinkResponse>> MakeLink(Guid id, EditionDesk desk) => TypedResults.Ok(await desk.MakeLinkAsync(id));

    private static async Task<Ok<LinkResponse>> WithdrawLink(Guid id, EditionDesk desk) =>
        TypedResults.Ok(await desk.WithdrawLinkAsync(id));

    /// <param name="of">"page", or "feed" for a code that subscribes.</param>
    private static async Task<FileContentHttpResult> Code(Guid id, string? of, EditionDesk desk, bool asPicture)
    {
        var delivery = (await desk.GetAsync(id)).Addresses ?? throw new NotFoundException("address");
        using var code = QRCodeGenerator.GenerateQrCode(of == "feed" ? delivery.Webcal : delivery.Page, QRCodeGenerator.ECCLevel.M);
        return asPicture
            ? TypedResults.File(new PngByteQRCode(code).GetGraphic(12, [0x1B, 0x2A, 0x33], [0xFF, 0xFF, 0xFF]), "image/png",
                $"code-{(of == "feed" ? "feed" : "page")}.png")
            : TypedResults.File(
                System.Text.Encoding.UTF8.GetBytes(new SvgQRCode(code)
                    .GetGraphic(8, "#1B2A33", "#FFFFFF", sizingMode: SvgQRCode.SizingMode.ViewBoxAttribute)), "image/svg+xml");
    }
}
