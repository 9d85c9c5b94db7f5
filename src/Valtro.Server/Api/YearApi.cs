using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Years;
using Valtro.Core.Disclosure;
using Valtro.Core.ICalendar;

namespace Valtro.Server.Api;

public sealed record YearPlansResponse(IReadOnlyList<YearPlanResponse> Plans, bool MayEdit);

public sealed record BreakFile(string Text, LocalDate First, LocalDate Last);

public sealed record BreaksRead(IReadOnlyList<SpanBody> Breaks, IReadOnlyList<string> Skipped);

internal static class YearApi
{
    public static void MapYearPlans(this RouteGroupBuilder api)
    {
        api.MapGet("/year-plans", List);
        api.MapPost(
            "/year-plans", async (YearPlanRequest request, YearPlanDesk plans) => TypedResults.Ok(await plans.SaveAsync(null, request)));
        api.MapPut("/year-plans/{id:guid}",
            async (Guid id, YearPlanRequest request, YearPlanDesk plans) => TypedResults.Ok(await plans.SaveAsync(id, request)));
        api.MapPost("/year-plans/preview",
            async (Guid? id, YearPlanRequest request, YearPlanDesk plans) => TypedResults.Ok(await plans.PreviewAsync(id, request)))
            .ReadsOnly();
        api.MapPost("/year-plans/preview/editions/{editionId:guid}",
            async (Guid editionId, Guid? id, YearPlanRequest request, YearPlanDesk plans) =>
                TypedResults.Ok(await plans.ProveAsync(id, request, editionId)))
            .ReadsOnly();
        api.MapPost("/year-plans/{id:guid}/next", async (Guid id, YearPlanDesk plans) => TypedResults.Ok(await plans.ProposeNextAsync(id)))
            .ReadsOnly();
        api.MapDelete("/year-plans/{id:guid}", Remove);
        api.MapGet(
            "/year-plans/{id:guid}/removal", async (Guid id, YearPlanDesk plans) => TypedResults.Ok(await plans.PreviewAsync(id, null)));
        api.MapGet("/year-plans/{id:guid}/removal/editions/{editionId:guid}",
            async (Guid id, Guid editionId, YearPlanDesk plans) => TypedResults.Ok(await plans.ProveAsync(id, null, editionId)));
        api.MapPost("/year-plans/breaks", ReadBreaks).ReadsOnly();
        api.MapPost("/year-plans/{id:guid}/carry/preview",
            async (Guid id, CarryRequest request, CarriedYears years) => TypedResults.Ok(await years.PreviewAsync(id, request)))
            .ReadsOnly();
        api.MapPost("/year-plans/{id:guid}/carry",
            async (Guid id, CarrySaveRequest request, CarriedYears years) => TypedResults.Ok(await years.SaveAsync(id, request)))
            .AddEndpointFilter<OnceFilter>();
    }

    private static async Task<Ok<YearPlansResponse>> List(Access access, YearPlanDesk plans)
    {
        var viewer = await access.ViewerAsync();
        return TypedResults.Ok(new YearPlansResponse(await plans.ShowAsync(), viewer.May(OrganisationAction.ManageYearPlan)));
    }

    private static async Task<Ok<BreaksRead>> ReadBreaks(BreakFile file, Access access)
    {
        await access.RequireAsync(OrganisationAction.ManageYearPlan, YearPlanDesk.KeepersOnly);
        var breaks = BreakReader.Read(file.Text, file.First, file.Last, out var skipped);
        return TypedResults.Ok(new BreaksRead([.. breaks.Select(SpanBody.Of)], skipped));
    }

    private static async Task<NoContent> Remove(Guid id, int version, YearPlanDesk plans)
    {
        await plans.RemoveAsync(id, version);
        return TypedResults.NoContent();
    }
}
