using System.Text.Json;
using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>An event as its table has it.</summary>
internal sealed class EventRow
{
    public const string Columns = """
        select e.id, e.home_calendar_id, e.uid, e.title, e.place, e.description_html, e.description_text, e.state,
               e.all_day, e.start_local, e.end_local, e.zone, e.rrule, e.extra, e.removed_dates, e.in_breaks,
               e.cycle_numbers, e.cycle_weekdays, e.cycle_until, e.cycle_count, e.tags, e.continues,
               e.version, e.created_at, e.removed_at,
               e.links::text as links, e.files::text as files, e.contact, e.notes, e.cap_members::text as cap_members, e.cap_link::text as cap_link,
               e.cap_everyone::text as cap_everyone, e.show_from, e.show_until, e.made_by,
               array(select p.calendar_id from placement p where p.event_id = e.id order by p.calendar_id) as placements,
               k.id as category_id, k.name as category_name, k.colour as category_colour
        from event e
        left join category k on k.id = e.category_id

        """;

    public Guid Id { get; init; }
    public Guid HomeCalendarId { get; init; }
    public Guid Uid { get; init; }
    public string Title { get; init; } = "";
    public string Place { get; init; } = "";
    public string DescriptionHtml { get; init; } = "";
    public string DescriptionText { get; init; } = "";
    public string State { get; init; } = "";
    public bool AllDay { get; init; }
    public LocalDateTime StartLocal { get; init; }
    public LocalDateTime EndLocal { get; init; }
    public string Zone { get; init; } = "";
    public string? Rrule { get; init; }
    public LocalDateTime[] Extra { get; init; } = [];
    public LocalDateTime[] RemovedDates { get; init; } = [];
    public string InBreaks { get; init; } = "";
    public short[]? CycleNumbers { get; init; }
    public short[]? CycleWeekdays { get; init; }
    public LocalDate? CycleUntil { get; init; }
    public int? CycleCount { get; init; }
    public string[] Tags { get; init; } = [];
    public Guid? Continues { get; init; }
    public int Version { get; init; }
    public Instant CreatedAt { get; init; }
    public Instant? RemovedAt { get; init; }
    public string Links { get; init; } = "[]";
    public string Files { get; init; } = "[]";
    public string Contact { get; init; } = "";
    public string Notes { get; init; } = "";
    public string? CapMembers { get; init; }
    public string? CapLink { get; init; }
    public string? CapEveryone { get; init; }
    public LocalDate? ShowFrom { get; init; }
    public LocalDate? ShowUntil { get; init; }
    public Guid? MadeBy { get; init; }
    public Guid[] Placements { get; init; } = [];
    public Guid? CategoryId { get; init; }
    public string? CategoryName { get; init; }
    public string? CategoryColour { get; init; }

    public CalendarEvent ToEvent(IReadOnlyList<EventException> exceptions)
    {
        var category = CategoryId is { } id ? new Category(id, CategoryName!, Hue.Named(CategoryColour)) : null;
        return new CalendarEvent(
            Id, HomeCalendarId, Uid, new EventContent(Title, ToSeries(), Place, new RichText(DescriptionHtml, DescriptionText), category, Tags)
            {
                Links = FromJson<EventLink>(Links),
                Files = FromJson<EventFile>(Files),
                Contact = Contact,
                Notes = Notes,
                Cap = new Cap(Words.ReadOrNull<Detail>(CapMembers), Words.ReadOrNull<Detail>(CapLink), Words.ReadOrNull<Detail>(CapEveryone)),
                Showing = ShowFrom is null && ShowUntil is null ? ShowingSpan.Always : new ShowingSpan(ShowFrom, ShowUntil),
            },
            Words.Read<EventState>(State), CreatedAt)
        {
            Exceptions = exceptions,
            Continues = Continues,
            Placements = Placements,
        };
    }

    private static T[] FromJson<T>(string json) => json == "[]" ? [] : JsonSerializer.Deserialize<T[]>(json, JsonSerializerOptions.Web)!;

    private Series ToSeries()
    {
        var zone = Zones.Named(Zone);
        var timing = AllDay
            ? Timing.WholeDays(StartLocal.Date, EndLocal.Date.PlusDays(-1), zone)
            : Timing.Timed(StartLocal, EndLocal, zone);
        return new Series(timing, Rrule is null ? null : RuleText.Parse(Rrule), Extra, RemovedDates)
        {
            InBreaks = Words.Read<InBreaks>(InBreaks),
            Cycle = CycleNumbers is null
                ? null
                : new CyclePattern([.. CycleNumbers.Select(number => (int)number)], [.. CycleWeekdays!.Select(weekday => (IsoDayOfWeek)weekday)], CycleUntil, CycleCount),
        };
    }

    /// <summary>What insert and update write.</summary>
    public static object Parameters(Guid organisationId, EventWrite write, CalendarEvent happening, Guid accountId, Instant now)
    {
        var (content, series) = (happening.Content, happening.Series);
        var (reachFrom, reachTo) = EventDates.Reach(happening);
        return new
        {
            happening.Id,
            OrganisationId = organisationId,
            CalendarId = happening.HomeCalendarId,
            happening.Uid,
            content.Title,
            content.Place,
            content.Description.Html,
            content.Description.Text,
            State = Words.Of(happening.State),
            series.Timing.AllDay,
            series.Timing.Start,
            series.Timing.End,
            Zone = series.Timing.Zone.Id,
            Rrule = series.Rule is { } rule ? RuleText.Format(rule) : null,
            Extra = series.Extra.ToArray(),
            RemovedDates = series.Removed.ToArray(),
            InBreaks = Words.Of(series.InBreaks),
            CycleNumbers = series.Cycle?.Numbers.Select(number => (short)number).ToArray(),
            CycleWeekdays = series.Cycle?.Weekdays.Select(weekday => (short)weekday).ToArray(),
            CycleUntil = series.Cycle?.Until,
            CycleCount = series.Cycle?.Count,
            CategoryId = content.Category?.Id,
            Tags = content.Tags.ToArray(),
            happening.Continues,
            ReachFrom = reachFrom,
            ReachTo = reachTo,
            Links = JsonSerializer.Serialize(content.Links, JsonSerializerOptions.Web),
            Files = JsonSerializer.Serialize(content.Files, JsonSerializerOptions.Web),
            content.Contact,
            content.Notes,
            CapMembers = Words.OfOrNull(content.Cap.Members),
            CapLink = Words.OfOrNull(content.Cap.Link),
            CapEveryone = Words.OfOrNull(content.Cap.Everyone),
            ShowFrom = content.Showing.From,
            ShowUntil = content.Showing.Until,
            write.IsRemoved,
            AccountId = accountId,
            Now = now,
        };
    }
}

/// <summary>A date that differs, as its table has it.</summary>
internal sealed record ExceptionRow(
    Guid EventId, LocalDateTime RecurrenceId, bool IsCancelled, LocalDateTime? StartLocal, LocalDateTime? EndLocal,
    string? Title, string? Place, string? DescriptionHtml, string? DescriptionText)
{
    public const string OfEvents = """
        select event_id, recurrence_id, is_cancelled, start_local, end_local, title, place, description_html, description_text
        from event_exception
        where event_id = any(@events)
        order by event_id, recurrence_id
        """;

    public EventException ToException() => new(RecurrenceId)
    {
        IsCancelled = IsCancelled,
        Start = StartLocal,
        End = EndLocal,
        Title = Title,
        Place = Place,
        Description = DescriptionHtml is null ? null : new RichText(DescriptionHtml, DescriptionText!),
    };
}
