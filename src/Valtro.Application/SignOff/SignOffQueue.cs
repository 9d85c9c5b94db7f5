using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.SignOff;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.SignOff;

/// <summary>Something that waits for a decision, or got one, with the change side by side.</summary>
/// <param name="CalendarId">Whose editors decide.</param>
/// <param name="Version">Of the event as it is shown here; to be sent with the approval.</param>
/// <param name="When">The pattern, or the date that a change is about, in words.</param>
/// <param name="Scope">Of a change: which dates it is for.</param>
/// <param name="Differences">What stands there now, and what would.</param>
/// <param name="WhoSees">Who would see it.</param>
/// <param name="Problem">Why it cannot be approved as it is; null when it can.</param>
public sealed record SubmissionResponse(
    Guid Id, SubmissionKind Kind, SubmissionState State, Guid EventId, Guid CalendarId, string Title, string Proposer, bool IsYours,
    Instant MadeAt, string Reason, string? DecidedBy, Instant? DecidedAt,
    bool MayDecide, int? Version, ChangeAct? Act, string? RecurrenceId, ChangeScope? Scope, string When,
        IReadOnlyList<EventDifference> Differences, IReadOnlyList<WhoSeesBody> WhoSees, string? Problem);

public sealed record SignOffResponse(IReadOnlyList<SubmissionResponse> ToDecide, IReadOnlyList<SubmissionResponse> Yours);

/// <summary>What a contributor handed in, to be opened in the form again.</summary>
public sealed record ProposalResponse(Guid Id, string RecurrenceId, ChangeScope? Scope, EventForm? Event);

public sealed record ApprovalItem(Guid Id, int Version);

/// <param name="Problem">Why it was not approved; null when it was.</param>
/// <param name="ActId">Undoes it.</param>
public sealed record ApprovalOutcome(Guid Id, string Title, string? Problem, Guid? ActId);

/// <summary>The queue of those who keep calendars, and where things stand for those who handed them in.</summary>
public sealed class SignOffQueue(Access access, SubmissionStore submissions, EventDesk desk, EventChanges changes, Commits commits)
{
    /// <summary>So many at once.</summary>
    private const int Shown = 100;
    private const string ApproversOnly = "access.approvers";

    public async Task<int> CountAsync()
    {
        var viewer = await access.ViewerAsync();
        var mine = await DecidedByAsync(viewer);
        return mine.Length == 0 ? 0 : await submissions.CountOpenAsync(viewer.OrganisationId, mine);
    }

    public async Task<SignOffResponse> ListAsync()
    {
        var viewer = await access.ViewerAsync();
        var (open, own) = await submissions.OpenAndOwnAsync(viewer.OrganisationId, await DecidedByAsync(viewer), viewer.AccountId);
        Submission[] toDecide = [.. open.Take(Shown)];
        Submission[] yours = viewer.SeesAs is null ? [.. own] : [];
        await ReadAheadAsync([.. toDecide.Concat(yours).Where(IsToldInFull)]);
        return new SignOffResponse(await ShownAsync(toDecide), await ShownAsync(yours));

        async Task<IReadOnlyList<SubmissionResponse>> ShownAsync(Submission[] all)
        {
            var shown = new List<SubmissionResponse>();
            foreach (var submission in all)
                shown.Add(await ShowAsync(viewer, submission));
            return shown;
        }
    }

    private static bool IsToldInFull(Submission submission) => submission.State is SubmissionState.Open or SubmissionState.SentBack;

    private Task ReadAheadAsync(Submission[] told) => desk.ReadAheadAsync(
        [.. told.Select(submission => submission.EventId).Distinct()],
        [.. told.Where(submission => submission.Request is not null).SelectMany(submission => submission.Request!.Event?.Files ?? [])
            .Distinct()]);

    private async Task<Guid[]> DecidedByAsync(Viewer viewer) =>
        [.. (await access.HouseAsync()).Calendars.Keys.Where(id => viewer.May(CalendarAction.Approve, id))];

