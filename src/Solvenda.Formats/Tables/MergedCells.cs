using System.Globalization;

namespace Solvenda.Formats.Tables;

/// <summary>
/// Cells that reach over several rows: what they say is true of each of them. A quantity is not: it counts once, and
/// the rows below are asked.
/// </summary>
internal sealed class MergedCells
{
    // Rows that one cell is spread over; more is a decoration.
    private const int MostRows = 200;

    private readonly Dictionary<int, (string Text, int Last)> _open = [];

    /// <param name="last">The last row that it reaches, counted as <paramref name="row"/> is.</param>
    public void Begin(int row, int column, int last, string text)
    {
        if (last > row && IsRepeated(text))
            _open[column] = (text, Math.Min(last, row + MostRows));
    }

    /// <summary>What a cell that is empty itself says; empty where nothing reaches it.</summary>
    public string At(int row, int column)
    {
        if (!_open.TryGetValue(column, out var cell))
            return "";
        if (row <= cell.Last)
            return cell.Text;
        _open.Remove(column);
        return "";
    }

    // Words, codes and dates; not what counts.
    private static bool IsRepeated(string text) =>
        text.Any(char.IsLetter)
        || text.Length >= 8
        || DateOnly.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.None, out _);
}
