using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Pricing;

/// <summary>A tax category (UNCL 5305 subset of EN 16931, BT-151) and its rate in percent.</summary>
public readonly record struct Tax(string Category, decimal Percent);

/// <summary>A dated tax rate for one class.</summary>
/// <param name="Country">Where the seller is registered beside its own country; null: at home.</param>
public sealed record TaxRate(TaxClass Class, decimal Percent, DateOnly From, DateOnly? To, string? Country = null);

/// <summary>Finds the tax of a line. Unknown is null, which a check turns into a stop; never a guess.</summary>
public static class TaxRules
{
    /// <summary>Whether a country is in the European Union.</summary>
    /// <param name="country">ISO 3166-1 alpha-2.</param>
    public static bool IsInUnion(string country) => Union.Contains(country);

    // Member states of the European Union, ISO 3166-1 alpha-2 (Council Directive 2006/112/EC, article 5).
    private static readonly HashSet<string> Union =
    [
        .. "AT BE BG HR CY CZ DK EE FI FR DE GR HU IE IT LV LT LU MT NL PL PT RO SK SI ES SE".Split(' '),
    ];

    /// <summary>
    /// Domestic: S, Z or E by the item's class. Inside the Union with the buyer's tax number: K, intra-Community supply
    /// (Directive 2006/112/EC, article 138). Outside: G, export (article 146). A Union buyer without tax number has no
    /// rule here.
    /// </summary>
    public static Tax? Find(
        string sellerCountry,
        string? deliverToCountry,
        Buyer buyer,
        TaxClass taxClass,
        DateOnly date,
        IEnumerable<TaxRate> rates
    )
    {
        if (string.IsNullOrWhiteSpace(deliverToCountry))
            return null;
        if (deliverToCountry != sellerCountry)
        {
            // Registered there: their rate, as at home.
            if (RateOn(date, taxClass, deliverToCountry, rates) is { } abroad)
                return new Tax("S", abroad.Percent);
            if (!Union.Contains(deliverToCountry))
                return new Tax("G", 0m);
            return string.IsNullOrWhiteSpace(buyer.TaxNumber) ? null : new Tax("K", 0m);
        }
        if (buyer.TaxExempt || taxClass == TaxClass.Exempt)
            return new Tax("E", 0m);
        if (taxClass == TaxClass.Zero)
            return new Tax("Z", 0m);
        // A rate of home is kept without a country, or with its own.
        var rate = RateOn(date, taxClass, null, rates) ?? RateOn(date, taxClass, sellerCountry, rates);
        return rate is null ? null : new Tax("S", rate.Percent);
    }

    private static TaxRate? RateOn(DateOnly date, TaxClass taxClass, string? country, IEnumerable<TaxRate> rates)
    {
        TaxRate? latest = null;
        foreach (var r in rates)
        {
            if (
                r.Class == taxClass
                && r.Country == country
                && r.From <= date
                && (r.To is null || date <= r.To)
                && (latest is null || r.From > latest.From)
            )
                latest = r;
        }
        return latest;
    }
}
