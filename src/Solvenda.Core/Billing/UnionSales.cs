using System.Collections.Immutable;
using Solvenda.Core.Money;

namespace Solvenda.Core.Billing;

/// <summary>What was sold to a buyer in another country of the Union, in home currency.</summary>
/// <param name="Goods">Category K; below nothing where more was credited than sold.</param>
/// <param name="Services">Category AE: the buyer owes the tax.</param>
public sealed record UnionSale(string TaxNumber, string Country, string Name, Amount Goods, Amount Services);

/// <summary>
/// The recapitulative statement of a period: sales that the buyer accounts for, by their tax number (Directive
/// 2006/112/EC, articles 262 to 264).
/// </summary>
public static class UnionSales
{
    private const string WithinUnion = "K";
    private const string ReverseCharge = "AE";

    /// <param name="issued">Invoices and credit notes of the period.</param>
    /// <returns>By country and tax number.</returns>
    public static ImmutableArray<UnionSale> Of(IEnumerable<IssuedInvoice> issued, Currency home) =>
        [
            .. issued
                .Where(i => i.Taxes.Any(t => t.Category is WithinUnion or ReverseCharge))
                .GroupBy(i => (i.Buyer.TaxNumber, i.Buyer.Country))
                .Select(g => new UnionSale(
                    g.Key.TaxNumber,
                    g.Key.Country,
                    g.Last().Buyer.Name,
                    Sum(g, WithinUnion, home),
                    Sum(g, ReverseCharge, home)
                ))
                .OrderBy(s => s.Country, StringComparer.Ordinal)
                .ThenBy(s => s.TaxNumber, StringComparer.Ordinal),
        ];

    private static Amount Sum(IEnumerable<IssuedInvoice> of, string category, Currency home) =>
        Amount.Sum(
            of.SelectMany(i =>
                i.Taxes.Where(t => t.Category == category)
                    .Select(t => Amount.Round(t.Basis * i.Rate * (i.Kind == BillKind.Credit ? -1 : 1), home))
            ),
            home
        );
}
