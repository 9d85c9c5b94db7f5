using System.Buffers;
using System.Text.Json;
using System.Text.Json.Nodes;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>An event as a revision keeps it: its document, and where it stood.</summary>
internal static class RevisionDocument
{
    public static string Write(CalendarEvent kept, bool isRemoved)
    {
        var output = new ArrayBufferWriter<byte>(1_024);
        using (var writer = new Utf8JsonWriter(output))
        {
            writer.WriteStartObject();
            writer.WriteString("calendar", kept.HomeCalendarId);
            writer.WriteString("state", Words.Of(kept.State));
            writer.WriteStartArray("placements");
            foreach (var placement in kept.Placements)
                writer.WriteStringValue(placement);
            writer.WriteEndArray();
            if (kept.Source is { } source)
                writer.WriteString("source", source);
            if (isRemoved)
                writer.WriteBoolean("inBin", true);
            writer.WritePropertyName("event");
            EventDocument.Write(writer, kept.Content, kept.Exceptions);
            writer.WriteEndObject();
        }
        return System.Text.Encoding.UTF8.GetString(output.WrittenSpan);
    }

    /// <summary>The files that some revisions name.</summary>
    public static Guid[] FilesOf(IEnumerable<string> stored) => [.. stored.SelectMany(FilesOf).Distinct()];

    /// <summary>The event as it was then, and whether it was in the bin. A category or file that is gone since is none.</summary>
    public static (CalendarEvent Event, bool IsRemoved) Read(string stored, CalendarEvent now, Named named)
    {
        using var document = Parse(stored, out var isOfBefore);
        var root = document.RootElement;
        var (content, exceptions) = EventDocument.Read(root.GetProperty("event"), named);
        var then = now with
        {
            HomeCalendarId = root.GetProperty("calendar").GetGuid(),
            State = Words.Read<EventState>(root.GetProperty("state").GetString()!),
            Placements = [.. root.GetProperty("placements").EnumerateArray().Select(one => one.GetGuid())],
            Source = root.TryGetProperty("source", out var source) ? source.GetGuid() : null,
            Content = content,
            Exceptions = exceptions,
        };
        // Before places had ids, what was called as one was one.
        if (isOfBefore)
            then = then.Changing(value => value is Place { Id: null } words ? Place.Typed(words.Name, named.Lists.Places.Values) : value);
        return (then, root.TryGetProperty("inBin", out var inBin) && inBin.GetBoolean());
    }

    private static IEnumerable<Guid> FilesOf(string stored)
    {
        using var document = Parse(stored, out _);
        return document.RootElement.GetProperty("event").TryGetProperty("files", out var files)
            ? [.. files.EnumerateArray().Select(one => one.GetGuid())]
            : [];
    }

    /// <summary>In today's form, whichever it was written in.</summary>
    private static JsonDocument Parse(string stored, out bool isOfBefore)
    {
        var document = JsonDocument.Parse(stored);
        isOfBefore = !document.RootElement.TryGetProperty("event", out _);
        if (!isOfBefore)
            return document;
        document.Dispose();
        return JsonDocument.Parse(FromFlat((JsonObject)JsonNode.Parse(stored)!).ToJsonString());
    }

    /// <summary>The form before documents had versions: fields of the event, of its series and of where it stood side by side, files with
    /// copies of what they are.</summary>
    internal static JsonObject FromFlat(JsonObject old)
    {
        var content = new JsonObject { ["v"] = 1, ["title"] = Text("title"), ["when"] = When() };
        Add(content, "place", Text("place"));
        if (Text("description") is var html and not "" || Text("descriptionText") is not "")
            content["description"] = new JsonObject { ["html"] = Text("description"), ["text"] = Text("descriptionText") };
        Add(content, "category", Text("category"));
        AddAll(content, "tags", old["tags"]);
        AddAll(content, "links", old["links"]);
        if (old["files"] is JsonArray { Count: > 0 } files)
            content["files"] = new JsonArray([.. files.Select(file => file!["id"]!.DeepClone())]);
        Add(content, "contact", Text("contact"));
        Add(content, "notes", Text("notes"));
        AddObject(content, "cap", ("members", Text("capMembers")), ("link", Text("capLink")), ("everyone", Text("capEveryone")));
        AddObject(content, "showing", ("from", Text("showFrom")), ("until", Text("showUntil")));
        if (old["exceptions"] is JsonArray { Count: > 0 } exceptions)
            content["exceptions"] = new JsonArray([.. exceptions.Select(one => (JsonNode)Exception((JsonObject)one!))]);
        return new JsonObject
        {
            ["calendar"] = old["calendar"]!.DeepClone(),
            ["state"] = old["state"]!.DeepClone(),
            ["placements"] = old["placements"] is JsonArray placements ? placements.DeepClone() : new JsonArray(),
            ["inBin"] = old["inBin"]?.DeepClone() ?? false,
            ["event"] = content,
        };

        string Text(string name) => (string?)old[name] ?? "";

        JsonObject When()
        {
            var when = new JsonObject { ["start"] = Text("start"), ["end"] = Text("end"), ["zone"] = Text("zone") };
            if ((bool?)old["allDay"] == true)
                when["allDay"] = true;
            Add(when, "rule", Text("rrule"));
            AddAll(when, "extra", old["extra"]);
            AddAll(when, "removed", old["removed"]);
            Add(when, "inBreaks", Text("inBreaks"));
            if (old["cycle"] is JsonObject cycle)
            {
                when["cycle"] =
                    new JsonObject { ["numbers"] = cycle["numbers"]!.DeepClone(), ["weekdays"] = cycle["weekdays"]!.DeepClone() };
                Add((JsonObject)when["cycle"]!, "until", (string?)cycle["until"] ?? "");
                if (cycle["count"] is { } count)
                    when["cycle"]!["count"] = count.DeepClone();
            }
            return when;
        }

        static JsonObject Exception(JsonObject old)
        {
            var exception = new JsonObject { ["of"] = old["recurrenceId"]!.DeepClone() };
            if ((bool?)old["isCancelled"] == true)
                exception["cancelled"] = true;
            Add(exception, "start", (string?)old["start"] ?? "");
            Add(exception, "end", (string?)old["end"] ?? "");
            var own = new JsonObject();
            foreach (var name in new[] { "title", "place" })
            {
                if (old[name] is { } said)
                    own[name] = said.DeepClone();
            }
            if (old["description"] is { } description)
                own["description"] =
                    new JsonObject { ["html"] = description.DeepClone(), ["text"] = (string?)old["descriptionText"] ?? "" };
            if (own.Count > 0)
                exception["own"] = own;
            return exception;
        }

        static void Add(JsonObject to, string name, string text)
        {
            if (text.Length > 0)
                to[name] = text;
        }

        static void AddAll(JsonObject to, string name, JsonNode? values)
        {
            if (values is JsonArray { Count: > 0 } some)
                to[name] = some.DeepClone();
        }

        static void AddObject(JsonObject to, string name, params (string Name, string Text)[] parts)
        {
            var made = new JsonObject();
            foreach (var (part, text) in parts)
                Add(made, part, text);
            if (made.Count > 0)
                to[name] = made;
        }
    }
}
