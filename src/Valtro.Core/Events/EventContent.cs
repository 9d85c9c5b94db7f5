using NodaTime;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
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

/// <summary>What happens, or what is due: a deadline has no length.</summary>
public enum EventKind
{
    Event,
    Deadline,
}

/// <summary>Whether it is sure to be (RFC 5545 3.8.1.11).</summary>
/// <remarks>This is no state on the way out: what is not certain yet is told too, as such.</remarks>
public enum Certainty
{
    Certain,
    Tentative,
}

/// <summary>Whether it takes the time of those who have it in their calendars (RFC 5545 3.8.2.7).</summary>
public enum Transparency
{
    /// <summary>What has times does, whole days and deadlines do not.</summary>
    Usual,
    Free,
    Busy,
}

/// <summary>What opens behind a link.</summary>
public enum LinkKind
{
    Website,
    SignUp,
    Tickets,
    Map,
    VideoCall,
}

/// <summary>An address on an event.</summary>
/// <param name="Label">Empty where its kind, or its host, says enough.</param>
public sealed record EventLink(string Label, string Url, LinkKind Kind = LinkKind.Website)
{
    /// <summary>What it is called where no more is to be read.</summary>
    public string Called() => Label.Length > 0 ? Label
        : Uri.TryCreate(Url, UriKind.Absolute, out var address) && address.Host.Length > 0 ? address.Host : Url;
}

/// <summary>A file held by Valtro and told of under the same disclosure as its event.</summary>
/// <param name="Type">Media type.</param>
/// <param name="Size">Bytes.</param>
public sealed record EventFile(Guid Id, string Name, string Type, long Size)
{
    /// <summary>One that every browser draws; the first of an event's is its picture.</summary>
    public bool IsPicture => Type is "image/png" or "image/jpeg" or "image/webp" or "image/gif";
}

/// <summary>What an editor says of an event, validated. Each field is declared once, here: see <see cref="EventField"/>.</summary>
/// <remarks>What is not said is at its default. Lists compare by their values, so that two contents are equal when they say the
/// same.</remarks>
public sealed record EventContent
{
    public EventContent(Series series) => Series = series;

    public EventContent(string title, Series series, string place, RichText description)
        : this(series) => (Title, Place, Description) = (title, Place.Called(place), description);

    [Field("title", FieldLevel.Headline, OfOneDate = true, IsSearched = true)]
    public string Title { get; init; } = "";

    /// <summary>A line more under the title.</summary>
    [Field("subtitle", FieldLevel.Headline, OfOneDate = true, IsSearched = true)]
    public string Subtitle { get; init; } = "";

    [Field("kind", FieldLevel.Headline)]
    public EventKind Kind { get; init; }

    [Field("when", FieldLevel.Times)]
    public Series Series { get; init; }

    [Field("certainty", FieldLevel.Headline, OfOneDate = true)]
    public Certainty Certainty { get; init; }

    [Field("transparency", FieldLevel.Times, OfOneDate = true)]
    public Transparency Transparency { get; init; }

    /// <summary>A known place of the organisation, by its name, or free text.</summary>
    [Field("place", FieldLevel.Headline, OfOneDate = true, IsSearched = true, ShownWith = ShownField.Place)]
    public Place Place { get; init; } = Place.Nowhere;

    [Field("description", FieldLevel.Complete, OfOneDate = true, IsSearched = true, ShownWith = ShownField.Description)]
    public RichText Description { get; init; } = RichText.Empty;

    [Field("category", FieldLevel.Headline, Form = "categoryId", ShownWith = ShownField.Category)]
    public Category? Category { get; init; }

    /// <summary>Free words, ascending.</summary>
    [Field("tags", FieldLevel.Complete, ShownWith = ShownField.Category)]
    public ValueList<string> Tags { get; init; } = [];

    [Field("links", FieldLevel.Complete, ShownWith = ShownField.Links)]
    public ValueList<EventLink> Links { get; init; } = [];

    [Field("files", FieldLevel.Complete, ShownWith = ShownField.Files)]
    public ValueList<EventFile> Files { get; init; } = [];

    /// <summary>Of the first of the files that is a picture.</summary>
    [Field("picture", FieldLevel.Complete, ShownWith = ShownField.Picture)]
    public PictureNote Picture { get; init; } = PictureNote.None;

    /// <summary>Whom readers ask: a name, an address, a number; one line.</summary>
    [Field("contact", FieldLevel.Complete, ShownWith = ShownField.Contact)]
    public string Contact { get; init; } = "";

    /// <summary>Who is responsible, those who lead first.</summary>
    [Field("people", FieldLevel.Complete, Needs = Grants.Names, OfOneDate = true, ShownWith = ShownField.People)]
    public ValueList<Involved> People { get; init; } = [];

    [Field("staffSpan", FieldLevel.Complete, Needs = Grants.StaffSpan, OfOneDate = true)]
    public StaffSpan StaffSpan { get; init; } = StaffSpan.None;

