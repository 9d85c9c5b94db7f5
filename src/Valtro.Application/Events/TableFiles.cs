using System.Globalization;
using System.Text;
using MiniExcelLibs;
using MiniExcelLibs.Csv;
using Valtro.Core;
using Valtro.Core.Typing;

namespace Valtro.Application.Events;

/// <summary>A sheet, or what was copied from one, as rows.</summary>
/// <param name="Columns">That it has, in its order.</param>
/// <param name="HasHead">Its first line named them.</param>
/// <param name="Unused">Names of columns of no use here.</param>
public sealed record TableFileResponse(
    IReadOnlyList<TableRow> Rows, IReadOnlyList<TableColumn> Columns, bool HasHead, IReadOnlyList<string> Unused);

/// <summary>Reads tables that come from elsewhere: sheets (ISO/IEC 29500), values with separators (RFC 4180), copied cells.</summary>
public static class TableFiles
{
    private const int MostColumns = 100;

    /// <summary>Cells as they are copied from a sheet: tabs between columns.</summary>
    public static TableFileResponse ReadCopied(string text) => ReadValues(Encoding.UTF8.GetBytes(text), '\t');

    /// <param name="name">The file's, by which its kind is known.</param>
    /// <exception cref="RuleException">It is no table that can be read, or has too many lines.</exception>
    public static TableFileResponse Read(string name, byte[] file)
    {
        try
        {
            return name.EndsWith(".xlsx", StringComparison.OrdinalIgnoreCase)
                ? Table(new MemoryStream(file).Query(excelType: ExcelType.XLSX))
                : ReadValues(file, Separator(file));
        }
        catch (Exception unreadable) when (unreadable is not RuleException and not OutOfMemoryException)
        {
            throw new RuleException("file", "row.unreadable", ("name", name));
        }
    }

    private static TableFileResponse ReadValues(byte[] file, char separator) => Table(new MemoryStream(file).Query(
        excelType: ExcelType.CSV,
        configuration: new CsvConfiguration
        {
            Seperator = separator,
            StreamReaderFunc = stream => new StreamReader(stream, EncodingOf(file)),
        }));

    /// <summary>What stands most often in the first line.</summary>
    private static char Separator(byte[] file)
    {
        var first = EncodingOf(file).GetString(file, 0, Math.Min(file.Length, 4_096)).Split('\n')[0];
        return new[] { ';', '\t', ',' }.MaxBy(separator => first.Count(character => character == separator));
    }

    /// <summary>UTF-8 where it is that; else what older programs for sheets write in Europe.</summary>
    private static Encoding EncodingOf(byte[] file)
    {
        try
        {
            new UTF8Encoding(false, throwOnInvalidBytes: true).GetCharCount(file);
            return Encoding.UTF8;
        }
        catch (DecoderFallbackException)
        {
            return Encoding.Latin1;
        }
    }

    private static TableFileResponse Table(IEnumerable<object> lines)
    {
        var rows = new List<TableRow>();
        TableHeads? heads = null;
        foreach (var line in lines.Cast<IDictionary<string, object?>>())
        {
            string[] cells = [.. line.Values.Take(MostColumns).Select(Text)];
            if (cells.All(string.IsNullOrWhiteSpace))
                continue;
            if (heads is null)
            {
                heads = TableHeads.Of(cells);
                if (heads.HasHead)
                    continue;
            }
            rows.Add(heads.RowOf(cells, CultureInfo.CurrentUICulture));
            if (rows.Count > TableRow.Most)
                throw new RuleException("rows", "row.tooManyInFile", ("most", TableRow.Most));
        }
        return new TableFileResponse(
            rows, [.. (heads?.Columns ?? []).OfType<TableColumn>()], heads?.HasHead ?? false, heads?.Unused ?? []);
    }

    /// <summary>A cell as somebody would type it: sheets keep days and times as numbers.</summary>
    private static string Text(object? cell) => cell switch
    {
        null => "",
        DateTime { Year: < 1901 } time => time.ToString("HH:mm", CultureInfo.InvariantCulture),
        DateTime moment => moment.ToString(
            moment.TimeOfDay == TimeSpan.Zero ? "yyyy-MM-dd" : "yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture),
        TimeSpan time => time.ToString(@"hh\:mm", CultureInfo.InvariantCulture),
        double part when part is > 0 and < 1 => Text(TimeSpan.FromMinutes(Math.Round(part * 24 * 60))),
        IFormattable value => value.ToString(null, CultureInfo.InvariantCulture),
        _ => cell.ToString() ?? "",
    };
}
