using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Billing;

/// <summary>A line as it is billed: part by part, until all of it is.</summary>
/// <param name="Quantity">In the order's unit: what was ordered; on a bill what of it is on it, 0 for nothing.</param>
/// <param name="Net">What so much comes to.</param>
/// <param name="Discountable">Whether the discount on the whole sheet is taken off it too.</param>
public sealed record BillLine(decimal Quantity, Amount Net, Tax Tax, bool Discountable)
{
    /// <summary>Of the order's line; a bundle of mixed tax has several of one. 0 where nobody said.</summary>
    public long Key { get; init; }
}

/// <summary>A charge on the whole order; it goes with the first invoice (EN 16931, BG-21).</summary>
public sealed record BillableCharge(string Words, Amount Amount, Tax Tax);

/// <summary>A share of the discount on the whole sheet (EN 16931, BG-20).</summary>
public sealed record TaxAllowance(Tax Tax, Amount Amount);

/// <summary>What an order may be billed for, as its tally has it.</summary>
/// <param name="Discount">The discount on the whole sheet, as the tally spread it over the taxes.</param>
public sealed record Billable(
    Currency Currency,
    ImmutableArray<BillLine> Lines,
    ImmutableArray<TaxAllowance> Discount,
    ImmutableArray<BillableCharge> Charges
)
{
    /// <summary>The same with a discount that is spread here, as a tally does it (docs/calculations.md).</summary>
    /// <param name="discount">As a positive amount taken off.</param>
    public static Billable Of(
        Currency currency,
        ImmutableArray<BillLine> lines,
        Amount discount,
        ImmutableArray<BillableCharge> charges
    )
    {
        var taxes = lines.Select(l => l.Tax).Distinct().ToList();
        if (discount.IsZero)
            return new Billable(currency, lines, [], charges);
        var shares = discount.SplitOver([.. taxes.Select(t => lines.DiscountableOf(t, currency).Minor)]);
        return new Billable(currency, lines, [.. taxes.Zip(shares, (t, s) => new TaxAllowance(t, s))], charges);
    }
}

internal static class BillLines
{
    /// <summary>Nets of one tax from which the sheet's discount is taken.</summary>
    internal static Amount DiscountableOf(this ImmutableArray<BillLine> lines, Tax tax, Currency currency) =>
        Amount.Sum(lines.Where(l => l.Tax == tax && l.Discountable).Select(l => l.Net), currency);
}
