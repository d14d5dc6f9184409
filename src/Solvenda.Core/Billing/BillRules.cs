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
    /// <param name="deposit">Received for the order and not taken by an invoice yet; 0 or more.</param>
    /// <exception cref="ArgumentException">More of a line than is left, less than nothing, or nothing at
    /// all.</exception>
    public static Bill Invoice(
        Billable of,
        IReadOnlyList<Bill> before,
        IReadOnlyList<decimal> quantities,
        Amount deposit
    )
    {
        ArgumentNullException.ThrowIfNull(of);
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(quantities);
        var invoices = before.Where(b => b.Kind == BillKind.Invoice).ToList();
        var lines = ImmutableArray.CreateBuilder<BilledLine>(of.Lines.Length);
        for (var i = 0; i < of.Lines.Length; i++)
        {
            var line = of.Lines[i];
            var (had, taken) = Before(invoices, i, of.Currency);
            MustBeLeft(quantities[i], line.Quantity - had, i);
            lines.Add(
                Part(line.Net, line.Quantity, had + quantities[i], taken, quantities[i], line.Tax, line.Discountable)
            );
        }
        var charges = invoices.Count == 0 ? of.Charges : [];
        MustBeSomething(lines, charges);
        var allowances = of
            .Discount.Select(d => new TaxAllowance(
                d.Tax,
                Share(
                    d.Amount,
                    Sum(invoices.Select(b => b.DiscountableOf(d.Tax)), of.Currency)
                        + Discountable(lines, d.Tax, of.Currency),
                    Sum(of.Lines.Where(l => l.Tax == d.Tax && l.Discountable).Select(l => l.Net), of.Currency)
                ) - Sum(invoices.Select(b => b.AllowanceOf(d.Tax)), of.Currency)
            ))
            .Where(a => !a.Amount.IsZero)
            .ToImmutableArray();
        var order = of.Lines.Select(l => l.Tax).Concat(of.Charges.Select(c => c.Tax)).Distinct();
        var bill = new Bill(
            BillKind.Invoice,
            lines.MoveToImmutable(),
            allowances,
            charges,
            [],
            Amount.Zero(of.Currency)
        );
        bill = bill with { Taxes = [.. Touched(bill, order).Select(t => Row(t, BasisOf(bill, t, of.Currency)))] };
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
        ArgumentNullException.ThrowIfNull(quantities);
        var currency = invoice.Prepaid.Currency;
        var lines = ImmutableArray.CreateBuilder<BilledLine>(invoice.Lines.Length);
        for (var i = 0; i < invoice.Lines.Length; i++)
        {
            var line = invoice.Lines[i];
            var (had, taken) = Before(before, i, currency);
            MustBeLeft(quantities[i], line.Quantity - had, i);
            lines.Add(
                Part(line.Net, line.Quantity, had + quantities[i], taken, quantities[i], line.Tax, line.Discountable)
            );
        }
        var back = charges && before.All(b => b.Charges.IsEmpty) ? invoice.Charges : [];
        MustBeSomething(lines, back);
        var allowances = invoice
            .Allowances.Select(a => new TaxAllowance(
                a.Tax,
                Share(
                    a.Amount,
                    Sum(before.Select(b => b.DiscountableOf(a.Tax)), currency) + Discountable(lines, a.Tax, currency),
                    invoice.DiscountableOf(a.Tax)
                ) - Sum(before.Select(b => b.AllowanceOf(a.Tax)), currency)
            ))
            .Where(a => !a.Amount.IsZero)
            .ToImmutableArray();
        var note = new Bill(BillKind.Credit, lines.MoveToImmutable(), allowances, back, [], Amount.Zero(currency));
        return note with
        {
            Taxes =
            [
                .. Touched(note, invoice.Taxes.Select(t => t.Tax))
                    .Select(tax =>
                    {
                        var basis = BasisOf(note, tax, currency);
                        // Where nothing of it is left, the tax that is left goes with it.
                        var done = Sum(before.Select(b => b.BasisOf(tax)), currency) + basis == invoice.BasisOf(tax);
                        return done
                            ? new TaxRow(
                                tax,
                                basis,
                                invoice.TaxOf(tax) - Sum(before.Select(b => b.TaxOf(tax)), currency)
                            )
                            : Row(tax, basis);
                    }),
            ],
        };
    }

    private static (decimal Quantity, Amount Net) Before(IEnumerable<Bill> bills, int line, Currency currency)
    {
        var (quantity, net) = (0m, Amount.Zero(currency));
        foreach (var bill in bills)
            (quantity, net) = (quantity + bill.Lines[line].Quantity, net + bill.Lines[line].Net);
        return (quantity, net);
    }

    private static BilledLine Part(
        Amount net,
        decimal whole,
        decimal soFar,
        Amount taken,
        decimal now,
        Tax tax,
        bool discountable
    ) =>
        new(
            now,
            now == 0m ? Amount.Zero(net.Currency) : Amount.Round(net.Value * soFar / whole, net.Currency) - taken,
            tax,
            discountable
        );

    private static Amount Share(Amount share, Amount soFar, Amount whole) =>
        whole.IsZero
            ? Amount.Zero(share.Currency)
            : Amount.Round(share.Value * soFar.Minor / whole.Minor, share.Currency);

    private static Amount Discountable(IEnumerable<BilledLine> lines, Tax tax, Currency currency) =>
        Sum(lines.Where(l => l.Tax == tax && l.Discountable).Select(l => l.Net), currency);

    private static IEnumerable<Tax> Touched(Bill bill, IEnumerable<Tax> order) =>
        order.Where(t => bill.Lines.Any(l => l.Tax == t && l.Quantity != 0m) || bill.Charges.Any(c => c.Tax == t));

    private static Amount BasisOf(Bill bill, Tax tax, Currency currency) =>
        Sum(bill.Lines.Where(l => l.Tax == tax).Select(l => l.Net), currency)
        - bill.AllowanceOf(tax)
        + Sum(bill.Charges.Where(c => c.Tax == tax).Select(c => c.Amount), currency);

    // EN 16931, BR-CO-17: by category and rate.
    private static TaxRow Row(Tax tax, Amount basis) =>
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

    private static void MustBeSomething(IEnumerable<BilledLine> lines, ImmutableArray<BillableCharge> charges)
    {
        if (charges.IsEmpty && lines.All(l => l.Quantity == 0m))
            throw new ArgumentException("There is nothing on it.");
    }
}
