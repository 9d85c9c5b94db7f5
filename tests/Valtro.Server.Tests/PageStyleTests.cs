using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using NodaTime;
using Valtro.Application.Editions;
using Valtro.Core.Editions;

namespace Valtro.Server.Tests;

/// <summary>The styles that stand in pages, and the policy that allows them and nothing else.</summary>
public sealed partial class PageStyleTests(ValtroApp app) : IClassFixture<ValtroApp>
{
    private static LookBody Look(LookDraft draft) =>
        LookBody.Of(
            new EditionDraft("Any", [new SourceDraft(Guid.NewGuid())]) { Look = draft }.Check(DateTimeZone.Utc, IsoDayOfWeek.Monday).Look);

    [Theory]
    [InlineData(Scheme.Light, "color-scheme:light;")]
    [InlineData(Scheme.Dark, "color-scheme:dark;")]
    [InlineData(Scheme.Reader, "color-scheme:light dark;")]
    public void An_edition_s_colours_are_light_dark_or_as_the_reader_s_system_and_light_on_paper(Scheme scheme, string expected)
    {
        var css = PageStyle.Of(Look(new LookDraft(Scheme: scheme))).Css;
        Assert.StartsWith($":root{{{expected}", css, StringComparison.Ordinal);
        Assert.EndsWith("@media print{:root{color-scheme:light}}", css, StringComparison.Ordinal);
    }

    [Fact]
    public void Its_own_colours_stand_under_the_names_that_the_style_sheet_uses()
    {
        var css = PageStyle.Of(Look(new LookDraft(Palette: "plain", Colours: new ColoursDraft(Text: "#101010", Accent: "#003366")))).Css;
        Assert.Contains("--ink:light-dark(#101010,#F0F0F0)", css, StringComparison.Ordinal);
        Assert.Contains("--lake:light-dark(#003366,#8CC0F2)", css, StringComparison.Ordinal);
    }

    [Fact]
    public void Another_look_is_another_hash_and_the_hash_is_that_of_the_text()
    {
        var (one, other) = (PageStyle.Of(Look(new LookDraft())), PageStyle.Of(Look(new LookDraft(Palette: "quay"))));
        Assert.NotEqual(one.Hash, other.Hash);
        Assert.Equal($"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(one.Css)))}'", one.Hash);
        Assert.Equal($"<style>{one.Css}</style>\n", one.Element);
    }

    [Theory]
    [InlineData("/c/pinewick/juniors-for-families")]
    [InlineData("/c/pinewick/juniors-for-families/embed")]
    [InlineData("/c/pinewick/next-at-school/embed?view=list")]
    [InlineData("entry")]
    public async Task Every_style_in_a_page_is_allowed_by_its_hash_and_none_other_is_and_no_script_stands_in_it(string address)
    {
        if (address == "entry")
        {
            var part = JsonNode.Parse(await app.Reader().Http.GetStringAsync("/c/pinewick/juniors-for-families.json"))!;
            address =
                $"/c/pinewick/juniors-for-families/entries/{part["entries"]!.AsArray().First(entry => (bool)entry!["hasPage"]!)!["id"]}";
        }
        using var response = await app.Reader().Http.GetAsync(address);
        var page = await response.Content.ReadAsStringAsync();
        var policy = response.Headers.GetValues("Content-Security-Policy").Single();
        var styles = Styles()
            .Matches(page)
            .Select(style => $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(style.Groups[1].Value)))}'")
            .ToArray();
        Assert.Equal(2, styles.Length);
        Assert.Contains($"style-src 'self' {string.Join(' ', styles)};", policy, StringComparison.Ordinal);
        Assert.Contains("script-src 'self';", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
        Assert.DoesNotMatch("""<script(?![^>]*(src=|application/))""", page);
        Assert.DoesNotMatch(""" (style|onclick|onload)=["']""", page);
    }

    [Fact]
    public async Task The_desk_allows_no_style_in_a_page()
    {
        using var desk = await app.Reader().Http.GetAsync("/plan");
        Assert.Contains("style-src 'self';", desk.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_page_asks_for_nothing_before_it_can_be_painted_but_its_fonts()
    {
        var page = await app.Reader().Http.GetStringAsync("/c/pinewick/juniors-for-families");
        var head = page[..page.IndexOf("</head>", StringComparison.Ordinal)];
        Assert.DoesNotContain("rel=\"stylesheet\"", head, StringComparison.Ordinal);
        Assert.All(Preloads().Matches(head), preload => Assert.Contains("as=\"font\"", preload.Value, StringComparison.Ordinal));
        Assert.True(Preloads().Count(head) is > 0 and <= 3);
        Assert.Single(Scripts().Matches(head));
    }

    /// <summary>It is refused at once, not when a node's trust in what it knows is over; and each address says why.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("/embed")]
    [InlineData(".ics")]
    [InlineData(".json")]
    [InlineData(".atom")]
    [InlineData("/changed.json")]
    [InlineData("/changes")]
    public async Task A_secret_that_was_replaced_or_withdrawn_is_refused_at_once_with_the_reason(string ending)
    {
        var ada = await app.SignedInAsync();
        var made = await ada.DoAsync(HttpMethod.Post, "/api/editions", new
        {
            isOut = true,
            edition =
                new { name = $"Secret{ending}", audience = "link", sources = new[] { new { calendarId = await ada.CalendarAsync("PW") } } },
        });
        var first = new Uri((string)made["addresses"]!["page"]!).AbsolutePath;
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync(first)).StatusCode);
        var link = await ada.DoAsync(HttpMethod.Post, $"/api/editions/{made["id"]}/link", new { });
        await EndedAsync(first + ending, "replaced");
        var second = new Uri((string)link["page"]!).AbsolutePath;
        Assert.Equal(HttpStatusCode.OK, (await app.Reader().Http.GetAsync(second)).StatusCode);
        await ada.SendAsync(HttpMethod.Delete, $"/api/editions/{made["id"]}/link");
        await EndedAsync(second + ending, "withdrawn");
    }

    private async Task EndedAsync(string address, string why)
    {
        using var ended = await app.Reader().Http.GetAsync(address);
        Assert.Equal(HttpStatusCode.Gone, ended.StatusCode);
        Assert.Contains(why, await ended.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [GeneratedRegex("<style>(.*?)</style>", RegexOptions.Singleline)]
    private static partial Regex Styles();

    [GeneratedRegex("<link rel=\"(module)?preload\"[^>]*>")]
    private static partial Regex Preloads();

    [GeneratedRegex("<script type=\"module\"")]
    private static partial Regex Scripts();
}
