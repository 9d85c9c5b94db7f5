using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Server.Api;
using Valtro.Server.Public;
using Valtro.Store;

namespace Valtro.Server.Accounts;

public sealed record CalendarRoleBody(Guid CalendarId, CalendarRole Role);

/// <param name="Version">Of the member, as they were looked at.</param>
public sealed record RolesRequest(bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, int Version);

public sealed record RolesResponse(int Version);

public sealed record InvitationRequest(string? Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles);

/// <param name="Version">Of what they may do; to be sent with a change of it.</param>
public sealed record MemberResponse(
    Guid Id, string Name, string Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, Instant? LastSignInAt, int Version, bool IsYou);

public sealed record InvitationResponse(
    Guid Id, string Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, string InvitedBy, Instant InvitedAt, Instant ExpiresAt, bool IsExpired);

public sealed record PeopleResponse(IReadOnlyList<MemberResponse> Members, IReadOnlyList<InvitationResponse> Invitations);

public sealed record AuditResponse(Guid Id, Instant At, string By, AuditAct Act, string Subject, string Detail);

/// <summary>The people of an organisation, for its administrators: who is there, what they may do, who is invited, and what was done.</summary>
internal static class PeopleApi
{
    private const string AdministratorsOnly = "Only an administrator can see and change who belongs to the organisation.";

    public static void MapPeople(this RouteGroupBuilder api)
    {
        api.MapGet("/people", List);
        api.MapPut("/people/{id:guid}/roles", SetRoles);
        api.MapPost("/people/{id:guid}/password-reset", SendReset);
        api.MapDelete("/people/{id:guid}", Remove);
        api.MapPost("/people/invitations", Invite);
        api.MapPost("/people/invitations/{id:guid}/again", InviteAgain);
        api.MapDelete("/people/invitations/{id:guid}", Withdraw);
        api.MapGet("/audit", Audit);
    }

    private static async Task<Ok<PeopleResponse>> List(Access access, AccountStore accounts, InvitationStore invitations, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var now = clock.GetCurrentInstant();
        return TypedResults.Ok(new PeopleResponse(
            [.. (await accounts.MembersAsync(viewer.OrganisationId)).Select(member => new MemberResponse(
                member.AccountId, member.Name, member.Email, member.IsAdministrator, Body(member.Roles), member.LastSignInAt, member.Version, member.AccountId == viewer.AccountId))],
            [.. (await invitations.OpenAsync(viewer.OrganisationId)).Select(invitation => new InvitationResponse(
                invitation.Id, invitation.Email, invitation.IsAdministrator, Body(invitation.Roles), invitation.InvitedBy, invitation.InvitedAt, invitation.ExpiresAt, invitation.ExpiresAt <= now))]));
    }

    private static async Task<Results<Ok<RolesResponse>, ProblemHttpResult>> SetRoles(Guid id, RolesRequest request, Access access, AccountStore accounts, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var member = await MemberAsync(accounts, viewer, id);
        var roles = RolesOf(request.Roles);
        var names = (await access.HouseAsync()).Calendars.ToDictionary(one => one.Key, one => one.Value.Name);
        try
        {
            return TypedResults.Ok(new RolesResponse(await accounts.SetRolesAsync(
                viewer.OrganisationId, id, request.Version, request.IsAdministrator, roles,
                new AuditLine(viewer.AccountId, AuditAct.RolesChanged, member.Email, Say(request.IsAdministrator, roles, names), clock.GetCurrentInstant()))));
        }
        catch (ChangedMeanwhileException)
        {
            var now = await MemberAsync(accounts, viewer, id);
            return Problems.Of(Problem.ChangedMeanwhile, $"Somebody else changed what {now.Name} may do while you were working on it. Nothing of yours was saved yet.", current: new RolesRequest(now.IsAdministrator, Body(now.Roles), now.Version));
        }
    }

    private static async Task<NoContent> SendReset(Guid id, Access access, AccountStore accounts, PasswordResets resets)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        await MemberAsync(accounts, viewer, id);
        if (await resets.SendAsync(viewer.OrganisationId, (await accounts.FindAsync(id))!) is not null)
            throw new RuleException("id", $"A mail with a link for a new password went out a few minutes ago; the link works for two hours. Another can go {PasswordResets.AtMostEvery.TotalMinutes:0} minutes after it.");
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Remove(Guid id, Access access, AccountStore accounts, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var member = await MemberAsync(accounts, viewer, id);
        var now = clock.GetCurrentInstant();
        await accounts.RemoveMemberAsync(viewer.OrganisationId, id, now, new AuditLine(viewer.AccountId, AuditAct.PersonRemoved, member.Email, member.Name, now));
        return TypedResults.NoContent();
    }

