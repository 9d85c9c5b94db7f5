using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Store.Tests;

public sealed class StoreTests : SchoolAndClub
{
    private ListStore Lists => new(_test.Database);


    private YearPlanStore YearPlans => new(_test.Database);

    private static CalendarSettings Settings(string plate = "PW", string name = "Port Watch", Disclosure? disclosure = null) =>
        new(name, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", disclosure ?? Disclosure.Open, ["Junior families"]);

    private static EventContent Content(string title = "Boat lab", string? rule = null, LocalDateTime? start = null, Timing? timing = null)
    {
        var from = start ?? new LocalDateTime(2026, 11, 24, 14, 0);
        return new EventContent(title,
            new Series(timing ?? Timing.Timed(from, from.PlusMinutes(90), Halifax), rule is null ? null : RuleText.Parse(rule)), "Slipway",
                new RichText("<p>Hello</p>", "Hello"));
    }

    private static Window Week(int year, int month, int day) =>
        new(new LocalDate(year, month, day), new LocalDate(year, month, day).PlusDays(7), Halifax);

    private async Task<Guid> AddEventAsync(Guid calendar, EventContent? content = null) =>
        (await AddAsync(_school, calendar, content ?? Content(), _ada)).Events[0].Id;

    private Task<ActDone> AddAsync(Guid organisation, Guid calendar, EventContent content, Guid account) =>
        WriteAsync(organisation, account, Now,
            [new EventWrite(new CalendarEvent(Guid.Empty, calendar, default, content, EventState.Live, default), null, EventAct.Made)]);

    /// <summary>Saves an event as it would be after <paramref name="change"/>.</summary>
    private async Task<ActDone> SaveAsync(Guid id, int version, Func<CalendarEvent, CalendarEvent> change, EventAct act = EventAct.Changed,
        bool isRemoved = false) =>
        await WriteAsync([new EventWrite(change((await Events.FindAsync(_school, id))!.Event), version, act, isRemoved)]);

    private static Func<CalendarEvent, CalendarEvent> Titled(string title) =>
        calendarEvent => calendarEvent with { Content = calendarEvent.Content with { Title = title } };

    [Fact]
    public async Task A_calendar_is_kept_as_it_was_made()
    {
        var made = await Calendars.AddAsync(_school, Settings(), Now);
        var found = await Calendars.FindAsync(_school, made.Id);
        Assert.Equal(made with { Readerships = [] }, found! with { Readerships = [] });
        Assert.Equal(["Junior families"], found.Readerships);
        Assert.Equal(
            ("Port Watch", "PW", "harbour", "port-watch", 1), (found.Name, found.Plate.Code, found.Hue.Name, found.Slug, found.Version));
        Assert.Equal(Disclosure.Open, found.Disclosure);
    }

    [Fact]
    public async Task A_plate_is_unique_in_its_organisation_only()
    {
        await Calendars.AddAsync(_school, Settings(), Now);
        var refused = await Assert.ThrowsAsync<RuleException>(() => Calendars.AddAsync(_school, Settings(name: "Other"), Now));
        Assert.Equal("plate", refused.Refusals[0].Field);
        Assert.Single(await Calendars.ListAsync(_school));
        await Calendars.AddAsync(_club, Settings(), Now);
    }

    [Fact]
    public async Task Addresses_of_calendars_of_one_name_differ()
    {
        await Calendars.AddAsync(_school, Settings(), Now);
        Assert.Equal("port-watch-2", (await Calendars.AddAsync(_school, Settings("PW2"), Now)).Slug);
    }

    [Fact]
    public async Task Calendars_made_at_once_all_get_addresses()
    {
        var made = await Task.WhenAll(Enumerable.Range(0, 8).Select(number => Calendars.AddAsync(_school, Settings($"P{number}"), Now)));
        Assert.Equal(8, made.Select(calendar => calendar.Slug).Distinct().Count());
    }

    [Fact]
    public async Task A_calendar_saved_from_an_old_version_is_refused()
    {
        var made = await Calendars.AddAsync(_school, Settings(), Now);
        var saved = await Calendars.SaveAsync(_school, made.Id, 1, Settings(name: "Renamed"), Now);
        Assert.Equal((2, made.ContentVersion + 1), (saved.Version, saved.ContentVersion));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => Calendars.SaveAsync(_school, made.Id, 1, Settings(name: "Lost"), Now));
        Assert.Equal("Renamed", (await Calendars.FindAsync(_school, made.Id))!.Name);
    }

