using System.Globalization;
using System.Text;

namespace Valtro.Core.Calendars;

/// <summary>The part of a public address that stands for an edition: lower-case letters, digits and hyphens.</summary>
public static class Slug
{
    private const int Longest = 48;

    /// <summary>The first free address that reads like the name.</summary>
    public static string Propose(string name, IReadOnlySet<string> taken)
    {
        var stem = Plain(name);
        if (stem.Length == 0)
            stem = "calendar";
        var slug = stem;
        for (var number = 2; taken.Contains(slug); number++)
            slug = $"{stem}-{number}";
        return slug;
    }

    private static string Plain(string name)
    {
        var plain = new StringBuilder();
        foreach (var character in name.Normalize(NormalizationForm.FormD).ToLowerInvariant())
        {
            if (char.IsAsciiLetterOrDigit(character))
                plain.Append(character);
            else if (CharUnicodeInfo.GetUnicodeCategory(character) != UnicodeCategory.NonSpacingMark
                && plain.Length > 0
                && plain[^1] != '-')
                plain.Append('-');
        }
        return plain.ToString()[..Math.Min(plain.Length, Longest)].Trim('-');
    }
}
