using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;

namespace Valtro.Application.Events;

/// <summary>Many events and dates changed by one act, with what follows from it before it is made.</summary>
public sealed class ChosenEvents(Access access, EventDesk desk, ClashView clashes, Commits commits)
{
    /// <summary>As many dates can be chosen at once.</summary>
    public const int MostDates = 5_000;

    private const int MostEvents = 2_000;
    private const int LinesShown = 60;
    private const int FarthestMove = 3_660;

    /// <summary>What was chosen and is there, with what would become of it.</summary>
    private sealed record Planned(IReadOnlyList<OnDesk> Found, int Dates, ChosenOutcome Outcome, string Seen);

    public async Task<ChosenPreview> PreviewAsync(ChosenRequest request)
    {
        var (found, chosen, outcome, seen) = await PlanAsync(request);
        var house = await access.HouseAsync();
        var words = RuleWords.For(Spoken.LocaleIn(house.Organisation));
        var lines = await LinesAsync(outcome, found, words, request.Change.Act);
        var left = outcome.LeftOut;
        var byId = found.ToDictionary(one => one.Event.Id);
        return new ChosenPreview(
            chosen,
            found.Count,
            found.Any(one => one.Event.Series.Recurs),
            outcome.OfSeries,
            ForeseenBody.Of(outcome.Act, house.Disclosures),
            [.. lines.All.OrderBy(line => line.Remark.Length == 0).Take(LinesShown)],
            Math.Max(0, lines.All.Count - LinesShown),
            [.. left.Take(LinesShown).Select(one => LeftOut(byId[one.Stored.Event.Id], one.Why))],
            left.Count,
            lines.InBreaks,
            lines.Clashing,
            [.. outcome.Act.Asked.Distinct().Select(id => house.Calendars[id].Name)],
            seen);
    }

    /// <exception cref="ChangedMeanwhileException">Something of it was saved since the preview.</exception>
    /// <exception cref="RuleException">Nothing would be another.</exception>
    public async Task<ActResponse> MakeAsync(ChosenRequest request)
    {
        var planned = await PlanAsync(request);
        if (request.Seen is { } seen && seen != planned.Seen)
            throw new ChangedMeanwhileException();
        var act = planned.Outcome.Act;
        if (act.IsNothing)
            throw new RuleException("dates", "chosen.nothing");
        var done = await commits.CommitAsync(act);
        return new ActResponse(done!.ActId, act.Writes.Count);
    }

    private async Task<Planned> PlanAsync(ChosenRequest request)
    {
        if (request.Dates.Count is 0 or > MostDates)
            throw new RuleException("dates", "chosen.howMany", ("count", request.Dates.Count), ("most", MostDates));
        var change = await ReadAsync(request.Change);
        var dates = request.Dates.ToLookup(one => one.EventId, one => DateName.Read(one.RecurrenceId, "recurrenceId"));
        if (dates.Count > MostEvents)
            throw new RuleException("dates", "chosen.tooManyEvents", ("count", dates.Count), ("most", MostEvents));
        var found = await desk.FindAllAsync([.. dates.Select(one => one.Key)]);
        if (found.Count == 0)
            throw new RuleException("dates", "chosen.gone");
        ChosenEvent[] chosen = [.. found.Select(one => new ChosenEvent(
            one.Stored, [.. dates[one.Event.Id].Distinct().Order()], one.About, one.ChangesAtOnce))];
        var outcome = new ChosenPlanner(found[0].Planner, found[0].School).Plan(chosen, change, request.Scope ?? ChosenScope.Dates);
        return new Planned(found, chosen.Sum(one => one.Dates.Count), outcome, StampOf(chosen));
    }

    /// <exception cref="RuleException">Something that the act needs is missing, or is not there.</exception>
    private async Task<ChosenChange> ReadAsync(ChosenActBody body)
    {
        var (viewer, house) = (await access.ViewerAsync(), await access.HouseAsync());
        var change = new ChosenChange(body.Act);
        switch (body.Act)
        {
            case ChosenAct.Move:
                return body.Days is { } days && days != 0 && Math.Abs(days) <= FarthestMove
                    ? change with { Days = days }
                    : throw new RuleException("days", "chosen.days", ("most", FarthestMove));
            case ChosenAct.Calendar or ChosenAct.PlaceOn or ChosenAct.TakeOff:
                var calendar = await desk.CalendarForAsync(body.CalendarId ?? throw new RuleException("calendarId", "calendar.noSuch"));
                return viewer.May(CalendarAction.Edit, calendar.Id)
                    ? change with { CalendarId = calendar.Id }
                    : throw new RuleException("calendarId", "chosen.editorsOnly", ("name", calendar.Name));
            case ChosenAct.Category when body.CategoryId is { } id:
                return change with
                {
                    Category = house.Categories.FirstOrDefault(one => one.Id == id)
                        ?? throw new RuleException("categoryId", "event.noSuchCategory"),
                };
            case ChosenAct.AddTag or ChosenAct.TakeTag:
                return change with { Tag = EventDraft.CheckedTag("tag", body.Tag ?? "") };
            case ChosenAct.Place:
                return change with
                {
                    Place = Place.Typed(
                    Texts.OneLine("place", "what.place", body.Place, Texts.LongestPlace, required: false),
                    house.Places.Select(known => known.Place))
                };
            case ChosenAct.Copy:
                var plan = house.Plans.FirstOrDefault(one => one.Id == body.YearPlanId)?.Plan
                    ?? throw new RuleException("yearPlanId", "chosen.noSuchYear");
                return change with
                {
                    Into = (plan, plan.Terms.FirstOrDefault(term => term.Name == body.Term)
                        ?? throw new RuleException("term", "chosen.noSuchTerm")),
                };
            default:
                return change;
        }
    }

