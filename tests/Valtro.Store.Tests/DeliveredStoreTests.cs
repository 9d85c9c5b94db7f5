using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Tests;

namespace Valtro.Store.Tests;

/// <summary>What was delivered last: kept with the feed, found again, forgotten in the end; and brought over from before it was
/// kept.</summary>
public sealed class DeliveredStoreTests : SchoolAndClub
{
    private DeliveredStore Delivered => new(_test.Database);

    private Calendar _calendar = null!;
    private EditionAddress _edition = null!;

    public override async Task InitializeAsync()
    {
        await base.InitializeAsync();
        await Accounts.AddMemberAsync(_school, _ada, isAdministrator: true);
        _calendar = await Calendars.AddAsync(
            _school, new CalendarSettings("Port Watch", Plate.Parse("PW"), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);
        _edition = (await Editions.StandardAsync(_calendar.Id))!;
    }

    private static Stamp Stamp(Uid uid, int sequence = 3, string date = "", Instant? goneAt = null, params Guid[] calendars) =>
        new(new ComponentName(uid, date), UInt128.MaxValue - 5, sequence, Now, 1, 2, calendars, goneAt);

    private static Artefact Feed(EditionAddress edition, long version) =>
        new(edition.Id, edition.OrganisationId, edition.Audience, "feed", version, $"etag-of-version-{version}", [1], Now, null);

    private Task<bool> KeepAsync(long version, IReadOnlyCollection<Stamp>? stamps = null, IReadOnlyList<OutwardName>? names = null,
        params (string, Guid)[] calendars) =>
        Editions.KeepArtefactAsync(Feed(_edition, version), new FeedNotes(stamps ?? [], names ?? [], calendars));

    private async Task<CalendarEvent> AddAsync(string rule = "FREQ=WEEKLY;COUNT=6")
    {
        var content = new EventContent("Boat lab",
            new Series(Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 0), Halifax),
                RuleText.Parse(rule)), "", RichText.Empty);
        var done =
            await WriteAsync([new EventWrite(new CalendarEvent(Guid.Empty, _calendar.Id, default, content, EventState.Live, default), null,
                EventAct.Made)]);
        return (await Events.FindAsync(_school, done.Events[0].Id))!.Event;
    }

    [Fact]
    public async Task Stamps_and_names_are_kept_with_the_feed_and_found_again()
    {
        var calendarEvent = await AddAsync();
        var (stamp, name) = (Stamp(Uid.New(), calendars: [_calendar.Id]),
            new OutwardName(new SourceDate(calendarEvent.Id, new LocalDateTime(2026, 12, 1, 14, 0)), Uid.New(), Uid.New()));
        Assert.True(await KeepAsync(5, [stamp], [name], ("port-watch", _calendar.Id), ("PW", _calendar.Id)));
        var memory = await Delivered.OfAsync(_edition);
        var found = memory.Stamps[stamp.Name];
        Assert.Equal((stamp.Digest, 3, Now, 1L, 2L, null),
            (found.Digest, found.Sequence, found.ChangedAt, found.FirstVersion, found.SinceVersion, found.GoneAt));
        Assert.Equal([_calendar.Id], found.Calendars);
        Assert.Equal(
            (name, 1L, (long?)null), (memory.Names[name.Source], memory.OutSince(stamp.Name.Uid), memory.OutSince(Uid.New())));
        Assert.Equal(_calendar.Id, (await Delivered.CalendarsNamedAsync(_edition))["PW"]);
        Assert.Equal([stamp.Name.Uid], await Delivered.ConcerningAsync(_edition, [_calendar.Id, Guid.NewGuid()]));
        Assert.Empty(await Delivered.ConcerningAsync(_edition, [Guid.NewGuid()]));
    }

    [Fact]
    public async Task With_a_feed_that_is_older_than_the_one_kept_nothing_is_noted()
    {
        var uid = Uid.New();
        await KeepAsync(5, [Stamp(uid)]);
        Assert.False(await KeepAsync(4, [Stamp(uid, sequence: 9), Stamp(Uid.New())]));
        Assert.Equal(3, Assert.Single((await Delivered.OfAsync(_edition)).Stamps.Values).Sequence);
    }

    [Fact]
    public async Task A_name_means_whom_it_meant_first()
    {
        var other = await Calendars.AddAsync(
            _school, new CalendarSettings("Starboard", Plate.Parse("SW"), Hue.Named("kelp"), Halifax, "", Disclosure.Open, []), Now);
        await KeepAsync(5, calendars: ("PW", _calendar.Id));
        await KeepAsync(6, calendars: ("PW", other.Id));
        Assert.Equal(_calendar.Id, (await Delivered.CalendarsNamedAsync(_edition))["PW"]);
    }

    [Fact]
    public async Task What_is_gone_is_forgotten_after_90_days_and_raises_the_floor()
    {
        var (gone, lately, here) = (Uid.New(), Uid.New(), Uid.New());
        await KeepAsync(
            5, [Stamp(gone, 7, goneAt: Now - Duration.FromDays(91)), Stamp(lately, 9, goneAt: Now - Duration.FromDays(80)), Stamp(here)]);
        Assert.Equal(1, await Delivered.ForgetGoneAsync(Now - DeliveredStore.GoneIsKept));
        var memory = await Delivered.OfAsync(_edition);
        Assert.Equal(8, memory.Floor);
        Assert.Equal(new[] { lately, here }.Order(), memory.Stamps.Keys.Select(name => name.Uid).Order());
        Assert.Equal(0, await Delivered.ForgetGoneAsync(Now - DeliveredStore.GoneIsKept));
    }

    [Fact]
    public async Task The_names_of_dates_follow_these_through_a_move_a_split_and_back()
    {
        var calendarEvent = await AddAsync();
        LocalDateTime[] dates = [.. EventDates.All(calendarEvent, SchoolCalendar.Empty).Select(date => date.Occurrence.RecurrenceId)];
        OutwardName[] names =
            [.. dates.Select(date => new OutwardName(new SourceDate(calendarEvent.Id, date), Uid.New(), Uid.New()))];
        await KeepAsync(5, names: names);

        // Every date one week later: each takes the place of the next.
        var moved = Timing.Timed(new LocalDateTime(2026, 12, 1, 14, 0), new LocalDateTime(2026, 12, 1, 15, 0), Halifax);
        var later = calendarEvent with { Content = calendarEvent.Content with { Series = calendarEvent.Series with { Timing = moved } } };
        var act = await WriteAsync([new EventWrite(later, 1, EventAct.Changed) { Follows = date => (0, date.PlusDays(7)) }]);
        await AssertNamesAsync(names.Select(name => (calendarEvent.Id, name.Source.Date!.Value.PlusDays(7), name.Uid)));
        await UndoAsync(act.ActId);
        await AssertNamesAsync(names.Select(name => (calendarEvent.Id, name.Source.Date!.Value, name.Uid)));

        // Split before the third.
        var ended = calendarEvent with
        {
            Content =
            calendarEvent.Content with { Series = calendarEvent.Series with { Rule = RuleText.Parse("FREQ=WEEKLY;COUNT=2") } }
        };
        var rest = calendarEvent with
        {
            Id = Guid.Empty,
            Uid = default,
            Continues = calendarEvent.Uid,
            Content = calendarEvent.Content with
            {
                Series = new Series(
                Timing.Timed(new LocalDateTime(2026, 12, 9, 16, 0), new LocalDateTime(2026, 12, 9, 17, 0), Halifax),
                    RuleText.Parse("FREQ=WEEKLY;COUNT=4"))
            },
        };
        act = await WriteAsync([new EventWrite(ended, 3,
                EventAct.Changed) { Follows = date => Following.Find(calendarEvent, [ended, rest], date, SchoolCalendar.Empty) },
                    new EventWrite(rest, null, EventAct.Made)]);
        await AssertNamesAsync(names.Select((name, index) => index < 2
            ? (calendarEvent.Id, name.Source.Date!.Value, name.Uid)
            : (act.Events[1].Id, name.Source.Date!.Value.PlusDays(1).PlusHours(2), name.Uid)));
        await UndoAsync(act.ActId);
        await AssertNamesAsync(names.Select(name => (calendarEvent.Id, name.Source.Date!.Value, name.Uid)));
    }


    private async Task AssertNamesAsync(IEnumerable<(Guid, LocalDateTime, Uid)> expected) => Assert.Equal(
        expected.Order(),
            (await Delivered.OfAsync(_edition)).Names.Values.Select(name => (name.Source.EventId, name.Source.Date!.Value, name.Uid))
                .Order());

    [Fact]
    public async Task What_was_saved_lately_is_found_as_its_readers_knew_it()
    {
        var revisions = Revisions;
        var since = Now - Duration.FromDays(14);
        var made = await AddAsync();
        var isNew = Assert.Single(await revisions.SinceAsync(_school, [_calendar.Id], since));
        Assert.Equal((made.Uid, made.Uid, true), (isNew.Now!.Uid, isNew.Before!.Uid, isNew.IsNew));
        await WriteAsync(_school, _ada, Now + Duration.FromDays(20),
            [new EventWrite(made with { Content = made.Content with { Title = "Knots" } }, 1, EventAct.Changed)]);
        var changed = Assert.Single(await revisions.SinceAsync(_school, [_calendar.Id], Now + Duration.FromDays(10)));
        Assert.Equal(("Knots", "Boat lab", false, Now + Duration.FromDays(20)),
            (changed.Now!.Content.Title, changed.Before!.Content.Title, changed.IsNew, changed.At));
        await WriteAsync(_school, _ada, Now + Duration.FromDays(40), [new EventWrite(made, 2, EventAct.Removed, IsRemoved: true)]);
        var removed = Assert.Single(await revisions.SinceAsync(_school, [_calendar.Id], Now + Duration.FromDays(30)));
        Assert.Equal((null, "Knots", false), (removed.Now, removed.Before!.Content.Title, removed.IsNew));
        Assert.Empty(await revisions.SinceAsync(_school, [_calendar.Id], Now + Duration.FromDays(50)));
        Assert.Empty(await revisions.SinceAsync(_school, [Guid.NewGuid()], since));
    }

    [Fact]
    public async Task Numbers_of_before_are_brought_over_under_the_names_that_readers_know()
    {
        var name = $"before_{Guid.NewGuid():N}";
        await TestCluster.ExecuteAsync($"create database {name}");
        try
        {
            await Database.MigrateAsync(TestCluster.To(name), before: "0010");
            var (open, times, shown, busy) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.NewGuid(), Guid.NewGuid());
            await using (var old = Database.At(TestCluster.To(name)))
            {
                await old.ExecuteAsync("""
                    select set_config('valtro.organisation', 'all', true);
                    insert into organisation (id, slug, name, zone, locale, first_day_of_week, year_starts_in)
                        values (@school, 'pinewick', 'Pinewick', 'America/Halifax', 'en-GB', 1, 8);
                    insert into calendar (id, organisation_id, name, plate, colour, zone, members, link, everyone, created_at)
                    values (@open, @school, 'Open', 'PW', 'harbour', 'America/Halifax', 'complete', 'complete', 'headline', @now),
                        (@times, @school, 'Times', 'TW', 'kelp', 'America/Halifax', 'complete', 'times', 'times', @now);
                    insert into edition (id, organisation_id, calendar_id, slug, changed_at) select id, @school, id, case plate when 'PW'
                        then 'open' else 'times' end, @now from calendar;
                    insert into edition_source (organisation_id, edition_id, calendar_id) select @school, id, id from calendar;
                    insert into event (id, organisation_id, home_calendar_id, uid, title, state, all_day, start_local, end_local, zone,
                        reach, created_at, sequence, changed_at, headline_sequence, headline_changed_at, times_sequence, times_changed_at)
                    select gen_random_uuid(), @school, c.id, case plate when 'PW' then @shown else @busy end, 'Lab', 'live', false,
                        '2026-11-24 14:00', '2026-11-24 15:00', 'America/Halifax', '[2026-11-24 18:00Z,2026-11-24 19:00Z]',
                           @now, 5, @now + interval '2 days', 3, @now + interval '1 day', 1, @now
                    from calendar c;
                    """, new { school = _school, open, times, shown, busy, now = Now });
            }
            await Database.MigrateAsync(TestCluster.To(name));
            await using var migrated = Database.At(TestCluster.To(name));
            var editions = new EditionStore(migrated);
            var ofOpen = await new DeliveredStore(migrated).OfAsync((await editions.StandardAsync(open))!);
            var known = Assert.Single(ofOpen.Stamps.Values);
            Assert.Equal((new ComponentName(Uid.Of(shown), ""), (UInt128?)null, 5, Now + Duration.FromDays(2)),
                (known.Name, known.Digest, known.Sequence, known.ChangedAt));
            var ofTimes = Assert.Single((await new DeliveredStore(migrated).OfAsync((await editions.StandardAsync(times))!)).Stamps.Values);
            var calendarEvent = Assert.Single(await new EventStore(migrated).OfCalendarAsync(_school, times));
            Assert.Equal((new ComponentName(Disclosed.Of(calendarEvent, Detail.Times)!.Uid, ""), 1, Now),
                (ofTimes.Name, ofTimes.Sequence, ofTimes.ChangedAt));
            Assert.Equal(["PW", "open"],
                (await new DeliveredStore(migrated)
                    .CalendarsNamedAsync((await editions.StandardAsync(open))!)).Keys.Order(StringComparer.Ordinal));
        }
        finally
        {
            await TestCluster.ExecuteAsync($"drop database {name} with (force)");
        }
    }
}
