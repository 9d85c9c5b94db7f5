using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Events;

/// <summary>A description: sanitised HTML, and the same as plain text for programs that show no HTML.</summary>
public sealed record RichText(string Html, string Text)
{
    public static RichText Empty { get; } = new("", "");
}

/// <summary>Where an event stands on its way out. Only live and cancelled events leave the house.</summary>
public enum EventState
{
    Draft,
    Waiting,
    Live,
    Cancelled,
}

/// <summary>A kind of event, from the organisation's list.</summary>
public sealed record Category(Guid Id, string Name, Hue Hue);

/// <summary>A labelled address: sign-up, tickets, map, website.</summary>
public sealed record EventLink(string Label, string Url);

/// <summary>A file held by Valtro and told of under the same disclosure as its event.</summary>
/// <param name="Type">Media type.</param>
/// <param name="Size">Bytes.</param>
public sealed record EventFile(Guid Id, string Name, string Type, long Size)
{
    /// <summary>One that every browser draws; the first of an event's is its picture.</summary>
    public bool IsPicture => Type is "image/png" or "image/jpeg" or "image/webp" or "image/gif";
}

/// <summary>What an editor says of an event, validated.</summary>
/// <param name="Place">A known place of the organisation, by its name, or free text.</param>
/// <param name="Tags">Free words, ascending.</param>
public sealed record EventContent(
    [property: SeenFrom(FieldLevel.Headline)] string Title,
    [property: SeenFrom(FieldLevel.Times)] Series Series,
    [property: SeenFrom(FieldLevel.Headline)] string Place,
    [property: SeenFrom(FieldLevel.Complete)] RichText Description,
    [property: SeenFrom(FieldLevel.Headline)] Category? Category,
    [property: SeenFrom(FieldLevel.Complete)] IReadOnlyList<string> Tags)
{
    public EventContent(string title, Series series, string place, RichText description)
        : this(title, series, place, description, null, [])
    {
    }

    [SeenFrom(FieldLevel.Complete)]
    public IReadOnlyList<EventLink> Links { get; init; } = [];

    [SeenFrom(FieldLevel.Complete)]
    public IReadOnlyList<EventFile> Files { get; init; } = [];

    /// <summary>Whom readers ask: a name, an address, a number; one line.</summary>
    [SeenFrom(FieldLevel.Complete)]
    public string Contact { get; init; } = "";

    /// <summary>For editors; plain text. Never leaves the house.</summary>
    [SeenFrom(FieldLevel.Notes)]
    public string Notes { get; init; } = "";

    [SeenFrom(FieldLevel.Inside)]
    public Cap Cap { get; init; } = Cap.None;

    [SeenFrom(FieldLevel.Inside)]
    public ShowingSpan Showing { get; init; } = ShowingSpan.Always;

    public bool Equals(EventContent? other) =>
        other is not null && Title == other.Title && Series.Equals(other.Series) && Place == other.Place
        && Description == other.Description && IsAlikeAsASeries(other);

    /// <summary>Alike in all that a single date cannot have of its own.</summary>
    public bool IsAlikeAsASeries(EventContent other) =>
        Category == other.Category && Tags.SequenceEqual(other.Tags) && Links.SequenceEqual(other.Links) && Files.SequenceEqual(other.Files)
        && Contact == other.Contact && Notes == other.Notes && Cap == other.Cap && Showing == other.Showing;

    public override int GetHashCode() => HashCode.Combine(Title, Series, Place, Description);
}

/// <summary>A date that differs from its series. It stores only what differs: the rest still follows the series.</summary>
/// <param name="RecurrenceId">Which date: the start it would have by the rule.</param>
public sealed record EventException([property: SeenFrom(FieldLevel.Headline)] LocalDateTime RecurrenceId)
{
    [SeenFrom(FieldLevel.Headline)]
    public bool IsCancelled { get; init; }

    /// <summary>The local start when it was moved; for whole days the midnight of the first.</summary>
    [SeenFrom(FieldLevel.Times)]
    public LocalDateTime? Start { get; init; }

    /// <summary>The local end, exclusive, when it was moved.</summary>
    [SeenFrom(FieldLevel.Times)]
    public LocalDateTime? End { get; init; }

    [SeenFrom(FieldLevel.Headline)]
    public string? Title { get; init; }

    [SeenFrom(FieldLevel.Headline)]
    public string? Place { get; init; }

    [SeenFrom(FieldLevel.Complete)]
    public RichText? Description { get; init; }

    /// <summary>True when nothing differs any more.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public bool IsEmpty => this == new EventException(RecurrenceId);
}

/// <summary>An event as it is kept.</summary>
/// <param name="Uid">Its own name for programs outside, for ever (RFC 7986 5.3).</param>
/// <param name="Created">When it was made.</param>
public sealed record CalendarEvent(
    [property: SeenFrom(FieldLevel.Inside)] Guid Id,
    [property: SeenFrom(FieldLevel.Inside)] Guid HomeCalendarId,
    [property: SeenFrom(FieldLevel.Headline)] Guid Uid,
    [property: SeenFrom(FieldLevel.Times)] EventContent Content,
    [property: SeenFrom(FieldLevel.Headline)] EventState State,
    [property: SeenFrom(FieldLevel.Headline)] Instant Created)
{
    /// <summary>Dates that differ, ascending by rule position. Each names a date that the series gives.</summary>
    [SeenFrom(FieldLevel.Times)]
    public IReadOnlyList<EventException> Exceptions { get; init; } = [];

    /// <summary>The UID of the series that this one continues, when it was split off.</summary>
    [SeenFrom(FieldLevel.Headline)]
    public Guid? Continues { get; init; }

    /// <summary>Calendars besides the home on which it is shown: one event, no copies. Ascending.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public IReadOnlyList<Guid> Placements { get; init; } = [];

    /// <summary>The home, then the placements.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public IEnumerable<Guid> Calendars => Placements.Prepend(HomeCalendarId);

    [SeenFrom(FieldLevel.Times)]
    public Series Series => Content.Series;
}
