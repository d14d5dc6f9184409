using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Billing;

/// <summary>What a bill is.</summary>
public enum BillKind
{
    /// <summary>Commercial invoice (UNTDID 1001, 380).</summary>
    Invoice,

    /// <summary>Credit note (UNTDID 1001, 381): its amounts are what goes back.</summary>
    Credit,

    /// <summary>
    /// Invoice for money that came before the goods (UNTDID 1001, 386): it taxes that money when it comes (Directive
    /// 2006/112/EC, art. 65), and later invoices take it off.
    /// </summary>
    Deposit,
}

/// <summary>An invoice or a credit note worked out: each amount is rounded once, to the minor unit.</summary>
/// <param name="Lines">One for each line of the order, in its order.</param>
/// <param name="Taxes">The categories that it touches (EN 16931, BG-23).</param>
/// <param name="Prepaid">Of it paid before and not taxed then (EN 16931, BT-113).</param>
public sealed record Bill(
    BillKind Kind,
    ImmutableArray<BillLine> Lines,
    ImmutableArray<TaxAllowance> Allowances,
    ImmutableArray<BillableCharge> Charges,
    ImmutableArray<TaxRow> Taxes,
    Amount Prepaid
)
{
    /// <summary>What deposit invoices taxed before; its taxes are worked out without it.</summary>
    public ImmutableArray<TaxDeduction> Deductions { get; init; } = [];

    /// <summary>What it takes off of deposits that were taxed, with tax.</summary>
    public Amount Deducted => Amount.Sum(Deductions.Select(d => d.Total), Currency);

    /// <summary>Of all its amounts.</summary>
    public Currency Currency => Prepaid.Currency;

    /// <summary>What its charges come to.</summary>
    public Amount ChargeTotal => Amount.Sum(Charges.Select(c => c.Amount), Currency);

    /// <summary>Nets less allowances, with charges.</summary>
    public Amount TotalWithoutTax => Amount.Sum(Taxes.Select(t => t.Basis), Currency);

    /// <summary>The tax of all categories.</summary>
    public Amount TotalTax => Amount.Sum(Taxes.Select(t => t.TaxAmount), Currency);

    /// <summary>With tax.</summary>
    public Amount TotalWithTax => TotalWithoutTax + TotalTax;

    /// <summary>What is still to be paid, or goes back.</summary>
    public Amount Due => TotalWithTax - Prepaid;

    internal Amount AllowanceOf(Tax tax) =>
        Amount.Sum(Allowances.Where(a => a.Tax == tax).Select(a => a.Amount), Currency);

    // As if nothing had been taxed before.
    internal Amount WholeBasisOf(Tax tax) =>
        BasisOf(tax) + Amount.Sum(Deductions.Where(d => d.Tax == tax).Select(d => d.Basis), Currency);

    internal Amount WholeTaxOf(Tax tax) =>
        TaxOf(tax) + Amount.Sum(Deductions.Where(d => d.Tax == tax).Select(d => d.TaxAmount), Currency);

    internal Amount BasisOf(Tax tax) => Amount.Sum(Taxes.Where(t => t.Tax == tax).Select(t => t.Basis), Currency);

    internal Amount TaxOf(Tax tax) => Amount.Sum(Taxes.Where(t => t.Tax == tax).Select(t => t.TaxAmount), Currency);
}
