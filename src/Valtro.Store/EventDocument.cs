using System.Buffers;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>What documents name by id, as it is now.</summary>
/// <param name="Files">Those that the documents at hand name.</param>
internal sealed record Named(NamedLists Lists, IReadOnlyDictionary<Guid, EventFile> Files)
{
    public static Named Nothing { get; } =
        new(new NamedLists(new Dictionary<Guid, Category>(), new Dictionary<Guid, Place>(), new Dictionary<Guid, string>()),
            new Dictionary<Guid, EventFile>());
}

/// <summary>The stored form of what an event says: one JSON document, with a version and names of its own, that is read for
/// years.</summary>
/// <remarks>
/// Fields are written under their declared names (<see cref="EventField"/>), by the types of their values; what is at its default is left
/// out.
/// A new field of a known type needs nothing here. Categories, files and places of the list stand as ids. docs/decisions/documents.md says
/// why.
/// </remarks>
internal static class EventDocument
{
    public const int Version = 1;

    private const string VersionName = "v";
    private const string ExceptionsName = "exceptions";

    public static string Write(EventContent content, IReadOnlyList<EventException> exceptions)
    {
        var output = new ArrayBufferWriter<byte>(512);
        using (var writer = new Utf8JsonWriter(output))
            Write(writer, content, exceptions);
        return System.Text.Encoding.UTF8.GetString(output.WrittenSpan);
    }

    public static void Write(Utf8JsonWriter writer, EventContent content, IReadOnlyList<EventException> exceptions)
    {
        writer.WriteStartObject();
        writer.WriteNumber(VersionName, Version);
        foreach (var field in EventField.All)
        {
            if (field.IsUnsaid(content))
                continue;
            writer.WritePropertyName(field.Name);
            WriteValue(writer, field.Of(content)!);
        }
        if (exceptions.Count > 0)
        {
            writer.WriteStartArray(ExceptionsName);
            foreach (var exception in exceptions)
                Write(writer, exception);
            writer.WriteEndArray();
        }
        writer.WriteEndObject();
    }

    /// <exception cref="NotSupportedException">It was written by a later version of Valtro.</exception>
    public static (EventContent Content, IReadOnlyList<EventException> Exceptions) Read(JsonElement document, Named named)
    {
        if (document.GetProperty(VersionName).GetInt32() is var version and not Version)
            throw new NotSupportedException($"A stored event has the form {version}; this version of Valtro reads forms up to {Version}.");
        Series? series = null;
        IReadOnlyList<EventException> exceptions = [];
        var values = new List<KeyValuePair<EventField, object>>();
        foreach (var property in document.EnumerateObject())
        {
            if (property.NameEquals(ExceptionsName))
                exceptions = [.. property.Value.EnumerateArray().Select(one => ReadException(one, named))];
            else if (EventField.Find(property.Name) is { } field && ReadValue(field.Type, property.Value, named) is { } value)
            {
                if (value is Series when)
                    series = when;
                else
                    values.Add(KeyValuePair.Create(field, value));
            }
        }
        return (new EventContent(series ?? throw new JsonException("A stored event does not say when it is.")).With(values), exceptions);
    }

    private static void Write(Utf8JsonWriter writer, EventException exception)
    {
        writer.WriteStartObject();
        writer.WriteString("of", IsoTime.Of(exception.RecurrenceId));
        if (exception.IsCancelled)
            writer.WriteBoolean("cancelled", true);
        if (exception.Start is { } start)
            writer.WriteString("start", IsoTime.Of(start));
        if (exception.End is { } end)
            writer.WriteString("end", IsoTime.Of(end));
        if (!exception.Own.IsNone)
        {
            writer.WriteStartObject("own");
            foreach (var (field, value) in exception.Own.Values)
            {
                writer.WritePropertyName(field.Name);
                WriteValue(writer, value);
            }
            writer.WriteEndObject();
        }
        writer.WriteEndObject();
    }

