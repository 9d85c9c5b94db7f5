using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Searching;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <summary>By what a list of dates is sorted; what is alike by it, by time.</summary>
public enum ListOrder
{
    Time,
    Title,
    Place,
    Calendar,
}

/// <summary>What somebody wants to see in one list. What is empty narrows nothing.</summary>
/// <param name="To">Not included.</param>
/// <param name="Category">Its name, as places and tags too; or what is due, or what is not certain yet
/// (<see cref="OccurrenceList.Due"/>, <see cref="OccurrenceList.Tentative"/>).</param>
/// <param name="Person">A name, or "me".</param>
/// <param name="Words">Found as the search finds them.</param>
public sealed record ListAsked(
    LocalDate From, LocalDate To, IReadOnlySet<Guid> Calendars, string Category, string Tag, string Place, string Words, ListOrder Order,
        string Person = "");

/// <summary>All that is on over a long time, narrowed and sorted, as one person may see it.</summary>
public sealed class OccurrenceList(Access access, OccurrenceView view, SearchStore search, IClock clock)
{
    /// <exception cref="RuleException">The time is too long, or it has too many dates.</exception>
    public async Task<IReadOnlyList<SeenOccurrence>> FindAsync(ListAsked asked)
    {
        var found = await AllAsync(asked);
        OccurrenceView.CheckCount(found.Count);
        return found;
    }

    /// <summary>However many they are: for what is not answered date by date.</summary>
    /// <exception cref="RuleException">The time is too long.</exception>
    internal async Task<IReadOnlyList<SeenOccurrence>> AllAsync(ListAsked asked)
    {
        Search.Check("words", asked.Words);
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var saying = asked.Words.Length == 0
            ? null
            : await search.AllAsync(Search.For(viewer, house, asked.Words, clock.GetCurrentInstant()));
        var dates = (await view.InAsync(viewer, asked.From, asked.To, asked.Calendars.Count == 0 ? null : asked.Calendars))
            .Where(date => IsAsked(date, asked, viewer.AccountId)
                && (saying is null
                    || saying.TryGetValue(date.Date.Event.Id, out var seenFrom) && Search.IsTold(seenFrom, date.Sight)))
            .ToArray();
        return asked.Order switch
        {
            ListOrder.Title => Sorted(date => date.Disclosed.Title),
            ListOrder.Place => Sorted(date => date.Disclosed.Content.Place.Name),
            ListOrder.Calendar => Sorted(date => house.Calendars[date.Sight.Calendars[0]].Name),
            _ => dates,
        };

        // Stable, so that what is alike stays by time.
        IReadOnlyList<SeenOccurrence> Sorted(Func<SeenOccurrence, string> by) =>
            [.. dates.OrderBy(by, StringComparer.CurrentCultureIgnoreCase)];
    }

    /// <summary>In place of a category: deadlines.</summary>
    public const string Due = ":due";

    /// <summary>In place of a category: what may yet not take place.</summary>
    public const string Tentative = ":tentative";

    private const string Me = "me";

    private static bool IsOf(string category, EventContent content) => category switch
    {
        "" => true,
        Due => content.IsDeadline,
        Tentative => content.Certainty == Certainty.Tentative,
        _ => content.Category?.Name == category,
    };

    private static bool IsAsked(SeenOccurrence date, ListAsked asked, Guid me)
    {
        var content = date.Disclosed.Content;
        return IsOf(asked.Category, content)
            && (asked.Tag.Length == 0 || content.Tags.Contains(asked.Tag))
            && (asked.Place.Length == 0 || content.Place.Name == asked.Place)
            && (asked.Person.Length == 0
                || content.People.Any(one => asked.Person == Me ? one.MemberId == me : one.Name == asked.Person));
    }
}
