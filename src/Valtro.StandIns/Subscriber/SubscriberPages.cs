using System.Globalization;
using System.Net;
using System.Text;

namespace Valtro.StandIns.Subscriber;

/// <summary>Shows what each program shows, and when each change came to it.</summary>
internal static class SubscriberPages
{
    private static readonly (int Minutes, string Name)[] Rhythms =
        [(30, "every half hour"), (60, "every hour"), (360, "every six hours"), (1_440, "once a day")];

    public static void MapSubscriber(this WebApplication app)
    {
        app.MapGet("/subscriber", (Subscriber subscriber) => Results.Content(Page(subscriber), "text/html; charset=utf-8"));
        app.MapGet("/subscriber.json", (Subscriber subscriber) => Results.Json(new
        {
            subscriber.Now,
            Programs = subscriber.All.Select(one => new { one.Name, one.Feed, one.AskedAt, one.GotAt, one.Title, one.Dates, one.Arrivals }),
        }));
        app.MapPost("/subscriber", async (HttpRequest request, Subscriber subscriber) =>
        {
            var form = await request.ReadFormAsync();
            if (!Uri.TryCreate(form["feed"].ToString().Trim().Replace("webcal:", "http:", StringComparison.Ordinal), UriKind.Absolute, out var feed)
                || feed.Scheme is not ("http" or "https"))
                return Results.BadRequest("Type the address of a feed, such as http://127.0.0.1:5080/c/pinewick/port-watch.ics.");
            var minutes = int.TryParse(form["minutes"], CultureInfo.InvariantCulture, out var said) ? Math.Clamp(said, 15, 10_080) : 60;
            subscriber.Add(new Subscription(form["name"] is [{ Length: > 0 } name] ? name : "Tidebook/3 (Android 15)", feed, TimeSpan.FromMinutes(minutes)));
            return Results.Redirect("/subscriber");
        });
        app.MapPost("/subscriber/forward", async (HttpRequest request, Subscriber subscriber, CancellationToken stopping) =>
        {
            var form = await request.ReadFormAsync(stopping);
            if (double.TryParse(form["hours"], CultureInfo.InvariantCulture, out var hours) && hours is > 0 and <= 240)
                await subscriber.ForwardAsync(TimeSpan.FromHours(hours), stopping);
            return Results.Redirect("/subscriber");
        });
    }

    private static string Page(Subscriber subscriber)
    {
        var programs = new StringBuilder();
        foreach (var one in subscriber.All)
            programs.Append(CultureInfo.InvariantCulture, $"""
                <article>
                  <h2>{Html(one.Title.Length > 0 ? one.Title : one.Feed.AbsolutePath)}</h2>
                  <p class="head">{Html(one.Name)} asks {Rhythm(one.Every)} · asked last {Ago(one.AskedAt, subscriber.Now)}, asks again {In(one.AskedAt + one.Every, subscriber.Now)} · shows what came {Ago(one.GotAt, subscriber.Now)}</p>
                  <div class="halves">
                    <ol>{string.Concat(one.Dates.Select(date => $"<li{(date.IsCancelled ? " class=\"off\"" : "")}><span>{date.When}</span> {Html(date.Title)}</li>"))}</ol>
                    <ul>{string.Concat(one.Arrivals.Select(arrival => $"<li><span>{arrival.At:ddd HH:mm}</span> {Html(arrival.What)}</li>"))}</ul>
                  </div>
                </article>

                """);
        return $$"""
            <!doctype html>
            <html lang="en">
            <head>
              <meta charset="utf-8">
              <meta name="viewport" content="width=device-width, initial-scale=1">
              <meta http-equiv="refresh" content="10">
              <title>Programs that subscribe</title>
              <link rel="icon" href="data:,">
              <style>
                body { margin: 0; font: 16px/1.5 Georgia, serif; color: #222; background: #eef2f1; }
                header { background: #22423c; color: #fff; padding: 18px 40px; display: flex; justify-content: space-between; gap: 16px; flex-wrap: wrap; }
                header b { font-weight: 400; font-size: 20px; } header form { display: inline; }
                main { max-width: 980px; margin: 0 auto; padding: 16px 40px; }
                article { background: #fff; border: 1px solid #cfd8d5; padding: 12px 20px; margin: 12px 0; }
                h2 { font-weight: 400; font-size: 18px; margin: 0; } .head { margin: 0 0 8px; color: #51605c; font-size: 14px; }
                .halves { display: grid; grid-template-columns: 1fr 1fr; gap: 24px; } ol, ul { margin: 0; padding: 0; list-style: none; font-size: 15px; }
                li span { display: inline-block; min-width: 112px; color: #51605c; } .off { text-decoration: line-through; }
                @media (max-width: 800px) { header, main { padding-left: 16px; padding-right: 16px; } .halves { grid-template-columns: 1fr; } }
              </style>
            </head>
            <body>
              <header><b>Programs that subscribe</b><span>their clock: {{subscriber.Now.UtcDateTime:ddd d MMM HH:mm}} UTC {{Forward(1, "an hour")}} {{Forward(6, "six hours")}} {{Forward(24, "a day")}}</span></header>
              <main>
              <p>A stand-in: each program asks for its feed in its own rhythm and shows nothing newer until it has. Change something on the desk, then run their clock forward.</p>
              <form method="post" action="/subscriber"><label>Feed <input name="feed" size="50"></label> <label>asks <select name="minutes">{{string.Concat(Rhythms.Select(one => $"<option value=\"{one.Minutes}\">{one.Name}</option>"))}}</select></label> <button>Subscribe</button></form>
              {{programs}}
              </main>
            </body>
            </html>
            """;
    }

    private static string Forward(int hours, string words) =>
        $"<form method=\"post\" action=\"/subscriber/forward\"><input type=\"hidden\" name=\"hours\" value=\"{hours}\"><button>{words} later</button></form>";

    private static string Rhythm(TimeSpan every) => Rhythms.FirstOrDefault(one => one.Minutes == (int)every.TotalMinutes).Name
        ?? $"every {every.TotalMinutes:0} minutes";

    private static string Ago(DateTimeOffset? at, DateTimeOffset now) => at is { } then ? $"{Said(now - then)} ago" : "never";

    private static string In(DateTimeOffset? at, DateTimeOffset now) => at is { } then && then > now ? $"in {Said(then - now)}" : "now";

    private static string Said(TimeSpan span) => span.TotalMinutes < 1 ? "less than a minute"
        : span.TotalHours < 1 ? $"{span.TotalMinutes:0} min"
        : $"{span.TotalHours:0.#} h";

    private static string Html(string text) => WebUtility.HtmlEncode(text);
}
