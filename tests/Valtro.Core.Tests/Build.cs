using NodaTime;
using NodaTime.Text;
using Valtro.Core.Calendars;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Core.Speaking;

namespace Valtro.Core.Tests;

/// <summary>Builds what tests are about, with as few words as the test needs.</summary>
internal static class Build
{
    public static readonly DateTimeZone Halifax = DateTimeZoneProviders.Tzdb["America/Halifax"];

    public static LocalDateTime Local(string text) => LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm").Parse(text).Value;

    public static LocalDate Day(string text) => LocalDatePattern.Iso.Parse(text).Value;

    public static LocalTime Time(string text) => LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(text).Value;

    /// <summary>A series of one-hour dates in Halifax.</summary>
    public static Series Series(string start, string? rule = null, DateTimeZone? zone = null, int minutes = 60) =>
        new(Timing.Timed(Local(start), Local(start).PlusMinutes(minutes), zone ?? Halifax), rule is null ? null : RuleText.Parse(rule));

    public static Series DaySeries(string first, string last, string? rule = null) =>
        new(Timing.WholeDays(Day(first), Day(last), Halifax), rule is null ? null : RuleText.Parse(rule));

    public static Window Window(string first, string end, DateTimeZone? zone = null) => new(Day(first), Day(end), zone ?? Halifax);

    public static CalendarEvent Event(Series series, string title = "Boat lab", EventState state = EventState.Live,
        string place = "Slipway", RichText? description = null) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), Uid.New(),
            new EventContent(title, series, place, description ?? RichText.Empty),
            state, Instant.FromUtc(2026, 9, 1, 12, 0));

    public static EventDraft Draft(string date = "2026-11-24", string from = "14:00", string to = "15:30", RepeatDraft? repeat = null,
        string title = "Boat lab") =>
        new() { Title = title, Date = Day(date), From = Time(from), To = Time(to), Place = "Slipway", Repeat = repeat };

    public static RepeatDraft Weekly(int interval = 1, int[]? weekdays = null, RepeatEnd ends = RepeatEnd.Never, string? until = null,
        int? count = null) =>
        new(RepeatPattern.Weekly, interval, weekdays ?? [2], Ends: ends, Until: until is null ? null : Day(until), Count: count);

    /// <summary>A calendar in Halifax, no categories, no year plan.</summary>
    public static DraftSetting Setting => new(Halifax, [], SchoolCalendar.Empty);

    /// <summary>A year with two terms, a break in the first and one between them.</summary>
    public static YearPlan Year(DayCycle? cycle = null, params NamedDays[] breaks) => new(
        "2026/27", Day("2026-08-01"), Day("2027-07-31"),
        [new NamedDays("Autumn", Day("2026-09-07"), Day("2026-12-18")), new NamedDays("Spring", Day("2027-01-04"), Day("2027-04-02"))],
        breaks.Length > 0
            ? breaks
            : [new NamedDays("Storm week", Day("2026-10-26"), Day("2026-10-30")),
                new NamedDays("Winter break", Day("2026-12-19"), Day("2027-01-03"))],
        cycle);

    public static SchoolCalendar School(DayCycle? cycle = null, params NamedDays[] breaks) =>
        new([Year(cycle, breaks)], IsoDayOfWeek.Monday);

    public static Speech English => Speech.For("en-GB");

    public static Hue Harbour => Hue.Named("harbour");

    /// <summary>The sentence refused for a field, or null when the field was fine.</summary>
    public static string? Refused(string field, Action act)
    {
        var refused = Assert.Throws<RuleException>(act);
        return refused.Refusals.Where(refusal => refusal.Field == field).Select(refusal => English.Say(refusal.Saying)).FirstOrDefault();
    }
}

/// <summary>Series that know no year plan, as most tests are about.</summary>
internal static class SeriesWithoutYearPlan
{
    public static IEnumerable<Occurrence> All(this Series series) => series.All(SchoolCalendar.Empty);

    public static IEnumerable<Occurrence> In(this Series series, Window window) => series.In(window, SchoolCalendar.Empty);

    public static IEnumerable<Occurrence> From(this Series series, LocalDateTime from) => series.From(from, SchoolCalendar.Empty);
}