    private static EventException ReadException(JsonElement stored, Named named) => new(At(stored.GetProperty("of")))
    {
        IsCancelled = stored.TryGetProperty("cancelled", out var cancelled) && cancelled.GetBoolean(),
        Start = stored.TryGetProperty("start", out var start) ? At(start) : null,
        End = stored.TryGetProperty("end", out var end) ? At(end) : null,
        Own = stored.TryGetProperty("own", out var own)
            ? OwnFields.Of(from property in own.EnumerateObject()
                           let field = EventField.Find(property.Name)
                           where field is { IsOfOneDate: true }
                           let value = ReadValue(field.Type, property.Value, named)
                           where value is not null
                           select KeyValuePair.Create(field, value))
            : OwnFields.None,
    };

    // ---- values, by type

    private static void WriteValue(Utf8JsonWriter writer, object value)
    {
        switch (value)
        {
            case string text:
                writer.WriteStringValue(text);
                break;
            case RichText rich:
                writer.WriteStartObject();
                writer.WriteString("html", rich.Html);
                writer.WriteString("text", rich.Text);
                writer.WriteEndObject();
                break;
            case Category category:
                writer.WriteStringValue(category.Id);
                break;
            case Place { Id: { } id }:
                writer.WriteStartObject();
                writer.WriteString("id", id);
                writer.WriteEndObject();
                break;
            case Place words:
                writer.WriteStringValue(words.Name);
                break;
            case Series series:
                Write(writer, series);
                break;
            case StaffSpan span:
                writer.WriteStartObject();
                writer.WriteNumber("before", span.Before);
                writer.WriteNumber("after", span.After);
                writer.WriteEndObject();
                break;
            case PictureNote note:
                writer.WriteStartObject();
                writer.WriteString("alternative", note.Alternative);
                writer.WriteString("focus", Words.Of(note.Focus));
                writer.WriteEndObject();
                break;
            case Reminder reminder:
                writer.WriteStartObject();
                writer.WriteNumber("amount", reminder.Amount);
                writer.WriteString("unit", Words.Of(reminder.Unit));
                WriteTime(writer, "at", reminder.At);
                writer.WriteEndObject();
                break;
            case Enum word:
                writer.WriteStringValue(Words.Of(word));
                break;
            case Cap cap:
                writer.WriteStartObject();
                WriteWord(writer, "members", cap.Members);
                WriteWord(writer, "link", cap.Link);
                WriteWord(writer, "everyone", cap.Everyone);
                writer.WriteEndObject();
                break;
            case ShowingSpan span:
                writer.WriteStartObject();
                WriteDay(writer, "from", span.From);
                WriteDay(writer, "until", span.Until);
                writer.WriteEndObject();
                break;
            case ValueList<string> texts:
                WriteAll(writer, texts, writer.WriteStringValue);
                break;
            case ValueList<EventFile> files:
                WriteAll(writer, files, file => writer.WriteStringValue(file.Id));
                break;
            case ValueList<Involved> people:
                WriteAll(writer, people, one =>
                {
                    writer.WriteStartObject();
                    if (one.MemberId is { } member)
                        writer.WriteString("member", member);
                    else
                        writer.WriteString("name", one.Name);
                    if (one.Part != Part.Leads)
                        writer.WriteString("part", Words.Of(one.Part));
                    WriteTime(writer, "from", one.From);
                    WriteTime(writer, "to", one.To);
                    writer.WriteEndObject();
                });
                break;
            case ValueList<EventLink> links:
                WriteAll(writer, links, link =>
                {
                    writer.WriteStartObject();
                    writer.WriteString("label", link.Label);
                    writer.WriteString("url", link.Url);
                    if (link.Kind != LinkKind.Website)
                        writer.WriteString("kind", Words.Of(link.Kind));
                    writer.WriteEndObject();
                });
                break;
            default:
                throw new NotSupportedException($"Nobody has said how a {value.GetType().Name} is stored.");
        }
    }

