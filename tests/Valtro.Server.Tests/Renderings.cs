using System.Collections.Concurrent;
using System.Diagnostics.Metrics;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Valtro.Application.Work;

namespace Valtro.Server.Tests;

/// <summary>Counts the renderings of some nodes, by kind, as their measures tell.</summary>
public sealed class Renderings : IDisposable
{
    private readonly MeterListener _listener = new();
    private readonly ConcurrentDictionary<string, int> _counts = new();

    public Renderings(params WebApplicationFactory<EventStreams>[] nodes)
    {
        var scopes = nodes.Select(node => (object)node.Services.GetRequiredService<IMeterFactory>()).ToHashSet();
        _listener.InstrumentPublished = (instrument, listener) =>
        {
            if (instrument.Name == "valtro.rendering.duration"
                && instrument.Meter.Name == Measures.Name
                && instrument.Meter.Scope is { } scope
                && scopes.Contains(scope))
                listener.EnableMeasurementEvents(instrument);
        };
        _listener.SetMeasurementEventCallback<double>((_, _, tags, _) =>
            _counts.AddOrUpdate((string)tags[0].Value!, 1, (_, count) => count + 1));
        _listener.Start();
    }

    public int Of(string kind) => _counts.GetValueOrDefault(kind);

    public int All => _counts.Values.Sum();

    public void Dispose() => _listener.Dispose();
}
