using System.Collections.Concurrent;

namespace Valtro.Application.Work;

/// <summary>Writes down what fails once, and once more when it succeeds again: not each time in between.</summary>
public sealed class Faults(Measures measures, ILogger<Faults> log)
{
    /// <summary>Marks a failure that stands in the log already, by the name of what failed within.</summary>
    private const string Written = "valtro.written";

    private readonly ConcurrentDictionary<string, int> _failing = new();

    /// <param name="what">What failed, in words with its key: "render 0193…". Never a secret.</param>
    public void Failed(string what, Exception failure, string? kind = null)
    {
        measures.Failed(kind ?? what);
        if (failure.Data.Contains(Written))
            return;
        failure.Data[Written] = true;
        if (_failing.AddOrUpdate(what, 1, (_, times) => times + 1) == 1)
            log.LogError(failure, "{What} failed; it is tried again", what);
    }

    public void Succeeded(string what)
    {
        if (!_failing.IsEmpty && _failing.TryRemove(what, out var times))
            log.LogInformation("{What} succeeds again after {Times} failures", what, times);
    }
}
