using System.Globalization;
using System.Text;
using NodaTime;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Checking;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;

namespace Valtro.Core.Tests.ICalendar;

/// <summary>Each small file of the folder Faulty has one fault, where expected.txt says; what is right is called right.</summary>
public class CalendarCheckTests
{
    private static string Folder => Path.Combine(ArchitectureTests.Root(), "tests", "Valtro.Core.Tests", "ICalendar", "Faulty");

    /// <summary>Code, line and column, and what else is found by the way.</summary>
    public static TheoryData<string, string, string> Faulty
    {
        get
        {
            var all = new TheoryData<string, string, string>();
            foreach (var line in File.ReadLines(Path.Combine(Folder, "expected.txt")))
            {
                var parts = line.Split(' ', 3);
                all.Add(parts[0], parts[1], parts.Length > 2 ? parts[2] : "");
            }
            return all;
        }
    }

    private static CheckResult Check(byte[] file) => CalendarCheck.Of(new MemoryStream(file));

    private static CheckResult Check(string file) => Check(Encoding.UTF8.GetBytes(file.ReplaceLineEndings("\r\n")));

    [Theory]
    [MemberData(nameof(Faulty))]
    public void Each_fault_is_found_where_it_is_and_nothing_else(string code, string at, string besides)
    {
        var found = Check(File.ReadAllBytes(Path.Combine(Folder, $"{code}.ics")));
        var fault = found.Faults.FirstOrDefault(one => one.Code == code);
        Assert.True(fault is not null, $"{code} was not found; but {string.Join(", ", found.Faults.Select(one => one.Code))}");
        Assert.Equal(at, $"{fault.Line}:{fault.Column}");
        Assert.StartsWith("RFC ", fault.Clause, StringComparison.Ordinal);
        var also = besides.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal([], found.Faults.Select(one => one.Code).Where(one => one != code && !also.Any(one.StartsWith)));
        foreach (var speech in new[] { Build.English, Speech.For("de") })
            Assert.DoesNotContain("check.", speech.Say(fault.Text), StringComparison.Ordinal);
    }

    [Fact]
    public void There_are_many_kinds_and_each_has_a_file()
    {
        var codes = Faulty.Select(one => one[0]).ToArray();
        Assert.True(codes.Length >= 80, $"{codes.Length} kinds");
        Assert.Equal(codes.Length, codes.Distinct().Count());
        var files = Directory.EnumerateFiles(Folder, "*.ics").Select(file => Path.GetFileNameWithoutExtension(file)!);
        Assert.Equal(codes.Cast<string>().Order(StringComparer.Ordinal), files.Order(StringComparer.Ordinal));
    }

    [Fact]
    public void What_is_right_is_called_right()
    {
        var found = Check("""
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Pinewick//Right//EN
            NAME:Port Watch
            REFRESH-INTERVAL;VALUE=DURATION:PT1H
            SOURCE;VALUE=URI:https://calendars.example/c/pinewick/port-watch.ics
            COLOR:darkslateblue
            BEGIN:VTIMEZONE
            TZID:America/Halifax
            BEGIN:STANDARD
            DTSTART:20251102T020000
            RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU
            TZOFFSETFROM:-0300
            TZOFFSETTO:-0400
            TZNAME:AST
            END:STANDARD
            BEGIN:DAYLIGHT
            DTSTART:20260308T020000
            RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU
            TZOFFSETFROM:-0400
            TZOFFSETTO:-0300
            END:DAYLIGHT
            END:VTIMEZONE
            BEGIN:VEVENT
            UID:lab@pinewick.example
            DTSTAMP:20261123T120000Z
            DTSTART;TZID=America/Halifax:20261204T090000
            DTEND;TZID=America/Halifax:20261204T103000
            RRULE:FREQ=WEEKLY;UNTIL=20261218T130000Z
            EXDATE;TZID=America/Halifax:20261211T090000
            SUMMARY:Boat lab\, with a line
             that goes on
            CATEGORIES:Boats,Science
            GEO:44.65;-63.57
            ATTACH:https://calendars.pinewick.example/kit.pdf
            STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:<p>Boots\; and a hat</p>
            X-OWN;X-MORE="a:b;c":whatever, it; is
            BEGIN:VALARM
            ACTION:DISPLAY
            DESCRIPTION:Boat lab
            TRIGGER:-PT15M
            END:VALARM
            END:VEVENT
            END:VCALENDAR

            """);
        Assert.Empty(found.Faults);
        Assert.Equal((44, 1), (found.Lines, found.Components));
    }

