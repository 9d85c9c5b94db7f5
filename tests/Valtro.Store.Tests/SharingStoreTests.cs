using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.SignOff;
using Valtro.Core.Speaking;
using Valtro.Core.Time;

namespace Valtro.Store.Tests;

/// <summary>Placements, levels, people, links, sign-off, the life of calendars, and the second wall, on a real PostgreSQL.</summary>
public sealed class SharingStoreTests : SchoolAndClub
{
    private readonly Guid _clubAccount = Guid.CreateVersion7();

    private SecretLinkStore Links => new(_test.Database);

    private SubmissionStore Submissions => new(_test.Database);

    private InvitationStore Invitations => new(_test.Database);

    private AuditLine Line => new(_ada, AuditAct.Opened, "Something", null, Now);

    public override async Task InitializeAsync()
    {
        await base.InitializeAsync();
        await Accounts.AddMemberAsync(_school, _ada, isAdministrator: true);
        await PersonAsync(_clubAccount, "keeper@club.example", _club, isAdministrator: true);
    }

    private async Task PersonAsync(Guid id, string email, Guid organisation, bool isAdministrator)
    {
        await AddAccountAsync(id, email, email);
        await Accounts.AddMemberAsync(organisation, id, isAdministrator);
    }

    private Task<Calendar> CalendarAsync(string plate, Disclosure? disclosure = null, Guid? organisation = null) => Calendars.AddAsync(
        organisation ?? _school,
            new CalendarSettings(plate, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", disclosure ?? Disclosure.Open, []), Now);

    private static EventContent Content(string title = "Boat lab") =>
        new(title, new Series(Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 0), Halifax)),
            "Slipway", new RichText("<p>Hello</p>", "Hello"));

    private async Task<StoredEvent> AddAsync(Guid calendar, Guid[]? placements = null, EventContent? content = null,
        EventState state = EventState.Live, Guid? organisation = null, Guid? account = null)
    {
        var made =
            new CalendarEvent(Guid.Empty, calendar, default, content ?? Content(), state, default) { Placements = placements ?? [] };
        var done = await WriteAsync(organisation ?? _school, account ?? _ada, Now, [new EventWrite(made, null, EventAct.Made)]);
        return (await Events.FindAsync(organisation ?? _school, done.Events[0].Id))!;
    }

    private async Task<StoredEvent> SaveAsync(StoredEvent stored, Func<CalendarEvent, CalendarEvent> change)
    {
        await WriteAsync(
            _school, _ada, Now + Duration.FromHours(1), [new EventWrite(change(stored.Event), stored.Version, EventAct.Changed)]);
        return (await Events.FindAsync(_school, stored.Event.Id))!;
    }

    private Task HandInAsync(params NewSubmission[] added) => Acts.CommitAsync(_school, _ada, Now, new Act { HandsIn = added });

    private Task DecideAsync(Verdict verdict) => Acts.CommitAsync(_school, _ada, Now, new Act { Decides = [verdict] });

    [Fact]
    public async Task All_that_is_said_of_an_event_is_kept_and_a_revision_has_it_too()
    {
        var (home, other) = (await CalendarAsync("PW"), await CalendarAsync("SW"));
        var content = Content() with
        {
            Links = [new EventLink("Sign up", "https://pinewick.example/")],
            Files = [await new FileStore(_test.Database).AddAsync(_school, "poster.pdf", "application/pdf", [1, 2, 3], _ada, Now)],
            Contact = "Office",
            Notes = "Two\nlines",
            Cap = new Cap(Detail.Complete, null, Detail.Times),
            Showing = new ShowingSpan(new LocalDate(2026, 11, 1), null),
        };
        var stored = await AddAsync(home.Id, [other.Id], content);
        Assert.Equal(content with { Series = stored.Event.Series }, stored.Event.Content);
        Assert.Equal([other.Id], stored.Event.Placements);
        Assert.Equal(_ada, stored.MadeBy);
        var changed = await SaveAsync(stored, calendarEvent => calendarEvent with { Content = Content("Bare"), Placements = [] });
        Assert.True(changed.Event.Content.Cap.IsNone);
        var revisions = new RevisionStore(
            _test.Database, Events, new FileStore(_test.Database));
        var first = (await revisions.FindAsync(_school, changed.Event, 1))!.Event;
        Assert.Equal((content.Links[0], content.Files[0], "Office", content.Notes, content.Cap, content.Showing),
            (first.Content.Links[0], first.Content.Files[0], first.Content.Contact, first.Content.Notes, first.Content.Cap,
                first.Content.Showing));
        Assert.Equal([other.Id], first.Placements);
    }

