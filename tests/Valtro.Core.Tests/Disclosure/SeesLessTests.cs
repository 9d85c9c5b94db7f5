using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Core.Tests;

/// <summary>Which changes take something from somebody who saw it.</summary>
public class SeesLessTests
{
    private static readonly Guid Other = Guid.CreateVersion7();

    private static readonly CalendarEvent Before = Build.Event(
        Build.Series("2026-11-24 14:00", "FREQ=WEEKLY"), description: new RichText("<p>Bring oilskins</p>", "Bring oilskins")) is var made
        ? made with
        {
            Placements = [Other],
            Content = made.Content with
            {
                Links = [new EventLink("Rota", "https://pinewick.example/rota")],
                Contact = "Harbour office",
                Notes = "Ask Bo",
                Tags = ["practical"]
            },
        }
        : made;

    private static CalendarEvent With(Func<EventContent, EventContent> change) => Before with { Content = change(Before.Content) };

    private static readonly Dictionary<string, CalendarEvent> TakesAway = new()
    {
        { "it becomes a draft", Before with { State = EventState.Draft } },
        { "it leaves a calendar", Before with { Placements = [] } },
        { "it moves to another home", Before with { HomeCalendarId = Guid.CreateVersion7() } },
        { "its cap is lower", With(content => content with { Cap = new Cap(null, null, Detail.Times) }) },
        { "it appears later", With(content => content with { Showing = new ShowingSpan(Build.Day("2026-11-30"), null) }) },
        { "it disappears", With(content => content with { Showing = new ShowingSpan(null, Build.Day("2026-11-30")) }) },
        { "its title is another", With(content => content with { Title = "Lab" }) },
        { "its place is gone", With(content => content with { Place = Place.Nowhere }) },
        { "a name is taken out of its text", With(content => content with { Description = new RichText("<p>Bring</p>", "Bring") }) },
        { "a link is gone", With(content => content with { Links = [] }) },
        { "its contact is another", With(content => content with { Contact = "The office" }) },
        { "a tag is gone", With(content => content with { Tags = [] }) },
        { "a date falls away", With(content => content with { Series = content.Series with { Removed = [content.Series.Timing.Start] } }) },
    };

    private static readonly Dictionary<string, CalendarEvent> TakesNothing = new()
    {
        { "nothing changed", Before },
        { "it is cancelled", Before with { State = EventState.Cancelled } },
        { "it is on one more calendar", Before with { Placements = [Other, Guid.CreateVersion7()] } },
        { "it is at another time", With(content => content with { Series = Build.Series("2026-11-25 09:00", "FREQ=WEEKLY") }) },
        { "text is added",
            With(content =>
                content with { Description = new RichText("<p>Bring oilskins</p><p>And boots</p>", "Bring oilskins\nAnd boots") }) },
        { "a link is added",
            With(content => content with { Links = [.. content.Links, new EventLink("Tickets", "https://pinewick.example/tickets")] }) },
        { "its notes are others, which nobody outside sees", With(content => content with { Notes = "" }) },
        { "one date is cancelled",
            Before with { Exceptions = [new EventException(Build.Local("2026-12-01 14:00")) { IsCancelled = true }] } },
    };

    public static TheoryData<string> WhatTakesAway => [.. TakesAway.Keys];

    public static TheoryData<string> WhatTakesNothing => [.. TakesNothing.Keys];

    [Theory]
    [MemberData(nameof(WhatTakesAway))]
    public void Something_is_taken_away_when(string what) => Assert.True(SeesLess.Between(Before, TakesAway[what]));

    [Theory]
    [MemberData(nameof(WhatTakesNothing))]
    public void Nothing_is_taken_away_when(string what) => Assert.False(SeesLess.Between(Before, TakesNothing[what]));

    [Fact]
    public void A_text_of_one_date_counts_as_well()
    {
        var own = Before with
        {
            Exceptions = [
            new EventException(Build.Local("2026-12-01 14:00")) { Start = Build.Local("2026-12-01 15:00"),
                End = Build.Local("2026-12-01 16:00"), Own = OwnFields.None.With("title", "With Cy") }]
        };
        Assert.True(SeesLess.Between(own, Before));
        Assert.False(
            SeesLess.Between(own,
                own with
                {
                    Exceptions =
                    [own.Exceptions[0] with { Start = Build.Local("2026-12-01 16:00"), End = Build.Local("2026-12-01 17:00") }]
                }));
    }
}
