namespace Valtro.Core.ICalendar.Reading;

/// <summary>A component of somebody's file (RFC 5545 3.6), as it stands there.</summary>
/// <param name="Name">In capitals, such as VEVENT.</param>
/// <param name="Line">Of the file, from 1.</param>
public sealed record ForeignComponent(string Name, int Line)
{
    public List<ForeignLine> Properties { get; } = [];

    /// <summary>The first of those within it.</summary>
    public List<ForeignComponent> Inner { get; } = [];

    public ForeignLine? this[string name] => Properties.Find(one => one.Name == name);

    public IEnumerable<ForeignLine> All(string name) => Properties.Where(one => one.Name == name);
}

/// <summary>Reads one component after the other; what stands about the whole calendar is kept aside.</summary>
/// <remarks>An end that is missing is where the next of the kind begins, or the file ends; one too many ends nothing.</remarks>
public sealed class ComponentReader(LineReader lines)
{
    /// <summary>Of those within a component: hundreds of alarms are no reason to hold them all.</summary>
    private const int MostInner = 20;

    private const int MostProperties = 2_000;

    /// <summary>Before a file that has no component by then is none of the kind.</summary>
    private const int LongestPreface = 1_000;

    private readonly List<ForeignComponent> _open = [];
    private ForeignLine? _ahead;
    private int _seen;

    /// <summary>Properties of the calendar itself (RFC 5545 3.7).</summary>
    public ForeignComponent Calendar { get; } = new("VCALENDAR", 1);

    /// <summary>The file is one of the kind.</summary>
    public bool IsCalendar { get; private set; }

    /// <returns>The next component within the calendar; null at the end.</returns>
    public ForeignComponent? Read()
    {
        while (TakeLine() is { } line)
        {
            _seen++;
            switch (line.Name)
            {
                case "BEGIN":
                    IsCalendar = true;
                    if (Begin(line) is { } unfinished)
                        return unfinished;
                    break;
                case "END":
                    if (End(line.Value.Trim().ToUpperInvariant()) is { } finished)
                        return finished;
                    break;
                default:
                    if (!IsCalendar && _seen > LongestPreface)
                        return null;
                    var owner = _open.Count > 0 ? _open[^1] : Calendar;
                    if (owner.Properties.Count < MostProperties)
                        owner.Properties.Add(line);
                    break;
            }
        }
        var last = _open.Count > 0 ? _open[0] : null;
        _open.Clear();
        return last;
    }

    private ForeignLine? TakeLine()
    {
        var line = _ahead ?? lines.Read();
        _ahead = null;
        return line;
    }

    /// <returns>One whose end is missing, where the next begins.</returns>
    private ForeignComponent? Begin(ForeignLine line)
    {
        var name = line.Value.Trim().ToUpperInvariant();
        if (name == "VCALENDAR")
            return null;
        if (_open.Count > 0 && name is "VEVENT" or "VTODO" or "VJOURNAL" or "VTIMEZONE" or "VFREEBUSY")
        {
            var unfinished = _open[0];
            _open.Clear();
            _ahead = line;
            return unfinished;
        }
        var begun = new ForeignComponent(name, line.Line);
        if (_open.Count > 0 && _open[^1].Inner.Count < MostInner)
            _open[^1].Inner.Add(begun);
        _open.Add(begun);
        return null;
    }

    private ForeignComponent? End(string name)
    {
        var place = _open.FindLastIndex(one => one.Name == name);
        if (name == "VCALENDAR" && _open.Count > 0)
            place = 0;
        if (place < 0)
            return null;
        var ended = _open[place];
        _open.RemoveRange(place, _open.Count - place);
        return place == 0 ? ended : null;
    }
}
