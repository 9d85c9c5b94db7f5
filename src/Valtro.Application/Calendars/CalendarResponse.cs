using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Calendars;

/// <param name="Names">The widest audience that is told who is responsible.</param>
public sealed record DisclosureBody(Detail Members, Detail Link, Detail Everyone, Audience Names = Audience.Members)
{
    public static DisclosureBody Of(Disclosure disclosure) =>
        new(disclosure.Members, disclosure.Link, disclosure.Everyone, disclosure.Names);
}

/// <summary>Whether what readers get is what was saved.</summary>
public enum DeliveryState
{
    /// <summary>Nobody outside can fetch it.</summary>
    Closed,

    /// <summary>Saved, and not yet rendered for readers.</summary>
    Pending,
    UpToDate,

    /// <summary>Saved, and could not be rendered for readers.</summary>
    Failing,
}

/// <param name="Reason">In a word.</param>
/// <param name="IsSetAside">It is not tried by itself any more, until something changes or somebody asks for it.</param>
public sealed record FailureBody(Instant Since, FailureReason Reason, bool IsSetAside);

/// <param name="ChangedAt">When what readers get last changed.</param>
/// <param name="Failure">Why it does not go out.</param>
public sealed record DeliveryBody(DeliveryState State, Instant? ChangedAt, FailureBody? Failure)
{
    public static DeliveryBody Closed { get; } = new(DeliveryState.Closed, null, null);

    public static DeliveryBody UpToDate { get; } = new(DeliveryState.UpToDate, null, null);

    /// <param name="state">Null where nothing is rendered yet.</param>
    public static DeliveryBody Of(GoingOutState? state) => state switch
    {
        { FailedSince: { } since } =>
            new(DeliveryState.Failing, state.ChangedAt, new FailureBody(since, state.Reason!.Value, state.IsSetAside)),
        { IsCurrent: true } => new(DeliveryState.UpToDate, state.ChangedAt, null),
        _ => new(DeliveryState.Pending, state?.ChangedAt, null),
    };
}

/// <summary>Who keeps a calendar.</summary>
public sealed record KeeperBody(string Name, CalendarRole Role);

/// <param name="Detail">How much the person who asks sees of its events.</param>
/// <param name="MayContribute">They may make events there, at once or by way of sign-off.</param>
/// <param name="MayEdit">What they change there goes out at once.</param>
/// <param name="IsFollowed">A followed source fills it, and nobody else.</param>
/// <param name="Events">How many events readers could see; null for those who do not keep the calendar.</param>
/// <param name="KeptBy">Its editors and contributors, for those who keep it.</param>
/// <param name="HasSecretLink">For those who keep it.</param>
public sealed record CalendarResponse(
    Guid Id, string Name, string Plate, string Colour, string Zone, string Description, DisclosureBody Disclosure,
    Detail Detail, bool MayContribute, bool MayEdit, bool MayPublish, bool MayManage, int? Events, int Version, DeliveryBody Delivery,
    IReadOnlyList<string> Readerships, bool RequiresSignOff, bool IsArchived, bool IsFollowed, bool HasSecretLink,
    IReadOnlyList<KeeperBody> KeptBy);
