using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Server.Accounts;

public sealed record CalendarRoleBody(Guid CalendarId, CalendarRole Role);

/// <param name="Version">Of the member, as they were looked at.</param>
public sealed record RolesRequest(bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, int Version);

public sealed record RolesResponse(int Version);

public sealed record InvitationRequest(string? Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles);

/// <param name="Version">Of what they may do; to be sent with a change of it.</param>
public sealed record MemberResponse(
    Guid Id, string Name, string Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, Instant? LastSignInAt, int Version,
        bool IsYou);

public sealed record InvitationResponse(
    Guid Id, string Email, bool IsAdministrator, IReadOnlyList<CalendarRoleBody> Roles, string InvitedBy, Instant InvitedAt,
        Instant ExpiresAt, bool IsExpired);

public sealed record PeopleResponse(IReadOnlyList<MemberResponse> Members, IReadOnlyList<InvitationResponse> Invitations);

public sealed record AuditResponse(Guid Id, Instant At, string By, AuditAct Act, string Subject, string Detail);

/// <summary>The people of an organisation, for its administrators: who is there, what they may do, who is invited, and what was
/// done.</summary>
internal static class PeopleApi
{
    private const string AdministratorsOnly = "access.administratorsPeople";

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
                member.AccountId, member.Name, member.Email, member.IsAdministrator, Body(member.Roles), member.LastSignInAt,
                    member.Version, member.AccountId == viewer.AccountId))],
            [.. (await invitations.OpenAsync(viewer.OrganisationId)).Select(invitation => new InvitationResponse(
                invitation.Id, invitation.Email, invitation.IsAdministrator, Body(invitation.Roles), invitation.InvitedBy,
                    invitation.InvitedAt, invitation.ExpiresAt, invitation.ExpiresAt <= now))]));
    }

    private static async Task<Results<Ok<RolesResponse>, ProblemHttpResult>> SetRoles(
        Guid id, RolesRequest request, Access access, AccountStore accounts, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var member = await MemberAsync(accounts, viewer, id);
        var roles = RolesOf(request.Roles);
        var names = (await access.HouseAsync()).Calendars.ToDictionary(one => one.Key, one => one.Value.Name);
        try
        {
            return TypedResults.Ok(new RolesResponse(await accounts.SetRolesAsync(
                viewer.OrganisationId, id, request.Version, request.IsAdministrator, roles,
                new AuditLine(viewer.AccountId, AuditAct.RolesChanged, member.Email, Say(request.IsAdministrator, roles, names),
                    clock.GetCurrentInstant()))));
        }
        catch (ChangedMeanwhileException)
        {
            var now = await MemberAsync(accounts, viewer, id);
            return Problems.Of(Problem.ChangedMeanwhile, Saying.Of("person.rolesChangedMeanwhile", ("name", now.Name)),
                current: new RolesRequest(now.IsAdministrator, Body(now.Roles), now.Version));
        }
    }

    private static async Task<NoContent> SendReset(Guid id, Access access, AccountStore accounts, PasswordResets resets)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        await MemberAsync(accounts, viewer, id);
        if (await resets.SendAsync(viewer.OrganisationId, (await accounts.FindAsync(id))!) is not null)
            throw new RuleException("id", "person.mailedJustNow", ("minutes", (int)PasswordResets.AtMostEvery.TotalMinutes));
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Remove(Guid id, Access access, AccountStore accounts, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var member = await MemberAsync(accounts, viewer, id);
        var now = clock.GetCurrentInstant();
        await accounts.RemoveMemberAsync(viewer.OrganisationId, id, now,
            new AuditLine(viewer.AccountId, AuditAct.PersonRemoved, member.Email, Saying.Of("text.plain", ("text", member.Name)), now));
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
            viewer.OrganisationId, email!, normalizer.NormalizeEmail(email!)!, request.IsAdministrator, roles!, secret,
            viewer.AccountId, now,
            InvitationLetter(email!, organisation, inviter.Name, said, addresses.Desk($"/invitation#{secret}")),
            new AuditLine(viewer.AccountId, AuditAct.Invited, email!, said, now));
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> InviteAgain(
        Guid id, Access access, InvitationStore invitations, AccountStore accounts, PublicAddresses addresses, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var invitation = (await invitations.OpenAsync(viewer.OrganisationId)).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("invitation");
        var names = (await access.HouseAsync()).Calendars.ToDictionary(one => one.Key, one => one.Value.Name);
        var organisation = (await access.HouseAsync()).Organisation;
        var inviter = (await accounts.FindAsync(viewer.AccountId))!;
        var secret = Secrets.Make();
        await invitations.RenewAsync(viewer.OrganisationId, id, secret, clock.GetCurrentInstant(), email =>
            InvitationLetter(email, organisation, inviter.Name, Say(invitation.IsAdministrator, invitation.Roles, names),
                addresses.Desk($"/invitation#{secret}")));
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Withdraw(Guid id, Access access, InvitationStore invitations, IClock clock)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ManagePeople, AdministratorsOnly);
        var now = clock.GetCurrentInstant();
        await invitations.WithdrawAsync(
            viewer.OrganisationId, id, now, email => new AuditLine(viewer.AccountId, AuditAct.InvitationWithdrawn, email, null, now));
        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<AuditResponse>>> Audit(Guid? before, string? act, Access access, AuditStore audit)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ReadAudit, "access.auditForAdministrators");
        return TypedResults.Ok<IReadOnlyList<AuditResponse>>([.. (await audit.ListAsync(viewer.OrganisationId, before, ActNamed(act)))
            .Select(
                entry => new AuditResponse(
                    entry.Id, entry.At, entry.By, entry.Act, entry.Subject, entry.Detail is null ? "" : Spoken.Now.Say(entry.Detail)))]);
    }

    private static AuditAct? ActNamed(string? name) => string.IsNullOrEmpty(name)
        ? null
        : Enum.TryParse<AuditAct>(name, ignoreCase: true, out var act) && Enum.IsDefined(act)
            ? act
            : throw new RuleException("act", "person.noSuchAct", ("name", name));

    /// <summary>In the organisation's language: whom it goes to has not said theirs yet.</summary>
    private static MailLetter InvitationLetter(string email, Organisation organisation, string inviter, Saying said, string link)
    {
        var speech = Speech.For(organisation.Locale);
        return new MailLetter(
            email,
            speech.Say("mail.invitation.subject", ("inviter", inviter), ("organisation", organisation.Name)),
            speech.Say("mail.invitation.body", ("inviter", inviter), ("organisation", organisation.Name), ("said", said), ("link", link)));
    }

    private static async Task<Member> MemberAsync(AccountStore accounts, Viewer viewer, Guid id) =>
        (await accounts.MembersAsync(viewer.OrganisationId)).FirstOrDefault(member => member.AccountId == id)
            ?? throw new NotFoundException("member");

    private static Dictionary<Guid, CalendarRole> RolesOf(IReadOnlyList<CalendarRoleBody>? roles) =>
        (roles ?? []).GroupBy(role => role.CalendarId).ToDictionary(
            group => group.Key,
            group => group.Count() == 1 ? group.First().Role : throw new RuleException("roles", "person.calendarTwice"));

    private static CalendarRoleBody[] Body(IReadOnlyDictionary<Guid, CalendarRole> roles) =>
        [.. roles.Select(role => new CalendarRoleBody(role.Key, role.Value))];

    /// <summary>"administrator", "member; editor of Port Watch, reader of Staff room".</summary>
    private static Saying Say(bool isAdministrator, IReadOnlyDictionary<Guid, CalendarRole> roles, Dictionary<Guid, string> names)
    {
        var general = Saying.Of(isAdministrator ? "role.administrator" : "role.member");
        if (roles.Count == 0)
            return general;
        ValueList<Saying> said = [.. roles.Select(role => Saying.Of(
            $"role.{role.Value.ToString().ToLowerInvariant()}Of",
                ("calendar", names.TryGetValue(role.Key, out var name) ? name : Saying.Of("role.someCalendar"))))];
        return Saying.Of("role.and", ("general", general), ("roles", said));
    }
}
