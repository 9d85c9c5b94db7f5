namespace Valtro.Store;

/// <summary>For whom a connection works: each has connections of its own, so that none can take all of them.</summary>
public enum Lane
{
    /// <summary>Those who are signed in.</summary>
    Desk,

    /// <summary>Anybody who reads in public.</summary>
    Readers,

    /// <summary>What is done after a change and by the clock.</summary>
    Work,
}

/// <summary>The lane that the current work is in. It flows with the work (async); where nothing was said it is the desk's.</summary>
public static class Lanes
{
    /// <summary>How long whoever reads in public waits for the database.</summary>
    public const int ReadersWaitSeconds = 2;

    private static readonly AsyncLocal<Lane> Now = new();

    public static Lane Current => Now.Value;

    public static IDisposable In(Lane lane)
    {
        var before = Now.Value;
        Now.Value = lane;
        return new Leaving(before);
    }

    private sealed class Leaving(Lane before) : IDisposable
    {
        public void Dispose() => Now.Value = before;
    }
}
