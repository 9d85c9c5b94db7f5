using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Accounts;

public sealed record SignInRequest([property: Required] string Email, [property: Required] string Password);

/// <param name="Locale">How the desk writes days and numbers for whoever asks: as the organisation does where it speaks their
/// language.</param>
public sealed record OrganisationResponse(string Name, string Slug, string Zone, string Locale, int FirstDayOfWeek, int YearStartsIn);

/// <param name="MaySignOff">They decide about what others hand in, or hand in themselves.</param>
/// <param name="Language">In which Valtro speaks to them, such as "de"; empty for what their browser asks for.</param>
public sealed record PersonResponse(Guid Id, string Name, string Email, string Language, bool IsAdministrator, bool MaySignOff);

/// <param name="AntiforgeryToken">To be sent as X-Valtro-Token with every change.</param>
/// <param name="Person">Null when nobody is signed in.</param>
/// <param name="Organisation">The one that the address names; null where the person belongs to several and it names none, or none of
/// theirs.</param>
/// <param name="Organisations">All that the person belongs to, by name.</param>
public sealed record SessionResponse(
    string AntiforgeryToken, PersonResponse? Person, OrganisationResponse? Organisation, IReadOnlyList<MembershipBody> Organisations);

/// <param name="Slug">By which addresses name it: "/at/pinewick/plan".</param>
public sealed record MembershipBody(string Slug, string Name);

internal static class SessionApi
{
    public static void MapSession(this RouteGroupBuilder api)
    {
        api.MapGet("/session", Get).AllowAnonymous().WithMetadata(new OfNoOrganisation());
        api.MapPost("/session", SignIn).AllowAnonymous().RequireRateLimiting(Limits.SignIn).WithMetadata(new OfNoOrganisation());
        api.MapDelete("/session", SignOut).WithMetadata(new OfNoOrganisation());
        api.MapDelete("/session/everywhere", SignOutEverywhere);
    }

    private static async Task<Ok<SessionResponse>> Get(HttpContext context, IAntiforgery antiforgery, Sessions sessions) =>
        TypedResults.Ok(await sessions.DescribeAsync(context, antiforgery));

    private static async Task<Results<Ok<SessionResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request, HttpContext context, PasswordChecks checks, SignedIn signedIn, SignInManager<Account> signIn,
            IAntiforgery antiforgery, Sessions sessions)
    {
        if (await checks.CheckAsync(context, request.Email.Trim(), request.Password) is not { } account)
            return Problems.Of(Problem.WrongSignIn);
        await signedIn.BeginAsync(account);
        context.User = await signIn.CreateUserPrincipalAsync(account);
        return TypedResults.Ok(await sessions.DescribeAsync(context, antiforgery));
    }

    /// <summary>This session ends, here and on the server; others of the same person go on.</summary>
    private static async Task<NoContent> SignOut(HttpContext context, SignedIn signedIn)
    {
        await signedIn.EndAsync(context.User);
        return TypedResults.NoContent();
    }

    /// <summary>Every session of the person ends, this one too: their stamp becomes another, and each request compares it.</summary>
    private static async Task<NoContent> SignOutEverywhere(
        HttpContext context, SignInManager<Account> signIn, SignedIn signedIn, Access access, AuditStore audit, IClock clock)
    {
        var viewer = await access.ViewerAsync();
        var account = (await signIn.UserManager.GetUserAsync(context.User))!;
        await signIn.UserManager.UpdateSecurityStampAsync(account);
        await audit.WriteAsync(
            viewer.OrganisationId, new AuditLine(account.Id, AuditAct.SignedOutEverywhere, account.Email, null, clock.GetCurrentInstant()));
        await signedIn.EndAsync(context.User);
        return TypedResults.NoContent();
    }
}

/// <summary>What the desk is told about who is signed in.</summary>
public sealed class Sessions(Access access, OrganisationStore organisations, UserManager<Account> users)
{
    internal async Task<SessionResponse> DescribeAsync(HttpContext context, IAntiforgery antiforgery)
    {
        var token = antiforgery.GetAndStoreTokens(context).RequestToken!;
        var account = context.User.Identity?.IsAuthenticated == true ? await users.GetUserAsync(context.User) : null;
        var memberships = account is null ? [] : await access.MembershipsAsync();
        if (account is null || memberships.Count == 0)
            return new SessionResponse(token, null, null, []);
        SpokenLanguage.Remind(context, account.Language);
        MembershipBody[] all = [.. memberships.Select(one => new MembershipBody(one.Slug, one.Name))];
        if (access.Chosen(memberships)?.Viewer is not { } viewer)
            return new SessionResponse(
                token, new PersonResponse(account.Id, account.Name, account.Email, account.Language, false, false), null, all);
        using var within = Wall.Within(viewer.OrganisationId);
        var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
        return new SessionResponse(
            token,
            new PersonResponse(
                account.Id, account.Name, account.Email, account.Language, viewer.May(OrganisationAction.ManagePeople),
                    viewer.ContributesSomewhere),
            new OrganisationResponse(organisation.Name, organisation.Slug, organisation.Zone, Spoken.LocaleIn(organisation),
                organisation.FirstDayOfWeek, organisation.YearStartsIn),
            all);
    }
}
