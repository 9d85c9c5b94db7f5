using System.Net;
using System.Text;
using System.Text.RegularExpressions;

namespace Valtro.StandIns.Mailbox;

/// <summary>A mailbox that gets everybody's mail, and shows it: what would have gone to people in the demo.</summary>
internal static partial class MailboxPages
{
    public static void MapMailbox(this WebApplication app)
    {
        app.MapGet(
            "/mailbox", (string? to, ReceivedMail received) => Results.Content(Page(To(received, to), to), "text/html; charset=utf-8"));
        app.MapGet("/mailbox.json", (string? to, ReceivedMail received) => Results.Json(To(received, to)));
    }

    private static IReadOnlyList<Mail> To(ReceivedMail received, string? to) =>
        string.IsNullOrEmpty(to) ? received.All : [.. received.All.Where(mail => mail.To.Contains(to, StringComparison.OrdinalIgnoreCase))];

    private static string Page(IReadOnlyList<Mail> mails, string? to)
    {
        var list = new StringBuilder();
        foreach (var mail in mails)
            list.Append($"""
                <article>
                  <h2>{Html(mail.Subject)}</h2>
                  <p class="head">To <a href="/mailbox?to={Uri.EscapeDataString(mail.To)}">{Html(mail.To)}</a> · from {Html(mail.From)} · {mail.At:yyyy-MM-dd HH:mm} UTC</p>
                  <pre>{Links().Replace(Html(mail.Text), "<a href=\"$0\">$0</a>")}</pre>
                </article>

                """);
        if (mails.Count == 0)
            list.Append("<p>No mail has come yet. Valtro gathers news for some seconds before it writes.</p>");
        return $$"""
            <!doctype html>
            <html lang="en">
            <head>
              <meta charset="utf-8">
              <meta name="viewport" content="width=device-width, initial-scale=1">
              <title>Mailbox</title>
              <link rel="icon" href="data:,">
              <style>
                body { margin: 0; font: 16px/1.5 Georgia, serif; color: #222; background: #f4f4f1; }
                header { background: #4a4437; color: #fff; padding: 18px 40px; display: flex; justify-content: space-between; gap: 16px; flex-wrap: wrap; }
                header b { font-weight: 400; font-size: 20px; } header span { color: #e3ded3; font-size: 14px; }
                main { max-width: 860px; margin: 0 auto; padding: 16px 40px; }
                article { background: #fff; border: 1px solid #d9d5ca; padding: 12px 20px; margin: 12px 0; }
                h2 { font-weight: 400; font-size: 18px; margin: 0; } .head { margin: 0 0 8px; color: #5c574c; font-size: 14px; }
                pre { margin: 0; font: 14px/1.5 monospace; white-space: pre-wrap; overflow-wrap: anywhere; }
                a { color: #1f5fa0; }
                @media (max-width: 800px) { header, main { padding-left: 16px; padding-right: 16px; } }
              </style>
            </head>
            <body>
              <header><b>Mailbox{{(string.IsNullOrEmpty(to) ? "" : $" of {Html(to)}")}}</b><span>a stand-in that gets everybody’s mail · <a style="color:#fff" href="/mailbox">all of it</a></span></header>
              <main>
              {{list}}
              </main>
            </body>
            </html>
            """;
    }

    private static string Html(string text) => WebUtility.HtmlEncode(text);

    [GeneratedRegex(@"https?://[^\s&]+")]
    private static partial Regex Links();
}
