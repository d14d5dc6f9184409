using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Tests.Ordering;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

/// <summary>Prices that were paid on a channel, with tax: they hold, and their total does.</summary>
public sealed class PaidTests
{
    private static readonly Tax Standard = new("S", 23m);
    private static readonly Tax Reduced = new("S", 13.5m);

    private static Amount Eur(decimal value) => Amount.Round(value, World.Eur);

    private static PaidLine Line(decimal gross, Tax tax) => new(Eur(gross), [(tax, 1L)]);

    // 173.90 with 23 %: basis 141.38, tax 32.52. 0.10: basis 0.08, tax 0.02. 82.00 and 9.90 of one category.
    [Theory]
    [InlineData(164.00, 9.90, 133.33, 8.05, 0.00)]
    [InlineData(0.10, 0.00, 0.08, 0.00, 0.00)]
    [InlineData(0.03, 0.00, 0.02, 0.00, 0.01)]
    public void What_was_paid_is_taken_apart_by_category_and_what_is_missing_is_rounding(
        double goods,
        double shipping,
        double net,
        double carried,
        double rounding
    )
    {
        var nets = PaidPrices.Of(World.Eur, [Line((decimal)goods, Standard)], Eur((decimal)shipping));
        Assert.Equal(Eur((decimal)net), nets.Lines[0][0]);
        Assert.Equal(Eur((decimal)carried), nets.Shipping.Aggregate(Eur(0), (sum, s) => sum + s.Net));
        Assert.Equal(Eur((decimal)rounding), nets.Rounding);
    }

    [Fact]
    public void The_total_that_was_paid_holds_over_any_lines_and_taxes()
    {
        var random = new Random(20261127);
        Tax[] taxes = [Standard, Reduced, new("Z", 0m), new("S", 25m), new("S", 5.5m)];
        for (var round = 0; round < 500; round++)
        {
            var lines = Enumerable
                .Range(0, random.Next(1, 12))
                .Select(_ => new PaidLine(
                    Eur(random.Next(0, 200_000) / 100m),
                    random.Next(4) == 0
                        ?
                        [
                            .. Enumerable
                                .Range(0, 3)
                                .Select(_ => ((Tax?)taxes[random.Next(5)], random.NextInt64(1, 99))),
                        ]
                        : [(taxes[random.Next(5)], 1L)]
                ))
                .ToList();
            var shipping = Eur(random.Next(0, 3_000) / 100m);
            var nets = PaidPrices.Of(World.Eur, lines, shipping);
            var bases = lines
                .SelectMany((l, i) => l.Taxes.Zip(nets.Lines[i], (t, net) => (t.Tax, Net: net)))
                .Concat(nets.Shipping)
                .GroupBy(n => n.Tax)
                .Select(g => (g.Key, Basis: g.Aggregate(Eur(0), (sum, n) => sum + n.Net)))
                .ToList();
            var billed = bases.Aggregate(
                Eur(0),
                (sum, b) => sum + b.Basis + Eur(b.Basis.Value * b.Key!.Value.Percent / 100m)
            );
            var paid = lines.Aggregate(shipping, (sum, l) => sum + l.Gross);
            Assert.Equal(paid, billed + nets.Rounding);
            Assert.True(Math.Abs(nets.Rounding.Minor) <= bases.Count);
        }
    }

    // At home, taxed at 23 %, with a charge of ours on every shackle that the buyer never saw.
    private static PricedSheet Sheet(decimal paid, decimal price, decimal quantity = 4m, decimal fee = 1.50m)
    {
        var line = new SheetLine(
            1,
            LineKind.Item,
            World.Shackle.Id,
            "shackles",
            quantity,
            Unit.Piece,
            ByHand.None,
            [],
            false,
            "",
            new AskedFor("shackles", "SHK-BOW-10", 4m, Unit.Piece, price, 1m) { WithTax = true }
        );
        var handling = new ChargeRule(
            "DG",
            "handling",
            ChargeBasis.Piece,
            RuleScope.All,
            null,
            null,
            false,
            null,
            null,
            0.75m,
            World.Eur,
            World.Day,
            null
        );
        var book = new PriceBook(
            World.Contents with
            {
                Charges = [handling, handling with { Basis = ChargeBasis.Sheet }],
            }
        );
        var sheet = new Sheet(World.Eur, World.Day, "IE", [line], SheetDiscount.None, [], paid)
        {
            Channel = "harbour fair",
            Paid = new PaidOnChannel(paid, 3.90m, fee),
        };
        return SheetPricer.Price(book, Rates.On(World.Day, World.Eur, []), World.Tressel, sheet);
    }