    [Fact]
    public async Task An_event_is_found_on_each_of_its_calendars_and_each_has_a_new_version()
    {
        var (home, other, third) = (await CalendarAsync("PW"), await CalendarAsync("SW"), await CalendarAsync("CREW"));
        var stored = await AddAsync(home.Id, [other.Id]);
        foreach (var calendar in new[] { home, other })
        {
            Assert.Single(await Events.OfCalendarAsync(_school, calendar.Id));
            Assert.Single(
                await Events.InWindowAsync(
                    _school, [calendar.Id], new Window(new LocalDate(2026, 11, 23), new LocalDate(2026, 11, 30), Halifax)));
            Assert.True((await Calendars.FindAsync(_school, calendar.Id))!.ContentVersion > calendar.ContentVersion);
        }
        Assert.Equal(1, (await Events.CountsAsync(_school))[other.Id]);
        var before = (await Calendars.FindAsync(_school, other.Id))!.ContentVersion;
        await SaveAsync(stored, calendarEvent => calendarEvent with { Placements = [third.Id] });
        Assert.Empty(await Events.OfCalendarAsync(_school, other.Id));
        Assert.Single(await Events.OfCalendarAsync(_school, third.Id));
        Assert.True((await Calendars.FindAsync(_school, other.Id))!.ContentVersion > before);
    }

    [Fact]
    public async Task A_placement_on_a_calendar_of_another_organisation_is_refused_and_nothing_is_written()
    {
        var (home, foreign) = (await CalendarAsync("PW"), await CalendarAsync("XX", organisation: _club));
        await Assert.ThrowsAsync<NotFoundException>(() => AddAsync(home.Id, [foreign.Id]));
        Assert.Empty(await Events.OfCalendarAsync(_school, home.Id));
    }

    [Fact]
    public async Task The_database_itself_refuses_a_cap_that_is_not_monotone()
    {
        var stored = await AddAsync((await CalendarAsync("PW")).Id);
        var refused = await Assert.ThrowsAsync<PostgresException>(
            () => _test.Database.ExecuteAsync(
                "update event set cap_link = 'times', cap_everyone = 'headline' where id = @Id", new { stored.Event.Id }));
        Assert.Equal("cap_is_monotone", refused.ConstraintName);
    }

    [Fact]
    public async Task A_link_is_made_replaced_and_withdrawn_and_each_former_one_says_why_it_ended()
    {
        var calendar = await CalendarAsync("PW", new Disclosure(Detail.Complete, Detail.Complete, Detail.Nothing));
        var first = await Links.MakeAsync(
            _school, calendar.EditionId, Now, isReplaced => Line with { Act = isReplaced ? AuditAct.LinkReplaced : AuditAct.LinkMade });
        Assert.Matches("^[A-Za-z0-9_-]{32}$", first.Secret);
        Assert.Equal(Audience.Link, (await Editions.FindSecretAsync(first.Secret)).Address!.Audience);
        Assert.True((await Calendars.FindAsync(_school, calendar.Id))!.HasSecretLink);
        var second = await Links.MakeAsync(
            _school, calendar.EditionId, Now, isReplaced => Line with { Act = isReplaced ? AuditAct.LinkReplaced : AuditAct.LinkMade });
        Assert.Equal("replaced", (await Editions.FindSecretAsync(first.Secret)).Ended);
        await Links.WithdrawAsync(_school, calendar.EditionId, Now, Line);
        Assert.Equal("withdrawn", (await Editions.FindSecretAsync(second.Secret)).Ended);
        Assert.Equal(EditionFound.Nothing, await Editions.FindSecretAsync(Secrets.Make()));
        await Assert.ThrowsAsync<NotFoundException>(() => Links.WithdrawAsync(_school, calendar.EditionId, Now, Line));
        Assert.DoesNotContain(first.Secret, string.Join(' ', await _test.Database.ListAsync<string>("select s::text from secret_link s")),
            StringComparison.Ordinal);
        Assert.Equal([AuditAct.Opened, AuditAct.LinkReplaced, AuditAct.LinkMade],
            (await new AuditStore(_test.Database).ListAsync(_school, null, null)).Select(line => line.Act));
    }

