namespace Valtro.Store;

/// <summary>For which organisation the current work is done: the database lets it see no other (row-level security).</summary>
/// <remarks>
/// The second wall, beneath the policy layer: it catches our own mistakes, a statement that forgot its organisation.
/// It flows with the work (async), so a store method may widen it for itself alone. Where nothing was said, nothing is seen.
/// </remarks>
public static class Wall
{
    /// <summary>The setting of a connection that says it.</summary>
    public const string Setting = "valtro.organisation";

    /// <summary>Its value for the whole.</summary>
    public const string All = "all";

    private static readonly AsyncLocal<string?> Now = new();

    /// <summary>The value of the setting: an organisation's id, "all", or empty.</summary>
    internal static string Current => Now.Value ?? "";

    public static IDisposable Within(Guid organisationId) => Enter(organisationId.ToString());

    /// <summary>For work that is nobody's: signing in, finding what an address names, background work.</summary>
    public static IDisposable Everywhere() => Enter(All);

    private static Leaving Enter(string value)
    {
        var before = Now.Value;
        Now.Value = value;
        return new Leaving(before);
    }

    private sealed class Leaving(string? before) : IDisposable
    {
        public void Dispose() => Now.Value = before;
    }
}
