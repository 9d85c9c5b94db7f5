using Dapper;
using Npgsql;
using Valtro.Core;

namespace Valtro.Store;

/// <summary>A named set of calendars, to choose several at once.</summary>
public sealed record CalendarGroup(Guid Id, string Name, int Version, IReadOnlyList<Guid> Calendars);

public sealed class GroupStore(Database database)
{
    public const int Most = 100;

    private sealed class Row
    {
        public Guid Id { get; init; }
        public string Name { get; init; } = "";
        public int Version { get; init; }
        public Guid[] Calendars { get; init; } = [];
    }

    internal const string OfOrganisation = """
        select g.id, g.name, g.version,
               array(select m.calendar_id
                     from calendar_group_member m
                     join calendar c on c.id = m.calendar_id
                     where m.group_id = g.id and c.removed_at is null
                     order by c.created_at, c.id) as calendars
        from calendar_group g
        where g.organisation_id = @organisationId
        order by lower(g.name)
        limit 100
        """;

    internal static async Task<IReadOnlyList<CalendarGroup>> ReadAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<Row>()).Select(row => new CalendarGroup(row.Id, row.Name, row.Version, row.Calendars))];

    public async Task<IReadOnlyList<CalendarGroup>> ListAsync(Guid organisationId) =>
        [.. (await database.ListAsync<Row>(OfOrganisation, new { organisationId }))
            .Select(row => new CalendarGroup(row.Id, row.Name, row.Version, row.Calendars))];

    /// <summary>Makes a group, or replaces one.</summary>
    /// <param name="id">Null for a new one.</param>
    /// <exception cref="RuleException">The name is taken, or there are too many groups.</exception>
    /// <param name="version">That was edited; not needed for a new one.</param>
    /// <returns>Its id and the next version.</returns>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more, or the group is gone.</exception>
    /// <exception cref="NotFoundException">There is no such calendar.</exception>
    public async Task<(Guid Id, int Version)> SaveAsync(Guid organisationId, Guid? id, int? version, string name, Guid[] calendars)
    {
        try
        {
            return await database.InTransactionAsync(async transaction =>
            {
                var connection = transaction.Connection!;
                var parameters = new
                {
                    organisationId,
                    id = id ?? Guid.CreateVersion7(),
                    name,
                    calendars = calendars.Distinct().ToArray(),
                    version,
                    Most
                };
                var written = await connection.ExecuteAsync(id is null
                    ? """
                      insert into calendar_group (id, organisation_id, name)
                      select @id, @organisationId, @name
                      where (select count(*) from calendar_group where organisation_id = @organisationId) < @Most
                      """
                    : """
                        update calendar_group
                        set name = @name, version = version + 1
                        where organisation_id = @organisationId and id = @id and version = @version
                        """, parameters, transaction);
                if (written == 0)
                    throw id is null ? new RuleException("name", "group.tooMany", ("most", Most)) : new ChangedMeanwhileException();
                await connection.ExecuteAsync("delete from calendar_group_member where group_id = @id", parameters, transaction);
                var members = await connection.ExecuteAsync("""
                    insert into calendar_group_member (organisation_id, group_id, calendar_id)
                    select @organisationId, @id, c.id
                    from calendar c
                    where c.organisation_id = @organisationId and c.id = any(@calendars) and c.removed_at is null
                    """, parameters, transaction);
                return members == parameters.calendars.Length
                    ? (parameters.id, (version ?? 0) + 1)
                    : throw new NotFoundException("calendar");
            });
        }
        catch (PostgresException taken) when (taken.ConstraintName == "calendar_group_name_unique")
        {
            throw new RuleException("name", "group.nameTaken", ("name", name));
        }
    }

    /// <exception cref="NotFoundException">There is none.</exception>
    public async Task RemoveAsync(Guid organisationId, Guid id)
    {
        if (await database.ExecuteAsync(
            "delete from calendar_group where organisation_id = @organisationId and id = @id", new { organisationId, id }) == 0)
            throw new NotFoundException("group");
    }
}
