using System.Globalization;
using NodaTime;
using Valtro.Application.Events;
using Valtro.Core;
using Valtro.Core.Events;
using Valtro.Core.ICalendar.Reading;
using Valtro.Core.Intake;
using Valtro.Core.Typing;
using Calendar = Valtro.Core.Calendars.Calendar;

namespace Valtro.Application.Intake;

/// <summary>Reads sheets of events that people bring: each line is one.</summary>
internal sealed class SheetReading
{
    private const int Shown = 4;

    private readonly IntakeGround _ground;
    private readonly RowReading _rows;
    private readonly DateTimeZone _zone;

    private SheetReading(IntakeGround ground) =>
        (_ground, _rows, _zone) = (ground, new RowReading(ground.House, ground.Culture, ground.Today, ground.Usual, ground.RichTexts),
            ground.ZoneOr(null));

    /// <inheritdoc cref="CalendarFileReading.Read"/>
    public static (IReadOnlyList<IntakeEntry> Entries, IntakeFound Found) Read(
        string name, byte[] content, IntakeGround ground, Action<int, int> seen)
    {
        var answers = ground.Answers;
        var lines = new List<(string[] Cells, int Line)>();
        foreach (var (cells, index) in TableFiles.Lines(name, content, answers.Encoding).Select((cells, index) => (cells, index)))
        {
            if (cells.All(string.IsNullOrWhiteSpace))
                continue;
            lines.Add((cells, index + 1));
            if (lines.Count > Store.IntakeStore.MostLines + 1)
                throw new RuleException("file", "intake.tooManyLines", ("most", Store.IntakeStore.MostLines));
        }
        if (lines.Count == 0)
            throw new RuleException("file", "intake.emptySheet");
        return new SheetReading(ground).Read(lines, name, content, seen);
    }

    private (IReadOnlyList<IntakeEntry> Entries, IntakeFound Found) Read(
        List<(string[] Cells, int Line)> lines, string name, byte[] content, Action<int, int> seen)
    {
        var answers = _ground.Answers;
        var guessed = TableHeads.Of(lines[0].Cells);
        var hasHead = answers.HasHead ?? (guessed.HasHead || LooksLikeHead(lines));
        var first = lines[0].Cells;
        var rows = hasHead ? lines[1..] : lines;
        var columns = answers.Columns.Count > 0
            ? answers.Columns
            : SheetColumns.Guess(guessed, [.. rows.Take(50).Select(row => row.Cells)], _ground.Culture, _ground.Today);
        var heads = TableHeads.Chosen(columns, hasHead);
        var (shown, isAmbiguous) = SheetDates.OrderOf(rows.SelectMany(row => row.Cells.Where((_, index) =>
            index < columns.Count && columns[index] is TableColumn.Date or TableColumn.LastDay or TableColumn.Due)));
        var order = answers.DayOrder != DayOrder.AsUsual ? answers.DayOrder : shown ?? DayOrder.AsUsual;
        var times = new Dictionary<string, int>(StringComparer.Ordinal);
        var entries = new List<IntakeEntry>();
        foreach (var (cells, line) in rows)
        {
            entries.Add(EntryOf(heads.RowOf(cells, _ground.Culture, order), line, times));
            seen(entries.Count, rows.Count);
        }
        return (entries, new IntakeFound
        {
            Encoding = TableFiles.IsWorkbook(content) ? "" : answers.Encoding ?? ForeignText.Guess(content),
            NeedsZone = true,
            Zone = _zone.Id,
            Heads = [.. first.Select((head, index) => hasHead && head.Trim().Length > 0
                ? Texts.Kept(head, 60)
                : (index + 1).ToString(CultureInfo.InvariantCulture))],
            Sample = [.. rows.Take(Shown).Select(row => (IReadOnlyList<string>)[.. row.Cells.Select(cell => Texts.Kept(cell, 60))])],
            Columns = [.. columns.Take(first.Length)],
            HasHead = hasHead,
            AsksDayOrder = isAmbiguous && shown is null && !SheetDates.IsOrderKnown(_ground.Culture),
            Make = $"sheet {string.Join('|', first.Select(head => hasHead ? head.Trim().ToUpperInvariant() : ""))}",
        });
    }

    /// <summary>Names have no numbers, and lines of events have some.</summary>
    private static bool LooksLikeHead(List<(string[] Cells, int Line)> lines) =>
        lines.Count > 1 && !lines[0].Cells.Any(cell => cell.Any(char.IsAsciiDigit))
        && lines.Skip(1).Take(5).All(line => line.Cells.Any(cell => cell.Any(char.IsAsciiDigit)));

    private IntakeEntry EntryOf(TableRow row, int line, Dictionary<string, int> times)
    {
        var words = new[] { row.Category?.Trim() ?? "" }.Where(word => word.Length > 0).ToArray();
        string[] calendarWords = _ground.Answers.CalendarBy == CalendarBy.Category ? words
            : row.Calendar is { Length: > 0 } named ? [named.Trim()] : [];
        // Without a name of its own a line is known again by what it is and when; the second of the same is another.
        var uid = row.Id is { Length: > 0 } id ? id.Trim() : string.Join(' ',
            new[] { row.Title, row.Date, row.Calendar }.Select(cell => cell?.Trim().ToUpperInvariant() ?? ""));
        var time = times[uid] = times.GetValueOrDefault(uid) + 1;
        return new IntakeEntry(Texts.Kept(time > 1 ? $"{uid} {time}" : uid, 500), line, Texts.Kept(row.Title ?? "", Texts.LongestTitle),
            calendarWords, words, calendar => Make(row, calendar));
    }

    private (CalendarEvent? Event, IReadOnlyList<Core.Speaking.Saying> Remarks, IReadOnlyList<Refusal> Refusals) Make(
        TableRow row, Calendar calendar)
    {
        var refusals = new RefusalList();
        var read = refusals.Try(() => _rows.Read(WithWords(row), calendar, refusals, _ground.Answers.Zone is null ? null : _zone));
        return read?.Content is { } content
            ? (new CalendarEvent(Guid.Empty, calendar.Id, default, content, EventState.Live, default), [], [])
            : (null, [], refusals.All);
    }

    /// <summary>What is no category here becomes a tag.</summary>
    private TableRow WithWords(TableRow row)
    {
        if (row.Category?.Trim() is not { Length: > 0 } word)
            return row;
        var found = _ground.CategoryOf(word);
        var category = found.Id is { } id ? _ground.House.Categories.FirstOrDefault(one => one.Id == id) : null;
        return category is not null ? row with { Category = category.Name }
            : found.IsLeftOut ? row with { Category = null }
            : row with { Category = null, Tags = string.IsNullOrWhiteSpace(row.Tags) ? word : $"{row.Tags}, {word}" };
    }
}
