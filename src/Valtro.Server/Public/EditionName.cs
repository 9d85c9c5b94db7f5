namespace Valtro.Server.Public;

/// <summary>What a public address names: an edition that is open to everyone, or one for those who have its secret.</summary>
public readonly record struct EditionName(string Organisation, string Slug, string? Secret)
{
    public static EditionName Open(string organisation, string slug) => new(organisation, slug, null);

    public static EditionName OfSecret(string secret) => new("", "", secret);

    /// <summary>For the log: a secret never stands there.</summary>
    public override string ToString() => Secret is null ? $"{Organisation}/{Slug}" : "a secret address";
}