    [Fact]
    public async Task Archiving_keeps_addresses_and_removing_takes_them_away_until_it_is_restored()
    {
        var calendar = await CalendarAsync("PW");
        await Calendars.ArchiveAsync(_school, calendar.Id, isArchived: true, Now, Line);
        Assert.NotNull((await Calendars.FindAsync(_school, calendar.Id))!.ArchivedAt);
        Assert.NotNull((await Editions.FindAsync("pinewick", calendar.Slug)).Address);
        await Calendars.RemoveAsync(_school, calendar.Id, Now, Line);
        Assert.Null(await Calendars.FindAsync(_school, calendar.Id));
        Assert.Null((await Editions.FindAsync("pinewick", calendar.Slug)).Address);
        await CalendarAsync("PW");
        Assert.Equal("plate",
            (await Assert.ThrowsAsync<RuleException>(() => Calendars.RestoreAsync(_school, calendar.Id, Now, Line))).Refusals[0].Field);
        await _test.Database.ExecuteAsync("update calendar set plate = 'PX' where id <> @Id", new { calendar.Id });
        await Calendars.RestoreAsync(_school, calendar.Id, Now, Line);
        Assert.NotNull((await Editions.FindAsync("pinewick", calendar.Slug)).Address);
    }

    [Fact]
    public async Task Merging_keeps_identities_and_placements_leads_addresses_on_and_is_undone_as_one()
    {
        var (from, into, third) = (await CalendarAsync("OLD"), await CalendarAsync("NEW"), await CalendarAsync("SCH"));
        var own = await AddAsync(from.Id, [into.Id, third.Id], Content("Own"));
        var placed = await AddAsync(third.Id, [from.Id], Content("Placed"));
        var act = await Calendars.MergeAsync(_school, from.Id, into.Id, _ada, Now,
            ActPlanner.Moving(await Events.StandingOnAsync(_school, from.Id), from.Id, into.Id), Line);
        var (ownAfter, placedAfter) =
            ((await Events.FindAsync(_school, own.Event.Id))!, (await Events.FindAsync(_school, placed.Event.Id))!);
        Assert.Equal((into.Id, own.Event.Uid), (ownAfter.Event.HomeCalendarId, ownAfter.Event.Uid));
        Assert.Equal([third.Id], ownAfter.Event.Placements);
        Assert.Equal([into.Id], placedAfter.Event.Placements);
        Assert.Equal(into.Slug, (await Editions.FindAsync("pinewick", from.Slug)).MovedTo);

        await UndoAsync(act);
        Assert.Null((await Calendars.FindAsync(_school, from.Id))!.RemovedAt);
        ownAfter = (await Events.FindAsync(_school, own.Event.Id))!;
        Assert.Equal(from.Id, ownAfter.Event.HomeCalendarId);
        Assert.Equal(new[] { into.Id, third.Id }.Order(), ownAfter.Event.Placements.Order());
        Assert.Equal([from.Id], (await Events.FindAsync(_school, placed.Event.Id))!.Event.Placements);
    }

    [Fact]
    public async Task A_calendar_that_rested_long_enough_goes_with_all_that_is_its_own()
    {
        var (calendar, other) = (await CalendarAsync("PW"), await CalendarAsync("SW"));
        var stored = await AddAsync(calendar.Id, [other.Id]);
        await Links.MakeAsync(_school, calendar.EditionId, Now, _ => Line);
        await HandInAsync(new NewSubmission(SubmissionKind.Placement, stored.Event.Id, other.Id, "Boat lab"));
        await Calendars.RemoveAsync(_school, calendar.Id, Now, Line);
        await Calendars.EmptyBinAsync(Now);
        Assert.NotNull(await Calendars.FindAnyAsync(_school, calendar.Id));
        await Calendars.EmptyBinAsync(Now + Duration.FromDays(1));
        Assert.Null(await Calendars.FindAnyAsync(_school, calendar.Id));
        Assert.Null(await Events.FindAsync(_school, stored.Event.Id));
        Assert.Empty((await Submissions.OpenAndOwnAsync(_school, [other.Id], _ada)).Open);
    }

