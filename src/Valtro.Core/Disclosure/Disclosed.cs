using Valtro.Core.Events;

namespace Valtro.Core.Disclosure;

/// <summary>What an audience gets of an event, or of one of its dates: the only form in which one leaves the house.</summary>
/// <param name="Title">"Busy" at <see cref="Detail.Times"/>.</param>
/// <param name="Description">Empty below <see cref="Detail.Complete"/>.</param>
/// <param name="Tags">None below <see cref="Detail.Complete"/>.</param>
/// <param name="Uid">The event's UID, or one that cannot be linked with it at <see cref="Detail.Times"/>.</param>
public sealed record Disclosed(
    Detail Detail,
    string Title,
    string Place,
    RichText Description,
    Category? Category,
    IReadOnlyList<string> Tags,
    EventState State,
    Guid Uid)
{
    public const string Busy = "Busy";

    /// <summary>The UID as feeds and addresses write it.</summary>
    public string Identity => Uid.ToString();

    /// <summary>None below <see cref="Detail.Complete"/>.</summary>
    public IReadOnlyList<EventLink> Links { get; private init; } = [];

    /// <summary>The first file that is one. None below <see cref="Detail.Complete"/>.</summary>
    public EventFile? Picture { get; private init; }

    /// <summary>None below <see cref="Detail.Complete"/>.</summary>
    public IReadOnlyList<EventFile> Files { get; private init; } = [];

    /// <summary>Empty below <see cref="Detail.Complete"/>.</summary>
    public string Contact { get; private init; } = "";

    /// <summary>Empty but for those who may change the event.</summary>
    public string Notes { get; private init; } = "";

    /// <summary>The event as a whole at that level, or null when there is nothing to see.</summary>
    /// <remarks>Who is looking decides <see cref="Visibility"/>; this alone decides which fields that gives them.</remarks>
    public static Disclosed? Of(CalendarEvent happening, Detail detail, bool readsNotes = false) =>
        Make(happening, detail, happening.Content.Title, happening.Content.Place, happening.Content.Description, happening.State, readsNotes);

    /// <summary>One date at that level, with what is its own.</summary>
    public static Disclosed? Of(EventDate date, Detail detail, bool readsNotes = false) =>
        Make(date.Event, detail, date.Title, date.Place, date.Description, date.State, readsNotes);

    /// <summary>What readers of an edition get: only live and cancelled events, no notes.</summary>
    public static Disclosed? ForReaders(CalendarEvent happening, Detail detail) => Visibility.LeavesTheHouse(happening.State) ? Of(happening, detail) : null;

    /// <summary>A break of the year plan, which every audience may know.</summary>
    public static Disclosed OfBreak(YearPlans.NamedDays closed) =>
        new(Detail.Headline, closed.Name, "", RichText.Empty, null, [], EventState.Live, new Guid(closed.First.Year * 10_000 + closed.First.Month * 100 + closed.First.Day, 0, 0, new byte[8]));

    /// <summary>The same under a title that an edition's pattern made of it.</summary>
    public Disclosed Titled(string title) => title == Title ? this : this with { Title = title };

    /// <summary>The same with fewer fields.</summary>
    public Disclosed Showing(IReadOnlySet<Editions.ShownField> fields) => this with
    {
        Place = fields.Contains(Editions.ShownField.Place) ? Place : "",
        Category = fields.Contains(Editions.ShownField.Category) ? Category : null,
        Tags = fields.Contains(Editions.ShownField.Category) ? Tags : [],
        Description = fields.Contains(Editions.ShownField.Description) ? Description : RichText.Empty,
        Links = fields.Contains(Editions.ShownField.Links) ? Links : [],
        Files = fields.Contains(Editions.ShownField.Files) ? Files : [],
        Picture = fields.Contains(Editions.ShownField.Picture) ? Picture : null,
        Contact = fields.Contains(Editions.ShownField.Contact) ? Contact : "",
    };

    private static Disclosed? Make(CalendarEvent happening, Detail detail, string title, string place, RichText description, EventState state, bool readsNotes)
    {
        var content = happening.Content;
        return detail switch
        {
            Detail.Complete => new(detail, title, place, description, content.Category, content.Tags, state, happening.Uid)
            {
                Links = content.Links,
                Files = content.Files,
                Picture = content.Files.FirstOrDefault(file => file.IsPicture),
                Contact = content.Contact,
                Notes = readsNotes ? content.Notes : "",
            },
            Detail.Headline => new(detail, title, place, RichText.Empty, content.Category, [], state, happening.Uid),
            Detail.Times when state != EventState.Cancelled => new(detail, Busy, "", RichText.Empty, null, [], EventState.Live, Unlinkable(happening)),
            _ => null,
        };
    }

    /// <summary>Stable for the event, so that programs update it, but no way back to its real UID.</summary>
    private static Guid Unlinkable(CalendarEvent happening)
    {
        var digest = System.Security.Cryptography.HMACSHA256.HashData(happening.Uid.ToByteArray(), "times"u8);
        return new Guid(digest.AsSpan(0, 16));
    }
}
