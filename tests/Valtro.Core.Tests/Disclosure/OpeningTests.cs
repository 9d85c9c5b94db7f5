using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.Recurrence;
using Table = Valtro.Core.Disclosure.Disclosure;

namespace Valtro.Core.Tests.Disclosure;

public class OpeningTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 12, 0);
    private static readonly RuleWords Words = RuleWords.For("en-GB");

    private static CalendarEvent Told(string text, string title = "Boat lab", EventState state = EventState.Live, Cap? cap = null)
    {
        var made = Build.Event(Build.Series("2026-11-24 14:00"), title, state, description: new RichText(text, text));
        return made with { Content = made.Content with { Cap = cap ?? Cap.None } };
    }

    [Theory]
    [InlineData("Write to cy@pinewick.example, please", true)]
    [InlineData("Ask Åsa.Öberg@båt.example.org", true)]
    [InlineData("Meet @ the pier at 9", false)]
    [InlineData("name@localhost is no address of the world", false)]
    public void An_e_mail_address_is_found(string text, bool isFound) =>
        Assert.Equal(isFound, PersonalData.In(Told(text), Detail.Complete).HasEmail);

    [Theory]
    [InlineData("call 902 555 0143", true)]
    [InlineData("call +1 (902) 555-0143.", true)]
    [InlineData("0047 22 12 34 56", true)]
    [InlineData("tel:+19025550143", true)]
    [InlineData("from 14:00 to 15:30 in room 204", false)]
    [InlineData("on 2026-11-24 and 2026-12-01", false)]
    [InlineData("24.11.2026 to 30.11.2026", false)]
    [InlineData("https://pinewick.example/2026112412345", false)]
    [InlineData("boat 17, 120 places", false)]
    public void A_telephone_number_is_found_and_dates_and_times_are_none(string text, bool isFound) =>
        Assert.Equal(isFound, PersonalData.In(Told(text), Detail.Complete).HasPhone);

    [Fact]
    public void Only_what_the_level_tells_counts()
    {
        var calendarEvent = Told("cy@pinewick.example", "Call 902 555 0143");
        Assert.Equal(new PersonalData(false, true, false), PersonalData.In(calendarEvent, Detail.Headline));
        Assert.Equal(new PersonalData(true, true, false), PersonalData.In(calendarEvent, Detail.Complete));
        Assert.Equal(default, PersonalData.In(calendarEvent, Detail.Times));
        var withContact = calendarEvent with
        {
            Content = calendarEvent.Content with
            {
                Contact = "bo@pinewick.example",
                Description = RichText.Empty,
                Files = [new EventFile(Guid.NewGuid(), "poster.pdf", "application/pdf", 1)]
            }
        };
        Assert.Equal(new PersonalData(true, true, true), PersonalData.In(withContact, Detail.Complete));
    }

    [Fact]
    public void Opening_lists_what_is_revealed_and_what_stays_inside()
    {
        CalendarEvent[] events =
        [
            Told("nothing special"),
            Told("cy@pinewick.example"),
            Told("902 555 0143", cap: new Cap(null, null, Detail.Headline)),
            Told("also cy@pinewick.example", state: EventState.Draft),
            Told("hidden", cap: new Cap(null, null, Detail.Nothing)),
        ];
        var opening = Assert.Single(Opening.Of(events, new Table(Detail.Complete, Detail.Complete, Detail.Nothing), Table.Open));
        Assert.Equal((Audience.Everyone, Detail.Nothing, Detail.Complete), (opening.Audience, opening.Was, opening.Becomes));
        Assert.Equal((3, 1, 0, 0, 1, 0),
            (opening.Revealed.Count, opening.WithEmail.Count, opening.WithPhone.Count, opening.WithFile.Count, opening.Drafts,
                opening.Hidden.Count));
    }

    [Fact]
    public void Closing_lists_what_goes_out_of_sight_for_each_audience_narrowest_first()
    {
        var openings = Opening.Of([Told("one"), Told("two", cap: new Cap(null, Detail.Nothing, null))], Table.Open, Table.Closed);
        Assert.Equal([Audience.Members, Audience.Link, Audience.Everyone], openings.Select(one => one.Audience));
        Assert.Equal([2, 1, 1], openings.Select(one => one.Hidden.Count));
        Assert.Empty(Opening.Of([Told("one")], Table.Open, Table.Open));
    }

    [Theory]
    [InlineData(Audience.Members, Audience.Everyone, "Link Everyone", 0)]
    [InlineData(Audience.Editors, Audience.Members, "Members", 0)]
    [InlineData(Audience.Everyone, Audience.Editors, "", 0)]
    public void Whom_names_are_told_newly_is_listed_though_no_level_changes(Audience before, Audience after, string newly, int revealed)
    {
        var led = Told("led");
        led = led with { Content = led.Content with { People = [new Involved(null, "Captain Marr")] } };
        var capped = led with { Content = led.Content with { Cap = new Cap(Detail.Headline, null, null) } };
        var openings = Opening.Of([led, capped, Told("by nobody")], Table.Open with { Names = before }, Table.Open with { Names = after });
        Assert.Equal(newly, string.Join(' ', openings.Where(one => one.WithNames.Count == 1).Select(one => one.Audience)));
        Assert.All(openings, one => Assert.Equal(revealed, one.Revealed.Count + one.Hidden.Count));
    }

    [Theory]
    [InlineData(Audience.Everyone, "all of it, text, links and files too, who leads and helps too")]
    [InlineData(Audience.Members, "all of it, text, links and files too, but not who leads and helps")]
    public void Who_will_see_it_says_whether_names_are_among_it(Audience names, string sentence)
    {
        var led = Told("led");
        led = led with { Content = led.Content with { People = [new Involved(null, "Captain Marr")] } };
        var sees = WhoSees.Of(led, null, On((led.HomeCalendarId, "Port Watch", Table.Open with { Names = names })), Words, Now);
        Assert.Equal(sentence, sees.Single(one => one.Audience == Audience.Everyone).Sentence);
        // Where there are none, there is nothing to say of them.
        var alone = Told("by nobody");
        Assert.Equal("all of it, text, links and files too",
            WhoSees.Of(alone, null, On((alone.HomeCalendarId, "Port Watch", Table.Open)), Words, Now)[0].Sentence);
    }

    private static Dictionary<Guid, (string Name, Table Disclosure)> On(params (Guid Id, string Name, Table Table)[] calendars) =>
        calendars.ToDictionary(one => one.Id, one => (one.Name, one.Table));

    [Fact]
    public void Who_will_see_it_is_said_level_by_level_widest_first()
    {
        var calendarEvent = Told("x", cap: new Cap(null, null, Detail.Times));
        var lines = WhoSees.Of(calendarEvent, null,
            On((calendarEvent.HomeCalendarId, "Port Watch", new Table(Detail.Complete, Detail.Headline, Detail.Headline))), Words, Now);
        Assert.Equal(
            ["only when it is busy: less than its calendar", "title, time and place", "all of it, text, links and files too",
                "all of it, and the notes"],
            lines.Select(line => line.Sentence));
        Assert.All(lines, line => Assert.Equal(Detail.Nothing, line.Was));
    }

    [Fact]
    public void Moving_home_and_placing_say_who_newly_sees_it_and_by_way_of_what()
    {
        var (closed, open) = (Guid.NewGuid(), Guid.NewGuid());
        var calendars = On((closed, "Staff room", Table.Closed), (open, "Whole school", Table.Open));
        var before = Told("x") with { HomeCalendarId = closed };
        var placed = WhoSees.Of(before with { Placements = [open] }, before, calendars, Words, Now)[0];
        Assert.Equal((Audience.Everyone, Detail.Complete, Detail.Nothing), (placed.Audience, placed.Detail, placed.Was));
        Assert.Equal("all of it, text, links and files too, by way of Whole school", placed.Sentence);
        var moved = WhoSees.Of(before with { HomeCalendarId = open }, before, calendars, Words, Now)[0];
        Assert.Equal((Detail.Complete, Detail.Nothing, "all of it, text, links and files too"), (moved.Detail, moved.Was, moved.Sentence));
    }

    [Fact]
    public void A_draft_and_a_showing_span_are_said_too()
    {
        var calendarEvent = Told("x");
        var calendars = On((calendarEvent.HomeCalendarId, "Port Watch", Table.Open));
        Assert.Equal(
            "nothing: it is a draft", WhoSees.Of(calendarEvent with { State = EventState.Draft }, null, calendars, Words, Now)[0].Sentence);
        Assert.Equal("nothing: it waits for sign-off",
            WhoSees.Of(calendarEvent with { State = EventState.Waiting }, null, calendars, Words, Now)[0].Sentence);
        var later = calendarEvent with
        {
            Content =
            calendarEvent.Content with { Showing = new ShowingSpan(Build.Day("2026-12-01"), Build.Day("2026-12-31")) }
        };
        Assert.EndsWith(", from 1 December 2026 on, until 31 December 2026", WhoSees.Of(later, null, calendars, Words, Now)[0].Sentence,
            StringComparison.Ordinal);
        Assert.EndsWith(", but not after 31 December 2026",
            WhoSees.Of(later, null, calendars, Words, Instant.FromUtc(2027, 2, 1, 0, 0))[0].Sentence, StringComparison.Ordinal);
    }
}