    [Theory]
    [InlineData("2026-11-24 09:00", null)]
    [InlineData("2026-09-08 14:00", "FREQ=WEEKLY;COUNT=20")]
    [InlineData("2026-09-08 23:30", "FREQ=WEEKLY;UNTIL=20261218T235959Z")]
    [InlineData("2026-09-30 09:00", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1")]
    [InlineData("2026-08-31 09:00", "RSCALE=GREGORIAN;FREQ=MONTHLY;COUNT=8;SKIP=BACKWARD")]
    [InlineData("2026-09-09 09:00", "FREQ=WEEKLY;COUNT=6;BYDAY=TU")]
    [InlineData("2026-03-07 01:30", "FREQ=DAILY;COUNT=300")]
    [InlineData("2027-03-14 02:20", "FREQ=WEEKLY;COUNT=5")]
    [InlineData("2027-03-14 02:20", null)]
    public void Our_own_feeds_have_neither_errors_nor_warnings(string start, string? rule)
    {
        foreach (var inBreaks in new[] { InBreaks.Ignore, InBreaks.Skip, InBreaks.Move })
        {
            foreach (var zone in new[] { "America/Halifax", "Australia/Lord_Howe", "Asia/Kolkata" })
            {
                var series = Build.Series(start, rule, Core.Time.Zones.Named(zone)) with { InBreaks = inBreaks };
                var lab = Build.Event(series, "Boat lab, with “marks”; and\\more", description: new RichText("<p>Boots, hat; \\n</p>", "Boots, hat; \\n"));
                lab = lab with
                {
                    Exceptions = rule is null
                        ? [] : [new EventException(series.All(Build.School()).Skip(1).First().RecurrenceId) { IsCancelled = true }],
                };
                var found = Check(Encoding.UTF8.GetBytes(TestFeed.Write(TestFeed.Of(lab, Build.School()))));
                Assert.DoesNotContain(found.Faults, fault => fault.Severity < FaultSeverity.Note);
            }
        }
    }

    [Fact]
    public void A_list_of_dates_that_begins_in_the_hour_left_out_goes_out_without_a_warning()
    {
        var series = Build.Series("2027-03-14 02:20") with { Extra = [new LocalDateTime(2027, 3, 21, 2, 20)] };
        var feed = TestFeed.Write(TestFeed.Of(Build.Event(series, "Boat lab"), Build.School()));
        Assert.Contains("RDATE;TZID=America/Halifax:20270321T022000", feed, StringComparison.Ordinal);
        Assert.Equal(FaultSeverity.Note, Assert.Single(Check(feed).Faults, fault => fault.Code == "misreadGap").Severity);
    }

    [Fact]
    public void Of_a_kind_only_so_many_are_listed_and_all_are_counted()
    {
        var found = Check("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:x\n" + string.Concat(Enumerable.Repeat("BOOTS\n", 1_000)) + "END:VCALENDAR\n");
        Assert.Equal(25, found.Faults.Count(one => one.Code == "noProperty"));
        Assert.Equal(1_001, found.Errors);
    }

    [Fact]
    public void A_start_that_cannot_be_read_is_not_called_missing_too()
    {
        string[] Of(string start) => [.. Check($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\n"
            + $"DTSTAMP:20261123T120000Z\r\n{start}RRULE:FREQ=DAILY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n").Faults.Select(fault => fault.Code)];
        Assert.DoesNotContain("ruleWithoutStart", Of("DTSTART:2026-11-24\r\n"));
        Assert.Contains("ruleWithoutStart", Of(""));
    }

    /// <summary>Whatever bytes come, a check ends and says something of them. <c>./valtro check --hours N</c> goes on for so
    /// long.</summary>
    [Fact]
    public void Mutated_feeds_are_checked_to_their_end()
    {
        var files = Directory.EnumerateFiles(Folder, "*.ics").Select(File.ReadAllBytes).Where(file => file.Length > 0).ToArray();
        var hours = double.TryParse(Environment.GetEnvironmentVariable("VALTRO_CHECK_HOURS"), CultureInfo.InvariantCulture, out var said)
            ? said
            : 0;
        var began = TimeProvider.System.GetTimestamp();
        // A long run goes where no other went.
        var random = new Random(hours > 0 ? Environment.TickCount : 20261123);
        for (var round = 0; round < 4_000 || TimeProvider.System.GetElapsedTime(began) < TimeSpan.FromHours(hours); round++)
        {
            var bytes = files[random.Next(files.Length)].ToArray().ToList();
            for (var changes = random.Next(1, 6); changes > 0; changes--)
            {
                var at = random.Next(bytes.Count);
                switch (random.Next(4))
                {
                    case 0:
                        bytes[at] = (byte)random.Next(256);
                        break;
                    case 1 when bytes.Count > 1:
                        bytes.RemoveRange(at, Math.Min(random.Next(1, 30), bytes.Count - at));
                        if (bytes.Count == 0)
                            bytes.Add(0);
                        break;
                    case 2:
                        bytes.InsertRange(at, bytes.GetRange(random.Next(bytes.Count), 0).Concat(Encoding.ASCII.GetBytes(
                            new[] { "\r\n", ":", ";", "\"", "BEGIN:VEVENT\r\n", "END:VCALENDAR\r\n", "=", "\\", "\t", "99999999999" }[random.Next(10)])));
                        break;
                    default:
                        var other = files[random.Next(files.Length)];
                        bytes.InsertRange(at, other[..random.Next(other.Length)]);
                        break;
                }
            }
            try
            {
                var found = Check([.. bytes]);
                Assert.All(found.Faults, fault => Assert.True(fault.Line >= 1 && fault.Column >= 1, fault.Code));
            }
            catch (Exception failed)
            {
                var kept = Path.Combine(Path.GetTempPath(), $"valtro-check-{round}.ics");
                File.WriteAllBytes(kept, [.. bytes]);
                throw new InvalidOperationException($"The check stumbled over {kept}.", failed);
            }
        }
    }

    [Fact]
    public void Five_megabytes_are_read_line_by_line()
    {
        var one = Encoding.UTF8.GetBytes(string.Concat(Enumerable.Range(0, 25_000).Select(number => $"""
            BEGIN:VEVENT
            UID:event-{number}@pinewick.example
            DTSTAMP:20261123T120000Z
            DTSTART:20261204T130000Z
            DTEND:20261204T140000Z
            SUMMARY:Boat lab {number}
            RRULE:FREQ=WEEKLY;COUNT=10
            END:VEVENT

            """)).ReplaceLineEndings("\r\n"));
        var file = Encoding.ASCII.GetBytes("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n").Concat(one).Concat("END:VCALENDAR\r\n"u8.ToArray()).ToArray();
        Assert.InRange(file.Length, 4_500_000, 6_500_000);
        var found = Check(file);
        Assert.Equal((0, 25_000, 200_004), (found.Faults.Count, found.Components, found.Lines));
    }
}
