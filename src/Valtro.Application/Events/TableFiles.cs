using System.Globalization;
using System.IO.Compression;
using System.Text;
using MiniExcelLibs;
using MiniExcelLibs.Csv;
using Valtro.Core;
using Valtro.Core.ICalendar.Reading;
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

    /// <summary>Bytes of a sheet when it is unpacked.</summary>
    private const long MostUnpacked = 400_000_000;

    /// <summary>Cells as they are copied from a sheet: tabs between columns.</summary>
    public static TableFileResponse ReadCopied(string text) => ReadValues(Encoding.UTF8.GetBytes(text), '\t');

    /// <param name="name">The file's, for the refusal.</param>
    /// <exception cref="RuleException">It is no table that can be read, or has too many lines.</exception>
    public static TableFileResponse Read(string name, byte[] file) => Table(Lines(name, file));

    /// <summary>Its lines, each with its cells, as they are read.</summary>
    /// <param name="encoding">One of <see cref="ForeignText.Encodings"/>; null for what it is most probably.</param>
    /// <exception cref="RuleException">It is no table that can be read.</exception>
    public static IEnumerable<string[]> Lines(string name, byte[] file, string? encoding = null)
    {
        using var lines = Opened(name, file, encoding).GetEnumerator();
        while (Read(name, lines.MoveNext))
            yield return Read(name, () => lines.Current);
    }

    private static T Read<T>(string name, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception unreadable) when (unreadable is not RuleException and not OutOfMemoryException)
        {
            throw new RuleException("file", "row.unreadable", ("name", name));
        }
    }

    /// <summary>A package (ISO/IEC 29500-2), whatever it is called.</summary>
    public static bool IsWorkbook(ReadOnlySpan<byte> file) => file is [(byte)'P', (byte)'K', ..];

    private static IEnumerable<string[]> Opened(string name, byte[] file, string? encoding)
    {
        if (!IsWorkbook(file))
            return Values(file, Separator(file, encoding), encoding);
        return Read(name, () => UnpackedSize(file)) > MostUnpacked
            ? throw new RuleException("file", "row.unreadable", ("name", name))
            : Cells(new MemoryStream(file).Query(excelType: ExcelType.XLSX));
    }

    private static long UnpackedSize(byte[] file)
    {
        using var parts = new ZipArchive(new MemoryStream(file));
        return parts.Entries.Sum(part => part.Length);
    }

    private static TableFileResponse ReadValues(byte[] file, char separator) => Table(Values(file, separator, null));

    private static IEnumerable<string[]> Values(byte[] file, char separator, string? encoding) => Cells(new MemoryStream(file).Query(
        excelType: ExcelType.CSV,
        configuration: new CsvConfiguration { Seperator = separator, StreamReaderFunc = _ => ForeignText.Open(file, encoding) }));

    /// <summary>What stands most often in the first line.</summary>
    private static char Separator(byte[] file, string? encoding)
    {
        var first = ForeignText.Open(file, encoding).ReadLine() ?? "";
        return new[] { ';', '\t', ',' }.MaxBy(separator => first.Count(character => character == separator));
    }

    private static IEnumerable<string[]> Cells(IEnumerable<object> lines) =>
        lines.Cast<IDictionary<string, object?>>().Select(line => line.Values.Take(MostColumns).Select(Text).ToArray());

    private static TableFileResponse Table(IEnumerable<string[]> lines)
    {
        var rows = new List<TableRow>();
        TableHeads? heads = null;
        foreach (var cells in lines)
        {
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
