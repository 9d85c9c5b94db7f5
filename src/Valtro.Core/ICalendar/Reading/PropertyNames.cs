using System.Collections.Frozen;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>The names of properties that standards give (RFC 5545 8.3.2, 7986 5, 9073 6, 7953 3.2, 7529).</summary>
internal static class PropertyNames
{
    private static readonly FrozenSet<string> All = FrozenSet.Create(StringComparer.Ordinal,
        "CALSCALE", "METHOD", "PRODID", "VERSION", "ATTACH", "CATEGORIES", "CLASS", "COMMENT", "DESCRIPTION", "GEO", "LOCATION",
        "PERCENT-COMPLETE", "PRIORITY", "RESOURCES", "STATUS", "SUMMARY", "COMPLETED", "DTEND", "DUE", "DTSTART", "DURATION", "FREEBUSY",
        "TRANSP", "TZID", "TZNAME", "TZOFFSETFROM", "TZOFFSETTO", "TZURL", "ATTENDEE", "CONTACT", "ORGANIZER", "RECURRENCE-ID",
        "RELATED-TO", "URL", "UID", "EXDATE", "EXRULE", "RDATE", "RRULE", "ACTION", "REPEAT", "TRIGGER", "CREATED", "DTSTAMP",
        "LAST-MODIFIED", "SEQUENCE", "REQUEST-STATUS", "NAME", "REFRESH-INTERVAL", "SOURCE", "COLOR", "IMAGE", "CONFERENCE",
        "LOCATION-TYPE", "PARTICIPANT-TYPE", "RESOURCE-TYPE", "STRUCTURED-DATA", "STYLED-DESCRIPTION", "CALENDAR-ADDRESS", "CONCEPT",
        "LINK", "REFID", "ACKNOWLEDGED", "PROXIMITY", "TZID-ALIAS-OF", "TZUNTIL", "BUSYTYPE");

    public static bool Holds(string name) => All.Contains(name);
}
