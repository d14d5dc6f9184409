using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Shipping;

/// <summary>What a carrier is told of a shipment.</summary>
/// <param name="To">Who gets it.</param>
/// <param name="Country">ISO 3166-1 alpha-2; empty where nobody said.</param>
/// <param name="WeightKg">Null where nobody weighed it.</param>
public sealed record CarriedShipment(
    string Number,
    string Order,
    string Po,
    string To,
    string Address,
    string Country,
    string Contact,
    string Mail,
    int Parcels,
    decimal? WeightKg,
    DateOnly Day
);

/// <summary>
/// The columns of the file that a carrier gets, in their order, as the house set them: "Reference = shipment; Name =
/// to".
/// </summary>
public sealed record CarrierForm(ImmutableArray<(string Head, string Of)> Columns)
{
    private static readonly Dictionary<string, Func<CarriedShipment, string>> Values = new()
    {
        ["shipment"] = s => s.Number,
        ["order"] = s => s.Order,
        ["po"] = s => s.Po,
        ["to"] = s => s.To,
        ["address"] = s => s.Address,
        ["country"] = s => s.Country,
        ["contact"] = s => s.Contact,
        ["mail"] = s => s.Mail,
        ["parcels"] = s => Math.Max(1, s.Parcels).ToString(CultureInfo.InvariantCulture),
        ["kg"] = s => s.WeightKg?.ToString("0.###", CultureInfo.InvariantCulture) ?? "",
        ["day"] = s => s.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
    };

    /// <summary>What a column can hold.</summary>
    public static IEnumerable<string> Names => Values.Keys;

    /// <summary>All there is, by its own name: where the house set nothing.</summary>
    public static readonly CarrierForm Usual = new([.. Values.Keys.Select(k => (k, k))]);

    /// <summary>What is wrong with a form as it was typed; null where nothing is.</summary>
    public static string? Fault(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var parts = Parts(text);
        if (parts.FirstOrDefault(p => !Values.ContainsKey(p.Of) || p.Head.Length == 0) is { Of: not null } odd)
            return $"“{odd.Of}” is none of {string.Join(", ", Names)}";
        return parts.Any(p => p.Of == "shipment") ? null : "the shipment’s number has to be in it: it comes back by it";
    }

    /// <summary>The form as it was typed; the usual one for nothing.</summary>
    public static CarrierForm Of(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return string.IsNullOrWhiteSpace(text) ? Usual : new CarrierForm([.. Parts(text)]);
    }

    /// <summary>A row of the file.</summary>
    public IReadOnlyList<string> Row(CarriedShipment shipment) => [.. Columns.Select(c => Values[c.Of](shipment))];

    // One word alone is its own head.
    private static List<(string Head, string Of)> Parts(string text) =>
        [
            .. text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(p => p.Split('=', 2, StringSplitOptions.TrimEntries))
                .Select(p => (p[0], p[^1].ToLowerInvariant())),
        ];
}
