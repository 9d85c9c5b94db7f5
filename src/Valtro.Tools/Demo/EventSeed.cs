using NodaTime;
using Valtro.Core.Acts;
using Valtro.Core.Events;
using Valtro.Core.Time;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>The demo's year plan, lists, events, and what has happened to some of their dates since.</summary>
internal sealed class EventSeed(
    Database database, Guid organisationId, IReadOnlyDictionary<string, Guid> calendars, Func<string, Guid> keeper, Instant now)
{
    private static readonly DateTimeZone Halifax = Zones.Named("America/Halifax");

    private readonly EventStore _events = new(database);
    private readonly ActStore _acts = new(database);
    private readonly ListStore _lists = new(database);
    private readonly DemoEvents _demo = new(now.InZone(Halifax).LocalDateTime);

    /// <returns>The events by plate and title.</returns>
    public async Task<IReadOnlyDictionary<(string, string), Guid>> RunAsync()
    {
        var plan = _demo.YearPlan();
        await new YearPlanStore(database).SaveAsync(organisationId, null, null, plan, now);
        foreach (var place in new[] { "Loft", "Lab", "Chart room", "Room 2", "Wardroom" })
            await PlaceAsync(place);
        // Where the made-up island would be.
        foreach (var (place, north, east) in new[] { ("Hall", 43.9412, -60.0315), ("Slipway", 43.9405, -60.0289),
            ("Boathouse", 43.9401, -60.0281), ("Outer harbour", 43.9378, -60.0214), ("Grey Point", 43.9502, -60.0102) })
            await PlaceAsync(place, north, east);
        var places = (await _lists.PlacesAsync(organisationId)).ToDictionary(place => place.Name);
        var hall = places["Hall"];
        await SaveAsync(
            hall with { Address = "1 Quay Road, Pinewick", AccessNote = "Two steps; ring at the side door for the lift", Capacity = 160 });
        var harbour = await new FileStore(database).AddAsync(
            organisationId, "Outer harbour.png", "image/png", DemoPicture.Morning(), keeper("SCH"), now);
        await SaveAsync(places["Outer harbour"] with
        {
            MapLink = "https://maps.pinewick.example/outer-harbour",
            Picture = new PlacePicture(harbour.Id, harbour.Name),
        });
        await _lists.AddPlaceAsync(
            organisationId, new KnownPlace(default, "Hall, stage", Capacity: 30, PartOf: hall.Id), keeper("SCH"), now, _ => Act.Nothing);
        var categories = new Dictionary<Guid, Category>();
        foreach (var (key, category) in DemoCategory.All)
            categories[key] = (await _lists.AddCategoryAsync(organisationId, category)).Category;

        var school = new SchoolCalendar([plan], IsoDayOfWeek.Monday);
        var setting = new DraftSetting(Halifax, [.. categories.Values], school)
        {
            Places = [.. (await _lists.PlacesAsync(organisationId)).Select(known => known.Place)],
        };
        var drafts = new Dictionary<(string, string), (Guid Id, EventContent Content)>();
        foreach (var (plate, draft, description) in _demo.All())
        {
            var content = (draft with { CategoryId = draft.CategoryId is { } key ? categories[key].Id : null }).Check(setting, description);
            var made = new CalendarEvent(Guid.Empty, calendars[plate], default, content, EventState.Live, default);
            // Long enough ago for what became of some of them since to be news.
            var done = await _acts.CommitAsync(
                organisationId, keeper(plate), now - Duration.FromDays(30), Act.Writing(EventWrite.Making(made)));
            drafts[(plate, draft.Title)] = (done!.Events[0].Id, content);
        }
        foreach (var (plate, title, day, ago, edit) in _demo.Changes())
            await ChangeAsync(plate, drafts[(plate, title)].Id, day, now - ago, edit, school, setting);
        return drafts.ToDictionary(one => one.Key, one => one.Value.Id);
    }

    private Task PlaceAsync(string name, double? north = null, double? east = null) =>
        _lists.AddPlaceAsync(organisationId, new KnownPlace(default, name, north, east), keeper("SCH"), now, _ => Act.Nothing);

    private Task SaveAsync(KnownPlace place) => _lists.SavePlaceAsync(organisationId, place, keeper("SCH"), now, Act.Nothing,
        new AuditLine(keeper("SCH"), AuditAct.ListChanged, place.Name, null, now));

    private async Task ChangeAsync(
        string plate, Guid id, LocalDate day, Instant at, Func<EventDraft, EventDraft>? edit, SchoolCalendar school, DraftSetting setting)
    {
        var stored = (await _events.FindAsync(organisationId, id))!;
        var (content, timing) = (stored.Event.Content, stored.Event.Series.Timing);
        var seenFrom = day + timing.Start.TimeOfDay;
        var change = edit is null
            ? new Change(ChangeAct.Cancel, seenFrom)
            : new Change(ChangeAct.Edit, seenFrom, Typed(edit, content, day, setting));
        var outcome = new SeriesEdit(stored.Event, change, school).Apply(ChangeScope.This, new HashSet<LocalDateTime>());
        await _acts.CommitAsync(organisationId, keeper(plate), at, Act.Writing(
            EventWrite.Saving(stored, outcome.Event, edit is null ? EventAct.Cancelled : EventAct.Changed, isRemoved: false, school)));
    }

    private static EventContent Typed(Func<EventDraft, EventDraft> edit, EventContent content, LocalDate day, DraftSetting setting)
    {
        var timing = content.Series.Timing;
        return edit(EventDraft.Of(content, timing.StartingAt(day + timing.Start.TimeOfDay)) with { EndDate = null })
            .Check(setting, content.Description);
    }
}
