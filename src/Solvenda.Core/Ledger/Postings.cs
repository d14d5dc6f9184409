using System.Collections.Immutable;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;

namespace Solvenda.Core.Ledger;

/// <summary>One side of an entry, in home currency: one of the two is zero, and neither is less.</summary>
public sealed record Posting(string Account, Amount Debit, Amount Credit);

/// <summary>Money of a buyer that was held, as it is taken by an invoice.</summary>
/// <param name="Home">What it was worth when it came.</param>
public sealed record TakenMoney(Amount Amount, Amount Home);

/// <summary>What is taken of something that is owed.</summary>
/// <param name="Home">What the ledger has it as.</param>
public sealed record TakenOwed(Amount Amount, Amount Home);

/// <summary>
/// The double entries that documents yield: each sums to the same in debit and credit, in home currency
/// (docs/calculations.md, Ledger).
/// </summary>
public static class Postings
{
    /// <summary>Of an invoice; of a credit note the same turned round.</summary>
    /// <param name="rate">Home currency for one unit of the bill's, on its day.</param>
    /// <param name="taken">Of money held for it: what the bill has as prepaid.</param>
    /// <param name="deducted">Of its deductions, what the ledger has on account for each; in their order.</param>
    /// <exception cref="NoAccountException">The house has no account for something on it.</exception>
    public static ImmutableArray<Posting> Of(
        Bill bill,
        decimal rate,
        Currency home,
        Chart chart,
        TakenMoney? taken,
        IReadOnlyList<Amount>? deducted = null
    )
    {
        ArgumentNullException.ThrowIfNull(bill);
        ArgumentNullException.ThrowIfNull(chart);
        Amount Home(Amount amount) => Amount.Round(amount.Value * rate, home);
        var sides = new Sides(home, turned: bill.Kind == BillKind.Credit);
        var total = Home(bill.TotalWithTax);
        sides.Debit(chart.For(AccountUse.Receivable), total);
        var taxes = bill.Taxes.Select(t => (t.Tax, t.Basis, Home: Home(t.TaxAmount))).ToList();
        var earned = total - Amount.Sum(taxes.Select(t => t.Home), home);
        // What rounding the parts brings stays with the largest, so that both sides are the same.
        var revenues = Spread(earned, [.. taxes.Select(t => Home(t.Basis))]);
        foreach (var ((tax, _, amount), revenue) in taxes.Zip(revenues))
        {
            sides.Credit(chart.For(AccountUse.Revenue, tax.Category), revenue);
            sides.Credit(chart.For(AccountUse.TaxOwed, tax.Category), amount);
        }
        // What was taxed when it came is sold now, at the worth that it came with.
        foreach (var (deduction, held) in bill.Deductions.Zip(deducted ?? []))
        {
            sides.Debit(chart.For(AccountUse.OnAccount), held);
            sides.Credit(chart.For(AccountUse.Revenue, deduction.Tax.Category), held);
        }
        if (taken is not null)
        {
            sides.Debit(chart.For(AccountUse.OnAccount), taken.Home);
            sides.Credit(chart.For(AccountUse.Receivable), Home(taken.Amount));
            sides.Rest(chart.For(AccountUse.Exchange));
        }
        return sides.Done();
    }

    /// <summary>Of a deposit invoice: the tax of money that is on account already.</summary>
    /// <param name="rate">Home currency for one unit of the bill's, on its day.</param>
    public static ImmutableArray<Posting> OfDeposit(Bill bill, decimal rate, Currency home, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(bill);
        ArgumentNullException.ThrowIfNull(chart);
        var sides = new Sides(home, turned: false);
        foreach (var tax in bill.Taxes)
            sides.Credit(
                chart.For(AccountUse.TaxOwed, tax.Tax.Category),
                Amount.Round(tax.TaxAmount.Value * rate, home)
            );
        sides.Rest(chart.For(AccountUse.OnAccount));
        return sides.Done();
    }

    /// <summary>Of a credit note on a deposit invoice: the money is owed back to the buyer, and its tax is not owed any
    /// more.</summary>
    /// <param name="rate">That of the deposit invoice.</param>
    /// <param name="held">What the ledger has on account for it.</param>
    public static ImmutableArray<Posting> OfDepositBack(
        Bill note,
        decimal rate,
        Amount held,
        Currency home,
        Chart chart
    )
    {
        ArgumentNullException.ThrowIfNull(note);
        ArgumentNullException.ThrowIfNull(chart);
        var sides = new Sides(home, turned: false);
        foreach (var tax in note.Taxes)
            sides.Debit(
                chart.For(AccountUse.TaxOwed, tax.Tax.Category),
                Amount.Round(tax.TaxAmount.Value * rate, home)
            );
        sides.Debit(chart.For(AccountUse.OnAccount), held);
        sides.Credit(chart.For(AccountUse.Receivable), Amount.Round(note.TotalWithTax.Value * rate, home));
        sides.Rest(chart.For(AccountUse.Exchange));
        return sides.Done();
    }

    /// <summary>Of money that came.</summary>
    /// <param name="at">Where it came to.</param>
    /// <param name="owed">What of it pays what is owed; the rest stays on account.</param>
    /// <param name="rate">Home currency for one unit of it, on its day.</param>
    public static ImmutableArray<Posting> OfMoney(
        Amount amount,
        AccountUse at,
        IEnumerable<TakenOwed> owed,
        decimal rate,
        Currency home,
        Chart chart
    )
    {
        ArgumentNullException.ThrowIfNull(owed);
        ArgumentNullException.ThrowIfNull(chart);
        var sides = new Sides(home, turned: false);
        var all = Amount.Round(amount.Value * rate, home);
        sides.Debit(chart.For(at), all);
        var left = amount;
        foreach (var one in owed)
        {
            sides.Credit(chart.For(AccountUse.Receivable), one.Home);
            left -= one.Amount;
        }
        var rest = Amount.Round(left.Value * rate, home);
        sides.Credit(chart.For(AccountUse.OnAccount), rest);
        sides.Rest(chart.For(AccountUse.Exchange));
        return sides.Done();
    }

