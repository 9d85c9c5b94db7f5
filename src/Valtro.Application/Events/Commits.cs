using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.SignOff;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>Commits acts in the signed-in person's name, with what others hear of them and what the audit list says.</summary>
public sealed class Commits(Access access, ActStore acts, AccountStore accounts, IClock clock)
{
    /// <returns>Null when the act writes no event.</returns>
    public async Task<ActDone?> CommitAsync(Act act)
    {
        var (viewer, now) = (await access.ViewerAsync(), clock.GetCurrentInstant());
        var calendars = (await access.HouseAsync()).Calendars;
        return await acts.CommitAsync(viewer.OrganisationId, viewer.AccountId, Instant.FromUnixTimeSeconds(now.ToUnixTimeSeconds()), act,
            await NoticesAsync(viewer.OrganisationId, viewer.AccountId, act, calendars),
            [.. act.Decides.Where(verdict => verdict.State != SubmissionState.Withdrawn)
                .Select(verdict => Line(viewer.AccountId, verdict, calendars, now))]);
    }

    private static AuditLine Line(Guid accountId, Verdict verdict, IReadOnlyDictionary<Guid, Calendar> calendars, Instant now)
    {
        var (isApproved, about) = (verdict.State == SubmissionState.Approved, verdict.About);
        var text = isApproved ? $"{about.Proposer}, {calendars[about.CalendarId].Name}" : verdict.Reason;
        return new AuditLine(accountId, isApproved ? AuditAct.Approved : AuditAct.SentBack, about.Title,
            Saying.Of("text.plain", ("text", text)), now);
    }

    /// <summary>Of what is handed in at once: of more than these somebody hears in one sentence.</summary>
    private const int MostOneByOne = 3;

    /// <summary>Who decides hears of what was handed in; who handed it in hears of the decision.</summary>
    private async Task<IReadOnlyList<Notice>> NoticesAsync(
        Guid organisationId, Guid accountId, Act act, IReadOnlyDictionary<Guid, Calendar> calendars)
    {
        Verdict[] told = [.. act.Decides.Where(verdict =>
            verdict.State != SubmissionState.Withdrawn && verdict.About.ProposerId != accountId)];
        if (told.Length == 0 && act.HandsIn.Count == 0)
            return [];
        var name = (await accounts.FindAsync(accountId))!.Name;
        var notices = new List<Notice>();
        foreach (var (about, state, reason) in told)
        {
            object where = calendars.TryGetValue(about.CalendarId, out var calendar) ? calendar.Name : Saying.Of("news.itsCalendar");
            notices.Add(new Notice(about.ProposerId, Saying.Of(state == SubmissionState.Approved ? "news.letGoOut" : "news.sentBack",
                ("who", name), ("title", about.Title), ("where", where), ("reason", reason)), "/sign-off?mine=1"));
        }
        if (act.HandsIn.Count == 0)
            return notices;
        var deciders = await accounts.DecidersAsync(organisationId, [.. act.HandsIn.Select(one => one.CalendarId).Distinct()]);
        var asked = from submission in act.HandsIn
                    from decider in deciders[submission.CalendarId]
                    where decider != accountId
                    group submission by (Decider: decider, IsPlacement: submission.Kind == SubmissionKind.Placement);
        foreach (var one in asked)
        {
            var (decider, isPlacement) = one.Key;
            notices.AddRange(
                (one.Count() > MostOneByOne
                    ? [Saying.Of(isPlacement ? "news.asksToShowMany" : "news.handsInMany", ("who", name), ("count", one.Count()))]
                    : one.Select(submission => Saying.Of(isPlacement ? "news.asksToShow" : "news.handsIn",
                        ("who", name), ("title", submission.Title), ("where", calendars[submission.CalendarId].Name))))
                .Select(saying => new Notice(decider, saying, "/sign-off")));
        }
        return notices;
    }
}
