using System.Collections.Concurrent;
using Microsoft.ClearScript.V8;
using Microsoft.Extensions.FileProviders;
using Valtro.Application.Work;

namespace Valtro.Application.Editions;

/// <summary>Paints the first view of a reading page: the reader itself, which is one script, run in V8.</summary>
/// <remarks>
/// A few engines are kept, each with limits on memory and time; one that fails is thrown away. What cannot be painted is written down,
/// counted,
/// and shown as a plain list. The script gets what the browser gets and gives HTML; nothing of the machine is within its reach.
/// </remarks>
/// <param name="files">What Vite built.</param>
public sealed class Painter(IFileProvider files, Faults faults, Measures measures)
{
    /// <summary>As many paint at once.</summary>
    private const int Engines = 2;

    /// <summary>What is asked for beyond this is stopped; V8 itself gives up only far above, since that would end the process.</summary>
    private const int MostMegabytes = 192;

    private const int MegabytesOfV8 = 1_024;

    /// <summary>After so many paintings an engine is tidied; that takes as long as two of them.</summary>
    private const int TidiedAfter = 100;

    /// <summary>Characters of data; an edition of so much is a plain list until its script is there.</summary>
    private const int MostData = 4_000_000;

    /// <summary>A painting takes some ten milliseconds; a month with a thousand entries half a second.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(4);

    private const string What = "painting a page";

    /// <summary>All that are ready, by the script that they run: the servers of one process share them.</summary>
    private static readonly ConcurrentDictionary<string, Studio> Studios = new();

    private readonly Lazy<Studio?> _studio = new(() => StudioOf(files));

    /// <summary>Where the script is; it is no part of what is served.</summary>
    private const string Script = ".vite/paint.js";

    /// <summary>An engine, and how many pages it has painted.</summary>
    private sealed class Easel(V8ScriptEngine engine)
    {
        public V8ScriptEngine Engine { get; } = engine;

        public int Painted { get; set; }
    }

    private sealed class Studio(string script)
    {
        private readonly ConcurrentBag<Easel> _ready = [];

        public SemaphoreSlim Room { get; } = new(Engines);

        public Easel Take() => _ready.TryTake(out var easel) ? easel : new Easel(Make());

        public void GiveBack(Easel easel)
        {
            // V8 tidies by what its own heap holds, and knows little of what it holds besides (formatters of languages).
            if (++easel.Painted % TidiedAfter == 0)
                easel.Engine.CollectGarbage(exhaustive: true);
            _ready.Add(easel);
        }

        private V8ScriptEngine Make()
        {
            var engine = new V8ScriptEngine(new V8RuntimeConstraints { MaxOldSpaceSize = MegabytesOfV8, HeapExpansionMultiplier = 1.5 })
            {
                MaxRuntimeHeapSize = MostMegabytes * 1024 * 1024,
                RuntimeHeapSizeSampleInterval = TimeSpan.FromMilliseconds(20),
            };
            engine.Execute("paint.js", script);
            return engine;
        }
    }

    private static Studio? StudioOf(IFileProvider files)
    {
        var file = files.GetFileInfo(Script);
        if (!file.Exists)
            return null;
        using var reader = new StreamReader(file.CreateReadStream());
        return Studios.GetOrAdd(reader.ReadToEnd(), script => new Studio(script));
    }

    /// <param name="data">What stands in the page for its script.</param>
    /// <returns>HTML; null where it cannot be painted.</returns>
    public string? Paint(string data)
    {
        if (_studio.Value is not { } studio || data.Length > MostData)
            return null;
        studio.Room.Wait();
        try
        {
            var easel = studio.Take();
            var engine = easel.Engine;
            try
            {
                using var timed = measures.Painting();
                using var late = new Timer(_ => engine.Interrupt(), null, Longest, Timeout.InfiniteTimeSpan);
                var painted = (string)engine.Script.paint(data);
                studio.GiveBack(easel);
                faults.Succeeded(What);
                return painted;
            }
            catch
            {
                engine.Dispose();
                throw;
            }
        }
        catch (Exception failed) when (failed is not OutOfMemoryException)
        {
            faults.Failed(What, failed, "painting");
            measures.NotPainted();
            return null;
        }
        finally
        {
            studio.Room.Release();
        }
    }
}
