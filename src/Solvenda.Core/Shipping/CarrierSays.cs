using System.Globalization;

namespace Solvenda.Core.Shipping;

/// <summary>What a carrier says of a shipment, by a row of their file.</summary>
/// <param name="Tracking">Their number for it; empty where they say none.</param>
/// <param name="Cost">In home currency; null where they say none.</param>
/// <param name="Delivered">The day on which it was handed over; null where they do not say.</param>
public sealed record CarrierSays(string Shipment, string Tracking, decimal? Cost, DateOnly? Delivered)
{
    private const int MostLetters = 60;
    private const decimal MostCost = 1_000_000m;

    // Carriers call their columns by many names; what is not among them is not ours to know.
    private static readonly Dictionary<string, string[]> Heads = new()
    {
        [nameof(Shipment)] =
        [
            "shipment",
            "reference",
            "ref",
            "your reference",
            "customer reference",
            "delivery note",
            "number",
        ],
        [nameof(Tracking)] = ["tracking", "tracking number", "tracking no", "parcel number", "consignment", "barcode"],
        [nameof(Cost)] = ["cost", "price", "charge", "amount", "net", "freight"],
        [nameof(Delivered)] = ["delivered", "delivery date", "delivered on", "handed over", "pod"],
    };

    private static readonly string[] Days = ["yyyy-MM-dd", "dd.MM.yyyy", "d.M.yyyy", "dd-MM-yyyy"];

    /// <summary>Where each value stands in a table with such a head; what they call otherwise is left out.</summary>
    /// <returns>Null where no column holds the shipment's number.</returns>
    public static IReadOnlyDictionary<string, int>? ColumnsOf(IReadOnlyList<string> head)
    {
        ArgumentNullException.ThrowIfNull(head);
        var names = head.Select(h => h.Trim().ToLowerInvariant()).ToList();
        var at = Heads
            .Select(h => (h.Key, At: h.Value.Select(v => names.IndexOf(v)).FirstOrDefault(i => i >= 0, -1)))
            .Where(h => h.At >= 0)
            .ToDictionary(h => h.Key, h => h.At);
        return at.ContainsKey(nameof(Shipment)) ? at : null;
    }

    /// <summary>What a row says.</summary>
    /// <exception cref="FormatException">A value cannot be understood; the words name it.</exception>
    public static CarrierSays Of(IReadOnlyDictionary<string, int> columns, IReadOnlyList<string> cells)
    {
        ArgumentNullException.ThrowIfNull(columns);
        ArgumentNullException.ThrowIfNull(cells);
        string Cell(string name) => columns.TryGetValue(name, out var at) && at < cells.Count ? cells[at].Trim() : "";
        var tracking = Cell(nameof(Tracking));
        if (tracking.Length > MostLetters)
            throw new FormatException("Its number is longer than any carrier’s.");
        return new CarrierSays(
            Cell(nameof(Shipment)),
            tracking,
            CostOf(Cell(nameof(Cost))),
            DayOf(Cell(nameof(Delivered)))
        );
    }

    // 12.50 and 12,50 are the same; a sign that groups thousands is not taken.
    private static decimal? CostOf(string text) =>
        text.Length == 0 ? null
        : decimal.TryParse(
            text.Replace(',', '.'),
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var cost
        )
        && cost <= MostCost
            ? cost
        : throw new FormatException($"“{text}” is no amount.");

    private static DateOnly? DayOf(string text) =>
        text.Length == 0 ? null
        : DateOnly.TryParseExact(text, Days, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day
        : throw new FormatException($"“{text}” is no day that can be told: 2026-12-04.");
}
