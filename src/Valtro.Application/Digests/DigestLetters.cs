using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using Valtro.Application.Editions;
using Valtro.Core.Digests;
using Valtro.Store;

namespace Valtro.Application.Digests;

/// <summary>Writes what goes to subscribers, in their language: plain, and with links for programs that show them.</summary>
public sealed class DigestLetters(PublicAddresses addresses, Settings settings)
{
    private static readonly HtmlEncoder Html = HtmlEncoder.Default;

    public MailLetter Ask(Subscriber asked, EditionReading reading)
    {
        var words = ReadingWords.For(asked.Language, reading.Address.Locale);
        return new MailLetter(
            asked.Address, words.Fill("confirmSubject", "edition", reading.Title),
            words.Fill("confirmBody", ("edition", reading.Title), ("organisation", reading.Address.OrganisationName),
                ("often", Often(words, asked.Rhythm)), ("link", AddressOf(asked))));
    }

    /// <param name="holdsBack">More has changed than is told.</param>
    public MailLetter Changes(Subscriber to, EditionReading reading, IReadOnlyList<ChangeBody> changes, bool holdsBack)
    {
        var words = ReadingWords.For(to.Language, reading.Address.Locale);
        var culture = words.CultureFor(reading.Address.Locale);
        var clock = reading.Checked.Look.Clock;
        var page = addresses.Of(reading.Address).Page;
        var end = $"{AddressOf(to)}/end";
        var intro = words.Fill("changedIntro", "edition", reading.Title);
        var foot = words.Fill("mailFoot", ("organisation", reading.Address.OrganisationName), ("page", page), ("end", end));
        var (plain, html) = (new StringBuilder(), new StringBuilder());
        plain.Append(CultureInfo.InvariantCulture, $"{intro}\n\n");
        html.Append(CultureInfo.InvariantCulture,
            $"<!doctype html><html lang=\"{words.Language}\"{(words.IsRightToLeft ? " dir=\"rtl\"" : "")}><body><p>{Html.Encode(intro)}</p><ul>");
        foreach (var change in changes)
        {
            var title = $"{string.Join(' ', change.Entry.Plates)} {change.Entry.Title}".Trim();
            var (what, was) = (ChangeWords.What(change, words, culture, clock), ChangeWords.Was(change, words, culture, clock));
            var at = change.Entry.HasPage ? $"{page}/entries/{change.Entry.Id}" : null;
            plain.Append(CultureInfo.InvariantCulture, $"- {title}: {what}\n  {was}\n{(at is null ? "" : $"  {at}\n")}");
            html.Append(CultureInfo.InvariantCulture,
                $"<li>{(at is null ? $"<b>{Html.Encode(title)}</b>" : $"<a href=\"{Html.Encode(at)}\"><b>{Html.Encode(title)}</b></a>")}: {Html.Encode(what)}<br>{Html.Encode(was)}</li>");
        }
        html.Append("</ul>");
        if (holdsBack)
        {
            var more = words.Fill("changedMore", "page", page);
            plain.Append(CultureInfo.InvariantCulture, $"\n{more}\n");
            html.Append(CultureInfo.InvariantCulture, $"<p>{Linked(more, page)}</p>");
        }
        plain.Append(CultureInfo.InvariantCulture, $"\n--\n{foot}\n");
        html.Append(CultureInfo.InvariantCulture,
            $"<hr><p><small>{Linked(foot, page, end).Replace("\n", "<br>", StringComparison.Ordinal)}</small></p></body></html>");
        return new MailLetter(
            to.Address, words.Fill("changedSubject", "edition", reading.Title), plain.ToString(), html.ToString(), end);
    }

    public static string Often(ReadingWords words, DigestRhythm rhythm) => words[$"often{rhythm}"];

    /// <summary>Where a subscriber says yes, and ends it.</summary>
    private string AddressOf(Subscriber subscriber) => new Uri(settings.PublicUrl, $"/mail/{subscriber.Token}").AbsoluteUri;

    /// <summary>The text, in which addresses can be followed; none of them begins another.</summary>
    private static string Linked(string text, params string[] targets) => targets
        .Aggregate(Html.Encode(text), (said, target) => Html.Encode(target) is var encoded
            ? said.Replace(encoded, $"<a href=\"{encoded}\">{encoded}</a>", StringComparison.Ordinal)
            : said);
}
