using Valtro.Core.Acts;
using Valtro.Core.Events;

namespace Valtro.Core.Intake;

/// <summary>Events that a followed source says: what it says is the source's, what is added here is ours.</summary>
public static class Followed
{
    private static readonly HashSet<string> SaidOutside =
        ["title", "kind", "when", "certainty", "transparency", "description", "links", "contact"];

    /// <summary>Said here only, or put right here for good, whatever the source says.</summary>
    public static bool IsOurs(EventField field) => !SaidOutside.Contains(field.Name);

    /// <summary>Nobody but its source changes what a source says; it may be hidden, and taken over.</summary>
    /// <exception cref="RuleException">The act would.</exception>
    public static Act Checked(Act act)
    {
        foreach (var write in act.Writes)
        {
            if (write.Before?.Event is { } before)
                Check(before, write);
        }
        return act;
    }

    internal static void Check(CalendarEvent before, EventWrite write)
    {
        var after = write.Event;
        if (before.Source is null || after.Source != before.Source || write.Act == EventAct.Fetched)
            return;
        var field = after.Content.Differences(before.Content).FirstOrDefault(one => !IsOurs(one))?.Form[0]
            ?? (after.State != before.State ? "state"
                : after.HomeCalendarId != before.HomeCalendarId ? "calendarId"
                : after.Exceptions.SequenceEqual(before.Exceptions) ? null : "scope");
        if (field is not null)
            throw new RuleException(field, "event.isFollowed");
    }
}
