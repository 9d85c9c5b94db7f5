using System.Reflection;
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
            "mark-Headline-title", Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;COUNT=3"), "mark-Headline-place",
                new RichText("<p>mark-Complete-html</p>", "mark-Complete-text"))
        {
            Subtitle = "mark-Headline-subtitle",
            Category = new Category(Guid.NewGuid(), "mark-Headline-category", Hue.Named("kelp")),
            Tags = ["mark-Complete-tag"],
            Links = [new EventLink("mark-Complete-label", "https://pinewick.example/mark-Complete-url")],
            Files = [new EventFile(Guid.NewGuid(), "mark-Complete-file.pdf", "application/pdf", 7)],
            Picture = new PictureNote("mark-Complete-picture"),
            Contact = "mark-Complete-contact",
            Notes = "mark-Notes-notes",
            Cap = new Cap(Detail.Complete, null, null),
            Certainty = Certainty.Tentative,
            Transparency = Transparency.Busy,
            People = [new Involved(Guid.NewGuid(), "mark-Names-person", Part.Helps)],
            StaffSpan = new StaffSpan(30, 15),
            Reminder = new Reminder(1, ReminderUnit.Days),
        };
        return Build.Event(content.Series) with
        {
            Content = content,
            Exceptions = [
                new EventException(Build.Local("2026-12-01 14:00")) { Own = OwnFields.None.With("title", "mark-Headline-own-title")
                    .With("place", Place.Called("mark-Headline-own-place"))
                    .With("description", new RichText("mark-Complete-own-html", "mark-Complete-own-text")) }],
        };
    }

    [Fact]
    public void Somebody_has_decided_about_every_field() =>
        Assert.Empty(Types.SelectMany(Properties).Where(property => property.GetCustomAttribute<SeenFromAttribute>() is null)
            .Select(property => $"{property.DeclaringType!.Name}.{property.Name} has no level"));

    /// <summary>What a field is marked with: the level from which it is told, or what it needs besides.</summary>
    private static string MarkOf(EventField field) =>
        $"mark-{(field.Needs == Grants.None ? field.SeenFrom.ToString() : field.Needs.ToString())}-";

    [Fact]
    public void Every_text_of_an_event_is_marked_in_these_tests()
    {
        var marked = Marked().Content;
        var unmarked = EventField.All.Where(field => field.TextsOf(marked).Any() || field.IsUnsaid(marked))
            .Where(field => field.Type != typeof(Cap) && field.Type != typeof(ShowingSpan)
                && field.Type != typeof(Reminder) && field.Type != typeof(StaffSpan) && !field.Type.IsEnum)
            .Where(field => !field.TextsOf(marked).Any(text => text.Contains(MarkOf(field), StringComparison.Ordinal)));
        Assert.Empty(unmarked.Select(field => field.Name));
    }

    [Theory]
    [InlineData(Detail.Times, Grants.None, "")]
    [InlineData(Detail.Times, Grants.Notes | Grants.Settings, "")]
    [InlineData(Detail.Headline, Grants.None, "Headline")]
    [InlineData(Detail.Headline, Grants.Notes, "Headline")]
    [InlineData(Detail.Complete, Grants.None, "Headline Complete")]
    [InlineData(Detail.Complete, Grants.Settings, "Headline Complete")]
    [InlineData(Detail.Complete, Grants.Notes, "Headline Complete Notes")]
    [InlineData(Detail.Complete, Grants.Names, "Headline Complete Names")]
    [InlineData(Detail.Headline, Grants.Names, "Headline")]
    public void A_level_tells_what_is_its_own_and_nothing_above(Detail detail, Grants grants, string told)
    {
        var calendarEvent = Marked();
        var date = EventDates.Find(calendarEvent, Build.Local("2026-12-01 14:00"), YearPlans.SchoolCalendar.Empty)!.Value;
        Disclosed[] all = [Disclosed.Of(calendarEvent, detail, grants)!, Disclosed.Of(date, detail, grants)!];
        var seen = string.Join('\n',
            all.SelectMany(one =>
                EventField.All.SelectMany(field => field.TextsOf(one.Content)).Append($"{one.Title} {one.Identity} {one.Picture}")));
        foreach (var level in new[] { "Headline", "Complete", "Notes", "Names" })
            Assert.True(
                told.Split(' ').Contains(level) == seen.Contains($"mark-{level}", StringComparison.Ordinal), $"{level} at {detail}");
        Assert.Equal(grants.HasFlag(Grants.Settings) && detail == Detail.Complete, all[0].Content.Cap != Cap.None);
        Assert.NotEqual(calendarEvent.Series, all[0].Content.Series);
        Assert.Equal(detail > Detail.Times, seen.Contains(calendarEvent.Uid.ToString(), StringComparison.Ordinal));
        Assert.DoesNotContain(calendarEvent.Id.ToString(), seen, StringComparison.Ordinal);
        Assert.DoesNotContain(calendarEvent.HomeCalendarId.ToString(), seen, StringComparison.Ordinal);
    }

    /// <summary>Words of a list cannot be marked: each is told from its level on, and is at its default below.</summary>
    [Theory]
    [InlineData(Detail.Times)]
    [InlineData(Detail.Headline)]
    [InlineData(Detail.Complete)]
    public void Words_of_a_list_are_told_from_their_level_on(Detail detail)
    {
        var marked = Marked().Content;
        var seen = marked.SeenBy(detail);
        Assert.All(
            EventField.All.Where(field => (field.Type.IsEnum || field.Type == typeof(Reminder)) && !field.IsUnsaid(marked)),
            field => Assert.Equal((int)detail >= (int)field.SeenFrom + 1, field.IsSame(marked, seen)));
    }

    [Theory]
    [InlineData(EventKind.Deadline, Transparency.Usual)]
    [InlineData(EventKind.Event, Transparency.Free)]
    public void Who_is_told_times_only_hears_nothing_of_what_takes_no_time(EventKind kind, Transparency transparency)
    {
        var marked = Marked();
        var takesNone = marked with { Content = marked.Content with { Kind = kind, Transparency = transparency } };
        Assert.Null(Disclosed.Of(takesNone, Detail.Times));
        Assert.NotNull(Disclosed.Of(takesNone, Detail.Headline));
    }
}
