using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Store;

namespace Valtro.Application.Events;

/// <param name="IsUsual">What it says of place, length, category and reminder is usual on its calendar; it needs no name.</param>
/// <param name="Event">With its calendar. What it says of repetitions, of other calendars and of who sees it is left out.</param>
public sealed record TemplateRequest(string? Name, bool IsUsual, EventForm Event);

/// <param name="Event">From which a form starts; the length of time counts, and not the day.</param>
/// <param name="Attached">What its files are.</param>
/// <param name="MayRemove">Whoever made it, and editors of its calendar.</param>
public sealed record TemplateBody(
    Guid Id, string Name, Guid CalendarId, bool IsUsual, EventForm Event, IReadOnlyList<EventFileBody> Attached, bool MayRemove);

/// <summary>What is usual on each of some calendars.</summary>
public sealed class UsualValues(IReadOnlyDictionary<Guid, EventForm> byCalendar)
{
    public static UsualValues None { get; } = new(new Dictionary<Guid, EventForm>());

    /// <summary>With what is usual there, where the draft says nothing: its place, category and reminder.</summary>
    public T Over<T>(Guid calendarId, T draft)
        where T : EventDraft => !byCalendar.TryGetValue(calendarId, out var usual) ? draft : draft with
        {
            Place = draft.Place.Length > 0 ? draft.Place : usual.Place,
            CategoryId = draft.CategoryId ?? usual.CategoryId,
            Reminder = draft.Reminder ?? usual.Reminder,
        };
}

/// <summary>Events kept as patterns, for those who make events on their calendars.</summary>
/// <remarks>What a template says is told to nobody else: contributors of a calendar see all that stands on it.</remarks>
public sealed class Templates(Access access, TemplateStore store, FileStore files, EventDesk desk)
{
    public async Task<IReadOnlyList<TemplateBody>> AllAsync()
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var templates = await store.ListAsync(viewer.OrganisationId, [.. Contributes(viewer, house)]);
        var named = templates.SelectMany(template => template.Form.Files).Distinct().ToArray();
        var known = named.Length == 0
            ? []
            : (await files.SomeAsync(viewer.OrganisationId, named)).ToDictionary(one => one.File.Id, one => one.File);
        return [.. templates.Select(template =>
        {
            var form = AsItCanBe(template.Form, house) with
            {
                Files = [.. template.Form.Files.Where(known.ContainsKey)],
            };
            return new TemplateBody(template.Id, template.Name, template.CalendarId, template.IsUsual, form,
                [.. form.Files.Select(id => EventFileBody.Of(known[id]))], MayRemove(viewer, template));
        })];
    }

    public async Task<Guid> SaveAsync(TemplateRequest request)
    {
        var viewer = await access.ViewerAsync();
        var calendar = request.Event.CalendarId;
        Access.Require(
            viewer.May(request.IsUsual ? CalendarAction.Edit : CalendarAction.Contribute, calendar), "access.makersKeepTemplates");
        var name = Texts.OneLine("name", "what.name", request.Name, Texts.LongestName, required: !request.IsUsual);
        var form = request.IsUsual ? UsualOf(request.Event) : request.Event with
        {
            Placements = null,
            IsDraft = false,
            Repeat = null,
            Extra = [],
            Removed = [],
            Cap = null,
            ShowFrom = null,
            ShowUntil = null,
        };
        await desk.CheckAsync(form);
        return await store.SaveAsync(viewer.OrganisationId,
            new EventTemplate(Guid.CreateVersion7(), calendar, viewer.AccountId, name.Length > 0 ? name : "usual", request.IsUsual, form),
            desk.Now);
    }

    private static EventForm UsualOf(EventForm form) => new()
    {
        CalendarId = form.CalendarId,
        Title = form.Title,
        AllDay = form.AllDay,
        Date = form.Date,
        EndDate = form.EndDate,
        From = form.From,
        To = form.To,
        Zone = form.Zone,
        Place = form.Place,
        CategoryId = form.CategoryId,
        Reminder = form.Reminder,
    };

    public async Task RemoveAsync(Guid id)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var template = (await store.ListAsync(viewer.OrganisationId, [.. Contributes(viewer, house)])).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("template");
        Access.Require(MayRemove(viewer, template), "access.makersKeepTemplates");
        await store.RemoveAsync(viewer.OrganisationId, id);
    }

    /// <summary>What is usual on calendars, for drafts that say nothing of it themselves.</summary>
    public async Task<UsualValues> UsualAsync(Viewer viewer, House house) => new(
        (await store.ListAsync(viewer.OrganisationId, [.. Contributes(viewer, house)])).Where(template => template.IsUsual)
            .ToDictionary(template => template.CalendarId, template => AsItCanBe(template.Form, house)));

    internal static IEnumerable<Guid> Contributes(Viewer viewer, House house) =>
        house.Calendars.Keys.Where(id => viewer.SeesAs is null && viewer.May(CalendarAction.Contribute, id));

    private static bool MayRemove(Viewer viewer, EventTemplate template) =>
        template.AccountId == viewer.AccountId || viewer.May(CalendarAction.Edit, template.CalendarId);

    /// <summary>Without what is not offered any more; members by the names that they have now.</summary>
    private static EventForm AsItCanBe(EventForm form, House house) => form with
    {
        CategoryId = house.Categories.Any(category => category.Id == form.CategoryId) ? form.CategoryId : null,
        People = [.. form.People.Where(one => one.MemberId is not { } id || house.Members.ContainsKey(id))
            .Select(one => one.MemberId is { } id ? one with { Name = house.Members[id] } : one)],
    };
}
