using System.Globalization;
using System.Text.RegularExpressions;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Speaking;
using Valtro.Core.YearPlans;

namespace Valtro.Core.Findings;

/// <summary>Everybody reads an address or a number of somebody.</summary>
internal sealed class PersonalDataForEveryone : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (ground.Edition.Audience != Audience.Everyone)
            return null;
        var data = PersonalData.In(told.Event, told.Detail);
        return data is { HasEmail: false, HasPhone: false } ? null : About(told, [Remedy.At(told)], ("what", Saying.Of(data switch
        {
            { HasEmail: true, HasPhone: true } => "finding.data.both",
            { HasEmail: true } => "finding.data.email",
            _ => "finding.data.phone",
        })));
    }
}

/// <summary>Its title has no letter and no digit.</summary>
internal sealed class TitleWithoutWords : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Detail < Detail.Headline || told.Next.Title.Any(char.IsLetterOrDigit) ? null : About(told, [Remedy.At(told)]);
}

/// <summary>Its title is written in capitals.</summary>
internal sealed class TitleInCapitals : FindingOfEvents
{
    private const int Fewest = 10;

    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Detail >= Detail.Headline && told.Title.Count(char.IsUpper) >= Fewest && !told.Title.Any(char.IsLower)
            ? About(told, [Remedy.At(told)])
            : null;
}

/// <summary>Its title names a year in which it is not.</summary>
internal sealed class TitleOfOtherYear : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (told.Detail < Detail.Headline || told.Series.Recurs)
            return null;
        var years = TitleYears.In(told.Title);
        var around = told.Next.Occurrence.LocalEnd.Year;
        // What is before or after the turn of a year may be named by either.
        return years.Count == 0 || years.Any(year => Math.Abs(year - told.Day.Year) == 0 || year == around || year == told.Day.Year + 1
            && told.Day.Month >= 7)
            ? null
            : About(told, [Remedy.At(told)], ("year", years[0]), ("day", told.Day));
    }
}

/// <summary>Its title, as feeds write it, is longer than programs show.</summary>
internal sealed class TitleTooLong : FindingOfEvents
{
    private const int Most = 80;

    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Detail >= Detail.Headline
            && new StringInfo(ground.Composition.FullTitle(told.Next)).LengthInTextElements is > Most and var length
            ? About(told, [Remedy.At(told)], ("count", length), ("most", Most))
            : null;
}

/// <summary>Its description is longer than anybody reads in a program.</summary>
internal sealed class TextTooLong : FindingOfEvents
{
    private const int Most = 3_000;

    public override Severity Severity => Severity.ForInformation;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Shown.Description.Text.Length is > Most and var length ? About(told, [Remedy.At(told)], ("count", length)) : null;
}

/// <summary>It is for whole days, and its title says a time.</summary>
internal sealed partial class TimeInWholeDay : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground) =>
        told.Series.Timing.AllDay && told.Detail >= Detail.Headline && !told.Content.IsDeadline
            && Time().Match($"{told.Title} {told.Content.Subtitle}") is { Success: true } time
            ? About(told, [Remedy.At(told)], ("time", time.Value))
            : null;

    [GeneratedRegex(@"(?<![\d.,:])([01]?\d|2[0-3])[:.][0-5]\d(?![\d.,:]*\d)|\b(1[0-2]|[1-9])\s?(am|pm|a\.m\.|p\.m\.|Uhr)\b",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Time();
}

/// <summary>Its title names another calendar than those it is on.</summary>
internal sealed class NamesAnotherCalendar : FindingOfEvents
{
    public override Severity Severity => Severity.ToLookAt;

    protected override Finding? In(TellsOf told, ProofGround ground)
    {
        if (told.Detail < Detail.Headline)
            return null;
        var on = told.Event.Calendars.ToHashSet();
        var own = ground.Sources.Where(source => on.Contains(source.CalendarId)).ToArray();
        return ground.Sources.FirstOrDefault(source => !on.Contains(source.CalendarId) && Names(told.Title, source)
            && !own.Any(mine => Names(told.Title, mine))) is { } other && own.Length > 0
            ? About(told, [Remedy.At(told)], ("calendar", own[0].Name), ("other", other.Name))
            : null;
    }

    /// <summary>By its whole name, or by its plate as a word of its own in capitals; a single letter names nothing.</summary>
    private static bool Names(string title, Source source) =>
        HasWord(title, source.Name, StringComparison.OrdinalIgnoreCase)
        || (source.Plate.Code.Length > 1 && HasWord(title, source.Plate.Code, StringComparison.Ordinal));

    private static bool HasWord(string text, string word, StringComparison comparison)
    {
        for (var at = text.IndexOf(word, comparison); at >= 0; at = text.IndexOf(word, at + 1, comparison))
        {
            var end = at + word.Length;
            if ((at == 0 || !char.IsLetterOrDigit(text[at - 1])) && (end == text.Length || !char.IsLetterOrDigit(text[end])))
                return true;
        }
        return false;
    }
}
