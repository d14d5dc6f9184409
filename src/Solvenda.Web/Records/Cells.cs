using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Web.Records;

/// <summary>How the numbers and dates of one column are written: found out from all of its cells, so that a single one is never guessed.</summary>
public sealed partial record CellForm(bool DecimalComma, string? DateForm, string? Doubt)
{
    private static readonly string[] DateForms = ["yyyy-MM-dd", "d.M.yyyy", "d/M/yyyy", "M/d/yyyy", "d-M-yyyy", "yyyyMMdd", "yyyy/M/d"];

    /// <summary>Numbers: the sign that stands last and is followed by other than three digits is the decimal sign. Where no cell tells, a comma is in doubt.</summary>
    public static CellForm OfNumbers(IEnumerable<string> cells)
    {
        var (comma, point, either) = (false, false, false);
        foreach (var cell in cells)
        {
            if (cell.Contains(',', StringComparison.Ordinal) && cell.Contains('.', StringComparison.Ordinal))
            {
                comma |= cell.LastIndexOf(',') > cell.LastIndexOf('.');
                point |= cell.LastIndexOf('.') > cell.LastIndexOf(',');
            }
            else if (Single().Match(cell) is { Success: true } m)
            {
                // One sign and three digits behind it may be either; with a zero before it, only a decimal.
                var sure = m.Groups["after"].Length != 3 || m.Groups["before"].Value is "0" or "-0" or "";
                comma |= sure && m.Groups["sign"].Value == ",";
                point |= sure && m.Groups["sign"].Value == ".";
                either |= !sure && m.Groups["sign"].Value == ",";
            }
        }
        if (comma && point)
            return new CellForm(false, null, "some numbers have a decimal comma and some a decimal point");
        return either && !comma && !point ? new CellForm(false, null, "the commas may be decimal signs or thousands signs") : new CellForm(comma, null, null);
    }

    /// <summary>Dates: the one form that fits every cell. Day and month that could be either are in doubt.</summary>
    public static CellForm OfDates(IEnumerable<string> cells)
    {
        var fitting = DateForms.ToList();
        var any = false;
        foreach (var cell in cells)
        {
            any = true;
            fitting.RemoveAll(f => !DateOnly.TryParseExact(cell, f, CultureInfo.InvariantCulture, DateTimeStyles.None, out _));
        }
        return fitting.Count switch
        {
            _ when !any => new CellForm(false, null, null),
            0 => new CellForm(false, null, null),
            1 => new CellForm(false, fitting[0], null),
            _ when fitting.Contains("d/M/yyyy") && fitting.Contains("M/d/yyyy") => new CellForm(false, null, "day and month could be either way round"),
            _ => new CellForm(false, fitting[0], null),
        };
    }

    /// <summary>A number with a point; the cell itself where it is none.</summary>
    public string Number(string cell)
    {
        var plain = cell.Replace(" ", "", StringComparison.Ordinal).Replace("\u00a0", "", StringComparison.Ordinal).Replace("'", "", StringComparison.Ordinal).TrimEnd('%');
        plain = DecimalComma ? plain.Replace(".", "", StringComparison.Ordinal).Replace(',', '.') : plain.Replace(",", "", StringComparison.Ordinal);
        return decimal.TryParse(plain, NumberStyles.Float, CultureInfo.InvariantCulture, out var n) ? n.ToString("0.######", CultureInfo.InvariantCulture) : cell;
    }

    /// <summary>A date as yyyy-MM-dd; the cell itself where it is none.</summary>
    public string Date(string cell) =>
        DateForm is { } form && DateOnly.TryParseExact(cell, form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) : cell;

    [GeneratedRegex(@"^\s*(?<before>-?\d*)(?<sign>[.,])(?<after>\d+)\s*%?\s*$")]
    private static partial Regex Single();
}
