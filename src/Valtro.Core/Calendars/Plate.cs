using System.Text;

namespace Valtro.Core.Calendars;

/// <summary>The short code of a calendar, 1 to 4 letters or digits in upper case, unique in an organisation.</summary>
public readonly record struct Plate
{
    private const int Longest = 4;

    public string Code { get; }

    private Plate(string code) => Code = code;

    /// <exception cref="RuleException">It is empty, too long, or holds something else than letters and digits.</exception>
    public static Plate Parse(string? text)
    {
        var code = (text ?? "").Trim().Normalize(NormalizationForm.FormC).ToUpperInvariant();
        if (code.Length is 0 or > Longest || !code.All(char.IsLetterOrDigit))
            throw new RuleException("plate", "calendar.plateForm");
        return new Plate(code);
    }

    /// <summary>The first free plate that reads like the name: its initials, its first letters, then numbered.</summary>
    /// <returns>A plate that is not in <paramref name="taken"/>.</returns>
    public static Plate Propose(string? name, IReadOnlySet<string> taken)
    {
        var words = (name ?? "").Normalize(NormalizationForm.FormC).ToUpperInvariant()
            .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
            .Select(word => new string(word.Where(char.IsLetterOrDigit).ToArray()))
            .Where(word => word.Length > 0)
            .ToArray();
        return new Plate(Candidates(words).First(code => !taken.Contains(code)));
    }

    private static IEnumerable<string> Candidates(string[] words)
    {
        if (words.Length > 1)
            yield return Cut(string.Concat(words.Select(word => word[0])), Longest);
        var first = words.Length > 0 ? words[0] : "C";
        for (var length = Math.Min(3, first.Length); length <= Math.Min(Longest, first.Length); length++)
            yield return Cut(first, length);
        var stem = words.Length > 1 ? Cut(string.Concat(words.Select(word => word[0])), 2) : Cut(first, 2);
        for (var number = 2; number < 100; number++)
            yield return $"{stem}{number}";
        for (var number = 100; number <= 9_999; number++)
            yield return number.ToString(System.Globalization.CultureInfo.InvariantCulture);
    }

    private static string Cut(string text, int length) => text[..Math.Min(length, text.Length)];

    public override string ToString() => Code;
}
