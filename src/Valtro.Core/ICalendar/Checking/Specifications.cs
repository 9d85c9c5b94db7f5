using System.Collections.Frozen;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>What a component may hold (RFC 5545 3.6).</summary>
/// <param name="Within">The components in which it may stand; "" for none.</param>
/// <param name="Needed">Properties that it has to have.</param>
/// <param name="Once">Those that stand once at most.</param>
/// <param name="Often">Those that may stand more often.</param>
internal sealed record ComponentKind(
    FrozenSet<string> Within, FrozenSet<string> Needed, FrozenSet<string> Once, FrozenSet<string> Often, string Clause);

/// <summary>What a property is (RFC 5545 3.7, 3.8).</summary>
/// <param name="Types">Value types, the usual one first.</param>
/// <param name="IsList">Several values with commas between.</param>
/// <param name="Words">The only values that the standard knows; empty where any may stand.</param>
internal sealed record PropertyKind(IReadOnlyList<string> Types, bool IsList, FrozenSet<string> Words, string Clause);

/// <summary>The tables of the standards: RFC 5545, 7986, 9073, 9074, 9253, 7953.</summary>
internal static class Specifications
{
    private const string Attachable = "ATTACH ATTENDEE CATEGORIES COMMENT CONTACT REQUEST-STATUS RELATED-TO IMAGE CONFERENCE "
        + "STRUCTURED-DATA STYLED-DESCRIPTION CONCEPT LINK REFID";

    private const string OfEvents = "CLASS CREATED DESCRIPTION GEO LAST-MODIFIED LOCATION ORGANIZER PRIORITY SEQUENCE STATUS SUMMARY URL "
        + "RECURRENCE-ID COLOR DTSTART DURATION RRULE";

    public static FrozenDictionary<string, ComponentKind> Components { get; } = new Dictionary<string, ComponentKind>
    {
        ["VCALENDAR"] = Component("", "PRODID VERSION", "PRODID VERSION CALSCALE METHOD UID LAST-MODIFIED URL REFRESH-INTERVAL SOURCE COLOR",
            "NAME DESCRIPTION CATEGORIES IMAGE", "RFC 5545 3.6"),
        ["VEVENT"] = Component("VCALENDAR", "UID DTSTAMP", $"UID DTSTAMP DTEND TRANSP {OfEvents}", $"{Attachable} EXDATE RDATE RESOURCES EXRULE",
            "RFC 5545 3.6.1"),
        ["VTODO"] = Component("VCALENDAR", "UID DTSTAMP", $"UID DTSTAMP DUE COMPLETED PERCENT-COMPLETE {OfEvents}",
            $"{Attachable} EXDATE RDATE RESOURCES EXRULE", "RFC 5545 3.6.2"),
        ["VJOURNAL"] = Component("VCALENDAR", "UID DTSTAMP",
            "UID DTSTAMP CLASS CREATED DTSTART LAST-MODIFIED ORGANIZER RECURRENCE-ID SEQUENCE STATUS SUMMARY URL COLOR RRULE",
            $"{Attachable} DESCRIPTION EXDATE RDATE EXRULE", "RFC 5545 3.6.3"),
        ["VFREEBUSY"] = Component("VCALENDAR", "UID DTSTAMP", "UID DTSTAMP CONTACT DTSTART DTEND ORGANIZER URL",
            "ATTENDEE COMMENT FREEBUSY REQUEST-STATUS STYLED-DESCRIPTION LINK REFID CONCEPT", "RFC 5545 3.6.4"),
        ["VTIMEZONE"] = Component("VCALENDAR", "TZID", "TZID LAST-MODIFIED TZURL TZUNTIL", "TZID-ALIAS-OF", "RFC 5545 3.6.5"),
        ["STANDARD"] = Component("VTIMEZONE", "DTSTART TZOFFSETTO TZOFFSETFROM", "DTSTART TZOFFSETTO TZOFFSETFROM RRULE",
            "COMMENT RDATE TZNAME", "RFC 5545 3.6.5"),
        ["DAYLIGHT"] = Component("VTIMEZONE", "DTSTART TZOFFSETTO TZOFFSETFROM", "DTSTART TZOFFSETTO TZOFFSETFROM RRULE",
            "COMMENT RDATE TZNAME", "RFC 5545 3.6.5"),
        ["VALARM"] = Component("VEVENT VTODO", "ACTION TRIGGER",
            "ACTION TRIGGER DURATION REPEAT DESCRIPTION SUMMARY UID ACKNOWLEDGED PROXIMITY",
            "ATTACH ATTENDEE RELATED-TO STYLED-DESCRIPTION", "RFC 5545 3.6.6"),
        ["VAVAILABILITY"] = Component("VCALENDAR", "UID DTSTAMP",
            "UID DTSTAMP BUSYTYPE CLASS CREATED DESCRIPTION DTSTART DTEND DURATION LAST-MODIFIED LOCATION ORGANIZER PRIORITY SEQUENCE SUMMARY URL",
            "CATEGORIES COMMENT CONTACT", "RFC 7953 3.1"),
        ["AVAILABLE"] = Component("VAVAILABILITY", "UID DTSTAMP DTSTART",
            "UID DTSTAMP DTSTART DTEND DURATION CREATED DESCRIPTION LAST-MODIFIED LOCATION RECURRENCE-ID RRULE SUMMARY",
            "CATEGORIES COMMENT CONTACT EXDATE RDATE", "RFC 7953 3.1"),
        ["PARTICIPANT"] = Component("VEVENT VTODO VJOURNAL VFREEBUSY", "UID PARTICIPANT-TYPE",
            "UID PARTICIPANT-TYPE CALENDAR-ADDRESS CREATED DESCRIPTION DTSTAMP GEO LAST-MODIFIED PRIORITY SEQUENCE STATUS SUMMARY URL",
            "ATTACH CATEGORIES COMMENT CONTACT LOCATION REQUEST-STATUS RELATED-TO RESOURCES STYLED-DESCRIPTION STRUCTURED-DATA",
            "RFC 9073 7.1"),
        ["VLOCATION"] = Component("VEVENT VTODO VJOURNAL VFREEBUSY PARTICIPANT VALARM", "UID", "UID DESCRIPTION GEO LOCATION-TYPE NAME URL",
            "STRUCTURED-DATA STYLED-DESCRIPTION", "RFC 9073 7.2"),
        ["VRESOURCE"] = Component("VEVENT VTODO VJOURNAL VFREEBUSY PARTICIPANT", "UID", "UID DESCRIPTION GEO NAME RESOURCE-TYPE",
            "STRUCTURED-DATA STYLED-DESCRIPTION", "RFC 9073 7.3"),
    }.ToFrozenDictionary();

