using System.Reflection;
using System.Text.Json;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Core.Tests.Disclosure;

/// <summary>Every field of an event has a level, and below it nobody gets what stands in it.</summary>
public class FieldLevelTests
{
    private static readonly Type[] Types = [typeof(CalendarEvent), typeof(EventContent), typeof(EventException)];

    private static IEnumerable<PropertyInfo> Properties(Type type) =>
        type.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(property => property.Name != "EqualityContract");

    /// <summary>An event with a mark in each of its texts, that names the level from which it may be read.</summary>
    private static CalendarEvent Marked()
    {
        var content = new EventContent(
            "mark-Headline-title", Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=3"), "mark-Headline-place", new RichText("<p>mark-Complete-html</p>", "mark-Complete-text"),
            new Category(Guid.NewGuid(), "mark-Headline-category", Hue.Named("kelp")), ["mark-Complete-tag"])
        {
            Links = [new EventLink("mark-Complete-label", "https://pinewick.example/mark-Complete-url")],
            Files = [new EventFile(Guid.NewGuid(), "mark-Complete-file.pdf", "application/pdf", 7)],
            Contact = "mark-Complete-contact",
            Notes = "mark-Notes-notes",
        };
        return Build.Event(content.Series) with
        {
            Content = content,
            Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { Title = "mark-Headline-own-title", Place = "mark-Headline-own-place", Description = new RichText("mark-Complete-own-html", "mark-Complete-own-text") }],
        };
    }

    [Fact]
    public void Somebody_has_decided_about_every_field() =>
        Assert.Empty(Types.SelectMany(Properties).Where(property => property.GetCustomAttribute<SeenFromAttribute>() is null).Select(property => $"{property.DeclaringType!.Name}.{property.Name} has no level"));

    [Fact]
    public void Every_text_of_an_event_is_marked_in_these_tests()
    {
        var marked = Marked();
        var unmarked = Properties(typeof(EventContent))
            .Where(property => property.GetCustomAttribute<SeenFromAttribute>()!.Level is not (FieldLevel.Inside or FieldLevel.Times))
            .Where(property => !JsonSerializer.Serialize(property.GetValue(marked.Content)).Contains($"mark-{property.GetCustomAttribute<SeenFromAttribute>()!.Level}", StringComparison.Ordinal))
            .Select(property => property.Name);
        Assert.Empty(unmarked);
    }

    [Theory]
    [InlineData(Detail.Times, false, "")]
    [InlineData(Detail.Headline, false, "Headline")]
    [InlineData(Detail.Complete, false, "Headline Complete")]
    [InlineData(Detail.Complete, true, "Headline Complete Notes")]
    public void A_level_tells_what_is_its_own_and_nothing_above(Detail detail, bool readsNotes, string told)
    {
        var happening = Marked();
        var date = EventDates.Find(happening, Build.Local("2026-12-01 14:00"), YearPlans.SchoolCalendar.Empty)!.Value;
        var seen = JsonSerializer.Serialize(new[] { Disclosed.Of(happening, detail, readsNotes), Disclosed.Of(date, detail, readsNotes) });
        foreach (var level in Enum.GetNames<FieldLevel>())
            Assert.True(told.Split(' ').Contains(level) == seen.Contains($"mark-{level}", StringComparison.Ordinal), $"{level} at {detail}");
        Assert.Equal(detail > Detail.Times, seen.Contains(happening.Uid.ToString(), StringComparison.Ordinal));
        Assert.DoesNotContain(happening.Id.ToString(), seen, StringComparison.Ordinal);
        Assert.DoesNotContain(happening.HomeCalendarId.ToString(), seen, StringComparison.Ordinal);
    }
}
