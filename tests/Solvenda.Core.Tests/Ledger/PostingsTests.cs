using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Xunit;

namespace Solvenda.Core.Tests.Ledger;

/// <summary>Double entries: whatever is booked, both sides are the same.</summary>
public sealed class PostingsTests
{
    private static readonly Currency _home = Currency.Of("EUR");
    private static readonly Tax[] _taxes = [new("S", 23m), new("S", 13.5m), new("E", 0m), new("K", 0m)];

    private static readonly Chart _chart = new([
        new("1400", "receivable", AccountUse.Receivable, ""),
        new("1810", "bank", AccountUse.Bank, ""),
        new("2300", "on account", AccountUse.OnAccount, ""),
        new("2410", "tax owed", AccountUse.TaxOwed, ""),
        new("4000", "sales", AccountUse.Revenue, ""),
        new("4100", "sales within the Union", AccountUse.Revenue, "K"),
        new("6850", "exchange", AccountUse.Exchange, ""),
        new("4900", "paid early", AccountUse.EarlyPayment, ""),
        new("1820", "at channels", AccountUse.AtChannels, ""),
        new("6840", "fees", AccountUse.Fees, ""),
    ]);

    private static readonly Gen<(Bill Bill, decimal Rate)> _bills = Gen.Select(
            Gen.Select(Gen.Int[1, 40], Gen.Long[0, 900_000], Gen.Int[0, 3]).Array[1, 6],
            Gen.Int[0, 2].Select(i => new[] { "EUR", "GBP", "JPY" }[i]),
            Gen.Int[1, 3_000_000],
            Gen.Bool
        )
        .Select(
            (lines, code, rate, credit) =>
            {
                var currency = Currency.Of(code);
                ImmutableArray<BillLine> made =
                [
                    .. lines.Select(l => new BillLine(
                        l.Item1,
                        Amount.FromMinor(l.Item2, currency),
                        _taxes[l.Item3],
                        true
                    )),
                ];
                var whole = Billable.Of(currency, made, Amount.Zero(currency), []);
                var bill = BillRules.Invoice(whole, [], [.. made.Select(l => l.Quantity)], Amount.Zero(currency));
                return (
                    credit ? BillRules.Credit(bill, [], [.. made.Select(l => l.Quantity)], charges: false) : bill,
                    code == "EUR" ? 1m : rate / 1_000_000m
                );
            }
        );

    private static long Debit(ImmutableArray<Posting> postings) => postings.Sum(p => p.Debit.Minor);

    private static long Credit(ImmutableArray<Posting> postings) => postings.Sum(p => p.Credit.Minor);

    private static long On(ImmutableArray<Posting> postings, string account) =>
        postings.Where(p => p.Account == account).Sum(p => p.Debit.Minor - p.Credit.Minor);

    [Fact]
    public void An_invoice_balances_and_is_owed_as_a_whole() =>
        _bills.Sample(
            (bill, rate) =>
            {
                var postings = Postings.Of(bill, rate, _home, _chart, null);
                Assert.Equal(Debit(postings), Credit(postings));
                Assert.All(
                    postings,
                    p => Assert.True(p.Debit.Minor >= 0 && p.Credit.Minor >= 0 && p.Debit.IsZero != p.Credit.IsZero)
                );
                var total = Amount.Round(bill.TotalWithTax.Value * rate, _home).Minor;
                Assert.Equal(bill.Kind == BillKind.Credit ? -total : total, On(postings, "1400"));
            }
        );

