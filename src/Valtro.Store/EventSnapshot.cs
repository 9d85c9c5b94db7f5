using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>An event as a revision keeps it: whole, in JSON that is read for years. New fields may be missing in old ones.</summary>
internal sealed record EventSnapshot(
    Guid Calendar, string Title, string Place, string Description, string? DescriptionText, string State, bool AllDay, string Start, string End,
    string Zone, string? Rrule, string[]? Extra, string[]? Removed, string? InBreaks, EventSnapshot.CycleBody? Cycle, Guid? Category, string[]? Tags,
    EventSnapshot.ExceptionBody[]? Exceptions, bool? InBin)
{
    public Guid[]? Placements { get; init; }
    public EventLink[]? Links { get; init; }
    public EventFile[]? Files { get; init; }
    public string? Contact { get; init; }
    public string? Notes { get; init; }
    public string? CapMembers { get; init; }
    public string? CapLink { get; init; }
    public string? CapEveryone { get; init; }
    public string? ShowFrom { get; init; }
    public string? ShowUntil { get; init; }

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm:ss");

    internal sealed record CycleBody(int[] Numbers, int[] Weekdays, string? Until, int? Count);

    internal sealed record ExceptionBody(string RecurrenceId, bool IsCancelled, string? Start, string? End, string? Title, string? Place, string? Description, string? DescriptionText);

    public static string Write(CalendarEvent happening, bool isRemoved)
    {
        var (content, series) = (happening.Content, happening.Series);
        return JsonSerializer.Serialize(new EventSnapshot(
            happening.HomeCalendarId, content.Title, content.Place, content.Description.Html, content.Description.Text, Words.Of(happening.State),
            series.Timing.AllDay, Local.Format(series.Timing.Start), Local.Format(series.Timing.End), series.Timing.Zone.Id,
            series.Rule is { } rule ? RuleText.Format(rule) : null,
            [.. series.Extra.Select(Local.Format)],
            [.. series.Removed.Select(Local.Format)],
            Words.Of(series.InBreaks),
            series.Cycle is { } cycle
                ? new CycleBody([.. cycle.Numbers], [.. cycle.Weekdays.Select(weekday => (int)weekday)], cycle.Until is { } until ? LocalDatePattern.Iso.Format(until) : null, cycle.Count)
                : null,
            content.Category?.Id,
            [.. content.Tags],
            [.. happening.Exceptions.Select(Body)],
            isRemoved)
        {
            Placements = [.. happening.Placements],
            Links = [.. content.Links],
            Files = [.. content.Files],
            Contact = content.Contact,
            Notes = content.Notes,
            CapMembers = Words.OfOrNull(content.Cap.Members),
            CapLink = Words.OfOrNull(content.Cap.Link),
            CapEveryone = Words.OfOrNull(content.Cap.Everyone),
            ShowFrom = content.Showing.From is { } from ? LocalDatePattern.Iso.Format(from) : null,
            ShowUntil = content.Showing.Until is { } last ? LocalDatePattern.Iso.Format(last) : null,
        }, Options);
    }

    public static EventSnapshot Read(string json) => JsonSerializer.Deserialize<EventSnapshot>(json, Options)!;

    /// <summary>The event as it was then. A category that is gone since is none.</summary>
    public CalendarEvent Apply(CalendarEvent now, IReadOnlyList<Category> categories)
    {
        var zone = Zones.Named(Zone);
        var (start, end) = (At(Start), At(End));
        var timing = AllDay ? Timing.WholeDays(start.Date, end.Date.PlusDays(-1), zone) : Timing.Timed(start, end, zone);
        var series = new Series(timing, Rrule is null ? null : RuleText.Parse(Rrule), [.. (Extra ?? []).Select(At)], [.. (Removed ?? []).Select(At)])
        {
            InBreaks = InBreaks is null ? Core.Recurrence.InBreaks.Ignore : Words.Read<InBreaks>(InBreaks),
            Cycle = Cycle is { } cycle
                ? new CyclePattern(cycle.Numbers, [.. cycle.Weekdays.Select(weekday => (IsoDayOfWeek)weekday)], cycle.Until is null ? null : LocalDatePattern.Iso.Parse(cycle.Until).Value, cycle.Count)
                : null,
        };
        return now with
        {
            HomeCalendarId = Calendar,
            State = Words.Read<EventState>(State),
            Placements = Placements ?? [],
            Content = new EventContent(Title, series, Place, new RichText(Description, DescriptionText ?? ""), categories.FirstOrDefault(one => one.Id == Category), Tags ?? [])
            {
                Links = Links ?? [],
                Files = Files ?? [],
                Contact = Contact ?? "",
                Notes = Notes ?? "",
                Cap = new Cap(Words.ReadOrNull<Detail>(CapMembers), Words.ReadOrNull<Detail>(CapLink), Words.ReadOrNull<Detail>(CapEveryone)),
                Showing = new ShowingSpan(DayOrNull(ShowFrom), DayOrNull(ShowUntil)),
            },
            Exceptions = [.. (Exceptions ?? []).Select(Exception)],
        };
    }

    private static ExceptionBody Body(EventException exception) => new(
        Local.Format(exception.RecurrenceId), exception.IsCancelled, exception.Start is { } start ? Local.Format(start) : null,
        exception.End is { } end ? Local.Format(end) : null, exception.Title, exception.Place, exception.Description?.Html, exception.Description?.Text);

    private static EventException Exception(ExceptionBody body) => new(At(body.RecurrenceId))
    {
        IsCancelled = body.IsCancelled,
        Start = body.Start is null ? null : At(body.Start),
        End = body.End is null ? null : At(body.End),
        Title = body.Title,
        Place = body.Place,
        Description = body.Description is null ? null : new RichText(body.Description, body.DescriptionText ?? ""),
    };

    private static LocalDate? DayOrNull(string? text) => text is null ? null : LocalDatePattern.Iso.Parse(text).GetValueOrThrow();

    private static LocalDateTime At(string text) => Local.Parse(text).GetValueOrThrow();
}
