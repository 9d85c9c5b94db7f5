namespace Valtro.Core.Disclosure;

/// <summary>What a person may do on one calendar.</summary>
public enum CalendarRole
{
    /// <summary>A named person who sees one calendar completely though members do not.</summary>
    Reader,

    /// <summary>Their changes wait for sign-off.</summary>
    Contributor,

    /// <summary>Their changes are live at once.</summary>
    Editor,
}

/// <summary>A signed-in person of one organisation, with all that decides what they see and may change.</summary>
/// <remarks>The only place that answers "may they?". Handlers ask it; they never look at roles themselves.</remarks>
public sealed record Viewer(
    Guid AccountId,
    Guid OrganisationId,
    bool IsAdministrator,
    IReadOnlyDictionary<Guid, CalendarRole> Roles)
{
    /// <summary>Who this person is to that calendar.</summary>
    public Audience AudienceOf(Guid calendarId) =>
        IsAdministrator || Roles.ContainsKey(calendarId) ? Audience.Editors : Audience.Members;

    public Detail DetailOn(Guid calendarId, Disclosure disclosure, Cap cap) =>
        disclosure.For(AudienceOf(calendarId), cap);

    /// <summary>May make, change and remove events there, live at once.</summary>
    /// <remarks>Contributors' changes need sign-off; until there is one they read only.</remarks>
    public bool MayEdit(Guid calendarId) =>
        IsAdministrator || (Roles.TryGetValue(calendarId, out var role) && role == CalendarRole.Editor);

    /// <summary>May make calendars, and say for whom they are.</summary>
    public bool MayManageCalendars => IsAdministrator;

    /// <summary>May set terms, breaks and the day cycle.</summary>
    public bool MayManageYearPlan => IsAdministrator;

    /// <summary>May change the organisation's categories and known places.</summary>
    public bool MayManageLists => IsAdministrator;
}
