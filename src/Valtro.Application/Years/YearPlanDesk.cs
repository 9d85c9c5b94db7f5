using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Application.Findings;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Years;

/// <summary>A term or a break; both ends inclusive.</summary>
public sealed record SpanBody(string Name, LocalDate First, LocalDate Last)
{
    public static SpanBody Of(NamedDays span) => new(span.Name, span.First, span.Last);

    public NamedDays ToDays() => new(Name.Trim(), First, Last);
}

public sealed record CycleBody(CycleUnit Unit, int Length, bool RestartsEachTerm);

/// <param name="Version">The version that was edited; not needed for a new year.</param>
public sealed record YearPlanRequest(
    string? Name, LocalDate? First, LocalDate? Last, IReadOnlyList<SpanBody> Terms, IReadOnlyList<SpanBody> Breaks, CycleBody? Cycle,
        int? Version);

/// <param name="CycleDays">How often each number of the cycle comes.</param>
public sealed record YearPlanResponse(
    Guid Id, string Name, LocalDate First, LocalDate Last, IReadOnlyList<SpanBody> Terms, IReadOnlyList<SpanBody> Breaks, CycleBody? Cycle,
    int Version,
    IReadOnlyList<int> CycleDays);

/// <param name="Words">Which dates, in a few words.</param>
public sealed record ImpactBody(Guid EventId, Guid CalendarId, string Title, int Gone, int New, int Moved, IReadOnlyList<string> Words,
    IReadOnlyList<string> LostExceptions);

/// <param name="Editions">What goes out and may be looked through before the year is saved; those with a page of their own first.</param>
public sealed record ImpactResponse(int Series, int Dates, IReadOnlyList<ImpactBody> Events, IReadOnlyList<NamedEdition> Editions);

/// <summary>The year plans of the signed-in person's organisation.</summary>
public sealed class YearPlanDesk(Access access, YearPlanStore store, EventStore events, EventDesk desk, Proofs proofs)
{
    public const string KeepersOnly = "access.administratorsYear";

    private const int DatesShown = 6;

    private const int MostEditions = 500;

    public async Task<IReadOnlyList<YearPlanResponse>> ShowAsync()
    {
        var found = await access.HouseAsync();
        return [.. found.Plans.Select(one => Show(one, found.School))];
    }

    public async Task<YearPlanResponse> SaveAsync(Guid? id, YearPlanRequest request)
    {
        var viewer = await AllowedAsync();
        var plan = Check(request);
        var (_, after) = await SchoolsAsync(id, plan);
        if (id is not null && request.Version is null)
            throw new RuleException("version", "request.versionMissing");
        var saved = await store.SaveAsync(viewer.OrganisationId, id, request.Version, plan, desk.Now);
        return Show((await store.ListAsync(viewer.OrganisationId)).Single(one => one.Id == saved), after);
    }

    /// <param name="request">The year as it would be; null when it is removed.</param>
    public async Task<ImpactResponse> PreviewAsync(Guid? id, YearPlanRequest? request)
    {
        var viewer = await AllowedAsync();
        var (before, after) = await SchoolsAsync(id, request is null ? null : Check(request));
        var impacts = PlanImpact.Of(await events.FollowingYearPlanAsync(viewer.OrganisationId), before, after);
        var house = await access.HouseAsync();
        var words = RuleWords.For(Spoken.LocaleIn(house.Organisation));
        return new ImpactResponse(
            impacts.Count,
            impacts.Sum(impact => impact.Count),
            [.. impacts.OrderByDescending(impact => impact.Count).Take(200).Select(impact => Say(impact, words))],
            [.. house.Editions
                .Where(edition => ProofGrounds.GoesOut(edition, house) && viewer.MayCompose(edition.Sources, house.Disclosures))
                .OrderBy(edition => edition.IsStandard).ThenBy(edition => edition.Name, StringComparer.OrdinalIgnoreCase)
                .Take(MostEditions).Select(edition => new NamedEdition(edition.Id, edition.Name))]);
    }

    /// <summary>The proof of an edition in the year as it would be, against the one that is saved.</summary>
    /// <inheritdoc cref="PreviewAsync"/>
    public async Task<ProofDifference> ProveAsync(Guid? id, YearPlanRequest? request, Guid editionId)
    {
        await AllowedAsync();
        return await proofs.InYearAsync(editionId, (await SchoolsAsync(id, request is null ? null : Check(request))).After);
    }

