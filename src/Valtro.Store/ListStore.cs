using System.Data.Common;
using Dapper;
using NodaTime;
using Npgsql;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Events;
using Valtro.Core.ICalendar;
using Valtro.Core.Speaking;

namespace Valtro.Store;

/// <summary>A place that the organisation knows, so that it can clash.</summary>
/// <param name="Latitude">Degrees north, where somebody said where it is.</param>
/// <param name="Longitude">Degrees east.</param>
/// <param name="Address">One line: street and town; empty where nobody said it.</param>
/// <param name="AccessNote">How one gets in: steps, a lift, which door.</param>
/// <param name="Capacity">How many people it holds.</param>
/// <param name="PartOf">The place whose part it is: what is on in the one takes the other, too.</param>
/// <param name="MapLink">A map of one's own; empty where there is none.</param>
/// <param name="Picture">What it looks like; its type and size are not told here.</param>
public sealed record KnownPlace(
    Guid Id, string Name, double? Latitude = null, double? Longitude = null, string Address = "", string AccessNote = "",
    int? Capacity = null, Guid? PartOf = null, string MapLink = "", PlacePicture? Picture = null)
{
    /// <summary>As feeds tell of it.</summary>
    public PlaceTold Told => new(
        Latitude is { } north && Longitude is { } east ? new Coordinates(north, east) : null, Address, AccessNote);

    /// <summary>As events name it.</summary>
    public Place Place => new(Id, Name);
}

/// <summary>A file that shows a place.</summary>
public sealed record PlacePicture(Guid Id, string Name);

/// <summary>A category as the list keeps it.</summary>
/// <param name="MostInAWeek">More of it in one week is too much for the same readers; null where nobody counts.</param>
public sealed record KnownCategory(Guid Id, string Name, Hue Hue, int? MostInAWeek = null)
{
    /// <summary>As events have it.</summary>
    public Category Category => new(Id, Name, Hue);
}

/// <summary>The organisation's own lists.</summary>
public enum ListKind
{
    Category,
    Place,
}

/// <summary>An entry of a list, with how much it is used.</summary>
/// <param name="RetiredAt">Since when it is not offered any more; events that have it keep it.</param>
/// <param name="Events">How many events have it, those in the bin not among them.</param>
public sealed record Listed<T>(T Entry, Instant? RetiredAt, int Events);

/// <summary>What an act changed in events: its id, by which they are put back, and how many they are.</summary>
public sealed record ListAct(Guid ActId, int Events);

/// <summary>The organisation's own lists: categories and places, which events name by id.</summary>
public sealed class ListStore(Database database)
{
    public const int Most = 200;

    private sealed record CategoryRow(
        Guid Id, string Name, string Colour, int? MostInAWeek, Instant? RetiredAt, Guid? MergedInto, int Events)
    {
        public Category ToCategory() => ToKnown().Category;

        public KnownCategory ToKnown() => new(Id, Name, Hue.Named(Colour), MostInAWeek);
    }

    private sealed record PlaceRow(
        Guid Id, string Name, double? Latitude, double? Longitude, string Address, string AccessNote, int? Capacity, Guid? PartOf,
        string MapLink, Guid? PictureId, string? PictureName, Instant? RetiredAt, int Events)
    {
        public KnownPlace ToPlace() => new(Id, Name, Latitude, Longitude, Address, AccessNote, Capacity, PartOf, MapLink,
            PictureId is { } picture ? new PlacePicture(picture, PictureName!) : null);
    }

    internal const string CategoriesOfOrganisation = """
        select k.id, k.name, k.colour, k.most_in_a_week, k.retired_at, k.merged_into, 0 as events
        from category k
        where k.organisation_id = @organisationId
        order by lower(k.name)
        limit 1000
        """;

    internal const string PlacesOfOrganisation = """
        select p.id, p.name, p.latitude, p.longitude, p.address, p.access_note, p.capacity, p.part_of, p.map_link, p.picture_id,
            f.name as picture_name, p.retired_at, 0 as events
        from place p
        left join file f on f.id = p.picture_id
        where p.organisation_id = @organisationId
        order by lower(p.name)
        limit 1000
        """;

    internal const string MergedOfOrganisation = """
        with recursive leads as (
            select id, merged_into from category where organisation_id = @organisationId and merged_into is not null
            union
            select l.id, k.merged_into from leads l join category k on k.id = l.merged_into where k.merged_into is not null
        )
        select id, merged_into from leads
        """;