    /// <summary>The invitation and its mail are one write; the secret is in the mail alone.</summary>
    private static async Task<NoContent> Invite(
        InvitationRequest request, Access access, InvitationStore invitations, AccountStore accounts,
        ILookupNormalizer normalizer, PublicAddresses addresses, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var refusals = new RefusalList();
        var email = refusals.Try(() => EmailAddresses.Check("email", request.Email));
        var roles = refusals.Try(() => RolesOf(request.Roles));
        refusals.ThrowIfAny();
        var names = (await access.HouseAsync()).Calendars.ToDictionary(one => one.Key, one => one.Value.Name);
        var organisation = (await access.HouseAsync()).Organisation;
        var inviter = (await accounts.FindAsync(viewer.AccountId))!;
        var secret = Secrets.Make();
        var now = clock.GetCurrentInstant();
        var said = Say(request.IsAdministrator, roles!, names);
        await invitations.AddAsync(
            viewer.OrganisationId, email!, normalizer.NormalizeEmail(email!)!, request.IsAdministrator, roles!, secret, viewer.AccountId, now,
            InvitationLetter(email!, organisation.Name, inviter.Name, said, addresses.Desk($"/invitation#{secret}")),
            new AuditLine(viewer.AccountId, AuditAct.Invited, email!, said, now));
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> InviteAgain(Guid id, Access access, InvitationStore invitations, AccountStore accounts, PublicAddresses addresses, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var invitation = (await invitations.OpenAsync(viewer.OrganisationId)).FirstOrDefault(one => one.Id == id) ?? throw new NotFoundException("invitation");
        var names = (await access.HouseAsync()).Calendars.ToDictionary(one => one.Key, one => one.Value.Name);
        var organisation = (await access.HouseAsync()).Organisation;
        var inviter = (await accounts.FindAsync(viewer.AccountId))!;
        var secret = Secrets.Make();
        await invitations.RenewAsync(viewer.OrganisationId, id, secret, clock.GetCurrentInstant(), email =>
            InvitationLetter(email, organisation.Name, inviter.Name, Say(invitation.IsAdministrator, invitation.Roles, names), addresses.Desk($"/invitation#{secret}")));
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Withdraw(Guid id, Access access, InvitationStore invitations, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var now = clock.GetCurrentInstant();
        await invitations.WithdrawAsync(viewer.OrganisationId, id, now, email => new AuditLine(viewer.AccountId, AuditAct.InvitationWithdrawn, email, "", now));
        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<AuditResponse>>> Audit(Guid? before, string? act, Access access, AuditStore audit)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ReadAudit, "Only an administrator can read who did what.");
        return TypedResults.Ok<IReadOnlyList<AuditResponse>>([.. (await audit.ListAsync(viewer.OrganisationId, before, ActNamed(act)))
            .Select(entry => new AuditResponse(entry.Id, entry.At, entry.By, entry.Act, entry.Subject, entry.Detail))]);
    }

    private static AuditAct? ActNamed(string? name) => string.IsNullOrEmpty(name)
        ? null
        : Enum.TryParse<AuditAct>(name, ignoreCase: true, out var act) && Enum.IsDefined(act) ? act : throw new RuleException("act", $"“{name}” is nothing that is written down. Leave it out for everything.");

    private static MailLetter InvitationLetter(string email, string organisation, string inviter, string said, string link) => new(
        email, $"{inviter} invites you to the calendars of {organisation}",
        $"""
        Good day,

        {inviter} invites you to keep or read the calendars of {organisation}.
        You will be: {said}.

        Choose a password here, within 14 days; the link works once:
        {link}

        If you do not know why you got this mail, do nothing.

        {organisation}

        """);

    private static async Task<Member> MemberAsync(AccountStore accounts, Viewer viewer, Guid id) =>
        (await accounts.MembersAsync(viewer.OrganisationId)).FirstOrDefault(member => member.AccountId == id) ?? throw new NotFoundException("member");

    private static Dictionary<Guid, CalendarRole> RolesOf(IReadOnlyList<CalendarRoleBody>? roles) =>
        (roles ?? []).GroupBy(role => role.CalendarId).ToDictionary(
            group => group.Key,
            group => group.Count() == 1 ? group.First().Role : throw new RuleException("roles", "A calendar is named twice. Give one role for each."));

    private static CalendarRoleBody[] Body(IReadOnlyDictionary<Guid, CalendarRole> roles) => [.. roles.Select(role => new CalendarRoleBody(role.Key, role.Value))];

    /// <summary>"administrator", "member; editor of Port Watch, reader of Staff room".</summary>
    private static string Say(bool isAdministrator, IReadOnlyDictionary<Guid, CalendarRole> roles, Dictionary<Guid, string> names)
    {
        var said = string.Join(", ", roles.Select(role => $"{role.Value.ToString().ToLowerInvariant()} of {names.GetValueOrDefault(role.Key, "a calendar")}"));
        var general = isAdministrator ? "administrator" : "member";
        return said.Length == 0 ? general : $"{general}; {said}";
    }
}
