using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Text;
using Valtro.Core;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;

namespace Valtro.Tools;

/// <summary>Answers recurrence questions, a JSON line each; the form is fixed in docs/architecture.md.</summary>
public static class ExpandCommand
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        PropertyNamingPolicy = JsonNamingPolicy.SnakeCaseLower,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private static readonly OffsetDateTimePattern WithOffset =
        OffsetDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:sso<+HH:mm>");

    private sealed record Question(
        string Id, string Dtstart, string? Tzid, bool AllDay, string Rrule, string[]? Exdate, string[]? Rdate, string[] Window);

    private sealed record Answer(string? Id, IReadOnlyList<string>? Occurrences, string? Error);

    /// <returns>The exit code: 0, also when single questions were refused.</returns>
    public static int Run(TextReader input, TextWriter output)
    {
        while (input.ReadLine() is { } line)
        {
            if (line.Trim().Length > 0)
                output.WriteLine(JsonSerializer.Serialize(AnswerTo(line), Options));
        }
        return 0;
    }

    private static Answer AnswerTo(string line)
    {
        string? id = null;
        try
        {
            var question = JsonSerializer.Deserialize<Question>(line, Options) ?? throw new JsonException("The line is null.");
            id = question.Id;
            if (question is not { Dtstart: not null, Rrule: not null, Window.Length: 2 })
                throw new RuleException("line", "The line needs id, dtstart, rrule and a window of two times.");
            return new Answer(id, Expand(question), null);
        }
        catch (RuleException refused)
        {
            return new Answer(id, null, $"{refused.Refusals[0].Field}: {refused.Message}");
        }
        catch (Exception unreadable) when (unreadable is JsonException or UnparsableValueException)
        {
            return new Answer(id, null, $"The line could not be read: {unreadable.Message}");
        }
    }

    private static List<string> Expand(Question question)
    {
        var zone = question.AllDay ? DateTimeZone.Utc : Zones.Named(question.Tzid, "tzid");
        var start = Local(question.Dtstart, question.AllDay);
        var rule = RuleText.Parse(question.Rrule).CheckedAgainst(start, question.AllDay ? null : zone);
        var timing = question.AllDay ? Timing.WholeDays(start.Date, start.Date, zone) : Timing.Timed(start, start, zone);
        var series = new Series(timing, rule, Locals(question.Rdate, question.AllDay), Locals(question.Exdate, question.AllDay));
        var (from, to) = (Local(question.Window[0], question.AllDay), Local(question.Window[1], question.AllDay));
        // A time moved by a gap may start in the window though its rule position lies a little before it.
        return [.. series.From(from.PlusDays(-1), SchoolCalendar.Empty)
            .TakeWhile(occurrence => occurrence.RecurrenceId < to)
            .Where(occurrence => occurrence.LocalStart >= from && occurrence.LocalStart < to)
            .Select(occurrence => question.AllDay
                ? LocalDatePattern.Iso.Format(occurrence.LocalStart.Date)
                : WithOffset.Format(occurrence.LocalStart.WithOffset(zone.GetUtcOffset(occurrence.Start))))];
    }

    private static LocalDateTime[] Locals(string[]? texts, bool allDay) =>
        [.. (texts ?? []).Select(text => Local(text, allDay)).Distinct().Order()];

    private static LocalDateTime Local(string text, bool allDay) => allDay
        ? LocalDatePattern.Iso.Parse(text).GetValueOrThrow().AtMidnight()
        : LocalDateTimePattern.ExtendedIso.Parse(text).GetValueOrThrow();
}
