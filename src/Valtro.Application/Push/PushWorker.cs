using System.Text;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Application.Outside;
using Valtro.Application.Work;
using Valtro.Core;
using Valtro.Core.Push;
using Valtro.Core.Speaking;
using Valtro.Core.Time;
using Valtro.Store;

namespace Valtro.Application.Push;

/// <summary>A calendar elsewhere could not be written; it is tried again.</summary>
internal sealed class ElsewhereException(string why) : Exception(why);

/// <summary>Writes calendars elsewhere: after a change here, and every hour, since something may have been changed there.</summary>
internal sealed class PushWorker(
    PushStore store, PushedStore pushed, Houses houses, EditionStore editions, EditionObjects objects, IOutside outside, Settings settings,
    IClock clock) : IWorker
{
    /// <summary>Of one target, of which each waits for somebody else's server.</summary>
    private const int AtATime = 4;

    private const int ToldEvery = 20;

    private static readonly Duration LooksEvery = Duration.FromHours(1);

    private static readonly Duration LongestWait = Duration.FromHours(6);

    public WorkKind Kind => WorkKind.Push;

    public int AtOnce => 4;

    public Duration Claim => Duration.FromMinutes(30);

    /// <summary>What others fail at is tried on and on: a server may be away for days.</summary>
    public Duration? WaitAfter(int failures) =>
        Duration.Min(LongestWait, Duration.FromSeconds(30) * Math.Pow(2, Math.Min(failures - 1, 12)));

    public async Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping)
    {
        using var within = Wall.Within(work.OrganisationId!.Value);
        if (await store.FindAsync(work.OrganisationId.Value, Guid.Parse(work.Key)) is not { } target)
            return null;
        try
        {
            return await DoAsync(target, stopping);
        }
        catch (Exception failed) when (failed is RuleException or CalendarServerException)
        {
            var why = failed is RuleException refused
                ? refused.Refusals[0].Saying
                : Saying.Of("push.answersWith", ("status", ((CalendarServerException)failed).Status));
            await pushed.FailedAsync(target, why, clock.GetCurrentInstant());
            throw new ElsewhereException(Speech.For("en").Say(why));
        }
    }

    private async Task<Instant?> DoAsync(PushTarget target, CancellationToken stopping)
    {
        var access = OutsideAccess.Open(settings.Sealing, target.Access, target.Id)
            ?? throw new RuleException("address", "source.cannotOpen");
        var address = outside.Check(access.Address);
        var server = new CalendarServer(outside, OutsideSecrets.Of(access));
        var wishes = target.IsLeaving ? [] : await WishesAsync(target);
        var known = await pushed.KnownAsync(target.OrganisationId, target.Id);
        var (there, token) = await ThereAsync(server, address, target, known, stopping);
        var plan = PushPlan.Of(wishes, known, there);
        var moves = plan.Where(move => move.Step != PushStep.Leave && !move.IsAsked).ToArray();
        var run = new Run(server, address, target, pushed, clock, moves.Length);
        if (run.Total > ToldEvery)
            await pushed.ProgressAsync(target, 0, run.Total);
        await Parallel.ForEachAsync(
            moves, new ParallelOptions { MaxDegreeOfParallelism = AtATime, CancellationToken = stopping },
            async (move, ended) => await run.DoAsync(move, ended));
        if (target.IsLeaving && run.Open == 0 && run.Refused == 0 && !plan.Any(move => move.IsAsked))
        {
            await store.ForgetAsync(target, null);
            return null;
        }
        if (run.Refused > 0)
            throw new RuleException("address", "push.notAllTaken", ("count", run.Refused));
        await pushed.RightAsync(target, token, run.Asked, clock.GetCurrentInstant());
        return clock.GetCurrentInstant() + LooksEvery * (0.9 + 0.2 * Random.Shared.NextDouble());
    }

    /// <summary>What is to stand there: the edition as its readers there get it.</summary>
    /// <exception cref="RuleException">It is more than is written.</exception>
    private async Task<IReadOnlyList<PushWish>> WishesAsync(PushTarget target)
    {
        var house = await houses.LatestAsync(target.OrganisationId);
        if (house.Editions.FirstOrDefault(edition => edition.Id == target.EditionId) is not { IsInTheMaking: false } edition
            || edition.CalendarId is { } calendar && !(house.Calendars.TryGetValue(calendar, out var its) && its.ArchivedAt is null))
            return [];
        // An edition has the readers that it has now, whoever they were when this was set up.
        var audience = edition.IsStandard ? target.Audience : edition.Draft.Audience;
        // With the link that readers have, where it is for those who have it.
        var goingOut = await editions.GoingOutAsync(target.EditionId);
        var address = goingOut.FirstOrDefault(one => one.Audience == audience)
            ?? await editions.FindAsync(target.EditionId) ?? throw new RuleException("address", "push.editionGone");
        var all = await objects.OfAsync(address with { SeenAs = audience }, edition.Draft, house);
        var chosen = target.Takes == PushTakes.Chosen ? await store.ChosenAsync(target.OrganisationId, target.Id) : null;
        var days = new Window(
            target.From ?? DayRange.First, (target.Until ?? DayRange.Last).PlusDays(1), Zones.Named(address.Zone));
        var isNarrowed = target.From is not null || target.Until is not null;
        PushWish[] wishes =
        [
            .. all.Where(one => (chosen is null || one.Events.Any(chosen.Contains)) && (!isNarrowed || one.Dates(days).Any()))
                .Select(one => new PushWish($"{one.Name}.ics", Texts.Kept(one.Title, Texts.LongestTitle), one.Content))
                .DistinctBy(wish => wish.Name, StringComparer.Ordinal),
        ];
        return wishes.Length <= PushStore.MostObjects
            ? wishes
            : throw new RuleException("from", "push.tooManyEvents", ("count", wishes.Length), ("most", PushStore.MostObjects));
    }

    /// <summary>What stands there now, by what is another since it was looked at last, where the server tells.</summary>
    private static async Task<(IReadOnlyDictionary<string, string> There, string? Token)> ThereAsync(
        CalendarServer server, Uri address, PushTarget target, IReadOnlyList<PushKnown> known, CancellationToken stopping)
    {
        if (target.SyncToken is not { } token || await server.SinceAsync(address, token, stopping) is not { } since)
        {
            var all = await server.ListAsync(address, stopping);
            return (all.Tags, all.SyncToken);
        }
        var there = known.Where(one => (one.Question is null ? one.ETag : one.ThereTag) is not null)
            .ToDictionary(one => one.Name, one => (one.Question is null ? one.ETag : one.ThereTag)!, StringComparer.Ordinal);
        foreach (var (name, tag) in since.Changed)
            there[name] = tag;
        foreach (var name in since.Gone)
            there.Remove(name);
        return (there, since.SyncToken);
    }

    /// <summary>One time that a target is written.</summary>
    private sealed class Run(
        CalendarServer server, Uri address, PushTarget target, PushedStore pushed, IClock clock, int total)
    {
        private int _done;
        private int _asked;
        private int _open;
        private int _refused;

        public int Total => total;

        /// <summary>So many are asked about that were not.</summary>
        public int Asked => _asked;

        /// <summary>So many are asked about.</summary>
        public int Open => _open;

        public int Refused => _refused;

        public async Task DoAsync(PushMove move, CancellationToken stopping)
        {
            await (move.Step switch
            {
                PushStep.Make => WriteAsync(move, null, stopping),
                PushStep.Change => WriteAsync(move, move.ETag, stopping),
                PushStep.Remove => RemoveAsync(move, stopping),
                PushStep.Ask => AskAsync(move, move.Question!.Value, stopping),
                _ => pushed.ForgetAsync(target, [move.Name]),
            });
            if (Interlocked.Increment(ref _done) % ToldEvery == 0)
                await pushed.ProgressAsync(target, _done, total);
        }

        private async Task WriteAsync(PushMove move, string? tag, CancellationToken stopping)
        {
            var wish = move.Wish!;
            var reply = await server.PutAsync(address, wish.Name, wish.Content, tag, stopping);
            if (reply.IsSuccess)
                await WrittenAsync(wish, reply.ETag, stopping);
            else if (reply.Status == 412)
                await AskAsync(move, tag is null ? PushQuestion.Taken : PushQuestion.Changed, stopping);
            else if (reply.Status is 404 or 410 && tag is not null)
                await AskAsync(move, PushQuestion.Gone, stopping);
            else
                await RefuseAsync(move, reply);
        }

        /// <summary>A server that keeps it otherwise than it was sent tells no tag (RFC 4791 5.3.4).</summary>
        private async Task WrittenAsync(PushWish wish, string? tag, CancellationToken stopping)
        {
            tag ??= (await server.GetAsync(address, wish.Name, stopping))?.Tag
                ?? throw new RuleException("address", "push.notKept", ("title", wish.Title));
            await pushed.WrittenAsync(target, wish, tag, clock.GetCurrentInstant());
        }

        private async Task RemoveAsync(PushMove move, CancellationToken stopping)
        {
            var reply = await server.RemoveAsync(address, move.Name, move.ETag!, stopping);
            if (reply.IsSuccess || reply.Status is 404 or 410)
                await pushed.ForgetAsync(target, [move.Name]);
            else if (reply.Status == 412)
                await AskAsync(move, PushQuestion.Changed, stopping);
            else
                await RefuseAsync(move, reply);
        }

        /// <summary>Looks at what stands there: only what says something else is anybody's question.</summary>
        private async Task AskAsync(PushMove move, PushQuestion question, CancellationToken stopping)
        {
            var there = await server.GetAsync(address, move.Name, stopping);
            if (there is not var (content, tag))
            {
                if (move.Wish is null)
                    await pushed.ForgetAsync(target, [move.Name]);
                else
                    await AskAsync(move, PushQuestion.Gone, null);
                return;
            }
            if (move.Wish is { } wish && ObjectText.SaysTheSame(content, wish.Content))
            {
                await pushed.WrittenAsync(target, wish, tag, clock.GetCurrentInstant());
                return;
            }
            // It was touched there, and says what was written.
            if (move.Known is { Sent.Length: > 0 } known && ObjectText.SaysTheSame(content, known.Sent))
            {
                await pushed.WrittenAsync(
                    target, new PushWish(known.Name, known.Title, known.Sent), tag, clock.GetCurrentInstant());
                await (move.Wish is null
                    ? RemoveAsync(move with { ETag = tag }, stopping)
                    : WriteAsync(move, tag, stopping));
                return;
            }
            await AskAsync(move, question == PushQuestion.Gone ? PushQuestion.Changed : question, there);
        }

        private async Task AskAsync(PushMove move, PushQuestion question, (byte[] Content, string Tag)? there)
        {
            await pushed.AskAsync(
                target, move.Name, move.Wish?.Title ?? move.Known?.Title ?? move.Name, question, move.Wish?.Content, there,
                clock.GetCurrentInstant());
            Interlocked.Increment(ref _open);
            if (move.Known?.Question is null)
                Interlocked.Increment(ref _asked);
        }

        /// <summary>What is not taken of one event is no reason not to write the others; what is wrong with all is.</summary>
        private async Task RefuseAsync(PushMove move, OutsideReply reply)
        {
            if (reply.Status is >= 500 and not 507 or 429 or 405)
                throw new CalendarServerException(reply.Status, address.Host);
            Interlocked.Increment(ref _refused);
            var code = reply.Status switch
            {
                403 => "push.mayNotWrite",
                409 when Encoding.UTF8.GetString(reply.Content).Contains("no-uid-conflict", StringComparison.Ordinal) => "push.isElsewhere",
                413 => "push.tooLarge",
                507 => "push.isFull",
                _ => "push.notTaken",
            };
            await pushed.RefusedAsync(target, move.Name, move.Wish?.Title ?? move.Known?.Title ?? move.Name,
                Saying.Of(code, ("status", reply.Status)));
        }
    }
}
