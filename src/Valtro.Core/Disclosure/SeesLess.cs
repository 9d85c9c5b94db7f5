using Valtro.Core.Events;

namespace Valtro.Core.Disclosure;

/// <summary>Whether a change takes something from somebody who saw it. Then what was rendered before must not be served any more.</summary>
/// <remarks>
/// In doubt it does: a text that is another may have lost a name or a number. What was only added, moved to another time or cancelled
/// takes nothing away.
/// </remarks>
public static class SeesLess
{
    private static readonly Audience[] Readers = [Audience.Members, Audience.Link, Audience.Everyone];

    public static bool Between(CalendarEvent before, CalendarEvent after)
    {
        if (Visibility.LeavesTheHouse(before.State) && !Visibility.LeavesTheHouse(after.State))
            return true;
        var (was, becomes) = (before.Content, after.Content);
        return before.Calendars.Except(after.Calendars).Any()
            || Readers.Any(audience => becomes.Cap[audience] < was.Cap[audience])
            || IsShorter(was.Showing, becomes.Showing)
            || LosesText(was.Title, becomes.Title) || LosesText(was.Place, becomes.Place) || LosesText(was.Contact, becomes.Contact)
            || LosesText(was.Description.Html, becomes.Description.Html)
            || (was.Category is not null && was.Category != becomes.Category)
            || was.Links.Except(becomes.Links).Any() || was.Files.Except(becomes.Files).Any() || was.Tags.Except(becomes.Tags).Any()
            || after.Series.Removed.Except(before.Series.Removed).Any()
            || before.Exceptions.Any(exception => LosesText(exception, after.Exceptions.FirstOrDefault(one => one.RecurrenceId == exception.RecurrenceId)));
    }

    private static bool IsShorter(ShowingSpan before, ShowingSpan after) =>
        (after.From is { } from && !(before.From >= from)) || (after.Until is { } until && !(before.Until <= until));

    private static bool LosesText(string before, string after) => before.Length > 0 && !after.Contains(before, StringComparison.Ordinal);

    private static bool LosesText(EventException before, EventException? after) =>
        LosesText(before.Title ?? "", after?.Title ?? "") || LosesText(before.Place ?? "", after?.Place ?? "") || LosesText(before.Description?.Html ?? "", after?.Description?.Html ?? "");
}
