using System.Text;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Ganss.Xss;
using Valtro.Core;
using Valtro.Core.Disclosure;
using Valtro.Core.Events;

namespace Valtro.Application.Files;

/// <summary>Turns HTML from outside into what may be shown to anybody: a few marks and real links.</summary>
public sealed partial class RichTexts
{
    private const int LongestSource = 100_000;

    private static readonly HashSet<string> Schemes = new(["http", "https", "mailto", "tel"], StringComparer.OrdinalIgnoreCase);

    private readonly HtmlSanitizer _sanitizer;

    public RichTexts()
    {
        _sanitizer = new HtmlSanitizer(new HtmlSanitizerOptions
        {
            AllowedTags = new HashSet<string>(
                ["p", "br", "strong", "em", "u", "s", "a", "ul", "ol", "li", "blockquote", "b", "i"], StringComparer.OrdinalIgnoreCase),
            AllowedAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
            AllowedSchemes = Schemes,
            UriAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
        })
        {
            KeepChildNodes = true,
        };
        // The text of a script is no text for people.
        _sanitizer.RemovingTag += (_, removing) =>
            removing.Tag.TextContent = Unreadable.Contains(removing.Tag.LocalName) ? "" : removing.Tag.TextContent;
        _sanitizer.PostProcessNode += (_, processed) => OpenOutside(processed.Node);
    }

    private static readonly HashSet<string> Unreadable = ["script", "style", "template", "iframe", "object", "noscript", "svg", "math"];

    /// <summary>A description of plain text: each line is a paragraph.</summary>
    /// <remarks>As <see cref="Sanitise"/> would give it; of thousands of texts most need no parser.</remarks>
    public RichText OfLines(string text)
    {
        string[] lines = [.. ControlCharacters().Replace(text, "").Split('\n').Select(line => line.Trim()).Where(line => line.Length > 0)];
        var html = string.Concat(lines.Select(line => $"<p>{Encoded(line)}</p>"));
        if (lines.Any(line => PersonalData.Contacts(line).Any()))
            return Sanitise(html);
        return html.Length > LongestSource
            ? throw new RuleException("description", "text.descriptionTooLong", ("most", Texts.LongestDescription))
            : lines.Length == 0 ? RichText.Empty : new RichText(html, string.Join('\n', lines));
    }

    /// <summary>As texts are written in HTML.</summary>
    private static string Encoded(string text) => text.Replace("&", "&amp;", StringComparison.Ordinal)
        .Replace("\u00A0", "&nbsp;", StringComparison.Ordinal).Replace("<", "&lt;", StringComparison.Ordinal)
        .Replace(">", "&gt;", StringComparison.Ordinal);

    /// <exception cref="RuleException">The source is far longer than any description.</exception>
    public RichText Sanitise(string? source)
    {
        if (string.IsNullOrWhiteSpace(source))
            return RichText.Empty;
        if (source.Length > LongestSource)
            throw new RuleException("description", "text.descriptionTooLong", ("most", Texts.LongestDescription));
        var html = WithContacts(_sanitizer.Sanitize(ControlCharacters().Replace(source, "")).Trim());
        var text = PlainText(html);
        return text.Length == 0 ? RichText.Empty : new RichText(html, text);
    }

    /// <summary>Links leave the frame they are shown in and do not say where from; one without an address is only text.</summary>
    private static void OpenOutside(INode node)
    {
        if (node is not IElement { LocalName: "a" } link)
            return;
        // A relative address would lead readers to our own pages from wherever the text is shown.
        if (!Uri.TryCreate(link.GetAttribute("href"), UriKind.Absolute, out var address) || !Schemes.Contains(address.Scheme))
        {
            link.RemoveAttribute("href");
            return;
        }
        link.SetAttribute("target", "_blank");
        link.SetAttribute("rel", "noopener noreferrer");
    }

    /// <summary>Addresses and numbers that are no links yet are some now.</summary>
    private static string WithContacts(string html)
    {
        if (!html.Any(char.IsAsciiDigit) && !html.Contains('@', StringComparison.Ordinal))
            return html;
        var body = new HtmlParser().ParseDocument($"<body>{html}</body>").Body!;
        foreach (var words in body.Descendants<IText>().Where(text => text.GetAncestor<IHtmlAnchorElement>() is null).ToArray())
        {
            var (text, at, parts) = (words.Data, 0, new List<INode>());
            foreach (var (start, length, address) in PersonalData.Contacts(text).OrderBy(found => found.Start))
            {
                if (start < at)
                    continue;
                var link = body.Owner!.CreateElement("a");
                link.TextContent = text.Substring(start, length);
                link.SetAttribute("href", address);
                OpenOutside(link);
                parts.AddRange([body.Owner.CreateTextNode(text[at..start]), link]);
                at = start + length;
            }
            if (parts.Count > 0)
                words.Replace([.. parts, body.Owner!.CreateTextNode(text[at..])]);
        }
        return body.InnerHtml;
    }

    private static string PlainText(string html)
    {
        var text = new StringBuilder();
        Append(new HtmlParser().ParseDocument($"<body>{html}</body>").Body!, text);
        return EmptyLines().Replace(text.ToString(), "\n\n").Trim();
    }

    private static void Append(INode node, StringBuilder text)
    {
        foreach (var child in node.ChildNodes)
        {
            switch (child)
            {
                case IText words:
                    text.Append(words.Data);
                    break;
                case IElement { LocalName: "br" }:
                    text.Append('\n');
                    break;
                case IElement { LocalName: "a" } link:
                    AppendLink(link, text);
                    break;
                case IElement { LocalName: "li" } item:
                    text.Append("- ");
                    Append(item, text);
                    EndLine(text);
                    break;
                case IElement { LocalName: "p" or "ul" or "ol" or "blockquote" } block:
                    Append(block, text);
                    EndLine(text);
                    break;
                default:
                    Append(child, text);
                    break;
            }
        }
    }

    private static void AppendLink(IElement link, StringBuilder text)
    {
        Append(link, text);
        if (link.GetAttribute("href") is { } address && address != link.TextContent && !Says(link.TextContent, address))
            text.Append(" (").Append(address).Append(')');
    }

    /// <summary>An address for mail or a number that stands there itself need not stand behind it once more.</summary>
    private static bool Says(string text, string address) =>
        PersonalData.Contacts(text).FirstOrDefault() is { Length: > 0 } found && found.Length == text.Length && found.Address == address;

    private static void EndLine(StringBuilder text)
    {
        if (text.Length > 0 && text[^1] != '\n')
            text.Append('\n');
    }

    [GeneratedRegex(@"\n{3,}")]
    private static partial Regex EmptyLines();

    [GeneratedRegex(@"[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]")]
    private static partial Regex ControlCharacters();
}
