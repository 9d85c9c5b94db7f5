using Valtro.Core.Events;

namespace Valtro.Core.Disclosure;

/// <summary>What an audience gets of an event: the only form in which one leaves the house.</summary>
/// <param name="Title">"Busy" at <see cref="Detail.Times"/>.</param>
/// <param name="Description">Empty below <see cref="Detail.Complete"/>.</param>
/// <param name="Identity">The event's UID, or one that cannot be linked with it at <see cref="Detail.Times"/>.</param>
public sealed record Disclosed(
    Detail Detail,
    string Title,
    string Place,
    RichText Description,
    EventState State,
    string Identity)
{
    public const string Busy = "Busy";

    /// <summary>The event at that level, or null when there is nothing to see.</summary>
    /// <remarks>The caller decides who is looking; this alone decides which fields that gives them.</remarks>
    public static Disclosed? Of(CalendarEvent happening, Detail detail) => detail switch
    {
        Detail.Complete => new(detail, happening.Content.Title, happening.Content.Place, happening.Content.Description, happening.State, Uid(happening)),
        Detail.Headline => new(detail, happening.Content.Title, happening.Content.Place, RichText.Empty, happening.State, Uid(happening)),
        Detail.Times when happening.State != EventState.Cancelled => new(detail, Busy, "", RichText.Empty, EventState.Live, Unlinkable(happening)),
        _ => null,
    };

    /// <summary>What readers of an edition get: only live and cancelled events.</summary>
    public static Disclosed? ForReaders(CalendarEvent happening, Detail detail) =>
        happening.State is EventState.Live or EventState.Cancelled ? Of(happening, detail) : null;

    private static string Uid(CalendarEvent happening) => happening.Uid.ToString();

    /// <summary>Stable for the event, so that programs update it, but no way back to its real UID.</summary>
    private static string Unlinkable(CalendarEvent happening)
    {
        var digest = System.Security.Cryptography.HMACSHA256.HashData(happening.Uid.ToByteArray(), "times"u8);
        return new Guid(digest.AsSpan(0, 16)).ToString();
    }
}
