using Valtro.Application.Plans;

namespace Valtro.Server.Api;

/// <summary>Ways to look at the plan, kept under a name.</summary>
internal static class PlanViewApi
{
    public sealed record KeptView(Guid Id);

    public static void MapPlanViews(this RouteGroupBuilder api)
    {
        api.MapGet("/plan-views", async (PlanViews views) => TypedResults.Ok(await views.AllAsync()));
        api.MapPost("/plan-views",
            async (PlanViewRequest request, PlanViews views) => TypedResults.Ok(new KeptView(await views.SaveAsync(request))));
        api.MapDelete("/plan-views/{id:guid}", async (Guid id, PlanViews views) =>
        {
            await views.RemoveAsync(id);
            return TypedResults.NoContent();
        });
    }
}
