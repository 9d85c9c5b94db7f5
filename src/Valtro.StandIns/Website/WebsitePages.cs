using System.Net;

namespace Valtro.StandIns.Website;

/// <summary>A families' website whose page has two HTML blocks that its owner edits, as many site builders offer.</summary>
internal static class WebsitePages
{
    public static void MapWebsite(this WebApplication app)
    {
        app.MapGet("/", (WebsiteFile file) => Html(Page(file.Read())));
        app.MapGet("/edit", (WebsiteFile file) => Html(Form(file.Read())));
        app.MapPost("/edit", async (HttpRequest request, WebsiteFile file) =>
        {
            var form = await request.ReadFormAsync();
            file.Write(
                new Blocks(form["wide"].ToString(), form["sidebar"].ToString(), form["tab"].ToString(), form["post"].ToString(),
                    form["address"].ToString()));
            return Results.Redirect("/");
        });
    }

    public static IResult Html(string page) => Results.Content(page, "text/html; charset=utf-8");

    private static string Page(Blocks blocks) => Frame("Harbour families’ page", $"""
        <main class="columns">
          <section class="wide"><h2>What is on</h2><p>The families’ committee keeps this page. The dates come from the school.</p>{blocks.Wide}</section>
          <aside class="sidebar"><h2>Next</h2>{blocks.Sidebar}</aside>
        </main>
        <footer><a href="/edit">Edit the HTML blocks</a> · Other sites: <a href="/learning">a learning platform</a>, <a href="/blog">a blog that strips scripts</a>, <a href="/club">a site that resolves oEmbed</a> · <a href="/calendars">calendars of others</a> · <a href="/mailbox">everybody’s mail</a> · <a href="/subscriber">programs that subscribe</a></footer>
        """);

    private static string Form(Blocks blocks) => Frame("Edit the HTML blocks", $"""
        <main>
          <form method="post" action="/edit">
            <label for="wide">Wide column</label>
            <textarea id="wide" name="wide" rows="8" spellcheck="false">{WebUtility.HtmlEncode(blocks.Wide)}</textarea>
            <label for="sidebar">Sidebar, 300 px</label>
            <textarea id="sidebar" name="sidebar" rows="8" spellcheck="false">{WebUtility.HtmlEncode(blocks.Sidebar)}</textarea>
            <label for="tab">Learning platform, link of the tab</label>
            <input id="tab" name="tab" value="{WebUtility.HtmlEncode(blocks.Tab)}">
            <label for="post">Blog post, whose scripts are stripped</label>
            <textarea id="post" name="post" rows="6" spellcheck="false">{WebUtility.HtmlEncode(blocks.Post)}</textarea>
            <label for="address">Club site, an address that it looks up by oEmbed</label>
            <input id="address" name="address" value="{WebUtility.HtmlEncode(blocks.Address)}">
            <button>Save the page</button>
          </form>
        </main>
        <footer><a href="/">Back to the page</a></footer>
        """);

    public static string Frame(string title, string body) => $$"""
        <!doctype html>
        <html lang="en">
        <head>
          <meta charset="utf-8">
          <meta name="viewport" content="width=device-width, initial-scale=1">
          <title>{{title}}</title>
          <link rel="icon" href="data:,">
          <style>
            body { margin: 0; font: 16px/1.5 Georgia, serif; color: #222; background: #fff; }
            header { background: #274156; color: #fff; padding: 18px 40px; display: flex; justify-content: space-between; gap: 16px; flex-wrap: wrap; }
            header b { font-weight: 400; font-size: 20px; }
            header span { color: #d5dee6; font-size: 14px; }
            main { max-width: 1200px; margin: 0 auto; padding: 16px 40px; }
            h2 { font-weight: 400; font-size: 19px; margin: 8px 0; }
            .columns { display: grid; grid-template-columns: minmax(0, 1fr) 300px; gap: 32px; align-items: start; }
            footer { max-width: 1200px; margin: 0 auto; padding: 8px 40px 32px; font-size: 14px; }
            a { color: #1f5fa0; }
            label { display: block; margin: 16px 0 4px; }
            input { width: 100%; font: 13px/1.5 monospace; box-sizing: border-box; }
            .tabs { display: flex; gap: 20px; border-bottom: 1px solid #999; padding-bottom: 6px; }
            .tab { width: 100%; height: 640px; border: 0; }
            textarea { width: 100%; font: 13px/1.5 monospace; box-sizing: border-box; }
            button { margin-top: 16px; font: inherit; padding: 6px 16px; }
            @media (max-width: 800px) { .columns { grid-template-columns: minmax(0, 1fr); } header, main, footer { padding-left: 16px; padding-right: 16px; } }
          </style>
        </head>
        <body>
          <header><b>{{title}}</b><span>a stand-in website, on an origin of its own</span></header>
          {{body}}
        </body>
        </html>
        """;
}
