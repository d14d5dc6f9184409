using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Billing;

/// <summary>
/// Works invoices and credit notes out, part by part and without a cent lost: each takes what so much comes to so far,
/// less what was taken before (docs/calculations.md).
/// </summary>
public static class BillRules
{
    /// <summary>The next invoice of an order.</summary>
    /// <param name="before">Its invoices so far, in their order.</param>
    /// <param name="quantities">Of each line what is billed now; 0 for nothing.</param>
    /// <param name="deposit">Received for the order, not taxed then and not taken by an invoice yet; 0 or more.</param>
    /// <param name="taxed">What is left of deposit invoices of the order, the earliest first; null: there are
    /// none.</param>
    /// <exception cref="ArgumentException">More of a line than is left, less than nothing, or nothing at
    /// all.</exception>
    public static Bill Invoice(
        Billable of,
        IReadOnlyList<Bill> before,
        IReadOnlyList<decimal> quantities,
        Amount deposit,
        IReadOnlyList<TaxDeduction>? taxed = null
    )
    {
        ArgumentNullException.ThrowIfNull(of);
        ArgumentNullException.ThrowIfNull(before);
        var part = Part(BillKind.Invoice, of, [.. before.Where(b => b.Kind == BillKind.Invoice)], quantities, true);
        var bases = Touched(part, of).Select(t => (Tax: t, Basis: BasisOf(part, t))).ToList();
        var deductions = DepositRules.Taken(bases, taxed ?? []);
        var bill = part with
        {
            Deductions = deductions,
            Taxes =
            [
                .. bases.Select(b =>
                    Row(
                        b.Tax,
                        b.Basis - Sum(deductions.Where(d => d.Tax == b.Tax).Select(d => d.Basis), deposit.Currency)
                    )
                ),
            ],
        };
        return bill with { Prepaid = deposit < bill.TotalWithTax ? deposit : bill.TotalWithTax };
    }

    /// <summary>A credit note on an invoice, against what the invoice says.</summary>
    /// <param name="before">Credit notes on it so far, in their order.</param>
    /// <param name="quantities">Of each line what is credited now; 0 for nothing.</param>
    /// <param name="charges">Whether its charges go back too, where they did not yet.</param>
    /// <exception cref="ArgumentException">More of a line than is left, less than nothing, or nothing at
    /// all.</exception>
    public static Bill Credit(Bill invoice, IReadOnlyList<Bill> before, IReadOnlyList<decimal> quantities, bool charges)
    {
        ArgumentNullException.ThrowIfNull(invoice);
        ArgumentNullException.ThrowIfNull(before);
        var of = new Billable(invoice.Currency, invoice.Lines, invoice.Allowances, invoice.Charges);
        var note = Part(BillKind.Credit, of, before, quantities, charges);
        return note with
        {
            Taxes = [.. Touched(note, of).Select(tax => Back(invoice, before, tax, BasisOf(note, tax)))],
        };
    }

    // Where nothing of it is left, the tax that is left goes with it.
    private static TaxRow Back(Bill invoice, IReadOnlyList<Bill> before, Tax tax, Amount basis) =>
        Sum(before.Select(b => b.BasisOf(tax)), basis.Currency) + basis == invoice.WholeBasisOf(tax)
            ? new TaxRow(tax, basis, invoice.WholeTaxOf(tax) - Sum(before.Select(b => b.TaxOf(tax)), basis.Currency))
            : Row(tax, basis);

    // So much of a whole: each amount is what so much comes to so far, less what was taken before.
    private static Bill Part(
        BillKind kind,
        Billable whole,
        IReadOnlyList<Bill> before,
        IReadOnlyList<decimal> quantities,
        bool charges
    )
    {
        ArgumentNullException.ThrowIfNull(quantities);
        var lines = whole.Lines.Select((l, i) => Part(l, i, before, quantities[i])).ToImmutableArray();
        var taken = charges && before.All(b => b.Charges.IsEmpty) ? whole.Charges : [];
        MustBeSomething(lines, taken);
        var allowances = whole
            .Discount.Select(d => new TaxAllowance(
                d.Tax,
                Share(
                    d.Amount,
                    Sum(before.Select(b => b.Lines.DiscountableOf(d.Tax, whole.Currency)), whole.Currency)
                        + lines.DiscountableOf(d.Tax, whole.Currency),
                    whole.Lines.DiscountableOf(d.Tax, whole.Currency)
                ) - Sum(before.Select(b => b.AllowanceOf(d.Tax)), whole.Currency)
            ))
            .Where(a => !a.Amount.IsZero)
            .ToImmutableArray();
        return new Bill(kind, lines, allowances, taken, [], Amount.Zero(whole.Currency));
    }

    private static BillLine Part(BillLine whole, int line, IReadOnlyList<Bill> before, decimal now)
    {
        var had = before.Sum(b => b.Lines[line].Quantity);
        MustBeLeft(now, whole.Quantity - had, line);
        var currency = whole.Net.Currency;
        var taken = Sum(before.Select(b => b.Lines[line].Net), currency);
        return whole with
        {
            Quantity = now,
            Net =
                now == 0m
                    ? Amount.Zero(currency)
                    : Amount.Round(whole.Net.Value * (had + now) / whole.Quantity, currency) - taken,
        };
    }

    private static Amount Share(Amount share, Amount soFar, Amount whole) =>
        whole.IsZero
            ? Amount.Zero(share.Currency)
            : Amount.Round(share.Value * soFar.Minor / whole.Minor, share.Currency);

    private static IEnumerable<Tax> Touched(Bill bill, Billable of) =>
        of
            .Lines.Select(l => l.Tax)
            .Concat(of.Charges.Select(c => c.Tax))
            .Distinct()
            .Where(t => bill.Lines.Any(l => l.Tax == t && l.Quantity != 0m) || bill.Charges.Any(c => c.Tax == t));

    private static Amount BasisOf(Bill bill, Tax tax) =>
        Sum(bill.Lines.Where(l => l.Tax == tax).Select(l => l.Net), bill.Currency)
        - bill.AllowanceOf(tax)
        + Sum(bill.Charges.Where(c => c.Tax == tax).Select(c => c.Amount), bill.Currency);

    // EN 16931, BR-CO-17: by category and rate.
    internal static TaxRow Row(Tax tax, Amount basis) =>
        new(tax, basis, Amount.Round(basis.Value * tax.Percent / 100m, basis.Currency));

    private static Amount Sum(IEnumerable<Amount> amounts, Currency currency) => Amount.Sum(amounts, currency);

    private static void MustBeLeft(decimal quantity, decimal left, int line)
    {
        if (quantity < 0m || quantity > left)
            throw new ArgumentException(
                FormattableString.Invariant(
                    $"Of line {line + 1} there are {left:0.######} left, not {quantity:0.######}."
                )
            );
    }

    private static void MustBeSomething(IEnumerable<BillLine> lines, ImmutableArray<BillableCharge> charges)
    {
        if (charges.IsEmpty && lines.All(l => l.Quantity == 0m))
            throw new ArgumentException("There is nothing on it.");
    }
}
