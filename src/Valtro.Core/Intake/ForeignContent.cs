using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Reading;

namespace Valtro.Core.Intake;

/// <summary>By what events from outside are read.</summary>
/// <param name="Untitled">What one without a title is called.</param>
/// <param name="Describe">Makes a description of plain text, and of HTML where there is some.</param>
/// <param name="CategoryOf">The category that is meant by a word; null where it is a tag.</param>
/// <param name="IsLeftOut">A word by which nothing is to be sorted here.</param>
public sealed record ForeignSetting(
    IReadOnlyList<Place> Places, string Untitled, Func<string, string, RichText> Describe, Func<string, Category?> CategoryOf,
    Func<string, bool> IsLeftOut);

/// <summary>Makes ours of what a file says.</summary>
public static class ForeignContent
{
    /// <param name="calendar">For which it is meant.</param>
    /// <param name="shown">What that calendar shows to whom.</param>
    public static CalendarEvent Event(ForeignEntry entry, Guid calendar, Disclosure.Disclosure shown, ForeignSetting setting)
    {
        var content = Content(entry.Says!, entry.Series!, shown, setting);
        var state = entry.Says!.IsCancelled ? EventState.Cancelled : EventState.Live;
        return new CalendarEvent(Guid.Empty, calendar, default, content, state, default)
        {
            Exceptions = [.. entry.Dates.Select(date => Exception(date, content, entry.Says, setting)).Where(one => !one.IsEmpty)],
        };
    }

    private static EventContent Content(
        ForeignEvent says, Recurrence.Series series, Disclosure.Disclosure shown, ForeignSetting setting)
    {
        var words = says.Categories.Where(word => !setting.IsLeftOut(word)).ToArray();
        var category = words.Select(setting.CategoryOf).FirstOrDefault(one => one is not null);
        return new EventContent(series)
        {
            Title = TitleOf(says, setting),
            Kind = says.Kind,
            Certainty = says.Certainty,
            Transparency = says.Transparency,
            Place = Place.Typed(says.Place, setting.Places),
            Description = setting.Describe(says.Description, says.Html),
            Category = category,
            Tags = [.. words.Where(word => setting.CategoryOf(word) is not { } one || !one.Equals(category))
                .Select(word => word.TrimStart('#').Trim()).Where(word => word.Length > 0)
                .Distinct(StringComparer.CurrentCultureIgnoreCase).Order(StringComparer.Ordinal).Take(EventDraft.MostTags)],
            Links = [.. says.Links],
            Contact = says.Contact,
            Reminder = says.Reminder,
            Cap = CapOf(says.Secrecy, shown),
        };
    }

    private static string TitleOf(ForeignEvent says, ForeignSetting setting) => says.Title.Length > 0 ? says.Title : setting.Untitled;

    /// <summary>What its owner meant to tell nobody, or only when it is, tells no more here; no more than the calendar does
    /// anyway.</summary>
    private static Cap CapOf(Secrecy secrecy, Disclosure.Disclosure shown)
    {
        if (secrecy == Secrecy.Public)
            return Cap.None;
        Detail Most(Audience audience) =>
            secrecy == Secrecy.Private || shown[audience] == Detail.Nothing ? Detail.Nothing : Detail.Times;
        return new Cap(Most(Audience.Members), Most(Audience.Link), Most(Audience.Everyone));
    }

    private static EventException Exception(ForeignDate date, EventContent content, ForeignEvent whole, ForeignSetting setting)
    {
        var exception = new EventException(date.Date) { IsCancelled = date.IsCancelled, Start = date.Start, End = date.End };
        if (date.Says is not { } says)
            return exception;
        var own = OwnFields.None;
        void AddIf(bool differs, string name, object value) => own = differs ? own.With(name, value) : own;
        AddIf(TitleOf(says, setting) != content.Title && says.Title.Length > 0, "title", TitleOf(says, setting));
        AddIf(says.Place != whole.Place, "place", Place.Typed(says.Place, setting.Places));
        AddIf(says.Description != whole.Description || says.Html != whole.Html, "description",
            setting.Describe(says.Description, says.Html));
        AddIf(says.Certainty != whole.Certainty, "certainty", says.Certainty);
        AddIf(says.Transparency != whole.Transparency, "transparency", says.Transparency);
        return exception with { Own = own };
    }
}