    public static FrozenDictionary<string, PropertyKind> Properties { get; } = new Dictionary<string, PropertyKind>
    {
        ["CALSCALE"] = Property("TEXT", "RFC 5545 3.7.1", words: "GREGORIAN"),
        ["METHOD"] = Property("TEXT", "RFC 5546 1.4", words: "PUBLISH REQUEST REPLY ADD CANCEL REFRESH COUNTER DECLINECOUNTER"),
        ["PRODID"] = Property("TEXT", "RFC 5545 3.7.3"),
        ["VERSION"] = Property("TEXT", "RFC 5545 3.7.4", words: "2.0"),
        ["ATTACH"] = Property("URI BINARY", "RFC 5545 3.8.1.1"),
        ["CATEGORIES"] = Property("TEXT", "RFC 5545 3.8.1.2", isList: true),
        ["CLASS"] = Property("TEXT", "RFC 5545 3.8.1.3"),
        ["COMMENT"] = Property("TEXT", "RFC 5545 3.8.1.4"),
        ["DESCRIPTION"] = Property("TEXT", "RFC 5545 3.8.1.5"),
        ["GEO"] = Property("FLOATS", "RFC 5545 3.8.1.6"),
        ["LOCATION"] = Property("TEXT", "RFC 5545 3.8.1.7"),
        ["PERCENT-COMPLETE"] = Property("INTEGER", "RFC 5545 3.8.1.8"),
        ["PRIORITY"] = Property("INTEGER", "RFC 5545 3.8.1.9"),
        ["RESOURCES"] = Property("TEXT", "RFC 5545 3.8.1.10", isList: true),
        ["STATUS"] = Property("TEXT", "RFC 5545 3.8.1.11"),
        ["SUMMARY"] = Property("TEXT", "RFC 5545 3.8.1.12"),
        ["COMPLETED"] = Property("DATE-TIME", "RFC 5545 3.8.2.1"),
        ["DTEND"] = Property("DATE-TIME DATE", "RFC 5545 3.8.2.2"),
        ["DUE"] = Property("DATE-TIME DATE", "RFC 5545 3.8.2.3"),
        ["DTSTART"] = Property("DATE-TIME DATE", "RFC 5545 3.8.2.4"),
        ["DURATION"] = Property("DURATION", "RFC 5545 3.8.2.5"),
        ["FREEBUSY"] = Property("PERIOD", "RFC 5545 3.8.2.6", isList: true),
        ["TRANSP"] = Property("TEXT", "RFC 5545 3.8.2.7", words: "OPAQUE TRANSPARENT"),
        ["TZID"] = Property("TEXT", "RFC 5545 3.8.3.1"),
        ["TZNAME"] = Property("TEXT", "RFC 5545 3.8.3.2"),
        ["TZOFFSETFROM"] = Property("UTC-OFFSET", "RFC 5545 3.8.3.3"),
        ["TZOFFSETTO"] = Property("UTC-OFFSET", "RFC 5545 3.8.3.4"),
        ["TZURL"] = Property("URI", "RFC 5545 3.8.3.5"),
        ["TZUNTIL"] = Property("DATE-TIME", "RFC 7808 7.1"),
        ["TZID-ALIAS-OF"] = Property("TEXT", "RFC 7808 7.2"),
        ["ATTENDEE"] = Property("CAL-ADDRESS", "RFC 5545 3.8.4.1"),
        ["CONTACT"] = Property("TEXT", "RFC 5545 3.8.4.2"),
        ["ORGANIZER"] = Property("CAL-ADDRESS", "RFC 5545 3.8.4.3"),
        ["RECURRENCE-ID"] = Property("DATE-TIME DATE", "RFC 5545 3.8.4.4"),
        ["RELATED-TO"] = Property("TEXT URI UID", "RFC 5545 3.8.4.5"),
        ["URL"] = Property("URI", "RFC 5545 3.8.4.6"),
        ["UID"] = Property("TEXT", "RFC 5545 3.8.4.7"),
        ["EXDATE"] = Property("DATE-TIME DATE", "RFC 5545 3.8.5.1", isList: true),
        ["RDATE"] = Property("DATE-TIME DATE PERIOD", "RFC 5545 3.8.5.2", isList: true),
        ["RRULE"] = Property("RECUR", "RFC 5545 3.8.5.3"),
        ["EXRULE"] = Property("RECUR", "RFC 5545 A.1"),
        ["ACTION"] = Property("TEXT", "RFC 5545 3.8.6.1"),
        ["REPEAT"] = Property("INTEGER", "RFC 5545 3.8.6.2"),
        ["TRIGGER"] = Property("DURATION DATE-TIME", "RFC 5545 3.8.6.3"),
        ["ACKNOWLEDGED"] = Property("DATE-TIME", "RFC 9074 6.1"),
        ["PROXIMITY"] = Property("TEXT", "RFC 9074 8.1"),
        ["CREATED"] = Property("DATE-TIME", "RFC 5545 3.8.7.1"),
        ["DTSTAMP"] = Property("DATE-TIME", "RFC 5545 3.8.7.2"),
        ["LAST-MODIFIED"] = Property("DATE-TIME", "RFC 5545 3.8.7.3"),
        ["SEQUENCE"] = Property("INTEGER", "RFC 5545 3.8.7.4"),
        ["REQUEST-STATUS"] = Property("STRUCTURED", "RFC 5545 3.8.8.3"),
        ["NAME"] = Property("TEXT", "RFC 7986 5.1"),
        ["REFRESH-INTERVAL"] = Property("ANY DURATION", "RFC 7986 5.7"),
        ["SOURCE"] = Property("ANY URI", "RFC 7986 5.8"),
        ["COLOR"] = Property("TEXT", "RFC 7986 5.9"),
        ["IMAGE"] = Property("ANY URI BINARY", "RFC 7986 5.10"),
        ["CONFERENCE"] = Property("ANY URI", "RFC 7986 5.11"),
        ["BUSYTYPE"] = Property("TEXT", "RFC 7953 3.2", words: "BUSY BUSY-UNAVAILABLE BUSY-TENTATIVE"),
        ["LOCATION-TYPE"] = Property("TEXT", "RFC 9073 6.1", isList: true),
        ["PARTICIPANT-TYPE"] = Property("TEXT", "RFC 9073 6.2"),
        ["RESOURCE-TYPE"] = Property("TEXT", "RFC 9073 6.3"),
        ["CALENDAR-ADDRESS"] = Property("CAL-ADDRESS", "RFC 9073 6.4"),
        ["STYLED-DESCRIPTION"] = Property("ANY TEXT URI", "RFC 9073 6.5"),
        ["STRUCTURED-DATA"] = Property("ANY TEXT BINARY URI", "RFC 9073 6.6"),
        ["CONCEPT"] = Property("URI", "RFC 9253 8.1"),
        ["LINK"] = Property("ANY URI UID XML-REFERENCE", "RFC 9253 8.2"),
        ["REFID"] = Property("TEXT", "RFC 9253 8.3"),
    }.ToFrozenDictionary();

