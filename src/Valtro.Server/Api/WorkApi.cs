using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>Something that was to be done and does not succeed.</summary>
/// <param name="Subject">The edition's name, the calendar elsewhere, the recipient of a mail, the person whose news are gathered; empty for
/// what is nobody's.</param>
/// <param name="EditionId">Of a rendering.</param>
/// <param name="NextTryAt">Null when it is set aside: it is not tried by itself any more.</param>
/// <param name="Error">As the program said it, for whoever runs the server.</param>
public sealed record FailingResponse(
    WorkKind Kind, string Key, string Subject, Guid? EditionId, Instant Since, FailureReason Reason, string Error, int Tries,
        bool IsSetAside, Instant? NextTryAt);

public sealed record TryAgainRequest(WorkKind Kind, string? Key);

/// <summary>What is still to be done and does not succeed, for the administrators of an organisation.</summary>
internal static class WorkApi
{
    private const string AdministratorsOnly = "access.administratorsWork";

    public static void MapWork(this RouteGroupBuilder api)
    {
        api.MapGet("/work", List);
        api.MapPost("/work/try-again", TryAgain);
    }

    private static async Task<Ok<IReadOnlyList<FailingResponse>>> List(
        Access access, WorkStore work, EditionSettingsStore editions, MailStore mails, PushStore targets, AccountStore accounts)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var failing = await work.FailingAsync(viewer.OrganisationId);
        var names = failing.Any(one => one.Kind == WorkKind.Render)
            ? (await editions.ListAsync(viewer.OrganisationId)).ToDictionary(edition => edition.Id, edition => edition.Name)
            : [];
        var lines = new List<FailingResponse>(failing.Count);
        foreach (var one in failing)
        {
            var edition = one.Kind == WorkKind.Render ? Guid.Parse(one.Key) : default(Guid?);
            var subject = one.Kind switch
            {
                WorkKind.Render => names.GetValueOrDefault(edition!.Value, ""),
                WorkKind.Mail => (await mails.FindAsync(Guid.Parse(one.Key)))?.Recipient ?? "",
                WorkKind.Push => (await targets.FindAsync(viewer.OrganisationId, Guid.Parse(one.Key)))?.Name ?? "",
                WorkKind.Gather => (await accounts.FindAsync(Guid.Parse(one.Key.Split('/')[1])))?.Name ?? "",
                _ => "",
            };
            lines.Add(
                new FailingResponse(
                    one.Kind, one.Key, subject, edition, one.Since, one.Reason, one.Error, one.Tries, one.IsSetAside, one.NextTryAt));
        }
        return TypedResults.Ok<IReadOnlyList<FailingResponse>>(lines);
    }

    private static async Task<NoContent> TryAgain(TryAgainRequest request, Access access, WorkStore work, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        if (string.IsNullOrEmpty(request.Key))
            throw new RuleException("key", "work.keyMissing");
        await work.TryAgainAsync(viewer.OrganisationId, request.Kind, request.Key, clock.GetCurrentInstant());
        return TypedResults.NoContent();
    }
}
