using System.Globalization;
using Valtro.Core.Intake;
using Valtro.Core.Speaking;

namespace Valtro.Core.Typing;

/// <summary>Columns of a table of events.</summary>
public enum TableColumn
{
    Date,
    From,
    To,
    Title,
    Place,
    Calendar,
    LastDay,
    Repeat,
    Description,
    Category,
    Tags,
    Links,

    /// <summary>The day on which it is due: a deadline.</summary>
    Due,

    /// <summary>What the sheet knows it by, whatever else of it changes.</summary>
    Id,
}

/// <summary>A table as it came from a sheet: in which columns what stands, whatever their order.</summary>
/// <param name="Columns">That it has, in its order; null where a column is of no use here.</param>
/// <param name="HasHead">Its first line names the columns.</param>
/// <param name="Unused">Names of columns of no use here.</param>
public sealed record TableHeads(IReadOnlyList<TableColumn?> Columns, bool HasHead, IReadOnlyList<string> Unused)
{
    private static readonly TableColumn[] Usual =
        [TableColumn.Date, TableColumn.From, TableColumn.To, TableColumn.Title, TableColumn.Place, TableColumn.Calendar];

    /// <summary>What names columns, in whichever language of the catalogues a sheet is.</summary>
    private static readonly Dictionary<string, TableColumn> Names = (from language in Speech.Languages
                                                                     let speech = Speech.For(language)
                                                                     from column in Enum.GetValues<TableColumn>()
                                                                     from name in speech.Say($"heads.{NameOf(column)}").Split('|')
                                                                     select (name, column))
        .DistinctBy(one => one.name, StringComparer.OrdinalIgnoreCase)
        .ToDictionary(one => one.name, one => one.column, StringComparer.OrdinalIgnoreCase);

    /// <summary>A first line names the columns where two of its cells do, and one of them a day or a title; else they are the usual
    /// ones.</summary>
    public static TableHeads Of(IReadOnlyList<string> first)
    {
        var named = first.Select(cell => Names.TryGetValue(cell.Trim().TrimEnd(':', '*'), out var column) ? column : default(TableColumn?))
            .ToArray();
        // A column that comes twice counts where it comes first.
        for (var index = 0; index < named.Length; index++)
        {
            if (Array.IndexOf(named, named[index]) < index)
                named[index] = null;
        }
        var isHead = named.Count(column => column is not null) >= 2
            && named.Any(column => column is TableColumn.Date or TableColumn.Due or TableColumn.Title);
        return isHead
            ? new TableHeads(named, true, [.. first.Where((name, index) => named[index] is null && !string.IsNullOrWhiteSpace(name))])
            : new TableHeads([.. Usual.Take(Math.Max(first.Count, 1)).Select(column => (TableColumn?)column)], false, []);
    }

    /// <summary>The same, as somebody says what its columns are.</summary>
    public static TableHeads Chosen(IReadOnlyList<TableColumn?> columns, bool hasHead) => new(columns, hasHead, []);

    /// <summary>A line of the sheet as a row.</summary>
    /// <param name="culture">In which rows are read.</param>
    /// <param name="order">Of the numbers of its days.</param>
    public TableRow RowOf(IReadOnlyList<string> cells, CultureInfo culture, DayOrder order = DayOrder.AsUsual)
    {
        string? Cell(TableColumn column)
        {
            for (var index = 0; index < Columns.Count && index < cells.Count; index++)
            {
                if (Columns[index] == column)
                    return cells[index].Trim();
            }
            return null;
        }
        string? Day(TableColumn column) => Cell(column) is { } cell ? SheetDates.Plain(cell, order) : null;
        // A sheet may keep day and time in one cell.
        var (date, from) = SheetDates.Apart(Day(TableColumn.Date), Day(TableColumn.From));
        var (lastDay, to) = SheetDates.Apart(Day(TableColumn.LastDay), Day(TableColumn.To));
        var isDue = string.IsNullOrEmpty(date) && Cell(TableColumn.Due) is { Length: > 0 };
        if (isDue)
            (date, from) = SheetDates.Apart(Day(TableColumn.Due), from);
        return new TableRow(
            date, from, isDue ? Grammar.Of(culture).First("due") : to,
            Cell(TableColumn.Title), Cell(TableColumn.Place), Cell(TableColumn.Calendar))
        {
            LastDay = lastDay,
            Id = Cell(TableColumn.Id),
            Repeat = Cell(TableColumn.Repeat),
            Description = Cell(TableColumn.Description),
            Category = Cell(TableColumn.Category),
            Tags = Cell(TableColumn.Tags),
            Links = Cell(TableColumn.Links),
        };
    }

    private static string NameOf(TableColumn column) => char.ToLowerInvariant(column.ToString()[0]) + column.ToString()[1..];
}
