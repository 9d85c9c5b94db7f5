using Dapper;
using Valtro.Core;
using Valtro.Core.Calendars;
using Valtro.Core.Events;

namespace Valtro.Store;

/// <summary>The organisation's lists as documents name their entries: retired ones too.</summary>
/// <param name="Places">Those that are offered first.</param>
/// <param name="Members">Names of those who are responsible for something.</param>
internal sealed record NamedLists(
    IReadOnlyDictionary<Guid, Category> Categories, IReadOnlyDictionary<Guid, Place> Places, IReadOnlyDictionary<Guid, string> Members)
{
    public const string OfOrganisation = """
        select id, name, colour from category where organisation_id = @organisationId limit 1000;
        select id, name from place where organisation_id = @organisationId order by retired_at desc nulls first limit 1000;
        select a.id, a.name
        from account a
        where a.id in (select r.member_id from event_reference r where r.organisation_id = @organisationId and r.member_id is not null)
        limit 5000
        """;

    public static async Task<NamedLists> ReadAsync(SqlMapper.GridReader results)
    {
        var categories = await results.ReadAsync<(Guid Id, string Name, string Colour)>();
        var places = await results.ReadAsync<(Guid Id, string Name)>();
        var members = await results.ReadAsync<(Guid Id, string Name)>();
        return new NamedLists(
            categories.ToDictionary(row => row.Id, row => new Category(row.Id, row.Name, Hue.Named(row.Colour))),
            places.ToDictionary(row => row.Id, row => new Place(row.Id, row.Name)),
            members.ToDictionary(row => row.Id, row => row.Name));
    }

    /// <summary>Whether an event that was read before calls all that it names as it is called now.</summary>
    public bool Agree(CalendarEvent known) =>
        (known.Content.Category is not { } category || category.Equals(Categories.GetValueOrDefault(category.Id)))
        && Agree(known.Content.Place)
        && Agree(known.Content.People)
        && known.Exceptions.All(exception => (exception.Own[PlaceField] is not Place own || Agree(own))
            && (exception.Own[PeopleField] is not ValueList<Involved> people || Agree(people)));

    private static readonly EventField PlaceField = EventField.Named("place");

    private static readonly EventField PeopleField = EventField.Named("people");

    private bool Agree(ValueList<Involved> people)
    {
        foreach (var one in people)
        {
            if (one.MemberId is { } id && one.Name != Members.GetValueOrDefault(id))
                return false;
        }
        return true;
    }

    private bool Agree(Place place) => place.Id is not { } id || place.Equals(Places.GetValueOrDefault(id));
}
