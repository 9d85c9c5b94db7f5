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

    [GeneratedRegex(@"(?<![\d.,:])(?<first>20\d\d)((?<between>[/–-])(?<second>\d\d))?(?![\d.,:]\d|\d)")]
    private static partial Regex Years();
}
