using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using Valtro.Application.Editions;
using Valtro.Core.Digests;
using Valtro.Store;

namespace Valtro.Application.Digests;

/// <summary>Writes the pages on which readers ask to be told by mail, say yes and end it: they need no script.</summary>
public sealed class MailPages(WebAssets assets, PublicAddresses addresses)
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    public PageStyle[] StylesOf(EditionReading? reading) => reading is null
        ? [assets.Entry("reader/entry.ts").Style]
        : [assets.Entry("reader/entry.ts").Style, PageStyle.Of(LookBody.Of(reading.Checked.Look))];

    /// <param name="given">What was typed, where something of it is wrong.</param>
    /// <param name="about">The title of the one event; null for all.</param>
    public string Form(EditionReading reading, ReadingWords words, DigestAsked given, string? about, bool isWrong, bool arePossible)
    {
        var body = new StringBuilder();
        if (!arePossible)
            return Page(reading, words, P(words.Fill("mailNotSent", "organisation", reading.Address.OrganisationName)));
        body.Append(P(words[about is null ? "mailAbout" : "mailAboutEntry"]));
        if (about is null && given.Only is { Length: > 0 })
            body.Append(P(words["mailOnlySome"]));
        body.Append(CultureInfo.InvariantCulture, $"""
            <form method="post">
            <p><label for="address">{Html.Encode(words["mailAddress"])}</label><br>
            <input id="address" name="address" type="email" maxlength="254" required autocomplete="email" dir="ltr" value="{Html.Encode(given.Address)}"{(isWrong ? " aria-invalid=\"true\" aria-describedby=\"wrong\"" : "")}></p>

            """);
        if (isWrong)
            body.Append(CultureInfo.InvariantCulture,
                $"<p id=\"wrong\" role=\"alert\" class=\"cancelled\">{Html.Encode(words.Fill("mailWrong", "address", given.Address))}</p>\n");
        if (about is null)
        {
            body.Append(CultureInfo.InvariantCulture, $"<fieldset><legend>{Html.Encode(words["mailHowOften"])}</legend>\n");
            foreach (var rhythm in Enum.GetValues<DigestRhythm>())
                body.Append(CultureInfo.InvariantCulture,
                    $"<p><label><input type=\"radio\" name=\"rhythm\" value=\"{rhythm.ToString().ToLowerInvariant()}\"{(rhythm == given.Rhythm ? " checked" : "")}> {Html.Encode(DigestLetters.Often(words, rhythm))}</label></p>\n");
            body.Append("</fieldset>\n");
        }
        body.Append(CultureInfo.InvariantCulture, $"<p><button type=\"submit\">{Html.Encode(words["mailAsk"])}</button></p>\n</form>\n");
        return Page(reading, words, body.ToString(), about);
    }

    public string Asked(EditionReading reading, ReadingWords words) => Page(reading, words, $"<div role=\"status\">{P(words["mailAsked"])}</div>");

    /// <summary>What somebody gets, with the way to say yes to it where they have not, and to end it.</summary>
    public string Own(Subscriber subscriber, EditionReading reading, ReadingWords words, bool endsOnly)
    {
        var said = words.Fill(subscriber.IsConfirmed || endsOnly ? "mailConfirmed" : "mailConfirmAsk",
            ("address", subscriber.Address), ("edition", reading.Title), ("often", DigestLetters.Often(words, subscriber.Rhythm)));
        var path = $"/mail/{subscriber.Token}";
        var yes = subscriber.IsConfirmed || endsOnly ? "" : Button(path, words["mailConfirm"]);
        return Page(reading, words, $"{P(said)}{yes}{(subscriber.IsConfirmed || endsOnly ? Button($"{path}/end", words["mailEnd"]) : "")}");
    }

    /// <summary>A sentence alone.</summary>
    public string Say(ReadingWords words, string code) => Page(null, words, $"<div role=\"status\">{P(words[code])}</div>");

    private static string P(string text) => $"<p>{Html.Encode(text)}</p>\n";

    private static string Button(string path, string text) =>
        $"<form method=\"post\" action=\"{Html.Encode(path)}\"><p><button type=\"submit\">{Html.Encode(text)}</button></p></form>\n";

    private string Page(EditionReading? reading, ReadingWords words, string body, string? about = null)
    {
        var title = words["mailTitle"];
        var styles = string.Concat(StylesOf(reading).Select(style => style.Element));
        var shape = reading is null ? "" : ReadingPages.Shape(LookBody.Of(reading.Checked.Look));
        var back = reading is null
            ? ""
            : $"<p class=\"entry-back\"><a href=\"{Html.Encode(new Uri(addresses.Of(reading.Address).Page).AbsolutePath)}\">{Html.Encode(words["allDates"])}</a> · {Html.Encode(reading.Title)}</p>\n";
        return $"""
            <!doctype html>
            <html lang="{words.Language}"{(words.IsRightToLeft ? " dir=\"rtl\"" : "")} class="is-page" {shape}>
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <meta name="robots" content="noindex, nofollow">
            <title>{Html.Encode(title)}{(reading is null ? "" : $" · {Html.Encode(reading.Title)}")}</title>
            <link rel="icon" href="/mark.svg" type="image/svg+xml">
            {styles}
            </head>
            <body>
            <main class="entry-page mail-page">
            {back}<h1 dir="auto">{Html.Encode(about ?? title)}</h1>
            {body}</main>
            </body>
            </html>

            """;
    }
}
