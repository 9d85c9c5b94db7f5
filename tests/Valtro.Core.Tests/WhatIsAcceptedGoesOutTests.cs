using Valtro.Core.Tests.ICalendar;
using CsCheck;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Tests;

/// <summary>Whatever the checks of events and editions accept can be composed and written: no content stops what goes out.</summary>
public class WhatIsAcceptedGoesOutTests
{
    private static readonly Guid Home = Guid.CreateVersion7();

    private static readonly Category Training = new(Guid.CreateVersion7(), "Training", Build.Harbour);

    private static Gen<T> OneOf<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(index => values[index]);

    private static Gen<T?> Maybe<T>(Gen<T> gen)
        where T : struct => Gen.OneOf(gen.Select(value => (T?)value), Gen.Const((T?)null));

    /// <summary>Mostly near now, but also the first and the last days there are, and days that there are not.</summary>
    private static readonly Gen<LocalDate> Days = Gen.OneOf(
        Gen.Int[-900, 900].Select(days => Build.Day("2026-11-23").PlusDays(days)),
        Gen.Int[-90, 90].Select(days => Build.Day("2026-11-23").PlusDays(days)),
        Gen.Int[-30, 400].Select(days => Build.Day("2026-11-23").PlusDays(days)),
        Gen.Int[-40, 109_600].Select(days => DayRange.First.PlusDays(days)),
        Gen.Int[-3, 3].Select(days => DayRange.First.PlusDays(days)),
        Gen.Int[-3, 3].Select(days => DayRange.Last.PlusDays(days)),
        OneOf(LocalDate.MinIsoValue, LocalDate.MaxIsoValue, new LocalDate(1, 1, 1), new LocalDate(2028, 2, 29), new LocalDate(2027, 3, 14),
            new LocalDate(2026, 11, 1)));

    private static readonly Gen<LocalTime> Times = Gen.Int[0, 287].Select(fives => LocalTime.Midnight.PlusMinutes(fives * 5));

    private static readonly Gen<string?> Zones = Gen.OneOf(Gen.Const((string?)null),
        Gen.Int[0, DateTimeZoneProviders.Tzdb.Ids.Count - 1].Select(index => (string?)DateTimeZoneProviders.Tzdb.Ids[index]));

    private static readonly Gen<string> Texts = OneOf("Boat lab", "x", new string('W', 200),
        string.Concat(Enumerable.Repeat("👨‍👩‍👧‍👦", 60)), "שיעור סירה", "a\\,;b", "𝔘𝔫𝔦", "ǅ̈", "&<>\"'");

    private static readonly Gen<string> RuleTexts =
        from frequency in OneOf("YEARLY", "MONTHLY", "WEEKLY", "DAILY", "HOURLY", "MINUTELY")
        from interval in OneOf("", ";INTERVAL=2", ";INTERVAL=10000", ";INTERVAL=53")
        from part in OneOf("", ";BYDAY=MO", ";BYMONTHDAY=31", ";BYMONTH=2;BYMONTHDAY=29", ";BYMONTH=2;BYMONTHDAY=30",
            ";BYHOUR=2;BYMINUTE=30", ";BYWEEKNO=53", ";BYYEARDAY=366", ";BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", ";BYMONTH=11;BYHOUR=1,2",
                ";BYSECOND=0,59")
        from ends in OneOf("", ";COUNT=3", ";COUNT=100000", ";UNTIL=20270101T000000Z", ";UNTIL=21991231T235959Z", ";UNTIL=99991231T235959Z")
        select $"FREQ={frequency}{interval}{part}{ends}";

    private static readonly Gen<RepeatDraft?> Repeats = Gen.OneOf(
        Gen.Const((RepeatDraft?)null),
        RuleTexts.Select(text => (RepeatDraft?)new RepeatDraft(RepeatPattern.Text, Text: text)),
        (from pattern in Gen.Enum<RepeatPattern>()
         from interval in Gen.OneOf(Gen.Int[1, 3], Gen.Int[0, 60])
         from weekdays in Gen.Int[1, 7].Array[0, 3]
         from part in Gen.Enum<MonthPosition>()
         from number in Gen.Int[-1, 31]
         from ends in Gen.Enum<RepeatEnd>()
         from until in Days
         from count in Gen.OneOf(Gen.Int[1, 30], Gen.Int[0, 200])
         select (RepeatDraft?)new RepeatDraft(pattern, interval, [.. weekdays.Distinct()], part, number, number % 5,
             1 + Math.Abs(number) % 7, 1 + Math.Abs(number) % 12, Numbers: [1], Ends: ends, Until: until, Count: count)));

