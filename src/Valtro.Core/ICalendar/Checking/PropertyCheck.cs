using System.Collections.Frozen;
using System.Globalization;
using Valtro.Core.Recurrence;
using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>A property by itself: where it stands, how often, and what its value is.</summary>
internal static class PropertyCheck
{
    private static readonly Dictionary<string, string> ParameterWords = new()
    {
        ["CUTYPE"] = "INDIVIDUAL GROUP RESOURCE ROOM UNKNOWN",
        ["ENCODING"] = "8BIT BASE64",
        ["FBTYPE"] = "FREE BUSY BUSY-UNAVAILABLE BUSY-TENTATIVE",
        ["PARTSTAT"] = "NEEDS-ACTION ACCEPTED DECLINED TENTATIVE DELEGATED COMPLETED IN-PROCESS",
        ["RANGE"] = "THISANDFUTURE",
        ["RELATED"] = "START END",
        ["ROLE"] = "CHAIR REQ-PARTICIPANT OPT-PARTICIPANT NON-PARTICIPANT",
        ["RSVP"] = "TRUE FALSE",
    };

    public static void Add(OpenComponent within, CheckedLine line, FaultList faults)
    {
        var isFirst = within.First.TryAdd(line.Name, line);
        if (within.Kind is null || line.Name.StartsWith("X-", StringComparison.Ordinal))
            return;
        if (!Specifications.Properties.TryGetValue(line.Name, out var kind))
        {
            faults.Add(line, 0, "propertyUnknown", FaultSeverity.Note, "RFC 5545 3.8.8.1", ("name", LineCheck.Short(line.Name)));
            return;
        }
        if (!within.Kind.Once.Contains(line.Name) && !within.Kind.Often.Contains(line.Name))
            faults.Add(line, 0, "propertyMisplaced", FaultSeverity.Error, within.Kind.Clause, ("name", line.Name), ("within", within.Name));
        else if (!isFirst && within.Kind.Once.Contains(line.Name))
            faults.Add(line, 0, "propertyTwice", line.Name == "RRULE" ? FaultSeverity.Warning : FaultSeverity.Error, within.Kind.Clause,
                ("name", line.Name), ("within", within.Name));
        if (line.Name == "EXRULE")
            faults.Add(line, 0, "deprecated", FaultSeverity.Warning, kind.Clause, ("name", line.Name));
        Parameters(line, faults);
        if (TypeOf(line, kind, faults) is { } type)
            Values(within, line, kind, type, faults);
        if (kind.Words.Count > 0 && !kind.Words.Contains(line.Value.Trim().ToUpperInvariant()))
            Unknown(line, kind.Clause, kind.Words, FaultSeverity.Error, faults);
        Own(within, line, kind, faults);
    }

    private static void Unknown(
        CheckedLine line, string clause, IEnumerable<string> words, FaultSeverity severity, FaultList faults) => faults.Add(
            line, line.ValueAt, $"unknown{Written(line.Name)}", severity, clause, Saying.Of(
                "check.unknownWord", ("name", line.Name), ("text", LineCheck.Short(line.Value)),
                ("words", string.Join(", ", words.Order(StringComparer.Ordinal)))));

    /// <summary>"PercentComplete".</summary>
    internal static string Written(string name) =>
        string.Concat(name.Split('-').Select(part => part.Length == 0 ? "" : part[..1] + part[1..].ToLowerInvariant()));

    private static void Parameters(CheckedLine line, FaultList faults)
    {
        foreach (var one in line.Parameters)
        {
            if (ParameterWords.TryGetValue(one.Name, out var words)
                && one.Values.FirstOrDefault(value => !value.StartsWith("X-", StringComparison.OrdinalIgnoreCase)
                    && !words.Split(' ').Contains(value.ToUpperInvariant())) is { } unknown)
                faults.Add(line, one.At, "parameterWord", FaultSeverity.Warning, "RFC 5545 3.2", ("name", one.Name),
                    ("text", LineCheck.Short(unknown)), ("words", words.Replace(" ", ", ", StringComparison.Ordinal)));
            if (one.Name == "TZID" && one.Value.Length == 0)
                faults.Add(line, one.At, "zoneWithoutName", FaultSeverity.Error, "RFC 5545 3.2.19");
        }
    }

