using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Billing;

/// <summary>What a deposit invoice taxed already, as a later invoice takes it off: a negative line by
/// category.</summary>
/// <param name="Number">Of the deposit invoice.</param>
/// <param name="Basis">Above 0.</param>
public sealed record TaxDeduction(string Number, Tax Tax, Amount Basis, Amount TaxAmount)
{
    /// <summary>With its tax.</summary>
    public Amount Total => Basis + TaxAmount;
}

/// <summary>
/// Money that comes before the goods (docs/calculations.md, Billing): of domestic sales it is taxed when it comes, by a
/// deposit invoice (Directive 2006/112/EC, art. 65).
/// </summary>
public static class DepositRules
{
    // UNCL 5305, standard rate: the sales that are taxed at home.
    private const string Domestic = "S";

    /// <summary>The deposit invoice for money that came.</summary>
    /// <param name="of">The order that it came for.</param>
    /// <param name="received">With tax; above 0.</param>
    /// <returns>Null where nothing of it is taxed now. A cent that no basis with its tax comes to stays
    /// untaxed.</returns>
    public static Bill? Invoice(Billable of, Amount received)
    {
        ArgumentNullException.ThrowIfNull(of);
        var currency = received.Currency;
        if (of.Lines.IsEmpty && of.Charges.IsEmpty)
            return null;
        var whole = BillRules.Invoice(of, [], [.. of.Lines.Select(l => l.Quantity)], Amount.Zero(currency));
        var shares = received.SplitOver([.. whole.Taxes.Select(t => Math.Max(0, (t.Basis + t.TaxAmount).Minor))]);
        ImmutableArray<TaxRow> taxed =
        [
            .. whole
                .Taxes.Zip(shares, (t, share) => (t.Tax, Share: share))
                .Where(t => t.Tax.Category == Domestic)
                .Select(t => Within(t.Tax, t.Share))
                .Where(r => r.Basis > Amount.Zero(currency)),
        ];
        if (taxed.IsEmpty)
            return null;
        var bill = new Bill(BillKind.Deposit, [], [], [], taxed, Amount.Zero(currency));
        return bill with { Prepaid = bill.TotalWithTax };
    }

    /// <summary>What of a deposit invoice no later one took off, and no credit note gave back.</summary>
    /// <param name="taken">What was, by all invoices.</param>
    /// <param name="back">Credit notes on it.</param>
    public static ImmutableArray<TaxDeduction> Left(
        string number,
        Bill deposit,
        IEnumerable<TaxDeduction> taken,
        IEnumerable<Bill> back
    )
    {
        ArgumentNullException.ThrowIfNull(deposit);
        var (gone, notes) = (taken.Where(t => t.Number == number).ToList(), back.ToList());
        return
        [
            .. deposit
                .Taxes.Select(t => new TaxDeduction(
                    number,
                    t.Tax,
                    t.Basis
                        - Amount.Sum(gone.Where(g => g.Tax == t.Tax).Select(g => g.Basis), t.Basis.Currency)
                        - Amount.Sum(notes.Select(n => n.BasisOf(t.Tax)), t.Basis.Currency),
                    t.TaxAmount
                        - Amount.Sum(gone.Where(g => g.Tax == t.Tax).Select(g => g.TaxAmount), t.Basis.Currency)
                        - Amount.Sum(notes.Select(n => n.TaxOf(t.Tax)), t.Basis.Currency)
                ))
                .Where(l => !l.Basis.IsZero),
        ];
    }

    /// <summary>The credit note that gives back what is left of a deposit invoice.</summary>
    /// <param name="left">One row at least.</param>
    public static Bill Back(IReadOnlyList<TaxDeduction> left)
    {
        ArgumentNullException.ThrowIfNull(left);
        return new Bill(
            BillKind.Credit,
            [],
            [],
            [],
            [.. left.Select(l => new TaxRow(l.Tax, l.Basis, l.TaxAmount))],
            Amount.Zero(left[0].Basis.Currency)
        );
    }

    /// <summary>What an invoice takes off, tax by tax, up to what it has of each; the earliest deposit first.</summary>
    internal static ImmutableArray<TaxDeduction> Taken(
        IEnumerable<(Tax Tax, Amount Basis)> bases,
        IReadOnlyList<TaxDeduction> left
    )
    {
        var taken = ImmutableArray.CreateBuilder<TaxDeduction>();
        foreach (var (tax, basis) in bases)
        {
            var rest = basis;
            foreach (var deposit in left.Where(l => l.Tax == tax))
            {
                var part = deposit.Basis < rest ? deposit.Basis : rest;
                if (part <= Amount.Zero(basis.Currency))
                    continue;
                taken.Add(
                    part == deposit.Basis
                        ? deposit
                        : deposit with
                        {
                            Basis = part,
                            TaxAmount = BillRules.Row(tax, part).TaxAmount,
                        }
                );
                rest -= part;
            }
        }
        return taken.ToImmutable();
    }

    // The largest basis that with its tax comes to no more than the share.
    private static TaxRow Within(Tax tax, Amount share)
    {
        var row = BillRules.Row(tax, Amount.Round(share.Value / (1m + (tax.Percent / 100m)), share.Currency));
        while (row.Basis + row.TaxAmount > share)
            row = BillRules.Row(tax, row.Basis - Amount.FromMinor(1, share.Currency));
        return row;
    }
}
