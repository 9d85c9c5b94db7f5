using System.Globalization;
using NodaTime;
using Valtro.Core.Typing;

namespace Valtro.Application.Intake;

/// <summary>Guesses what the columns of a sheet hold: by their names, else by what stands in them.</summary>
internal static class SheetColumns
{
    /// <param name="guessed">By the names in its first line.</param>
    /// <param name="rows">Some of its lines.</param>
    public static IReadOnlyList<TableColumn?> Guess(TableHeads guessed, IReadOnlyList<string[]> rows, CultureInfo culture, LocalDate today)
    {
        var width = rows.Count == 0 ? guessed.Columns.Count : rows.Max(row => row.Length);
        var columns = Enumerable.Range(0, width).Select(index =>
            guessed.HasHead ? guessed.Columns.ElementAtOrDefault(index) : null).ToArray();
        bool Has(TableColumn column) => columns.Contains(column);
        string[] Cells(int index) => [.. rows.Select(row => row.ElementAtOrDefault(index)?.Trim() ?? "").Where(cell => cell.Length > 0)];
        void Give(TableColumn column, Func<string[], double> fits)
        {
            var best = Enumerable.Range(0, width).Where(index => columns[index] is null)
                .Select(index => (Index: index, Fit: Cells(index) is { Length: > 0 } cells ? fits(cells) : 0))
                .OrderByDescending(one => one.Fit).FirstOrDefault();
            if (best.Fit > 0.6)
                columns[best.Index] = column;
        }
        bool IsDay(string cell) =>
            cell.Any(char.IsAsciiDigit) && Typed.Days(SheetDates.Apart(cell, null).Day ?? "", culture, today).Count > 0;
        bool IsTime(string cell) =>
            cell.Length <= 12 && cell.Any(one => one is ':' or '.' or 'm' or 'h') && Typed.Time(cell, culture) is not null;
        // A column of starts may have days and times in one cell.
        var startsSayDays = Has(TableColumn.From) && !Cells(Array.IndexOf(columns, TableColumn.From)).All(IsTime);
        if (!Has(TableColumn.Date) && !Has(TableColumn.Due) && !startsSayDays)
            Give(TableColumn.Date, cells => Share(cells, IsDay));
        if (!Has(TableColumn.From))
            Give(TableColumn.From, cells => Share(cells, IsTime));
        if (!Has(TableColumn.To) && Has(TableColumn.From))
            Give(TableColumn.To, cells => Share(cells, IsTime));
        if (!Has(TableColumn.Title))
            Give(TableColumn.Title, cells => Share(cells, cell => cell.Any(char.IsLetter) && !IsDay(cell) && !IsTime(cell))
                * (0.7 + Math.Min(30, cells.Average(cell => cell.Length)) / 100));
        return columns;
    }

    private static double Share(string[] cells, Func<string, bool> fits) => cells.Count(fits) / (double)cells.Length;
}