    /// <returns>Null where the value cannot be looked at.</returns>
    private static string? TypeOf(CheckedLine line, PropertyKind kind, FaultList faults)
    {
        if (line.Parameter("VALUE") is not { } said)
        {
            if (kind.Types[0] != "ANY")
                return kind.Types[0];
            faults.Add(line, 0, "typeMissing", FaultSeverity.Error, kind.Clause, ("name", line.Name), ("type", kind.Types[1]));
            return null;
        }
        var type = said.Value.ToUpperInvariant();
        if (kind.Types.Contains(type))
            return type;
        if (type.StartsWith("X-", StringComparison.Ordinal))
            return null;
        faults.Add(line, said.At, Specifications.ValueTypes.Contains(type) ? "typeNotAllowed" : "typeUnknown", FaultSeverity.Error,
            Specifications.ValueTypes.Contains(type) ? kind.Clause : "RFC 5545 3.2.20", ("name", line.Name), ("type", LineCheck.Short(type)));
        return null;
    }

    private static void Values(OpenComponent within, CheckedLine line, PropertyKind kind, string type, FaultList faults)
    {
        if (type == "TEXT")
        {
            TextIs(line, kind.IsList, faults);
            return;
        }
        var at = line.ValueAt;
        foreach (var value in kind.IsList ? line.Value.Split(',') : [line.Value])
        {
            Value(within, line, type, value, at, faults);
            at += value.Length + 1;
        }
    }

    private static void Value(OpenComponent within, CheckedLine line, string type, string value, int at, FaultList faults)
    {
        switch (type)
        {
            case "DATE" or "DATE-TIME" when ValueCheck.Time(line, value, at, type == "DATE", faults) is { } time:
                TimeIs(within, line, time, at, faults);
                break;
            case "DURATION" when ValueCheck.Duration(value) is null:
                faults.Add(line, at, "durationForm", FaultSeverity.Error, "RFC 5545 3.3.6", ("text", LineCheck.Short(value)));
                break;
            case "PERIOD":
                PeriodIs(within, line, value, at, faults);
                break;
            case "RECUR":
                RuleIs(within, line, value, at, faults);
                break;
            case "UTC-OFFSET" when ValueCheck.Offset(value) is null || value.Trim('0') == "-":
                faults.Add(line, at, value.Trim('0') == "-" ? "minusNought" : "offsetForm", FaultSeverity.Error, "RFC 5545 3.3.14",
                    ("text", LineCheck.Short(value)));
                break;
            case "INTEGER":
                NumberIs(line, value, at, faults);
                break;
            case "FLOATS":
                PlaceIs(line, value, at, faults);
                break;
            case "URI" or "CAL-ADDRESS":
                AddressIs(line, type, value, at, faults);
                break;
            case "BINARY":
                BytesAre(line, value, at, faults);
                break;
        }
    }

    private static void TimeIs(OpenComponent within, CheckedLine line, CheckedTime time, int at, FaultList faults)
    {
        if (time.Zone is { Length: > 0 } zone)
            within.Calendar.ZonesNamed.TryAdd(zone, line);
        if (Specifications.InUtc.Contains(line.Name) && !time.IsUtc && !time.IsDate)
            faults.Add(line, at, "notUtc", FaultSeverity.Error, Specifications.Properties[line.Name].Clause, ("name", line.Name));
        switch (line.Name)
        {
            case "EXDATE":
                within.Excluded.Add((line, time, at));
                break;
            case "RDATE":
                within.Added.Add((line, time, at));
                break;
            default:
                within.Times.TryAdd(line.Name, time);
                break;
        }
    }

