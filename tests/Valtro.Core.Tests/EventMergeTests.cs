using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;

namespace Valtro.Core.Tests;

/// <summary>Two people changed the same event: every field that they say differently is named, with who changed it.</summary>
public class EventMergeTests
{
    private static readonly EventContent Lab = new("Boat lab", Build.Series("2026-11-24 14:00", "FREQ=WEEKLY;BYDAY=TU;COUNT=4"), "Slipway",
        RichText.Empty)
    { Contact = "office", Tags = ["practical"] };

    private static EventSeen Seen(EventContent content, string calendar = "Port Watch", string placements = "") =>
        new(content, content.Series.Timing, calendar, placements);

    private static string[] Merge(EventSeen before, EventSeen typed, EventSeen now) =>
        [.. EventMerge.Between(before, typed, now, RuleWords.For("en-GB"))
            .Select(one => $"{one.Field} by {one.By}: {one.Theirs} / {one.Yours}")];

    [Fact]
    public void What_only_one_changed_is_theirs_and_what_both_changed_is_to_be_chosen() =>
        Assert.Equal(
            ["title by Both: Boat laboratory / Sail lab", "place by They: Loft / Slipway", "contact by You: office / Bo"],
            Merge(Seen(Lab), Seen(Lab with { Title = "Sail lab", Contact = "Bo" }),
                Seen(Lab with { Title = "Boat laboratory", Place = Place.Called("Loft") })));

    [Fact]
    public void What_both_changed_alike_is_no_question() =>
        Assert.Empty(Merge(Seen(Lab), Seen(Lab with { Title = "Sail lab" }), Seen(Lab with { Title = "Sail lab" })));

    public static TheoryData<string, Func<EventContent, EventContent>> Changes => new()
    {
        { "title", content => content with { Title = "Other" } },
        { "subtitle", content => content with { Subtitle = "Other" } },
        { "kind", content => content with { Kind = EventKind.Deadline } },
        { "certainty", content => content with { Certainty = Certainty.Tentative } },
        { "transparency", content => content with { Transparency = Transparency.Free } },
        { "place", content => content with { Place = Place.Called("Other") } },
        { "description", content => content with { Description = new RichText("<p>Other</p>", "Other") } },
        { "category", content => content with { Category = new Category(Guid.NewGuid(), "Other", Build.Harbour) } },
        { "tags", content => content with { Tags = ["other"] } },
        { "links", content => content with { Links = [new EventLink("Other", "https://pinewick.example/")] } },
        { "files", content => content with { Files = [new EventFile(Guid.NewGuid(), "other.pdf", "application/pdf", 1)] } },
        { "picture", content => content with { Picture = new PictureNote("Other", Focus.Top) } },
        { "contact", content => content with { Contact = "Other" } },
        { "people", content => content with { People = [new Involved(null, "Other")] } },
        { "staffSpan", content => content with { StaffSpan = new StaffSpan(30, 15) } },
        { "reminder", content => content with { Reminder = new Reminder(1, ReminderUnit.Days) } },
        { "notes", content => content with { Notes = "Other" } },
        { "cap", content => content with { Cap = new Cap(Detail.Times, null, null) } },
        { "showing", content => content with { Showing = new ShowingSpan(Build.Day("2026-11-01"), null) } },
        { "when",
            content => content with { Series =
                content.Series with { Timing = content.Series.Timing.StartingAt(Build.Local("2026-11-25 14:00")) } } },
        { "repeat", content => content with { Series = content.Series with { Extra = [Build.Local("2026-12-24 14:00")] } } },
    };

    [Theory]
    [MemberData(nameof(Changes))]
    public void No_field_is_left_out(string field, Func<EventContent, EventContent> change)
    {
        var merged = Assert.Single(EventMerge.Between(Seen(Lab), Seen(Lab), Seen(change(Lab)), RuleWords.For("en-GB")));
        Assert.Equal((field, ChangedBy.They), (merged.Field, merged.By));
        Assert.NotEmpty(merged.Form);
    }

    [Fact]
    public void Every_declared_field_is_among_these_tests_and_the_form_has_what_says_it()
    {
        var form =
            typeof(EventForm).GetProperties().Select(property => char.ToLowerInvariant(property.Name[0]) + property.Name[1..]).ToHashSet();
        var tested = Changes.Select(row => (string)row[0]).ToHashSet();
        Assert.All(EventField.All, field => Assert.Contains(field.Name, tested));
        Assert.All(
            EventField.All.Where(field => field.Name != "when").SelectMany(field => field.Form), name => Assert.Contains(name, form));
    }

    [Fact]
    public void Every_declared_field_has_a_name_on_the_desk()
    {
        var names = File.ReadAllText(Path.Combine(ArchitectureTests.Root(), "src", "web", "desk", "event", "fields.ts"));
        Assert.All(EventField.All, field => Assert.Contains($"\n  {field.Name}: t('", names, StringComparison.Ordinal));
    }

    [Fact]
    public void Another_calendar_and_other_placements_are_named() =>
        Assert.Equal(
            ["calendarId by They: Starboard Watch / Port Watch", "placements by You:  / Crew"],
            Merge(Seen(Lab), Seen(Lab, placements: "Crew"), Seen(Lab, calendar: "Starboard Watch")));
}
