using Dapper;
using NodaTime;
using Valtro.Core;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>An event kept as a pattern to start from.</summary>
/// <param name="IsUsual">It says what is usual on its calendar.</param>
/// <param name="Form">As it was typed: what it names may be gone by now.</param>
public sealed record EventTemplate(Guid Id, Guid CalendarId, Guid AccountId, string Name, bool IsUsual, EventForm Form);

public sealed class TemplateStore(Database database)
{
    /// <summary>Of one calendar.</summary>
    public const int Most = 40;

    /// <summary>Of some calendars, by name.</summary>
    public async Task<IReadOnlyList<EventTemplate>> ListAsync(Guid organisationId, Guid[] calendars) =>
        [.. (await database.ListAsync<(Guid Id, Guid CalendarId, Guid AccountId, string Name, bool IsUsual, string Request)>("""
            select t.id, t.calendar_id, t.account_id, t.name, t.is_usual, t.request::text
            from event_template t
            where t.organisation_id = @organisationId and t.calendar_id = any(@calendars)
            order by lower(t.name), t.id
            limit 1000
            """, new { organisationId, calendars })).Select(row => new EventTemplate(
                row.Id, row.CalendarId, row.AccountId, row.Name, row.IsUsual, ProposalDocument.Read<EventForm>(row.Request)))];

    /// <summary>Whether a template of one of these calendars names a file.</summary>
    public Task<bool> NamesFileAsync(Guid organisationId, Guid[] calendars, Guid fileId) => database.FirstAsync<bool>("""
        select exists (select from event_template
                       where organisation_id = @organisationId and calendar_id = any(@calendars)
                         and request -> 'files' ? @fileId::text)
        """, new { organisationId, calendars, fileId });

    /// <summary>Keeps one; one of the same name, or the usual one, of its calendar is replaced.</summary>
    /// <exception cref="RuleException">There are too many.</exception>
    public Task<Guid> SaveAsync(
        Guid organisationId, EventTemplate template, Instant now) => database.InTransactionAsync(async transaction =>
    {
        var parameters = new
        {
            template.Id,
            organisationId,
            template.CalendarId,
            template.AccountId,
            template.Name,
            template.IsUsual,
            request = ProposalDocument.Write(template.Form),
            now,
            most = Most,
        };
        // Those of one calendar are kept one after the other.
        await transaction.Connection!.ExecuteAsync("""
            select from calendar where organisation_id = @organisationId and id = @CalendarId for update;
            delete from event_template
            where organisation_id = @organisationId and calendar_id = @CalendarId and is_usual = @IsUsual
              and (is_usual or lower(name) = lower(@Name))
            """, parameters, transaction);
        var saved = await transaction.Connection!.ExecuteAsync("""
            insert into event_template (id, organisation_id, calendar_id, account_id, name, is_usual, request, made_at)
            select @Id, @organisationId, @CalendarId, @AccountId, @Name, @IsUsual, @request::jsonb, @now
            where (select count(*) from event_template where calendar_id = @CalendarId) < @most
            """, parameters, transaction);
        return saved == 1 ? template.Id : throw new RuleException("name", "template.tooMany", ("most", Most));
    });

    /// <exception cref="NotFoundException">There is none.</exception>
    public async Task RemoveAsync(Guid organisationId, Guid id)
    {
        var removed = await database.ExecuteAsync(
            "delete from event_template where organisation_id = @organisationId and id = @id", new { organisationId, id });
        if (removed == 0)
            throw new NotFoundException("template");
    }
}
