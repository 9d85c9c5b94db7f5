using NodaTime;
using Npgsql;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store.Tests;

/// <summary>What is still to be done: that no wish is lost, and that nobody does it twice.</summary>
public sealed class WorkStoreTests : SchoolAndClub
{
    private static readonly Duration Minute = Duration.FromMinutes(1);

    private EditionSettingsStore Settings => new(_test.Database);

    private AuditLine Line => new(_ada, AuditAct.EditionMade, "x", null, Now);

    private Task<Calendar> CalendarAsync(string plate = "PW") => Calendars.AddAsync(
        _school, new CalendarSettings(plate, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);

    private static CalendarEvent Event(Guid calendar, string title = "Boat lab") => new(
        Guid.Empty, calendar, default,
        new EventContent(title,
            new Series(Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 0), Halifax)), "",
                RichText.Empty), EventState.Live, default);

    private async Task<Guid> AddAsync(Guid calendar, Instant? at = null) =>
        (await WriteAsync(_school, _ada, at ?? Now, [new EventWrite(Event(calendar), null, EventAct.Made)])).Events[0].Id;

    private Task<IReadOnlyList<Work>> ClaimAsync(Instant? now = null, WorkKind kind = WorkKind.Render) =>
        Work.ClaimAsync(kind, 100, now ?? Now, (now ?? Now) + Minute);

    private async Task DoAllAsync()
    {
        foreach (var work in await ClaimAsync())
            await Work.DoneAsync(work, null);
    }

    private async Task<(long Version, long NotBefore)> EditionAsync(Guid id) =>
        (await Editions.FindAsync(id)) is { } edition ? (edition.ContentVersion, edition.NotBefore) : default;

    [Fact]
    public async Task A_change_wishes_for_the_rendering_of_each_edition_that_draws_on_the_calendar_and_of_no_other()
    {
        var (port, other) = (await CalendarAsync(), await CalendarAsync("SW"));
        var families = await Settings.AddAsync(_school, new EditionDraft("Families", [new SourceDraft(port.Id)]), "Families", Now, Line);
        await DoAllAsync();
        Assert.Empty(await ClaimAsync());
        await AddAsync(port.Id);
        Assert.Equal(new[] { port.EditionId, families }.Order(), (await ClaimAsync()).Select(work => Guid.Parse(work.Key)).Order());
        await AddAsync(other.Id);
        Assert.Equal([other.EditionId.ToString()], (await ClaimAsync()).Select(work => work.Key));
    }

    [Fact]
    public async Task What_one_has_taken_nobody_else_gets_until_its_claim_runs_out()
    {
        await CalendarAsync();
        Assert.Single(await ClaimAsync());
        Assert.Empty(await ClaimAsync());
        Assert.Single(await ClaimAsync(Now + Minute));
    }

    [Fact]
    public async Task Many_who_claim_at_once_share_it()
    {
        foreach (var number in Enumerable.Range(0, 12))
            await CalendarAsync($"C{number}");
        var claimed = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => Work.ClaimAsync(WorkKind.Render, 3, Now, Now + Minute)));
        Assert.Equal(12, claimed.SelectMany(some => some).Select(work => work.Key).Distinct().Count());
        Assert.Equal(12, claimed.Sum(some => some.Count));
    }

    [Fact]
    public async Task A_wish_that_comes_while_it_is_done_is_not_lost()
    {
        var calendar = await CalendarAsync();
        var first = Assert.Single(await ClaimAsync());
        await AddAsync(calendar.Id);
        await Work.DoneAsync(first, null);
        var again = Assert.Single(await ClaimAsync());
        Assert.Equal(first.Wanted + 1, again.Wanted);
        await Work.DoneAsync(again, null);
        Assert.Empty(await ClaimAsync(Now + Duration.FromDays(1)));
    }

    /// <summary>Where somebody always wishes for it again, it is always done, and never late.</summary>
    [Fact]
    public async Task A_wish_that_comes_while_it_is_done_is_due_since_it_came()
    {
        var calendar = await CalendarAsync();
        await AddAsync(calendar.Id, Now + Minute);
        var first = Assert.Single(await ClaimAsync(Now + Minute));
        Assert.Equal(Now, first.DueAt);
        var later = Now + 5 * Minute;
        await AddAsync(calendar.Id, later);
        await Work.DoneAsync(first, null);
        Assert.Equal(later, Assert.Single(await ClaimAsync(later)).DueAt);
    }

    [Fact]
    public async Task A_wish_that_comes_while_it_fails_is_tried_at_once_and_not_set_aside()
    {
        var calendar = await CalendarAsync();
        var first = Assert.Single(await ClaimAsync());
        await AddAsync(calendar.Id);
        await Work.FailedAsync(first, FailureReason.Ours, "broken", Now, null);
        Assert.Equal(1, Assert.Single(await ClaimAsync()).Tries);
    }

    [Fact]
    public async Task What_is_due_again_by_itself_waits_until_then_or_until_something_changes()
    {
        Assert.Null(await Work.NextDueAsync(WorkKind.Render));
        var calendar = await CalendarAsync();
        Assert.Equal(Now, await Work.NextDueAsync(WorkKind.Render));
        await Work.DoneAsync(Assert.Single(await ClaimAsync()), Now + Duration.FromHours(1));
        Assert.Empty(await ClaimAsync(Now + Minute));
        Assert.Equal(Now + Duration.FromHours(1), await Work.NextDueAsync(WorkKind.Render));
        await AddAsync(calendar.Id, Now + Minute);
        await Work.DoneAsync(Assert.Single(await ClaimAsync(Now + Minute)), Now + Duration.FromHours(1));
        Assert.Single(await ClaimAsync(Now + Duration.FromHours(1)));
    }

    [Fact]
    public async Task What_fails_is_tried_later_set_aside_told_and_revived_by_the_next_change()
    {
        var calendar = await CalendarAsync();
        await Work.FailedAsync(Assert.Single(await ClaimAsync()), FailureReason.Ours, "no such column", Now, Now + Minute);
        Assert.Empty(await ClaimAsync());
        var later = Now + Minute;
        await Work.FailedAsync(Assert.Single(await ClaimAsync(later)), FailureReason.Disk, "no room", later, null);
        Assert.Empty(await ClaimAsync(Now + Duration.FromDays(9)));
        Assert.Equal(
            new FailingWork(WorkKind.Render, calendar.EditionId.ToString(), _school, Now, FailureReason.Disk, "no room", 2, true, null),
            Assert.Single(await Work.FailingAsync(_school)));
        Assert.Empty(await Work.FailingAsync(_club));
        var state = (await Editions.StatesAsync(_school))[calendar.EditionId];
        Assert.Equal((false, Now, FailureReason.Disk, true), (state.IsCurrent, state.FailedSince, state.Reason, state.IsSetAside));

        await AddAsync(calendar.Id, later);
        await Work.DoneAsync(Assert.Single(await ClaimAsync(later)), null);
        Assert.Empty(await Work.FailingAsync(null));
    }

    [Fact]
    public async Task What_is_set_aside_can_be_asked_for_by_those_it_concerns_and_by_nobody_else()
    {
        var calendar = await CalendarAsync();
        await Work.FailedAsync(Assert.Single(await ClaimAsync()), FailureReason.Ours, "broken", Now, null);
        await Assert.ThrowsAsync<NotFoundException>(() => Work.TryAgainAsync(_club, WorkKind.Render, calendar.EditionId.ToString(), Now));
        await Work.TryAgainAsync(_school, WorkKind.Render, calendar.EditionId.ToString(), Now);
        Assert.Single(await ClaimAsync());
        Assert.Equal(Now, Assert.Single(await Work.FailingAsync(_school)).Since);
    }

    [Fact]
    public async Task It_is_counted_by_kind()
    {
        await CalendarAsync();
        await CalendarAsync("SW");
        await Work.FailedAsync((await ClaimAsync())[0], FailureReason.Ours, "broken", Now, null);
        await Work.PlanAsync(WorkKind.Sweep, "hourly", Now + Minute);
        await Work.PlanAsync(WorkKind.Sweep, "hourly", Now);
        Assert.Equal(
            [new WorkCount(WorkKind.Render, 1, 1, 1, Now), new WorkCount(WorkKind.Sweep, 0, 0, 0, null),
                new WorkCount(WorkKind.Prove, 0, 0, 0, null)],
            (await Work.CountAsync(Now)).OrderBy(count => count.Kind));
    }

    [Fact]
    public async Task Announcements_say_which_version_an_edition_has_and_from_which_on_it_may_be_shown()
    {
        var calendar = await CalendarAsync();
        await using var listener = await _test.Database.ListenAsync(default);
        var heard = new List<string>();
        listener.Notification += (_, announcement) => heard.Add(announcement.Payload);
        await Calendars.SaveAsync(_school, calendar.Id, 1,
            new CalendarSettings("PW", Plate.Parse("PW"), Hue.Named("harbour"), Halifax, "", Disclosure.Closed, []), Now);
        while (heard.Count == 0)
            Assert.True(await listener.WaitAsync(TimeSpan.FromSeconds(10)));
        Assert.Equal([$"changed {calendar.EditionId} {calendar.ContentVersion + 1} {calendar.ContentVersion + 1}"], heard);
    }

    [Fact]
    public async Task What_takes_nothing_away_leaves_what_was_rendered_good_enough()
    {
        var calendar = await CalendarAsync();
        var id = await AddAsync(calendar.Id);
        var stored = (await Events.FindAsync(_school, id))!;
        await WriteAsync([new EventWrite(stored.Event, 1, EventAct.Changed) { TakesAway = false }]);
        var (version, notBefore) = await EditionAsync(calendar.EditionId);
        Assert.Equal((calendar.ContentVersion + 2, 0), (version, notBefore));
        Assert.True(new Artefact(calendar.EditionId, _school, Audience.Everyone, "feed", version - 1, "e", [], Now, null)
            .MayBeShown(notBefore, Now));
    }

    [Fact]
    public async Task What_takes_something_away_ends_what_was_rendered_of_every_edition_that_showed_it()
    {
        var (port, starboard) = (await CalendarAsync(), await CalendarAsync("SW"));
        var families = await Settings.AddAsync(
            _school, new EditionDraft("Families", [new SourceDraft(port.Id), new SourceDraft(starboard.Id)]), "Families", Now, Line);
        await Calendars.RemoveAsync(_school, port.Id, Now, Line);
        var (version, notBefore) = await EditionAsync(families);
        Assert.Equal(version, notBefore);
        Assert.False(new Artefact(families, _school, Audience.Everyone, "feed", version - 1, "e", [], Now, null)
            .MayBeShown(notBefore, Now));
        Assert.Equal(0, (await EditionAsync(starboard.EditionId)).NotBefore);
    }

    [Fact]
    public async Task An_edition_that_loses_a_source_takes_away_and_one_that_is_only_painted_anew_does_not()
    {
        var (port, starboard) = (await CalendarAsync(), await CalendarAsync("SW"));
        var draft = new EditionDraft("Families", [new SourceDraft(port.Id), new SourceDraft(starboard.Id)]);
        var id = await Settings.AddAsync(_school, draft, "Families", Now, Line);
        await Settings.SaveAsync(_school, (await Settings.FindAsync(_school, id))!, 1,
            draft with { Look = new LookDraft(EditionView.List) }, "Families", Now, Line);
        Assert.Equal(0, (await EditionAsync(id)).NotBefore);
        await Settings.SaveAsync(_school, (await Settings.FindAsync(_school, id))!, 2, draft with { Sources = [new SourceDraft(port.Id)] },
            "Families", Now, Line);
        Assert.Equal(await EditionAsync(id), ((await EditionAsync(id)).NotBefore, (await EditionAsync(id)).NotBefore));
    }

    [Fact]
    public async Task Versions_of_a_shared_edition_rise_one_after_the_other_whoever_changes_its_calendars()
    {
        var calendars = new[] { await CalendarAsync("C1"), await CalendarAsync("C2"), await CalendarAsync("C3") };
        var shared = await Settings.AddAsync(
            _school, new EditionDraft("All", [.. calendars.Select(one => new SourceDraft(one.Id))]), "All", Now, Line);
        var before = (await EditionAsync(shared)).Version;
        await Task.WhenAll(Enumerable.Range(0, 30).Select(number => AddAsync(calendars[number % 3].Id)));
        Assert.Equal(before + 30, (await EditionAsync(shared)).Version);
    }

    [Fact]
    public async Task A_transaction_that_another_stands_in_the_way_of_is_done_again()
    {
        var tries = 0;
        var done = await _test.Database.InTransactionAsync(_ => ++tries < 3
            ? throw new PostgresException("deadlock detected", "ERROR", "ERROR", PostgresErrorCodes.DeadlockDetected)
            : Task.FromResult(true));
        Assert.True(done);
        Assert.Equal(3, tries);
    }
}
