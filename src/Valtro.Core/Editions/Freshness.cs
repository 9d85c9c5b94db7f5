namespace Valtro.Core.Editions;

/// <summary>How soon a change comes to those who have an edition already.</summary>
/// <param name="RefreshMinutes">How often programs are asked to come (RFC 7986 5.7); they may ask less often.</param>
/// <param name="KeptSeconds">How long caches on the way may keep what they have (max-age, RFC 9111 5.2.2.1).</param>
public sealed record Freshness(int RefreshMinutes, int KeptSeconds)
{
    public const int LeastRefresh = 15;
    public const int MostRefresh = 7 * 24 * 60;
    public const int MostKept = 3_600;

    public static Freshness Usual { get; } = new(60, 60);

    /// <summary>As a duration (RFC 5545 3.3.6): PT15M, PT1H, P1D.</summary>
    public string RefreshInterval => RefreshMinutes % (24 * 60) == 0 ? $"P{RefreshMinutes / (24 * 60)}D"
        : RefreshMinutes % 60 == 0 ? $"PT{RefreshMinutes / 60}H"
        : $"PT{RefreshMinutes}M";

    internal void Check(RefusalList refusals)
    {
        if (RefreshMinutes is < LeastRefresh or > MostRefresh)
            refusals.Add("refreshMinutes", "edition.refresh", ("least", LeastRefresh), ("days", MostRefresh / 60 / 24));
        if (KeptSeconds is < 0 or > MostKept)
            refusals.Add("keptSeconds", "edition.kept", ("most", MostKept / 60));
    }
}
