using System.Text.RegularExpressions;
using Valtro.Core.Events;

namespace Valtro.Core.Disclosure;

/// <summary>Finds in an event what people would rather not have published by mistake.</summary>
/// <param name="HasEmail">An e-mail address.</param>
/// <param name="HasPhone">A telephone number.</param>
/// <param name="HasFile">A file.</param>
public readonly partial record struct PersonalData(bool HasEmail, bool HasPhone, bool HasFile)
{
    /// <summary>What the fields hold that a level tells, in the series and in dates that differ.</summary>
    public static PersonalData In(CalendarEvent calendarEvent, Detail detail)
    {
        if (detail < Detail.Headline)
            return default;
        var (email, phone) = (false, false);
        foreach (var text in Texts(calendarEvent, detail))
        {
            email |= Email().IsMatch(text);
            phone |= Phone().IsMatch(text);
        }
        return new PersonalData(email, phone, detail == Detail.Complete && calendarEvent.Content.Files.Count > 0);
    }

    /// <remarks>Files are told of by themselves: their names are full of numbers.</remarks>
    private static IEnumerable<string> Texts(CalendarEvent calendarEvent, Detail detail) =>
        calendarEvent.Exceptions.Select(exception => exception.Own.Over(calendarEvent.Content)).Prepend(calendarEvent.Content)
            .Select(content => content.SeenBy(detail))
            .SelectMany(seen =>
                EventField.All.Where(field => field.Type != typeof(ValueList<EventFile>)).SelectMany(field => field.TextsOf(seen)))
            .Distinct();

    /// <summary>E-mail addresses and telephone numbers in a text, in order: where, how long, and the address behind (RFC 6068, RFC
    /// 3966).</summary>
    /// <remarks>A number without a country's or a place's code has ten digits at least: shorter ones may count something else.</remarks>
    public static IEnumerable<(int Start, int Length, string Address)> Contacts(string text)
    {
        foreach (Match found in Email().Matches(text))
            yield return (found.Index, found.Length, $"mailto:{found.Value}");
        foreach (Match found in Phone().Matches(text))
        {
            var digits = string.Concat(found.Value.Where(char.IsAsciiDigit));
            if (found.Value[0] is '+' or '0' or '(' || digits.Length >= 10)
                yield return (found.Index, found.Length, found.Value[0] == '+' ? $"tel:+{digits}" : $"tel:{digits}");
        }
    }

    /// <remarks>Begun only where a word begins: a long one would else be read again from each of its letters.</remarks>
    [GeneratedRegex(@"(?<![\p{L}\p{N}._%+'-])[\p{L}\p{N}._%+'-]+@[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)*\.\p{L}{2,}",
        RegexOptions.CultureInvariant)]
    private static partial Regex Email();

    /// <summary>Seven digits or more, grouped as people group them; not a date, not a time span, not part of a longer word.</summary>
    [GeneratedRegex(
        @"(?<![\p{L}\p{N}/:.-])(?!\d{4}-\d{2}-\d{2})(?!\d{1,2}[./]\d{1,2}[./]\d{2,4})(\+|00|\(\+?\d)?\d([ ()./-]{0,2}\d){6,14}(?![\p{L}\p{N}:])|tel:", RegexOptions.CultureInvariant)]
    private static partial Regex Phone();
}
