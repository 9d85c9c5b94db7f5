using System.Globalization;
using Valtro.Core.Editions;

namespace Valtro.Application.Editions;

/// <summary>Changes in words, where no script writes them: what an entry is now, and how it was.</summary>
internal static class ChangeWords
{
    public static string What(ChangeBody change, ReadingWords words, CultureInfo culture, ClockFace clock) => change.Change switch
    {
        EntryChange.Cancelled => words["cancelled"],
        EntryChange.TakesPlace => words["takesPlace"],
        EntryChange.New => words["new"],
        EntryChange.Removed => words["removed"],
        EntryChange.Relocated => change.Entry.Place,
        _ => ReadingDates.When(change.Entry, words, culture, clock),
    };

    public static string Was(ChangeBody change, ReadingWords words, CultureInfo culture, ClockFace clock)
    {
        var when = ReadingDates.When(change.WasStart, change.WasEnd, change.Entry.AllDay, culture, clock);
        var was = change.Change switch
        {
            EntryChange.Moved => words.Fill("wasAt", "when", when),
            EntryChange.Relocated => $"{when}, {words.Fill("wasAt", "when", change.WasPlace)}",
            _ => when,
        };
        return change.More > 0 ? $"{was} {words.Fill("andLater", "count", change.More.ToString(culture))}" : was;
    }
}