    private static void PeriodIs(OpenComponent within, CheckedLine line, string value, int at, FaultList faults)
    {
        var slash = value.IndexOf('/', StringComparison.Ordinal);
        if (slash < 0 || (ValueCheck.Duration(value[(slash + 1)..]) is null && value.Length - slash - 1 is not (15 or 16)))
        {
            faults.Add(line, at, "periodForm", FaultSeverity.Error, "RFC 5545 3.3.9", ("text", LineCheck.Short(value)));
            return;
        }
        var start = ValueCheck.Time(line, value[..slash], at, false, faults);
        var isSpan = ValueCheck.Duration(value[(slash + 1)..]) is not null;
        var end = isSpan ? null : ValueCheck.Time(line, value[(slash + 1)..], at + slash + 1, false, faults);
        if (start is { } from && end is { } to && to.Local <= from.Local
            || isSpan && ValueCheck.Duration(value[(slash + 1)..])!.Value.Seconds <= 0)
            faults.Add(line, at, "periodEndsBefore", FaultSeverity.Error, "RFC 5545 3.3.9", ("text", LineCheck.Short(value)));
        if (line.Name == "FREEBUSY" && start is { IsUtc: false })
            faults.Add(line, at, "notUtc", FaultSeverity.Error, "RFC 5545 3.8.2.6", ("name", line.Name));
        if (line.Name == "RDATE" && start is { } added)
            TimeIs(within, line, added, at, faults);
    }

    /// <summary>What most programs make nothing of; from other rules that are wrong they take some dates or others.</summary>
    private static readonly FrozenSet<string> GivenUp = FrozenSet.Create("rule.countsFromNought", "rule.frequencyMissing",
        "rule.frequencyUnknown", "rule.interval", "rule.noNumber", "rule.noWeekday", "rule.outOfRange", "rule.outOfRangeFromEnd", "rule.skip",
        "rule.skipAlone", "rule.skipUnknown");

    private static void RuleIs(OpenComponent within, CheckedLine line, string value, int at, FaultList faults)
    {
        try
        {
            var rule = RuleText.Parse(value.ToUpperInvariant());
            if (line.Name == "RRULE")
                within.Rule ??= rule;
        }
        catch (RuleException refused)
        {
            var said = refused.Refusals[0].Saying;
            // A local time is right where the start is one without a zone (RFC 5545 3.3.10).
            var local = value.ToUpperInvariant().IndexOf("UNTIL=", StringComparison.Ordinal);
            if (said.Code == "rule.untilUnreadable" && local >= 0 && value.Length >= local + 21
                && (value.Length == local + 21 || value[local + 21] == ';'))
            {
                if (within.First.GetValueOrDefault("DTSTART") is not { } start || start["TZID"] is not null
                    || start.Value.EndsWith('Z'))
                    faults.Add(line, at + local, "untilLocal", FaultSeverity.Error, "RFC 5545 3.3.10");
                return;
            }
            faults.Add(line, at, said.Code, FaultSeverity.Error, "RFC 5545 3.3.10", said);
            within.IsGivenUp |= GivenUp.Contains(said.Code);
        }
    }

    private static void NumberIs(CheckedLine line, string value, int at, FaultList faults)
    {
        if (!int.TryParse(value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number))
        {
            faults.Add(line, at, "integerForm", FaultSeverity.Error, "RFC 5545 3.3.8", ("name", line.Name), ("text", LineCheck.Short(value)));
            return;
        }
        var most = line.Name switch { "PRIORITY" => 9, "PERCENT-COMPLETE" => 100, _ => int.MaxValue };
        if (number < 0 || number > most)
            faults.Add(line, at, $"range{Written(line.Name)}", FaultSeverity.Error, Specifications.Properties[line.Name].Clause, Saying.Of(
                most == int.MaxValue ? "check.negative" : "check.outOfRange", ("name", line.Name), ("number", number), ("most", most)));
    }

    private static void PlaceIs(CheckedLine line, string value, int at, FaultList faults)
    {
        var parts = value.Split(';');
        var (latitude, longitude) = (0d, 0d);
        if (parts.Length != 2
            || !double.TryParse(parts[0], NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture, out latitude)
            || !double.TryParse(parts[1], NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture, out longitude))
            faults.Add(line, at, "geoForm", FaultSeverity.Error, "RFC 5545 3.8.1.6", ("text", LineCheck.Short(value)));
        else if (Math.Abs(latitude) > 90 || Math.Abs(longitude) > 180)
            faults.Add(line, at, "geoRange", FaultSeverity.Error, "RFC 5545 3.8.1.6", ("text", LineCheck.Short(value)));
    }

    private static void AddressIs(CheckedLine line, string type, string value, int at, FaultList faults)
    {
        if (!Uri.TryCreate(value, UriKind.Absolute, out var address) || value.Any(char.IsWhiteSpace))
            faults.Add(line, at, "uriForm", FaultSeverity.Error, "RFC 5545 3.3.13", ("name", line.Name), ("text", LineCheck.Short(value)));
        else if (type == "CAL-ADDRESS" && address.Scheme != "mailto")
            faults.Add(line, at, "addressWithoutMailto", FaultSeverity.Note, "RFC 5545 3.3.3", ("name", line.Name));
    }

