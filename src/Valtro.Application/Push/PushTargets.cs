using NodaTime;
using NodaTime.Text;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Application.Intake;
using Valtro.Application.Outside;
using Valtro.Application.Sources;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Intake;
using Valtro.Core.Push;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Push;

/// <summary>Calendars elsewhere that are written: found, set up, looked at, given up. They are of those who may compose or publish what is
/// written there.</summary>
public sealed class PushTargets(
    Access access, PushStore store, PushedStore pushed, WorkStore work, AccountStore accounts, Intakes intakes, RichTexts richTexts,
    IOutside outside, Settings settings, IClock clock)
{
    private const string PublishersOnly = "access.publishElsewhere";

    private const int LongestRange = 1_000;

    /// <summary>RFC 5545 3.3.5, form 2.</summary>
    private static readonly InstantPattern UtcTime = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    public async Task<IReadOnlyList<TargetListed>> AllAsync()
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        // Before it is looked how they are: what is done by then is not shown as it was before.
        var due = await DueAsync(viewer);
        var counts = await pushed.CountsAsync(viewer.OrganisationId, null);
        return
        [
            .. from target in await store.ListAsync(viewer.OrganisationId)
               let edition = house.Editions.FirstOrDefault(one => one.Id == target.EditionId)
               where edition is not null && MayManage(viewer, house, edition)
               let count = counts.GetValueOrDefault(target.Id)
               select new TargetListed(
                   target.Id, target.Name, target.Shown, edition.Id, NameOf(edition, house), edition.CalendarId, HealthOf(target, count),
                   target.RightAt, target.FailedSince, Say(target.Problem), count?.There ?? 0, count?.Asking ?? 0, IsBusy(target, due),
                   target.Done, target.Total),
        ];
    }

    private Task<IReadOnlySet<string>> DueAsync(Viewer viewer) =>
        work.DueAsync(viewer.OrganisationId, WorkKind.Push, clock.GetCurrentInstant());

    private static bool MayManage(Viewer viewer, House house, StoredEdition edition) => viewer.SeesAs is null
        && (edition.CalendarId is { } calendar
            ? viewer.May(CalendarAction.Publish, calendar)
            : viewer.MayCompose(edition.Sources, house.Disclosures));

    private static string NameOf(StoredEdition edition, House house) =>
        edition.CalendarId is { } id && house.Calendars.TryGetValue(id, out var calendar) ? calendar.Name : edition.Name;

    private static TargetHealth HealthOf(PushTarget target, PushCounts? counts) =>
        target.FailedSince is not null ? TargetHealth.Failing
        : counts?.Asking > 0 ? TargetHealth.Asks
        : target.IsLeaving ? TargetHealth.Leaving
        : target.RightAt is null ? TargetHealth.New
        : TargetHealth.Right;

    private static bool IsBusy(PushTarget target, IReadOnlySet<string> due) =>
        target.Total is not null || due.Contains(target.Id.ToString()) && target.FailedSince is null;

    private static string Say(Saying? saying) => saying is null ? "" : Spoken.Now.Say(saying);

    private async Task<(Viewer Viewer, House House, StoredEdition Edition)> EditionAsync(Guid id)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var edition = house.Editions.FirstOrDefault(one => one.Id == id) ?? throw new NotFoundException("edition");
        Access.Require(MayManage(viewer, house, edition), PublishersOnly);
        return (viewer, house, edition);
    }

    /// <exception cref="NotFoundException">There is none such of theirs.</exception>
    internal async Task<(Viewer Viewer, House House, StoredEdition Edition, PushTarget Target)> FoundAsync(Guid id)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        return await store.FindAsync(viewer.OrganisationId, id) is { } target
            && house.Editions.FirstOrDefault(one => one.Id == target.EditionId) is { } edition && MayManage(viewer, house, edition)
            ? (viewer, house, edition, target)
            : throw new NotFoundException("target");
    }

    // ---- setting up

    /// <summary>The calendars that somebody has on a server.</summary>
    /// <exception cref="RuleException">It is not reached, wants another password, or has none.</exception>
    public async Task<IReadOnlyList<FoundElsewhere>> LookAsync(Guid editionId, SourceAddress typed, CancellationToken stopping)
    {
        var (viewer, _, _) = await EditionAsync(editionId);
        var (address, secrets) = typed.Checked(outside, settings);
        var taken = (await store.ListAsync(viewer.OrganisationId))
            .Select(target => OutsideAccess.Open(settings.Sealing, target.Access, target.Id)?.Address).ToHashSet();
        return [.. (await new CalendarServer(outside, secrets).FindAsync(address, stopping)).Select(one => new FoundElsewhere(
            one.Address.AbsoluteUri, one.Name, one.IsWritable, taken.Contains(one.Address.AbsoluteUri)))];
    }

    public async Task<Guid> AddAsync(TargetRequest request)
    {
        var (viewer, house, edition) = await EditionAsync(request.EditionId);
        var (found, secrets) = request.Access.Checked(outside, settings);
        var calendar = Texts.CanBeWritten(request.Calendar ?? "") && !string.IsNullOrWhiteSpace(request.Calendar)
            ? outside.Check(request.Calendar)
            : throw new RuleException("calendar", "push.chooseCalendar");
        // A password goes to the server for which it was typed.
        if (Uri.Compare(found, calendar, UriComponents.SchemeAndServer, UriFormat.SafeUnescaped, StringComparison.OrdinalIgnoreCase) != 0)
            throw new RuleException("calendar", "push.otherServer", ("host", found.Host));
        var address = calendar.AbsolutePath.EndsWith('/') ? calendar : new UriBuilder(calendar) { Path = calendar.AbsolutePath + "/" }.Uri;
        var (id, now) = (Guid.CreateVersion7(), clock.GetCurrentInstant());
        if ((await store.ListAsync(viewer.OrganisationId)).Any(target =>
            OutsideAccess.Open(settings.Sealing, target.Access, target.Id)?.Address == address.AbsoluteUri))
            throw new RuleException("calendar", "push.isTaken");
        var typed = string.IsNullOrWhiteSpace(request.Name) ? address.Host : request.Name;
        var name = Texts.OneLine("name", "what.name", typed, Texts.LongestName);
        var target = Checked(PushTarget.New(
            id, viewer.OrganisationId, edition.Id, viewer.AccountId, name, address, secrets.For(address).Seal(settings.Sealing, id),
            AudienceOf(edition, request.Audience), request.Takes, request.From, request.Until, now));
        await store.AddAsync(target, new AuditLine(
            viewer.AccountId, AuditAct.WrittenElsewhere, NameOf(edition, house), Saying.Of("text.plain", ("text", target.Shown)), now));
        return id;
    }

    /// <summary>An edition has its readers; of a calendar it is said who reads it there.</summary>
    private static Audience AudienceOf(StoredEdition edition, Audience? said) =>
        (edition.IsStandard ? said : edition.Draft.Audience) is { } audience and (Audience.Members or Audience.Link or Audience.Everyone)
            ? audience
            : throw new RuleException("audience", "push.audienceMissing");

    private static PushTarget Checked(PushTarget target)
    {
        if (target is { From: { } from, Until: { } until } && until < from)
            throw new RuleException("until", "push.daysBackwards");
        return target;
    }

    /// <summary>Another name, other days, other readers, another password: it is written again as that says.</summary>
    public async Task SaveAsync(Guid id, TargetChange change)
    {
        var (viewer, house, edition, target) = await FoundAsync(id);
        if (change.Version != target.Version)
            throw new ChangedMeanwhileException();
        var saved = Checked(target with
        {
            Name = Texts.OneLine("name", "what.name", change.Name ?? target.Name, Texts.LongestName),
            Audience = AudienceOf(edition, change.Audience),
            Takes = change.Takes,
            From = change.From,
            Until = change.Until,
            AccountId = viewer.AccountId,
            IsLeaving = false,
        });
        if (change.Access is { } typed)
        {
            // The calendar stays which it is; its password may be another.
            var secrets = OutsideSecrets.Checked(typed.User, typed.Password, typed.HeaderName, typed.HeaderValue);
            var address = OutsideAccess.Open(settings.Sealing, target.Access, id)?.Address
                ?? throw new RuleException("address", "source.cannotOpen");
            saved = saved with
            {
                Access = secrets.For(new Uri(address)).Seal(settings.Sealing, id),
            };
        }
        var now = clock.GetCurrentInstant();
        await store.SaveAsync(saved, new AuditLine(viewer.AccountId, AuditAct.ElsewhereChanged, NameOf(edition, house),
            Saying.Of("text.plain", ("text", saved.Shown)), now));
    }

    /// <summary>It is written no more.</summary>
    /// <param name="keepsThere">What was written there stays; else it is taken away first, which may take its time.</param>
    public async Task LeaveAsync(Guid id, bool keepsThere)
    {
        var (viewer, house, edition, target) = await FoundAsync(id);
        var line = new AuditLine(viewer.AccountId, AuditAct.ElsewhereLeft, NameOf(edition, house),
            Saying.Of("text.plain", ("text", target.Shown)), clock.GetCurrentInstant());
        await (keepsThere ? store.ForgetAsync(target, line) : store.SaveAsync(target with { IsLeaving = true }, line));
    }

    public async Task PushNowAsync(Guid id)
    {
        var (_, _, _, target) = await FoundAsync(id);
        await store.PushNowAsync(target, clock.GetCurrentInstant());
    }

    // ---- looking

    public async Task<TargetBody> FindAsync(Guid id)
    {
        var due = await DueAsync(await access.ViewerAsync());
        var (viewer, house, edition, target) = await FoundAsync(id);
        var counts = (await pushed.CountsAsync(viewer.OrganisationId, id)).GetValueOrDefault(id) ?? new PushCounts(0, 0, 0, 0);
        var open = await pushed.OpenAsync(viewer.OrganisationId, id);
        return new TargetBody(
            id, target.Name, target.Shown, edition.Id, NameOf(edition, house), edition.CalendarId,
            (await accounts.FindAsync(target.AccountId))?.Name ?? "", HealthOf(target, counts),
            edition.IsStandard ? target.Audience : edition.Draft.Audience, !edition.IsStandard,
            target.Takes, target.From, target.Until, target.Version, target.RightAt, target.FailedSince, target.Failures,
            Say(target.Problem), counts.There, counts.Asking, counts.Left, counts.Refused,
            target.Takes == PushTakes.Chosen ? (await store.ChosenAsync(viewer.OrganisationId, id)).Count : 0, IsBusy(target, due),
            target.Done, target.Total, Show(open, viewer, house));
    }

    private TargetOpen[] Show(IReadOnlyList<PushOpen> open, Viewer viewer, House house)
    {
        var ground = new IntakeGround(viewer, house, new IntakeAnswers(),
            clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date, richTexts, UsualValues.None).Ready();
        return
        [
            .. open.Select(one => new TargetOpen(one.Name, one.Title, one.Question, WordsOf(one.Here, ground), WordsOf(one.There, ground),
                one.AskedAt, one.Answer, Say(one.Problem))),
        ];
    }

    /// <summary>What an object says, as people read it: its title, when it is, where, and how its description begins.</summary>
    private static List<string> WordsOf(byte[]? content, IntakeGround ground)
    {
        var words = RuleWords.For(Spoken.LocaleIn(ground.House.Organisation));
        var said = new List<string>();
        foreach (var entry in content is null ? [] : CalendarFileReading.Read(content, ground, (_, _) => { }).Entries)
        {
            if (ground.House.Calendars.Values.FirstOrDefault() is not { } calendar || entry.Make(calendar).Event is not { } read)
            {
                said.Add(entry.Title);
                continue;
            }
            said.Add(read.Content.Title);
            said.Add(words.Say(read.Series));
            if (read.Content.Place.Name is { Length: > 0 } place)
                said.Add(place);
            if (read.Content.Description.Text is { Length: > 0 } description)
                said.Add(Texts.Kept(description, 200));
        }
        return said;
    }

    /// <summary>Says what becomes of one that was changed there.</summary>
    public async Task AnswerAsync(Guid id, TargetAnswer answer)
    {
        var (_, _, _, target) = await FoundAsync(id);
        if (answer.Answer == PushAnswer.None)
            throw new RuleException("answer", "push.noAnswer");
        if (!Texts.CanBeWritten(answer.Name ?? "")
            || !await pushed.AnswerAsync(target, answer.Name ?? "", answer.Answer, clock.GetCurrentInstant()))
            throw new NotFoundException("target");
    }

    /// <summary>Brings what stands there on some days: a table of what is another there, of which each line is taken or left.</summary>
    /// <param name="calendarId">On which new ones are to stand.</param>
    public async Task<IntakeListed> BringAsync(Guid id, TargetDays days, Guid? calendarId, CancellationToken stopping)
    {
        var (_, house, edition, target) = await FoundAsync(id);
        var (from, until) = Range(days);
        var opened = OutsideAccess.Open(settings.Sealing, target.Access, id) ?? throw new RuleException("address", "source.cannotOpen");
        var server = new CalendarServer(outside, OutsideSecrets.Of(opened));
        var zone = house.Organisation.TimeZone;
        string At(LocalDate day) => UtcTime.Format(day.AtStartOfDayInZone(zone).ToInstant());
        byte[] content;
        try
        {
            content = await server.WithinAsync(outside.Check(opened.Address), At(from), At(until.PlusDays(1)), stopping);
        }
        catch (CalendarServerException failed)
        {
            throw new RuleException("address", "push.answersWith", ("status", failed.Status));
        }
        if (content.Length == 0)
            throw new RuleException("from", "push.nothingThere");
        return await intakes.AddAsync(
            $"{target.Name}.ics", () => Task.FromResult<byte[]?>(content), CalendarBy.One, calendarId ?? edition.CalendarId);
    }

    internal static (LocalDate From, LocalDate Until) Range(TargetDays days)
    {
        if (days.From is not { } from || days.Until is not { } until)
            throw new RuleException(days.From is null ? "from" : "until", "push.daysMissing");
        if (until < from || Period.DaysBetween(from, until) > LongestRange)
            throw new RuleException("until", until < from ? "push.daysBackwards" : "push.daysTooMany", ("most", LongestRange));
        return (from, until);
    }
}