    public static FrozenSet<string> ValueTypes { get; } = Words(
        "BINARY BOOLEAN CAL-ADDRESS DATE DATE-TIME DURATION FLOAT INTEGER PERIOD RECUR TEXT TIME URI UTC-OFFSET UID XML-REFERENCE");

    /// <summary>STATUS, by component (RFC 5545 3.8.1.11).</summary>
    public static FrozenDictionary<string, FrozenSet<string>> Statuses { get; } = new Dictionary<string, FrozenSet<string>>
    {
        ["VEVENT"] = Words("TENTATIVE CONFIRMED CANCELLED"),
        ["VTODO"] = Words("NEEDS-ACTION COMPLETED IN-PROCESS CANCELLED"),
        ["VJOURNAL"] = Words("DRAFT FINAL CANCELLED"),
    }.ToFrozenDictionary();

    /// <summary>Times that have to be in UTC.</summary>
    public static FrozenSet<string> InUtc { get; } = Words("DTSTAMP CREATED LAST-MODIFIED COMPLETED ACKNOWLEDGED TZUNTIL");

    public static FrozenSet<string> Words(string words) => words.Split(' ', StringSplitOptions.RemoveEmptyEntries).ToFrozenSet();

    private static ComponentKind Component(string within, string needed, string once, string often, string clause) =>
        new(Words(within), Words(needed), Words(once), Words(often), clause);

    private static PropertyKind Property(string types, string clause, bool isList = false, string words = "") =>
        new(types.Split(' '), isList, Words(words), clause);
}