    /// <returns>Those that are offered, all that events may have, and of which a week should hold how many at most.</returns>
    internal static async Task<(IReadOnlyList<Category> Offered, IReadOnlyList<Category> Every, IReadOnlyDictionary<Guid, int> Most)>
        ReadListAsync(SqlMapper.GridReader results)
    {
        var rows = (await results.ReadAsync<CategoryRow>()).AsList();
        return (
            [.. rows.Where(row => row.RetiredAt is null).Select(row => row.ToCategory())], [.. rows.Select(row => row.ToCategory())],
            rows.Where(row => row.MostInAWeek is not null).ToDictionary(row => row.Id, row => row.MostInAWeek!.Value));
    }

    internal static async Task<IReadOnlyList<KnownPlace>> ReadPlacesAsync(SqlMapper.GridReader results) =>
        [.. (await results.ReadAsync<PlaceRow>()).Where(row => row.RetiredAt is null).Select(row => row.ToPlace())];

    internal static async Task<ILookup<Guid, Guid>> ReadMergedAsync(SqlMapper.GridReader results) =>
        (await results.ReadAsync<(Guid From, Guid Into)>()).ToLookup(one => one.From, one => one.Into);

    /// <summary>Those that are offered.</summary>
    public async Task<IReadOnlyList<Category>> CategoriesAsync(Guid organisationId) =>
        [.. (await database.ListAsync<CategoryRow>(CategoriesOfOrganisation, new { organisationId })).Where(row => row.RetiredAt is null)
            .Select(row => row.ToCategory())];

    /// <summary>Categories that became others: whoever names one means the other as well.</summary>
    public async Task<ILookup<Guid, Guid>> MergedCategoriesAsync(Guid organisationId) =>
        (await database.ListAsync<(Guid From, Guid Into)>(MergedOfOrganisation, new { organisationId }))
            .ToLookup(one => one.From, one => one.Into);

    /// <summary>Those that are offered.</summary>
    public async Task<IReadOnlyList<KnownPlace>> PlacesAsync(Guid organisationId) =>
        [.. (await database.ListAsync<PlaceRow>(PlacesOfOrganisation, new { organisationId })).Where(row => row.RetiredAt is null)
            .Select(row => row.ToPlace())];

    /// <summary>Where events of some calendars say in words that they are, most used first.</summary>
    public async Task<IReadOnlyList<string>> PlacesInWordsAsync(Guid organisationId, Guid[] calendars, int most) =>
        await database.ListAsync<string>("""
            select e.content ->> 'place' as place
            from event e
            where e.organisation_id = @organisationId and e.removed_at is null and e.home_calendar_id = any(@calendars)
              and jsonb_typeof(e.content -> 'place') = 'string' and e.content ->> 'place' <> ''
            group by 1
            order by count(*) desc, 1
            limit @most
            """, new { organisationId, calendars, most });

    /// <summary>Both lists whole, with how much each entry is used.</summary>
    public Task<(IReadOnlyList<Listed<KnownCategory>> Categories, IReadOnlyList<Listed<KnownPlace>> Places)> AllAsync(
        Guid organisationId) =>
        database.ReadManyAsync<(IReadOnlyList<Listed<KnownCategory>>, IReadOnlyList<Listed<KnownPlace>>)>($"""
            {Counted(CategoriesOfOrganisation, "r.category_id = k.id")};
            {Counted(PlacesOfOrganisation, "r.place_id = p.id")}
            """, new { organisationId }, async results => (
                [.. (await results.ReadAsync<CategoryRow>())
                    .Select(row => new Listed<KnownCategory>(row.ToKnown(), row.RetiredAt, row.Events))],
                [.. (await results.ReadAsync<PlaceRow>())
                    .Select(row => new Listed<KnownPlace>(row.ToPlace(), row.RetiredAt, row.Events))]));

    private static string Counted(string list, string naming) => list.Replace("0 as events", $"""
        (select count(*)
         from event_reference r
         join event e on e.id = r.event_id and e.removed_at is null
         where {naming} and r.ended_at is null)::integer as events
        """, StringComparison.Ordinal);

    /// <summary>Puts a category on the list; one of that name that was retired is offered again.</summary>
    /// <exception cref="RuleException">The name is taken, or the list is full.</exception>
    public async Task<KnownCategory> AddCategoryAsync(Guid organisationId, KnownCategory category) => category with
    {
        Id = await AddAsync(ListKind.Category, organisationId, category.Name, "colour = @colour, most_in_a_week = @MostInAWeek",
            "colour, most_in_a_week", "@colour, @MostInAWeek", new { colour = category.Hue.Name, category.MostInAWeek },
            (_, _) => Task.CompletedTask),
    };

