using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

/// <summary>
/// What sheets get by rule: freight, insurance, charges, breaks reached together, bundles; and what is kept when a
/// sheet leaves the house.
/// </summary>
public sealed class SheetRuleTests
{
    private static readonly DateOnly Since = new(2025, 1, 1);
    private static readonly Currency Usd = Currency.Of("USD");

    private static readonly Item Rope = World.White with { WeightKg = 0.09m };
    private static readonly Item Fender = World.Shackle with
    {
        Id = new ItemId(10),
        Code = "FND",
        Family = "fender",
        WeightKg = 1m,
        VolumeDm3 = 40m,
        SalesUnits = [],
    };
    private static readonly Item Book = World.Splice with
    {
        Id = new ItemId(11),
        Code = "BOOK",
        TaxClass = TaxClass.Zero,
        Family = "book",
    };
    private static readonly Item Set = World.Splice with
    {
        Id = new ItemId(12),
        Code = "SET",
        Family = "set",
        Parts = [new BundlePart(Rope.Id, 10m), new BundlePart(Book.Id, 1m)],
    };

    private static PriceBookContents Contents() =>
        new(
            World.Eur,
            "IE",
            "house",
            [Rope, Fender, Book, Set],
            [new Family("rope", "Ropes", 22m), new Family("fender", "Fenders", 20m)],
            [List(Rope, 1.84m), List(Fender, 68.50m), List(Book, 18m), List(Set, 30m)],
            [],
            [],
            [new DatedCost(Rope.Id, Since, 1.10m)],
            [new TaxRate(TaxClass.Standard, 23m, Since, null)],
            [new DatedRate(Usd, Since, 0.9236m)],
            ImmutableDictionary<string, string>.Empty
        )
        {
            FreightZones = ImmutableDictionary<string, string>.Empty.Add("IE", "1").Add("US", "5"),
            FreightBands =
            [
                new FreightBand("1", "road", 30m, 9.50m, World.Eur, Since, null),
                new FreightBand("1", "road", 100m, 24m, World.Eur, Since, null),
                new FreightBand("1", "express", 30m, 21m, World.Eur, Since, null),
                new FreightBand("5", "sea", 1_000m, 539m, World.Eur, Since, null),
            ],
            InsurancePercent = 0.35m,
        };

    private static ListPrice List(Item item, decimal price) =>
        new("house", item.Id, item.StockUnit, UnitPrice.Round(price, World.Eur), 1m, Since, null);

    private static PricedSheet Price(PriceBookContents contents, Sheet sheet) =>
        SheetPricer.Price(
            new PriceBook(contents),
            Rates.On(World.Day, World.Eur, contents.Rates),
            World.Tressel,
            sheet
        );

    private static Sheet Of(string? incoterm, params SheetLine[] lines) =>
        new(World.Eur, World.Day, "IE", [.. lines], SheetDiscount.None, [], 0m) { Incoterm = incoterm };

    private static decimal? Charge(PricedSheet sheet, string kind) =>
        sheet.Charges.FirstOrDefault(c => c.Kind == kind)?.Amount;

    [Theory]
    [
        InlineData("EXW", null, FreightGap.NotOurs),
        InlineData("FCA", null, FreightGap.NotOurs),
        InlineData(null, null, FreightGap.NoIncoterm)
    ]
    [
        InlineData("DAP", "9.50", FreightGap.None),
        InlineData("CPT", "9.50", FreightGap.None),
        InlineData("DDP", "9.50", FreightGap.None)
    ]
    public void The_incoterm_says_whose_freight_it_is(string? incoterm, string? freight, FreightGap gap)
    {
        var sheet = Price(Contents(), Of(incoterm, World.Line(Rope, 100m)));
        Assert.Equal(
            freight is null ? null : decimal.Parse(freight, System.Globalization.CultureInfo.InvariantCulture),
            Charge(sheet, "freight")
        );
        Assert.Equal((gap, 9m), (sheet.Freight.Gap, sheet.Freight.Kilograms));
    }

    [Fact]
    public void Volume_weight_counts_where_it_is_greater_and_a_typed_freight_stays()
    {
        // 10 fenders: 10 kg, 400 dm3, which is 80 kg by volume.
        var bulky = Price(Contents(), Of("DAP", World.Line(Fender, 10m)));
        Assert.Equal((80m, 24m), (bulky.Freight.Kilograms, Charge(bulky, "freight")));
        var typed = Price(
            Contents(),
            Of("DAP", World.Line(Fender, 10m)) with
            {
                Charges = [new SheetCharge("freight", 5m, null, true)],
            }
        );
        Assert.Equal(5m, Charge(typed, "freight"));
        Assert.Single(typed.Charges);
    }

