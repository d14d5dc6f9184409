using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Acts.Records;

/// <summary>
/// How the numbers and dates of one column are written: found out from all of its cells, so that a single one is never
/// guessed.
/// </summary>
public sealed record CellForm(bool DecimalComma, string? DateForm, string? Doubt)
{
    private static readonly string[] DateForms =
    [
        "yyyy-MM-dd",
        "d.M.yyyy",
        "d/M/yyyy",
        "M/d/yyyy",
        "d-M-yyyy",
        "yyyyMMdd",
        "yyyy/M/d",
    ];

    /// <summary>Sees the cells of a column, one by one, and says how they are written.</summary>
    public abstract class Finder
    {
        public abstract void See(string cell);

        public abstract CellForm Form { get; }
    }

    /// <summary>
    /// Numbers, by the same rule as messages are read by. Where no cell tells, a comma is in doubt; a point is a
    /// decimal one, as our own files have it.
    /// </summary>
    public static Finder Numbers() => new NumberFinder();

    /// <summary>Dates: the one form that fits every cell. Day and month that could be either are in doubt.</summary>
    public static Finder Dates() => new DateFinder();

    private sealed class NumberFinder : Finder
    {
        private bool _comma;
        private bool _point;
        private bool _either;

        public override void See(string cell)
        {
            var sign = NumberForm.SignOf(cell.TrimEnd('%', ' '));
            _comma |= sign == ',';
            _point |= sign == '.';
            _either |= sign is null && cell.Contains(',', StringComparison.Ordinal);
        }

        public override CellForm Form =>
            (_comma && _point, _either && !_comma && !_point) switch
            {
                (true, _) => new(false, null, "some numbers have a decimal comma and some a decimal point"),
                (_, true) => new(false, null, "the commas may be decimal signs or thousands signs"),
                _ => new(_comma, null, null),
            };
    }

    private sealed class DateFinder : Finder
    {
        private readonly List<string> _fitting = [.. DateForms];
        private bool _any;

        public override void See(string cell)
        {
            _any = true;
            _fitting.RemoveAll(f =>
                !DateOnly.TryParseExact(cell, f, CultureInfo.InvariantCulture, DateTimeStyles.None, out _)
            );
        }

        public override CellForm Form =>
            _fitting.Count switch
            {
                _ when !_any => new(false, null, null),
                0 => new(false, null, null),
                1 => new(false, _fitting[0], null),
                _ when _fitting.Contains("d/M/yyyy") && _fitting.Contains("M/d/yyyy") => new(
                    false,
                    null,
                    "day and month could be either way round"
                ),
                _ => new(false, _fitting[0], null),
            };
    }

    /// <summary>A number with a point; the cell itself where it is none.</summary>
    public string Number(string cell)
    {
        var plain = cell.Replace(" ", "", StringComparison.Ordinal)
            .Replace("\u00a0", "", StringComparison.Ordinal)
            .Replace("'", "", StringComparison.Ordinal)
            .TrimEnd('%');
        plain = DecimalComma
            ? plain.Replace(".", "", StringComparison.Ordinal).Replace(',', '.')
            : plain.Replace(",", "", StringComparison.Ordinal);
        return decimal.TryParse(plain, NumberStyles.Float, CultureInfo.InvariantCulture, out var n)
            ? n.ToString("0.######", CultureInfo.InvariantCulture)
            : cell;
    }

    /// <summary>A date as yyyy-MM-dd; the cell itself where it is none.</summary>
    public string Date(string cell) =>
        DateForm is { } form
        && DateOnly.TryParseExact(cell, form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
            : cell;
}