    private async Task<SubmissionResponse> ShowAsync(Viewer viewer, Submission submission)
    {
        var mayDecide = submission.State == SubmissionState.Open && viewer.May(CalendarAction.Approve, submission.CalendarId);
        var plain = new SubmissionResponse(
            submission.Id, submission.Kind, submission.State, submission.EventId, submission.CalendarId, submission.Title,
            submission.Proposer, submission.ProposerId == viewer.AccountId,
            submission.MadeAt, submission.Reason, submission.DecidedBy, submission.DecidedAt, mayDecide, null, null, null, null, "", [],
                [], null);
        if (!IsToldInFull(submission))
            return plain;
        try
        {
            return await WithDetailsAsync(submission, plain);
        }
        catch (Exception gone) when (gone is NotFoundException or RuleException or ForbiddenException)
        {
            return plain with { Problem = Spoken.Now.Say(Why(gone, "signOff.eventGone")) };
        }
    }

    private static Saying Why(Exception refused, string whenGone) => refused switch
    {
        RuleException rule => rule.Refusals[0].Saying,
        ForbiddenException forbidden => forbidden.Saying,
        _ => Saying.Of(whenGone),
    };

    private async Task<SubmissionResponse> WithDetailsAsync(Submission submission, SubmissionResponse plain)
    {
        var found = await FindAsync(submission);
        if (found.Stored.IsRemoved)
            throw new NotFoundException("event");
        var names = found.NamesAndTables;
        if (submission.Kind != SubmissionKind.Change)
        {
            var after = submission.Kind == SubmissionKind.Event
                ? found.Event with { State = EventState.Live }
                : found.Event with { Placements = [.. found.Event.Placements.Append(submission.CalendarId)] };
            var before = submission.Kind == SubmissionKind.Event ? null : found.Event;
            return plain with
            {
                Version = found.Stored.Version,
                RecurrenceId = desk.Show(found, null).RecurrenceId,
                When = found.Words.Say(found.Event.Series),
                Differences = Told(found, submission, names),
                WhoSees = [.. WhoSees.Of(after, before, names, found.Words, desk.Now).Where(who => who.Audience != Audience.Editors)
                    .Select(WhoSeesBody.Of)],
            };
        }
        var request = Rebased(found, submission);
        var planned = await changes.PlanAsync(found, request, submission.ProposerId);
        var seen = EventDates.Find(found.Event, planned.Change.SeenFrom, found.School);
        var (placed, _) = found.Planner.PlacementsOf(found.Event, EventChanges.WhereOf(request));
        return plain with
        {
            Version = found.Stored.Version,
            Act = request.Act,
            RecurrenceId = request.RecurrenceId,
            Scope = planned.Change.Act == ChangeAct.Edit || found.Event.Series.Recurs ? planned.Scope : null,
            When = seen is { } date ? found.Words.Say(date.Timing) : found.Words.Say(found.Event.Series),
            Differences = EventChanges.DifferencesOf(found, planned.Change, request, placed),
        };
    }

    /// <summary>The event for who decides: of a placement they see all that they are asked to show, whatever else they see of it.</summary>
    private async Task<OnDesk> FindAsync(Submission submission)
    {
        if (submission.Kind != SubmissionKind.Placement)
            return await desk.FindAsync(submission.EventId);
        return await desk.FindAskedForAsync(submission);
    }

    /// <summary>What there is to be read of a new event, without the notes of its home.</summary>
    private static List<EventDifference> Told(
        OnDesk found, Submission submission, IReadOnlyDictionary<Guid, (string Name, Disclosure Disclosure)> calendars)
    {
        var told = EventDifference.Told(found.Event.Content.SeenBy(Detail.Complete), found.Words.Speech).ToList();
        if (submission.Kind == SubmissionKind.Placement && calendars.TryGetValue(submission.CalendarId, out var calendar))
            told.Add(new EventDifference("placements", "", calendar.Name));
        return told;
    }

    /// <summary>What was handed in, on the event as it is now: what others changed meanwhile stays, unless it was changed here
    /// too.</summary>
    private ChangeRequest Rebased(OnDesk found, Submission submission)
    {
        var request = submission.Request! with { Version = found.Stored.Version };
        return request.Event is { } typed
            ? request with { Event = Rebase.Onto(submission.Before!, typed, desk.FormOf(found, request.RecurrenceId)).Form }
            : request;
    }

