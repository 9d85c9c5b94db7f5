using Valtro.Application.Editions;
using Valtro.Application.Files;
using Valtro.Core;
using Valtro.Core.Events;

namespace Valtro.Server.Tests;

public class RichTextsTests
{
    private readonly RichTexts _texts = new();

    [Theory]
    [InlineData("<p>One</p><p>Two</p>", "One\nTwo")]
    [InlineData("One<br>Two", "One\nTwo")]
    [InlineData("<ul><li>Oilskins</li><li>Shoes</li></ul>", "- Oilskins\n- Shoes")]
    [InlineData("<p><a href=\"https://pinewick.example/rota\">rota</a></p>", "rota (https://pinewick.example/rota)")]
    [InlineData("<a href=\"https://pinewick.example/\">https://pinewick.example/</a>", "https://pinewick.example/")]
    [InlineData("<p>a &amp; b &lt; c</p>", "a & b < c")]
    [InlineData("<p></p><p></p><p></p><p>late</p>", "late")]
    public void The_plain_text_says_what_the_html_says(string html, string text) => Assert.Equal(text, _texts.Sanitise(html).Text);

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("<p> </p>")]
    [InlineData("<script>alert(1)</script>")]
    public void What_shows_nothing_is_empty(string? html) =>
        Assert.Equal(("", ""), (_texts.Sanitise(html).Html, _texts.Sanitise(html).Text));

    /// <summary>Known ways of getting a script past a filter: none may leave anything that runs.</summary>
    [Theory]
    [InlineData("<img src=\"x\" onerror=\"alert(1)\">")]
    [InlineData("<a href=\"data:text/html,<script>alert(1)</script>\">a</a>")]
    [InlineData("<a href=\"vbscript:alert(1)\">a</a>")]
    [InlineData("<a href=\" &#14; javascript:alert(1)\">a</a>")]
    [InlineData("<a href=\"JaVaScRiPt:alert(1)\">a</a>")]
    [InlineData("<iframe srcdoc=\"<script>alert(1)</script>\"></iframe>")]
    [InlineData("<math><mtext><table><mglyph><style><img src=x onerror=alert(1)></style></mglyph></table></mtext></math>")]
    [InlineData("<svg/onload=alert(1)>")]
    [InlineData("<form action=\"javascript:alert(1)\"><button>a</button></form>")]
    [InlineData("<p style=\"background:url(javascript:alert(1))\">a</p>")]
    [InlineData("<noscript><p title=\"</noscript><img src=x onerror=alert(1)>\"></noscript>")]
    [InlineData("<a href=\"https://pinewick.example/\" onmouseover=\"alert(1)\" id=\"x\" class=\"y\">a</a>")]
    [InlineData("<base href=\"https://elsewhere.example/\"><meta http-equiv=\"refresh\" content=\"0\">")]
    public void Nothing_that_runs_is_left(string html)
    {
        var kept = _texts.Sanitise(html).Html;
        foreach (var dangerous in new[] { "script:", "<script", "onerror", "onload=", "onmouseover", "style=", "<img", "<svg", "<iframe",
            "<form", "<base", "<meta", "data:", "class=", "id=" })
            Assert.DoesNotContain(dangerous, kept, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public void What_is_sanitised_once_stays_as_it_is()
    {
        var once = _texts.Sanitise(
            "<p>Sign up: <a href=\"https://pinewick.example/a?b=1&c=2\">here</a></p><ul><li><strong>x</strong></li></ul>").Html;
        Assert.Equal(once, _texts.Sanitise(once).Html);
    }

    [Fact]
    public void A_text_beyond_measure_is_refused_before_it_is_read() =>
        Assert.Equal("description", Assert.Throws<RuleException>(() => _texts.Sanitise(new string('x', 100_001))).Refusals[0].Field);

    [Theory]
    [InlineData("<p>Ask bo@pinewick.example.</p>", "mailto:bo@pinewick.example", "bo@pinewick.example")]
    [InlineData("<p>Call +1 (902) 555-0143, please</p>", "tel:+19025550143", "+1 (902) 555-0143")]
    [InlineData("<p>Call 902 555 0143</p>", "tel:9025550143", "902 555 0143")]
    [InlineData("<ul><li>Büro: 0431/123456</li></ul>", "tel:0431123456", "0431/123456")]
    public void Addresses_and_numbers_become_links_and_the_plain_text_says_them_once(string html, string address, string said)
    {
        var made = _texts.Sanitise(html);
        Assert.Contains(
            $"<a href=\"{address}\" target=\"_blank\" rel=\"noopener noreferrer\">{said}</a>", made.Html, StringComparison.Ordinal);
        Assert.DoesNotContain(address, made.Text, StringComparison.Ordinal);
        Assert.Contains(said, made.Text, StringComparison.Ordinal);
        Assert.Equal(made, _texts.Sanitise(made.Html));
    }

    [Theory]
    [InlineData("<p>Order 1234567, 2026-12-04, 4.12.2026, 14:00-15:30, room 12</p>")]
    [InlineData("<p><a href=\"https://pinewick.example/a@b.example\">bo@pinewick.example</a></p>")]
    public void What_is_no_number_to_call_and_what_is_a_link_already_stays(string html)
    {
        var made = _texts.Sanitise(html).Html;
        Assert.DoesNotContain("tel:", made, StringComparison.Ordinal);
        Assert.DoesNotContain("mailto:", made, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "https://pinewick.example/a", LinkKind.Website, "pinewick.example")]
    [InlineData("", "tel:+19025550143", LinkKind.Website, "tel:+19025550143")]
    [InlineData("", "https://pinewick.example/a", LinkKind.SignUp, "Anmelden")]
    [InlineData("Liste", "https://pinewick.example/a", LinkKind.SignUp, "Liste")]
    public void A_link_without_words_is_called_by_its_kind_or_where_it_leads(string label, string url, LinkKind kind, string called) =>
        Assert.Equal(called, ReadingWords.For("de", "de-DE").NameOf(new EventLink(label, url, kind)));

    /// <summary>The short way for plain text gives what the long one does.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("Bring boots")]
    [InlineData("Bring boots\nand a < pencil > & a \"chart\" 'now'\n\n  at 9  ")]
    [InlineData("one\u00A0two \u0007 three")]
    [InlineData("Call +1 902 555 0100 or write to office@pinewick.example")]
    [InlineData("<script>alert(1)</script>\nafter")]
    [InlineData("number 7 of 12, 2026-12-04")]
    public void Plain_lines_become_paragraphs(string text)
    {
        var texts = new RichTexts();
        var sanitised = texts.Sanitise(string.Concat(text.Split('\n').Where(line => line.Trim().Length > 0)
            .Select(line => $"<p>{System.Net.WebUtility.HtmlEncode(line.Trim()).Replace("&#160;", "&nbsp;", StringComparison.Ordinal)}</p>")));
        Assert.Equal(sanitised, texts.OfLines(text));
    }
}
