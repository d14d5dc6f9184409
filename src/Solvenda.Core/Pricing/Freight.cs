using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;

namespace Solvenda.Core.Pricing;

/// <summary>What a consignment up to a weight costs to a zone by a service. Both dates are included.</summary>
public sealed record FreightBand(
    string Zone,
    string Service,
    decimal UpToKg,
    decimal Price,
    Currency Currency,
    DateOnly From,
    DateOnly? To
);

/// <summary>Why no freight could be worked out.</summary>
public enum FreightGap
{
    /// <summary>Nothing is missing.</summary>
    None,

    /// <summary>Under this Incoterm the buyer carries it.</summary>
    NotOurs,

    /// <summary>No Incoterm is agreed yet.</summary>
    NoIncoterm,

    /// <summary>No zone for the country.</summary>
    NoZone,

    /// <summary>An item has no weight.</summary>
    NoWeight,

    /// <summary>No band reaches the weight on this day.</summary>
    NoBand,

    /// <summary>No band for that weight, or no exchange rate.</summary>
    NoRate,
}

/// <summary>Freight in the sheet's currency, or why there is none.</summary>
/// <param name="Kilograms">Chargeable weight: the greater of weight and volume weight.</param>
/// <param name="Unweighed">Codes of the items that nobody weighed.</param>
public sealed record FreightAnswer(
    decimal? Amount,
    FreightGap Gap,
    decimal Kilograms,
    string? Zone,
    string? Service,
    ImmutableArray<string> Unweighed
)
{
    /// <summary>Nothing is carried.</summary>
    public static readonly FreightAnswer Nothing = new(null, FreightGap.NotOurs, 0m, null, null, []);
}

/// <summary>Freight by Incoterm, zone, service and weight (docs/calculations.md, "Freight and Incoterms").</summary>
public static class Freight
{
    /// <summary>Cubic decimetres that count as a kilogram.</summary>
    public const decimal Dm3PerKilogram = 5m;

    /// <summary>
    /// Insured under CIP and CIF: the value of goods and freight, and a tenth more (Incoterms 2020, CIP A5 and CIF A5).
    /// </summary>
    public const decimal InsuredShare = 1.10m;

    // Main carriage is the seller's under C and D terms (Incoterms 2020).
    private static readonly HashSet<string> SellersCarriage = ["CPT", "CFR", "CIP", "CIF", "DAP", "DPU", "DDP"];

    /// <summary>Whether the seller pays the main carriage under that Incoterm (Incoterms 2020).</summary>
    public static bool IsSellers(string? incoterm) => incoterm is not null && SellersCarriage.Contains(incoterm);

    /// <summary>Whether the seller insures the goods under that Incoterm (Incoterms 2020).</summary>
    public static bool IsInsured(string? incoterm) => incoterm is "CIP" or "CIF";

    /// <param name="service">Null: the cheapest.</param>
    public static FreightAnswer Find(
        PriceBook book,
        Rates rates,
        Currency currency,
        string? incoterm,
        string? country,
        string? service,
        DateOnly day,
        decimal kilograms,
        decimal dm3,
        ImmutableArray<string> unweighed
    )
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(rates);
        var chargeable = Math.Max(kilograms, dm3 / Dm3PerKilogram);
        FreightAnswer Gap(FreightGap gap, string? zone = null) => new(null, gap, chargeable, zone, service, unweighed);
        if (string.IsNullOrEmpty(incoterm))
            return Gap(FreightGap.NoIncoterm);
        if (!IsSellers(incoterm))
            return Gap(FreightGap.NotOurs);
        if (country is null || !book.FreightZones.TryGetValue(country, out var zone))
            return Gap(FreightGap.NoZone);
        if (!unweighed.IsEmpty)
            return Gap(FreightGap.NoWeight, zone);
        // Of each service the lowest band that reaches the weight; of the services the one asked for, else the
        // cheapest.
        var fitting = book
            .FreightBands.Where(b =>
                b.Zone == zone
                && (service is null || b.Service == service)
                && b.UpToKg >= chargeable
                && b.From <= day
                && (b.To is null || day <= b.To)
            )
            .GroupBy(b => b.Service)
            .Select(g => g.MinBy(b => b.UpToKg)!)
            .ToList();
        if (fitting.Count == 0)
            return Gap(FreightGap.NoBand, zone);
        var best = fitting
            .Select(b => (Band: b, Price: rates.Convert(b.Price, b.Currency, currency)))
            .Where(b => b.Price is not null)
            .OrderBy(b => b.Price)
            .ThenBy(b => b.Band.Service, StringComparer.Ordinal)
            .FirstOrDefault();
        return best.Band is null
            ? Gap(FreightGap.NoRate, zone)
            : new FreightAnswer(
                Money.Amount.Round(best.Price!.Value, currency).Value,
                FreightGap.None,
                chargeable,
                zone,
                best.Band.Service,
                unweighed
            );
    }

    /// <summary>round(rate x 110 % x (goods + freight)); null where no rate is set.</summary>
    public static decimal? Insurance(decimal? percent, decimal goods, decimal freight, Currency currency) =>
        percent is { } p ? Money.Amount.Round(p / 100m * InsuredShare * (goods + freight), currency).Value : null;
}
