using System.Buffers;

namespace Valtro.Application.Editions;

/// <summary>What a public address names: an edition that is open to everyone, or one for those who have its secret.</summary>
public readonly record struct EditionName(string Organisation, string Slug, string? Secret)
{
    private const int LongestPart = 80;

    /// <summary>It leads nowhere, whatever stands in the database.</summary>
    public bool IsImpossible => Secret is null ? Organisation.Length == 0 || Slug.Length == 0 : Secret.Length == 0;

    public static EditionName Of(string organisation, string edition) => new(Possible(organisation), Possible(edition), null);

    /// <summary>What no name can hold is none: nobody is asked for it.</summary>
    private static string Possible(string part) =>
        part.Length <= LongestPart && !part.AsSpan().ContainsAnyExcept(OfNames) ? part : "";

    private static readonly SearchValues<char> OfNames =
        SearchValues.Create("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_");

    public static EditionName OfSecret(string secret) => new("", "", Possible(secret));

    /// <summary>From the path of a page.</summary>
    /// <returns>Null for what is none.</returns>
    public static EditionName? OfPath(ReadOnlySpan<char> path)
    {
        if (path is not ['/', var kind, '/', .. var name])
            return null;
        var between = name.IndexOf('/');
        return (kind, between) switch
        {
            ('c', > -1) when !name[(between + 1)..].Contains('/') => Of(name[..between].ToString(), name[(between + 1)..].ToString()),
            ('s', -1) => OfSecret(name.ToString()),
            _ => null,
        };
    }

    /// <summary>For the log: a secret never stands there.</summary>
    public override string ToString() => Secret is null ? $"{Organisation}/{Slug}" : "a secret address";
}
