using System.Text;
using BenchmarkDotNet.Attributes;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Intake;
using Foreign = Ical.Net;

namespace Valtro.Bench;

/// <summary>Reading somebody's file of 20,000 events, one in ten of them weekly: until each is one of ours, against no more than
/// parsing.</summary>
[Suite("file of 20,000 events, read", 2, 20_000)]
public class FileOfTwentyThousand
{
    private const int Events = 20_000;

    private byte[] _file = [];

    [GlobalSetup]
    public void Write()
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Somebody//EN\r\n");
        for (var number = 0; number < Events; number++)
        {
            var day = new LocalDate(2026, 9, 1).PlusDays(number % 300);
            text.Append($"BEGIN:VEVENT\r\nUID:{number}@somebody.example\r\nDTSTAMP:20260901T000000Z\r\nSUMMARY:Fixture {number}\\, home\r\n")
                .Append($"DTSTART;TZID=America/Halifax:{day:uuuuMMdd}T090000\r\nDTEND;TZID=America/Halifax:{day:uuuuMMdd}T103000\r\n")
                .Append("LOCATION:Far field\r\nCATEGORIES:Match\r\nDESCRIPTION:Bring boots and a drink\\, please\\nand be there early\r\n")
                .Append(number % 10 == 0 ? "RRULE:FREQ=WEEKLY;COUNT=6\r\n" : "").Append("END:VEVENT\r\n");
        }
        _file = Encoding.UTF8.GetBytes(text.Append("END:VCALENDAR\r\n").ToString());
    }

    [Benchmark]
    public int Valtro()
    {
        var setting = new ForeignSetting([], "Untitled", (said, html) => new RichText(html, said), _ => null, _ => false);
        return new ForeignFile(ForeignText.Open(_file, null)).Read(DateTimeZoneProviders.Tzdb["America/Halifax"])
            .Count(entry => ForeignContent.Event(entry, Guid.Empty, Disclosure.Open, setting).Content.Title.Length > 0);
    }

    [Benchmark]
    public int IcalNet() => Foreign.Calendar.Load(new StreamReader(new MemoryStream(_file)).ReadToEnd())!.Events.Count;
}
