using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Figures;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

/// <summary>Each figure at its edge, what it is of, and how it is said.</summary>
public sealed class FigureTests
{
    private static readonly Authority Some = new(8m, 22m, 20_000m, 500m)
    {
        TermsDays = 15,
        FreightUnder = 50m,
        WithoutCost = 100m,
        CostUnder = 100m,
    };

    [Theory]
    [InlineData("discount", 8, 8.0001)]
    [InlineData("margin", 22, 21.99)]
    [InlineData("sheet-discount", 8, 8.0001)]
    [InlineData("terms", 15, 16)]
    [InlineData("freight", 50, 50.01)]
    [InlineData("value", 20_000, 20_000.01)]
    [InlineData("without-cost", 100, 100.01)]
    [InlineData("cost-under", 100, 100.01)]
    [InlineData("credit", 500, 500.01)]
    public void The_limit_itself_is_within_it(string code, double within, double beyond)
    {
        var figure = FigureList.Of(code);
        Assert.False(figure.IsBeyond((decimal)within, Some));
        Assert.True(figure.IsBeyond((decimal)beyond, Some));
        Assert.True(figure.IsWorse((decimal)beyond, (decimal)within));
        Assert.False(figure.IsWorse((decimal)within, (decimal)within));
    }

    [Fact]
    public void Without_any_authority_every_figure_that_gives_something_away_is_beyond_it()
    {
        Assert.All(
            FigureList.All.Where(f => FigureList.Policies.Contains(f.Code) || f == FigureList.Credit),
            f => Assert.True(f.IsBeyond(f.MoreIsWorse ? 0.01m : 99.99m, Authority.None), f.Code)
        );
        // Nothing given away is within everybody's.
        Assert.All(
            FigureList.All.Where(f => f.MoreIsWorse && f != FigureList.Credit),
            f => Assert.False(f.IsBeyond(0m, Authority.None), f.Code)
        );
    }

    [Fact]
    public void Each_says_itself_against_the_limit_and_alone()
    {
        Assert.All(FigureList.All, f => Assert.NotEmpty(f.Say(12m, Some)));
        Assert.All(FigureList.All, f => Assert.NotEmpty(f.Say(12m, Authority.None)));
        Assert.Equal(
            [
                "12.0 %",
                "12.0 %",
                "12.0 %",
                "12.00",
                "12.0 %",
                "12.0 %",
                "12 days",
                "12.00",
                "12.00",
                "12.0 %",
                "12.00",
                "12.00",
                "12 days",
                "12.0 %",
                "12.00",
                "12 days",
                "12.0 %",
            ],
            FigureList.All.Select(f => f.Show(12m))
        );
        Assert.Equal("12 % discount on a line, 8 % may be given alone", FigureList.Of("discount").Say(12m, Some));
        Assert.Equal("12.0 % margin on a line, 22 % is the least alone", FigureList.Of("margin").Say(12m, Some));
    }

    private static PricedSheet With(ImmutableArray<FreightBand> bands, decimal? freight, string incoterm = "DAP")
    {
        var braid = World.Braid with { WeightKg = 0.1m };
        var book = new PriceBook(
            new PriceBookContents(
                World.Eur,
                "IE",
                "house",
                [braid],
                [],
                [
                    new ListPrice(
                        "house",
                        braid.Id,
                        braid.StockUnit,
                        UnitPrice.Round(2m, World.Eur),
                        1m,
                        new(2025, 1, 1),
                        null
                    ),
                ],
                [],
                [],
                [],
                [new TaxRate(TaxClass.Standard, 23m, new(2020, 1, 1), null)],
                [],
                ImmutableDictionary<string, string>.Empty
            )
            {
                FreightBands = bands,
                FreightZones = ImmutableDictionary<string, string>.Empty.Add("IE", "1"),
            }
        );
        return SheetPricer.Price(
            book,
            Rates.On(World.Day, World.Eur, []),
            World.Tressel,
            new Sheet(
                World.Eur,
                World.Day,
                "IE",
                [World.Line(braid, 10m)],
                SheetDiscount.None,
                freight is { } f ? [new SheetCharge("freight", f, null)] : [],
                0m
            )
            {
                Incoterm = incoterm,
            }
        );
    }

    private static readonly FreightBand Road = new("1", "road", 30m, 9.50m, World.Eur, new(2025, 1, 1), null);

    private static decimal? Under(PricedSheet sheet, string? typed) =>
        new FreightUnderTable().Of(sheet, typed is null ? Head.Empty : World.Typed((HeadTerms.Freight, typed)));

    [Fact]
    public void Freight_that_was_typed_is_measured_by_the_table()
    {
        Assert.Equal(9.50m, Under(With([Road], 0m), "0"));
        Assert.Equal(0.50m, Under(With([Road], 9m), "9"));
        Assert.Equal(0m, Under(With([Road], 30m), "30"));
        Assert.Null(Under(With([Road], null), null));
        // Carried by the buyer, nothing is given away; where no table says what it costs, nobody knows.
        Assert.Null(Under(With([Road], 0m, "EXW"), "0"));
        Assert.Equal(WholeFigure.Unknown, Under(With([], 0m), "0"));
    }

