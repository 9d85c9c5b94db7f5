using NodaTime;
using NodaTime.Text;
using Valtro.Core.Calendars;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

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

    public static CalendarEvent Event(Series series, string title = "Boat lab", EventState state = EventState.Live, string place = "Slipway", RichText? description = null) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.NewGuid(), new EventContent(title, series, place, description ?? RichText.Empty),
            state, 0, Instant.FromUtc(2026, 9, 1, 12, 0), Instant.FromUtc(2026, 9, 2, 12, 0));

    public static EventDraft Draft(string date = "2026-11-24", string from = "14:00", string to = "15:30", RepeatDraft? repeat = null, string title = "Boat lab") =>
        new(title, false, Day(date), null, Time(from), Time(to), null, "Slipway", repeat);

    public static RepeatDraft Weekly(int interval = 1, int[]? weekdays = null, RepeatEnd ends = RepeatEnd.Never, string? until = null, int? count = null) =>
        new(Frequency.Weekly, interval, weekdays ?? [2], ends, until is null ? null : Day(until), count);

    public static Hue Harbour => Hue.Named("harbour");

    /// <summary>The sentence refused for a field, or null when the field was fine.</summary>
    public static string? Refused(string field, Action act)
    {
        var refused = Assert.Throws<RuleException>(act);
        return refused.Refusals.Where(refusal => refusal.Field == field).Select(refusal => refusal.Sentence).FirstOrDefault();
    }
}