    [Fact]
    public void No_weight_no_zone_no_band_is_no_freight_never_zero()
    {
        var unweighed = Contents() with { Items = [Rope with { WeightKg = null }, Fender, Book, Set] };
        Assert.Equal(
            (FreightGap.NoWeight, "PS3-12-WH"),
            (
                Price(unweighed, Of("DAP", World.Line(Rope, 1m))).Freight.Gap,
                Price(unweighed, Of("DAP", World.Line(Rope, 1m))).Freight.Unweighed.Single()
            )
        );
        Assert.Equal(
            FreightGap.NoZone,
            Price(Contents(), Of("DAP", World.Line(Rope, 1m)) with { DeliverToCountry = "SE" }).Freight.Gap
        );
        var heavy = Price(Contents(), Of("DAP", World.Line(Rope, 5_000m)));
        Assert.Equal(FreightGap.NoBand, heavy.Freight.Gap);
        Assert.Null(Charge(heavy, "freight"));
    }

    [Fact]
    public void Insurance_is_of_goods_and_freight_and_a_tenth_more_in_the_sheets_currency()
    {
        var sheet = Price(
            Contents(),
            Of("CIF", World.Line(Rope, 100m)) with
            {
                DeliverToCountry = "US",
                Currency = Usd,
            }
        );
        // 184 EUR of goods and 539 EUR of freight, each carried at 0.9236: 199.22 and 583.59; 0.35 % of 110 % of 782.81
        // is 3.0138.
        Assert.Equal(
            (199.22m, 583.59m, 3.01m),
            (sheet.Tally.Goods.Value, Charge(sheet, "freight"), Charge(sheet, "insurance"))
        );
        Assert.Null(
            Charge(Price(Contents() with { InsurancePercent = null }, Of("CIF", World.Line(Rope, 100m))), "insurance")
        );
    }

    [Fact]
    public void Charges_come_by_rule_for_the_line_the_piece_and_the_sheet()
    {
        var rule = new ChargeRule(
            "cut",
            "cutting",
            ChargeBasis.Line,
            RuleScope.Family,
            null,
            "rope",
            false,
            Unit.Metre,
            null,
            1.20m,
            World.Eur,
            Since,
            null
        );
        var contents = Contents() with
        {
            Charges =
            [
                rule,
                rule with
                {
                    Id = "tag",
                    Words = "tags",
                    Basis = ChargeBasis.Piece,
                    Scope = RuleScope.Item,
                    Family = null,
                    Item = Fender.Id,
                    Unit = null,
                    Amount = 0.105m,
                },
                rule with
                {
                    Id = "small",
                    Words = "small order",
                    Basis = ChargeBasis.Sheet,
                    Scope = RuleScope.All,
                    Family = null,
                    Unit = null,
                    BelowGoods = 100m,
                    Amount = 7.50m,
                },
                rule with
                {
                    Id = "old",
                    To = Since.AddDays(1),
                },
            ],
        };
        var small = Price(
            contents,
            Of("EXW", World.Line(Rope, 10m), World.Line(Rope, 1m, null, Unit.Coil) with { Key = 99, Optional = true })
        );
        Assert.Equal((1.20m, 7.50m), (small.Lines[0].Figures.Charges.Value, Charge(small, "small")));
        Assert.Equal(18.40m + 1.20m, small.Tally.Goods.Value);
        Assert.Empty(small.Lines[1].RuleCharges);
        var large = Price(contents, Of("EXW", World.Line(Fender, 3m)));
        Assert.Equal((0.32m, null), (large.Lines[0].Figures.Charges.Value, Charge(large, "small")));
    }

    [Fact]
    public void Lines_of_a_break_group_reach_the_break_together_and_options_do_not_help()
    {
        var agreement = new Agreement(
            "AG",
            "ropes",
            RuleParty.Buyer,
            World.Tressel.Id,
            null,
            RuleScope.All,
            null,
            null,
            RuleKind.PercentOff,
            null,
            [new QuantityBreak(0m, 5m), new QuantityBreak(200m, 10m)],
            Since,
            null,
            false
        );
        var lines = new[] { World.Line(Rope, 150m), World.Line(Fender, 60m) };
        PricedSheet With(Agreement a, params SheetLine[] of) =>
            Price(Contents() with { Agreements = [a] }, Of("EXW", of));
        Assert.Equal([1.7480m, 65.0750m], With(agreement, lines).Lines.Select(l => l.Figures.NetPrice));
        Assert.Equal(
            [1.6560m, 61.6500m],
            With(agreement with { BreakGroup = "g" }, lines).Lines.Select(l => l.Figures.NetPrice)
        );
        Assert.Equal(
            [1.7480m, 65.0750m],
            With(agreement with { BreakGroup = "g" }, lines[0], lines[1] with { Optional = true })
                .Lines.Select(l => l.Figures.NetPrice)
        );
    }

