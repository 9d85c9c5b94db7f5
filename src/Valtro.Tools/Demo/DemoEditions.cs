using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Store;

namespace Valtro.Tools.Demo;

/// <summary>What the demo's readerships get. One of the sources is not open, on purpose: the builder and the proof have something to
/// say.</summary>
internal sealed class DemoEditions(
    Database database, Guid organisationId, IReadOnlyDictionary<string, Guid> calendars, Guid ada, Instant now)
{
    public async Task RunAsync()
    {
        var store = new EditionSettingsStore(database);
        foreach (var draft in All())
        {
            var name = draft.Name!;
            var id = await store.AddAsync(organisationId, draft, name, now, new AuditLine(ada, AuditAct.EditionMade, name, null, now),
                isOut: name != InTheMaking);
            if (draft.Audience == Audience.Link)
                await new SecretLinkStore(database)
                    .MakeAsync(organisationId, id, now, _ => new AuditLine(ada, AuditAct.LinkMade, name, null, now));
        }
    }

    /// <summary>The one that nobody has let out yet.</summary>
    private const string InTheMaking = "Open harbour week";

    private IEnumerable<EditionDraft> All()
    {
        yield return Of("Juniors for families", "PW", "SW", "SCH", "ROW") with
        {
            Window = new WindowDraft(WindowFrom.Term, null, WindowTo.EndOfYear),
            WithBreaks = true,
            Look = new LookDraft(EditionView.Month, [EditionView.Month, EditionView.Week, EditionView.List], "Dates for junior families",
                "Both watches and the whole school. Questions to the office.", Clock: ClockFace.TwentyFour),
        };
        yield return Of("Next at school", "PW", "SW", "CREW", "SCH") with
        {
            Limit = 6,
            OnFrontPage = false,
            Feed = FeedForm.Dates,
            Window = new WindowDraft(WindowFrom.Now, null, WindowTo.Open, WithPast: false),
            Look = new LookDraft(EditionView.List, [EditionView.List], "Next at school", Navigation: false, Legend: false,
                Clock: ClockFace.TwentyFour, Density: Density.Tight),
        };
        yield return Of("Great days, with pictures", "SCH", "CREW") with
        {
            Sources = [new SourceDraft(calendars["SCH"], new FilterDraft(FilterMode.Except, Text: "Assembly")),
                new SourceDraft(calendars["CREW"], new FilterDraft(FilterMode.Only, Text: "exam"))],
            Window = new WindowDraft(WindowFrom.Today, null, WindowTo.Months, 6, WithPast: false),
            Feed = FeedForm.Dates,
            Look = new LookDraft(EditionView.Cards, [EditionView.Cards, EditionView.Month, EditionView.List], "Great days at Pinewick",
                Palette: "quay", PicturesInMonth: true, Corner: Corner.Soft, Dates: DateStyle.Long),
        };
        yield return Of("Harbour almanac") with
        {
            TakesAll = true,
            WithBreaks = true,
            Look = new LookDraft(EditionView.Month, [EditionView.Month, EditionView.Week, EditionView.List],
                Intro: "Everything that is open; choose what concerns you."),
        };
        yield return Of(
            "Crew families", "CREW", "SCH") with
        {
            Audience = Audience.Link,
            Deadlines = DeadlineForm.Tasks,
            Reminding = Reminding.AsEventsSay,
            Look = new LookDraft(EditionView.Week, Palette: "heath")
        };
        yield return Of("When slipway and hall are taken", "SLIP") with
        {
            Cap = Detail.Times,
            TellsPlatesOfBusy = true,
            MergesLookAlikes = false,
            Look = new LookDraft(EditionView.Week, [EditionView.Week, EditionView.Day, EditionView.SmallMonth], Palette: "plain")
        };
        yield return Of("What is due", "PW", "SW", "CREW", "SCH") with
        {
            Kinds = KindsTaken.Deadlines,
            Window = new WindowDraft(WindowFrom.Week, null, WindowTo.Weeks, 2),
            Look = new LookDraft(EditionView.List, [EditionView.List, EditionView.Month], Navigation: false),
        };
        yield return Of("Everything, for the staff", "PW", "SW", "CREW", "SCH", "ROW", "SLIP") with
        {
            Audience = Audience.Members,
            WithUnfinished = true,
            WithStaffTimes = true,
            Feed = FeedForm.Dates,
            WithBreaks = true,
            Look = new LookDraft(EditionView.Week)
        };
        yield return Of(InTheMaking, "SCH", "CREW", "ROW", "SLIP") with
        {
            Window = new WindowDraft(WindowFrom.Today, null, WindowTo.Months, 3, WithPast: false),
            Title = [new PatternPartDraft(Piece.Title)],
            MergesLookAlikes = false,
            Look = new LookDraft(EditionView.List, [EditionView.List, EditionView.Month], Palette: "quay"),
        };
    }

    private EditionDraft Of(string name, params string[] plates) =>
        new(name, [.. plates.Select(plate => new SourceDraft(calendars[plate]))]);
}