    /// <summary>For feeds that deliver reminders.</summary>
    [Field("reminder", FieldLevel.Complete)]
    public Reminder? Reminder { get; init; }

    /// <summary>For editors; plain text. Never leaves the house.</summary>
    [Field("notes", FieldLevel.Complete, Needs = Grants.Notes)]
    public string Notes { get; init; } = "";

    [Field("cap", FieldLevel.Complete, Needs = Grants.Settings)]
    public Cap Cap { get; init; } = Cap.None;

    [Field("showing", FieldLevel.Complete, Needs = Grants.Settings, Form = "showFrom showUntil")]
    public ShowingSpan Showing { get; init; } = ShowingSpan.Always;

    [SeenFrom(FieldLevel.Headline)]
    public bool IsDeadline => Kind == EventKind.Deadline;

    /// <summary>Whoever has it in their calendar is not busy for it.</summary>
    [SeenFrom(FieldLevel.Times)]
    public bool TakesNoTime => IsDeadline || Transparency == Transparency.Free;

    /// <summary>What somebody gets of it: all else is as if it had not been said.</summary>
    /// <param name="when">As when it happens, if that is not told as it is.</param>
    public EventContent SeenBy(Detail detail, Grants grants = Grants.None, Series? when = null)
    {
        var seen = this with { Series = when ?? Series };
        foreach (var field in EventField.HiddenAt(detail, grants))
            field.Clear(seen);
        return seen;
    }

    /// <summary>Without the fields that are chosen.</summary>
    public EventContent Without(Func<EventField, bool> which)
    {
        var copy = this with { };
        foreach (var field in EventField.All.Where(which))
            field.Clear(copy);
        return copy;
    }

    /// <summary>With other values in some fields.</summary>
    public EventContent With(IEnumerable<KeyValuePair<EventField, object>> values)
    {
        var copy = this with { };
        foreach (var (field, value) in values)
            field.Put(copy, value);
        return copy;
    }

    /// <summary>With some fields as another content has them.</summary>
    public EventContent With(EventContent other, Func<EventField, bool> which) =>
        With(EventField.All.Where(which).Select(field => KeyValuePair.Create(field, field.Of(other)!)));

    /// <summary>The fields that another version says otherwise.</summary>
    public IEnumerable<EventField> Differences(EventContent other) => EventField.All.Where(field => !field.IsSame(this, other));
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

    /// <summary>Each by its own level.</summary>
    [SeenFrom(FieldLevel.Headline)]
    public OwnFields Own { get; init; } = OwnFields.None;

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
    [property: SeenFrom(FieldLevel.Headline)] Uid Uid,
    [property: SeenFrom(FieldLevel.Times)] EventContent Content,
    [property: SeenFrom(FieldLevel.Headline)] EventState State,
    [property: SeenFrom(FieldLevel.Headline)] Instant Created)
{
    /// <summary>Rises with every save, for the people who change it; 0 where it is not kept yet.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public int Version { get; init; }

    /// <summary>Dates that differ, ascending by rule position. Each names a date that the series gives.</summary>
    [SeenFrom(FieldLevel.Times)]
    public IReadOnlyList<EventException> Exceptions { get; init; } = [];

    /// <summary>The UID of the series that this one continues, when it was split off.</summary>
    [SeenFrom(FieldLevel.Headline)]
    public Uid? Continues { get; init; }

    /// <summary>Calendars besides the home on which it is shown: one event, no copies. Ascending.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public IReadOnlyList<Guid> Placements { get; init; } = [];

    /// <summary>The followed source that says it; null where people here do.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public Guid? Source { get; init; }

    /// <summary>The home, then the placements.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public IEnumerable<Guid> Calendars => Placements.Prepend(HomeCalendarId);

    [SeenFrom(FieldLevel.Times)]
    public Series Series => Content.Series;

    /// <summary>What its dates say: as the series, and where one has something of its own, that.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public IEnumerable<EventContent> Contents => Exceptions.Select(exception => exception.Own.Over(Content)).Prepend(Content);

    /// <summary>Somebody is responsible, on some date at least.</summary>
    [SeenFrom(FieldLevel.Inside)]
    public bool HasPeople => Contents.Any(content => content.People.Count > 0);

    /// <summary>The places of the list at which it is, on some date at least.</summary>
    [SeenFrom(FieldLevel.Headline)]
    public IEnumerable<Place> Places => Contents.Select(content => content.Place).Where(place => place.Id is not null).Distinct();

    /// <summary>With other values in place of some, those of single dates too.</summary>
    /// <param name="change">Gets each value, and gives it back where it stays.</param>
    public CalendarEvent Changing(Func<object, object> change) => this with
    {
        Content = Content.With(EventField.All
            .Where(field => field.Of(Content) is not null)
            .Select(field => KeyValuePair.Create(field, change(field.Of(Content)!)))),
        Exceptions = [.. Exceptions.Select(one => one with
        {
            Own = OwnFields.Of(one.Own.Values.Select(own => KeyValuePair.Create(own.Key, change(own.Value)))),
        })],
    };
}
