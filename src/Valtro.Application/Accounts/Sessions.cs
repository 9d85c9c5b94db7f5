using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Accounts;

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

/// <summary>What the desk is told about who is signed in.</summary>
public sealed class Sessions(IWhoAsks asker, Access access, OrganisationStore organisations, AccountStore accounts)
{
    public async Task<SessionResponse> DescribeAsync(string antiforgeryToken)
    {
        var account = asker.AccountId == Guid.Empty ? null : await accounts.FindAsync(asker.AccountId);
        var memberships = account is null ? [] : await access.MembershipsAsync();
        if (account is null || memberships.Count == 0)
            return new SessionResponse(antiforgeryToken, null, null, []);
        MembershipBody[] all = [.. memberships.Select(one => new MembershipBody(one.Slug, one.Name))];
        if (access.Chosen(memberships)?.Viewer is not { } viewer)
            return new SessionResponse(antiforgeryToken, Person(account, null), null, all);
        using var within = Wall.Within(viewer.OrganisationId);
        var organisation = (await organisations.FindAsync(viewer.OrganisationId))!;
        return new SessionResponse(
            antiforgeryToken,
            Person(account, viewer),
            new OrganisationResponse(organisation.Name, organisation.Slug, organisation.Zone, Spoken.LocaleIn(organisation),
                organisation.FirstDayOfWeek, organisation.YearStartsIn),
            all);
    }

    private static PersonResponse Person(Account account, Viewer? viewer) => new(
        account.Id, account.Name, account.Email, account.Language, viewer?.May(OrganisationAction.ManagePeople) == true,
        viewer?.ContributesSomewhere == true);
}
