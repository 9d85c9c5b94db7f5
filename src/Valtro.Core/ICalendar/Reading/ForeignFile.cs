using NodaTime;

namespace Valtro.Core.ICalendar.Reading;

/// <summary>Somebody's calendar file (RFC 5545), as it is in the wild.</summary>
public sealed class ForeignFile
{
    private readonly List<ForeignComponent> _zones = [];
    private readonly List<Named> _named = [];

    /// <summary>What stands about the whole calendar: its name (RFC 7986 5.1, or as programs wrote it before).</summary>
    public string Name { get; }

    /// <summary>Of its times that say none (as programs write it; no standard knows it).</summary>
    public string? Zone { get; }

    /// <summary>Some time in it says no zone.</summary>
    public bool NeedsZone { get; private set; }

    /// <summary>Goes through it once. When its events are, is known only with the zones, which may stand behind them.</summary>
    /// <param name="seen">Told of each component that was read.</param>
    /// <exception cref="RuleException">It is no calendar file.</exception>
    public ForeignFile(TextReader text, Action? seen = null)
    {
        var known = new Dictionary<string, Named>(StringComparer.Ordinal);
        var reader = new ComponentReader(new LineReader(text));
        while (reader.Read() is { } component)
        {
            seen?.Invoke();
            if (component.Name == "VTIMEZONE")
                _zones.Add(component);
            else
                Add(component, known);
        }
        if (!reader.IsCalendar)
            throw new RuleException("file", "intake.noCalendar");
        Name = Texts.Kept(ForeignValues.Text((reader.Calendar["NAME"] ?? reader.Calendar["X-WR-CALNAME"])?.Value ?? ""), Texts.LongestName);
        Zone = reader.Calendar["X-WR-TIMEZONE"]?.Value.Trim();
    }

    /// <summary>All of its events, each once, in the order in which they begin in the file.</summary>
    /// <param name="usual">Where times without a zone are meant.</param>
    public IEnumerable<ForeignEntry> Read(DateTimeZone usual)
    {
        var zones = new ForeignZones(_zones, usual);
        return _named.SelectMany(one => one.Entries(zones, usual));
    }

    private void Add(ForeignComponent component, Dictionary<string, Named> known)
    {
        try
        {
            Add(ForeignEventReader.Read(component), known);
        }
        catch (RuleException refused)
        {
            var title = Texts.Kept(ForeignValues.Text(component["SUMMARY"]?.Value ?? ""), Texts.LongestTitle);
            var uid = Texts.Kept(component["UID"]?.Value ?? "", 500);
            _named.Add(new Named(uid)
            {
                Refused = ForeignEntry.Refused(uid.Length > 0 ? uid : $"{component.Line}", component.Line, title, refused),
            });
        }
    }

    private void Add(ForeignEvent says, Dictionary<string, Named> known)
    {
        NeedsZone |= says.NeedsZone;
        // Without a name it is known again by what it says.
        var uid = says.Uid.Length > 0 ? says.Uid : $"{says.Title} {says.Start.Local:uuuu-MM-dd'T'HH:mm}";
        if (!known.TryGetValue(uid, out var named))
            _named.Add(known[uid] = named = new Named(uid));
        if (says.RecurrenceId is not null)
            named.Dates.Add(says);
        else
            named.Wholes.Add(says);
    }

    /// <summary>All that a file says under one name.</summary>
    private sealed class Named(string uid)
    {
        public List<ForeignEvent> Wholes { get; } = [];

        public List<ForeignEvent> Dates { get; } = [];

        public ForeignEntry? Refused { get; init; }

        public IEnumerable<ForeignEntry> Entries(ForeignZones zones, DateTimeZone usual)
        {
            if (Refused is { } refused)
                return [refused];
            if (Wholes.Count == 0)
                return Latest().SelectMany(date => ForeignSeries.Of($"{uid}#{NameOf(date)}",
                    date with { RecurrenceId = null, Remarks = [.. date.Remarks, Speaking.Saying.Of("intake.dateAlone")] }, [], zones, usual));
            // A later version counts; what begins elsewhere under the same name is another event.
            var apart = Wholes.GroupBy(one => one.Start).Select(group => group.MaxBy(one => one.Sequence)!)
                .OrderByDescending(one => one.Recurs).ThenByDescending(one => one.Sequence).ToArray();
            var isVersion = apart.Select(one => one.Sequence).Distinct().Count() == apart.Length && apart.Length > 1;
            if (isVersion)
                apart = [apart.MaxBy(one => one.Sequence)!];
            return apart.SelectMany((one, index) => ForeignSeries.Of(index == 0 ? uid : $"{uid}#{NameOf(one)}",
                apart.Length == 1 && Wholes.Count == 1
                    ? one
                    : one with { Remarks = [.. one.Remarks, Speaking.Saying.Of("intake.nameTwice")] },
                index == 0 ? [.. Latest()] : [],
                zones, usual));
        }

        /// <summary>What is said of each date in its latest version.</summary>
        private IEnumerable<ForeignEvent> Latest() =>
            Dates.GroupBy(date => date.RecurrenceId).Select(group => group.MaxBy(date => date.Sequence)!);

        private static string NameOf(ForeignEvent one) =>
            Recurrence.DateName.Of((one.RecurrenceId ?? one.Start).Local, (one.RecurrenceId ?? one.Start).IsDate);
    }
}
