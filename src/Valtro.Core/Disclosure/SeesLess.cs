using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Disclosure;

/// <summary>Whether a change takes something from somebody who saw it. Then what was rendered before must not be served any more.</summary>
/// <remarks>
/// In doubt it does: a text that is another may have lost a name or a number. What was only added, moved to another time or cancelled
/// takes nothing away.
/// </remarks>
public static class SeesLess
{
    public static bool Between(CalendarEvent before, CalendarEvent after)
    {
        if (Visibility.LeavesTheHouse(before.State) && !Visibility.LeavesTheHouse(after.State))
            return true;
        return before.Calendars.Except(after.Calendars).Any()
            || EventField.All.Any(field => IsForReaders(field) && Loses(field.Of(before.Content), field.Of(after.Content)))
            || before.Exceptions.Any(exception =>
                Loses(exception, after.Exceptions.FirstOrDefault(one => one.RecurrenceId == exception.RecurrenceId)));
    }

    private static bool IsForReaders(EventField field) => !field.Needs.HasFlag(Grants.Notes);

    /// <summary>By the type of the value, so that a new field of a known type needs nothing here; in doubt a value that is another loses
    /// the old one.</summary>
    private static bool Loses(object? was, object? becomes) => was switch
    {
        null => false,
        string text => LosesText(text, becomes as string ?? ""),
        Place place => LosesText(place.Name, (becomes as Place ?? Place.Nowhere).Name),
        RichText rich => LosesText(rich.Html, (becomes as RichText)?.Html ?? ""),
        Cap cap => becomes is Cap lower && Audiences.Readers.Any(audience => lower[audience] < cap[audience]),
        ShowingSpan span => becomes is ShowingSpan other && IsShorter(span, other),
        Series series => becomes is Series other && other.Removed.Except(series.Removed).Any(),
        IEnumerable<object> values => becomes is not IEnumerable<object> left || values.Except(left).Any(),
        _ => !was.Equals(becomes),
    };

    private static bool IsShorter(ShowingSpan before, ShowingSpan after) =>
        (after.From is { } from && !(before.From >= from)) || (after.Until is { } until && !(before.Until <= until));

    private static bool LosesText(string before, string after) => before.Length > 0 && !after.Contains(before, StringComparison.Ordinal);

    private static bool Loses(EventException before, EventException? after) =>
        before.Own.Values.Any(own => Loses(own.Value, after?.Own[own.Key]));
}
