using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Acts;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>An event as its table has it, with what its document names.</summary>
internal sealed class EventRow
{
    private const string Fields = """
        select e.id, e.home_calendar_id, e.uid, e.state, e.continues, e.version, e.created_at, e.removed_at, e.made_by, e.source_id,
            e.content::text as content,
               array(select p.calendar_id from placement p where p.event_id = e.id order by p.calendar_id) as placements,
               case when e.content ? 'files' then (
                   select jsonb_agg(jsonb_build_object('id', f.id, 'name', f.name, 'type', f.type, 'size', octet_length(f.content)))::text
                   from event_reference r
                   join file f on f.id = r.file_id
                   where r.event_id = e.id and r.ended_at is null) end as files
        """;

    public const string Columns = $"""
        {Fields}
        from event e

        """;

    public const string ColumnsWithSaver = $"""
        {Fields}, last.name as saved_by, last.made_at as saved_at
        from event e
        left join lateral (
            select a.name, r.made_at
            from revision r
            join account a on a.id = r.account_id
            where r.event_id = e.id
            order by r.version desc
            limit 1
        ) last on true

        """;

    public Guid Id { get; init; }
    public Guid HomeCalendarId { get; init; }
    public string Uid { get; init; } = "";
    public string State { get; init; } = "";
    public string? Continues { get; init; }
    public int Version { get; init; }
    public Instant CreatedAt { get; init; }
    public Instant? RemovedAt { get; init; }
    public Guid? MadeBy { get; init; }
    public Guid? SourceId { get; init; }
    public string Content { get; init; } = "";
    public Guid[] Placements { get; init; } = [];
    public string? Files { get; init; }
    public string? SavedBy { get; init; }
    public Instant? SavedAt { get; init; }

    public StoredEvent ToStored(NamedLists lists) =>
        new(ToEvent(lists), Version, RemovedAt, SavedBy ?? "", SavedAt ?? CreatedAt, MadeBy);

    public CalendarEvent ToEvent(NamedLists lists)
    {
        using var document = JsonDocument.Parse(Content);
        var files = Files is null ? [] : JsonSerializer.Deserialize<EventFile[]>(Files, JsonSerializerOptions.Web)!;
        var (content, exceptions) = EventDocument.Read(
            document.RootElement, new Named(lists, files.Length == 0 ? Named.Nothing.Files : files.ToDictionary(file => file.Id)));
        return new CalendarEvent(Id, HomeCalendarId, new Uid(Uid), content, Words.Read<EventState>(State), CreatedAt)
        {
            Version = Version,
            Exceptions = exceptions,
            Continues = Continues is { } uid ? new Uid(uid) : null,
            Placements = Placements,
            Source = SourceId,
        };
    }
}

/// <summary>The lists of values in which many events are written at once: each a column, in the order of the events.</summary>
internal sealed class EventColumns(IReadOnlyList<(CalendarEvent Event, EventWrite Write)> events)
{
    public Guid[] Ids { get; } = [.. events.Select(one => one.Event.Id)];
    public Guid[] Homes { get; } = [.. events.Select(one => one.Event.HomeCalendarId)];
    public string[] Uids { get; } = [.. events.Select(one => one.Event.Uid.Text)];
    public string[] States { get; } = [.. events.Select(one => Words.Of(one.Event.State))];
    public string?[] Continued { get; } = [.. events.Select(one => one.Event.Continues?.Text)];
    public string[] Contents { get; } = [.. events.Select(one => EventDocument.Write(one.Event.Content, one.Event.Exceptions))];
    public string[] Reaches { get; } = [.. events.Select(one => ReachOf(one.Event))];
    public Guid?[] Sources { get; } = [.. events.Select(one => one.Event.Source)];
    public bool[] Removed { get; } = [.. events.Select(one => one.Write.IsRemoved)];
    public int[] Versions { get; } = [.. events.Select(one => (one.Write.Version ?? 0) + 1)];
    public string[] Acts { get; } = [.. events.Select(one => Words.Of(one.Write.Act))];
    public string[] Revisions { get; } = [.. events.Select(one => RevisionDocument.Write(one.Event, one.Write.IsRemoved))];

    /// <summary>As PostgreSQL reads a range of instants.</summary>
    private static string ReachOf(CalendarEvent written)
    {
        var (from, to) = EventDates.Reach(written);
        return $"[{InstantPattern.ExtendedIso.Format(from)},{(to is { } end ? InstantPattern.ExtendedIso.Format(end) : "")}]";
    }
}
