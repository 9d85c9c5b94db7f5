using NodaTime;
using Valtro.Application.Intake;
using Valtro.Application.Outside;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Application.Sources;

/// <summary>Asks followed sources when their time has come, and lands what they say; applies other rules to what they said last.</summary>
internal sealed class SourceWorker(
    SourceStore store, ForeignNames names, IntakeGrounds grounds, IOutside outside, Settings settings, IClock clock) : IWorker
{
    private static readonly Duration FirstWait = Duration.FromMinutes(5);

    private static readonly Duration LongestWait = Duration.FromHours(12);

    private static readonly Duration SoonAgain = Duration.FromSeconds(2);

    public WorkKind Kind => WorkKind.Follow;

    /// <summary>Each may wait for somebody else's server.</summary>
    public int AtOnce => 4;

    public Duration Claim => Duration.FromMinutes(5);

    /// <summary>What others fail at is no failure of ours: this is for what is.</summary>
    public Duration? WaitAfter(int failures) =>
        Duration.Min(Duration.FromHours(1), Duration.FromSeconds(Math.Pow(3, Math.Min(failures, 8))));

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        using var within = Wall.Within(work.OrganisationId!.Value);
        try
        {
            return await DoAsync(work.OrganisationId.Value, Guid.Parse(work.Key), stopping);
        }
        catch (ChangedMeanwhileException)
        {
            // Somebody saved its rules, or one of its events, at the same time: it is looked at anew.
            return clock.GetCurrentInstant() + SoonAgain;
        }
    }

    private async Task<Instant?> DoAsync(Guid organisationId, Guid id, CancellationToken stopping)
    {
        if (await store.FindAsync(organisationId, id) is not { } source)
            return null;
        if (!source.IsApplied && await store.ContentAsync(source.OrganisationId, id) is { } content)
        {
            await ApplyAsync(source, content);
            source = await store.FindAsync(organisationId, id);
        }
        if (source is not null && source.DueAt <= clock.GetCurrentInstant())
            await FetchAsync(source, stopping);
        return (await store.FindAsync(organisationId, id))?.DueAt;
    }

    /// <summary>Other rules, for what is known already.</summary>
    private async Task ApplyAsync(FollowedSource source, byte[] content)
    {
        try
        {
            var (_, plan) = await PlanAsync(source, content);
            await store.ApplyAsync(source, null, plan, clock.GetCurrentInstant(), source.DueAt);
        }
        catch (RuleException refused)
        {
            var now = clock.GetCurrentInstant();
            await store.FailedAsync(source, refused.Refusals[0].Saying, now, Instant.Max(source.DueAt, now + FirstWait));
        }
    }

    private async Task FetchAsync(FollowedSource source, CancellationToken stopping)
    {
        try
        {
            var access = SourceAccess.Open(settings.Sealing, source) ?? throw new RuleException("address", "source.cannotOpen");
            var answer = await outside.GetAsync(new OutsideQuestion(outside.Check(access.Address), SourceStore.Largest)
            {
                Secrets = new OutsideSecrets(access.User, access.Password, access.HeaderName, access.HeaderValue),
                ETag = source.ETag,
                LastModified = source.LastModified,
            }, stopping);
            await TakeAsync(source, answer);
        }
        catch (RuleException refused)
        {
            var now = clock.GetCurrentInstant();
            await store.FailedAsync(source, refused.Refusals[0].Saying, now, now + WaitAfterFailure(source.Failures));
        }
    }

    private async Task TakeAsync(FollowedSource source, OutsideAnswer answer)
    {
        var now = clock.GetCurrentInstant();
        var due = now + Spread(Duration.FromMinutes(source.EveryMinutes), 0.05);
        var fetched = answer.IsUnchanged ? null : new FetchedContent(answer.Content, answer.ETag, answer.LastModified);
        if (fetched is null && source.HeldBecause is not null || fetched is not null && await store.IsUnwantedAsync(source, fetched))
        {
            await store.StillHeldAsync(source, fetched, now, due);
            return;
        }
        var before = await store.ContentAsync(source.OrganisationId, source.Id);
        if (fetched is null || before is not null && before.AsSpan().SequenceEqual(fetched.Content))
        {
            await store.SameAsync(source, fetched, now, due);
            return;
        }
        var (entries, plan) = await PlanAsync(source, fetched.Content);
        var (was, _) = before is null ? ([], null) : await ReadAsync(source, before);
        if (SourcePlan.Holds(was, entries, now) is { } because)
            await store.HoldAsync(source, fetched, because, now, due);
        else
            await store.ApplyAsync(source, fetched, plan, now, due);
    }

    private async Task<(IReadOnlyList<SourceEntry> Entries, IntakeGround Ground)> ReadAsync(FollowedSource source, byte[] content)
    {
        var ground = await grounds.OfAsync(source.OrganisationId, source.AccountId, new IntakeAnswers())
            ?? throw new RuleException("account", "source.followerLeft");
        var choices = await store.ChoicesAsync(source.OrganisationId, source.Id);
        RequireRights(ground, source.Rules, choices);
        var reading = new SourceReading(ground, source.Rules, choices, source.Id);
        return (await Task.Run(() => reading.Read(content).Entries), ground);
    }

    private async Task<(IReadOnlyList<SourceEntry> Entries, SourcePlan Plan)> PlanAsync(FollowedSource source, byte[] content)
    {
        var (entries, ground) = await ReadAsync(source, content);
        var known = await names.OfSourceAsync(source.OrganisationId, source.Id);
        var planner = new ActPlanner(ground.Viewer, ground.House.Calendars, ground.House.School);
        return (entries, SourcePlan.Of(entries, known, planner, ground.House.School, clock.GetCurrentInstant()));
    }

    /// <summary>What would stand on a calendar that its follower may not fill any more stays as it is, until somebody who may says where it
    /// goes.</summary>
    private static void RequireRights(IntakeGround ground, SourceRules rules, IReadOnlyDictionary<string, Landing> choices)
    {
        foreach (var id in rules.Calendars().Concat(choices.Values.Select(one => one.CalendarId).OfType<Guid>()).Distinct())
        {
            if (!ground.House.Calendars.TryGetValue(id, out var calendar))
                throw new RuleException("calendarId", "source.calendarGone");
            if (!ground.Viewer.May(CalendarAction.Edit, id))
                throw new RuleException("calendarId", calendar.ArchivedAt is null ? "source.mayNotFill" : "source.calendarArchived",
                    ("name", calendar.Name));
        }
    }

    /// <summary>Later and later: five minutes, ten, twenty, up to half a day.</summary>
    internal static Duration WaitAfterFailure(int failures) =>
        Spread(Duration.Min(LongestWait, FirstWait * Math.Pow(2, Math.Min(failures, 12))), 0.2);

    /// <summary>What is asked at one time need not be asked at one time again.</summary>
    private static Duration Spread(Duration wait, double part) => wait * (1 - part + 2 * part * Random.Shared.NextDouble());
}