    [Fact]
    public void A_campaign_is_for_its_channel_and_its_items()
    {
        var campaign = new Campaign("C", "winter", RuleKind.PercentOff, 6m, Since, null)
        {
            Channel = "shop",
            Scope = RuleScope.Family,
            Family = "fender",
        };
        decimal Net(string? channel, Item item) =>
            Price(
                Contents() with
                {
                    Campaigns = [campaign],
                },
                Of("EXW", World.Line(item, 1m)) with
                {
                    Channel = channel,
                }
            )
                .Lines[0]
                .Figures.NetPrice;
        Assert.Equal(
            (64.39m, 68.50m, 68.50m, 1.84m),
            (Net("shop", Fender), Net("mail", Fender), Net(null, Fender), Net("shop", Rope))
        );
    }

    [Fact]
    public void A_bundle_is_spread_over_its_parts_and_taxed_part_by_part() =>
        Gen.Select(Gen.Int[1, 40], Gen.Decimal[0m, 40m])
            .Sample(
                (sets, percent) =>
                {
                    var line = World.Line(
                        Set,
                        sets,
                        new ByHand(ByHandKind.DiscountPercent, decimal.Round(percent, 1), null)
                    );
                    var sheet = Price(Contents(), Of("EXW", line) with { Discount = new SheetDiscount(3m, null) });
                    var parts = sheet.Lines[0].Parts;
                    Assert.Equal(sheet.Lines[0].Figures.Net, Amount.Sum(parts.Select(p => p.Net), World.Eur));
                    Assert.Equal([10m * sets, sets], parts.Select(p => p.Quantity));
                    Assert.Equal(["S", "Z"], sheet.Tally.Taxes.Select(t => t.Tax.Category).Order());
                    Assert.Equal(
                        sheet.Tally.TotalWithoutTax,
                        Amount.Sum(sheet.Tally.Taxes.Select(t => t.Basis), World.Eur)
                    );
                    // 18.40 of rope to 18.00 of book, by list value.
                    Assert.InRange(parts[0].Net.Minor - (sheet.Lines[0].Figures.Net.Minor * 18.4m / 36.4m), -1m, 1m);
                }
            );

    [Fact]
    public void What_left_the_house_keeps_its_price_until_the_line_changes()
    {
        var first = Price(Contents(), Of("EXW", World.Line(Rope, 100m)));
        var build = first.Lines[0].Build;
        var kept = ImmutableDictionary<long, KeptLine>.Empty.Add(
            first.Lines[0].Line.Key,
            new KeptLine(Rope.Id, Rope.StockUnit, 100m, build, first.Lines[0].Terms.Cost, first.Lines[0].Floor)
        );
        var dearer = Contents() with { Prices = [List(Rope, 2.50m)] };
        Assert.Equal(
            1.84m,
            Price(dearer, Of("EXW", World.Line(Rope, 100m)) with { Kept = kept }).Lines[0].Figures.NetPrice
        );
        Assert.Equal(
            2.50m,
            Price(dearer, Of("EXW", World.Line(Rope, 101m)) with { Kept = kept }).Lines[0].Figures.NetPrice
        );
        var sent = Price(
            Contents() with
            {
                FreightBands = [],
            },
            Of("DAP", World.Line(Rope, 100m)) with
            {
                Kept = kept,
                KeptCharges = [new SheetCharge("freight", 9.50m, null)],
            }
        );
        Assert.Equal((9.50m, new Tax("S", 23m)), (Charge(sent, "freight"), sent.Charges.Single().Tax));
    }

    [Theory]
    [
        InlineData(7, null, 5, 10),
        InlineData(10, null, 5, 10),
        InlineData(3, 20, 6, 24),
        InlineData(20, 20, null, 20),
        InlineData(1, 20, null, 20)
    ]
    public void Packs_are_whole_and_the_least_is_kept(int units, int? least, int? multiple, int right) =>
        Assert.Equal(right, Packing.Right(units, least, multiple));

    [Fact]
    public void Registered_abroad_means_their_rate()
    {
        TaxRate[] rates = [new(TaxClass.Standard, 23m, Since, null), new(TaxClass.Standard, 19m, Since, null, "DE")];
        Assert.Equal(new Tax("S", 19m), TaxRules.Find("IE", "DE", World.Tressel, TaxClass.Standard, World.Day, rates));
        Assert.Equal(new Tax("K", 0m), TaxRules.Find("IE", "FR", World.Tressel, TaxClass.Standard, World.Day, rates));
        Assert.Equal(new Tax("S", 23m), TaxRules.Find("IE", "IE", World.Tressel, TaxClass.Standard, World.Day, rates));
    }
}
