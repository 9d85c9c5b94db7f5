using System.Globalization;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Intake;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Files as they are in the wild (Wild/*.ics), each with the reading of it that somebody wrote down (Wild/*.txt).</summary>
public sealed class WildFilesTests
{
    private static readonly string Folder =
        Path.Combine(ArchitectureTests.Root(), "tests", "Valtro.Core.Tests", "ICalendar", "Wild");

    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm");

    public static TheoryData<string> Files =>
        [.. Directory.EnumerateFiles(Folder, "*.ics").Select(file => Path.GetFileNameWithoutExtension(file)).Order(StringComparer.Ordinal)];

    [Fact]
    public void There_are_as_many_as_a_reader_meets() => Assert.True(Files.Count >= 80);

    [Theory]
    [MemberData(nameof(Files))]
    public void A_file_from_the_wild_is_read_as_it_is_meant(string name)
    {
        var reading = string.Join('\n', Reading(File.ReadAllBytes(Path.Combine(Folder, $"{name}.ics"))));
        Assert.Equal(File.ReadAllText(Path.Combine(Folder, $"{name}.txt")).TrimEnd(), reading);
    }

    private static IEnumerable<string> Reading(byte[] file)
    {
        IReadOnlyList<ForeignEntry> entries;
        try
        {
            entries = [.. new ForeignFile(ForeignText.Open(file, null)).Read(Build.Halifax)];
        }
        catch (RuleException refused)
        {
            return [$"refused: {refused.Refusals[0].Saying}"];
        }
        return entries.Count == 0 ? ["nothing"] : entries.SelectMany(Lines);
    }

    private static IEnumerable<string> Lines(ForeignEntry entry)
    {
        if (entry.Series is null)
        {
            yield return $"refused {entry.Uid} in line {entry.Line}: {string.Join("; ", entry.Refusals.Select(one => one.Saying))}";
            yield break;
        }
        var found = ForeignContent.Event(entry, Guid.Empty, Core.Disclosure.Disclosure.Open, new ForeignSetting(
            [], "Untitled", (text, html) => new RichText(html, text), _ => null, _ => false));
        var (content, series) = (found.Content, entry.Series);
        yield return $"{entry.Uid} in line {entry.Line}: {content.Title}";
        yield return $"  {(content.IsDeadline ? "due " : "")}{Said(series.Timing.Start, series.Timing.End, series.Timing.AllDay)}"
            + (series.Timing.AllDay ? "" : $" {series.Timing.Zone.Id}");
        if (series.Rule is { } rule)
            yield return $"  {RuleText.Format(rule)}";
        if (series.Extra.Count > 0)
            yield return $"  also {string.Join(", ", series.Extra.Select(Local.Format))}";
        if (series.Removed.Count > 0)
            yield return $"  not {string.Join(", ", series.Removed.Select(Local.Format))}";
        foreach (var date in found.Exceptions)
        {
            yield return $"  on {Local.Format(date.RecurrenceId)}:{(date.IsCancelled ? " cancelled" : "")}"
                + (date.Start is { } start ? $" {Said(start, date.End!.Value, series.Timing.AllDay)}" : "")
                + string.Concat(date.Own.Values.Select(own => $" {own.Key.Name} {Value(own.Value)}"));
        }
        foreach (var field in EventField.All.Where(field => field.Name is not ("title" or "kind" or "when") && !field.IsUnsaid(content)))
            yield return $"  {field.Name}: {Value(field.Of(content)!)}";
        if (found.State == EventState.Cancelled)
            yield return "  cancelled";
        foreach (var remark in entry.Remarks)
            yield return $"  ~ {remark}";
    }

    private static string Said(LocalDateTime start, LocalDateTime end, bool allDay) => allDay
        ? $"{start:uuuu-MM-dd} to {end.PlusDays(-1):uuuu-MM-dd}"
        : $"{Local.Format(start)} to {Local.Format(end)}";

    private static string Value(object value) => value switch
    {
        RichText { Html: "" } text => text.Text.Replace('\n', '|'),
        RichText text => $"{text.Text.Replace('\n', '|')} / {text.Html}",
        ValueList<string> words => string.Join(", ", words),
        ValueList<EventLink> links => string.Join(", ", links.Select(link => $"{link.Kind} {link.Label} {link.Url}")),
        Place place => place.Name,
        Reminder reminder => $"{reminder.Amount} {reminder.Unit}",
        Cap cap => $"{cap.Members}, {cap.Link}, {cap.Everyone}",
        _ => Convert.ToString(value, CultureInfo.InvariantCulture)!,
    };
}