    /// <summary>Puts a place on the list; one of that name that was retired is offered again.</summary>
    /// <param name="settling">What becomes of events once the place is there.</param>
    /// <exception cref="RuleException">The name is taken, or the list is full.</exception>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved at the same time.</exception>
    public async Task<(KnownPlace Place, ListAct Act)> AddPlaceAsync(
        Guid organisationId, KnownPlace place, Guid accountId, Instant now, Func<Place, Act> settling)
    {
        var actId = Guid.CreateVersion7();
        var events = 0;
        var id =
            await AddAsync(ListKind.Place, organisationId, place.Name,
                SetOfPlace, "latitude, longitude, address, access_note, capacity, part_of, map_link, picture_id",
                "@Latitude, @Longitude, @Address, @AccessNote, @Capacity, @PartOf, @MapLink, @picture", ColumnsOf(place),
                async (transaction, id) =>
            {
                var act = settling(new Place(id, place.Name));
                events = CountOf(act);
                await ActStore.CommitAsync(transaction, organisationId, accountId, now, act, actId);
            });
        return (place with { Id = id }, new ListAct(actId, events));
    }

    /// <summary>Names and paints a category anew: its events have it as it is.</summary>
    /// <exception cref="NotFoundException">There is none.</exception>
    /// <exception cref="RuleException">The name is taken.</exception>
    public Task SaveCategoryAsync(Guid organisationId, KnownCategory category, Instant now,
        AuditLine audit) => Refusing(ListKind.Category, NameTaken(category.Name), () => database.InTransactionAsync(async transaction =>
    {
        if (await transaction.Connection!.ExecuteAsync("""
            update category set name = @Name, colour = @colour, most_in_a_week = @MostInAWeek
            where organisation_id = @organisationId and id = @Id
            """, new { organisationId, category.Id, category.Name, colour = category.Hue.Name, category.MostInAWeek }, transaction) == 0)
            throw new NotFoundException("category");
        await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway: true);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    }));

    /// <summary>Names a place anew, and says where it is: its events are there under its new name.</summary>
    /// <param name="settling">What becomes of events once it is called so.</param>
    /// <exception cref="NotFoundException">There is none.</exception>
    /// <exception cref="RuleException">The name is taken.</exception>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved at the same time.</exception>
    public Task<ListAct> SavePlaceAsync(
        Guid organisationId, KnownPlace place, Guid accountId, Instant now, Act settling, AuditLine audit) =>
        Refusing(ListKind.Place, NameTaken(place.Name), () => database.InTransactionAsync(async transaction =>
        {
            if (await transaction.Connection!.ExecuteAsync($"""
                update place
                set name = @Name, {SetOfPlace}
                where organisation_id = @organisationId and id = @Id
                """, Parameters(organisationId, place), transaction) == 0)
                throw new NotFoundException("place");
            return await CommitAsync(transaction, organisationId, settling, accountId, now, takesAway: true, audit);
        }));

    private const string SetOfPlace = """
        latitude = @Latitude, longitude = @Longitude, address = @Address, access_note = @AccessNote, capacity = @Capacity,
        part_of = @PartOf, map_link = @MapLink, picture_id = @picture
        """;

    private static object ColumnsOf(KnownPlace place) => new
    {
        place.MapLink,
        picture = place.Picture?.Id,
        place.Latitude,
        place.Longitude,
        place.Address,
        place.AccessNote,
        place.Capacity,
        place.PartOf,
    };

    private static DynamicParameters Parameters(Guid organisationId, KnownPlace place)
    {
        var parameters = new DynamicParameters(ColumnsOf(place));
        parameters.AddDynamicParams(new { organisationId, place.Id, place.Name });
        return parameters;
    }

    /// <summary>Takes an entry off the list, or puts it back. Events keep it.</summary>
    /// <exception cref="NotFoundException">There is none.</exception>
    /// <exception cref="RuleException">Its name was given to another meanwhile.</exception>
    public Task RetireAsync(ListKind kind, Guid organisationId, Guid id, bool isRetired, Instant now, AuditLine audit) => Refusing(kind,
        Saying.Of("list.itsNameTaken"), () => database.InTransactionAsync(async transaction =>
    {
        if (await transaction.Connection!.ExecuteAsync($"""
            update {Table(kind)}
            set retired_at = case when @isRetired then coalesce(retired_at, @now) end, merged_into = null, merged_by_act = null
            where organisation_id = @organisationId and id = @id
            """, new { organisationId, id, isRetired, now }, transaction) == 0)
            throw new NotFoundException(Table(kind));
        // A place that is known has a map.
        await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway: false);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return true;
    }));

    /// <summary>Makes one entry of two: the one is retired, and leads on to the other.</summary>
    /// <param name="renaming">What becomes of the events of the one.</param>
    /// <exception cref="NotFoundException">There is no such entry.</exception>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved at the same time.</exception>
    public Task<ListAct> MergeAsync(
        ListKind kind, Guid organisationId, Guid from, Guid into, Guid accountId, Instant now, Act renaming, AuditLine audit) =>
        database.InTransactionAsync(async transaction =>
        {
            var act = await CommitAsync(transaction, organisationId, renaming, accountId, now, takesAway: true, audit);
            if (await transaction.Connection!.ExecuteAsync($"""
                update {Table(kind)}
                set retired_at = coalesce(retired_at, @now), merged_into = @into, merged_by_act = @ActId
                where organisation_id = @organisationId and id = @from
                """, new { organisationId, from, into, now, act.ActId }, transaction) == 0)
                throw new NotFoundException(Table(kind));
            return act;
        });

    /// <summary>With an act that made one entry of two, they are two again.</summary>
    internal static async Task UndoAsync(DbTransaction transaction, Guid organisationId, Guid actId, Instant now)
    {
        var changed = 0;
        foreach (var kind in Enum.GetValues<ListKind>())
            changed += await Refusing(kind, Saying.Of("list.itsNameTaken"), () => transaction.Connection!.ExecuteAsync($"""
                update {Table(kind)}
                set retired_at = null, merged_into = null, merged_by_act = null
                where organisation_id = @organisationId and merged_by_act = @actId
                """, new { organisationId, actId }, transaction));
        if (changed > 0)
            await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway: true);
    }

    private static async Task<ListAct> CommitAsync(
        DbTransaction transaction, Guid organisationId, Act act, Guid accountId, Instant now, bool takesAway, AuditLine audit)
    {
        var actId = Guid.CreateVersion7();
        var done = await ActStore.CommitAsync(transaction, organisationId, accountId, now, act, actId);
        await GoingOut.AllChangedAsync(transaction, organisationId, now, takesAway);
        await AuditStore.WriteAsync(transaction, organisationId, audit);
        return new ListAct(actId, CountOf(act));
    }

    private static int CountOf(Act act) => act.Writes.Count(write => !write.IsRemoved);

    private static string Table(ListKind kind) => Words.Of(kind);

    private async Task<Guid> AddAsync(
        ListKind kind, Guid organisationId, string name, string again, string columns, string values, object more,
        Func<DbTransaction, Guid, Task> also)
    {
        var parameters = new DynamicParameters(more);
        parameters.AddDynamicParams(new { id = Guid.CreateVersion7(), organisationId, name, Most });
        return await Refusing(kind, NameTaken(name), () => database.InTransactionAsync(async transaction =>
        {
            var connection = transaction.Connection!;
            // Lists of one organisation grow one entry after the other, so that they end where they should.
            await connection.ExecuteAsync("select from organisation where id = @organisationId for update", parameters, transaction);
            if (await connection.ExecuteScalarAsync<int>(
                $"select count(*)::integer from {Table(kind)} where organisation_id = @organisationId and retired_at is null", parameters,
                    transaction) >= Most)
                throw new RuleException("name", "list.full", ("most", Most));
            var known = await connection.QueryFirstOrDefaultAsync<Guid?>($"""
                update {Table(kind)}
                set retired_at = null, merged_into = null, merged_by_act = null, name = @name, {again}
                where id = (select id from {Table(kind)} where organisation_id = @organisationId and lower(name) = lower(@name)
                    and retired_at is not null order by retired_at desc limit 1)
                returning id
                """, parameters, transaction);
            var entry = known
                ?? await connection.QuerySingleAsync<Guid>(
                    $"""
                    insert into {Table(kind)} (id, organisation_id, name, {columns})
                    values (@id, @organisationId, @name, {values})
                    returning id
                    """, parameters, transaction);
            await also(transaction, entry);
            return entry;
        }));
    }

    private static Saying NameTaken(string name) => Saying.Of("list.nameTaken", ("name", name));

    private static async Task<T> Refusing<T>(ListKind kind, Saying saying, Func<Task<T>> write)
    {
        try
        {
            return await write();
        }
        catch (PostgresException taken) when (taken.ConstraintName == $"{Table(kind)}_name_unique")
        {
            throw new RuleException([new Refusal("name", saying)]);
        }
    }
}
