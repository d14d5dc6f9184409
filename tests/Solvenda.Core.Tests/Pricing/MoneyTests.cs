using CsCheck;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

public sealed class MoneyTests
{
    [Fact]
    public void Splitting_never_loses_a_cent_and_keeps_to_the_proportion() =>
        Gen.Select(Gen.Long[-1_000_000, 1_000_000], Gen.Long[0, 1_000_000_000_000_000].Array[1, 12])
            .Sample(
                (minor, weights) =>
                {
                    var amount = Amount.FromMinor(minor, World.Eur);
                    var parts = amount.SplitOver(weights);
                    Assert.Equal(amount, Amount.Sum(parts, World.Eur));
                    var total = weights.Sum(w => (decimal)w);
                    if (total > 0)
                        Assert.All(
                            parts.Zip(weights),
                            p => Assert.True(Math.Abs(p.First.Minor - (minor * (decimal)p.Second / total)) <= 1m)
                        );
                }
            );

    [Theory]
    [
        InlineData("EUR", "2.345", "2.35"),
        InlineData("EUR", "-2.345", "-2.35"),
        InlineData("JPY", "0.5", "1"),
        InlineData("KWD", "1.0005", "1.001")
    ]
    public void Rounding_is_half_away_from_zero_to_the_minor_unit(string currency, string value, string rounded) =>
        Assert.Equal(
            decimal.Parse(rounded, System.Globalization.CultureInfo.InvariantCulture),
            Amount
                .Round(decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture), Currency.Of(currency))
                .Value
        );

    [Fact]
    public void Currencies_do_not_mix()
    {
        Assert.Throws<InvalidOperationException>(() => Amount.Zero(World.Eur) + Amount.Zero(Currency.Of("USD")));
        Assert.Throws<InvalidOperationException>(() =>
            UnitPrice.Round(1m, World.Eur) < UnitPrice.Round(1m, Currency.Of("USD"))
        );
        Assert.False(Currency.TryOf("XXQ", out _));
    }

    [Fact]
    public void A_sheet_adds_up_whatever_is_on_it_and_in_whatever_order()
    {
        var line = Gen.Select(
            Gen.Decimal[0m, 500m],
            Gen.Decimal[0m, 300m],
            Gen.Int[0, 3],
            Gen.Decimal[-20m, 60m],
            Gen.Bool,
            Gen.Int[0, 2]
        );
        Gen.Select(line.Array[0, 12], Gen.Decimal[0m, 30m])
            .Sample(
                (rows, percent) =>
                {
                    var terms = rows.Select(r => new LineTerms(
                            decimal.Round(r.Item1, 2),
                            decimal.Round(r.Item2, 4),
                            1m,
                            decimal.Round(r.Item2 * 0.6m, 4),
                            r.Item3 == 1
                                ? new ByHand(ByHandKind.DiscountPercent, decimal.Round(r.Item4, 2), null)
                                : ByHand.None,
                            [],
                            r.Item5,
                            true,
                            new Tax("S", r.Item6 * 9m)
                        ))
                        .ToArray();
                    var discount = new SheetDiscount(decimal.Round(percent, 2), null);
                    var (lines, tally) = SheetArithmetic.Calculate(World.Eur, terms, discount, [], 0m);
                    Assert.Equal(
                        tally.Goods,
                        Amount.Sum(lines.Where((_, i) => terms[i].Counts).Select(l => l.Net), World.Eur)
                    );
                    Assert.Equal(tally.TotalWithoutTax, Amount.Sum(tally.Taxes.Select(t => t.Basis), World.Eur));
                    Assert.Equal(tally.SheetDiscount, Amount.Sum(lines.Select(l => l.SheetDiscountShare), World.Eur));
                    Assert.Equal(tally.TotalWithTax, tally.TotalWithoutTax + tally.TotalTax);
                    var (_, turned) = SheetArithmetic.Calculate(World.Eur, [.. terms.Reverse()], discount, [], 0m);
                    Assert.Equal(
                        (tally.Goods, tally.SheetDiscount, tally.TotalWithoutTax),
                        (turned.Goods, turned.SheetDiscount, turned.TotalWithoutTax)
                    );
                }
            );
    }

    [Fact]
    public void A_sheet_discount_above_the_lines_is_refused_and_takes_nothing_off()
    {
        var sheet = World.Sheet(new SheetDiscount(null, 1_000m), World.Line(World.Shackle, 10m));
        Assert.True(sheet.Tally.DiscountRefused);
        Assert.Equal(sheet.Tally.Goods, sheet.Tally.TotalWithoutTax);
    }

    [Fact]
    public void The_break_counts_in_the_stock_unit_also_by_the_coil()
    {
        var coils = World.Sheet(World.Line(World.Braid, 1m, null, Unit.Coil)).Lines[0];
        Assert.Equal([484m, 435.6m], coils.Build.Steps.Select(s => s.Price));
        var metres = World.Sheet(World.Line(World.Braid, 199m)).Lines[0];
        Assert.Equal([2.42m, 2.2264m], metres.Build.Steps.Select(s => s.Price));
    }

    [Fact]
    public void No_price_no_unit_no_rate_no_tax_are_gaps_and_never_zero_or_a_guess()
    {
        var buyer = World.Tressel;
        PriceGap Gap(Unit unit, Currency currency, DateOnly day) =>
            BasePrice
                .Find(
                    World.Book,
                    Rates.On(day, World.Eur, World.Book.DatedRates),
                    new PriceQuestion(World.Braid, 1m, unit, buyer, currency, day)
                )
                .Gap;
        Assert.Equal(PriceGap.NoListPrice, Gap(Unit.Metre, World.Eur, new DateOnly(2020, 1, 1)));
        Assert.Equal(PriceGap.NoUnit, Gap(Unit.Litre, World.Eur, World.Day));
        Assert.Equal(PriceGap.NoRate, Gap(Unit.Metre, Currency.Of("SEK"), World.Day));
        Tax? Find(string? country, string? number, bool exempt = false) =>
            TaxRules.Find(
                "IE",
                country,
                buyer with
                {
                    TaxNumber = number,
                    TaxExempt = exempt,
                },
                Catalogue.TaxClass.Standard,
                World.Day,
                World.Book.TaxRates
            );
        Assert.Equal(new Tax("S", 23m), Find("IE", null));
        Assert.Equal(new Tax("E", 0m), Find("IE", null, exempt: true));
        Assert.Equal(new Tax("K", 0m), Find("NL", "NL999999990B01"));
        Assert.Null(Find("NL", null));
        Assert.Equal(new Tax("G", 0m), Find("US", null));
        Assert.Null(Find(null, null));
    }
}
