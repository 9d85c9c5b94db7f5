using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Foreign = Ical.Net;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Feeds of several levels: what they hold, and when they say that something changed.</summary>
public class FeedOfLevelsTests
{
    private static readonly CalendarEvent Evening = Build.Event(Build.Series("2026-11-25 18:30", "FREQ=WEEKLY;COUNT=4"), "Open harbour",
        description: new RichText("<p>Chowder</p>", "Chowder")) is var made
        ? made with
        {
            Content = made.Content with
            {
                Links = [new EventLink("Sign up; \"now\"", "https://pinewick.example/open-harbour?a=1,2"),
                    new EventLink("Map", "https://pinewick.example/map")],
                Files = [new EventFile(Guid.Parse("01a20fb7-6da7-7895-84bf-7f1daad763c4"), "Poster & plan.pdf", "application/pdf", 900)],
                Contact = "Harbour office, 2nd floor",
                Notes = "Nobody reads this",
            },
        }
        : throw new InvalidOperationException();

    private static string Feed(CalendarEvent calendarEvent, Detail detail) =>
        TestFeed.Write(TestFeed.Of(calendarEvent, detail: detail)).Replace("\r\n ", "", StringComparison.Ordinal);

    [Fact]
    public void All_of_it_has_links_files_and_contact_and_another_library_reads_them()
    {
        var feed = Feed(Evening, Detail.Complete);
        Assert.Contains("LINK;VALUE=URI;LINKREL=related;LABEL=\"Sign up; ^'now^'\":https://pinewick.example/open-harbour?a=1,2\r\n", feed,
            StringComparison.Ordinal);
        var read = Assert.Single(Foreign.Calendar.Load(feed)!.Events);
        Assert.Equal("https://pinewick.example/open-harbour?a=1,2", read.Url!.OriginalString);
        Assert.Equal(
            "https://dates.pinewick.example/c/pinewick/port-watch/files/01a20fb7-6da7-7895-84bf-7f1daad763c4/Poster%20%26%20plan.pdf",
                Assert.Single(read.Attachments).Uri!.AbsoluteUri);
        Assert.Equal("Harbour office, 2nd floor", Assert.Single(read.Contacts));
        Assert.DoesNotContain("Nobody reads this", feed, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("https://schüle.example/größe?q=ä", "https://xn--schle-mva.example/gr%C3%B6%C3%9Fe?q=%C3%A4")]
    [InlineData("https://пристань.example:8080/a b", "https://xn--80apqffhh6f.example:8080/a%20b")]
    [InlineData("https://pinewick.example/a%20b", "https://pinewick.example/a%20b")]
    [InlineData("mailto:ada@pinewick.example", "mailto:ada@pinewick.example")]
    public void A_link_is_written_as_every_program_reads_it(string link, string address)
    {
        var feed = Feed(Evening with { Content = Evening.Content with { Links = [new EventLink("Site", link)] } }, Detail.Complete);
        Assert.Contains($"URL:{address}\r\n", feed, StringComparison.Ordinal);
        Assert.Contains($"LABEL=\"Site\":{address}\r\n", feed, StringComparison.Ordinal);
    }

    [Fact]
    public void Programs_of_before_RFC_9073_get_the_formatted_text_too()
    {
        var feed = Feed(
            Evening with { Content = Evening.Content with { Description = new RichText("<p>Bring <b>oil</b></p>", "Bring oil") } },
                Detail.Complete);
        Assert.Contains("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:<p>Bring <b>oil</b></p>\r\n", feed, StringComparison.Ordinal);
        Assert.Contains("X-ALT-DESC;FMTTYPE=text/html:<p>Bring <b>oil</b></p>\r\n", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("X-ALT-DESC", Feed(Evening, Detail.Headline), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(Detail.Headline)]
    [InlineData(Detail.Times)]
    public void Less_of_it_has_none_of_the_rest(Detail detail)
    {
        var feed = Feed(Evening, detail);
        foreach (var hidden in new[] { "CONTACT", "LINK", "ATTACH", "DESCRIPTION:Chowder", "STYLED", "20260902T120000Z\r\nDTSTART" })
            Assert.DoesNotContain(hidden, feed, StringComparison.Ordinal);
        Assert.Equal(detail == Detail.Headline, feed.Contains("Open harbour", StringComparison.Ordinal));
    }

    /// <summary>The least level whose readers get other bytes.</summary>
    private static Detail? SeenFrom(CalendarEvent after) =>
        new[] { Detail.Times, Detail.Headline, Detail.Complete }.Select(detail => (Detail?)detail)
            .FirstOrDefault(detail => Feed(Evening, detail!.Value) != Feed(after, detail.Value));

    /// <summary>A start that its rule does not give counts for most programs: where nothing is told of it, it is taken out.</summary>
    [Fact]
    public void A_first_date_that_is_cancelled_is_busy_for_nobody()
    {
        var walk = Build.Event(Build.Series("2026-12-04 16:00", "FREQ=MONTHLY;BYDAY=4TH"));
        walk = walk with { Exceptions = [new EventException(Build.Local("2026-12-04 16:00")) { IsCancelled = true }] };
        var feed = TestFeed.Write(TestFeed.Of(walk, detail: Detail.Times));
        Assert.Contains("EXDATE;TZID=America/Halifax:20261204T160000\r\n", feed, StringComparison.Ordinal);
        Assert.DoesNotContain("RDATE;", feed, StringComparison.Ordinal);
    }

    [Fact]
    public void A_change_shows_from_the_level_on_that_can_tell_it()
    {
        Detail? From(Func<EventContent, EventContent> change) => SeenFrom(Evening with { Content = change(Evening.Content) });
        Assert.Equal(Detail.Times, From(content => content with { Series = Build.Series("2026-11-25 19:00", "FREQ=WEEKLY;COUNT=4") }));
        Assert.Equal(Detail.Headline, From(content => content with { Title = "Harbour, open" }));
        Assert.Equal(Detail.Headline, From(content => content with { Place = Place.Called("Hall") }));
        Assert.Equal(Detail.Complete, From(content => content with { Contact = "Ada" }));
        Assert.Equal(Detail.Complete, From(content => content with { Files = [] }));
        Assert.Null(From(content => content with { Notes = "Changed in secret" }));
        Assert.Null(From(content => content with { Cap = new Cap(Detail.Nothing, null, null) }));
    }

    [Fact]
    public void A_date_with_its_own_text_is_told_only_where_texts_are()
    {
        var date = Build.Local("2026-12-02 18:30");
        var changed = Evening with
        {
            Exceptions =
            [new EventException(date) { Own = OwnFields.None.With("description", new RichText("<p>Bring lamps</p>", "Bring lamps")) }]
        };
        Assert.Equal(Detail.Complete, SeenFrom(changed));
        Assert.Equal(Feed(Evening, Detail.Headline), Feed(changed, Detail.Headline));
        Assert.Contains("RECURRENCE-ID", Feed(changed, Detail.Complete), StringComparison.Ordinal);
    }
}
