using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Valtro.StandIns.Website;

/// <summary>Other people's sites, each with its own way of taking an edition: a link in a tab, HTML without scripts, oEmbed.</summary>
internal static partial class OtherSites
{
    public static void MapOtherSites(this WebApplication app)
    {
        app.MapGet("/learning", (WebsiteFile file) => WebsitePages.Html(Learning(file.Read().Tab!)));
        app.MapGet("/sandbox", (WebsiteFile file) => WebsitePages.Html(Sandbox(file.PublicUrl)));
        app.MapGet("/embeds", (WebsiteFile file, int count) => WebsitePages.Html(Embeds(file.PublicUrl, count)));
        app.MapGet("/module", (WebsiteFile file) => WebsitePages.Html(WithScript(file.PublicUrl, "type=\"module\"")));
        app.MapGet("/checked",
            (WebsiteFile file, string sum) =>
                WebsitePages.Html(WithScript(file.PublicUrl, $"integrity=\"{WebUtility.HtmlEncode(sum)}\" crossorigin=\"anonymous\"")));
        app.MapGet("/many", (WebsiteFile file) => WebsitePages.Html(Many(file.PublicUrl)));
        app.MapGet("/blog", (WebsiteFile file) => WebsitePages.Html(Blog(file.Read().Post!)));
        app.MapGet("/club", async (WebsiteFile file, HttpClient http) => WebsitePages.Html(await ClubAsync(file.Read().Address!, http)));
    }

    /// <summary>A learning platform: its tabs take no more than a link, which they frame.</summary>
    private static string Learning(string link) => WebsitePages.Frame("Harbour learning platform", $"""
        <main>
          <p class="tabs"><a href="/learning">Course</a> <b>School dates</b> <a href="/learning">Marks</a></p>
          <iframe class="tab" src="{WebUtility.HtmlEncode(link)}" title="School dates"></iframe>
        </main>
        """);

    /// <summary>A site that trusts no frame: one without an origin of its own, one without scripts.</summary>
    private static string Sandbox(string publicUrl) => WebsitePages.Frame("Careful site", $"""
        <main>
          <iframe class="tab" sandbox="allow-scripts" src="{publicUrl}/c/pinewick/juniors-for-families/embed" title="Without an origin"></iframe>
          <iframe class="tab" sandbox="" src="{publicUrl}/c/pinewick/juniors-for-families/embed" title="Without scripts"></iframe>
        </main>
        """);

    /// <summary>Snippets as Valtro gives them, with text below each.</summary>
    private static string Embeds(string publicUrl, int count) => WebsitePages.Frame("Some embeds", $"""
        <main>{string.Concat(new[] { ("juniors-for-families", "month", 860), ("next-at-school", "list", 546), ("port-watch", "month", 860), ("whole-school", "month", 860), ("great-days-with-pictures", "cards", 658) }
            .Take(count).Select(one => $"<h2>{one.Item1}</h2><div data-valtro=\"{publicUrl}/c/pinewick/{one.Item1}/embed\" data-view=\"{one.Item2}\" style=\"min-height:{one.Item3}px\"></div><p>What stands below it.</p>"))}</main>
        <script async src="{publicUrl}/embed.js"></script>
        """);

    /// <summary>A snippet whose script is asked for in another way.</summary>
    private static string WithScript(string publicUrl, string attributes) => WebsitePages.Frame("One embed", $"""
        <main><div data-valtro="{publicUrl}/c/pinewick/port-watch/embed" data-view="month" style="min-height:860px"></div></main>
        <script src="{publicUrl}/embed.js" {attributes}></script>
        """);

    /// <summary>Many frames of one school on one page.</summary>
    private static string Many(string publicUrl) => WebsitePages.Frame("All at once", $"""
        <main>{string.Concat(new[] { "port-watch", "starboard-watch", "whole-school", "senior-crew", "slipway-and-hall", "juniors-for-families", "next-at-school", "great-days-with-pictures", "when-slipway-and-hall-are-taken" }
            .Select(slug => $"<iframe class=\"tab\" src=\"{publicUrl}/c/pinewick/{slug}/embed\" title=\"{slug}\"></iframe>"))}</main>
        """);

    /// <summary>A blog: what is posted loses its scripts, and frames stay.</summary>
    private static string Blog(string post) => WebsitePages.Frame("Committee blog", $"""
        <main><article><h2>Great days</h2>{WithoutScripts(post)}</article></main>
        """);

    /// <summary>A site that asks the page itself how to show it (oEmbed 1.0, discovery): all it was given is an address.</summary>
    private static async Task<string> ClubAsync(string address, HttpClient http)
    {
        var html = "<p>Nothing could be made of that address.</p>";
        try
        {
            var page = await http.GetStringAsync(address);
            if (Discovery().Match(page) is { Success: true } found)
            {
                var answer = JsonDocument.Parse(
                    await http.GetStringAsync($"{WebUtility.HtmlDecode(found.Groups[1].Value)}&maxwidth=760")).RootElement;
                html = $"<h2>{WebUtility.HtmlEncode(answer.GetProperty("title").GetString())}</h2>{answer.GetProperty("html").GetString()}";
            }
        }
        catch (HttpRequestException away)
        {
            html = $"<p>The address does not answer: {WebUtility.HtmlEncode(away.Message)}</p>";
        }
        return WebsitePages.Frame("Sailing club site", $"<main><p>{WebUtility.HtmlEncode(address)}</p>{html}</main>");
    }

    private static string WithoutScripts(string html) => Handler().Replace(Script().Replace(html, ""), "");

    [GeneratedRegex("<script\\b.*?</script>", RegexOptions.Singleline | RegexOptions.IgnoreCase)]
    private static partial Regex Script();

    [GeneratedRegex("\\son\\w+=\"[^\"]*\"", RegexOptions.IgnoreCase)]
    private static partial Regex Handler();

    [GeneratedRegex("<link[^>]+application/json\\+oembed[^>]+href=\"([^\"]+)\"")]
    private static partial Regex Discovery();
}
