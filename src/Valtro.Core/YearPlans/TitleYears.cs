using System.Globalization;
using System.Text.RegularExpressions;

namespace Valtro.Core.YearPlans;

/// <summary>Years that a title names: "Regatta 2026", "Plan 2026/27".</summary>
public static partial class TitleYears
{
    /// <summary>The title with its years so many later; the same where it names none.</summary>
    public static string Later(string title, int years) => Years().Replace(title, match =>
    {
        var first = int.Parse(match.Groups["first"].Value, CultureInfo.InvariantCulture) + years;
        return match.Groups["second"] is { Success: true } second
            ? string.Create(CultureInfo.InvariantCulture,
                $"{first}{match.Groups["between"].Value}{(int.Parse(second.Value, CultureInfo.InvariantCulture) + years) % 100:00}")
            : first.ToString(CultureInfo.InvariantCulture);
    });

    /// <summary>The years that it names, in order; of a school year both.</summary>
    public static IReadOnlyList<int> In(string title) =>
    [
        .. Years().Matches(title).SelectMany(match =>
            int.Parse(match.Groups["first"].Value, CultureInfo.InvariantCulture) is var first && match.Groups["second"].Success
                ? [first, first + 1]
                : new[] { first }),
    ];

    [GeneratedRegex(@"(?<![\d.,:])(?<first>20\d\d)((?<between>[/–-])(?<second>\d\d))?(?![\d.,:]\d|\d)")]
    private static partial Regex Years();
}