    private static readonly Gen<EventDraft> Drafts =
        from title in Texts
        from allDay in Gen.Bool
        from date in Days
        from length in Gen.OneOf(Gen.Const(0), Gen.Int[0, 800])
        from times in Gen.Select(Times, Times).Select((one, other) => one.TickOfDay % 7 == 0 || one <= other ? (one, other) : (other, one))
        from zone in Zones
        from repeat in Repeats
        from inBreaks in Gen.Enum<InBreaks>()
        from extra in Days.Array[0, 2]
        from showing in Gen.Select(Maybe(Days), Maybe(Days))
        from caps in Gen.Select(Gen.Enum<Detail>(), Gen.Int[0, 4])
            .Select((link, how) => how == 0 ? ((Detail?)link, (Detail?)Detail.Times) : how == 1 ? (link, null) : (null, null))
        select new EventDraft
        {
            Title = title,
            AllDay = allDay,
            Date = date,
            EndDate = SafePlus(date, length),
            From = times.Item1,
            To = times.Item2,
            Zone = zone,
            Place = title,
            Repeat = repeat,
            InBreaks = inBreaks,
            Extra = extra,
            ShowFrom = showing.Item1,
            ShowUntil = showing.Item2,
            Cap = new CapDraft(null, caps.Item1, caps.Item2),
            CategoryId = title.Length % 2 == 0 ? Training.Id : null,
            Contact = title,
        };

    private static LocalDate? SafePlus(LocalDate date, int days) =>
        date > LocalDate.MaxIsoValue.PlusDays(-1_000) ? date : date.PlusDays(days);

    private static readonly Gen<EditionDraft> Editions =
        from audience in OneOf(Audience.Members, Audience.Link, Audience.Everyone)
        from window in Gen.Select(
            Gen.Enum<WindowFrom>(), Maybe(Days), Gen.Enum<WindowTo>(), Maybe(Gen.Int[0, 4_000]), Maybe(Days), Gen.Bool)
        from limit in Maybe(Gen.Int[0, 1_001])
        from flags in Gen.Bool.Array[4]
        from cap in Gen.Enum<Detail>()
        from pattern in OneOf(null, Piece.Plate, Piece.Place, Piece.Category, (Piece?)Piece.Calendar)
        select new EditionDraft(
            "Families", [new SourceDraft(Home, flags[3] ? new FilterDraft(FilterMode.Except, Text: "lab") : null)], audience)
        {
            Window = new WindowDraft(window.Item1, window.Item2, window.Item3, window.Item4, window.Item5, window.Item6),
            Limit = limit,
            WithBreaks = flags[0],
            MergesLookAlikes = flags[1],
            TellsPlatesOfBusy = flags[2],
            Cap = cap,
            Title = pattern is { } piece ? [new PatternPartDraft(piece)] : null,
        };

    private static readonly Gen<Instant> Moments = Days.Select(day => DayRange.Nearest(day).AtMidnight().InUtc().ToInstant());

    private static T? Accepted<T>(Func<T> check)
        where T : class
    {
        try
        {
            return check();
        }
        catch (RuleException)
        {
            return null;
        }
    }

    private static CalendarEvent Event(EventContent content) =>
        new(Guid.CreateVersion7(), Home, Uid.New(), content, EventState.Live, Instant.FromUtc(2026, 9, 1, 12, 0));

    private static readonly SchoolCalendar School = Build.School(new DayCycle(CycleUnit.Weeks, 2, RestartsEachTerm: true));

    private static EventContent? Check(EventDraft draft) =>
        Accepted(() => draft.Check(new DraftSetting(Build.Halifax, [Training], School), RichText.Empty));

