using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.Findings;

namespace Valtro.Core.Disclosure;

/// <summary>What a person may do on one calendar.</summary>
public enum CalendarRole
{
    /// <summary>A named person who sees one calendar completely though members do not.</summary>
    Reader,

    /// <summary>Their changes wait for sign-off, unless the calendar needs none.</summary>
    Contributor,

    /// <summary>Their changes are live at once.</summary>
    Editor,
}

/// <summary>What can be allowed on one calendar.</summary>
public enum CalendarAction
{
    /// <summary>See all of its events, whatever members see.</summary>
    See,

    /// <summary>See drafts and what waits for sign-off.</summary>
    SeeUnfinished,

    /// <summary>Make events and propose changes, which may have to wait.</summary>
    Contribute,

    /// <summary>Change events, live at once.</summary>
    Edit,

    /// <summary>Let changes of others go live, and events of others onto it.</summary>
    Approve,

    /// <summary>Get its snippets and feeds, make and replace its secret link.</summary>
    Publish,
}

/// <summary>What can be allowed in the organisation as a whole.</summary>
public enum OrganisationAction
{
    /// <summary>Make calendars, say for whom they are, archive, remove and merge them, and group them.</summary>
    ManageCalendars,

    /// <summary>Set terms, breaks and the day cycle.</summary>
    ManageYearPlan,

    /// <summary>Change categories and known places.</summary>
    ManageLists,

    /// <summary>Invite people, give and take roles.</summary>
    ManagePeople,

    /// <summary>Read who opened, closed, invited and approved what.</summary>
    ReadAudit,
}

/// <summary>A signed-in person of one organisation, with all that decides what they see and may change.</summary>
/// <remarks>The only place that answers "may they?". Handlers ask it; they never look at roles themselves.</remarks>
public sealed record Viewer(
    Guid AccountId,
    Guid OrganisationId,
    bool IsAdministrator,
    IReadOnlyDictionary<Guid, CalendarRole> Roles)
{
    /// <summary>Calendars on which contributors' changes need no sign-off.</summary>
    public IReadOnlySet<Guid> WithoutSignOff { get; init; } = new HashSet<Guid>();

    /// <summary>Calendars that are archived: nobody changes their events.</summary>
    public IReadOnlySet<Guid> Archived { get; init; } = new HashSet<Guid>();

    /// <summary>When they look at things as another audience does: then they see as much, and may do nothing.</summary>
    public Audience? SeesAs { get; private init; }

    /// <summary>The same person looking as an audience: what they see is exactly what it gets.</summary>
    public Viewer As(Audience audience) => this with { SeesAs = audience };

    /// <summary>Who this person is to that calendar.</summary>
    public Audience AudienceOf(Guid calendarId) =>
        SeesAs ?? (May(CalendarAction.See, calendarId) ? Audience.Editors : Audience.Members);

    public Detail DetailOn(Guid calendarId, Disclosure disclosure) => disclosure[AudienceOf(calendarId)];

    /// <summary>The table of roles and actions.</summary>
    public bool May(CalendarAction action, Guid calendarId)
    {
        if (SeesAs is not null)
            return false;
        var isLive = !Archived.Contains(calendarId);
        if (IsAdministrator)
            return isLive || action is not (CalendarAction.Contribute or CalendarAction.Edit or CalendarAction.Approve);
        if (!Roles.TryGetValue(calendarId, out var role))
            return false;
        return action switch
        {
            CalendarAction.See => true,
            CalendarAction.SeeUnfinished => role >= CalendarRole.Contributor,
            CalendarAction.Contribute => isLive && role >= CalendarRole.Contributor,
            CalendarAction.Edit =>
                isLive && (role == CalendarRole.Editor || (role == CalendarRole.Contributor && WithoutSignOff.Contains(calendarId))),
            CalendarAction.Approve => isLive && role == CalendarRole.Editor,
            CalendarAction.Publish => role == CalendarRole.Editor,
            _ => false,
        };
    }

    /// <summary>They make events on one calendar at least, live at once or by way of sign-off.</summary>
    public bool ContributesSomewhere => SeesAs is null && (IsAdministrator || Roles.Any(role => role.Value >= CalendarRole.Contributor));

    public bool May(OrganisationAction action) => SeesAs is null && IsAdministrator && Enum.IsDefined(action);

    /// <summary>Whether they may join these calendars in an edition, and change one that joins them.</summary>
    /// <remarks>An edition tells no more than each calendar tells its audience, so whoever publishes one of them may join others that they
    /// see.</remarks>
    /// <param name="calendars">The disclosure of each calendar of the organisation that is in use.</param>
    public bool MayCompose(IReadOnlyCollection<Guid> sources, IReadOnlyDictionary<Guid, Disclosure> calendars) =>
        May(OrganisationAction.ManageCalendars)
        || (sources.Any(id => May(CalendarAction.Publish, id))
            && sources.All(id => calendars.TryGetValue(id, out var disclosure) && DetailOn(id, disclosure) > Detail.Nothing));

    /// <summary>Whether they may hear of something that is wrong with an edition that they compose.</summary>
    /// <param name="calendars">The disclosure of each calendar of the organisation that is in use.</param>
    public bool MayHear(Finding finding, IReadOnlyDictionary<Guid, Disclosure> calendars) =>
        MayHear(finding.KeptOn, finding.IsPlain, calendars);

    /// <param name="keptOn">As <see cref="Finding.KeptOn"/>.</param>
    /// <param name="isPlain">As <see cref="Finding.IsPlain"/>.</param>
    /// <param name="calendars">The disclosure of each calendar of the organisation that is in use.</param>
    public bool MayHear(IEnumerable<Guid> keptOn, bool isPlain, IReadOnlyDictionary<Guid, Disclosure> calendars) => keptOn.All(id =>
        May(CalendarAction.SeeUnfinished, id)
        || (isPlain && calendars.TryGetValue(id, out var disclosure) && DetailOn(id, disclosure) == Detail.Complete));

    /// <summary>What this person sees of an event.</summary>
    /// <param name="calendars">The disclosure of each calendar of the organisation that is in use.</param>
    public Sight Of(CalendarEvent calendarEvent, IReadOnlyDictionary<Guid, Disclosure> calendars, Instant now)
    {
        var seen = default(MostOpen);
        var seenOn = new List<Guid>(1);
        foreach (var id in calendarEvent.Calendars)
        {
            if (!calendars.TryGetValue(id, out var disclosure))
                continue;
            var audience = AudienceOf(id);
            var here = Visibility.Of(calendarEvent, disclosure, audience, now, May(CalendarAction.SeeUnfinished, id));
            if (here == Detail.Nothing)
                continue;
            seen = seen.And(here, disclosure.GrantsOf(audience));
            seenOn.Add(id);
        }
        return seen.Detail == Detail.Nothing
            ? Sight.Nothing
            : new Sight(seen.Detail, seenOn,
                May(CalendarAction.Contribute, calendarEvent.HomeCalendarId) ? GrantsOfKeepers : seen.Grants);
    }

    private const Grants GrantsOfKeepers = Grants.Notes | Grants.Settings | Grants.Names | Grants.StaffSpan;
}
