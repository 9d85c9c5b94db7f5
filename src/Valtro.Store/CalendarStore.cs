using System.Data.Common;
using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Time;

namespace Valtro.Store;

/// <summary>A calendar as it is kept, with the address of its standard edition.</summary>
/// <param name="Version">Of the settings, checked on save.</param>
/// <param name="ContentVersion">Of what readers get: rises with every change to it or its events.</param>
public sealed record Calendar(
    Guid Id,
    Guid OrganisationId,
    string Name,
    Plate Plate,
    Hue Hue,
    DateTimeZone Zone,
    string Description,
    Disclosure Disclosure,
    int Version,
    long ContentVersion,
    Guid EditionId,
    string Slug,
    Instant ChangedAt,
    IReadOnlyList<string> Readerships);

/// <summary>What people edit of a calendar.</summary>
/// <param name="Readerships">Names of those who read it: calendars that share one can clash softly.</param>
public sealed record CalendarSettings(
    string Name, Plate Plate, Hue Hue, DateTimeZone Zone, string Description, Disclosure Disclosure, IReadOnlyList<string> Readerships)
{
    public const int MostReaderships = 20;
}

public sealed class CalendarStore(Database database)
{
    private const string Columns = """
        select c.id, c.organisation_id, c.name, c.plate, c.colour, c.zone, c.description,
               c.members::text as members, c.link::text as link, c.everyone::text as everyone,
               c.version, c.content_version, e.id as edition_id, e.slug, c.changed_at,
               array_to_string(c.readerships, chr(10)) as readerships
        from calendar c
        join edition e on e.calendar_id = c.id
        """;

    private sealed record Row(
        Guid Id, Guid OrganisationId, string Name, string Plate, string Colour, string Zone, string Description,
        string Members, string Link, string Everyone, int Version, long ContentVersion, Guid EditionId, string Slug, Instant ChangedAt, string Readerships)
    {
        public Calendar ToCalendar() => new(
            Id, OrganisationId, Name, Core.Calendars.Plate.Parse(Plate), Hue.Named(Colour), Zones.Named(Zone), Description,
            new Disclosure(Words.Read<Detail>(Members), Words.Read<Detail>(Link), Words.Read<Detail>(Everyone)),
            Version, ContentVersion, EditionId, Slug, ChangedAt, Readerships.Split('\n', StringSplitOptions.RemoveEmptyEntries));
    }

    public async Task<IReadOnlyList<Calendar>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(Columns + """

            where c.organisation_id = @organisationId
            order by c.created_at, c.id
            limit 500
            """, new { organisationId })).Select(row => row.ToCalendar())];

    public async Task<Calendar?> FindAsync(Guid organisationId, Guid id) =>
        (await database.FirstAsync<Row>(Columns + """

            where c.organisation_id = @organisationId and c.id = @id
            """, new { organisationId, id }))?.ToCalendar();

    /// <summary>Makes a calendar and its standard edition.</summary>
    /// <exception cref="RuleException">The plate is taken.</exception>
    public async Task<Calendar> AddAsync(Guid organisationId, CalendarSettings settings)
    {
        var id = Guid.CreateVersion7();
        await Refusing(settings.Plate, () => database.InTransactionAsync(async transaction =>
        {
            var connection = transaction.Connection!;
            // Calendars of one organisation are made one after the other, so that addresses do not collide.
            await connection.ExecuteAsync("select from organisation where id = @organisationId for update", new { organisationId }, transaction);
            await connection.ExecuteAsync("""
                insert into calendar (id, organisation_id, name, plate, colour, zone, description, members, link, everyone, readerships)
                values (@Id, @OrganisationId, @Name, @Plate, @Colour, @Zone, @Description, @Members, @Link, @Everyone, @Readerships)
                """, Parameters(organisationId, id, settings), transaction);
            var taken = (await connection.QueryAsync<string>("select slug from edition where organisation_id = @organisationId", new { organisationId }, transaction)).ToHashSet();
            await connection.ExecuteAsync("""
                insert into edition (id, organisation_id, calendar_id, slug)
                values (@editionId, @organisationId, @id, @slug)
                """, new { editionId = Guid.CreateVersion7(), organisationId, id, slug = Slug.Propose(settings.Name, taken) }, transaction);
            return true;
        }));
        return (await FindAsync(organisationId, id))!;
    }

    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    /// <exception cref="RuleException">The plate is taken.</exception>
    public async Task<Calendar> SaveAsync(Guid organisationId, Guid id, int version, CalendarSettings settings)
    {
        await Refusing(settings.Plate, () => database.InTransactionAsync(async transaction =>
        {
            var parameters = Parameters(organisationId, id, settings);
            parameters.Add("Version", version);
            var saved = await transaction.Connection!.ExecuteAsync("""
                update calendar
                set name = @Name,
                    plate = @Plate,
                    colour = @Colour,
                    zone = @Zone,
                    description = @Description,
                    members = @Members,
                    link = @Link,
                    everyone = @Everyone,
                    readerships = @Readerships,
                    version = version + 1
                where organisation_id = @OrganisationId and id = @Id and version = @Version
                """, parameters, transaction);
            if (saved == 0)
                throw new ChangedMeanwhileException();
            await ContentChangedAsync(transaction, organisationId, [id]);
            return true;
        }));
        return (await FindAsync(organisationId, id))!;
    }

    /// <summary>Raises what readers are asked to fetch, and tells every node, when the transaction commits.</summary>
    internal static Task ContentChangedAsync(DbTransaction transaction, Guid organisationId, Guid[] calendars) =>
        transaction.Connection!.ExecuteAsync("""
            with changed as (
                update calendar
                set content_version = content_version + 1, changed_at = now()
                where organisation_id = @organisationId and id = any(@calendars)
                returning id
            )
            select pg_notify('valtro_calendar', id::text)
            from changed
            """, new { organisationId, calendars }, transaction);

    private static DynamicParameters Parameters(Guid organisationId, Guid id, CalendarSettings settings) => new(new
    {
        Id = id,
        OrganisationId = organisationId,
        settings.Name,
        Plate = settings.Plate.Code,
        Colour = settings.Hue.Name,
        Zone = settings.Zone.Id,
        settings.Description,
        Members = Words.Of(settings.Disclosure.Members),
        Link = Words.Of(settings.Disclosure.Link),
        Everyone = Words.Of(settings.Disclosure.Everyone),
        Readerships = settings.Readerships.ToArray(),
    });

    private static async Task Refusing(Plate plate, Func<Task<bool>> write)
    {
        try
        {
            await write();
        }
        catch (PostgresException taken) when (taken.ConstraintName == "calendar_plate_unique")
        {
            throw new RuleException("plate", $"Another calendar has the plate {plate} already. Choose one that is free.");
        }
    }
}