    [Fact]
    public void Money_balances_whatever_it_pays_and_the_rate_shows_on_an_account_of_its_own() =>
        Gen.Select(
                Gen.Long[1, 900_000],
                Gen.Int[500_000, 2_000_000],
                Gen.Select(Gen.Long[1, 90_000], Gen.Long[1, 90_000]).Array[0, 4]
            )
            .Sample(
                (minor, rate, takes) =>
                {
                    var gbp = Currency.Of("GBP");
                    var owed = takes
                        .Select(t => new TakenOwed(
                            Amount.FromMinor(Math.Min(t.Item1, minor / 5), gbp),
                            Amount.FromMinor(t.Item2, _home)
                        ))
                        .ToList();
                    var postings = Postings.OfMoney(
                        Amount.FromMinor(minor, gbp),
                        AccountUse.Bank,
                        owed,
                        rate / 1_000_000m,
                        _home,
                        _chart
                    );
                    Assert.Equal(Debit(postings), Credit(postings));
                    Assert.Equal(-owed.Sum(o => o.Home.Minor), On(postings, "1400"));
                }
            );

    [Fact]
    public void A_deposit_that_was_worth_otherwise_makes_a_difference_of_exchange()
    {
        var gbp = Currency.Of("GBP");
        var whole = Billable.Of(gbp, [new(1m, Amount.FromMinor(10_000, gbp), _taxes[2], true)], Amount.Zero(gbp), []);
        var bill = BillRules.Invoice(whole, [], [1m], Amount.FromMinor(4_000, gbp));
        var taken = new TakenMoney(Amount.FromMinor(4_000, gbp), Amount.FromMinor(4_600, _home));
        var postings = Postings.Of(bill, 1.2m, _home, _chart, taken);
        Assert.Equal((7_200, 4_600, 200), (On(postings, "1400"), On(postings, "2300"), On(postings, "6850")));
        Assert.Equal(Debit(postings), Credit(postings));
    }

    [Fact]
    public void An_account_of_a_category_goes_before_the_one_for_all_and_what_is_missing_is_named()
    {
        Assert.Equal("4100", _chart.For(AccountUse.Revenue, "K"));
        Assert.Equal("4000", _chart.For(AccountUse.Revenue, "S"));
        Assert.Equal(AccountUse.Till, Assert.Throws<NoAccountException>(() => _chart.For(AccountUse.Till)).Use);
    }

    [Fact]
    public void What_is_taken_off_for_paying_early_takes_its_tax_along() =>
        Gen.Select(Gen.Long[1, 900_000], Gen.Int[0, 900_000], Gen.Int[0, 900_000])
            .Sample(
                (off, standard, free) =>
                {
                    InvoiceTax[] taxes =
                    [
                        new("S", 23m, standard / 100m, Math.Round(standard * 0.23m) / 100m),
                        new("K", 0m, (free + 1) / 100m, 0m),
                    ];
                    var postings = Postings.OfPaidEarly(Amount.FromMinor(off, _home), taxes, _chart);
                    Assert.Equal(Debit(postings), Credit(postings));
                    Assert.Equal(-off, On(postings, "1400"));
                    var share = taxes[0].Tax / taxes.Sum(t => t.Basis + t.Tax);
                    Assert.InRange(On(postings, "2410") - (off * share), -0.5m, 0.5m);
                }
            );

    [Fact]
    public void A_payout_empties_what_the_channel_held_and_books_its_fees()
    {
        var postings = Postings.OfPayout(Amount.FromMinor(90_00, _home), Amount.FromMinor(10_00, _home), _chart);
        Assert.Equal((-100_00, 10_00, 90_00), (On(postings, "1820"), On(postings, "6840"), On(postings, "2300")));
        Assert.Equal(Debit(postings), Credit(postings));
    }

    [Fact]
    public void Paying_back_at_another_rate_is_a_difference_of_exchange()
    {
        var pound = Amount.FromMinor(100_00, Currency.Of("GBP"));
        var money = new TakenMoney(pound, Amount.FromMinor(115_00, _home));
        var postings = Postings.OfPayingBack(money, AccountUse.OnAccount, 1.2m, _chart);
        Assert.Equal((115_00, -120_00, 5_00), (On(postings, "2300"), On(postings, "1810"), On(postings, "6850")));
        Assert.Equal(Debit(postings), Credit(postings));
    }
}
