using System.Text.Json;
using Dapper;
using Valtro.Core;

namespace Valtro.Store;

/// <summary>A way to look at the plan.</summary>
/// <param name="Settings">What the plan's address says, without the day.</param>
public sealed record PlanView(Guid Id, Guid AccountId, bool IsForAll, string Name, IReadOnlyDictionary<string, string> Settings);

public sealed class PlanViewStore(Database database)
{
    /// <summary>Of one person, and of those for all.</summary>
    public const int Most = 60;

    /// <summary>A person's own, and those for all; by name.</summary>
    public async Task<IReadOnlyList<PlanView>> ListAsync(Guid organisationId, Guid accountId) =>
        [.. (await database.ListAsync<(Guid Id, Guid AccountId, bool IsForAll, string Name, string Settings)>("""
            select id, account_id, is_for_all, name, settings::text
            from plan_view
            where organisation_id = @organisationId and (is_for_all or account_id = @accountId)
            order by lower(name), id
            limit 200
            """, new { organisationId, accountId })).Select(row => new PlanView(
                row.Id, row.AccountId, row.IsForAll, row.Name, JsonSerializer.Deserialize<Dictionary<string, string>>(row.Settings)!))];

    /// <summary>Keeps one; one of the same name, own or for all, is replaced.</summary>
    /// <exception cref="RuleException">There are too many.</exception>
    public Task<Guid> SaveAsync(Guid organisationId, PlanView view) => database.InTransactionAsync(async transaction =>
    {
        var parameters = new
        {
            view.Id,
            organisationId,
            view.AccountId,
            view.IsForAll,
            view.Name,
            settings = JsonSerializer.Serialize(view.Settings),
            most = Most,
        };
        await transaction.Connection!.ExecuteAsync("""
            delete from plan_view
            where organisation_id = @organisationId and is_for_all = @IsForAll and lower(name) = lower(@Name)
              and (is_for_all or account_id = @AccountId)
            """, parameters, transaction);
        var saved = await transaction.Connection!.ExecuteAsync("""
            insert into plan_view (id, organisation_id, account_id, is_for_all, name, settings)
            select @Id, @organisationId, @AccountId, @IsForAll, @Name, @settings::jsonb
            where (select count(*) from plan_view
                   where organisation_id = @organisationId and is_for_all = @IsForAll
                     and (is_for_all or account_id = @AccountId)) < @most
            on conflict do nothing
            """, parameters, transaction);
        return saved == 1 ? view.Id : throw new RuleException("name", "planView.tooMany", ("most", Most));
    });

    /// <exception cref="NotFoundException">There is none.</exception>
    public async Task RemoveAsync(Guid organisationId, Guid id)
    {
        var removed = await database.ExecuteAsync(
            "delete from plan_view where organisation_id = @organisationId and id = @id", new { organisationId, id });
        if (removed == 0)
            throw new NotFoundException("plan view");
    }
}
