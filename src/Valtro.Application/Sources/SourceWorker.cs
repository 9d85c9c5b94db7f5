using NodaTime;
using Valtro.Application.Intake;
using Valtro.Application.Outside;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Intake;
using Valtro.Store;

namespace Valtro.Application.Sources;

/// <summary>Asks followed sources when their time has come, and lands what they say; applies other rules to what they said last.</summary>
internal sealed class SourceWorker(
    SourceStore store, FetchStore fetches, ForeignNames names, IntakeGrounds grounds, IOutside outside, Settings settings, IClock clock)
    : IWorker
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
            var (reading, ground) = await ReaderAsync(source);
            var entries = await Task.Run(() => reading.Read(content).Entries);
            await fetches.ApplyAsync(source, null, await PlanAsync(source, entries, ground), clock.GetCurrentInstant(), source.DueAt);
        }
        catch (RuleException refused)
        {
            var now = clock.GetCurrentInstant();
            await fetches.FailedAsync(source, refused.Refusals[0].Saying, now, Instant.Max(source.DueAt, now + FirstWait));
        }
    }

    private async Task FetchAsync(FollowedSource source, CancellationToken stopping)
    {
        try
        {
            var access = OutsideAccess.Open(settings.Sealing, source.Access, source.Id)
                ?? throw new RuleException("address", "source.cannotOpen");
            var answer = await outside.GetAsync(new OutsideQuestion(outside.Check(access.Address), SourceStore.Largest)
            {
                Secrets = OutsideSecrets.Of(access),
                ETag = source.ETag,
                LastModified = source.LastModified,
            }, stopping);
            await TakeAsync(source, answer);
        }
        catch (RuleException refused)
        {
            var now = clock.GetCurrentInstant();
            await fetches.FailedAsync(source, refused.Refusals[0].Saying, now, now + WaitAfterFailure(source.Failures));
        }
    }

    private async Task TakeAsync(FollowedSource source, OutsideAnswer answer)
    {
        var now = clock.GetCurrentInstant();
        var due = now + Spread(Duration.FromMinutes(source.EveryMinutes), 0.05);
        var fetched = answer.IsUnchanged ? null : new FetchedContent(answer.Content, answer.ETag, answer.LastModified);
        if (fetched is null && source.Held is not null || fetched is not null && await fetches.IsUnwantedAsync(source, fetched))
        {
            await fetches.StillHeldAsync(source, fetched, now, due);
            return;
        }
        var before = await store.ContentAsync(source.OrganisationId, source.Id);
        if (fetched is null || before is not null && before.AsSpan().SequenceEqual(fetched.Content))
        {
            await fetches.SameAsync(source, fetched, now, due);
            return;
        }
        var reader = await ReaderAsync(source);
        var entries = await Task.Run(() => reader.Reading.Read(fetched.Content).Entries);
        var was = before is null ? [] : await Task.Run(() => reader.Reading.Read(before).Entries);
        if (SourcePlan.Holds(was, entries, now) is { } why)
            await fetches.HoldAsync(source, fetched, why, now, due);
        else
            await fetches.ApplyAsync(source, fetched, await PlanAsync(source, entries, reader.Ground), now, due);
    }

    /// <summary>By whose rights it is read, and by which rules.</summary>
    /// <exception cref="RuleException">What would stand on a calendar that its follower may not fill any more stays as it is, until somebody
    /// who may says where it goes.</exception>
    private async Task<(SourceReading Reading, IntakeGround Ground)> ReaderAsync(FollowedSource source)
    {
        var ground = await grounds.OfAsync(source.OrganisationId, source.AccountId, new IntakeAnswers(), IntakeForm.Calendar)
            ?? throw new RuleException("account", "source.followerLeft");
        var choices = await store.ChoicesAsync(source.OrganisationId, source.Id);
        foreach (var id in source.Rules.Calendars().Concat(choices.Values.Select(one => one.CalendarId).OfType<Guid>()).Distinct())
            SourceReading.RequireFillable(id, "calendarId", ground.House, ground.Viewer, source.OwnCalendar);
        return (new SourceReading(ground, source.Rules, choices, source.Id), ground);
    }

    private async Task<SourcePlan> PlanAsync(FollowedSource source, IReadOnlyList<SourceEntry> entries, IntakeGround ground)
    {
        var known = await names.OfSourceAsync(source.OrganisationId, source.Id);
        var planner = new ActPlanner(ground.Viewer, ground.House.Calendars, ground.House.School);
        return SourcePlan.Of(entries, known, planner, ground.House.School, clock.GetCurrentInstant());
    }

    /// <summary>Later and later: five minutes, ten, twenty, up to half a day.</summary>
    internal static Duration WaitAfterFailure(int failures) =>
        Spread(Duration.Min(LongestWait, FirstWait * Math.Pow(2, Math.Min(failures, 12))), 0.2);

    /// <summary>What is asked at one time need not be asked at one time again.</summary>
    private static Duration Spread(Duration wait, double part) => wait * (1 - part + 2 * part * Random.Shared.NextDouble());
}