    /// <returns>Null where it names something that is gone.</returns>
    private static object? ReadValue(Type type, JsonElement stored, Named named)
    {
        if (type == typeof(string))
            return stored.GetString();
        if (type == typeof(RichText))
            return new RichText(stored.GetProperty("html").GetString()!, stored.GetProperty("text").GetString()!);
        if (type == typeof(Category))
            return named.Lists.Categories.GetValueOrDefault(stored.GetGuid());
        if (type == typeof(Place))
            return stored.ValueKind == JsonValueKind.String
                ? Place.Called(stored.GetString()!)
                : named.Lists.Places.GetValueOrDefault(stored.GetProperty("id").GetGuid());
        if (type == typeof(Series))
            return ReadSeries(stored);
        if (type == typeof(StaffSpan))
            return new StaffSpan(stored.GetProperty("before").GetInt32(), stored.GetProperty("after").GetInt32());
        if (type == typeof(PictureNote))
            return new PictureNote(
                stored.GetProperty("alternative").GetString()!, Word<Focus>(stored, "focus") ?? Focus.Centre);
        if (type == typeof(Reminder))
            return new Reminder(
                stored.GetProperty("amount").GetInt32(), Word<ReminderUnit>(stored, "unit") ?? ReminderUnit.Minutes,
                Time(stored, "at"));
        if (type.IsEnum)
            return Words.Read(type, stored.GetString()!);
        if (type == typeof(Cap))
            return new Cap(Word<Detail>(stored, "members"), Word<Detail>(stored, "link"), Word<Detail>(stored, "everyone"));
        if (type == typeof(ShowingSpan))
            return new ShowingSpan(Day(stored, "from"), Day(stored, "until"));
        if (type == typeof(ValueList<string>))
            return List(stored.EnumerateArray().Select(one => one.GetString()!));
        if (type == typeof(ValueList<EventFile>))
            return List(stored.EnumerateArray().Select(one => named.Files.GetValueOrDefault(one.GetGuid())).OfType<EventFile>());
        if (type == typeof(ValueList<Involved>))
            return List(stored.EnumerateArray().Select(one => ReadInvolved(one, named)).OfType<Involved>());
        if (type == typeof(ValueList<EventLink>))
            return List(stored.EnumerateArray()
                .Select(one => new EventLink(one.GetProperty("label").GetString()!, one.GetProperty("url").GetString()!,
                    Word<LinkKind>(one, "kind") ?? LinkKind.Website)));
        throw new NotSupportedException($"Nobody has said how a {type.Name} is stored.");

        static ValueList<T> List<T>(IEnumerable<T> values) => [.. values];
    }

    /// <returns>Null for a member who never was one here.</returns>
    private static Involved? ReadInvolved(JsonElement stored, Named named)
    {
        Guid? member = stored.TryGetProperty("member", out var id) ? id.GetGuid() : null;
        var name = member is { } known ? named.Lists.Members.GetValueOrDefault(known) : stored.GetProperty("name").GetString();
        return name is null
            ? null
            : new Involved(member, name, Word<Part>(stored, "part") ?? Part.Leads, Time(stored, "from"), Time(stored, "to"));
    }

    private static void WriteTime(Utf8JsonWriter writer, string name, LocalTime? time)
    {
        if (time is { } said)
            writer.WriteString(name, LocalTimePattern.ExtendedIso.Format(said));
    }

    private static LocalTime? Time(JsonElement stored, string name) =>
        stored.TryGetProperty(name, out var time) ? LocalTimePattern.ExtendedIso.Parse(time.GetString()!).GetValueOrThrow() : null;

    private static void WriteAll<T>(Utf8JsonWriter writer, ValueList<T> values, Action<T> write)
    {
        writer.WriteStartArray();
        foreach (var value in values)
            write(value);
        writer.WriteEndArray();
    }