    [Fact]
    public async Task Another_organisation_finds_nothing_and_changes_nothing()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var calendarEvent = await AddEventAsync(calendar.Id);
        Assert.Null(await Calendars.FindAsync(_club, calendar.Id));
        Assert.Null(await Events.FindAsync(_club, calendarEvent));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() =>
            Calendars.SaveAsync(_club, calendar.Id, 1, Settings(name: "Taken over"), Now));
        await Assert.ThrowsAsync<NotFoundException>(() => AddAsync(_club, calendar.Id, Content(), _ada));
        var stored = (await Events.FindAsync(_school, calendarEvent))!.Event;
        await Assert.ThrowsAsync<NotFoundException>(() =>
            WriteAsync(_club, _ada, Now, [new EventWrite(stored, 1, EventAct.Removed, IsRemoved: true)]));
        Assert.Empty(await Events.BinAsync(_club, Now - EventStore.KeptInBin));
        Assert.Empty(await Events.InWindowAsync(_club, [calendar.Id], Week(2026, 11, 23)));
    }

    [Fact]
    public async Task An_event_is_kept_as_it_was_saved()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var content = Content(rule: "FREQ=WEEKLY;UNTIL=20261218T180000Z;BYDAY=TU,TH");
        var stored = await Events.FindAsync(_school, await AddEventAsync(calendar.Id, content));
        Assert.Equal(content, stored!.Event.Content);
        Assert.Equal((EventState.Live, 1, false, "Ada Dunmore"), (stored.Event.State, stored.Version, stored.IsRemoved, stored.SavedBy));
        Assert.Equal(Now, stored.Event.Created);
    }

    [Fact]
    public async Task Whole_days_are_kept_as_days()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var content = Content(timing: Timing.WholeDays(new LocalDate(2026, 11, 27), new LocalDate(2026, 11, 29), Halifax));
        Assert.Equal(content, (await Events.FindAsync(_school, await AddEventAsync(calendar.Id, content)))!.Event.Content);
    }

    [Theory]
    [InlineData(2026, 11, 16, 0)]
    [InlineData(2026, 11, 23, 1)]
    [InlineData(2035, 11, 19, 1)]
    public async Task A_series_without_end_is_found_in_any_later_week(int year, int month, int day, int expected)
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        await AddEventAsync(calendar.Id, Content(rule: "FREQ=WEEKLY"));
        Assert.Equal(expected, (await Events.InWindowAsync(_school, [calendar.Id], Week(year, month, day))).Count);
    }

    [Fact]
    public async Task Each_save_raises_the_versions_and_leaves_a_revision()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var id = await AddEventAsync(calendar.Id);
        await SaveAsync(id, 1, Titled("Boat lab moved"));
        var stored = (await Events.FindAsync(_school, id))!;
        Assert.Equal(2, stored.Version);
        Assert.Equal(calendar.ContentVersion + 2, (await Calendars.FindAsync(_school, calendar.Id))!.ContentVersion);
        Assert.Equal(["made", "changed"],
            await _test.Database.ListAsync<string>("select act from revision where event_id = @id order by version", new { id }));
    }

    [Fact]
    public async Task Of_two_who_save_the_same_version_one_is_told()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var id = await AddEventAsync(calendar.Id);
        var before = (await Events.FindAsync(_school, id))!.Event;
        var saves = await Task.WhenAll(Enumerable.Range(0, 6).Select(async number =>
        {
            try
            {
                await WriteAsync([new EventWrite(before with { Content = Content($"Save {number}") }, 1, EventAct.Changed)]);
                return true;
            }
            catch (ChangedMeanwhileException)
            {
                return false;
            }
        }));
        Assert.Single(saves, saved => saved);
        Assert.Equal(2, (await Events.FindAsync(_school, id))!.Version);
    }

    [Fact]
    public async Task Moving_an_event_changes_both_calendars()
    {
        var from = await Calendars.AddAsync(_school, Settings(), Now);
        var to = await Calendars.AddAsync(_school, Settings("SW", "Starboard Watch"), Now);
        var id = await AddEventAsync(from.Id);
        await SaveAsync(id, 1, calendarEvent => calendarEvent with { HomeCalendarId = to.Id });
        Assert.Equal(from.ContentVersion + 2, (await Calendars.FindAsync(_school, from.Id))!.ContentVersion);
        Assert.Equal(to.ContentVersion + 1, (await Calendars.FindAsync(_school, to.Id))!.ContentVersion);
    }

    [Fact]
    public async Task What_is_removed_is_gone_until_it_is_restored()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var id = await AddEventAsync(calendar.Id);
        await SaveAsync(id, 1, calendarEvent => calendarEvent, EventAct.Removed, isRemoved: true);
        Assert.Empty(await Events.OfCalendarAsync(_school, calendar.Id));
        Assert.Equal([id], (await Events.BinAsync(_school, Now - EventStore.KeptInBin)).Select(stored => stored.Event.Id));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => SaveAsync(id, 1, Titled("Too late")));
        await SaveAsync(id, 2, calendarEvent => calendarEvent, EventAct.Restored);
        Assert.Single(await Events.OfCalendarAsync(_school, calendar.Id));
        Assert.Empty(await Events.BinAsync(_school, Now - EventStore.KeptInBin));
    }

    [Fact]
    public async Task The_bin_is_emptied_of_what_rested_there_for_90_days()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var (old, fresh) = (await AddEventAsync(calendar.Id), await AddEventAsync(calendar.Id));
        await SaveAsync(old, 1, calendarEvent => calendarEvent, EventAct.Removed, isRemoved: true);
        Assert.Equal(0, await Events.EmptyBinAsync(Now - EventStore.KeptInBin));
        Assert.Equal(1, await Events.EmptyBinAsync(Now + Duration.FromDays(91) - EventStore.KeptInBin));
        Assert.Null(await Events.FindAsync(_school, old));
        Assert.NotNull(await Events.FindAsync(_school, fresh));
        Assert.Equal(0, await _test.Database.FirstAsync<long>("select count(*) from revision where event_id = @old", new { old }));
    }

    [Fact]
    public async Task A_series_is_kept_whole()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var category = (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Assessment", Hue.Named("madder")))).Category;
        var content = Content(rule: "RSCALE=GREGORIAN;FREQ=MONTHLY;BYMONTHDAY=31;SKIP=BACKWARD");
        content = content with
        {
            Series = content.Series with
            {
                Extra = [new LocalDateTime(2026, 11, 26, 14, 0)],
                Removed = [new LocalDateTime(2026, 12, 31, 14, 0)],
                InBreaks = InBreaks.Move
            },
            Category = category,
            Tags = ["outdoors", "practical"],
        };
        var id = await AddEventAsync(calendar.Id, content);
        EventException[] exceptions =
        [
            new(new LocalDateTime(2027, 1, 31, 14, 0)) { Own = OwnFields.None.With("title", "Own title").With("place", Place.Called("")) },
            new(new LocalDateTime(2027, 2, 28, 14, 0)) { IsCancelled = true, Start = new LocalDateTime(2027, 3, 1, 9, 0),
                End = new LocalDateTime(2027, 3, 1, 10, 0), Own = OwnFields.None.With("description", new RichText("<p>x</p>", "x")) },
        ];
        await SaveAsync(id, 1, calendarEvent => calendarEvent with { Exceptions = exceptions });
        var stored = (await Events.FindAsync(_school, id))!.Event;
        Assert.Equal(content, stored.Content);
        Assert.Equal(exceptions, stored.Exceptions);
        Assert.Equal(exceptions, (await Events.OfCalendarAsync(_school, calendar.Id)).Single().Exceptions);
        var cycle = content with
        {
            Series = new Series(content.Series.Timing)
            {
                Cycle =
            new CyclePattern([1, 3], [IsoDayOfWeek.Friday], new LocalDate(2027, 6, 1), null)
            }
        };
        Assert.Equal(cycle, (await Events.FindAsync(_school, await AddEventAsync(calendar.Id, cycle)))!.Event.Content);
    }

    [Fact]
    public async Task An_act_is_undone_as_one()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var id = await AddEventAsync(calendar.Id, Content(rule: "FREQ=WEEKLY"));
        var before = (await Events.FindAsync(_school, id))!.Event;
        var successor = before with { Id = Guid.Empty, Uid = default, Continues = before.Uid };
        var done = await WriteAsync(
            [new EventWrite(Titled("Ended")(before), 1, EventAct.Changed), new EventWrite(successor, null, EventAct.Made)]);
        var undoing = (await UndoingAsync(done.ActId)).Writes;
        Assert.Equal(2, undoing.Count);
        Assert.True((await UndoingAsync(done.ActId, _club)).IsNothing);
        await WriteAsync(undoing);
        Assert.Equal("Boat lab", (await Events.FindAsync(_school, id))!.Event.Content.Title);
        Assert.True((await Events.FindAsync(_school, done.Events[1].Id))!.IsRemoved);
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => UndoingAsync(done.ActId));
    }

    [Fact]
    public async Task Of_an_act_all_is_written_or_nothing()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var id = await AddEventAsync(calendar.Id);
        var before = (await Events.FindAsync(_school, id))!.Event;
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() =>
            WriteAsync([new EventWrite(before with { Id = Guid.Empty, Uid = default }, null, EventAct.Made),
                    new EventWrite(before, 7, EventAct.Changed)]));
        Assert.Equal(1, await _test.Database.FirstAsync<long>("select count(*) from event"));
    }

    [Fact]
    public async Task Revisions_hold_the_event_as_it_was()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var content = Content(rule: "FREQ=WEEKLY;BYDAY=TU");
        var id = await AddEventAsync(calendar.Id, content);
        await SaveAsync(id, 1, calendarEvent => calendarEvent with { Content = Content("Other"), Exceptions = [] });
        var now = (await Events.FindAsync(_school, id))!.Event;
        var all = await Revisions.OfEventAsync(_school, now);
        Assert.Equal([(2, EventAct.Changed), (1, EventAct.Made)], all.Select(revision => (revision.Version, revision.Act)));
        Assert.Equal(content, all[1].Event.Content);
        Assert.Null(await Revisions.FindAsync(_club, now, 1));
    }

    /// <summary>As migration 1 wrote them.</summary>
    private static YearPlan Year(string name = "2026/27", int year = 2026) => new(
        name, new LocalDate(year, 8, 1), new LocalDate(year + 1, 7, 31),
        [new NamedDays("Autumn", new LocalDate(year, 9, 7), new LocalDate(year, 12, 18))],
        [new NamedDays("Storm week", new LocalDate(year, 10, 26), new LocalDate(year, 10, 30))],
        new DayCycle(CycleUnit.Days, 6, true));

    [Fact]
    public async Task A_year_plan_is_kept()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var follows = await AddEventAsync(calendar.Id,
            Content(rule: "FREQ=WEEKLY") is var weekly ? weekly with { Series = weekly.Series with { InBreaks = InBreaks.Skip } } : null);
        await AddEventAsync(calendar.Id, Content(rule: "FREQ=WEEKLY"));
        Assert.Equal([follows], (await Events.FollowingYearPlanAsync(_school)).Select(calendarEvent => calendarEvent.Id));
        var id = await YearPlans.SaveAsync(_school, null, null, Year(), Now);
        Assert.Equal(Year(), Assert.Single(await YearPlans.ListAsync(_school)).Plan);
        Assert.True((await YearPlans.SchoolAsync(_school)).IsClosed(new LocalDate(2026, 10, 27)));
        Assert.Empty(await YearPlans.ListAsync(_club));
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => YearPlans.SaveAsync(_school, id, 9, Year(), Now));
        await YearPlans.SaveAsync(_school, id, 1, Year("Renamed"), Now);
        Assert.Equal("Renamed", (await YearPlans.ListAsync(_school))[0].Plan.Name);
        await Assert.ThrowsAsync<ChangedMeanwhileException>(() => YearPlans.RemoveAsync(_club, id, 2, Now));
        await YearPlans.RemoveAsync(_school, id, 2, Now);
        Assert.Empty(await YearPlans.ListAsync(_school));
    }

    [Fact]
    public async Task Years_do_not_overlap()
    {
        await YearPlans.SaveAsync(_school, null, null, Year(), Now);
        await YearPlans.SaveAsync(_school, null, null, Year("2027/28", 2027), Now);
        await YearPlans.SaveAsync(_club, null, null, Year(), Now);
        var overlapping = new YearPlan("Between", new LocalDate(2027, 1, 1), new LocalDate(2027, 12, 31), [], [], null);
        Assert.Equal("first",
            (await Assert.ThrowsAsync<RuleException>(() => YearPlans.SaveAsync(_school, null, null, overlapping, Now))).Refusals[0].Field);
    }

    [Fact]
    public async Task A_name_is_on_a_list_once()
    {
        Task PlaceAsync(Guid organisation, string name) =>
            Lists.AddPlaceAsync(organisation, new KnownPlace(default, name), _ada, Now, _ => Act.Nothing);
        await PlaceAsync(_school, "Hall");
        Assert.Equal("name", (await Assert.ThrowsAsync<RuleException>(() => PlaceAsync(_school, "hall"))).Refusals[0].Field);
        await PlaceAsync(_club, "Hall");
        await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Regatta", Hue.Named("fjord")));
        await Assert.ThrowsAsync<RuleException>(() => Lists.AddCategoryAsync(_school, new KnownCategory(default, "REGATTA", Hue.Named("fjord"))));
    }

    [Theory]
    [InlineData("update calendar set everyone = 'complete', members = 'nothing'", "disclosure_is_monotone")]
    [InlineData("update calendar set plate = 'A B'", "calendar_plate_check")]
    [InlineData("update calendar set colour = 'blue'", "calendar_colour_check")]
    [InlineData("update event set content = '[]'", "event_content_is_a_document")]
    [InlineData("update event set content = content - 'v'", "event_content_is_a_document")]
    [InlineData("update event set content = content - 'when'", "event_content_is_a_document")]
    [InlineData("update event set content = content || '{\"title\": \"\"}'", "event_content_is_a_document")]
    [InlineData("update event set reach = 'empty'", "event_reach_check")]
    [InlineData("update event set state = 'gone'", "event_state_check")]
    [InlineData(
        "insert into event_reference (organisation_id, event_id, kind, target) select organisation_id, id, 'category', id from event",
            "event_reference_organisation_id_category_id_fkey")]
    [InlineData("insert into event_reference (organisation_id, event_id, kind, target) select organisation_id, id, 'file', id from event",
        "event_reference_organisation_id_file_id_fkey")]
    [InlineData("delete from calendar",
        "calendar_role_organisation_id_calendar_id_fkey|edition_organisation_id_calendar_id_fkey|event_organisation_id_home_calendar_id_fkey")]
    [InlineData("update event set organisation_id = (select id from organisation where slug = 'club')",
        "event_organisation_id_home_calendar_id_fkey|revision_organisation_id_event_id_fkey")]
    public async Task The_database_itself_refuses_impossible_rows(string sql, string constraints)
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        await AddEventAsync(calendar.Id);
        var refused = await Assert.ThrowsAsync<PostgresException>(() => _test.Database.ExecuteAsync(sql));
        Assert.Contains(refused.ConstraintName, constraints.Split('|'));
    }

    [Fact]
    public async Task A_transaction_that_fails_leaves_nothing()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        // The revision's author does not exist, so the event that was inserted before it has to go too.
        await Assert.ThrowsAsync<PostgresException>(() => AddAsync(_school, calendar.Id, Content(), Guid.NewGuid()));
        Assert.Equal(0, await _test.Database.FirstAsync<long>("select count(*) from event"));
        Assert.Equal(calendar.ContentVersion, (await Calendars.FindAsync(_school, calendar.Id))!.ContentVersion);
    }

    [Fact]
    public async Task A_full_calendar_takes_no_more()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        await _test.Database.ExecuteAsync("""
            insert into event (id, organisation_id, home_calendar_id, content, state, reach, created_at)
            select gen_random_uuid(), @school, @calendar,
                '{"v": 1, "title": "One of many", "when": {"start": "2026-11-24T14:00:00", "end": "2026-11-24T15:00:00", "zone": "UTC"}}',
                   'live', '[2026-11-24 14:00Z,2026-11-24 15:00Z]', timestamptz '2026-11-23 12:00Z'
            from generate_series(1, @most)
            """, new { school = _school, calendar = calendar.Id, most = EventStore.MostEvents - 1 });
        await AddEventAsync(calendar.Id);
        var refused = await Assert.ThrowsAsync<RuleException>(() => AddEventAsync(calendar.Id));
        Assert.Equal("calendarId", refused.Refusals[0].Field);
        Assert.Equal(EventStore.MostEvents, await _test.Database.FirstAsync<int>("select count(*)::integer from event"));
    }

    [Fact]
    public async Task A_change_is_announced_when_it_is_committed()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        await using var listener = await _test.Database.ListenAsync(default);
        var heard = new List<string>();
        listener.Notification += (_, announcement) => heard.Add(announcement.Payload);
        await AddEventAsync(calendar.Id);
        Assert.True(await listener.WaitAsync(TimeSpan.FromSeconds(10)));
        Assert.Equal([$"changed {calendar.EditionId} {calendar.ContentVersion + 1} 0"], heard);
    }

    [Fact]
    public async Task An_older_artefact_does_not_replace_a_newer_one()
    {
        var calendar = await Calendars.AddAsync(_school, Settings(), Now);
        var newer = new Artefact(calendar.EditionId, _school, Audience.Everyone, "feed", 5, "newer-etag", [1, 2], Now, null);
        Assert.True(await Editions.KeepArtefactAsync(newer, null));
        Assert.False(await Editions.KeepArtefactAsync(newer with { ContentVersion = 4, Etag = "older-etag" }, null));
        Assert.Equal("newer-etag", (await Editions.FindArtefactAsync((await Editions.StandardAsync(calendar.Id))!, "feed"))!.Etag);
    }

    [Fact]
    public async Task A_person_s_roles_decide_what_they_may()
    {
        var accounts = new AccountStore(_test.Database);
        var calendar = await Calendars.AddAsync(_school, Settings(disclosure: Disclosure.Closed), Now);
        Assert.Empty(await accounts.MembershipsAsync(_ada));
        await accounts.AddMemberAsync(_school, _ada, isAdministrator: false);
        await accounts.GiveRoleAsync(_school, calendar.Id, _ada, CalendarRole.Editor);
        var viewer = Assert.Single(await accounts.MembershipsAsync(_ada)).Viewer;
        Assert.Equal((_school, false, true), (viewer.OrganisationId, viewer.IsAdministrator, viewer.May(CalendarAction.Edit, calendar.Id)));
    }

    [Fact]
    public async Task Migrations_run_again_change_nothing()
    {
        await Database.MigrateAsync(_test.ConnectionString);
        Assert.True(Database.IsMigrated(_test.ConnectionString));
    }

    [Fact]
    public async Task A_question_is_taken_back_when_whoever_asked_has_gone()
    {
        using var gone = new CancellationTokenSource();
        Asking.Until(gone.Token);
        var asked = _test.Database.ListAsync<int>("select 1 from pg_sleep(600)");
        Assert.False(asked.IsCompleted);
        await gone.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => asked);
        Asking.Until(default);
        Assert.Equal(1, await _test.Database.FirstAsync<int>("select 1"));
    }
}