    [Fact]
    public async Task A_group_holds_calendars_of_its_organisation_once_and_its_name_is_its_own()
    {
        var groups = new GroupStore(_test.Database);
        var (one, two, foreign) = (await CalendarAsync("PW"), await CalendarAsync("SW"), await CalendarAsync("XX", organisation: _club));
        var (id, version) = await groups.SaveAsync(_school, null, null, "Juniors", [one.Id, two.Id, one.Id]);
        Assert.Equal("name",
            (await Assert.ThrowsAsync<RuleException>(() => groups.SaveAsync(_school, null, null, "JUNIORS", []))).Refusals[0].Field);
        await Assert.ThrowsAsync<NotFoundException>(() => groups.SaveAsync(_school, id, version, "Juniors", [foreign.Id]));
        await Calendars.RemoveAsync(_school, two.Id, Now, Line);
        Assert.Equal([one.Id], Assert.Single(await groups.ListAsync(_school)).Calendars);
        Assert.Equal((id, version + 1), await groups.SaveAsync(_school, id, version, "Both watches", [one.Id]));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => groups.SaveAsync(_school, id, version, "Late", [one.Id]));
        await groups.RemoveAsync(_school, id);
        await Assert.ThrowsAsync<NotFoundException>(() => groups.RemoveAsync(_school, id));
    }

    [Fact]
    public async Task At_least_one_administrator_always_remains_even_when_two_leave_at_once()
    {
        var bo = Guid.CreateVersion7();
        await PersonAsync(bo, "bo@pinewick.example", _school, isAdministrator: true);
        var none = new Dictionary<Guid, CalendarRole>();
        var attempts = await Task.WhenAll(new[] { _ada, bo }.Select(async person =>
        {
            try
            {
                return await Accounts.SetRolesAsync(_school, person, 1, false, none, Line) > 0;
            }
            catch (RuleException refused)
            {
                Assert.Equal("isAdministrator", refused.Refusals[0].Field);
                return false;
            }
        }));
        Assert.Single(attempts, done => done);
        var last = (await Accounts.MembersAsync(_school)).Single(member => member.IsAdministrator).AccountId;
        await Assert.ThrowsAsync<RuleException>(() => Accounts.RemoveMemberAsync(_school, last, Now, Line));
        Assert.Single(await Accounts.MembershipsAsync(last));
    }

    [Fact]
    public async Task Of_eight_who_change_a_member_s_roles_at_once_one_does()
    {
        var (bo, calendar) = (Guid.CreateVersion7(), await CalendarAsync("PW"));
        await PersonAsync(bo, "bo@pinewick.example", _school, isAdministrator: false);
        var outcomes = await Task.WhenAll(Enumerable.Range(0, 8).Select(async number =>
        {
            try
            {
                return await Accounts.SetRolesAsync(
                    _school, bo, 1, false, new Dictionary<Guid, CalendarRole> { [calendar.Id] = (CalendarRole)(number % 3) }, Line);
            }
            catch (ChangedMeanwhileException)
            {
                return 0;
            }
        }));
        Assert.Equal([2], outcomes.Where(version => version > 0));
    }

    [Fact]
    public async Task Who_is_removed_is_out_and_what_they_wrote_keeps_their_name()
    {
        var bo = Guid.CreateVersion7();
        await PersonAsync(bo, "bo@pinewick.example", _school, isAdministrator: false);
        var calendar = await CalendarAsync("PW");
        await Accounts.GiveRoleAsync(_school, calendar.Id, bo, CalendarRole.Editor);
        var stored = await AddAsync(calendar.Id, account: bo);
        await Accounts.RemoveMemberAsync(_school, bo, Now, Line);
        Assert.Empty(await Accounts.MembershipsAsync(bo));
        Assert.NotEqual("stamp", (await Accounts.FindAsync(bo))!.SecurityStamp);
        using var within = Wall.Within(_school);
        Assert.Equal("bo@pinewick.example",
            (await new EventStore(Database.Walled(_test.ConnectionString)).FindAsync(_school, stored.Event.Id))!.SavedBy);
    }

    private async Task<string> InviteAsync(string email = "new@pinewick.example", IReadOnlyDictionary<Guid, CalendarRole>? roles = null)
    {
        var secret = Secrets.Make();
        await Invitations.AddAsync(_school, email, email.ToUpperInvariant(), false, roles ?? new Dictionary<Guid, CalendarRole>(), secret,
            _ada, Now, new MailLetter(email, "Come", $"With {secret}"), Line);
        return secret;
    }

    private static Account Newcomer(string email = "new@pinewick.example") =>
        new() { Email = email, NormalizedEmail = email.ToUpperInvariant(), Name = "New", PasswordHash = "hash", SecurityStamp = "fresh" };

    [Fact]
    public async Task An_invitation_works_once_also_for_two_who_are_quick()
    {
        var calendar = await CalendarAsync("PW");
        var secret = await InviteAsync(roles: new Dictionary<Guid, CalendarRole> { [calendar.Id] = CalendarRole.Contributor });
        var invitation = (await Invitations.FindAsync(secret, Now))!;
        var outcomes = await Task.WhenAll(Enumerable.Range(0, 2).Select(async _ =>
        {
            try
            {
                return await Invitations.AcceptAsync(invitation, Newcomer(), Now);
            }
            catch (NotFoundException)
            {
                return Guid.Empty;
            }
        }));
        var made = Assert.Single(outcomes, id => id != Guid.Empty);
        Assert.Equal(CalendarRole.Contributor, Assert.Single(await Accounts.MembershipsAsync(made)).Viewer.Roles[calendar.Id]);
        Assert.Null(await Invitations.FindAsync(secret, Now));
    }

    [Fact]
    public async Task A_withdrawn_a_renewed_and_an_old_invitation_open_nothing()
    {
        var secret = await InviteAsync();
        Assert.Null(await Invitations.FindAsync(secret, Now + Duration.FromDays(15)));
        var invitation = (await Invitations.FindAsync(secret, Now))!;
        await Invitations.RenewAsync(_school, invitation.Id, Secrets.Make(), Now, email => new MailLetter(email, "Again", ""));
        Assert.Null(await Invitations.FindAsync(secret, Now));
        await Invitations.WithdrawAsync(_school, invitation.Id, Now, email => Line with { Subject = email });
        await Assert.ThrowsAsync<NotFoundException>(() => Invitations.AcceptAsync(invitation, Newcomer(), Now));
        await Assert.ThrowsAsync<NotFoundException>(() => Invitations.WithdrawAsync(_school, invitation.Id, Now, _ => Line));
    }

    [Fact]
    public async Task An_address_is_invited_once_a_member_is_not_invited_and_one_of_elsewhere_cannot_be_taken_over()
    {
        await InviteAsync();
        await Assert.ThrowsAsync<RuleException>(() => InviteAsync());
        await Assert.ThrowsAsync<RuleException>(() => InviteAsync("ada@pinewick.example"));
        var secret = await InviteAsync("keeper@club.example");
        var invitation = (await Invitations.FindAsync(secret, Now))!;
        Assert.True(invitation.IsKnown);
        // Not with a name and a password of somebody else's making.
        await Assert.ThrowsAsync<NotFoundException>(() => Invitations.AcceptAsync(invitation, Newcomer("keeper@club.example"), Now));
        Assert.NotNull(await Invitations.FindAsync(secret, Now));
        Assert.Equal(_clubAccount, await Invitations.AcceptAsync(invitation, (await Accounts.FindAsync(_clubAccount))!, Now));
        Assert.Null((await Accounts.FindAsync(_clubAccount))!.PasswordHash);
        Assert.Equal(["club", "pinewick"], (await Accounts.MembershipsAsync(_clubAccount)).Select(one => one.Slug).Order());
    }

    [Fact]
    public async Task News_are_gathered_into_one_mail_a_person_and_secrets_leave_with_the_mail()
    {
        var mails = new MailStore(_test.Database);
        await Acts.CommitAsync(
            _school, _ada, Now, Act.Nothing, [new Notice(_ada, Plain("First"), "/a"), new Notice(_ada, Plain("Second"), "/b")]);
        await Acts.CommitAsync(
            _club, _clubAccount, Now + Duration.FromSeconds(50), Act.Nothing, [new Notice(_clubAccount, Plain("Later"), "/c")]);
        static MailLetter Write(Gathered gathered) =>
            new(gathered.Recipient, "News", string.Join('|', gathered.News.Select(news => news.Saying.Values[0].Value)));
        static Saying Plain(string text) => Saying.Of("text.plain", ("text", text));
        var wait = Duration.FromSeconds(60);
        Assert.Equal(Now + wait, await mails.GatherAsync(_school, _ada, wait, Now, Write));
        Assert.Empty(await Work.ClaimAsync(WorkKind.Mail, 9, Now, Now + wait));
        Assert.Null(await mails.GatherAsync(_school, _ada, wait, Now + wait, Write));
        Assert.Null(await mails.GatherAsync(_school, _ada, wait, Now + wait, Write));
        var toSend = Guid.Parse(Assert.Single(await Work.ClaimAsync(WorkKind.Mail, 9, Now + wait, Now + wait + wait)).Key);
        Assert.Equal(new MailLetter("ada@pinewick.example", "News", "First|Second"), await mails.FindAsync(toSend));
        await mails.SentAsync(toSend, Now + wait);
        Assert.Null(await mails.FindAsync(toSend));
        Assert.Equal(["", "News"], await _test.Database.ListAsync<string>("select body from mail union all select subject from mail"));
    }

    [Fact]
    public async Task What_is_decided_once_is_decided_and_a_lost_race_writes_no_event()
    {
        var calendar = await CalendarAsync("PW");
        var stored = await AddAsync(calendar.Id, state: EventState.Waiting);
        await HandInAsync(new NewSubmission(SubmissionKind.Event, stored.Event.Id, calendar.Id, "Boat lab"));
        var submission = Assert.Single((await Submissions.OpenAndOwnAsync(_school, [calendar.Id], _ada)).Open);
        var live = new EventWrite(stored.Event with { State = EventState.Live }, stored.Version, EventAct.Changed);
        await DecideAsync(new Verdict(submission, SubmissionState.SentBack, "No"));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => Acts.CommitAsync(_school, _ada, Now,
            Act.Writing(live).And(ActPlanner.Approving(submission))));
        Assert.Equal(EventState.Waiting, (await Events.FindAsync(_school, stored.Event.Id))!.Event.State);
        Assert.Equal(SubmissionState.SentBack, Assert.Single((await Submissions.OpenAndOwnAsync(_school, [], _ada)).Own).State);
    }

    [Fact]
    public async Task Files_stay_while_an_event_or_an_earlier_version_names_them()
    {
        var files = new FileStore(_test.Database);
        var (kept, lost) = (await files.AddAsync(_school, "kept.pdf", "application/pdf", [1, 2], _ada, Now),
            await files.AddAsync(_school, "lost.pdf", "application/pdf", [3], _ada, Now));
        var stored = await AddAsync((await CalendarAsync("PW")).Id, content: Content() with { Files = [kept] });
        await SaveAsync(stored, calendarEvent => calendarEvent with { Content = Content() });
        var shown = await files.AddAsync(_school, "hall.png", "image/png", [4], _ada, Now);
        await new ListStore(_test.Database).AddPlaceAsync(
            _school, new KnownPlace(default, "Hall", Picture: new PlacePicture(shown.Id, shown.Name)), _ada, Now, _ => Act.Nothing);
        Assert.Equal(0, await files.SweepAsync(Now));
        Assert.Equal(1, await files.SweepAsync(Now + Duration.FromDays(2)));
        Assert.NotNull(await files.FindAsync(_school, kept.Id));
        Assert.Null(await files.FindAsync(_school, lost.Id));
        Assert.Null(await files.FindAsync(_club, kept.Id));
    }

    /// <summary>The second wall: whatever a statement asks for, it gets one organisation's rows.</summary>
    [Fact]
    public async Task Behind_the_wall_no_statement_sees_or_writes_another_organisation()
    {
        await using var walled = Database.Walled(_test.ConnectionString);
        var (own, foreign) = (await CalendarAsync("PW"), await CalendarAsync("XX", organisation: _club));
        await AddAsync(own.Id);
        await AddAsync(foreign.Id, organisation: _club, account: _clubAccount);
        using (Wall.Within(_school))
        {
            foreach (var table in await WalledTablesAsync())
            {
                var column = table == "organisation" ? "id" : "organisation_id";
                Assert.All(await walled.ListAsync<Guid>($"select {column} from {table}"), id => Assert.Equal(_school, id));
            }
            Assert.Equal(["ada@pinewick.example"], await walled.ListAsync<string>("select email from account"));
            Assert.Equal(0, await walled.ExecuteAsync("update calendar set name = 'Taken' where id = @Id", new { foreign.Id }));
            Assert.Equal(0, await walled.ExecuteAsync("delete from event where organisation_id = @_club", new { _club }));
            await Assert.ThrowsAsync<PostgresException>(() => walled.ExecuteAsync(
                "insert into calendar_group (id, organisation_id, name) values (gen_random_uuid(), @_club, 'Planted')", new { _club }));
        }
        Assert.Empty(await walled.ListAsync<Guid>("select id from calendar"));
        using (Wall.Everywhere())
            Assert.Equal(2, await walled.FirstAsync<long>("select count(*) from calendar"));
    }

    /// <summary>A policy is asked before all that may leak, so that an index may go unused that serves whoever stands on no wall.</summary>
    [Fact]
    public async Task Behind_the_wall_a_window_finds_its_events_by_their_times()
    {
        await using var walled = Database.Walled(_test.ConnectionString);
        var calendar = await CalendarAsync("PW");
        await _test.Database.ExecuteAsync("""
            insert into event (id, organisation_id, home_calendar_id, content, state, reach, created_at)
            select gen_random_uuid(), @_school, @Id, '{"v": 1, "title": "Long ago", "when": {}}', 'live',
                tstzrange(@Now - n * interval '1 day', @Now - n * interval '1 day' + interval '1 hour'), @Now
            from generate_series(1, 3000) n;
            analyze event
            """, new { _school, calendar.Id, Now });
        using var within = Wall.Within(_school);
        var plan = await walled.ListAsync<string>(
            $"explain select e.id from event e where {EventStore.IsInWindow}",
            new { organisationId = _school, calendars = new[] { calendar.Id }, from = Now, to = Now + Duration.FromDays(7) });
        var index = Assert.Single(plan, line => line.Contains("Index Cond", StringComparison.Ordinal)
            && line.Contains("home_calendar_id", StringComparison.Ordinal));
        Assert.Contains("reach_to", index, StringComparison.Ordinal);
        Assert.Contains("reach_from", index, StringComparison.Ordinal);
    }

    /// <summary>So that it may be asked again when its connection was cut, and so that nobody who looks changes anything.</summary>
    [Fact]
    public async Task What_reads_can_write_nothing()
    {
        const string insert =
            "insert into calendar_group (id, organisation_id, name) values (gen_random_uuid(), @_school, 'By mistake') returning id";
        var refused = await Assert.ThrowsAsync<PostgresException>(() => _test.Database.FirstAsync<Guid>(insert, new { _school }));
        Assert.Equal(PostgresErrorCodes.ReadOnlySqlTransaction, refused.SqlState);
        Assert.Equal(0, await _test.Database.FirstAsync<long>("select count(*) from calendar_group where name = 'By mistake'"));
    }

    [Fact]
    public async Task A_connection_remembers_nobody_for_whom_it_worked()
    {
        await CalendarAsync("PW");
        var only = new NpgsqlConnectionStringBuilder(
            _test.ConnectionString)
        { MaxPoolSize = 1, ApplicationName = "the only one" }.ConnectionString;
        await using var walled = Database.Walled(only);
        using (Wall.Within(_school))
        {
            Assert.Single(await walled.ListAsync<Guid>("select id from calendar"));
            Assert.Equal(1, await walled.ExecuteAsync("update calendar set description = 'Seen'"));
            Assert.Equal(1, await walled.InTransactionAsync(CountAsync));
            await Assert.ThrowsAsync<PostgresException>(() => walled.ListAsync<Guid>("select 1 / 0 from calendar"));
        }
        Assert.Equal(0, await walled.FirstAsync<long>("select count(*) from calendar"));
        Assert.Equal(0, await walled.ExecuteAsync("update calendar set description = 'Nobody'"));
        Assert.Equal(0, await walled.InTransactionAsync(CountAsync));

        static Task<long> CountAsync(System.Data.Common.DbTransaction transaction) =>
            transaction.Connection!.ExecuteScalarAsync<long>("select count(*) from calendar", transaction: transaction);
    }

    [Fact]
    public async Task Every_table_that_belongs_to_an_organisation_is_walled()
    {
        var unwalled = await _test.Database.ListAsync<string>("""
            select c.relname::text
            from pg_class c
            join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
            where c.relkind = 'r' and not (c.relrowsecurity and c.relforcerowsecurity)
            order by c.relname
            """);
        Assert.Equal(["data_protection_key", "delivery_salt", "schemaversions"], unwalled);
    }

    private Task<IReadOnlyList<string>> WalledTablesAsync() => _test.Database.ListAsync<string>("""
        select table_name::text
        from information_schema.columns
        where table_schema = 'public' and column_name = 'organisation_id'
        union all
        select 'organisation'
        """);

    [Fact]
    public async Task What_waits_is_counted_on_the_calendars_asked_for_until_it_is_decided()
    {
        var (one, two, foreign) = (await CalendarAsync("PW"), await CalendarAsync("SW"), await CalendarAsync("XX", organisation: _club));
        var stored = await AddAsync(one.Id, state: EventState.Waiting);
        await HandInAsync(
            new NewSubmission(SubmissionKind.Event, stored.Event.Id, one.Id, "Boat lab"),
            new NewSubmission(SubmissionKind.Placement, stored.Event.Id, two.Id, "Boat lab"));
        Assert.Equal(2, await Submissions.CountOpenAsync(_school, [one.Id, two.Id]));
        Assert.Equal(1, await Submissions.CountOpenAsync(_school, [one.Id]));
        Assert.Equal(0, await Submissions.CountOpenAsync(_school, []));
        Assert.Equal(0, await Submissions.CountOpenAsync(_club, [one.Id, foreign.Id]));
        var waiting = Assert.Single((await Submissions.OpenAndOwnAsync(_school, [two.Id], _ada)).Open);
        await DecideAsync(new Verdict(waiting, SubmissionState.SentBack, "Not yet"));
        Assert.Equal(1, await Submissions.CountOpenAsync(_school, [one.Id, two.Id]));
    }

    [Fact]
    public async Task Asked_twice_for_the_same_placement_one_question_waits()
    {
        var (one, two) = (await CalendarAsync("PW"), await CalendarAsync("SW"));
        var stored = await AddAsync(one.Id);
        for (var time = 0; time < 2; time++)
            await HandInAsync(new NewSubmission(SubmissionKind.Placement, stored.Event.Id, two.Id, "Boat lab"));
        Assert.Single((await Submissions.OpenAndOwnAsync(_school, [two.Id], _ada)).Open);
    }

    [Fact]
    public async Task Keepers_are_those_who_change_a_calendar_and_no_longer_who_left()
    {
        var (bo, cy, em) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var calendar = await CalendarAsync("PW");
        foreach (var (id, name, role) in new[] { (cy, "cy@a.example", CalendarRole.Contributor), (bo, "bo@a.example", CalendarRole.Editor),
            (em, "em@a.example", CalendarRole.Reader) })
        {
            await PersonAsync(id, name, _school, isAdministrator: false);
            await Accounts.GiveRoleAsync(_school, calendar.Id, id, role);
        }
        Assert.Equal([("bo@a.example", CalendarRole.Editor), ("cy@a.example", CalendarRole.Contributor)],
            (await Accounts.KeepersAsync(_school))[calendar.Id]);
        await Accounts.RemoveMemberAsync(_school, bo, Now, Line);
        Assert.Equal([("cy@a.example", CalendarRole.Contributor)], (await Accounts.KeepersAsync(_school))[calendar.Id]);
        Assert.Empty(await Accounts.KeepersAsync(_club));
    }
}