    private static void Write(Utf8JsonWriter writer, Series series)
    {
        var timing = series.Timing;
        writer.WriteStartObject();
        if (timing.AllDay)
            writer.WriteBoolean("allDay", true);
        writer.WriteString("start", IsoTime.Of(timing.Start));
        writer.WriteString("end", IsoTime.Of(timing.End));
        writer.WriteString("zone", timing.Zone.Id);
        if (series.Rule is { } rule)
            writer.WriteString("rule", RuleText.Format(rule));
        WriteDates(writer, "extra", series.Extra);
        WriteDates(writer, "removed", series.Removed);
        if (series.InBreaks != InBreaks.Ignore)
            WriteWord<InBreaks>(writer, "inBreaks", series.InBreaks);
        if (series.CountsTaking)
            writer.WriteBoolean("countsTaking", true);
        if (series.Cycle is { } cycle)
        {
            writer.WriteStartObject("cycle");
            WriteNumbers(writer, "numbers", cycle.Numbers);
            WriteNumbers(writer, "weekdays", cycle.Weekdays.Select(weekday => (int)weekday));
            WriteDay(writer, "until", cycle.Until);
            if (cycle.Count is { } count)
                writer.WriteNumber("count", count);
            writer.WriteEndObject();
        }
        writer.WriteEndObject();
    }

    private static Series ReadSeries(JsonElement stored)
    {
        var (start, end) = (At(stored.GetProperty("start")), At(stored.GetProperty("end")));
        var zone = Zones.Named(stored.GetProperty("zone").GetString()!);
        var timing = stored.TryGetProperty("allDay", out var allDay) && allDay.GetBoolean()
            ? Timing.WholeDays(start.Date, end.Date.PlusDays(-1), zone)
            : Timing.Timed(start, end, zone);
        return new Series(timing, stored.TryGetProperty("rule", out var rule) ? Rules.Of(rule.GetString()!) : null, Dates(stored, "extra"),
            Dates(stored, "removed"))
        {
            InBreaks = Word<InBreaks>(stored, "inBreaks") ?? InBreaks.Ignore,
            CountsTaking = stored.TryGetProperty("countsTaking", out var taking) && taking.GetBoolean(),
            Cycle = stored.TryGetProperty("cycle", out var cycle)
                ? new CyclePattern(
                    Numbers(cycle, "numbers"), [.. Numbers(cycle, "weekdays").Select(weekday => (IsoDayOfWeek)weekday)],
                    Day(cycle, "until"),
                    cycle.TryGetProperty("count", out var count) ? count.GetInt32() : null)
                : null,
        };
    }

    private static void WriteDates(Utf8JsonWriter writer, string name, IReadOnlyList<LocalDateTime> dates)
    {
        if (dates.Count == 0)
            return;
        writer.WriteStartArray(name);
        foreach (var date in dates)
            writer.WriteStringValue(IsoTime.Of(date));
        writer.WriteEndArray();
    }

    private static LocalDateTime[] Dates(JsonElement stored, string name) =>
        stored.TryGetProperty(name, out var dates) ? [.. dates.EnumerateArray().Select(At)] : [];

    private static void WriteNumbers(Utf8JsonWriter writer, string name, IEnumerable<int> numbers)
    {
        writer.WriteStartArray(name);
        foreach (var number in numbers)
            writer.WriteNumberValue(number);
        writer.WriteEndArray();
    }

    private static int[] Numbers(JsonElement stored, string name) =>
        [.. stored.GetProperty(name).EnumerateArray().Select(one => one.GetInt32())];

    private static void WriteWord<T>(Utf8JsonWriter writer, string name, T? value)
        where T : struct, Enum
    {
        if (value is { } said)
            writer.WriteString(name, Words.Of(said));
    }

    private static T? Word<T>(JsonElement stored, string name)
        where T : struct, Enum => stored.TryGetProperty(name, out var word) ? Words.Read<T>(word.GetString()!) : null;

    private static void WriteDay(Utf8JsonWriter writer, string name, LocalDate? day)
    {
        if (day is { } said)
            writer.WriteString(name, LocalDatePattern.Iso.Format(said));
    }

    private static LocalDate? Day(JsonElement stored, string name) =>
        stored.TryGetProperty(name, out var day) ? LocalDatePattern.Iso.Parse(day.GetString()!).GetValueOrThrow() : null;

    private static LocalDateTime At(JsonElement text) => LocalText.Read(text.GetString()!);
}