    [Fact]
    public void Freight_without_a_table_is_decided_by_whoever_has_no_limit()
    {
        var figure = new FreightUnderTable();
        Assert.True(figure.IsBeyond(WholeFigure.Unknown, Some));
        Assert.False(figure.IsBeyond(WholeFigure.Unknown, Some with { FreightUnder = Authority.AnyValue }));
        Assert.Contains("no table", figure.Say(WholeFigure.Unknown, Some), StringComparison.Ordinal);
    }

    [Fact]
    public void The_value_counts_what_the_buyer_may_choose_and_is_unknown_without_a_rate()
    {
        var line = World.Line(World.Shackle, 10m);
        var figure = new SheetValue();
        Assert.Equal(41.50m, figure.Of(World.Sheet(line)));
        Assert.Equal(83m, figure.Of(World.Sheet(line, line with { Key = 9, Optional = true })));
        var foreign = SheetPricer.Price(
            World.Book,
            Rates.On(World.Day, World.Eur, []),
            World.Tressel,
            new Sheet(Currency.Of("GBP"), World.Day, "IE", [line], SheetDiscount.None, [], 0m)
        );
        Assert.Equal(WholeFigure.Unknown, figure.Of(foreign));
        Assert.True(figure.IsBeyond(WholeFigure.Unknown, new Authority(100m, 0m, Authority.AnyValue, null)));
    }

    [Fact]
    public void The_margin_of_the_whole_is_the_worst_that_the_buyer_can_make_it()
    {
        SheetLine Less(Item item, decimal quantity, decimal percent, bool optional = false) =>
            World.Line(item, quantity, new ByHand(ByHandKind.DiscountPercent, percent, null)) with
            {
                Key = item.Id.Value + (optional ? 100 : 0),
                Optional = optional,
            };
        decimal? Of(params SheetLine[] lines) => new SheetMargin().Of(World.Sheet(lines));
        Assert.Null(Of(World.Line(World.Shackle, 10m)));
        var alone = Of(Less(World.Shackle, 10m, 5m))!.Value;
        Assert.True(Of(Less(World.Shackle, 10m, 5m), Less(World.Splice, 10m, 50m, optional: true)) < alone);
        // A rich option that the buyer may leave out does not make it better.
        Assert.Equal(alone, Of(Less(World.Shackle, 10m, 5m), Less(World.Splice, 10m, 0.1m, optional: true)));
        Assert.Equal(LineMoney.GivenAway, Of(Less(World.Shackle, 10m, 100m)));
    }

    [Fact]
    public void An_option_never_makes_the_margin_of_the_whole_look_better() =>
        Gen.Select(Gen.Int[0, 60], Gen.Int[0, 60], Gen.Int[0, 60])
            .Sample(
                (a, b, c) =>
                {
                    SheetLine Less(Item item, int percent, bool optional) =>
                        World.Line(item, 10m, new ByHand(ByHandKind.DiscountPercent, percent, null)) with
                        {
                            Optional = optional,
                        };
                    var must = Less(World.Shackle, a, false);
                    var without = new SheetMargin().Of(World.Sheet(must));
                    var with = new SheetMargin().Of(
                        World.Sheet(must, Less(World.Splice, b, true), Less(World.Braid, c, true))
                    );
                    Assert.True(without is null ? with is null or < 100m : with <= without);
                }
            );

    [Fact]
    public void What_no_rate_carries_home_stays_unknown_whatever_comes_behind_it()
    {
        LineMoney Under(decimal home) =>
            LineMoney.Of(World.Sheet(World.Line(World.Shackle, 1m)).Lines[0]) with
            {
                CostUnder = home,
            };
        Assert.Equal(WholeFigure.Unknown, new CostUnder().Worst([Under(WholeFigure.Unknown), Under(5m)]));
        Assert.Equal(12m, new CostUnder().Worst([Under(7m), Under(5m)]));
        Assert.Null(new CostUnder().Worst([Under(0m)]));
    }

    [Fact]
    public void Lines_whose_cost_nobody_knows_are_counted_by_what_they_sell_for()
    {
        Assert.Null(new WithoutCost().Of(World.Sheet(World.Line(World.Shackle, 1m))));
        Assert.Equal(
            5.08m,
            new WithoutCost().Of(World.Sheet(World.Line(World.White, 3m), World.Line(World.Shackle, 1m)))
        );
    }

    [Theory]
    [InlineData(100, 60, 40)]
    [InlineData(100, 100, 0)]
    [InlineData(100, 150, -50)]
    [InlineData(0, 10, -10_000)]
    [InlineData(3, 2, 33.33)]
    public void A_margin_is_of_what_is_earned(double earned, double cost, double percent) =>
        Assert.Equal(
            (decimal)percent,
            new LineMoney(
                0m,
                Amount.Round((decimal)earned, World.Eur),
                Amount.Round((decimal)cost, World.Eur),
                false
            ).MarginPercent
        );

    [Fact]
    public void Nothing_for_nothing_and_no_cost_have_no_margin()
    {
        var zero = Amount.Zero(World.Eur);
        Assert.Null(new LineMoney(0m, zero, zero, false).MarginPercent);
        Assert.Null(new LineMoney(0m, zero, null, false).MarginPercent);
    }
}
