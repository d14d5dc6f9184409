using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using MiniExcelLibs;

namespace Solvenda.Formats.Tables;

/// <summary>A table that cannot be read, and why.</summary>
public sealed class TableException(string message) : Exception(message);

/// <summary>A table as it stands in a file: a head and rows of text, each with its number in the file.</summary>
public sealed record Table(IReadOnlyList<string> Head, IEnumerable<(int Line, IReadOnlyList<string> Cells)> Rows);

/// <summary>
/// Reads CSV (RFC 4180, with the separator and the character set found out) and XLSX (ECMA-376), row by row.
/// </summary>
public static class TableReader
{
    // A spreadsheet is a ZIP: a small file may unpack to any size.
    private const long MostUnpacked = 600L * 1024 * 1024;
    private const int MostColumns = 200;

    private static readonly string[] Separators = [";", "\t", ",", "|"];

    /// <exception cref="TableException">It is no table.</exception>
    public static Table Read(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        if (bytes.Length == 0)
            throw new TableException("The file is empty.");
        return bytes is [(byte)'P', (byte)'K', ..] ? ReadXlsx(bytes) : ReadCsv(bytes);
    }

    private static Table ReadCsv(byte[] bytes)
    {
        var encoding = EncodingOf(bytes);
        var first = encoding.GetString(bytes, 0, Math.Min(bytes.Length, 64 * 1024));
        if (first.Contains('\0', StringComparison.Ordinal))
            throw new TableException("That is neither CSV nor XLSX.");
        var line = first.Split('\n')[0];
        var separator = Separators.MaxBy(s => line.Split(s).Length)!;
        using var peek = Open(bytes, encoding, separator);
        if (!peek.Read())
            throw new TableException("The file has no line.");
        var head = peek.Parser.Record!.Select(h => h.Trim().Trim('\uFEFF')).ToList();
        Fitting(head);
        return new Table(head, Rows());

        IEnumerable<(int, IReadOnlyList<string>)> Rows()
        {
            using var csv = Open(bytes, encoding, separator);
            csv.Read();
            while (Next(csv))
            {
                if (csv.Parser.Record!.Any(c => c.Length > 0))
                    yield return (csv.Parser.RawRow, [.. csv.Parser.Record!.Select(TableWriter.Unshield)]);
            }
        }
    }

    private static bool Next(CsvReader csv)
    {
        try
        {
            return csv.Read();
        }
        catch (CsvHelperException e)
        {
            throw Unreadable(csv, e);
        }
    }

    internal static TableException Unreadable(CsvReader csv, CsvHelperException e) =>
        new(
            e is MaxFieldSizeException
                ? $"A cell before line {csv.Parser.RawRow} is longer than 32,000 characters; is a quotation mark missing?"
                : $"Line {csv.Parser.RawRow} cannot be read: {e.Message.Split('\n')[0]}"
        );

    private static CsvReader Open(byte[] bytes, Encoding encoding, string separator) =>
        new(
            new StreamReader(new MemoryStream(bytes), encoding),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = separator,
                BadDataFound = Damaged,
                MissingFieldFound = null,
                TrimOptions = TrimOptions.Trim,
                MaxFieldSize = 32_000,
            }
        );

    // A quote inside a plain cell is an inch; one that opened a cell and is not closed where the cell ends would
    // swallow what follows.
    private static void Damaged(BadDataFoundArgs bad)
    {
        if (bad.Field.TrimStart().StartsWith('"'))
            throw new TableException(
                $"Line {bad.Context.Parser!.RawRow}: a quote opens a cell and does not close it. Nothing of the file was taken."
            );
    }

    // UTF-8 where the bytes are valid UTF-8, else Windows-1252's first half as ISO 8859-1, which loses nothing.
    internal static Encoding EncodingOf(byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..])
            return Encoding.Unicode;
        if (bytes is [0xFE, 0xFF, ..])
            return Encoding.BigEndianUnicode;
        return System.Text.Unicode.Utf8.IsValid(bytes) ? Encoding.UTF8 : Encoding.Latin1;
    }

    private static Table ReadXlsx(byte[] bytes)
    {
        try
        {
            using (var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read))
            {
                if (zip.Entries.Sum(e => e.Length) > MostUnpacked)
                    throw new TableException("The workbook unpacks to more than 600 MB.");
            }
            var head =
                Lines(bytes).Select(l => l.Cells).FirstOrDefault()
                ?? throw new TableException("The first sheet has no row.");
            Fitting(head);
            return new Table(
                [.. head.Select(h => h.Trim())],
                Lines(bytes).Skip(1).Where(r => r.Cells.Any(c => c.Length > 0))
            );
        }
        catch (InvalidDataException)
        {
            throw new TableException("The workbook is damaged.");
        }
    }

    private static IEnumerable<(int Line, IReadOnlyList<string> Cells)> Lines(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        var line = 0;
        foreach (IDictionary<string, object?> row in stream.Query(useHeaderRow: false, excelType: ExcelType.XLSX))
        {
            line++;
            yield return (line, [.. row.Values.Select(Text)]);
        }
    }

    // Numbers come as binary floating point; fifteen digits are what a spreadsheet itself keeps.
    internal static string Text(object? value) =>
        value switch
        {
            null => "",
            double d => decimal.TryParse(
                d.ToString("G15", CultureInfo.InvariantCulture),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var exact
            )
                ? exact.ToString(CultureInfo.InvariantCulture)
                : d.ToString("G15", CultureInfo.InvariantCulture),
            DateTime at => at.ToString(
                at.TimeOfDay == TimeSpan.Zero ? "yyyy-MM-dd" : "yyyy-MM-dd HH:mm:ss",
                CultureInfo.InvariantCulture
            ),
            bool yes => yes ? "yes" : "no",
            _ => Convert.ToString(value, CultureInfo.InvariantCulture)!.Trim(),
        };

    private static void Fitting(IReadOnlyList<string> head)
    {
        if (head.Count > MostColumns)
            throw new TableException($"The file has {head.Count} columns; {MostColumns} are taken.");
        if (head.All(h => h.Length == 0))
            throw new TableException("The first row names no columns.");
    }
}
