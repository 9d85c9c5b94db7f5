using System.Text;
using Valtro.Core.ICalendar.Checking;
using Xunit.Abstractions;
using Foreign = Ical.Net;

namespace Valtro.Server.Tests;

/// <summary>Three libraries of others read all our files, right, wrong and wild: of how many events can be read our check says what most
/// of them say, and what it calls right they read alike.</summary>
public sealed class ReadableTests(ITestOutputHelper output)
{
    /// <summary>Where most of them are wrong, with the clause.</summary>
    private static readonly Dictionary<string, string> Otherwise = new()
    {
        ["Faulty/foldOfNothing.ics"] = "RFC 5545 3.1: what continues nothing is no line; they leave the blank out and read it",
        ["Faulty/misreadSkip.ics"] = "RFC 7529 4: SKIP is right, and two of them give it up (the check notes it)",
        ["Faulty/leapSecond.ics"] = "RFC 5545 3.3.12: a second 60 may be, and Ical.Net gives it up (the check notes it)",
        ["Wild/rules-loose-ends.ics"] = "RFC 5545 3.3.10: an empty part is wrong; whether they get past it depends on where it stands",
        ["Wild/rules-small-letters.ics"] = "RFC 5545 2: words of rules may be in small letters; two of them give them up",
    };

    [Fact]
    public async Task Our_check_says_of_what_can_be_read_what_most_libraries_say()
    {
        var folder = Path.Combine(NodeScripts.Root, "tests", "Valtro.Core.Tests", "ICalendar");
        // Who gets a text was told its encoding; ours reads bytes.
        var files = new[] { "Faulty", "Wild" }.SelectMany(one => Directory.EnumerateFiles(Path.Combine(folder, one), "*.ics"))
            .Where(path => !path.EndsWith("utf-16.ics", StringComparison.Ordinal)).Order(StringComparer.Ordinal)
            .ToDictionary(path => Path.GetRelativePath(folder, path), File.ReadAllBytes);
        Assert.True(files.Count >= 200, $"{files.Count} files");
        var texts = files.ToDictionary(file => file.Key, file => new StreamReader(new MemoryStream(file.Value), Encoding.UTF8).ReadToEnd());
        var scripts = await NodeScripts.AskAsync("readable.mjs", texts.Select(text => new[] { text.Key, text.Value }));
        var odd = new List<string>();
        var (unanimous, right) = (0, 0);
        foreach (var (name, bytes) in files)
        {
            int[] theirs = [ByIcalNet(texts[name]), .. scripts.Select(script => (int)script.Value![name]!)];
            var most = theirs.CountBy(count => count).MaxBy(count => count.Value);
            var ours = CalendarCheck.Of(new MemoryStream(bytes));
            unanimous += most.Value == theirs.Length ? 1 : 0;
            right += ours.Errors == 0 ? 1 : 0;
            if (most.Value > 1 ? most.Key != ours.Events : !theirs.Contains(ours.Events))
                odd.Add($"{name}: {ours.Events}; they {string.Join(", ", theirs)}");
            else if (ours.Errors == 0 && most.Value < theirs.Length)
                odd.Add($"{name} is called right; they {string.Join(", ", theirs)}");
        }
        output.WriteLine($"{files.Count} files, of which all three read alike {unanimous}; {right} are called right");
        Assert.True(unanimous >= 200 && right >= 20, $"{unanimous} alike, {right} right");
        Assert.True(!odd.Any(one => !Otherwise.ContainsKey(one.Split(':', ' ')[0])), string.Join("\n", odd));
    }

    /// <summary>Events with a start, several components of one name as one; 0 where it gives up.</summary>
    private static int ByIcalNet(string text)
    {
        try
        {
            return Foreign.CalendarCollection.Load(text).SelectMany(calendar => calendar.Events)
                .Where(one => one.Start is not null).DistinctBy(one => one.Uid).Count();
        }
        catch (Exception failed) when (failed is not OutOfMemoryException)
        {
            return 0;
        }
    }
}