    [Fact]
    public void An_event_that_is_accepted_is_composed_and_written_for_every_edition_that_is_accepted()
    {
        var events = 0;
        var made = Editions.Select(draft => Accepted(() => draft.Check(Build.Halifax, IsoDayOfWeek.Monday)))
            .Where(edition => edition is not null).Select(edition => edition!);
        Gen.Select(Drafts.Array[1, 3], made, Moments, Days).Sample((drafts, edition, now, day) =>
        {
            var contents = drafts.Select(Check).OfType<EventContent>().ToArray();
            Interlocked.Add(ref events, contents.Length);
            GoesOut(edition, [.. contents.Select(Event)], now, day);
        }, iter: 1_000);
        // Enough was accepted for this to say something.
        Assert.True(events > 300, $"Only {events} events were accepted.");
    }

    [Fact]
    public void So_is_one_of_which_a_date_is_changed()
    {
        var changes = 0;
        Gen.Select(Drafts, Drafts, Gen.Int[0, 6], Gen.Enum<ChangeAct>(), Gen.Enum<ChangeScope>())
            .Sample((draft, other, index, act, scope) =>
        {
            if (Check(draft) is not { } content)
                return;
            var before = Event(content);
            var date = EventDates.All(before, School).ElementAtOrDefault(index);
            if (date.Event is null || !DayRange.Holds(date.Occurrence.RecurrenceId.Date))
                return;
            var typed = act == ChangeAct.Edit ? Check(other) : null;
            if (act == ChangeAct.Edit && typed is null)
                return;
            var outcome = Accepted(() => new SeriesEdit(before, new Change(act, date.Occurrence.RecurrenceId, typed), School)
                .Apply(scope, new HashSet<LocalDateTime>()));
            if (outcome is null)
                return;
            Interlocked.Increment(ref changes);
            var edition = new EditionDraft("Families", [new SourceDraft(Home)]).Check(Build.Halifax, IsoDayOfWeek.Monday);
            CalendarEvent[] after = outcome.Successor is { } successor
                ? [outcome.Event, Event(successor.Content) with { Exceptions = successor.Exceptions }]
                : [outcome.Event];
            GoesOut(edition, after, Instant.FromUtc(2026, 11, 23, 12, 0), date.Occurrence.LocalStart.Date);
            LatelyChanged.Of(Compose(edition, Instant.FromUtc(2026, 11, 23, 12, 0)),
                [new EventNews(outcome.Event, before, Instant.FromUtc(2026, 11, 20, 12, 0))], Build.Window("2026-11-09", "2027-11-23"));
        }, iter: 3_000);
        Assert.True(changes > 200, $"Only {changes} changes were accepted.");
    }

    private static Composition Compose(CheckedEdition made, Instant now) =>
        new(made.Edition,
            [new Source(Home, Plate.Parse("PW"), "Port Watch", Build.Harbour, Core.Disclosure.Disclosure.Open, made.Filters[Home])],
                School, now);

    private static void GoesOut(CheckedEdition made, CalendarEvent[] events, Instant now, LocalDate day)
    {
        var composition = Compose(made, now);
        foreach (var window in new[] { new Window(day, day > LocalDate.MaxIsoValue.PlusDays(-50) ? day : day.PlusDays(42), Build.Halifax),
            Build.Window("2026-11-23", "2027-01-04") })
        {
            var composed = composition.Compose(events, window);
            foreach (var entry in composed.Entries.Take(200))
            {
                Assert.True(entry.Occurrence.End >= entry.Occurrence.Start);
                Assert.NotNull(composition.FullTitle(entry));
            }
        }
        var delivered = composition.Deliver(events);
        var components = TestFeed.Of(delivered, School);
        foreach (var closed in composition.Breaks(new LocalDate(2032, 1, 1)))
            components.AddDate(closed, closed.Title, Uid.New());
        Assert.EndsWith("END:VCALENDAR\r\n", TestFeed.Write(components), StringComparison.Ordinal);
        composition.NextTurn(events);
        composition.ClosesAt(events);
        foreach (var one in events)
        {
            var (from, to) = EventDates.Reach(one);
            Assert.True(to is null || to >= from, $"{one.Series} ends before it begins.");
            if (EventDates.All(one, School).FirstOrDefault() is { Event: not null } first
                && composition.Find(one, first.Occurrence.RecurrenceId) is { } found
                && delivered.Count > 0)
            {
                var alone = TestFeed.Components(School);
                alone.AddDate(found, composition.FullTitle(found), Uid.New());
                TestFeed.Write(alone);
            }
        }
    }
}
