using Microsoft.AspNetCore.Identity;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Accounts;

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
public sealed class People(
    Access access, AccountStore accounts, InvitationStore invitations, AuditStore audit, PasswordResets resets, PublicAddresses addresses,
    ILookupNormalizer normalizer, IClock clock)
{
    private Task<Viewer> AdministratorAsync() => access.RequireAsync(OrganisationAction.ManagePeople, "access.administratorsPeople");

    public async Task<PeopleResponse> ListAsync()
    {
        var viewer = await AdministratorAsync();
        var now = clock.GetCurrentInstant();
        return new PeopleResponse(
            [.. (await accounts.MembersAsync(viewer.OrganisationId)).Select(member => new MemberResponse(
                member.AccountId, member.Name, member.Email, member.IsAdministrator, Body(member.Roles), member.LastSignInAt,
                member.Version, member.AccountId == viewer.AccountId))],
            [.. (await invitations.OpenAsync(viewer.OrganisationId)).Select(invitation => new InvitationResponse(
                invitation.Id, invitation.Email, invitation.IsAdministrator, Body(invitation.Roles), invitation.InvitedBy,
                invitation.InvitedAt, invitation.ExpiresAt, invitation.ExpiresAt <= now))]);
    }

    /// <exception cref="ChangedMeanwhileException">What the member may do is not what it was when it was looked at.</exception>
    public async Task<RolesResponse> SetRolesAsync(Guid id, RolesRequest request)
    {
        var viewer = await AdministratorAsync();
        var member = await MemberAsync(viewer, id);
        var roles = RolesOf(request.Roles);
        var said = await SayAsync(request.IsAdministrator, roles);
        return new RolesResponse(await accounts.SetRolesAsync(
            viewer.OrganisationId, id, request.Version, request.IsAdministrator, roles,
            new AuditLine(viewer.AccountId, AuditAct.RolesChanged, member.Email, said, clock.GetCurrentInstant())));
    }

    /// <summary>What a member may do by now.</summary>
    public async Task<(string Name, RolesRequest Roles)> RolesAsync(Guid id)
    {
        var now = await MemberAsync(await AdministratorAsync(), id);
        return (now.Name, new RolesRequest(now.IsAdministrator, Body(now.Roles), now.Version));
    }

    /// <exception cref="RuleException">They got such a mail just now.</exception>
    public async Task SendResetAsync(Guid id)
    {
        var viewer = await AdministratorAsync();
        await MemberAsync(viewer, id);
        if (await resets.SendAsync(viewer.OrganisationId, (await accounts.FindAsync(id))!) is not null)
            throw new RuleException("id", "person.mailedJustNow", ("minutes", (int)PasswordResets.AtMostEvery.TotalMinutes));
    }

    public async Task RemoveAsync(Guid id)
    {
        var viewer = await AdministratorAsync();
        var member = await MemberAsync(viewer, id);
        var now = clock.GetCurrentInstant();
        await accounts.RemoveMemberAsync(viewer.OrganisationId, id, now,
            new AuditLine(viewer.AccountId, AuditAct.PersonRemoved, member.Email, Saying.Of("text.plain", ("text", member.Name)), now));
    }

    /// <summary>The invitation and its mail are one write; the secret is in the mail alone.</summary>
    /// <exception cref="RuleException">It is no address, or a calendar stands there twice.</exception>
    public async Task InviteAsync(InvitationRequest request)
    {
        var viewer = await AdministratorAsync();
        var refusals = new RefusalList();
        var email = refusals.Try(() => EmailAddresses.Check("email", request.Email));
        var roles = refusals.Try(() => RolesOf(request.Roles));
        refusals.ThrowIfAny();
        var said = await SayAsync(request.IsAdministrator, roles!);
        var (secret, now) = (Secrets.Make(), clock.GetCurrentInstant());
        var letter = await LetterAsync(viewer, said, secret);
        await invitations.AddAsync(
            viewer.OrganisationId, email!, normalizer.NormalizeEmail(email!)!, request.IsAdministrator, roles!, secret,
            viewer.AccountId, now, letter(email!), new AuditLine(viewer.AccountId, AuditAct.Invited, email!, said, now));
    }

    /// <summary>With a new secret: the mail that went before opens nothing any more.</summary>
    public async Task InviteAgainAsync(Guid id)
    {
        var viewer = await AdministratorAsync();
        var invitation = (await invitations.OpenAsync(viewer.OrganisationId)).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("invitation");
        var secret = Secrets.Make();
        var letter = await LetterAsync(viewer, await SayAsync(invitation.IsAdministrator, invitation.Roles), secret);
        await invitations.RenewAsync(viewer.OrganisationId, id, secret, clock.GetCurrentInstant(), letter);
    }

    public async Task WithdrawAsync(Guid id)
    {
        var viewer = await AdministratorAsync();
        var now = clock.GetCurrentInstant();
        await invitations.WithdrawAsync(
            viewer.OrganisationId, id, now, email => new AuditLine(viewer.AccountId, AuditAct.InvitationWithdrawn, email, null, now));
    }

    /// <param name="before">The last entry that is known already; null for the latest.</param>
    /// <param name="act">Only of this kind; empty for all.</param>
    public async Task<IReadOnlyList<AuditResponse>> AuditAsync(Guid? before, string? act)
    {
        var viewer = await access.RequireAsync(OrganisationAction.ReadAudit, "access.auditForAdministrators");
        return [.. (await audit.ListAsync(viewer.OrganisationId, before, ActNamed(act))).Select(entry => new AuditResponse(
            entry.Id, entry.At, entry.By, entry.Act, entry.Subject, entry.Detail is null ? "" : Spoken.Now.Say(entry.Detail)))];
    }

    /// <summary>In the organisation's language: whom it goes to has not said theirs yet.</summary>
    private async Task<Func<string, MailLetter>> LetterAsync(Viewer viewer, Saying said, string secret)
    {
        var organisation = (await access.HouseAsync()).Organisation;
        var inviter = (await accounts.FindAsync(viewer.AccountId))!.Name;
        var link = addresses.Desk($"/invitation#{secret}");
        var speech = Speech.For(organisation.Locale);
        return email => new MailLetter(
            email,
            speech.Say("mail.invitation.subject", ("inviter", inviter), ("organisation", organisation.Name)),
            speech.Say("mail.invitation.body", ("inviter", inviter), ("organisation", organisation.Name), ("said", said), ("link", link)));
    }

    /// <summary>"administrator", "member; editor of Port Watch, reader of Staff room".</summary>
    private async Task<Saying> SayAsync(bool isAdministrator, IReadOnlyDictionary<Guid, CalendarRole> roles)
    {
        var general = Saying.Of(isAdministrator ? "role.administrator" : "role.member");
        if (roles.Count == 0)
            return general;
        var calendars = (await access.HouseAsync()).Calendars;
        ValueList<Saying> said = [.. roles.Select(role => Saying.Of(
            $"role.{role.Value.ToString().ToLowerInvariant()}Of",
            ("calendar", calendars.TryGetValue(role.Key, out var calendar) ? calendar.Name : Saying.Of("role.someCalendar"))))];
        return Saying.Of("role.and", ("general", general), ("roles", said));
    }

    private static AuditAct? ActNamed(string? name) => string.IsNullOrEmpty(name)
        ? null
        : Enum.TryParse<AuditAct>(name, ignoreCase: true, out var act) && Enum.IsDefined(act)
            ? act
            : throw new RuleException("act", "person.noSuchAct", ("name", name));

    private async Task<Member> MemberAsync(Viewer viewer, Guid id) =>
        (await accounts.MembersAsync(viewer.OrganisationId)).FirstOrDefault(member => member.AccountId == id)
            ?? throw new NotFoundException("member");

    private static Dictionary<Guid, CalendarRole> RolesOf(IReadOnlyList<CalendarRoleBody>? roles) =>
        (roles ?? []).GroupBy(role => role.CalendarId).ToDictionary(
            group => group.Key,
            group => group.Count() == 1 ? group.First().Role : throw new RuleException("roles", "person.calendarTwice"));

    private static CalendarRoleBody[] Body(IReadOnlyDictionary<Guid, CalendarRole> roles) =>
        [.. roles.Select(role => new CalendarRoleBody(role.Key, role.Value))];
}
