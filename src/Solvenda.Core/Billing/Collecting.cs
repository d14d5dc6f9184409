using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Billing;

/// <summary>
/// Puts what several orders of a buyer are billed for on one invoice (docs/calculations.md, Billing): tax is worked out
/// once for a category over all of it (EN 16931, BR-CO-17), and each order keeps its part.
/// </summary>
public static class Collecting
{
    /// <param name="parts">One for each order, in one currency, as it would be billed alone; one at least.</param>
    /// <returns>The whole, and the parts so that they come to it: what rounding the tax of a category once brings goes
    /// with the part that has most of it.</returns>
    public static (Bill Whole, ImmutableArray<Bill> Parts) Together(IReadOnlyList<Bill> parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var currency = parts[0].Currency;
        var taxes = parts
            .SelectMany(p => p.Taxes)
            .Select(t => t.Tax)
            .Distinct()
            .Select(t => BillRules.Row(t, Amount.Sum(parts.Select(p => p.BasisOf(t)), currency)))
            .ToImmutableArray();
        var made = taxes.Aggregate(parts.ToImmutableArray(), Spread);
        made = [.. made.Select(p => p with { Prepaid = p.Prepaid < p.TotalWithTax ? p.Prepaid : p.TotalWithTax })];
        return (
            new Bill(
                parts[0].Kind,
                [.. made.SelectMany(p => p.Lines)],
                [
                    .. made.SelectMany(p => p.Allowances)
                        .GroupBy(a => a.Tax)
                        .Select(g => new TaxAllowance(g.Key, Amount.Sum(g.Select(a => a.Amount), currency))),
                ],
                [.. made.SelectMany(p => p.Charges)],
                taxes,
                Amount.Sum(made.Select(p => p.Prepaid), currency)
            )
            {
                Deductions = [.. made.SelectMany(p => p.Deductions)],
            },
            made
        );
    }

    private static ImmutableArray<Bill> Spread(ImmutableArray<Bill> parts, TaxRow whole)
    {
        var missing = whole.TaxAmount - Amount.Sum(parts.Select(p => p.TaxOf(whole.Tax)), whole.Basis.Currency);
        var most = parts.MaxBy(p => p.BasisOf(whole.Tax).Minor)!;
        return missing.IsZero
            ? parts
            : parts.Replace(
                most,
                most with
                {
                    Taxes =
                    [
                        .. most.Taxes.Select(t =>
                            t.Tax == whole.Tax ? t with { TaxAmount = t.TaxAmount + missing } : t
                        ),
                    ],
                }
            );
    }
}
