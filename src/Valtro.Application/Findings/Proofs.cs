using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Editions;
using Valtro.Application.SignOff;
using Valtro.Core;
using Valtro.Core.Deliveries;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Findings;
using Valtro.Core.Recurrence;
using Valtro.Core.YearPlans;
using Valtro.Store;

namespace Valtro.Application.Findings;

/// <summary>Editions read before their readers do, for those who compose them: the proof, what is wrong, and what is open to a
/// person.</summary>
public sealed class Proofs(
    Access access, ComposersEditions composed, EditionDesk desk, ProofGrounds grounds, FindingStore store, RevisionStore revisions,
        SignOffQueue signOff,
    WorkStore work, IClock clock)
{
    private const int LinesShown = 60;
    private const int NeedsShown = 200;
    private const int LongestReason = 200;

    /// <summary>A week in which so many working days are closed is one of a break.</summary>
    private const int ClosedDays = 3;

    /// <param name="from">The day from which on entries are shown; today where none is said.</param>
    public async Task<ProofResponse> GetAsync(Guid id, LocalDate? from)
    {
        var (viewer, house, edition) = await composed.FindAsync(id);
        var (ground, around, _) = await grounds.OfAsync(edition, house);
        var first = from ?? ground.Today;
        var shown = ground.Composed.Entries.SkipWhile(entry => entry.Occurrence.LocalEnd.Date < first
            || (entry.Occurrence.LocalEnd.Date == first && entry.Occurrence.LocalStart.Date < first)).ToArray();
        var found = Heard(viewer, house, FindingKind.Of(ground));
        return new ProofResponse(
            edition.Id, edition.Name, ground.Edition.Audience, edition.CalendarId, edition.IsInTheMaking, edition.Version,
            ground.Composed.Entries.Count(entry => !entry.IsBreak),
            [.. Bodies(found, around.Found)], [.. Weeks(ground, found)],
            [.. shown.Take(LinesShown).Select(entry => LineOf(entry, ground))], Math.Max(0, shown.Length - LinesShown),
            edition.IsInTheMaking ? null : around.WentOutAt, FeedReach.Busiest(around.Fetched), FindingKind.All.Count);
    }

    private static IReadOnlyList<Finding> Heard(Viewer viewer, House house, IReadOnlyList<Finding> found) =>
        [.. found.Where(one => viewer.MayHear(one, house.Disclosures))];

    private static IEnumerable<FindingBody> Bodies(IEnumerable<Finding> found, IReadOnlyList<StoredFinding> stored)
    {
        var known = stored.ToDictionary(one => (one.Finding.Kind, one.Finding.About));
        return found.Select(one => FindingBody.Of(one, known.GetValueOrDefault((one.Kind, one.About))));
    }

    /// <summary>What became of its entries within a fortnight, the latest first.</summary>
    public async Task<IReadOnlyList<ChangedLine>> ChangedAsync(Guid id)
    {
        var (viewer, house, edition) = await composed.FindAsync(id);
        if (edition.IsInTheMaking)
            return [];
        var (made, sources) = ProofGrounds.Made(edition, house);
        var now = clock.GetCurrentInstant();
        var news = await revisions.SinceAsync(
            viewer.OrganisationId, [.. sources.Select(source => source.CalendarId)], now - LatelyChanged.Lately);
        var composition = new Composition(made.Edition, sources, house.School, now);
        return [.. LatelyChanged.Of(composition, news, ProofGround.YearFrom(made.Edition, now)).Entries
            .Where(one => one.Entry.EventId is not null)
            .DistinctBy(one => (one.Entry.EventId, one.Entry.Occurrence.RecurrenceId))
            .Select(one => new ChangedLine(
                one.Entry.EventId!.Value, DateName.Of(one.Entry.Occurrence.RecurrenceId, one.Entry.Timing.AllDay), one.Entry.Title,
                SourcesOf(one.Entry),
                OccurrenceTimes.Of(one.Entry.Timing, one.Entry.Occurrence, made.Edition.Zone, one.Entry.Event.Detail).Start,
                one.Entry.Timing.AllDay, one.Change,
                one.Change == EntryChange.Moved
                    ? OccurrenceTimes.Of(one.Before.Timing, one.Before.Occurrence, made.Edition.Zone, one.Entry.Event.Detail).Start
                    : null, one.More, one.At))];
    }

    private static ProofLine LineOf(Entry entry, ProofGround ground)
    {
        var told = entry.Event;
        var times = OccurrenceTimes.Of(entry.Timing, entry.Occurrence, ground.Edition.Zone, told.Detail);
        return new ProofLine(
            entry.EventId, DateName.Of(entry.Occurrence.RecurrenceId, entry.Timing.AllDay), times.Start, times.End, entry.Timing.AllDay,
            entry.Title, told.Content.Place.Name, told.State,
            SourcesOf(entry), entry.LookAlikes.Count);
    }

    private static SourceBody[] SourcesOf(Entry entry) =>
        [.. entry.Sources.Select(source => new SourceBody(source.Plate.Code, source.Name, source.Hue.Name, false, source.Slug, []))];

    private static IEnumerable<ProofWeek> Weeks(ProofGround ground, IReadOnlyList<Finding> found)
    {
        var heavy = found.Select(one => one.Week).OfType<LocalDate>().ToHashSet();
        LocalDate WeekOf(LocalDate day) => day.With(DateAdjusters.PreviousOrSame(ground.Edition.FirstDayOfWeek));
        var counts = ground.Composed.Entries.Where(entry => !entry.IsBreak)
            .CountBy(entry => WeekOf(LocalDate.Max(entry.Occurrence.LocalStart.Date, ground.Year.First))).ToDictionary();
        for (var week = WeekOf(ground.Year.First); week < ground.Year.End; week = week.PlusWeeks(1))
        {
            var first = week;
            var closed = Enumerable.Range(0, 7).Select(first.PlusDays)
                .Count(day => day.DayOfWeek < IsoDayOfWeek.Saturday && ground.School.IsClosed(day));
            yield return new ProofWeek(week, counts.GetValueOrDefault(week), closed >= ClosedDays, heavy.Contains(week));
        }
    }

    /// <summary>Lets a finding be, with a reason, or takes it up again.</summary>
    public async Task PutOffAsync(Guid id, PutOffRequest request)
    {
        var (viewer, house, edition) = await composed.FindAsync(id);
        var reason = request.Reason is null ? null : Texts.OneLine("reason", "what.reason", request.Reason, LongestReason);
        Task<bool> PutOff() => store.PutOffAsync(
            viewer.OrganisationId, id, request.Kind ?? "", request.About ?? "", reason, viewer.AccountId, clock.GetCurrentInstant());
        if (await PutOff())
            return;
        // What is shown was found just now: work has not come to it yet.
        var ground = (await grounds.OfAsync(edition, house)).Ground;
        await store.KeepAsync(viewer.OrganisationId, id, FindingKind.Of(ground), ground.Now);
        if (!await PutOff())
            throw new NotFoundException("finding");
    }

    /// <summary>What another setting would do.</summary>
    public Task<ProofDifference> PreviewAsync(Guid id, SettingRequest request) =>
        DifferenceAsync(id, (edition, house) => (edition with { Draft = Otherwise(edition, request) }, house));

    /// <summary>What another year would do to the edition, before it is saved.</summary>
    public Task<ProofDifference> InYearAsync(Guid id, SchoolCalendar planned) =>
        DifferenceAsync(id, (edition, house) => (edition, house with { School = planned }));

    private async Task<ProofDifference> DifferenceAsync(
        Guid id, Func<StoredEdition, House, (StoredEdition Edition, House House)> otherwise)
    {
        var (viewer, house, edition) = await composed.FindAsync(id);
        var proving = await grounds.OfAsync(edition, house);
        var other = otherwise(edition, house);
        return ProofDifference.Between(
            proving.Ground, proving.Otherwise(other.Edition, other.House), found => Heard(viewer, house, found));
    }

    /// <exception cref="ChangedMeanwhileException">The edition is not as it was shown.</exception>
    public async Task<EditionResponse> SetAsync(Guid id, SettingRequest request)
    {
        var (_, _, edition) = await composed.FindAsync(id);
        return await desk.SaveAsync(id, request.Version, Otherwise(edition, request));
    }

    private static EditionDraft Otherwise(StoredEdition edition, SettingRequest request) =>
        Enum.IsDefined(request.Setting) ? edition.Draft.With(request.Setting, request.CalendarId)
        : throw new RuleException("setting", "edition.noSuchSetting");

    /// <summary>All that is open to the person: what is wrong with their editions, what they decide, what has not gone out.</summary>
    public async Task<NeedsResponse> NeedsAsync()
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        if (viewer.SeesAs is not null)
            return new NeedsResponse([], 0, FindingCounts.None, 0, 0);
        var theirs = house.Editions.Where(edition => viewer.MayCompose(edition.Sources, house.Disclosures))
            .ToDictionary(edition => edition.Id);
        var all = (await store.OpenAsync(viewer.OrganisationId, [.. theirs.Keys]))
            .Where(one => viewer.MayHear(one.Finding, house.Disclosures))
            .Select(one => (Stored: one, Edition: theirs[one.EditionId])).ToArray();
        // What is wrong with an event is wrong in all editions that have it.
        var shown = all.Where(one => one.Stored.Finding.Severity < Severity.ForInformation)
            .GroupBy(one => (one.Stored.Finding.Kind, one.Stored.Finding.About is { Length: > 0 } about ? about : $"{one.Edition.Id}"))
            .ToArray();
        var failing = viewer.May(OrganisationAction.ManagePeople) ? (await work.FailingAsync(viewer.OrganisationId)).Count : 0;
        return new NeedsResponse(
            [.. shown.Take(NeedsShown).Select(same => new NeedBody(
                [.. same.OrderBy(one => one.Edition.IsStandard).Select(one => new NamedEdition(one.Edition.Id, one.Edition.Name))],
                FindingBody.Of(same.First().Stored.Finding, same.First().Stored)))],
            Math.Max(0, shown.Length - NeedsShown), FindingCounts.Of(
                shown.Select(same => same.First().Stored.Finding.Severity)
                    .Concat(all.Select(one => one.Stored.Finding.Severity).Where(one => one == Severity.ForInformation))),
            await signOff.CountAsync(), failing);
    }
}
