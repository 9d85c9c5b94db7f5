using System.Collections.Concurrent;
using NodaTime;
using Valtro.Application.Mail;
using Valtro.Application.Push;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Wakes those who wait for something to do.</summary>
public sealed class WorkSignal
{
    private volatile TaskCompletionSource _raised = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Ends when it is raised next.</summary>
    public Task Next => _raised.Task;

    public void Raise() =>
        Interlocked.Exchange(ref _raised, new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously)).TrySetResult();
}

/// <summary>Does a kind of work.</summary>
public interface IWorker
{
    WorkKind Kind { get; }

    /// <summary>How much of it a node does at once.</summary>
    int AtOnce { get; }

    /// <summary>For how long a node has it to itself; longer than it can take.</summary>
    Duration Claim { get; }

    /// <summary>How long to wait before it is tried again, by how often it failed; null when it is to be set aside.</summary>
    Duration? WaitAfter(int failures);

    /// <returns>When it is to be done again by itself; null for never.</returns>
    Task<Instant?> DoAsync(Store.Work work, CancellationToken stopping);
}

/// <summary>Does the work of one kind: claims what is due, and waits for what comes.</summary>
internal sealed class Working(IWorker worker, WorkStore store, WorkSignal signal, Faults faults, Measures measures, IClock clock) : ILoop
{
    /// <summary>It is looked anyway after this time: an announcement may have been lost.</summary>
    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(15);

    /// <summary>What this node still holds, because the database was away when it was to be said how it went.</summary>
    private readonly ConcurrentQueue<Store.Work> _held = new();

    public string Name => $"looking for work of the kind {worker.Kind.ToString().ToLowerInvariant()}";

    public async Task RunAsync(CancellationToken stopping)
    {
        var busy = new List<Task>();
        try
        {
            while (true)
            {
                stopping.ThrowIfCancellationRequested();
                var raised = signal.Next;
                busy.RemoveAll(one => one.IsCompleted);
                await GiveBackHeldAsync();
                var now = clock.GetCurrentInstant();
                var free = worker.AtOnce - busy.Count;
                var claimed = free > 0 ? await store.ClaimAsync(worker.Kind, free, now, now + worker.Claim) : [];
                faults.Succeeded(Name);
                busy.AddRange(claimed.Select(work => DoAsync(work, stopping)));
                // When one is done there may be more; else until something is due or wished for.
                Task[] wakes = busy.Count == worker.AtOnce
                    ? busy.ToArray()
                    : [.. busy, raised, Task.Delay(await UntilDueAsync(claimed.Count > 0), stopping)];
                await Task.WhenAny(wakes);
            }
        }
        finally
        {
            // It ends well, or gives back what it has begun, while there is still a database to say so to.
            await Task.WhenAll(busy);
        }
    }

    private async Task<TimeSpan> UntilDueAsync(bool lookAgain)
    {
        if (lookAgain)
            return TimeSpan.FromMilliseconds(5);
        if (await store.NextDueAsync(worker.Kind) is not { } next)
            return LongestWait;
        var left = (next - clock.GetCurrentInstant()).ToTimeSpan();
        return left < TimeSpan.FromMilliseconds(20) ? TimeSpan.FromMilliseconds(20) : left < LongestWait ? left : LongestWait;
    }

    private async Task DoAsync(Store.Work work, CancellationToken stopping)
    {
        var what = $"{worker.Kind.ToString().ToLowerInvariant()} {work.Key}";
        using var span = Measures.Traces.StartActivity($"work {worker.Kind.ToString().ToLowerInvariant()}");
        try
        {
            await store.DoneAsync(work, await worker.DoAsync(work, stopping));
            faults.Succeeded(what);
            measures.Done(worker.Kind, "done");
        }
        catch (Exception) when (stopping.IsCancellationRequested)
        {
            await GiveBackAsync(work);
        }
        catch (Exception failed)
        {
            faults.Failed(what, failed, worker.Kind.ToString().ToLowerInvariant());
            await NoteAsync(work, failed);
        }
    }

    private async Task GiveBackHeldAsync()
    {
        while (_held.TryPeek(out var work))
        {
            await store.ReleaseAsync(work);
            _held.TryDequeue(out _);
        }
    }

    /// <summary>So that another node, or this one when it is back, need not wait for the claim to run out.</summary>
    private async Task GiveBackAsync(Store.Work work)
    {
        try
        {
            await store.ReleaseAsync(work);
        }
        catch (Exception away)
        {
            faults.Failed("giving back what was begun", away);
        }
    }

    /// <summary>Later and later, with some spread, so that what failed together does not come back together.</summary>
    private async Task NoteAsync(Store.Work work, Exception failed)
    {
        try
        {
            var now = clock.GetCurrentInstant();
            var wait = worker.WaitAfter(work.Tries + 1);
            var next = wait is { } given
                ? now + Duration.FromNanoseconds(given.TotalNanoseconds * (0.8 + 0.4 * Random.Shared.NextDouble()))
                : default(Instant?);
            await store.FailedAsync(work, ReasonOf(failed), failed.Message, now, next);
            measures.Done(worker.Kind, next is null ? "set aside" : "failed");
        }
        catch (Exception away)
        {
            faults.Failed("writing down what failed", away);
            _held.Enqueue(work);
        }
    }

    private static FailureReason ReasonOf(Exception failed) =>
        failed switch
        {
            MailNotTakenException => FailureReason.MailServer,
            ElsewhereException => FailureReason.Elsewhere,
            _ => DatabaseFailures.ReasonOf(failed),
        };
}
