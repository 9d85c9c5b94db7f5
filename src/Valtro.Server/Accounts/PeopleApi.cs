using Microsoft.AspNetCore.Http.HttpResults;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Speaking;

namespace Valtro.Server.Accounts;

/// <summary>The people of an organisation, for its administrators, and what was done.</summary>
internal static class PeopleApi
{
    public static void MapPeople(this RouteGroupBuilder api)
    {
        api.MapGet("/people", async (People people) => TypedResults.Ok(await people.ListAsync()));
        api.MapPut("/people/{id:guid}/roles", SetRoles);
        api.MapPost("/people/{id:guid}/password-reset", (Guid id, People people) => Done(people.SendResetAsync(id)));
        api.MapDelete("/people/{id:guid}", (Guid id, People people) => Done(people.RemoveAsync(id)));
        api.MapPost("/people/invitations", (InvitationRequest request, People people) => Done(people.InviteAsync(request)));
        api.MapPost("/people/invitations/{id:guid}/again", (Guid id, People people) => Done(people.InviteAgainAsync(id)));
        api.MapDelete("/people/invitations/{id:guid}", (Guid id, People people) => Done(people.WithdrawAsync(id)));
        api.MapGet("/archive", async (OrganisationArchives archives, CancellationToken stopping) =>
        {
            var (name, content) = await archives.MakeAsync(stopping);
            return TypedResults.Stream(content, "application/zip", name);
        });
        api.MapGet("/audit", async (Guid? before, string? act, People people) => TypedResults.Ok(await people.AuditAsync(before, act)));
    }

    private static async Task<NoContent> Done(Task act)
    {
        await act;
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<RolesResponse>, ProblemHttpResult>> SetRoles(Guid id, RolesRequest request, People people)
    {
        try
        {
            return TypedResults.Ok(await people.SetRolesAsync(id, request));
        }
        catch (ChangedMeanwhileException)
        {
            var (name, roles) = await people.RolesAsync(id);
            return Problems.Of(Problem.ChangedMeanwhile, Saying.Of("person.rolesChangedMeanwhile", ("name", name)), current: roles);
        }
    }
}
