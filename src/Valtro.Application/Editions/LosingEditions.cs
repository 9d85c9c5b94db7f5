using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>An edition that joins a calendar with others, and gets nothing of it any more.</summary>
/// <param name="BecomesEmpty">None of its other calendars shows its audience anything.</param>
/// <param name="Programs">How many programs fetched it on the busiest of the last seven days.</param>
public sealed record LosingEdition(Guid Id, string Name, bool BecomesEmpty, int Programs);

/// <summary>Who loses something when a calendar is closed or removed.</summary>
/// <param name="Fetched">What of the calendar's own edition was fetched on the busiest of the last seven days.</param>
/// <param name="Editions">Composed ones that draw on it, by their audience.</param>
public sealed record CalendarLosses(IReadOnlyList<FetchCount> Fetched, ILookup<Audience, LosingEdition> Editions);

/// <summary>What it takes from readers that a calendar is closed or removed.</summary>
public sealed class LosingEditions(Access access, DeliveryStore deliveries, IClock clock)
{
    public async Task<CalendarLosses> OfAsync(Calendar calendar)
    {
        var organisationId = calendar.OrganisationId;
        var fetches = await deliveries.BusiestAsync(organisationId, (clock.GetCurrentInstant() - Duration.FromDays(7)).InUtc().Date);
        var house = await access.HouseAsync();
        var all = house.Calendars;
        var drawing = house.Editions
            .Where(edition => !edition.IsStandard && edition.Sources.Contains(calendar.Id))
            .ToLookup(edition => edition.Draft.Audience, edition => new LosingEdition(
                edition.Id, edition.Name,
                edition.Sources.All(source => source == calendar.Id || all[source].Disclosure[edition.Draft.Audience] == Detail.Nothing),
                fetches.Where(fetch => fetch.EditionId == edition.Id).Sum(fetch => fetch.Programs)));
        return new CalendarLosses(
            [.. fetches.Where(fetch => fetch.CalendarId == calendar.Id)], drawing);
    }
}
