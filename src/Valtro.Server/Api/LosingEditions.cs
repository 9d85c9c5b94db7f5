using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>An edition that joins a calendar with others, and gets nothing of it any more.</summary>
/// <param name="BecomesEmpty">None of its other calendars shows its audience anything.</param>
/// <param name="Programs">How many programs fetched it in the last seven days.</param>
public sealed record LosingEdition(Guid Id, string Name, bool BecomesEmpty, int Programs);

/// <summary>What it takes from composed editions that a calendar is closed or removed.</summary>
public sealed class LosingEditions(EditionSettingsStore settings, EditionStore editions, CalendarStore calendars, IClock clock)
{
    /// <summary>Those that draw on a calendar, by their audience.</summary>
    public async Task<ILookup<Audience, LosingEdition>> OfAsync(Calendar calendar)
    {
        var organisationId = calendar.OrganisationId;
        var fetches = await editions.FetchesAsync(organisationId, clock.GetCurrentInstant() - Duration.FromDays(7));
        var all = (await calendars.ListAsync(organisationId)).ToDictionary(one => one.Id);
        return (await settings.ListAsync(organisationId))
            .Where(edition => !edition.IsStandard && edition.Sources.Contains(calendar.Id))
            .ToLookup(edition => edition.Draft.Audience, edition => new LosingEdition(
                edition.Id, edition.Name,
                edition.Sources.All(source => source == calendar.Id || all[source].Disclosure[edition.Draft.Audience] == Detail.Nothing),
                fetches.Where(fetch => fetch.EditionId == edition.Id).Sum(fetch => fetch.Programs)));
    }
}
