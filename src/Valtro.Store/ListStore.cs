using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>A place that the organisation knows, so that it can clash.</summary>
/// <param name="Latitude">Degrees north, where somebody said where it is.</param>
/// <param name="Longitude">Degrees east.</param>
public sealed record KnownPlace(Guid Id, string Name, double? Latitude = null, double? Longitude = null);

/// <summary>The organisation's own lists: categories and known places.</summary>
public sealed class ListStore(Database database)
{
    public const int Most = 200;

    private sealed record CategoryRow(Guid Id, string Name, string Colour);

    public async Task<IReadOnlyList<Category>> CategoriesAsync(Guid organisationId) =>
        [.. (await database.ListAsync<CategoryRow>("""
            select id, name, colour from category where organisation_id = @organisationId order by lower(name) limit 200
            """, new { organisationId })).Select(row => new Category(row.Id, row.Name, Hue.Named(row.Colour)))];

    public Task<IReadOnlyList<KnownPlace>> PlacesAsync(Guid organisationId) => database.ListAsync<KnownPlace>("""
        select id, name, latitude, longitude from place where organisation_id = @organisationId order by lower(name) limit 200
        """, new { organisationId });

    /// <exception cref="RuleException">The name is taken, or the list is full.</exception>
    public async Task<Category> AddCategoryAsync(Guid organisationId, string name, Hue hue)
    {
        var category = new Category(Guid.CreateVersion7(), name, hue);
        await AddAsync("category_name_unique", name, """
            insert into category (id, organisation_id, name, colour)
            select @Id, @organisationId, @name, @colour
            where (select count(*) from category where organisation_id = @organisationId) < 200
            """, new { category.Id, organisationId, name, colour = hue.Name });
        return category;
    }

    /// <exception cref="RuleException">The name is taken, or the list is full.</exception>
    public async Task<KnownPlace> AddPlaceAsync(Guid organisationId, string name, double? latitude = null, double? longitude = null)
    {
        var place = new KnownPlace(Guid.CreateVersion7(), name, latitude, longitude);
        await AddAsync("place_name_unique", name, """
            insert into place (id, organisation_id, name, latitude, longitude)
            select @Id, @organisationId, @name, @latitude, @longitude
            where (select count(*) from place where organisation_id = @organisationId) < 200
            """, new { place.Id, organisationId, name, latitude, longitude });
        return place;
    }

    /// <summary>Takes a category off the list and off its events, whose readers are told.</summary>
    /// <exception cref="NotFoundException">There is none.</exception>
    public Task<bool> RemoveCategoryAsync(Guid organisationId, Guid id, Instant now) => database.InTransactionAsync(async transaction =>
    {
        var calendars = (await transaction.Connection!.QueryAsync<Guid>("""
            with changed as (
                update event
                set category_id = null,
                    sequence = sequence + 1, changed_at = greatest(@now, changed_at),
                    headline_sequence = headline_sequence + 1, headline_changed_at = greatest(@now, headline_changed_at)
                where organisation_id = @organisationId and category_id = @id
                returning id, home_calendar_id
            )
            select home_calendar_id from changed
            union
            select p.calendar_id from placement p join changed on changed.id = p.event_id
            """, new { organisationId, id, now }, transaction)).ToArray();
        if (await transaction.Connection!.ExecuteAsync("delete from category where organisation_id = @organisationId and id = @id", new { organisationId, id }, transaction) == 0)
            throw new NotFoundException("category");
        await GoingOut.ChangedAsync(transaction, organisationId, calendars, now, takesAway: true);
        return true;
    });

    /// <summary>Takes a place off the list. Events keep it as text.</summary>
    /// <exception cref="NotFoundException">There is none.</exception>
    public async Task RemovePlaceAsync(Guid organisationId, Guid id)
    {
        if (await database.ExecuteAsync("delete from place where organisation_id = @organisationId and id = @id", new { organisationId, id }) == 0)
            throw new NotFoundException("place");
    }

    private async Task AddAsync(string constraint, string name, string sql, object parameters)
    {
        try
        {
            if (await database.ExecuteAsync(sql, parameters) == 0)
                throw new RuleException("name", $"The list is full: it holds {Most}. Take something off first.");
        }
        catch (PostgresException taken) when (taken.ConstraintName == constraint)
        {
            throw new RuleException("name", $"“{name}” is on the list already.");
        }
    }
}
