using System.Text;
using Valtro.Core.Push;

namespace Valtro.Core.Tests.Push;

/// <summary>Whether an event that a server keeps still says what was written, however it writes it.</summary>
public sealed class ObjectTextTests
{
    private static byte[] Object(params string[] lines) => Encoding.UTF8.GetBytes(string.Join("\r\n",
        ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Valtro//Valtro//EN", "BEGIN:VEVENT", "UID:1@valtro.example", .. lines, "END:VEVENT",
            "END:VCALENDAR", ""]));

    private static readonly byte[] Ours = Object(
        "DTSTAMP:20261101T120000Z", "SEQUENCE:2", "SUMMARY:Regatta, with flags", "DTSTART;TZID=America/Halifax:20261205T100000",
        "DTEND;TZID=America/Halifax:20261205T120000", @"DESCRIPTION:Bring boots\nand a hat");

    [Fact]
    public void Other_order_folding_line_ends_stamps_and_what_programs_add_say_the_same()
    {
        Assert.True(ObjectText.SaysTheSame(Ours, Ours));
        Assert.True(ObjectText.SaysTheSame(Ours, Encoding.UTF8.GetBytes("""
            BEGIN:VCALENDAR
            PRODID:-//Club//Server//EN
            VERSION:2.0
            BEGIN:VTIMEZONE
            TZID:America/Halifax
            END:VTIMEZONE
            BEGIN:VEVENT
            CREATED:20261102T080000Z
            DTSTAMP:20261102T080000Z
            DESCRIPTION:Bring boots\n
             and a hat
            DTEND;TZID="America/Halifax":20261205T120000
            DTSTART;VALUE=DATE-TIME;TZID=America/Halifax:20261205T100000
            UID:1@valtro.example
            STATUS:CONFIRMED
            TRANSP:OPAQUE
            X-CLUB-BOAT:Heron
            SUMMARY:Regatta, with flags
            BEGIN:VALARM
            ACTION:DISPLAY
            TRIGGER:-PT15M
            END:VALARM
            END:VEVENT
            END:VCALENDAR
            """)));
    }

    [Theory]
    [InlineData("SUMMARY:Regatta, with flags", "SUMMARY:Regatta")]
    [InlineData("20261205T100000", "20261205T103000")]
    [InlineData("DTSTART;TZID=America/Halifax", "DTSTART;TZID=Europe/Berlin")]
    [InlineData("DESCRIPTION:Bring boots", "DESCRIPTION:Bring shoes")]
    [InlineData("END:VEVENT", "STATUS:CANCELLED\r\nEND:VEVENT")]
    [InlineData("END:VEVENT", "LOCATION:Pier\r\nEND:VEVENT")]
    [InlineData("END:VEVENT", "EXDATE;TZID=America/Halifax:20261212T100000\r\nEND:VEVENT")]
    [InlineData("END:VEVENT", "END:VEVENT\r\nBEGIN:VEVENT\r\nUID:1@valtro.example\r\nRECURRENCE-ID:20261212T140000Z\r\nEND:VEVENT")]
    public void Whatever_readers_would_see_is_another(string was, string becomes)
    {
        var other = Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(Ours).Replace(was, becomes, StringComparison.Ordinal));
        Assert.False(ObjectText.SaysTheSame(Ours, other));
        Assert.False(ObjectText.SaysTheSame(other, Ours));
    }

    [Fact]
    public void Rubbish_says_something_else_and_ends() =>
        Assert.False(ObjectText.SaysTheSame(Ours, Encoding.UTF8.GetBytes("<!doctype html><p>42")));
}