    /// <summary>Of money on account that pays what is owed.</summary>
    public static ImmutableArray<Posting> OfTaking(TakenMoney money, TakenOwed owed, Currency home, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(money);
        ArgumentNullException.ThrowIfNull(owed);
        ArgumentNullException.ThrowIfNull(chart);
        var sides = new Sides(home, turned: false);
        sides.Debit(chart.For(AccountUse.OnAccount), money.Home);
        sides.Credit(chart.For(AccountUse.Receivable), owed.Home);
        sides.Rest(chart.For(AccountUse.Exchange));
        return sides.Done();
    }

    /// <summary>Of what a sales channel pays out: it came to the bank, and less than it held for us by its
    /// fees.</summary>
    /// <param name="paidOut">What came, as it is on account.</param>
    /// <param name="fees">What was kept back.</param>
    public static ImmutableArray<Posting> OfPayout(Amount paidOut, Amount fees, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(chart);
        var sides = new Sides(paidOut.Currency, turned: false);
        sides.Debit(chart.For(AccountUse.OnAccount), paidOut);
        sides.Debit(chart.For(AccountUse.Fees), fees);
        sides.Credit(chart.For(AccountUse.AtChannels), paidOut + fees);
        return sides.Done();
    }

    /// <summary>Of what a buyer took off for paying early: taken off what was sold, and off its tax.</summary>
    /// <param name="off">In home currency.</param>
    /// <param name="taxes">Of the invoice.</param>
    public static ImmutableArray<Posting> OfPaidEarly(Amount off, IEnumerable<InvoiceTax> taxes, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(taxes);
        ArgumentNullException.ThrowIfNull(chart);
        var all = taxes.ToList();
        var total = all.Sum(t => t.Basis + t.Tax);
        var sides = new Sides(off.Currency, turned: false);
        sides.Credit(chart.For(AccountUse.Receivable), off);
        foreach (var tax in all.Where(t => t.Tax != 0m))
            sides.Debit(
                chart.For(AccountUse.TaxOwed, tax.Category),
                Amount.Round(off.Value * tax.Tax / total, off.Currency)
            );
        sides.Rest(chart.For(AccountUse.EarlyPayment));
        return sides.Done();
    }

    /// <summary>Of money that a buyer gets back.</summary>
    /// <param name="money">With what the ledger has it as.</param>
    /// <param name="from">What it is of: of what is owed to them, or of their money on account.</param>
    /// <param name="rate">Home currency for one unit of it, today.</param>
    public static ImmutableArray<Posting> OfPayingBack(TakenMoney money, AccountUse from, decimal rate, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(money);
        ArgumentNullException.ThrowIfNull(chart);
        var home = money.Home.Currency;
        var sides = new Sides(home, turned: false);
        sides.Debit(chart.For(from), money.Home);
        sides.Credit(chart.For(AccountUse.Bank), Amount.Round(money.Amount.Value * rate, home));
        sides.Rest(chart.For(AccountUse.Exchange));
        return sides.Done();
    }

    /// <summary>What rounding left of something owed that is gone, in minor units: below nothing on the other
    /// side.</summary>
    public static ImmutableArray<Posting> Rounded(long minor, Currency home, Chart chart)
    {
        ArgumentNullException.ThrowIfNull(chart);
        var (receivable, other) = (chart.For(AccountUse.Receivable), chart.For(AccountUse.Exchange));
        return minor > 0
            ? Between(receivable, other, Amount.FromMinor(minor, home))
            : Between(other, receivable, Amount.FromMinor(-minor, home));
    }

    /// <summary>One amount from an account to another.</summary>
    public static ImmutableArray<Posting> Between(string debit, string credit, Amount amount)
    {
        var sides = new Sides(amount.Currency, turned: false);
        sides.Debit(debit, amount);
        sides.Credit(credit, amount);
        return sides.Done();
    }

    // The rounded parts, the largest of them with what rounding left.
    private static Amount[] Spread(Amount whole, Amount[] parts)
    {
        if (parts.Length == 0)
            return parts;
        var largest = 0;
        for (var i = 1; i < parts.Length; i++)
        {
            if (Math.Abs(parts[i].Minor) > Math.Abs(parts[largest].Minor))
                largest = i;
        }
        parts[largest] += whole - Amount.Sum(parts, whole.Currency);
        return parts;
    }

    // Both sides as they grow; amounts of one account stand together, each on the side that it comes to.
    private sealed class Sides(Currency home, bool turned)
    {
        private readonly List<(string Account, Amount Debit)> _sums = [];

        public void Debit(string account, Amount amount) => Add(account, turned ? -amount : amount);

        public void Credit(string account, Amount amount) => Add(account, turned ? amount : -amount);

        public void Rest(string account) => Add(account, -Amount.Sum(_sums.Select(s => s.Debit), home));

        private void Add(string account, Amount debit)
        {
            if (!debit.IsZero)
                _sums.Add((account, debit));
        }

        public ImmutableArray<Posting> Done()
        {
            var zero = Amount.Zero(home);
            return
            [
                .. _sums
                    .GroupBy(s => (s.Account, IsDebit: s.Debit > zero))
                    .Select(g =>
                    {
                        var sum = Amount.Sum(g.Select(s => s.Debit), home);
                        return sum > zero
                            ? new Posting(g.Key.Account, sum, zero)
                            : new Posting(g.Key.Account, zero, -sum);
                    }),
            ];
        }
    }
}
