using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Xunit;

namespace Solvenda.Core.Tests.Billing;

/// <summary>Money that comes before the goods is taxed when it comes, and later invoices take it off.</summary>
public sealed class DepositTests
{
    private static readonly Currency Euro = Currency.Of("EUR");
    private static readonly Tax Standard = new("S", 23m);
    private static readonly Tax Exempt = new("E", 0m);

    private static Amount Eur(decimal value) => Amount.Round(value, Euro);

    private static Billable Order(params (decimal Quantity, decimal Net, Tax Tax)[] lines) =>
        Billable.Of(Euro, [.. lines.Select(l => new BillLine(l.Quantity, Eur(l.Net), l.Tax, true))], Eur(0m), []);

    [Fact]
    public void Half_of_an_order_is_taxed_and_taken_off_by_a_line_of_its_own()
    {
        var order = Order((10m, 100m, Standard));
        var deposit = DepositRules.Invoice(order, Eur(61.50m))!;
        Assert.Equal(BillKind.Deposit, deposit.Kind);
        Assert.Equal((Eur(50m), Eur(11.50m)), (deposit.TotalWithoutTax, deposit.TotalTax));
        Assert.True(deposit.Due.IsZero);
        var left = DepositRules.Left("F-1", deposit, [], []);
        var first = BillRules.Invoice(order, [], [3m], Eur(0m), left);
        // Thirty are taken off whole; the rest of the deposit waits for the next.
        Assert.Equal((Eur(0m), Eur(0m)), (first.TotalWithTax, first.TotalTax));
        Assert.Equal(Eur(30m), Assert.Single(first.Deductions).Basis);
        left = DepositRules.Left("F-1", deposit, first.Deductions, []);
        var second = BillRules.Invoice(order, [first], [7m], Eur(0m), left);
        Assert.Equal(Eur(20m), Assert.Single(second.Deductions).Basis);
        Assert.Equal((Eur(50m), Eur(61.50m)), (second.TotalWithoutTax, second.TotalWithTax));
        Assert.Empty(DepositRules.Left("F-1", deposit, [.. first.Deductions, .. second.Deductions], []));
    }

    [Fact]
    public void What_is_not_taxed_at_home_is_prepaid()
    {
        var order = Order((1m, 100m, Standard), (1m, 77m, Exempt));
        // 123 and 77 with tax: of 100 that came 61.50 are taxed.
        var deposit = DepositRules.Invoice(order, Eur(100m))!;
        Assert.Equal(Eur(61.50m), deposit.TotalWithTax);
        var bill = BillRules.Invoice(order, [], [1m, 1m], Eur(38.50m), DepositRules.Left("F-1", deposit, [], []));
        Assert.Equal((Eur(138.50m), Eur(38.50m), Eur(100m)), (bill.TotalWithTax, bill.Prepaid, bill.Due));
        Assert.Null(DepositRules.Invoice(Order((1m, 77m, Exempt)), Eur(10m)));
    }

    [Fact]
    public void Whatever_comes_no_cent_is_lost_and_tax_is_that_of_its_basis()
    {
        var random = new Random(386);
        for (var i = 0; i < 2_000; i++)
        {
            var order = Order(
                (random.Next(1, 9), random.Next(1, 90_000) / 100m, Standard),
                (random.Next(1, 9), random.Next(0, 90_000) / 100m, Exempt)
            );
            var total = BillRules.Invoice(order, [], [.. order.Lines.Select(l => l.Quantity)], Eur(0m)).TotalWithTax;
            var received = Amount.FromMinor(random.NextInt64(1, total.Minor + 1), Euro);
            var deposit = DepositRules.Invoice(order, received);
            var untaxed = received - (deposit?.TotalWithTax ?? Eur(0m));
            Assert.True(untaxed >= Eur(0m));
            if (deposit is not null)
                Assert.All(
                    deposit.Taxes,
                    t => Assert.Equal(Amount.Round(t.Basis.Value * t.Tax.Percent / 100m, Euro), t.TaxAmount)
                );
            var (bills, taken) = (new List<Bill>(), new List<TaxDeduction>());
            for (var part = 1; part <= 2; part++)
            {
                var quantities = order
                    .Lines.Select(
                        (l, at) =>
                        {
                            var left = l.Quantity - bills.Sum(b => b.Lines[at].Quantity);
                            return part == 2 ? left : random.Next(0, (int)left + 1);
                        }
                    )
                    .ToArray();
                if (quantities.All(q => q == 0m))
                    continue;
                var left = deposit is null ? [] : DepositRules.Left("F", deposit, taken, []);
                var bill = BillRules.Invoice(order, bills, quantities, untaxed, left);
                Assert.True(bill.Due >= Eur(0m));
                untaxed -= bill.Prepaid;
                bills.Add(bill);
                taken.AddRange(bill.Deductions);
                Check(bill);
            }
            // What it came to in all is what was ordered, to the cents that rounding tax twice may bring.
            var all = Amount.Sum(bills.Select(b => b.TotalWithTax + b.Deducted), Euro);
            Assert.InRange((all - total).Minor, -3, 3);
        }
    }

    // Both sides are the same, and what is on account goes with what was taxed.
    private static void Check(Bill bill)
    {
        var chart = new Chart([
            new Account("1", "", AccountUse.Receivable, ""),
            new Account("2", "", AccountUse.OnAccount, ""),
            new Account("3", "", AccountUse.Revenue, ""),
            new Account("4", "", AccountUse.TaxOwed, ""),
            new Account("5", "", AccountUse.Exchange, ""),
        ]);
        var held = bill.Deductions.Select(d => d.Basis).ToList();
        var taken = bill.Prepaid.IsZero ? null : new TakenMoney(bill.Prepaid, bill.Prepaid);
        var postings = Postings.Of(bill, 1m, Euro, chart, taken, held);
        Assert.Equal(Amount.Sum(postings.Select(p => p.Debit), Euro), Amount.Sum(postings.Select(p => p.Credit), Euro));
        var sold = Amount.Sum(postings.Where(p => p.Account == "3").Select(p => p.Credit - p.Debit), Euro);
        Assert.Equal(Amount.Sum(bill.Lines.Select(l => l.Net), Euro), sold);
        Assert.DoesNotContain(postings, p => p.Account == "5");
    }

    [Fact]
    public void A_credit_note_on_what_was_deducted_gives_all_of_it_back()
    {
        var order = Order((10m, 100m, Standard));
        var deposit = DepositRules.Invoice(order, Eur(61.50m))!;
        var bill = BillRules.Invoice(order, [], [10m], Eur(0m), DepositRules.Left("F-1", deposit, [], []));
        var first = BillRules.Credit(bill, [], [4m], charges: false);
        var rest = BillRules.Credit(bill, [first], [6m], charges: false);
        // Deposit invoice, invoice and notes together are nothing.
        Assert.Equal(deposit.TotalWithTax + bill.TotalWithTax, first.TotalWithTax + rest.TotalWithTax);
        Assert.Equal(deposit.TotalTax + bill.TotalTax, first.TotalTax + rest.TotalTax);
        // One on the deposit invoice itself gives back what nobody took off.
        var back = DepositRules.Back(DepositRules.Left("F-1", deposit, [], []));
        Assert.Equal((BillKind.Credit, deposit.TotalWithTax), (back.Kind, back.TotalWithTax));
        Assert.Empty(DepositRules.Left("F-1", deposit, [], [back]));
    }
}
