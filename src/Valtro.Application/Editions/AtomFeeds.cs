using System.Globalization;
using System.Text;
using System.Xml;
using NodaTime;
using NodaTime.Text;
using Valtro.Core.Editions;
using Valtro.Store;

namespace Valtro.Application.Editions;

/// <summary>Writes what changed lately as an Atom feed (RFC 4287).</summary>
public sealed class AtomFeeds(PublicAddresses addresses)
{
    private const string Namespace = "http://www.w3.org/2005/Atom";

    public byte[] Write(EditionAddress edition, EditionBody shown, ChangesBody changes, Instant changedAt)
    {
        var words = ReadingWords.For(shown.Look.Language, shown.Locale);
        var culture = words.CultureFor(shown.Locale);
        var (page, _, _) = addresses.InFeed(edition);
        var output = new MemoryStream();
        using (var writer = XmlWriter.Create(output, new XmlWriterSettings { Encoding = new UTF8Encoding(false), Indent = true }))
        {
            writer.WriteStartElement("feed", Namespace);
            writer.WriteAttributeString("xml", "lang", null, words.Language);
            writer.WriteElementString("id", Namespace, $"urn:uuid:{edition.FeedUid}");
            writer.WriteElementString("title", Namespace, $"{shown.Name}: {words["changes"]}");
            writer.WriteElementString(
                "updated", Namespace, Moment(changes.Changes.Count > 0 ? changes.Changes.Max(change => change.At) : changedAt));
            Link(writer, "alternate", "text/html", page.AbsoluteUri);
            if (edition.Audience != Core.Disclosure.Audience.Members)
                Link(writer, "self", "application/atom+xml", addresses.Of(edition).Atom);
            writer.WriteStartElement("author", Namespace);
            writer.WriteElementString("name", Namespace, shown.Organisation);
            writer.WriteEndElement();
            foreach (var change in changes.Changes)
                Entry(writer, change, edition.Audience == Core.Disclosure.Audience.Members ? null : page, words, culture, shown.Look.Clock,
                    edition.FeedUid);
            writer.WriteEndElement();
        }
        return output.ToArray();
    }

    /// <param name="page">Below which entries have their own; null where each member has another.</param>
    private static void Entry(
        XmlWriter writer, ChangeBody change, Uri? page, ReadingWords words, CultureInfo culture, ClockFace clock, Guid feedUid)
    {
        writer.WriteStartElement("entry", Namespace);
        // Another change of the same date is another entry.
        writer.WriteElementString("id", Namespace, $"urn:uuid:{feedUid}#{change.Entry.Id}/{change.At.ToUnixTimeSeconds()}");
        writer.WriteElementString("title", Namespace,
            $"{string.Join(' ', change.Entry.Plates)} {change.Entry.Title}: {ChangeWords.What(change, words, culture, clock)}".Trim());
        writer.WriteElementString("updated", Namespace, Moment(change.At));
        if (page is not null && change.Entry.HasPage)
            Link(writer, "alternate", "text/html", $"{page.AbsoluteUri}/entries/{change.Entry.Id}");
        writer.WriteElementString("summary", Namespace, ChangeWords.Was(change, words, culture, clock));
        writer.WriteEndElement();
    }

    private static string Moment(Instant instant) =>
        InstantPattern.General.Format(Instant.FromUnixTimeSeconds(instant.ToUnixTimeSeconds()));

    private static void Link(XmlWriter writer, string relation, string type, string address)
    {
        writer.WriteStartElement("link", Namespace);
        writer.WriteAttributeString("rel", relation);
        writer.WriteAttributeString("type", type);
        writer.WriteAttributeString("href", address);
        writer.WriteEndElement();
    }
}
