using NodaTime;
using Valtro.Application.Accounts;
using Valtro.Application.Events;
using Valtro.Application.Files;
using Valtro.Application.Outside;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.Intake;
using Valtro.Core.Recurrence;
using Valtro.Store;

namespace Valtro.Application.Intake;

/// <summary>Files of events that people bring: looked at, put right, taken or thrown away. Nobody sees another's.</summary>
public sealed class Intakes(
    Access access, IntakeStore store, ForeignNames names, Templates templates, RichTexts richTexts, IOutside outside, IClock clock)
{
    private const int LinesAtOnce = 100;

    private static readonly IncomingState[] AllStates = Enum.GetValues<IncomingState>();

    public async Task<IReadOnlyList<IntakeListed>> AllAsync()
    {
        var viewer = await access.ViewerAsync();
        return [.. (await store.OfAccountAsync(viewer.OrganisationId, viewer.AccountId)).Select(one =>
            new IntakeListed(one.Id, one.Name, one.Form, one.State, one.MadeAt, one.ActId, one.Taken))];
    }

    /// <summary>Brings what an address has; it is got and read behind.</summary>
    /// <exception cref="RuleException">It is no address that is asked, or the calendar is none of theirs.</exception>
    public async Task<IntakeListed> AddAddressAsync(string? typed, CalendarBy by, Guid? calendarId)
    {
        var ground = await ReadyAsync(by, calendarId);
        var (address, now) = (outside.Check(typed), clock.GetCurrentInstant());
        var name = Texts.Kept(address.Host, Texts.LongestTitle);
        var id = await store.AddAsync(ground.Viewer.OrganisationId, ground.Viewer.AccountId, name, IntakeForm.Calendar, null,
            address.AbsoluteUri, ground.Answers, now);
        return new IntakeListed(id, name, IntakeForm.Calendar, IntakeState.Reading, now, null, 0);
    }

    /// <exception cref="RuleException">The calendar is none of theirs.</exception>
    private async Task<IntakeGround> ReadyAsync(CalendarBy by, Guid? calendarId)
    {
        var ground = await GroundAsync(new IntakeAnswers { CalendarBy = by, CalendarId = calendarId });
        Access.Require(ground.Mine.Count > 0, "access.editorsBringEvents");
        return calendarId is not null && ground.Common is null || calendarId is null && by == CalendarBy.One
            ? throw new RuleException("calendarId", "intake.calendarMissing")
            : ground;
    }

    /// <summary>Brings a file; it is read behind.</summary>
    /// <param name="name">By which its kind is known: a sheet (.xlsx), values with separators (.csv, .txt), else a calendar.</param>
    /// <exception cref="RuleException">It is empty or too large, or the calendar is none of theirs.</exception>
    public async Task<IntakeListed> AddAsync(string name, Func<Task<byte[]?>> read, CalendarBy by, Guid? calendarId)
    {
        var ground = await ReadyAsync(by, calendarId);
        var fileName = Texts.OneLine("file", "what.fileName", Path.GetFileName(name.Replace('\\', '/')), Texts.LongestTitle);
        var content = await read();
        if (content is null || content.Length > IntakeStore.Largest)
            throw new RuleException("file", "intake.tooLarge", ("most", IntakeStore.Largest / 1024 / 1024));
        if (content.Length == 0)
            throw new RuleException("file", "intake.emptyFile");
        var (form, now) = (FormOf(fileName, content), clock.GetCurrentInstant());
        var id = await store.AddAsync(ground.Viewer.OrganisationId, ground.Viewer.AccountId, fileName, form, content, null,
            ground.Answers, now);
        return new IntakeListed(id, fileName, form, IntakeState.Reading, now, null, 0);
    }

    /// <summary>What a file is, is said by what is in it where that is plain, else by its name.</summary>
    internal static IntakeForm FormOf(string name, byte[] content)
    {
        if (TableFiles.IsWorkbook(content))
            return IntakeForm.Table;
        var start = Core.ICalendar.Reading.ForeignText.Open(content[..Math.Min(content.Length, 4_096)], null).ReadToEnd();
        return start.Contains("BEGIN:V", StringComparison.OrdinalIgnoreCase) || name.EndsWith(".ics", StringComparison.OrdinalIgnoreCase)
            ? IntakeForm.Calendar
            : IntakeForm.Table;
    }

    /// <exception cref="NotFoundException">There is none such of theirs.</exception>
    public async Task<IntakeBody> FindAsync(Guid id)
    {
        var (viewer, one) = await OwnAsync(id);
        var counts = one.Found is not null && one.State != IntakeState.Saving
            ? await store.CountsAsync(viewer.OrganisationId, id)
            : new Dictionary<IncomingState, (int All, int Taken)>();
        return new IntakeBody(one.Id, one.Name, one.Form, one.State, one.Done, one.Total, one.Problem is { } problem
            ? Spoken.Now.Say(problem)
            : "", one.Answers, one.Found, [.. counts.OrderBy(count => count.Key).Select(count =>
                new IntakeCount(count.Key, count.Value.All, count.Value.Taken))], one.ActId, one.Taken, one.MadeAt);
    }

    /// <summary>Its events, some at a time.</summary>
    /// <param name="state">Those of one state; null for all.</param>
    /// <param name="after">The place of the last that is known.</param>
    public async Task<IntakeLinesBody> LinesAsync(Guid id, IncomingState? state, int? after)
    {
        var (viewer, _) = await OwnAsync(id);
        var house = await access.HouseAsync();
        var lines = await store.LinesAsync(
            viewer.OrganisationId, id, state is { } only ? [only] : AllStates, after ?? -1, LinesAtOnce + 1);
        var shown = lines.Take(LinesAtOnce).ToArray();
        var known = shown.Any(line => line.State == IncomingState.Changed)
            ? await names.OfFilesAsync(viewer.OrganisationId,
                [.. shown.Where(line => line.State == IncomingState.Changed).Select(line => line.Uid)])
            : new Dictionary<string, KnownIncoming>();
        var words = RuleWords.For(Spoken.LocaleIn(house.Organisation));
        return new IntakeLinesBody(
            [.. shown.Select(line => Show(line, known.GetValueOrDefault(line.Uid), house, words))], lines.Count > LinesAtOnce);
    }

    private static IntakeLineBody Show(IntakeLine line, KnownIncoming? known, House house, RuleWords words)
    {
        var incoming = line.Incoming?.Event;
        var remarks = (line.Incoming?.Remarks ?? []).Concat(line.Refusals.Select(refusal => refusal.Saying))
            .Select(Spoken.Now.Say).ToList();
        IReadOnlyList<EventDifference> differences = [];
        if (line.Incoming is { } one && known is not null && IncomingOutcome.Of(one, known, house.School) is { After: { } after } outcome)
        {
            differences = EventDifference.Between(known.Stored.Event, after, words,
                calendar => house.Calendars.GetValueOrDefault(calendar)?.Name ?? "");
            if (known.Said is null)
                remarks.Insert(0, Spoken.Now.Say("intake.madeHere"));
            if (outcome.ChangedHere.Count > 0)
                remarks.Add(Spoken.Now.Say("intake.changedHereToo"));
            if (outcome.Dropped.Count > 0)
                remarks.Add(Spoken.Now.Say("intake.datesDropped", ("count", outcome.Dropped.Count), ("date", outcome.Dropped[0].Date)));
        }
        else if (line is { State: IncomingState.New, EventId: not null })
            remarks.Insert(0, Spoken.Now.Say("intake.fromTheBin"));
        else if (line.State == IncomingState.There)
            remarks.Insert(0, Spoken.Now.Say("intake.isThere"));
        return new IntakeLineBody(
            line.Place, line.Line, line.State, line.Title, incoming is null ? "" : words.Say(incoming.Series),
            incoming?.HomeCalendarId, incoming?.Content.Category?.Name ?? "", incoming?.Content.IsDeadline == true,
            incoming?.State == EventState.Cancelled, line.IsTaken, line.EventId, differences, remarks);
    }

    /// <summary>Says more of it, or otherwise: it is read anew.</summary>
    /// <exception cref="NotFoundException">There is none such of theirs, or it is taken already.</exception>
    public async Task AnswerAsync(Guid id, IntakeAnswers answers)
    {
        var (viewer, _) = await OwnAsync(id);
        if (!await store.AnswerAsync(viewer.OrganisationId, id, answers.Check(), clock.GetCurrentInstant()))
            throw new NotFoundException("intake");
    }

    /// <summary>Chooses which are to be taken.</summary>
    public async Task TakeAsync(Guid id, IntakeTakeRequest request)
    {
        var (viewer, _) = await OwnAsync(id);
        if (request.Places?.Count > IntakeStore.MostLines)
            throw new RuleException("places", "intake.tooManyEvents", ("count", request.Places.Count), ("most", IntakeStore.MostLines));
        await store.TakeAsync(viewer.OrganisationId, id, request.Places, request.States ?? AllStates, request.IsTaken);
    }

    /// <summary>What taking the chosen ones would do, before it is done.</summary>
    public async Task<IntakeForeseen> ForeseeAsync(Guid id)
    {
        var (viewer, one) = await OwnAsync(id);
        var lines = await store.LinesAsync(viewer.OrganisationId, id, AllStates, -1, IntakeStore.MostLines, onlyTaken: true);
        var (act, _) = await IntakeWorker.PlanAsync(names, await GroundAsync(one.Answers), lines);
        return new IntakeForeseen(
            act.Writes.Count(write => write.Before is null), act.Writes.Count(write => write.Before is not null),
            act.Writes.Count == 0 ? [] : ForeseenBody.WhoWillSee(act, (await access.HouseAsync()).Disclosures));
    }

    /// <summary>Takes the chosen ones; it is done behind.</summary>
    /// <exception cref="RuleException">None is chosen.</exception>
    public async Task SaveAsync(Guid id)
    {
        var (viewer, one) = await OwnAsync(id);
        if (one.State is IntakeState.Saving or IntakeState.Done)
            return;
        if (!await store.WishToSaveAsync(viewer.OrganisationId, id, clock.GetCurrentInstant()))
            throw new RuleException("lines", "intake.nothingToTake");
    }

    /// <summary>Throws it away, whatever is being done with it; what was taken of it stays.</summary>
    public async Task RemoveAsync(Guid id)
    {
        var (viewer, one) = await OwnAsync(id);
        if (one.State == IntakeState.Saving)
            throw new RuleException("state", "intake.isSaved");
        await store.RemoveAsync(viewer.OrganisationId, id);
    }

    private async Task<(Core.Disclosure.Viewer Viewer, BroughtIntake Intake)> OwnAsync(Guid id)
    {
        var viewer = await access.ViewerAsync();
        return await store.FindAsync(viewer.OrganisationId, id) is { } found && found.AccountId == viewer.AccountId && viewer.SeesAs is null
            ? (viewer, found)
            : throw new NotFoundException("intake");
    }

    private async Task<IntakeGround> GroundAsync(IntakeAnswers answers)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        return new IntakeGround(viewer, house, answers, clock.GetCurrentInstant().InZone(house.Organisation.TimeZone).Date, richTexts,
            await templates.UsualAsync(viewer, house)).Ready();
    }
}
