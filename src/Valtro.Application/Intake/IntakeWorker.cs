using NodaTime;
using Valtro.Application.Outside;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Acts;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;
using Valtro.Store;

namespace Valtro.Application.Intake;

/// <summary>Reads files that people bring, and takes what they chose of them: in their name, by what they may do when it is done.</summary>
internal sealed class IntakeWorker(
    IntakeStore store, ForeignNames names, EventStore events, IntakeGrounds grounds, IOutside outside, IClock clock) : IWorker
{
    private const int MostTries = 3;

    private static readonly IncomingState[] Takeable = [IncomingState.New, IncomingState.Changed, IncomingState.There];

    public WorkKind Kind => WorkKind.Intake;

    /// <summary>One may wait for somebody else's server.</summary>
    public int AtOnce => 2;

    public Duration Claim => Duration.FromMinutes(5);

    public Duration? WaitAfter(int failures) => failures < MostTries ? Duration.FromSeconds(Math.Pow(3, failures)) : null;

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        using var within = Wall.Within(work.OrganisationId!.Value);
        var intake = await store.FindAsync(work.OrganisationId.Value, Guid.Parse(work.Key));
        try
        {
            if (intake is { State: IntakeState.Reading })
                await ReadAsync(work.OrganisationId.Value, intake, stopping);
            else if (intake is { State: IntakeState.Saving })
                await SaveAsync(work.OrganisationId.Value, intake);
        }
        catch (IntakeStoppedException)
        {
            // Thrown away or asked otherwise: that wish is work of its own.
        }
        catch (Exception failed) when (work.Tries + 1 >= MostTries && failed is not OperationCanceledException)
        {
            await EndAsync(work.OrganisationId.Value, intake!, Saying.Of("intake.failed"));
            throw;
        }
        return null;
    }

    private Task EndAsync(Guid organisationId, BroughtIntake intake, Saying problem) => intake.State == IntakeState.Reading
        ? store.ReadAsync(organisationId, intake, null, [], problem)
        : store.NotSavedAsync(organisationId, intake.Id, problem);

    private async Task ReadAsync(Guid organisationId, BroughtIntake intake, CancellationToken stopping)
    {
        try
        {
            if (await ContentAsync(organisationId, intake, stopping) is not { } content)
                return;
            intake = await store.FindAsync(organisationId, intake.Id) ?? throw new IntakeStoppedException();
            var ground = await GroundAsync(organisationId, intake);
            var (found, lines) = await new IntakeReader(names, events).ReadAsync(intake, content, ground, (done, total) =>
            {
                stopping.ThrowIfCancellationRequested();
                return store.ProgressAsync(intake, done, total);
            });
            var guess = intake.Turn == 1 ? await store.GuessAsync(organisationId, found.Make) : null;
            if (guess is not null && GuessOver(intake.Answers, guess) is var remembered && !remembered.Equals(intake.Answers))
            {
                // What was said of such a file before is said of this one too; it can be put right.
                await store.AnswerAsync(organisationId, intake.Id, remembered, clock.GetCurrentInstant());
                return;
            }
            await store.ReadAsync(organisationId, intake, found, lines, null);
        }
        catch (RuleException refused)
        {
            await store.ReadAsync(organisationId, intake, null, [], refused.Refusals[0].Saying);
        }
    }

    /// <summary>The file, got from its address where nobody brought it.</summary>
    private async Task<byte[]?> ContentAsync(Guid organisationId, BroughtIntake intake, CancellationToken stopping)
    {
        if (await store.ContentAsync(organisationId, intake.Id) is { } brought)
            return brought;
        if (intake.Address is not { } address)
            return null;
        var got = await outside.GetAsync(new OutsideQuestion(outside.Check(address), IntakeStore.Largest), stopping);
        if (got.Content.Length == 0)
            throw new RuleException("address", "intake.emptyFile");
        await store.GotAsync(intake, got.Content, got.Name, Intakes.FormOf(got.Name, got.Content));
        return got.Content;
    }

    /// <summary>What is said of the file at hand counts; of what is remembered, what belongs to files of that make.</summary>
    private static IntakeAnswers GuessOver(IntakeAnswers said, IntakeAnswers guess) => said with
    {
        Calendars = said.Calendars.Count > 0 ? said.Calendars : guess.Calendars,
        Categories = said.Categories.Count > 0 ? said.Categories : guess.Categories,
        Zone = said.Zone ?? guess.Zone,
        DayOrder = said.DayOrder == DayOrder.AsUsual ? guess.DayOrder : said.DayOrder,
        Encoding = said.Encoding ?? guess.Encoding,
        Columns = said.Columns.Count > 0 ? said.Columns : guess.Columns,
        HasHead = said.HasHead ?? guess.HasHead,
    };

    private async Task<IntakeGround> GroundAsync(Guid organisationId, BroughtIntake intake) =>
        await grounds.OfAsync(organisationId, intake.AccountId, intake.Answers, intake.Form)
        ?? throw new RuleException("file", "intake.notAMember");

    private async Task SaveAsync(Guid organisationId, BroughtIntake intake)
    {
        try
        {
            var ground = await GroundAsync(organisationId, intake);
            var lines = await store.LinesAsync(organisationId, intake.Id, Takeable, -1, IntakeStore.MostLines, onlyTaken: true);
            await store.ProgressAsync(intake, 0, lines.Count);
            var (act, taken) = await PlanAsync(names, ground, lines);
            if (act.IsNothing)
                throw new RuleException("lines", "intake.nothingToTake");
            var now = Instant.FromUnixTimeSeconds(clock.GetCurrentInstant().ToUnixTimeSeconds());
            await store.SaveAsync(organisationId, intake, act, taken, now);
        }
        catch (RuleException refused)
        {
            await store.NotSavedAsync(organisationId, intake.Id, refused.Refusals[0].Saying);
        }
        catch (ChangedMeanwhileException)
        {
            await store.NotSavedAsync(organisationId, intake.Id, Saying.Of("intake.changedMeanwhile"));
        }
    }

    /// <summary>The act that takes some lines, and by which name the source knows each of its events.</summary>
    /// <exception cref="ChangedMeanwhileException">One of the events was saved since it was compared.</exception>
    internal static async Task<(Act Act, IReadOnlyList<Incoming> Names)> PlanAsync(
        ForeignNames names, IntakeGround ground, IReadOnlyList<IntakeLine> lines)
    {
        var planner = new ActPlanner(ground.Viewer, ground.House.Calendars, ground.House.School);
        var (acts, taken) = (new List<Act>(), new List<Incoming>());
        var known = await names.OfFilesAsync(ground.Viewer.OrganisationId, [.. lines.Select(line => line.Uid)]);
        foreach (var line in lines.Where(line => line.Incoming is not null))
        {
            var there = known.GetValueOrDefault(line.Uid);
            if (there?.Stored.Version != line.Version)
                throw new ChangedMeanwhileException();
            var outcome = IncomingOutcome.Of(line.Incoming!, there, ground.House.School);
            if (outcome.After is not { } after)
                continue;
            acts.Add(planner.Bringing(there?.Stored, after));
            taken.Add(line.Incoming!);
        }
        return (Act.All(acts), taken);
    }
}
