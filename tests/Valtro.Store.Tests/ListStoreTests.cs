using NodaTime;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Time;

namespace Valtro.Store.Tests;

/// <summary>Categories and places: what is taken off stays on events, and what events have follows a new name or becomes another.</summary>
public sealed class ListStoreTests : SchoolAndClub
{
    private ListStore Lists => new(_test.Database);


    private AuditLine Line => new(_ada, AuditAct.ListChanged, "x", null, Now);

    private async Task<Guid> EventAsync(Category? category = null, string place = "", EventException[]? exceptions = null)
    {
        var calendar = (await Calendars.ListAsync(_school)).FirstOrDefault()
            ?? await Calendars.AddAsync(
                _school, new CalendarSettings("PW", Plate.Parse("PW"), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);
        var timing = Timing.Timed(new LocalDateTime(2026, 11, 24, 14, 0), new LocalDateTime(2026, 11, 24, 15, 0), Halifax);
        var content =
            new EventContent("Boat lab", new Series(timing, RuleText.Parse("FREQ=WEEKLY")), place, RichText.Empty) { Category = category };
        var made =
            new CalendarEvent(Guid.Empty, calendar.Id, default, content, EventState.Live, default) { Exceptions = exceptions ?? [] };
        return (await WriteAsync([new EventWrite(made, null, EventAct.Made)])).Events[0].Id;
    }

    private async Task<KnownPlace> PlaceAsync(string name, Guid? organisation = null) =>
        (await Lists.AddPlaceAsync(organisation ?? _school, new KnownPlace(default, name), _ada, Now, _ => Act.Nothing)).Place;

    private async Task<ListAct> MergeAsync(ListKind kind, Guid from, object into) => await Lists.MergeAsync(
        kind, _school, from, into is Category category ? category.Id : ((Place)into).Id!.Value, _ada, Now,
        ActPlanner.Replacing(await Events.NamingAsync(kind, _school, from), value =>
            value is Category { Id: var id } && id == from || value is Place { Id: { } place } && place == from ? into : value), Line);

    private async Task<CalendarEvent> FoundAsync(Guid id) => (await Events.FindAsync(_school, id))!.Event;

    [Fact]
    public async Task A_retired_category_stays_on_its_events_is_not_offered_and_comes_back()
    {
        var category = (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Training", Hue.Named("kelp")))).Category;
        var id = await EventAsync(category);
        await Lists.RetireAsync(ListKind.Category, _school, category.Id, isRetired: true, Now, Line);
        Assert.Equal(category, (await FoundAsync(id)).Content.Category);
        Assert.Empty(await Lists.CategoriesAsync(_school));
        var listed = Assert.Single((await Lists.AllAsync(_school)).Categories);
        Assert.Equal((category, Now, 1), (listed.Entry.Category, listed.RetiredAt, listed.Events));
        await Lists.RetireAsync(ListKind.Category, _school, category.Id, isRetired: false, Now, Line);
        Assert.Equal([category], await Lists.CategoriesAsync(_school));
    }

    [Fact]
    public async Task Adding_a_name_that_was_retired_offers_the_same_again()
    {
        var first = (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Training", Hue.Named("kelp")))).Category;
        await Lists.RetireAsync(ListKind.Category, _school, first.Id, isRetired: true, Now, Line);
        var again = (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "TRAINING", Hue.Named("plum")))).Category;
        Assert.Equal((first.Id, "TRAINING", "plum"), (again.Id, again.Name, again.Hue.Name));
        Assert.Equal([again], await Lists.CategoriesAsync(_school));
    }

    [Fact]
    public async Task One_cannot_come_back_while_another_has_its_name()
    {
        var (hall, gym) = (await PlaceAsync("Hall"), await PlaceAsync("Gym"));
        await Lists.RetireAsync(ListKind.Place, _school, hall.Id, isRetired: true, Now, Line);
        await Lists.SavePlaceAsync(_school, gym with { Name = "Hall" }, _ada, Now, Act.Nothing, Line);
        Assert.Equal("name",
            (await Assert.ThrowsAsync<RuleException>(() =>
                Lists.RetireAsync(ListKind.Place, _school, hall.Id, isRetired: false, Now, Line))).Refusals[0].Field);
        await Assert.ThrowsAsync<NotFoundException>(() => Lists.RetireAsync(ListKind.Place, _club, hall.Id, isRetired: true, Now, Line));
    }

    [Fact]
    public async Task A_category_under_a_new_name_is_the_same_on_its_events_and_readers_are_told()
    {
        var category = (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Training", Hue.Named("kelp")))).Category;
        var id = await EventAsync(category);
        await Lists.SaveCategoryAsync(_school, new KnownCategory(category.Id, "Practice", Hue.Named("plum"), MostInAWeek: 3), Now, Line);
        var after = await FoundAsync(id);
        Assert.Equal(("Practice", "plum"), (after.Content.Category!.Name, after.Content.Category.Hue.Name));
        Assert.Equal(3, (await Lists.AllAsync(_school)).Categories.Single().Entry.MostInAWeek);
    }

    [Fact]
    public async Task Events_of_a_merged_category_have_the_other_with_a_revision_each_and_can_be_put_back()
    {
        var (from, into) = ((await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Exam", Hue.Named("kelp")))).Category,
            (await Lists.AddCategoryAsync(_school, new KnownCategory(default, "Assessment", Hue.Named("plum")))).Category);
        var (one, other, beside) = (await EventAsync(from), await EventAsync(from), await EventAsync(into));
        var act = await MergeAsync(ListKind.Category, from.Id, into);
        Assert.Equal(2, act.Events);
        Assert.Equal([into, into, into],
            [(await FoundAsync(one)).Content.Category!, (await FoundAsync(other)).Content.Category!,
                (await FoundAsync(beside)).Content.Category!]);
        Assert.Equal([into.Id], (await Lists.MergedCategoriesAsync(_school))[from.Id]);
        Assert.Equal(2, (await Revisions.OfEventAsync(_school, await FoundAsync(one))).Count);
        Assert.Single(await Revisions.OfEventAsync(_school, await FoundAsync(beside)));

        await UndoAsync(act.ActId);
        Assert.Contains(from, await Lists.CategoriesAsync(_school));
        Assert.Equal([from, from, into],
            [(await FoundAsync(one)).Content.Category!, (await FoundAsync(other)).Content.Category!,
                (await FoundAsync(beside)).Content.Category!]);
        Assert.Empty((await Lists.MergedCategoriesAsync(_school))[from.Id]);
    }

    [Fact]
    public async Task Merged_once_more_the_first_leads_on_to_the_last()
    {
        var categories = new List<Category>();
        foreach (var name in new[] { "One", "Two", "Three" })
            categories.Add((await Lists.AddCategoryAsync(_school, new KnownCategory(default, name, Hue.Named("kelp")))).Category);
        await MergeAsync(ListKind.Category, categories[0].Id, categories[1]);
        await MergeAsync(ListKind.Category, categories[1].Id, categories[2]);
        Assert.Contains(categories[2].Id, (await Lists.MergedCategoriesAsync(_school))[categories[0].Id]);
    }

    private static readonly EventField Where = EventField.Named("place");

    private static EventException At(string place) =>
        new(new LocalDateTime(2026, 12, 1, 14, 0)) { Own = OwnFields.None.With("place", Place.Called(place)) };

    [Fact]
    public async Task Events_and_dates_that_say_in_words_where_they_are_are_there_once_the_place_is_known()
    {
        var (there, dateThere, elsewhere) =
            (await EventAsync(place: "HALL"), await EventAsync(place: "Loft", exceptions: [At("Hall")]),
                await EventAsync(place: "Hall, stage"));
        await PlaceAsync("Hall", _club);
        var found = await Events.SayingTheyAreAtAsync(_school, "Hall");
        Assert.Equal([there, dateThere], found.Select(one => one.Event.Id).Order());
        var (hall, act) = await Lists.AddPlaceAsync(_school, new KnownPlace(default, "Hall", 43.9, -60.0), _ada, Now,
            hall => ActPlanner.Replacing(found, value => value is Place { Id: null, Name: "HALL" or "Hall" } ? hall : value));
        Assert.Equal(2, act.Events);
        Assert.Equal([hall.Place, Place.Called("Loft"), Place.Called("Hall, stage")],
            [(await FoundAsync(there)).Content.Place, (await FoundAsync(dateThere)).Content.Place,
                (await FoundAsync(elsewhere)).Content.Place]);
        Assert.Equal(hall.Place, (await FoundAsync(dateThere)).Exceptions[0].Own[Where]);
        Assert.Equal([2], (await Lists.AllAsync(_school)).Places.Select(one => one.Events));
        await UndoAsync(act.ActId);
        Assert.Equal((Place.Called("HALL"), Place.Called("Hall")),
            ((await FoundAsync(there)).Content.Place, (Place)(await FoundAsync(dateThere)).Exceptions[0].Own[Where]!));
    }

    [Fact]
    public async Task A_place_under_a_new_name_is_the_same_to_its_events_their_dates_and_their_history()
    {
        var hall = await PlaceAsync("Hall");
        var id = await EventAsync(place: "Loft", exceptions: [At("Hall")]);
        await WriteAsync([new EventWrite((await FoundAsync(id)).Changing(value =>
            value is Place { Name: "Hall" } ? hall.Place : value), 1, EventAct.Changed)]);
        // Read once under the old name, and remembered.
        Assert.Equal("Hall",
            ((Place)(await Events.OfCalendarsAsync(_school, [(await FoundAsync(id)).HomeCalendarId]))[0].Exceptions[0].Own[Where]!).Name);
        var act = await Lists.SavePlaceAsync(_school, hall with { Name = "Great hall" }, _ada, Now, Act.Nothing, Line);
        Assert.Equal(0, act.Events);
        Assert.Equal("Great hall", ((Place)(await FoundAsync(id)).Exceptions[0].Own[Where]!).Name);
        Assert.Equal(
            "Great hall", ((Place)(await Revisions.FindAsync(_school, await FoundAsync(id), 2))!.Event.Exceptions[0].Own[Where]!).Name);
        Assert.Equal("Great hall",
            ((Place)(await Events.OfCalendarsAsync(_school, [(await FoundAsync(id)).HomeCalendarId]))[0].Exceptions[0].Own[Where]!).Name);
    }

    [Fact]
    public async Task Events_of_a_merged_place_are_at_the_other_and_can_be_put_back_and_no_place_vanishes_that_an_event_names()
    {
        var (hall, gym) = (await PlaceAsync("Hall"), await PlaceAsync("Gym"));
        var id = await EventAsync();
        await WriteAsync([new EventWrite(
                (await FoundAsync(id)) with { Content = (await FoundAsync(id)).Content with { Place = hall.Place } }, 1,
                    EventAct.Changed)]);
        var act = await MergeAsync(ListKind.Place, hall.Id, gym.Place);
        Assert.Equal((1, gym.Place), (act.Events, (await FoundAsync(id)).Content.Place));
        await UndoAsync(act.ActId);
        Assert.Equal(hall.Place, (await FoundAsync(id)).Content.Place);
        await Assert.ThrowsAsync<Npgsql.PostgresException>(() =>
            _test.Database.ExecuteAsync("delete from place where id = @Id", new { hall.Id }));
    }

    [Fact]
    public async Task Of_many_who_add_at_once_no_name_is_there_twice()
    {
        var outcomes = await Task.WhenAll(Enumerable.Range(0, 8).Select(async _ =>
        {
            try
            {
                return (await PlaceAsync("Pier")).Id;
            }
            catch (RuleException)
            {
                return Guid.Empty;
            }
        }));
        Assert.Single(outcomes, id => id != Guid.Empty);
        Assert.Single(await Lists.PlacesAsync(_school));
    }
}
