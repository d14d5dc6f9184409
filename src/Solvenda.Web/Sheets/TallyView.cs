using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Web.Sheets;

/// <param name="Words">What it is called; for a charge that came by rule the rule's words.</param>
public sealed record ChargeView(string Kind, string Words, decimal Amount, bool ByHand)
{
    public static ChargeView Of(SheetCharge charge, Core.Money.Currency currency) =>
        new(charge.Kind, charge.Words, Core.Money.Amount.Round(charge.Amount, currency).Value, charge.ByHand);
}

public sealed record TaxView(string Category, decimal Percent, decimal Basis, decimal Tax);

/// <summary>The totals.</summary>
/// <param name="Paid">On a channel, for all of it; null where nothing was.</param>
/// <param name="Rounding">What was paid beyond the total, or less than it; null where nothing is.</param>
/// <param name="TotalHome">With tax, in home currency; null where that is the sheet's own, or no rate leads
/// there.</param>
public sealed record TallyView(
    decimal Goods,
    decimal? SheetDiscountPercent,
    decimal SheetDiscount,
    decimal Charges,
    IReadOnlyList<ChargeView> ChargeLines,
    IReadOnlyList<TaxView> Taxes,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    decimal? Paid,
    decimal? Rounding,
    decimal Due,
    decimal? Margin,
    decimal? MarginPercent,
    decimal? LeastMarginPercent,
    int LinesWithoutCost,
    string HomeCurrency,
    decimal? TotalHome
)
{
    public static TallyView Of(PricedSheet p, bool seesCost)
    {
        var t = p.Tally;
        var (margin, percent) = p.MarginAsTyped();
        // The sheet's own floor: what would be left if every line stood at its floor, as a margin.
        var costed = p
            .Sold.Where(l =>
                l.Terms.Counts && l.Floor is not null && l.Figures.Cost is not null && l.Terms.PriceBase != 0
            )
            .ToList();
        var atFloor = costed.Sum(l => l.Line.Quantity * l.Floor!.Value / l.Terms.PriceBase);
        var cost = costed.Sum(l => l.Figures.Cost!.Value.Value);
        return new TallyView(
            t.Goods.Value,
            p.Sheet.Discount.Percent,
            t.SheetDiscount.Value,
            t.Charges.Value,
            // Of several taxes a charge is one all the same.
            [
                .. p
                    .Charges.GroupBy(c => c.Kind)
                    .Select(g => ChargeView.Of(g.First() with { Amount = g.Sum(c => c.Amount) }, p.Sheet.Currency)),
            ],
            [.. t.Taxes.Select(x => new TaxView(x.Tax.Category, x.Tax.Percent, x.Basis.Value, x.TaxAmount.Value))],
            t.TotalWithoutTax.Value,
            t.TotalTax.Value,
            t.TotalWithTax.Value,
            p.Sheet.Paid?.Total,
            t.Rounding is { IsZero: false } rounding ? rounding.Value : null,
            t.Due.Value,
            seesCost ? margin.Value : null,
            seesCost ? percent : null,
            !seesCost || atFloor == 0 ? null : decimal.Round((atFloor - cost) * 100m / atFloor, 1),
            seesCost ? t.LinesWithoutCost : 0,
            p.Rates.Home.Code,
            p.Rates.Home == p.Sheet.Currency ? null
                : p.Rates.Convert(t.TotalWithTax.Value, p.Sheet.Currency, p.Rates.Home) is { } home
                    ? Core.Money.Amount.Round(home, p.Rates.Home).Value
                : null
        );
    }
}
