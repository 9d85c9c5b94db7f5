using System.Diagnostics;
using System.Diagnostics.Metrics;
using Valtro.Application.Editions;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>What is counted and timed beside what ASP.NET Core and Npgsql count themselves (OpenTelemetry, docs/operations.md).</summary>
public sealed class Measures : IDisposable
{
    public const string Name = "Valtro";

    /// <summary>Renderings and work, as spans.</summary>
    public static ActivitySource Traces { get; } = new(Name);

    private readonly Meter _meter;
    /// <summary>Seconds, as OpenTelemetry's conventions for HTTP advise.</summary>
    private static readonly InstrumentAdvice<double> Seconds = new()
    {
        HistogramBucketBoundaries = [0.005, 0.01, 0.025, 0.05, 0.075, 0.1, 0.25, 0.5, 0.75, 1, 2.5, 5, 7.5, 10],
    };

    private readonly Histogram<double> _renderings;
    private readonly Histogram<double> _answers;
    private readonly Counter<long> _work;
    private readonly Counter<long> _failures;
    private readonly Counter<long> _oldCopies;
    private readonly Counter<long> _notPainted;
    private readonly Counter<long> _comeAgain;
    private readonly UpDownCounter<long> _listeners;
    private volatile IReadOnlyList<WorkCount> _toDo = [];
    private long _warmFeeds;
    private long _active;

    public Measures(IMeterFactory meters)
    {
        _meter = meters.Create(Name);
        _renderings = _meter.CreateHistogram<double>("valtro.rendering.duration", "s", "Renderings of an artefact, by its kind.", null, Seconds);
        // By the name that OpenTelemetry gave it. What the framework measures under it costs those answers too that are not measured.
        _answers = _meter.CreateHistogram<double>("http.server.request.duration", "s", "Duration of HTTP server requests.", null, Seconds);
        _work = _meter.CreateCounter<long>("valtro.work.done", "{work}", "Work done, by kind and outcome.");
        _failures = _meter.CreateCounter<long>("valtro.failures", "{failure}", "Failures, by what failed.");
        _oldCopies = _meter.CreateCounter<long>(
            "valtro.copies.old", "{answer}", "Answers with the last good copy, because nothing newer could be had.");
        _notPainted = _meter.CreateCounter<long>(
            "valtro.pages.not_painted", "{page}", "Pages that are a plain list until their script is there, because painting them failed.");
        _comeAgain = _meter.CreateCounter<long>("valtro.answers.come_again", "{answer}", "Readers who were asked to come again.");
        // Read when somebody asks, not told with each: they are many.
        _meter.CreateObservableCounter(
            "valtro.feeds.warm", () => Volatile.Read(ref _warmFeeds), "{answer}", "Whole feeds that were sent as they stood in memory.");
        _meter.CreateObservableUpDownCounter(
            "valtro.requests.active", () => Volatile.Read(ref _active), "{request}", "Requests that wait for their answer.");
        _listeners = _meter.CreateUpDownCounter<long>("valtro.pages.listening", "{page}", "Open reading pages that listen for news.");
        _meter.CreateObservableGauge("valtro.work.due", () => Each(count => count.Due), "{work}", "Work whose time has come, by kind.");
        _meter.CreateObservableGauge(
            "valtro.work.failing", () => Each(count => count.Failing), "{work}", "Work that does not succeed, by kind.");
        _meter.CreateObservableGauge(
            "valtro.work.set_aside", () => Each(count => count.SetAside), "{work}", "Work that is not tried by itself any more, by kind.");
    }

    /// <summary>Counts and times a rendering until it is disposed.</summary>
    public IDisposable Rendering(ArtefactKind kind) => new Timed(this, Word(kind));

    /// <summary>The same of the first view of a page.</summary>
    public IDisposable Painting() => new Timed(this, "painting");

    public void NotPainted() => _notPainted.Add(1);

    public void Done(WorkKind kind, string outcome) =>
        _work.Add(1, new KeyValuePair<string, object?>("kind", Word(kind)), new("outcome", outcome));

    public void Failed(string what) => _failures.Add(1, new KeyValuePair<string, object?>("what", what));

    public void OldCopy() => _oldCopies.Add(1);

    public void WarmFeed() => Interlocked.Increment(ref _warmFeeds);

    /// <summary>A request begins to wait for its answer.</summary>
    public void Asked() => Interlocked.Increment(ref _active);

    /// <summary>It waits no longer.</summary>
    /// <param name="route">Of the address, without what stands in its places; null where there is none.</param>
    public void Answered(TimeSpan took, string method, int status, string? route)
    {
        Interlocked.Decrement(ref _active);
        var tags = new TagList { { "http.request.method", method }, { "http.response.status_code", status } };
        if (route is not null)
            tags.Add("http.route", route);
        _answers.Record(took.TotalSeconds, tags);
    }

    public void ComeAgain() => _comeAgain.Add(1);

    /// <summary>Counts an open page that listens, until it is disposed.</summary>
    public IDisposable Listening()
    {
        _listeners.Add(1);
        return new Listened(_listeners);
    }

    /// <summary>What is to do, as counted last.</summary>
    public void IsToDo(IReadOnlyList<WorkCount> counts) => _toDo = counts;

    private IEnumerable<Measurement<int>> Each(Func<WorkCount, int> number) => Enum.GetValues<WorkKind>().Select(kind =>
        new Measurement<int>(_toDo.FirstOrDefault(count => count.Kind == kind) is { } found ? number(found) : 0,
            new KeyValuePair<string, object?>("kind", Word(kind))));

    private static string Word(Enum value) => value.ToString().ToLowerInvariant();

    public void Dispose() => _meter.Dispose();

    private sealed class Listened(UpDownCounter<long> listeners) : IDisposable
    {
        public void Dispose() => listeners.Add(-1);
    }

    private sealed class Timed(Measures measures, string kind) : IDisposable
    {
        private readonly long _began = TimeProvider.System.GetTimestamp();
        private readonly Activity? _span = Traces.StartActivity($"render {kind}");

        public void Dispose()
        {
            measures._renderings.Record(
                TimeProvider.System.GetElapsedTime(_began).TotalSeconds, new KeyValuePair<string, object?>("kind", kind));
            _span?.Dispose();
        }
    }
}
