using CsCheck;
using Valtro.Core.Events;
using Valtro.Core.SignOff;

namespace Valtro.Core.Tests;

/// <summary>A change that waited, brought onto what others made of the event meanwhile.</summary>
public class RebaseTests
{
    private static EventForm Form(string title = "Boat lab", string place = "Slipway", string date = "2026-11-24", string from = "14:00") =>
        new(Build.Draft(date, from, title: title) with { Place = place, Tags = ["practical"], Repeat = Build.Weekly() });

    private static EventForm Onto(EventForm before, EventForm typed, EventForm now) => Rebase.Onto(before, typed, now).Form;

    [Fact]
    public void What_both_left_alone_and_what_only_others_changed_is_as_it_is_now()
    {
        var result = Onto(Form(), Form(place: "Loft"), Form(title: "Boat laboratory"));
        Assert.Equal(("Boat laboratory", "Loft", Build.Day("2026-11-24")), (result.Title, result.Place, result.Date!.Value));
    }

    [Fact]
    public void What_both_changed_is_as_it_was_typed_and_is_said()
    {
        var (form, both) = Rebase.Onto(Form(), Form(title: "Sail lab", place: "Loft"), Form(title: "Boat laboratory", date: "2026-11-25"));
        Assert.Equal(("Sail lab", "Loft"), (form.Title, form.Place));
        Assert.Equal(["Title"], both);
        Assert.Empty(Rebase.Onto(Form(), Form(title: "Sail lab"), Form(title: "Sail lab")).Both);
    }

    [Fact]
    public void Day_and_time_change_as_one()
    {
        var result = Onto(Form(), Form(from: "15:00"), Form(date: "2026-11-25"));
        Assert.Equal((Build.Day("2026-11-24"), Build.Time("15:00")), (result.Date!.Value, result.From!.Value));
    }

    [Fact]
    public void A_repetition_and_a_list_are_compared_by_what_they_say()
    {
        var typed = Form() with { Tags = ["practical", "outdoors"], Contact = "office" };
        var result = Onto(Form(), typed, Form() with { Repeat = Build.Weekly(weekdays: [2, 4]) });
        Assert.Equal(("office", 2), (result.Contact, result.Tags.Count));
        Assert.Equal([2, 4], result.Repeat!.Weekdays!);
    }

    [Fact]
    public void Where_it_stands_is_brought_along_too()
    {
        var (here, there) = (Guid.NewGuid(), Guid.NewGuid());
        var result = Onto(Form() with { CalendarId = here, Placements = [] }, Form() with { CalendarId = there, Placements = [] },
            Form(title: "Sail lab") with { CalendarId = here, Placements = [there] });
        Assert.Equal((there, "Sail lab"), (result.CalendarId, result.Title));
        Assert.Equal([there], result.Placements!);
    }

    [Fact]
    public void Nothing_typed_is_what_stands_there_and_nothing_changed_since_is_what_was_typed()
    {
        var texts = Gen.String[Gen.Char['a', 'd'], 0, 3];
        Gen.Select(texts, texts, texts, texts).Sample((one, two, three, four) =>
        {
            var (before, other) = (Form(one, two), Form(three, four));
            Assert.Equal((three, four), (Onto(before, before, other).Title, Onto(before, before, other).Place));
            Assert.Equal((three, four), (Onto(before, other, before).Title, Onto(before, other, before).Place));
        });
    }
}
