using NodaTime;
using Valtro.Store;

namespace Valtro.Application.Work;

/// <summary>Counts what is to do, for the measures: whoever reads them waits for no database.</summary>
internal sealed class Counting(WorkStore store, Measures measures, IClock clock, Faults faults) : ILoop
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(10);

    public string Name => "counting what is to do";

    public async Task RunAsync(CancellationToken stopping)
    {
        while (true)
        {
            measures.IsToDo(await store.CountAsync(clock.GetCurrentInstant()));
            faults.Succeeded(Name);
            await Task.Delay(Every, stopping);
        }
    }
}
