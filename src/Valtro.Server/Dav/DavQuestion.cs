using System.Xml.Linq;
using NodaTime;
using NodaTime.Text;
using Valtro.Application.Editions;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Time;

namespace Valtro.Server.Dav;

/// <summary>What a calendar is asked for: which of its objects (RFC 4791 9.7).</summary>
internal sealed class DavQuestion
{
    private static readonly InstantPattern Utc = InstantPattern.CreateWithInvariantCulture("uuuuMMdd'T'HHmmss'Z'");

    private static XName Name(string local) => DavXml.CalDav + local;

    private readonly XElement? _component;

    private DavQuestion(XElement? component) => _component = component;

    /// <summary>A filter as it was sent; null where it asks for something that is not answered.</summary>
    public static DavQuestion? Read(XElement? filter)
    {
        var calendar = filter?.Element(Name("comp-filter"));
        if (calendar is null)
            return new DavQuestion(null);
        if ((string?)calendar.Attribute("name") != "VCALENDAR")
            return null;
        var components = calendar.Elements(Name("comp-filter")).ToArray();
        return components.Length > 1 || components.Any(one => !IsKnown(one)) ? null : new DavQuestion(components.FirstOrDefault());
    }

    private static bool IsKnown(XElement component) =>
        component.Elements().All(one => one.Name == Name("time-range") || one.Name == Name("is-not-defined")
            || (one.Name == Name("prop-filter") && one.Elements().All(two => two.Name == Name("text-match") || two.Name == Name("is-not-defined"))))
        && component.Elements(Name("time-range")).All(range => RangeOf(range) is not null);

    /// <summary>From and to, either open; null where it is none.</summary>
    public static Interval? RangeOf(XElement? range)
    {
        static bool Reads(XAttribute? attribute, out Instant? at)
        {
            at = null;
            if (attribute is null)
                return true;
            if (Utc.Parse(attribute.Value) is not { Success: true } parsed)
                return false;
            at = parsed.Value;
            return true;
        }
        return range is not null && Reads(range.Attribute("start"), out var start) && Reads(range.Attribute("end"), out var end)
            && (start is null || end is null || start < end)
            ? new Interval(start, end)
            : null;
    }

    public IEnumerable<EditionObject> Of(IEnumerable<EditionObject> objects)
    {
        if (_component is not { } component)
            return objects;
        var isDenied = component.Element(Name("is-not-defined")) is not null;
        if ((string?)component.Attribute("name") != "VEVENT")
            return isDenied ? objects : [];
        if (isDenied)
            return [];
        var (range, properties) = (RangeOf(component.Element(Name("time-range"))), component.Elements(Name("prop-filter")).ToArray());
        return objects.Where(one => (range is null || DatesWithin(one, range.Value).Any()) && properties.All(filter => Has(one, filter)));
    }

    /// <summary>Dates that fall into a stretch of time (RFC 4791 9.9); at most some hundred years of one without end.</summary>
    public static IEnumerable<ObjectDate> DatesWithin(EditionObject one, Interval range)
    {
        // A day on each side: what is asked is in instants, days are the calendar's.
        var first = range.HasStart ? range.Start.InUtc().Date : DayRange.First;
        var last = range.HasEnd ? range.End.InUtc().Date : DayRange.Last;
        var window = new Window(DayRange.Nearest(first).PlusDays(-1), DayRange.Nearest(last).PlusDays(2), DateTimeZone.Utc);
        return one.Dates(window).Where(date =>
            (!range.HasEnd || date.Start < range.End)
            && (!range.HasStart || date.End > range.Start || date.Start == date.End && date.Start >= range.Start));
    }

    private static bool Has(EditionObject one, XElement filter)
    {
        var name = (string?)filter.Attribute("name") ?? "";
        var values = ValuesOf(one, name);
        if (filter.Element(Name("is-not-defined")) is not null)
            return values.Length == 0;
        if (filter.Element(Name("text-match")) is not { } match)
            return values.Length > 0;
        var isDenied = (string?)match.Attribute("negate-condition") == "yes";
        var isExact = (string?)match.Attribute("collation") == "i;octet";
        return values.Any(value => value.Contains(match.Value, isExact ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase))
            != isDenied;
    }

    /// <summary>What its events say of a property.</summary>
    private static string[] ValuesOf(EditionObject one, string name)
    {
        using var text = ForeignText.Open(one.Content, "utf-8");
        var reader = new ComponentReader(new LineReader(text));
        var values = new List<string>();
        while (reader.Read() is { } component)
        {
            if (component.Name == "VEVENT")
                values.AddRange(component.All(name.ToUpperInvariant()).Select(line => ForeignValues.Text(line.Value)));
        }
        return [.. values];
    }
}
