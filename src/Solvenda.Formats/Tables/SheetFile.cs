using System.Collections.Immutable;
using System.Globalization;
using System.IO.Compression;
using CsvHelper;
using CsvHelper.Configuration;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Tables;

/// <summary>
/// Reads the tables of a message as they are, whatever stands above and below them: every sheet of a workbook
/// (ECMA-376, its binary forerunner, or OpenDocument), or a CSV whose separator, quoting and character set are found
/// out.
/// </summary>
public static class SheetFile
{
    /// <summary>Rows beyond are kept in the original and not shown.</summary>
    public const int MostRows = 20_000;

    private const int MostColumns = 100;

    // A workbook is a ZIP: a small file may unpack to any size. Counted as it unpacks, whatever it claims.
    private const long MostUnpacked = 100L * 1024 * 1024;

    private const int MostSheets = 20;

    private static readonly string[] Separators = [";", "\t", ",", "|"];

    public static bool IsWorkbook(ReadOnlySpan<byte> raw) => IsZip(raw) || CompoundFile.Is(raw);

    private static bool IsZip(ReadOnlySpan<byte> raw) => raw.StartsWith("PK"u8);

    /// <exception cref="TableException">It is no table, or one that is not to be unpacked.</exception>
    public static ImmutableArray<OriginalPart> Read(byte[] raw, string name)
    {
        ArgumentNullException.ThrowIfNull(raw);
        return IsWorkbook(raw) ? Workbook(raw, name) : [Csv(raw, name)];
    }

    private static OriginalPart Csv(byte[] raw, string name)
    {
        var text = TableReader.EncodingOf(raw).GetString(raw).TrimStart('\uFEFF');
        if (text.Contains('\0', StringComparison.Ordinal))
            throw new TableException("It is neither CSV nor XLSX.");
        // The separator that cuts most lines alike.
        var lines = text.Split('\n', 60).Take(50).Where(l => l.Trim().Length > 0).ToList();
        var separator = Separators.MaxBy(s =>
            lines
                .Select(l => l.Split(s).Length)
                .Where(n => n > 1)
                .GroupBy(n => n)
                .Select(g => g.Count() * Math.Min(g.Key, 8))
                .DefaultIfEmpty(0)
                .Max()
        )!;
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = separator,
                HasHeaderRecord = false,
                BadDataFound = null,
                MissingFieldFound = null,
                TrimOptions = TrimOptions.Trim,
                MaxFieldSize = 32_000,
                IgnoreBlankLines = false,
            }
        );
        var rows = new List<IReadOnlyList<string>>();
        try
        {
            while (rows.Count < MostRows && csv.Read())
                rows.Add([.. csv.Parser.Record!.Take(MostColumns)]);
            return Whole(Grid.Part(name, rows), rows.Count == MostRows && csv.Read());
        }
        catch (CsvHelperException e)
        {
            throw TableReader.Unreadable(csv, e);
        }
    }

    private static OriginalPart Whole(OriginalPart part, bool isCut) =>
        isCut
            ? part with
            {
                Warning = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{part.Name} has more than {MostRows:#,0} rows; those beyond are kept in the original."
                ),
            }
            : part;

    private static ImmutableArray<OriginalPart> Workbook(byte[] raw, string name)
    {
        if (IsZip(raw))
            Weigh(raw);
        if (OpenSheet.Is(raw))
            return [.. OpenSheet.Read(raw, name, MostRows, MostColumns).Take(MostSheets).Select(Cut)];
        try
        {
            return ExcelSheets.Read(raw, name, MostRows, MostColumns, MostSheets).Select(Cut).ToImmutableArray();
        }
        catch (Exception e)
            when (e
                    is ExcelDataReader.Exceptions.ExcelReaderException
                        or InvalidDataException
                        or System.Xml.XmlException
                        or KeyNotFoundException
                        or NullReferenceException
                        or FormatException
                        or InvalidOperationException
                        or ArgumentException
                        or IndexOutOfRangeException
                        or OverflowException
                        or InvalidCastException
                        or EndOfStreamException
                        or NotSupportedException
            )
        {
            throw new TableException("The workbook is damaged, or locked with a password; it is kept as it came.");
        }
    }

    // One row more than is read was fetched, to know that there is one.
    private static OriginalPart Cut(OriginalPart part) =>
        Whole(
            part with
            {
                Rows = part.Rows.Length > MostRows ? part.Rows[..MostRows] : part.Rows,
            },
            part.Rows.Length > MostRows
        );

    private static void Weigh(byte[] raw)
    {
        using var zip = new ZipArchive(new MemoryStream(raw, writable: false), ZipArchiveMode.Read);
        var buffer = new byte[81_920];
        var all = 0L;
        foreach (var entry in zip.Entries)
        {
            using var unpacked = entry.Open();
            int read;
            while ((read = unpacked.Read(buffer)) > 0)
            {
                if ((all += read) > MostUnpacked)
                    throw new TableException("The workbook unpacks to more than 100 MB.");
            }
        }
    }
}
