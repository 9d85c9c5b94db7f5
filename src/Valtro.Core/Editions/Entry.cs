using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Core.Editions;

/// <summary>What is told of an event, and whose it is: one for all of its dates that are told alike.</summary>
/// <param name="Of">Null for a break of the year plan.</param>
internal sealed record Told(CalendarEvent? Of, Disclosed Disclosed, Timing Timing, IReadOnlyList<Source> Sources)
{
    public IReadOnlyList<SourceDate> LookAlikes { get; init; } = [];

    /// <summary>What the edition shows of it, and under which title; the last step writes both.</summary>
    public (Disclosed Disclosed, string Title)? Shown { get; set; }
}

/// <summary>A date while it is composed.</summary>
internal readonly record struct Dated(Told Told, Occurrence Occurrence)
{
    public Disclosed Event => Told.Disclosed;

    /// <summary>Here too, since all that are at one moment are compared by it.</summary>
    public string Title { get; } = Told.Disclosed.Title;

    /// <summary>By day, whole days before times, then by moment: one number, since sorting is what costs.</summary>
    public long Order => OrderOf(DayNumbers.Of(Occurrence.LocalStart.Date), Told.Timing.AllDay, Occurrence.Start);

    /// <summary>Twenty bits hold the seconds from two days before the day begins in Greenwich to two days after it ends.</summary>
    private static long OrderOf(long day, bool allDay, Instant start) =>
        (day << 20) + (allDay ? 0 : start.ToUnixTimeSeconds() - day * 86_400 + 2 * 86_400);
}

/// <summary>A date of an event; of the event as a whole where it is null.</summary>
public readonly record struct SourceDate(Guid EventId, LocalDateTime? Date);

/// <summary>One line of an edition: a date after filtering, disclosure, merging and titling.</summary>
/// <remarks>A value: an edition of a year has tens of thousands, and as objects they would cost more to keep than to make.</remarks>
public readonly struct Entry
{
    private readonly Told _told;

    internal Entry(Told told, Occurrence occurrence) => (_told, Occurrence) = (told, occurrence);

    /// <summary>What is told of it; its title is the event's own.</summary>
    public Disclosed Event => _told.Shown?.Disclosed ?? _told.Disclosed;

    public Timing Timing => _told.Timing;

    public Occurrence Occurrence { get; }

    /// <summary>Whose it is, as far as the audience may know, by plate. None for a break.</summary>
    public IReadOnlyList<Source> Sources => _told.Sources;

    /// <summary>By the edition's pattern, without plates: a page draws them.</summary>
    public string Title => _told.Shown?.Title ?? _told.Disclosed.Title;

    /// <summary>The dates of other events that became one with it.</summary>
    public IReadOnlyList<SourceDate> LookAlikes => _told.LookAlikes;

    /// <summary>A break of the year plan, not an event.</summary>
    public bool IsBreak => Of is null;

    /// <summary>Null for a break.</summary>
    public Guid? EventId => Of?.Id;

    /// <summary>Its event has no other.</summary>
    public bool IsOnlyDate => Of?.Series.Recurs == false;

    internal CalendarEvent? Of => _told.Of;
}

/// <summary>Entries in pieces: one array of all would be kept, with all that it holds, until the collector next looks at
/// everything.</summary>
internal sealed class EntryList(int count) : IReadOnlyList<Entry>
{
    /// <summary>About 45 kB, which the runtime still counts as a small object.</summary>
    private const int PieceBits = 9;

    private readonly Entry[][] _pieces = [.. Enumerable.Range(0, (count >> PieceBits) + 1)
        .Select(piece => new Entry[Math.Min(1 << PieceBits, count - (piece << PieceBits))])];

    public int Count => count;

    public Entry this[int index]
    {
        get => _pieces[index >> PieceBits][index & ((1 << PieceBits) - 1)];
        set => _pieces[index >> PieceBits][index & ((1 << PieceBits) - 1)] = value;
    }

    public IEnumerator<Entry> GetEnumerator() => _pieces.SelectMany(piece => piece).GetEnumerator();

    System.Collections.IEnumerator System.Collections.IEnumerable.GetEnumerator() => GetEnumerator();
}

/// <summary>An edition at a moment.</summary>
/// <param name="Entries">Ascending by start; whole days first, then by title.</param>
/// <param name="Found">How many there were before the limit.</param>
/// <param name="TurnsAt">When it becomes another by itself: an event appears or disappears, something is over, a day begins. Null when
/// never.</param>
public sealed record Composed(IReadOnlyList<Entry> Entries, int Found, Instant? TurnsAt);

/// <summary>An event, unexpanded, as a feed delivers it: its readers expand rules themselves.</summary>
/// <param name="Sources">Whose it is, as far as the audience may know.</param>
/// <param name="LookAlikes">Events that became one with it.</param>
/// <param name="Shape">What is told of a date of its own, from all that the level tells; null when it is not delivered.</param>
public sealed record Delivered(CalendarEvent Event, Disclosed Disclosed, IReadOnlyList<Source> Sources,
    IReadOnlyList<CalendarEvent> LookAlikes, Func<Disclosed, Disclosed?> Shape)
{
    public IReadOnlyList<Guid> Calendars => Sources.Count == 0 ? [] : [.. Sources.Select(source => source.CalendarId)];

    /// <summary>All that a level tells readers, by the event's own titles; null when it tells them nothing.</summary>
    public static Delivered? AtLevel(CalendarEvent calendarEvent, Detail detail) =>
        Disclosed.ForReaders(calendarEvent, detail) is { } disclosed
            ? new(calendarEvent, disclosed, [], [], told => Visibility.LeavesTheHouse(told.State) ? told : null)
            : null;
}