    public async Task<ProposalResponse> ProposalAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var submission = await FindForDecisionAsync(viewer, id, orOwn: true);
        if (submission.Kind != SubmissionKind.Change)
            throw new NotFoundException("change");
        var found = await desk.FindForChangeAsync(submission.EventId);
        var request = Rebased(found, submission);
        return new ProposalResponse(id, request.RecurrenceId, request.Scope, request.Event);
    }

    /// <summary>Each by itself: what cannot be approved says why, and keeps none of the others from it.</summary>
    public async Task<IReadOnlyList<ApprovalOutcome>> ApproveAsync(IReadOnlyList<ApprovalItem> items)
    {
        var viewer = await access.ViewerAsync();
        if (items.Count is 0 or > Shown)
            throw new RuleException("items", "signOff.howMany", ("most", Shown));
        var outcomes = new List<ApprovalOutcome>();
        foreach (var item in items)
        {
            var submission = await FindForDecisionAsync(viewer, item.Id, orOwn: false);
            try
            {
                outcomes.Add(new ApprovalOutcome(item.Id, submission.Title, null, await ApproveAsync(viewer, submission, item.Version)));
            }
            catch (ChangedMeanwhileException)
            {
                outcomes.Add(new ApprovalOutcome(item.Id, submission.Title, Spoken.Now.Say("signOff.changedMeanwhile"), null));
            }
            catch (Exception refused) when (refused is RuleException or NotFoundException or ForbiddenException)
            {
                outcomes.Add(new ApprovalOutcome(item.Id, submission.Title, Spoken.Now.Say(Why(refused, "signOff.gone")), null));
            }
        }
        return outcomes;
    }

    private async Task<Guid?> ApproveAsync(Viewer viewer, Submission submission, int version)
    {
        var found = await FindAsync(submission);
        if (found.Stored.IsRemoved)
            throw new NotFoundException("event");
        if (found.Stored.Version != version || submission.State != SubmissionState.Open)
            throw new ChangedMeanwhileException();
        if (submission.Kind != SubmissionKind.Placement)
            Access.Require(found.MayEdit, ApproversOnly);
        var act = submission.Kind == SubmissionKind.Change
            ? ActPlanner.Approving(submission).And((await changes.PlanAsync(found, Rebased(found, submission), submission.ProposerId)).Act)
            : found.Planner.LettingOut(found.Stored, submission);
        return (await commits.CommitAsync(act))?.ActId;
    }

    public async Task SendBackAsync(Guid id, string? reason)
    {
        var viewer = await access.ViewerAsync();
        var submission = await FindForDecisionAsync(viewer, id, orOwn: false);
        var text = Texts.Lines("reason", "what.reason", reason, 1_000);
        if (text.Length == 0)
            throw new RuleException("reason", "signOff.reasonMissing");
        await HoldAsync(submission, SubmissionState.SentBack, text);
    }

    public async Task WithdrawAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        var submission = await FindForDecisionAsync(viewer, id, orOwn: true);
        Access.Require(submission.ProposerId == viewer.AccountId && viewer.SeesAs is null, "access.proposerWithdraws");
        await HoldAsync(submission, SubmissionState.Withdrawn);
    }

    private async Task HoldAsync(Submission submission, SubmissionState state, string reason = "")
    {
        var viewer = await access.ViewerAsync();
        var house = await access.HouseAsync();
        var before = submission.Kind == SubmissionKind.Event ? (await desk.FindAsync(submission.EventId)).Stored : null;
        await commits.CommitAsync(new ActPlanner(viewer, house.Calendars, house.School).Holding(before, submission, state, reason));
    }

    /// <exception cref="NotFoundException">There is none, or it is neither theirs to decide nor their own.</exception>
    /// <exception cref="ForbiddenException">It is their own, and not theirs to decide.</exception>
    private async Task<Submission> FindForDecisionAsync(Viewer viewer, Guid id, bool orOwn)
    {
        var submission = await submissions.FindAsync(viewer.OrganisationId, id) ?? throw new NotFoundException("submission");
        var isOwn = submission.ProposerId == viewer.AccountId;
        if (viewer.May(CalendarAction.Approve, submission.CalendarId) || (isOwn && orOwn))
            return submission;
        throw isOwn ? new ForbiddenException(Saying.Of(ApproversOnly)) : new NotFoundException("submission");
    }
}
