using Solvenda.Core.Billing;
using Solvenda.Core.Money;

namespace Solvenda.Core.Sheets;

/// <summary>What a commission on a bill is worked out on (docs/calculations.md, Commission).</summary>
public static class CommissionBasis
{
    /// <param name="whole">The order that is billed.</param>
    /// <param name="bill">An invoice or a credit note of it, line by line as the order is billed.</param>
    /// <returns>Never below 0. Lines whose cost is not known have no margin.</returns>
    public static Amount Of(CommissionOn on, BillableSheet whole, Bill bill)
    {
        ArgumentNullException.ThrowIfNull(whole);
        ArgumentNullException.ThrowIfNull(bill);
        var currency = bill.Currency;
        if (on != CommissionOn.Margin)
            return Amount.Sum(bill.Lines.Select(l => l.Net), currency)
                - Amount.Sum(bill.Allowances.Select(a => a.Amount), currency);
        var margin = whole
            .Parts.Zip(bill.Lines)
            .Where(p => p.Second.Quantity != 0m && p.First.Line.Figures.Margin is not null)
            .Sum(p => MarginOf(p.First, p.Second.Quantity));
        return Amount.Round(Math.Max(0m, margin), currency);
    }

    // The share of its line's that so much of it under one tax has.
    private static decimal MarginOf(BillablePart part, decimal quantity)
    {
        var line = part.Line;
        var ofLine = line.Figures.Net.IsZero ? 1m : part.Net.Value / line.Figures.Net.Value;
        return line.Figures.Margin!.Value.Value * ofLine * quantity / line.Terms.Quantity;
    }
}
