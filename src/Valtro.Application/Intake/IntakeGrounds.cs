using NodaTime;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Application.Intake;

/// <summary>By what is read behind, in somebody's name: by what they may do when it is done.</summary>
internal sealed class IntakeGrounds(
    AccountStore accounts, Houses houses, RichTexts richTexts, IServiceScopeFactory scopes, IClock clock)
{
    /// <param name="form">What is usual on a calendar fills the gaps of sheets alone.</param>
    /// <returns>Null where they are no member any more.</returns>
    public async Task<IntakeGround?> OfAsync(Guid organisationId, Guid accountId, IntakeAnswers answers, IntakeForm form)
    {
        if ((await accounts.MembershipsAsync(accountId)).FirstOrDefault(one => one.Viewer.OrganisationId == organisationId)
            is not { } membership)
            return null;
        var house = await houses.OfAsync(organisationId, membership.HouseVersion);
        await using var scope = scopes.CreateAsyncScope();
        var usual = form == IntakeForm.Table
            ? await scope.ServiceProvider.GetRequiredService<Templates>().UsualAsync(membership.Viewer, house)
            : UsualValues.None;
        return new IntakeGround(membership.Viewer, house, answers,
            clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date, richTexts, usual).Ready();
    }
}
