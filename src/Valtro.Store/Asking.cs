namespace Valtro.Store;

/// <summary>What is asked for: how long somebody waits for what is being read, and what they call what they change.</summary>
/// <remarks>Flows with the request, as <see cref="Wall"/> does.</remarks>
public static class Asking
{
    /// <summary>The setting of a transaction that says by which request it is.</summary>
    internal const string ChangeSetting = "valtro.change";

    private static readonly AsyncLocal<CancellationToken> Said = new();
    private static readonly AsyncLocal<string?> By = new();

    /// <summary>When whoever asked has gone, the question is taken back from the database too. Only reads heed it: what changes something
    /// is done to its end.</summary>
    public static CancellationToken Current => Said.Value;

    /// <summary>By which request something is changed, as news of it say; null for work that nobody asked for.</summary>
    public static string? Change => By.Value;

    /// <summary>Until the end of the request, or until whoever asked has gone.</summary>
    public static void Until(CancellationToken gone) => Said.Value = gone;

    /// <summary>Names the request, until its end.</summary>
    /// <returns>The name: random hexadecimal digits.</returns>
    public static string Named() => By.Value = Guid.NewGuid().ToString("N");
}
