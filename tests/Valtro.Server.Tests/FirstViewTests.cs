using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using NodaTime;
using NodaTime.Text;
using Valtro.Server.Public;

namespace Valtro.Server.Tests;

/// <summary>
/// The first view as the server paints it, held against the outlines that the script's own views have (tests/first-view, written by
/// tests/web/firstView.test.tsx): where the two differ, something on the page would move.
/// </summary>
public sealed partial class FirstViewTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "first-view");

    private static readonly JsonNode Given = JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, "pages.json")))!;

    private static readonly PageAddresses At = new("/c/pinewick/juniors", "https://dates.example/c/pinewick/juniors", "https://dates.example/c/pinewick/juniors.ics", "webcal://x", "https://x");

    public static TheoryData<string> Pages => [.. Given["pages"]!.AsObject().Select(page => page.Key)];

    [Theory]
    [MemberData(nameof(Pages))]
    public void It_stands_in_the_page_as_the_script_will_draw_it(string name)
    {
        var (edition, entries) = Read(name);
        var words = ReadingWords.For(edition.Look.Language, edition.Locale);
        var today = LocalDatePattern.Iso.Parse((string)Given["today"]!).Value;
        var part = new MonthBody(edition.IsWhole ? "all" : "2026-11", new LocalDate(2026, 11, 1), new LocalDate(2027, 11, 28), edition, entries);
        var page = new StringBuilder();
        FirstView.Write(page, edition, words, At, today, part, entries);
        Assert.Equal(File.ReadAllText(Path.Combine(Folder, $"{name}.txt")), Outline(page.ToString()));
    }

    [Fact]
    public void Nothing_in_it_can_be_pressed_before_the_script_is_there()
    {
        var (edition, entries) = Read("month");
        var page = new StringBuilder();
        FirstView.Write(page, edition, ReadingWords.For("en", "en-GB"), At, new LocalDate(2026, 11, 24), new MonthBody("2026-11", default, default, edition, entries), entries);
        Assert.StartsWith("<main class=\"edition view-month\" aria-label=\"Dates for junior families\" aria-busy=\"true\" inert>", page.ToString(), StringComparison.Ordinal);
        Assert.DoesNotContain("<&>", page.ToString(), StringComparison.Ordinal);
    }

    private static (EditionBody Edition, EntryBody[] Entries) Read(string name)
    {
        var page = Given["pages"]![name]!;
        var edition = page["edition"].Deserialize<EditionBody>(Json.Options)!;
        var which = (string)page["entries"]!;
        IEnumerable<EntryBody> Entries(string of) => Given["entries"]![of].Deserialize<EntryBody[]>(Json.Options)!;
        return (edition, edition.IsWhole || which == "none" ? [.. Entries(which)] : [.. Entries(which), .. Entries("later")]);
    }

    /// <summary>The same as outlineOf in tests/web/firstView.test.tsx.</summary>
    private static string Outline(string html)
    {
        var main = new HtmlParser().ParseDocument(html).QuerySelector("main")!;
        foreach (var aside in main.QuerySelectorAll(".visually-hidden, caption, .edition-foot").ToArray())
            aside.Remove();
        var outline = new StringBuilder();
        foreach (var box in main.QuerySelectorAll("[class], h1, h2, b"))
        {
            var own = string.Concat(box.ChildNodes.OfType<IText>().Select(text => text.Data));
            outline.Append(box.ClassList.Length > 0 ? string.Join(' ', box.ClassList) : box.LocalName).Append(": ").Append(Spaces().Replace(own, " ").Trim()).Append('\n');
        }
        return outline.ToString();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