    /// <summary>The next year, with the same terms, breaks and cycle 52 or 53 weeks later. Not saved yet.</summary>
    public async Task<YearPlanRequest> ProposeNextAsync(Guid id)
    {
        var viewer = await AllowedAsync();
        var from = (await store.ListAsync(viewer.OrganisationId)).FirstOrDefault(one => one.Id == id)
            ?? throw new NotFoundException("year plan");
        var next = from.Plan.CopiedTo($"{from.Plan.First.Year + 1}/{(from.Plan.Last.Year + 1) % 100:00}");
        return new YearPlanRequest(
            next.Name, next.First, next.Last, [.. next.Terms.Select(SpanBody.Of)], [.. next.Breaks.Select(SpanBody.Of)],
                CycleOf(next), null);
    }

    public async Task RemoveAsync(Guid id, int version)
    {
        var viewer = await AllowedAsync();
        await store.RemoveAsync(viewer.OrganisationId, id, version, desk.Now);
    }

    private Task<Viewer> AllowedAsync() => access.RequireAsync(OrganisationAction.ManageYearPlan, KeepersOnly);

    /// <summary>All years as they are, and as they would be.</summary>
    private async Task<(SchoolCalendar Before, SchoolCalendar After)> SchoolsAsync(Guid? id, YearPlan? plan)
    {
        var house = await access.HouseAsync();
        var (organisation, stored) = (house.Organisation, house.Plans);
        if (id is not null && stored.All(one => one.Id != id))
            throw new NotFoundException("year plan");
        var rest = stored.Where(one => one.Id != id).Select(one => one.Plan).ToArray();
        if (plan is not null && rest.FirstOrDefault(one => one.First <= plan.Last && plan.First <= one.Last) is { } overlapping)
            throw new RuleException("first", "year.overlapsNamed", ("name", overlapping.Name));
        var first = (IsoDayOfWeek)organisation.FirstDayOfWeek;
        return (house.School, new SchoolCalendar(plan is null ? rest : [.. rest, plan], first));
    }

    private static YearPlan Check(YearPlanRequest request) => new(
        request.Name, request.First, request.Last, [.. request.Terms.Select(span => span.ToDays())],
        [.. request.Breaks.Select(span => span.ToDays())],
        request.Cycle is { } cycle ? new DayCycle(cycle.Unit, cycle.Length, cycle.RestartsEachTerm) : null);

    private static YearPlanResponse Show(StoredYearPlan stored, SchoolCalendar school)
    {
        var plan = stored.Plan;
        var numbers = plan.Cycle is null ? [] : Enumerable.Range(1, plan.Cycle.Length)
            .Select(number => school.DaysNumbered([number], plan.First).TakeWhile(day => day <= plan.Last).Count()).ToArray();
        return new YearPlanResponse(
            stored.Id, plan.Name, plan.First, plan.Last, [.. plan.Terms.Select(SpanBody.Of)], [.. plan.Breaks.Select(SpanBody.Of)],
                CycleOf(plan), stored.Version, numbers);
    }

    private static CycleBody? CycleOf(YearPlan plan) =>
        plan.Cycle is { } cycle ? new CycleBody(cycle.Unit, cycle.Length, cycle.RestartsEachTerm) : null;

    private static ImpactBody Say(PlanImpact impact, RuleWords words)
    {
        var lines = new List<string>();
        Add("impact.fallOut", impact.Gone);
        Add("impact.comeIn", impact.New);
        Add("impact.move", impact.Moved);
        return new ImpactBody(
            impact.Event.Id, impact.Event.HomeCalendarId, impact.Event.Content.Title, impact.Gone.Count, impact.New.Count,
            impact.Moved.Count, lines,
            [.. impact.Exceptions.Select(day => words.Day(day, withWeekday: true))]);

        void Add(string code, IReadOnlyList<LocalDate> days)
        {
            if (days.Count == 0)
                return;
            var line = words.Speech.Say(code, ("days", string.Join(", ", days.Take(DatesShown).Select(day => words.Day(day)))));
            lines.Add(days.Count > DatesShown ? words.Speech.Say("impact.more", ("line", line), ("count", days.Count - DatesShown)) : line);
        }
    }
}
