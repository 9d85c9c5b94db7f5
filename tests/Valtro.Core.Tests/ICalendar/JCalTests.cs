using System.Text;
using System.Text.Json.Nodes;
using Valtro.Core.ICalendar;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>The same stream as JSON (RFC 7265).</summary>
public sealed class JCalTests
{
    private static string Property(string line) => JsonNode.Parse(JCalWriter.Of(Encoding.UTF8.GetBytes(
        $"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\n{line}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")))![2]![0]![1]![0]!.ToJsonString(
        new() { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping });

    [Theory]
    [InlineData(@"SUMMARY:Knots\, bends\; and \\ lines\nfor all", @"[""summary"",{},""text"",""Knots, bends; and \\ lines\nfor all""]")]
    [InlineData("DTSTART;TZID=America/Halifax:20261124T090000",
        @"[""dtstart"",{""tzid"":""America/Halifax""},""date-time"",""2026-11-24T09:00:00""]")]
    [InlineData("DTSTART;VALUE=DATE:20261124", @"[""dtstart"",{},""date"",""2026-11-24""]")]
    [InlineData("DTSTAMP:20261124T120000Z", @"[""dtstamp"",{},""date-time"",""2026-11-24T12:00:00Z""]")]
    [InlineData("RRULE:FREQ=MONTHLY;BYDAY=MO,-1FR;COUNT=9", @"[""rrule"",{},""recur"",{""freq"":""MONTHLY"",""byday"":[""MO"",""-1FR""],""count"":9}]")]
    [InlineData("RRULE:FREQ=YEARLY;BYMONTH=3;UNTIL=20270101T000000Z",
        @"[""rrule"",{},""recur"",{""freq"":""YEARLY"",""bymonth"":3,""until"":""2027-01-01T00:00:00Z""}]")]
    [InlineData("EXDATE;VALUE=DATE:20261124,20261201", @"[""exdate"",{},""date"",""2026-11-24"",""2026-12-01""]")]
    [InlineData("GEO:44.5;-63.25", @"[""geo"",{},""float"",[44.5,-63.25]]")]
    [InlineData("SEQUENCE:12", @"[""sequence"",{},""integer"",12]")]
    [InlineData(@"CATEGORIES:Occasion\, big,Regatta", @"[""categories"",{},""text"",""Occasion, big"",""Regatta""]")]
    [InlineData("TRIGGER:-PT15M", @"[""trigger"",{},""duration"",""-PT15M""]")]
    [InlineData("FREEBUSY:20261124T120000Z/20261124T130000Z,20261125T120000Z/PT1H",
        @"[""freebusy"",{},""period"",[""2026-11-24T12:00:00Z"",""2026-11-24T13:00:00Z""],[""2026-11-25T12:00:00Z"",""PT1H""]]")]
    [InlineData("TZOFFSETTO:-033045", @"[""tzoffsetto"",{},""utc-offset"",""-03:30:45""]")]
    [InlineData("ATTACH;FMTTYPE=application/pdf;FILENAME=\"^'Rota^' ^^n\":https://pinewick.example/rota",
        @"[""attach"",{""fmttype"":""application/pdf"",""filename"":""\""Rota\"" ^n""},""uri"",""https://pinewick.example/rota""]")]
    [InlineData(@"X-WR-CALNAME:Knots\, bends", @"[""x-wr-calname"",{},""unknown"",""Knots\\, bends""]")]
    [InlineData("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:<p>Oilskins</p>",
        @"[""styled-description"",{""fmttype"":""text/html""},""text"",""<p>Oilskins</p>""]")]
    public void A_value_has_the_form_of_its_type(string line, string expected) => Assert.Equal(expected, Property(line));

    [Fact]
    public void Components_stand_within_components_and_folded_lines_are_whole()
    {
        var long_ = new string('ä', 90);
        var written = JCalWriter.Of(Encoding.UTF8.GetBytes(
            $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nSUMMARY:{long_[..30]}\r\n {long_[30..]}\r\nBEGIN:VALARM\r\nACTION:DISPLAY\r\nEND:VALARM\r\n"
            + "END:VEVENT\r\nEND:VCALENDAR\r\n"));
        Assert.Equal(
            $@"[""vcalendar"",[[""version"",{{}},""text"",""2.0""]],[[""vevent"",[[""summary"",{{}},""text"",""{long_}""]],"
                + @"[[""valarm"",[[""action"",{},""text"",""DISPLAY""]],[]]]]]]",
            Encoding.UTF8.GetString(written));
    }
}
