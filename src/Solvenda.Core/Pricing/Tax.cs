using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Pricing;

/// <summary>A tax category (UNCL 5305 subset of EN 16931, BT-151) and its rate in percent.</summary>
public readonly record struct Tax(string Category, decimal Percent);

/// <summary>A dated tax rate of the seller's country for one class.</summary>
public sealed record TaxRate(TaxClass Class, decimal Percent, DateOnly From, DateOnly? To);

/// <summary>Finds the tax of a line. Unknown is null, which a check turns into a stop; never a guess.</summary>
public static class TaxRules
{
    // Member states of the European Union, ISO 3166-1 alpha-2 (Council Directive 2006/112/EC, article 5).
    private static readonly HashSet<string> Union =
        [.. "AT BE BG HR CY CZ DK EE FI FR DE GR HU IE IT LV LT LU MT NL PL PT RO SK SI ES SE".Split(' ')];

    /// <summary>
    /// Domestic: S, Z or E by the item's class. Inside the Union with the buyer's tax number: K, intra-Community supply
    /// (Directive 2006/112/EC, article 138). Outside: G, export (article 146). A Union buyer without tax number has no rule here.
    /// </summary>
    public static Tax? Find(string sellerCountry, string? deliverToCountry, Buyer buyer, TaxClass taxClass, DateOnly date, IEnumerable<TaxRate> rates)
    {
        if (string.IsNullOrWhiteSpace(deliverToCountry))
            return null;
        if (deliverToCountry != sellerCountry)
        {
            if (!Union.Contains(deliverToCountry))
                return new Tax("G", 0m);
            return string.IsNullOrWhiteSpace(buyer.TaxNumber) ? null : new Tax("K", 0m);
        }
        if (buyer.TaxExempt || taxClass == TaxClass.Exempt)
            return new Tax("E", 0m);
        if (taxClass == TaxClass.Zero)
            return new Tax("Z", 0m);
        var rate = rates.Where(r => r.Class == taxClass && r.From <= date && (r.To is null || date <= r.To)).MaxBy(r => r.From);
        return rate is null ? null : new Tax("S", rate.Percent);
    }
}
