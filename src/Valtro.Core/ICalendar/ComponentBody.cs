using System.Globalization;
using System.Net;
using System.Text;
using NodaTime;
using Valtro.Core.Disclosure;
using Valtro.Core.Editions;
using Valtro.Core.Events;

namespace Valtro.Core.ICalendar;

/// <summary>Writes what a component says of an event besides when it is (RFC 5545 3.6.1, 3.6.2).</summary>
/// <param name="files">Below which files are.</param>
/// <param name="places">What is known of places.</param>
/// <param name="edition">How it delivers deadlines, and of what it reminds; null for neither tasks nor reminders.</param>
internal sealed class ComponentBody(
    ContentLines lines, Uri files, IReadOnlyDictionary<Guid, PlaceTold> places, Edition? edition)
{
    public void WriteProperties(Disclosed disclosed, bool allDay)
    {
        WriteText(disclosed, allDay);
        WriteMore(disclosed);
    }

    /// <summary>The components in it, which stand behind its properties and its stamp.</summary>
    /// <param name="start">When it begins.</param>
    public void WriteParts(Disclosed disclosed, Uid uid, LocalDateTime start)
    {
        WritePlace(disclosed);
        if (disclosed.Content.People.Count > 0)
            WriteParticipants(disclosed, uid);
        WriteReminder(disclosed, start);
    }

    private void WriteText(Disclosed disclosed, bool allDay)
    {
        lines.Text("SUMMARY:"u8, disclosed.Title);
        var place = disclosed.Content.Place;
        var known = place.Id is { } id ? places.GetValueOrDefault(id) : null;
        if (!place.IsNowhere)
            lines.Text("LOCATION:"u8, known is { Address.Length: > 0 } ? $"{place.Name}, {known.Address}" : place.Name);
        if (known?.At is { } at)
            lines.Verbatim("GEO:"u8, Geo(at));
        WriteDescription(disclosed.Content);
        if (disclosed.Content.Category is { } category)
            lines.Text("CATEGORIES:"u8, category.Name);
        foreach (var tag in disclosed.Content.Tags)
            lines.Text("CATEGORIES:"u8, tag);
        if (IsTask(disclosed))
            lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8 : "NEEDS-ACTION"u8);
        else
            WriteStatus(disclosed, allDay);
        lines.Line("CLASS:"u8, "PUBLIC"u8);
    }

    private static string Geo(Coordinates at) =>
        string.Create(CultureInfo.InvariantCulture, $"{at.Latitude:0.######};{at.Longitude:0.######}");

    /// <summary>RFC 9073 7.2, where more is known of it than LOCATION and GEO say.</summary>
    private void WritePlace(Disclosed disclosed)
    {
        if (disclosed.Content.Place is not { Id: { } id } place || places.GetValueOrDefault(id) is not { } known
            || known is { Address: "", AccessNote: "" })
            return;
        lines.Begin("VLOCATION"u8);
        lines.Text("UID:"u8, Uid.Of(id).Text);
        lines.Text("NAME:"u8, place.Name);
        var about = string.Join("\n", new[] { known.Address, known.AccessNote }.Where(line => line.Length > 0));
        if (about.Length > 0)
            lines.Text("DESCRIPTION:"u8, about);
        if (known.At is { } at)
            lines.Verbatim("GEO:"u8, Geo(at));
        lines.End("VLOCATION"u8);
    }

    public bool IsTask(Disclosed disclosed) => edition?.Deadlines == DeadlineForm.Tasks && disclosed.Content.IsDeadline;

    private void WriteStatus(Disclosed disclosed, bool allDay)
    {
        lines.Line("STATUS:"u8, disclosed.State == EventState.Cancelled ? "CANCELLED"u8
            : disclosed.Content.Certainty == Certainty.Tentative ? "TENTATIVE"u8 : "CONFIRMED"u8);
        lines.Line("TRANSP:"u8, IsFree(disclosed.Content, allDay) ? "TRANSPARENT"u8 : "OPAQUE"u8);
    }

    private static bool IsFree(EventContent content, bool allDay) => content.Transparency switch
    {
        Transparency.Free => true,
        Transparency.Busy => false,
        _ => allDay || content.IsDeadline,
    };

    /// <summary>Links as URL and LINK (RFC 9253 6.1), calls as CONFERENCE (RFC 7986 5.11) too, files as ATTACH with their name
    /// (RFC 8607 4.1).</summary>
    private void WriteMore(Disclosed disclosed)
    {
        if (disclosed.Content.Contact.Length > 0)
            lines.Text("CONTACT:"u8, disclosed.Content.Contact);
        var isFirst = true;
        foreach (var link in disclosed.Content.Links)
        {
            // One that was stored before it had to have such an address, and has none, nobody could open.
            if (AsciiAddress.Of(link.Url) is not { } address)
                continue;
            if (isFirst)
                lines.Verbatim("URL:"u8, address);
            isFirst = false;
            lines.Verbatim("LINK;VALUE=URI;LINKREL=related;LABEL="u8, $"{Parameter(link.Called())}:{address}");
            if (link.Kind == LinkKind.VideoCall)
                lines.Verbatim("CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO;LABEL="u8, $"{Parameter(link.Called())}:{address}");
        }
        if (disclosed.Picture is { } picture)
            lines.Verbatim("IMAGE;VALUE=URI;DISPLAY=FULLSIZE:"u8, FileAddress(files, picture.Id, picture.Name));
        foreach (var file in disclosed.Content.Files)
            lines.Verbatim("ATTACH;FMTTYPE="u8, $"{file.Type};FILENAME={Parameter(file.Name)}:{FileAddress(files, file.Id, file.Name)}");
    }

    /// <summary>RFC 5545 3.6.6. It stands behind the stamps, since properties stand before components in a component.</summary>
    private void WriteReminder(Disclosed disclosed, LocalDateTime start)
    {
        if (disclosed.State == EventState.Cancelled || edition?.ReminderOf(disclosed.Content, disclosed.Detail) is not { } reminder)
            return;
        var before = reminder.Before(start);
        lines.Begin("VALARM"u8);
        lines.Line("ACTION:"u8, "DISPLAY"u8);
        var related = IsTask(disclosed) ? ";RELATED=END" : "";
        lines.Length(
            Encoding.ASCII.GetBytes($"TRIGGER{related}:{(before > Duration.Zero ? "-" : "")}"), before >= Duration.Zero ? before : -before);
        lines.Text("DESCRIPTION:"u8, disclosed.Title);
        lines.End("VALARM"u8);
    }

    /// <summary>Where readers of an edition fetch a file.</summary>
    private static string FileAddress(Uri files, Guid id, string name) =>
        $"{files.AbsoluteUri.TrimEnd('/')}/files/{id}/{Uri.EscapeDataString(name)}";

    /// <summary>A quoted parameter value; what it may not hold is written as RFC 6868 3 says.</summary>
    private static string Parameter(string value) =>
        $"\"{value.Replace("^", "^^", StringComparison.Ordinal).Replace("\"", "^'", StringComparison.Ordinal).Replace("\n", "^n", StringComparison.Ordinal)}\"";

    /// <summary>The text for every program, and the HTML for those that know RFC 9073 6.5 or the older form.</summary>
    /// <remarks>Who is responsible stands below it: few programs show participants.</remarks>
    private void WriteDescription(EventContent content)
    {
        var (text, html) = (content.Description.Text, content.Description.Html);
        if (content.People.Count > 0 && edition is not null)
        {
            var people = content.People.GroupBy(one => one.Part)
                .Select(part => $"{edition.PartNames[part.Key]}: {string.Join(", ", part.Select(one => one.Name))}").ToArray();
            text = string.Join("\n\n", new[] { text, string.Join('\n', people) }.Where(some => some.Length > 0));
            html = html.Length == 0 ? "" : $"{html}{string.Concat(people.Select(one => $"<p>{WebUtility.HtmlEncode(one)}</p>"))}";
        }
        if (text.Length > 0)
            lines.Text("DESCRIPTION:"u8, text);
        if (html.Length > 0)
        {
            lines.Text("STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:"u8, html);
            lines.Text("X-ALT-DESC;FMTTYPE=text/html:"u8, html);
        }
    }

    /// <summary>RFC 9073 7.1.</summary>
    private void WriteParticipants(Disclosed disclosed, Uid uid)
    {
        foreach (var one in disclosed.Content.People)
        {
            lines.Begin("PARTICIPANT"u8);
            lines.Text("UID:"u8, uid.Hidden(one.Name).Text);
            lines.Line("PARTICIPANT-TYPE:"u8, one.Part == Part.Speaks ? "SPEAKER"u8 : "ACTIVE"u8);
            lines.Text("SUMMARY:"u8, one.Name);
            lines.End("PARTICIPANT"u8);
        }
    }
}
