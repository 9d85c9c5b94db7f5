using Valtro.Core.Speaking;

namespace Valtro.Core.ICalendar.Checking;

/// <summary>Says what is wrong with an iCalendar stream, line by line (RFC 5545, 5546, 6868, 7529, 7953, 7986, 9073, 9074, 9253), and which
/// of what it may say programs commonly misread.</summary>
/// <remarks>The file is read once, and not kept: only names of events and zones are, to hold them against each other.</remarks>
public sealed class CalendarCheck
{
    private readonly FaultList _faults = new();
    private readonly Stack<OpenComponent> _open = new();
    private readonly ComponentCheck _components;
    private bool _hasCalendar;
    /// <summary>At these most programs give the whole file up.</summary>
    private static readonly string[] GivenUp = ["noProperty", "noValue", "parameterWithoutValue", "quoteNeverCloses", "outsideCalendar",
        "neverEnds", "endOfNothing", "lineEndsWithReturn"];

    private readonly HashSet<string> _events = [];
    private int _read;

    private CalendarCheck() => _components = new ComponentCheck(_faults);

    public static CheckResult Of(Stream file) => new CalendarCheck().Run(file);

    private CheckResult Run(Stream file)
    {
        var lines = new LineCheck(file, _faults);
        while (lines.Read() is { } line)
        {
            switch (line.Name)
            {
                case "BEGIN":
                    Begin(line);
                    break;
                case "END":
                    End(line);
                    break;
                default:
                    if (_open.TryPeek(out var within))
                        PropertyCheck.Add(within, line, _faults);
                    else
                        _faults.Add(line, 0, "outsideCalendar", FaultSeverity.Error, "RFC 5545 3.4", ("name", LineCheck.Short(line.Name)));
                    break;
            }
        }
        while (_open.TryPop(out var open))
            _faults.Add(open.Begin, 0, "neverEnds", FaultSeverity.Error, "RFC 5545 3.6", ("name", open.Name));
        if (!_hasCalendar)
            _faults.Add("noCalendar", FaultSeverity.Error, 1, 1, "RFC 5545 3.4");
        return _faults.Result(lines.Count, _read, _faults.HasAny(GivenUp) ? 0 : _events.Count);
    }

    private void Begin(CheckedLine line)
    {
        var name = line.Value.Trim().ToUpperInvariant();
        _open.TryPeek(out var parent);
        if (Specifications.Components.TryGetValue(name, out var kind))
        {
            var isIn = parent?.Name ?? "";
            // What stands within something unknown is its business.
            if (parent is null ? name != "VCALENDAR" : parent.Kind is not null && !kind.Within.Contains(isIn))
                _faults.Add(line, line.ValueAt, "componentMisplaced", FaultSeverity.Error, kind.Clause, ("name", name),
                    ("within", isIn.Length > 0 ? isIn : Saying.Of("check.nothing")));
        }
        else if (!name.StartsWith("X-", StringComparison.Ordinal))
            _faults.Add(line, line.ValueAt, "componentUnknown", FaultSeverity.Note, "RFC 5545 3.6", ("name", LineCheck.Short(name)));
        if (name == "VCALENDAR")
            _hasCalendar = true;
        if (name is "VEVENT" or "VTODO" or "VJOURNAL" or "VFREEBUSY")
            _read++;
        _open.Push(new OpenComponent(name, line, kind, parent));
    }

    private void End(CheckedLine line)
    {
        var name = line.Value.Trim().ToUpperInvariant();
        if (!_open.Any(open => open.Name == name))
        {
            _faults.Add(line, 0, "endOfNothing", FaultSeverity.Error, "RFC 5545 3.6", ("name", LineCheck.Short(name)));
            return;
        }
        while (_open.TryPop(out var open))
        {
            if (open.Name != name)
                _faults.Add(open.Begin, 0, "neverEnds", FaultSeverity.Error, "RFC 5545 3.6", ("name", open.Name));
            _components.Ended(open);
            if (open is { Name: "VEVENT", Parent.Name: "VCALENDAR" } && open.IsRead)
                _events.Add(open.Value("UID") ?? $"line {open.Begin.Position(0).Line}");
            if (open.Name == name)
                return;
        }
    }
}
