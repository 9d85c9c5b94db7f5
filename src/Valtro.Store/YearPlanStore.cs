using System.Data.Common;
using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.YearPlans;

namespace Valtro.Store;

/// <summary>A year plan as it is kept.</summary>
public sealed record StoredYearPlan(Guid Id, int Version, YearPlan Plan);

/// <summary>An organisation and its years: one by one, and together as expansion asks them.</summary>
public sealed record OrganisationYears(Organisation Organisation, IReadOnlyList<StoredYearPlan> Plans)
{
    public SchoolCalendar School { get; } = new(Plans.Select(stored => stored.Plan), (IsoDayOfWeek)Organisation.FirstDayOfWeek);
}

public sealed class YearPlanStore(Database database)
{
    private sealed record Row(Guid Id, string Name, LocalDate FirstDay, LocalDate LastDay, string? CycleUnit, short? CycleLength,
        bool CycleRestarts, int Version);

    private sealed record SpanRow(Guid YearPlanId, string Kind, string Name, LocalDate FirstDay, LocalDate LastDay);

    internal const string OfOrganisation = """
        select id, name, first_day, last_day, cycle_unit, cycle_length, cycle_restarts, version
        from year_plan
        where organisation_id = @organisationId
        order by first_day
        limit 60;
        select s.year_plan_id, s.kind, s.name, s.first_day, s.last_day
        from year_plan_span s
        join year_plan p on p.id = s.year_plan_id
        where p.organisation_id = @organisationId
        order by s.first_day
        """;

    internal static async Task<IReadOnlyList<StoredYearPlan>> ReadAsync(SqlMapper.GridReader results) =>
        Plans([.. await results.ReadAsync<Row>()], [.. await results.ReadAsync<SpanRow>()]);

    /// <summary>An organisation with its years.</summary>
    public Task<OrganisationYears?> FindAsync(Guid organisationId) => database.ReadManyAsync(
        $"{OrganisationStore.ById.Replace("@id", "@organisationId", StringComparison.Ordinal)};\n{OfOrganisation}", new { organisationId },
        async results =>
        {
            var organisation = await results.ReadFirstOrDefaultAsync<Organisation>();
            var plans = await ReadAsync(results);
            return organisation is null ? null : new OrganisationYears(organisation, plans);
        });

    /// <summary>By year.</summary>
    public async Task<IReadOnlyList<StoredYearPlan>> ListAsync(Guid organisationId) => (await FindAsync(organisationId))?.Plans ?? [];

    private static IReadOnlyList<StoredYearPlan> Plans(Row[] rows, SpanRow[] spans)
    {
        return [.. rows.Select(row => new StoredYearPlan(row.Id, row.Version, new YearPlan(
            row.Name, row.FirstDay, row.LastDay, Of(row, "term"), Of(row, "break"),
            row.CycleUnit is null
                ? null
                : new DayCycle(Words.Read<CycleUnit>(row.CycleUnit), row.CycleLength!.Value, row.CycleRestarts))))];

        NamedDays[] Of(Row row, string kind) =>
            [.. spans.Where(span => span.YearPlanId == row.Id && span.Kind == kind)
                .Select(span => new NamedDays(span.Name, span.FirstDay, span.LastDay))];
    }

    /// <summary>All years together, as expansion asks them.</summary>
    public async Task<SchoolCalendar> SchoolAsync(Guid organisationId) => (await FindAsync(organisationId))?.School ?? SchoolCalendar.Empty;

    /// <summary>Saves a year. Terms and breaks decide about the days of editions too, so all of them are looked at again.</summary>
    /// <param name="id">Null for a new year.</param>
    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    /// <exception cref="RuleException">It overlaps another year.</exception>
    public async Task<Guid> SaveAsync(Guid organisationId, Guid? id, int? version, YearPlan plan, Instant now)
    {
        try
        {
            return await database.InTransactionAsync(async transaction =>
            {
                var saved = id ?? Guid.CreateVersion7();
                await WriteAsync(transaction, organisationId, saved, id is null ? null : version ?? 0, plan);
                await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway: false);
                return saved;
            });
        }
        catch (PostgresException overlapping) when (overlapping.ConstraintName == "year_plans_do_not_overlap")
        {
            throw new RuleException("first", "year.overlaps");
        }
    }

    /// <exception cref="ChangedMeanwhileException">The version is not the stored one any more.</exception>
    public Task<bool> RemoveAsync(Guid organisationId, Guid id, int version,
        Instant now) => database.InTransactionAsync(async transaction =>
    {
        if (await transaction.Connection!.ExecuteAsync(
            "delete from year_plan where organisation_id = @organisationId and id = @id and version = @version",
                new { organisationId, id, version }, transaction) == 0)
            throw new ChangedMeanwhileException();
        await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway: false);
        return true;
    });

    private static async Task WriteAsync(DbTransaction transaction, Guid organisationId, Guid id, int? version, YearPlan plan)
    {
        var parameters = new
        {
            id,
            organisationId,
            version,
            plan.Name,
            plan.First,
            plan.Last,
            unit = plan.Cycle is { } cycle ? Words.Of(cycle.Unit) : null,
            length = (short?)plan.Cycle?.Length,
            restarts = plan.Cycle?.RestartsEachTerm ?? false,
        };
        var written = await transaction.Connection!.ExecuteAsync(version is null
            ? """
              insert into year_plan (id, organisation_id, name, first_day, last_day, cycle_unit, cycle_length, cycle_restarts)
              values (@id, @organisationId, @Name, @First, @Last, @unit, @length, @restarts)
              """
            : """
              update year_plan
              set name = @Name, first_day = @First, last_day = @Last, cycle_unit = @unit, cycle_length = @length,
                  cycle_restarts = @restarts, version = version + 1
              where organisation_id = @organisationId and id = @id and version = @version
              """, parameters, transaction);
        if (written == 0)
            throw new ChangedMeanwhileException();
        await transaction.Connection!.ExecuteAsync("delete from year_plan_span where year_plan_id = @id", new { id }, transaction);
        await transaction.Connection!.ExecuteAsync("""
            insert into year_plan_span (year_plan_id, kind, name, first_day, last_day)
            values (@id, @kind, @Name, @First, @Last)
            """, plan.Terms.Select(span => (kind: "term", span)).Concat(plan.Breaks.Select(span => (kind: "break", span)))
            .Select(one => new { id, one.kind, one.span.Name, one.span.First, one.span.Last }), transaction);
    }
}