    /// <summary>Where something is at another time or place than before.</summary>
    private static bool MayClash(ChosenAct act) => act is ChosenAct.Move or ChosenAct.Place or ChosenAct.Copy or ChosenAct.Restore;

    private async Task<(IReadOnlyList<ChosenLine> All, int InBreaks, int Clashing)> LinesAsync(
        ChosenOutcome outcome, IReadOnlyList<OnDesk> found, RuleWords words, ChosenAct act)
    {
        var (mayClash, isWhole) = (MayClash(act), new ChosenChange(act).IsOfWholeEvent && act != ChosenAct.Copy);
        var viewer = found[0].Viewer;
        var school = found[0].School;
        EventDate[] becoming = mayClash ? [.. outcome.Dates.Select(date => date.Becomes).OfType<EventDate>()] : [];
        var around = await clashes.AmongAsync(
            viewer, becoming, outcome.Act.Writes.Where(write => write.Before is not null).Select(write => write.Event.Id).ToHashSet());
        var clashing = becoming.GroupBy(date => (date.Event.Id, Own: date.Exception?.RecurrenceId)).SelectMany(dates =>
                around.Say([.. dates.Select(date => date.Occurrence)], dates.First().Content, dates.First().Event.Calendars, dates.Key.Id)
                    .Select(said => (Key: (dates.Key.Id, said.Key), Value: Folded(said.Value))))
            .ToLookup(one => one.Key, one => one.Value);
        var lines = new List<ChosenLine>(outcome.Dates.Count);
        var (inBreaks, meeting) = (0, 0);
        foreach (var (was, becomes, meetsOwn) in outcome.Dates)
        {
            var shown = becomes ?? was;
            if (shown is not { } date)
                continue;
            var closed = mayClash && becomes is not null ? school.BreakOn(date.Occurrence.LocalStart.Date)?.Name : null;
            var meets = meetsOwn
                ? words.Speech.Say("date.ownDate")
                : becomes is null ? null : clashing[(date.Event.Id, date.Occurrence.Start)].FirstOrDefault();
            inBreaks += closed is null ? 0 : 1;
            meeting += meets is null ? 0 : 1;
            var (before, after) = (was is { } old ? Said(old) : "", becomes is { } next ? Said(next) : "");
            lines.Add(new ChosenLine(
                date.Event.HomeCalendarId, date.Title, before, after == before ? "" : after,
                string.Join("; ", new[] { closed is null ? null : words.Speech.Say("date.inBreak", ("break", closed)), meets }
                    .OfType<string>())));
        }
        return (lines, inBreaks, meeting);

        string Said(EventDate date) => isWhole ? words.Say(date.Event.Series) : words.Say(date.Timing);
    }

    /// <summary>The worst, and how many more there are.</summary>
    private static string Folded(IReadOnlyList<string> remarks) => remarks.Count == 1
        ? remarks[0]
        : Spoken.Now.Say("date.andMore", ("remark", remarks[0]), ("count", remarks.Count - 1));

    private static LeftOutBody LeftOut(OnDesk found, Saying why) => new(
        found.Event.Id, found.Sight.Calendars[0],
        found.Sight.Detail > Detail.Times ? found.Event.Content.Title : Spoken.Now.Say("busy.title"), Spoken.Now.Say(why));

    /// <summary>Of the versions that it was made of.</summary>
    private static string StampOf(IReadOnlyList<ChosenEvent> chosen) => Convert.ToHexStringLower(SHA256.HashData(Encoding.ASCII.GetBytes(
        string.Join(',', chosen.Select(one => string.Create(
            CultureInfo.InvariantCulture, $"{one.Stored.Event.Id:N}:{one.Stored.Version}")).Order(StringComparer.Ordinal)))))[..32];
}