    private static void BytesAre(CheckedLine line, string value, int at, FaultList faults)
    {
        if (!string.Equals(line["ENCODING"], "BASE64", StringComparison.OrdinalIgnoreCase))
            faults.Add(line, 0, "binaryEncoding", FaultSeverity.Error, "RFC 5545 3.3.1", ("name", line.Name));
        else if (value.Length % 4 != 0 || value.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter is not ('+' or '/' or '=')))
            faults.Add(line, at, "base64Form", FaultSeverity.Error, "RFC 5545 3.3.1", ("name", line.Name));
    }

    /// <summary>RFC 5545 3.3.11: a backslash before what has to have one, and before nothing else.</summary>
    private static void TextIs(CheckedLine line, bool isList, FaultList faults)
    {
        for (var at = 0; at < line.Value.Length; at++)
        {
            if (line.Value[at] == '\\')
            {
                at++;
                if (at >= line.Value.Length || line.Value[at] is not ('\\' or ';' or ',' or 'n' or 'N'))
                {
                    faults.Add(line, line.ValueAt + at - 1, "escapeUnknown", FaultSeverity.Error, "RFC 5545 3.3.11", ("name", line.Name),
                        ("text", at < line.Value.Length ? $"\\{line.Value[at]}" : "\\"));
                    return;
                }
            }
            else if (line.Value[at] == ';' || (line.Value[at] == ',' && !isList))
            {
                faults.Add(line, line.ValueAt + at, "unescaped", FaultSeverity.Error, "RFC 5545 3.3.11", ("name", line.Name),
                    ("text", line.Value[at].ToString()));
                return;
            }
        }
    }

    /// <summary>What single properties want besides.</summary>
    private static void Own(OpenComponent within, CheckedLine line, PropertyKind kind, FaultList faults)
    {
        switch (line.Name)
        {
            case "STATUS" when Specifications.Statuses.TryGetValue(within.Name, out var words)
                && !words.Contains(line.Value.Trim().ToUpperInvariant()):
                Unknown(line, kind.Clause, words, FaultSeverity.Error, faults);
                break;
            case "CLASS" when !Specifications.Words("PUBLIC PRIVATE CONFIDENTIAL").Contains(line.Value.Trim().ToUpperInvariant())
                && !line.Value.StartsWith("X-", StringComparison.OrdinalIgnoreCase):
                Unknown(line, kind.Clause, ["PUBLIC", "PRIVATE", "CONFIDENTIAL"], FaultSeverity.Note, faults);
                break;
            case "ACTION" when !Specifications.Words("AUDIO DISPLAY EMAIL").Contains(line.Value.Trim().ToUpperInvariant()):
                Unknown(line, kind.Clause, ["AUDIO", "DISPLAY", "EMAIL"], FaultSeverity.Note, faults);
                break;
            case "COLOR" when line.Value.Length == 0 || !line.Value.All(char.IsAsciiLetter):
                faults.Add(line, line.ValueAt, "colourName", FaultSeverity.Error, kind.Clause, ("text", LineCheck.Short(line.Value)));
                break;
            case "UID" when line.Value.Trim().Length == 0:
                faults.Add(line, line.ValueAt, "uidEmpty", FaultSeverity.Error, kind.Clause);
                break;
            case "REQUEST-STATUS" when !line.Value.Contains(';', StringComparison.Ordinal) || !char.IsAsciiDigit(line.Value[0]):
                faults.Add(line, line.ValueAt, "requestStatusForm", FaultSeverity.Error, kind.Clause, ("text", LineCheck.Short(line.Value)));
                break;
            case "ATTENDEE" when within.Name is "VEVENT" or "VTODO" or "VJOURNAL"
                && string.Equals(within.Calendar.Value("METHOD"), "PUBLISH", StringComparison.OrdinalIgnoreCase):
                faults.Add(line, 0, "attendeeInPublish", FaultSeverity.Error, "RFC 5546 3.2.1");
                break;
        }
    }
}
