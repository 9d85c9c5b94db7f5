namespace Valtro.Store;

/// <summary>How long somebody waits for what is being read: when they go, the question is taken back from the database too.</summary>
/// <remarks>Flows with the request, as <see cref="Wall"/> does. Only reads heed it: what changes something is done to its end.</remarks>
public static class Asking
{
    private static readonly AsyncLocal<CancellationToken> Said = new();

    public static CancellationToken Current => Said.Value;

    /// <summary>Until the end of the request, or until whoever asked has gone.</summary>
    public static void Until(CancellationToken gone) => Said.Value = gone;
}
