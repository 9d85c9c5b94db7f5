using NodaTime;

namespace Valtro.Store;

public sealed record Organisation(Guid Id, string Slug, string Name, string Zone, string Locale, short FirstDayOfWeek, short YearStartsIn)
{
    public DateTimeZone TimeZone => Valtro.Core.Time.Zones.Named(Zone);
}

public sealed class OrganisationStore(Database database)
{
    internal const string ById = """
        select id, slug, name, zone, locale, first_day_of_week, year_starts_in
        from organisation
        where id = @id
        """;

    public Task<Organisation?> FindAsync(Guid id) => database.FirstAsync<Organisation>(ById, new { id });

    public Task<int> AddAsync(Organisation organisation) => database.ExecuteAsync("""
        insert into organisation (id, slug, name, zone, locale, first_day_of_week, year_starts_in)
        values (@Id, @Slug, @Name, @Zone, @Locale, @FirstDayOfWeek, @YearStartsIn)
        """, organisation);

    public Task<bool> AnyAsync() => database.FirstAsync<bool>("select exists (select from organisation)");
}