    [Fact]
    public void A_paid_sheet_comes_to_what_was_paid_charge_by_charge_and_the_fee_counts_in_the_margin()
    {
        var sheet = Sheet(23.50m, 4.90m);
        Assert.Equal(23.50m, (sheet.Tally.TotalWithTax + sheet.Tally.Rounding!.Value).Value);
        Assert.True(sheet.Tally.Due.IsZero);
        Assert.Equal(["shipping, as paid"], sheet.Charges.Select(c => c.Words));
        var line = sheet.Lines[0];
        Assert.True(line.IsPaid && line.RuleCharges.IsEmpty);
        Assert.Equal((StepKind.Paid, 3.985m), (line.Build.Steps[^1].Kind, line.Build.Steps[^1].Price));
        Assert.Equal(4.15m, line.OwnPrice);
        var free = Sheet(23.50m, 4.90m, fee: 0m);
        Assert.Equal(1.50m, (free.Tally.Margin - sheet.Tally.Margin).Value);
    }

    [Fact]
    public void What_is_far_from_our_price_or_no_longer_comes_to_what_was_paid_is_a_stop_of_the_lead()
    {
        static List<Finding> Found(PricedSheet sheet)
        {
            var facts = CheckTests.Facts();
            return
            [
                .. new PaidInFull().Run(
                    facts with
                    {
                        Document = DocumentKind.Order,
                        Sheet = sheet,
                        Stated = Stated.Nothing with { Paid = sheet.Sheet.Paid!.Total, ByChannel = true },
                    }
                ),
            ];
        }
        Assert.Empty(Found(Sheet(23.50m, 4.90m)));
        var cheap = Assert.Single(Found(Sheet(7.90m, 1.00m)));
        Assert.Equal((Outcome.Stop, WaiveBy.Lead, 1L), (cheap.Outcome, cheap.Waive, cheap.Line));
        Assert.Contains("less on the line", cheap.Words, StringComparison.Ordinal);
        // A piece fewer is money that goes back.
        var fewer = Assert.Single(Found(Sheet(23.50m, 4.90m, quantity: 3m)));
        Assert.Contains("4.90 less", fewer.Words, StringComparison.Ordinal);
    }

    [Fact]
    public void That_it_is_paid_is_believed_of_the_channel_alone()
    {
        var said = Stated.Nothing with { Paid = 23.50m };
        Assert.Null(said.OnChannel);
        var finding = Assert.Single(new PaidInFull().Run(CheckTests.Facts() with { Stated = said }));
        Assert.Equal((Outcome.Stop, WaiveBy.Lead), (finding.Outcome, finding.Waive));
        Assert.Contains("not come by the channel itself", finding.Words, StringComparison.Ordinal);
        Assert.Equal(23.50m, (said with { ByChannel = true }).OnChannel!.Total);
    }

    [Fact]
    public void Shipping_over_two_taxes_is_two_charges_and_typed_freight_takes_its_place_with_nothing_added()
    {
        var nets = PaidPrices.Of(World.Eur, [Line(60m, Standard), Line(40m, Reduced)], Eur(9.90m));
        Assert.Equal(2, nets.Shipping.Length);
        var typed = Sheet(23.50m, 4.90m);
        var sheet = SheetPricer.Price(
            typed.Book,
            typed.Rates,
            typed.Buyer,
            typed.Sheet with
            {
                Charges = [new SheetCharge("freight", 12m, null, true)],
            }
        );
        Assert.Equal([("freight", 12m)], sheet.Charges.Select(c => (c.Kind, c.Amount)));
    }
}
