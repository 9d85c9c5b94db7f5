using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Calendars;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Application.Intake;
using Valtro.Application.Outside;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Sources;

/// <summary>Followed sources: looked at, followed, ruled, asked at once, left. They are of those who may fill all calendars that a source
/// fills, and of whoever follows it.</summary>
public sealed partial class FollowedSources(
    Access access, SourceStore store, FetchStore fetches, ForeignNames names, AccountStore accounts, EventStore events, EventDesk desk,
    Commits commits, RichTexts richTexts, IOutside outside, Settings settings, IClock clock)
{
    private const int MostShown = 300;

    private const int MostFetches = 12;

    private const int DaysShown = 30;

    private const int FirstEntries = 6;

    private const int MostWords = 12;

    private static readonly (int Least, int Most) Minutes = (15, 7 * 24 * 60);

    [GeneratedRegex(@"^\s*[\[(]?([\p{L}\p{N}]{1,12})[\])]?\s*[–—:|\-\]]")]
    private static partial Regex Beginning { get; }

    public async Task<IReadOnlyList<SourceListed>> AllAsync()
    {
        var viewer = await access.ViewerAsync();
        var now = clock.GetCurrentInstant();
        return [.. (await store.ListAsync(viewer.OrganisationId)).Where(source => MayManage(viewer, source)).Select(source =>
            new SourceListed(source.Id, source.Name, source.Shown, HealthOf(source), source.RightAt, source.FailedSince, source.Failures,
                Say(source.Problem), [.. source.Rules.Calendars()], IsBusy(source, now)))];
    }

    private static bool MayManage(Viewer viewer, FollowedSource source)
    {
        if (viewer.SeesAs is not null)
            return false;
        var calendars = source.Rules.Calendars().ToArray();
        return viewer.IsAdministrator || viewer.AccountId == source.AccountId && viewer.ContributesSomewhere
            || calendars.Length > 0 && calendars.All(id => viewer.May(CalendarAction.Edit, id));
    }

    private static SourceHealth HealthOf(FollowedSource source) =>
        source.Held is not null ? SourceHealth.Held
        : source.FailedSince is not null ? SourceHealth.Failing
        : source.RightAt is null ? SourceHealth.New
        : SourceHealth.Right;

    private static bool IsBusy(FollowedSource source, Instant now) =>
        !source.IsApplied && source.FailedSince is null || source.DueAt <= now;

    private static string Say(Saying? saying) => saying is null ? "" : Spoken.Now.Say(saying);

    private async Task<IntakeGround> GroundAsync()
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        return new IntakeGround(viewer, house, new IntakeAnswers(),
            clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date, richTexts, UsualValues.None).Ready();
    }

    /// <summary>Whoever makes events at once somewhere may look at addresses.</summary>
    private async Task<IntakeGround> EditorsGroundAsync()
    {
        var ground = await GroundAsync();
        Access.Require(ground.Mine.Count > 0, "access.editorsBringEvents");
        return ground;
    }

    /// <summary>What an address has, before it is followed.</summary>
    /// <exception cref="RuleException">It cannot be had, or is no calendar.</exception>
    public async Task<SourceLook> LookAsync(SourceAddress typed, CancellationToken stopping)
    {
        var ground = await EditorsGroundAsync();
        var (address, secrets) = typed.Checked(outside, settings);
        var answer = await outside.GetAsync(
            new OutsideQuestion(address, SourceStore.Largest) { Secrets = secrets }, stopping);
        var reading = new SourceReading(ground, new SourceRules(), new Dictionary<string, Landing>(), Guid.Empty);
        var (entries, found) = reading.Read(answer.Content);
        var now = clock.GetCurrentInstant();
        var came = entries.Where(entry => entry.Came is not null).OrderBy(entry => StartOf(entry)).ToArray();
        var ahead = came.Where(entry => !entry.IsOver(now)).ToArray();
        var days = came.Select(entry => StartOf(entry).Date).ToArray();
        var words = RuleWords.For(Spoken.LocaleIn(ground.House.Organisation));
        return new SourceLook(
            found.Name.Length > 0 ? Texts.Kept(found.Name, Texts.LongestName) : address.Host, came.Length,
            days.Length == 0 ? null : days.Min(), days.Length == 0 ? null : days.Max(), found.Zone, answer.Content.Length,
            [.. (ahead.Length > 0 ? ahead : came).Take(FirstEntries).Select(entry =>
                new LookedEntry(entry.Title, words.Say(entry.Came!.Series)))],
            Frequent(came.Select(entry => Beginning.Match(entry.Title)).Where(match => match.Success)
                .Select(match => match.Groups[1].Value)),
            Frequent(came.SelectMany(entry => (entry.Came!.Content.Category is { } category ? [category.Name] : Array.Empty<string>())
                .Concat(entry.Came.Content.Tags))),
            entries.Count - came.Length);
    }

    private static LocalDateTime StartOf(SourceEntry entry) => entry.Came!.Series.Timing.Start;

    private static IReadOnlyList<LookedWord> Frequent(IEnumerable<string> words) =>
        [.. words.GroupBy(word => word, StringComparer.CurrentCultureIgnoreCase).Where(group => group.Count() > 1)
            .OrderByDescending(group => group.Count()).ThenBy(group => group.Key, StringComparer.CurrentCulture).Take(MostWords)
            .Select(group => new LookedWord(group.Key, group.Count()))];

    /// <param name="own">Of a calendar that it fills alone; null where its rules say where all goes.</param>
    public async Task<Guid> AddAsync(SourceRequest request, CalendarSettings? own)
    {
        var ground = await EditorsGroundAsync();
        var viewer = ground.Viewer;
        if (own is not null)
            Access.Require(viewer.May(OrganisationAction.ManageCalendars), CalendarView.KeepersOnly);
        var (address, secrets) = request.Address.Checked(outside, settings);
        var rules = Checked(request.Rules ?? new SourceRules(), ground.House, viewer, null);
        var (id, now) = (Guid.CreateVersion7(), clock.GetCurrentInstant());
        var typed = string.IsNullOrWhiteSpace(request.Name) ? address.Host : request.Name;
        var name = Texts.OneLine("name", "what.name", typed, Texts.LongestName);
        await store.AddAsync(
            FollowedSource.New(id, viewer.OrganisationId, viewer.AccountId, name, address,
                secrets.For(address).Seal(settings.Sealing, id), rules,
                Rhythm(request.EveryMinutes), now),
            own, new AuditLine(viewer.AccountId, AuditAct.SourceFollowed, name,
                Saying.Of("text.plain", ("text", OutsideAccess.Shown(address))), now));
        return id;
    }

    private static int Rhythm(int minutes) => minutes >= Minutes.Least && minutes <= Minutes.Most
        ? minutes
        : throw new RuleException("everyMinutes", "source.rhythm", ("least", Minutes.Least), ("most", Minutes.Most / 60));

    /// <exception cref="RuleException">It names a calendar that they may not fill.</exception>
    private static SourceRules Checked(SourceRules typed, House house, Viewer viewer, Guid? own)
    {
        var rules = typed.Checked();
        foreach (var (landing, field) in rules.Rules.Select((rule, place) => (rule.Landing, $"rules.{place}.landing"))
            .Append((rules.Else, "else")))
        {
            if (landing.CalendarId is { } id)
                SourceReading.RequireFillable(id, field, house, viewer, own);
        }
        return rules;
    }

    private async Task<(Viewer Viewer, FollowedSource Source)> FoundAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        return await store.FindAsync(viewer.OrganisationId, id) is { } source && MayManage(viewer, source)
            ? (viewer, source)
            : throw new NotFoundException("source");
    }

    /// <exception cref="NotFoundException">There is none such of theirs.</exception>
    public async Task<FollowedBody> FindAsync(Guid id)
    {
        var (viewer, source) = await FoundAsync(id);
        var (now, zone) = (clock.GetCurrentInstant(), (await access.HouseAsync()).Organisation.TimeZone);
        var today = now.InZone(zone).Date;
        var first = today.PlusDays(1 - DaysShown);
        var lately = await fetches.LatelyAsync(viewer.OrganisationId, id, first.AtStartOfDayInZone(zone).ToInstant());
        var byDay = lately.ToLookup(fetch => fetch.At.InZone(zone).Date);
        return new FollowedBody(
            id, source.Name, source.Shown, HasSecrets(source), (await accounts.FindAsync(source.AccountId))?.Name ?? "",
            source.EveryMinutes, source.Version, IsBusy(source, now), source.Rules, HealthOf(source), source.RightAt, source.ChangedAt,
            source.FailedSince, source.Failures, Say(source.Problem), source.DueAt, source.Bytes,
            source.Held is { } held ? new SourceHeld(held.Because, source.HeldAt!.Value, held.Before, held.Now, held.Gone) : null,
            source.OwnCalendar,
            [.. Enumerable.Range(0, DaysShown).Select(day => first.PlusDays(day)).Select(day => new SourceDay(
                day, Count(day, FetchOutcome.Changed), Count(day, FetchOutcome.Same), Count(day, FetchOutcome.Failed),
                Count(day, FetchOutcome.Held)))],
            [.. lately.Where(fetch => fetch.Outcome != FetchOutcome.Same).Take(MostFetches).Select(fetch => new SourceFetchBody(
                fetch.At, fetch.Outcome, fetch.Bytes, fetch.Made, fetch.Changed, fetch.Removed,
                [.. fetch.News.Select(Spoken.Now.Say)]))]);

        int Count(LocalDate day, FetchOutcome outcome) => byDay[day].Count(fetch => fetch.Outcome == outcome);
    }

    private bool HasSecrets(FollowedSource source) => OutsideAccess.Open(settings.Sealing, source.Access, source.Id)?.HasSecrets == true;

    /// <summary>What it said last, by rules, and what is said of single entries.</summary>
    private async Task<(IReadOnlyList<SourceEntry> Entries, IReadOnlyDictionary<string, Landing> Choices)> EntriesAsync(
        FollowedSource source, SourceRules rules)
    {
        var choices = await store.ChoicesAsync(source.OrganisationId, source.Id);
        return await store.ContentAsync(source.OrganisationId, source.Id) is { } content
            ? (new SourceReading(await GroundAsync(), rules, choices, source.Id).Read(content).Entries, choices)
            : ([], choices);
    }

    /// <summary>What rules would make of what it said last.</summary>
    /// <param name="typed">Null for its own.</param>
    public async Task<SourcePreview> PreviewAsync(Guid id, SourceRules? typed)
    {
        var (viewer, source) = await FoundAsync(id);
        var (house, now) = (await access.HouseAsync(), clock.GetCurrentInstant());
        var rules = typed is null ? source.Rules : Checked(typed, house, viewer, source.OwnCalendar);
        var (entries, choices) = await EntriesAsync(source, rules);
        var plan = SourcePlan.Of(entries, await names.OfSourceAsync(viewer.OrganisationId, id),
            new ActPlanner(viewer, house.Calendars, house.School), house.School, now);
        var words = RuleWords.For(Spoken.LocaleIn(house.Organisation));
        var shown = plan.Outcomes
            .OrderBy(one => one.State != SourceEntryState.Asks).ThenBy(one => one.Entry.IsOver(now))
            .ThenBy(one => one.Entry.Came?.Series.Timing.Start ?? default).Take(MostShown);
        return new SourcePreview(
            [.. Enumerable.Range(0, rules.Rules.Count).Select(rule => CountOf(one => one.Entry.Ruling.Rule == rule)),
                CountOf(one => one.Entry.Ruling.Rule is null && !choices.ContainsKey(one.Entry.Uid))],
            [.. shown.Select(one => Show(one, choices, words))],
            plan.Outcomes.Count, Count(SourceEntryState.Taken) + Count(SourceEntryState.Also), Count(SourceEntryState.LeftOut),
            Count(SourceEntryState.Asks), SeenOf(plan, house, now), plan.Made, plan.Changed, plan.Removed);

        int Count(SourceEntryState state) => plan.Outcomes.Count(one => one.State == state);

        RuleCount CountOf(Func<SourceOutcome, bool> isOf)
        {
            var its = plan.Outcomes.Where(one => isOf(one) && !one.Entry.IsNarrowedAway).ToArray();
            var next = its.Where(one => one.Entry.Came is not null && !one.Entry.IsOver(now)).MinBy(one => StartOf(one.Entry));
            return new RuleCount(its.Length, next is null ? "" : $"{next.Entry.Ruling.Title}, {words.Say(next.Entry.Came!.Series)}");
        }
    }

    private static SourceEntryBody Show(SourceOutcome one, IReadOnlyDictionary<string, Landing> choices, RuleWords words)
    {
        var (entry, becomes) = (one.Entry, one.Is ?? one.Entry.Landed);
        return new SourceEntryBody(
            entry.Uid, entry.Title, entry.Came is null ? "" : words.Say(entry.Came.Series), one.State,
            becomes?.Content.Title ?? entry.Ruling.Title, entry.Lands ? entry.Landed?.HomeCalendarId : null,
            becomes?.Content.IsDeadline == true, (becomes ?? entry.Came)?.State == EventState.Cancelled, entry.Ruling.Rule,
            choices.ContainsKey(entry.Uid), one.AlsoOf, one.EventId, [.. entry.Remarks.Select(Spoken.Now.Say)]);
    }

    private static SourceSeen SeenOf(SourcePlan plan, House house, Instant now)
    {
        int By(Audience audience) => plan.Outcomes.Count(one => one.Is is { } shown && shown.Calendars.Any(id =>
            house.Calendars.TryGetValue(id, out var calendar)
            && Visibility.Of(shown, calendar.Disclosure, audience, now) > Detail.Nothing));
        return new SourceSeen(By(Audience.Members), By(Audience.Link), By(Audience.Everyone));
    }

    /// <summary>Other rules, another name, rhythm or address. Whoever says so is who it lands by.</summary>
    public async Task SaveAsync(Guid id, SourceChange change)
    {
        var (viewer, source) = await FoundAsync(id);
        if (change.Version != source.Version)
            throw new ChangedMeanwhileException();
        var rules = Checked(change.Rules ?? source.Rules, await access.HouseAsync(), viewer, source.OwnCalendar);
        var now = clock.GetCurrentInstant();
        var saved = source with
        {
            Name = Texts.OneLine("name", "what.name", change.Name ?? source.Name, Texts.LongestName),
            EveryMinutes = Rhythm(change.EveryMinutes),
            Rules = rules,
        };
        if (change.Address is { } typed)
        {
            var (address, secrets) = typed.Checked(outside, settings);
            saved = saved with
            {
                Shown = OutsideAccess.Shown(address),
                Access = secrets.For(address).Seal(settings.Sealing, id),
                // Another address has no answer yet.
                ETag = null,
                LastModified = null,
                DueAt = now,
            };
        }
        await store.SaveAsync(
            saved, viewer.AccountId, now, new AuditLine(viewer.AccountId, AuditAct.SourceChanged, saved.Name, null, now));
    }

    /// <summary>Says of one entry what becomes of it.</summary>
    public async Task ChooseAsync(Guid id, SourceChoice choice)
    {
        var (viewer, source) = await FoundAsync(id);
        if (string.IsNullOrEmpty(choice.Uid) || choice.Uid.Length > 2_000 || !Texts.CanBeWritten(choice.Uid))
            throw new RuleException("uid", "source.noEntry");
        if (choice.Landing is { } landing)
        {
            if (landing.To == LandingTo.Calendar && landing.CalendarId is null)
                throw new RuleException("landing", "source.ruleCalendar");
            if (landing.CalendarId is { } calendar)
                SourceReading.RequireFillable(calendar, "landing", await access.HouseAsync(), viewer, source.OwnCalendar);
        }
        if ((await EntriesAsync(source, source.Rules)).Entries.All(entry => entry.Uid != choice.Uid))
            throw new RuleException("uid", "source.noEntry");
        await store.ChooseAsync(source, choice.Uid, choice.Landing, viewer.AccountId, clock.GetCurrentInstant());
    }

    public async Task FetchNowAsync(Guid id)
    {
        var (_, source) = await FoundAsync(id);
        await store.FetchNowAsync(source, clock.GetCurrentInstant());
    }

    /// <summary>What is held back is taken, or stays out.</summary>
    public async Task DecideAsync(Guid id, HeldDecision decision)
    {
        var (viewer, source) = await FoundAsync(id);
        if (!await store.DecideAsync(source, decision.IsTaken, viewer.AccountId, clock.GetCurrentInstant()))
            throw new ChangedMeanwhileException();
    }

    /// <summary>An entry that was removed here is shown again.</summary>
    public async Task ShowAgainAsync(Guid id, SourceChoice choice)
    {
        var (viewer, source) = await FoundAsync(id);
        var house = await access.HouseAsync();
        var known = (await names.OfSourceAsync(viewer.OrganisationId, id)).Names.GetValueOrDefault(choice.Uid ?? "");
        var act = known is { Stored.IsRemoved: true }
            ? new ActPlanner(viewer, house.Calendars, house.School).TakingOut(known.Stored)
            : Act.Nothing;
        await store.ShowAgainAsync(source, choice.Uid ?? "", act, viewer.AccountId, clock.GetCurrentInstant());
    }

    /// <summary>It is followed no more: what stands here of it is ours, or goes.</summary>
    /// <param name="keepsEvents">They are ours from now on; else they go.</param>
    public async Task<ActResponse> LeaveAsync(Guid id, bool keepsEvents)
    {
        var (viewer, source) = await FoundAsync(id);
        var house = await access.HouseAsync();
        var planner = new ActPlanner(viewer, house.Calendars, house.School);
        var all = await events.OfSourceAsync(viewer.OrganisationId, id, withBin: true);
        var act = Act.All([.. all.Select(one => keepsEvents || one.IsRemoved ? planner.TakingOver(one) : planner.Dropping(one))]);
        var now = clock.GetCurrentInstant();
        var actId = await store.LeaveAsync(
            source, act, viewer.AccountId, now, new AuditLine(viewer.AccountId, AuditAct.SourceLeft, source.Name, null, now));
        return new ActResponse(actId, all.Count(one => !one.IsRemoved));
    }

    /// <summary>Where an event comes from.</summary>
    /// <exception cref="NotFoundException">It comes from nowhere, or they may not change it.</exception>
    public async Task<SourceOfEvent> OfEventAsync(Guid eventId)
    {
        var found = await desk.FindForChangeAsync(eventId, withAbout: false);
        return found.Event.Source is { } id && await store.FindAsync(found.Viewer.OrganisationId, id) is { } source
            ? new SourceOfEvent(id, source.Name, source.RightAt, HealthOf(source), MayManage(found.Viewer, source))
            : throw new NotFoundException("source");
    }

    /// <summary>What a source says is ours from now on.</summary>
    public async Task<ActResponse> TakeOverAsync(Guid eventId)
    {
        var found = await desk.FindForChangeAtOnceAsync(eventId);
        if (found.Event.Source is null)
            throw new NotFoundException("source");
        var done = (await commits.CommitAsync(found.Planner.TakingOver(found.Stored)))!;
        return new ActResponse(done.ActId, 1);
    }
}
