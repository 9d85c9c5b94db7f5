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

    /// <summary>After so many paintings an engine is put away, and with it what V8 knows little of (formatters of languages). A new one is
    /// made in the time of ten paintings.</summary>
    /// <remarks>It is never asked to collect garbage: then a task of V8 may ask for itself again and again, for ten seconds, and fills
    /// hundreds of megabytes with that.</remarks>
    private const int PutAwayAfter = 200;

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
            if (++easel.Painted < PutAwayAfter)
                _ready.Add(easel);
            else
                easel.Engine.Dispose();
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
                string painted;
                using (new Timer(_ => Stop(engine), null, Longest, Timeout.InfiniteTimeSpan))
                    painted = (string)engine.Invoke("paint", data);
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

    /// <summary>A timer may be at it when the painting has just ended.</summary>
    private static void Stop(V8ScriptEngine engine)
    {
        try
        {
            engine.Interrupt();
        }
        catch (ObjectDisposedException)
        {
            // It was put away meanwhile.
        }
    }
}
