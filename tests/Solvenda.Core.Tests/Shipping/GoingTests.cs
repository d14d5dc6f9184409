using CsCheck;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Xunit;

namespace Solvenda.Core.Tests.Shipping;

/// <summary>What may go of an order.</summary>
public sealed class GoingTests
{
    private const string Quay = "Skerrow quay";
    private static readonly ItemId _rope = new(1);
    private static readonly ItemId _shackle = new(2);

    private static OpenGoods Line(long key, decimal open, params (ItemId Item, decimal PerUnit)[] needs) =>
        new(key, Quay, open, 1m, [.. needs.Select(n => new GoingNeed(n.Item, n.PerUnit))]);

    private static decimal[] May(ShippingRule rule, OpenGoods[] lines, decimal rope, decimal shackles = 0m) =>
        [
            .. Going
                .Of(
                    rule,
                    lines,
                    new Dictionary<Shelf, decimal> { [new(_rope, Quay)] = rope, [new(_shackle, Quay)] = shackles }
                )
                .Select(p => p.Quantity),
        ];

    [Theory]
    // Coils of 200 m: 500 m hold two of three.
    [InlineData(ShippingRule.AsItComes, 500, 2, 5)]
    // A line that is not all there waits; the other goes.
    [InlineData(ShippingRule.WholeLines, 500, 0, 5)]
    [InlineData(ShippingRule.WholeLines, 600, 3, 5)]
    [InlineData(ShippingRule.AllTogether, 500, 0, 0)]
    [InlineData(ShippingRule.AllTogether, 600, 3, 5)]
    [InlineData(ShippingRule.OnCall, 600, 0, 0)]
    public void It_goes_as_the_buyer_wants_it(ShippingRule rule, decimal metres, decimal coils, decimal shackles) =>
        Assert.Equal(
            [coils, shackles],
            May(rule, [Line(1, 3, (_rope, 200)), Line(2, 5, (_shackle, 1))], metres, shackles: 5)
        );

    [Fact]
    public void What_is_called_off_goes_though_it_is_on_call() =>
        Assert.Equal(
            3m,
            Going
                .Of(
                    ShippingRule.OnCall,
                    [Line(1, 3, (_rope, 200))],
                    new Dictionary<Shelf, decimal> { [new(_rope, Quay)] = 600 },
                    called: true
                )
                .Single()
                .Quantity
        );

    [Fact]
    public void Two_lines_of_one_item_draw_on_one_shelf() =>
        Assert.Equal(
            [4m, 1m],
            May(ShippingRule.AsItComes, [Line(1, 4, (_shackle, 1)), Line(2, 4, (_shackle, 1))], 0, shackles: 5)
        );

    [Fact]
    public void A_bundle_goes_as_far_as_its_scarcest_part() =>
        Assert.Equal([2m], May(ShippingRule.AsItComes, [Line(1, 5, (_rope, 10), (_shackle, 2))], 100, shackles: 5));

    [Fact]
    public void A_service_goes_with_the_goods_and_alone_only_where_there_are_none()
    {
        Assert.Equal([0m, 0m], May(ShippingRule.AsItComes, [Line(1, 1, (_rope, 10)), Line(2, 6)], 0));
        Assert.Equal([1m, 6m], May(ShippingRule.AsItComes, [Line(1, 1, (_rope, 10)), Line(2, 6)], 10));
        Assert.Equal([6m], May(ShippingRule.WholeLines, [Line(2, 6)], 0));
    }

    [Fact]
    public void A_shelf_below_zero_is_empty() =>
        Assert.Equal([0m], May(ShippingRule.AsItComes, [Line(1, 2, (_rope, 10))], -40));

    [Theory]
    [InlineData(3, 600, 600, 3)]
    [InlineData(3, 600, 599, 2)]
    [InlineData(3, 600, 0, 0)]
    public void What_was_picked_makes_whole_units(decimal asked, decimal wanted, decimal had, decimal complete) =>
        Assert.Equal(complete, Going.Complete(asked, 1m, [(wanted, had), (6m, 6m)]));

    [Fact]
    public void Nothing_leaves_a_shelf_that_does_not_lie_there_and_whatever_goes_is_a_whole_step() =>
        Gen.Select(
                Gen.Int[0, 3],
                Gen.Select(Gen.Int[0, 40], Gen.Int[1, 9], Gen.Int[0, 9]).Array[1, 6],
                Gen.Int[-20, 300],
                Gen.Int[0, 60]
            )
            .Sample(
                (rule, made, rope, shackles) =>
                {
                    var lines = made.Select(
                            (m, i) =>
                                new OpenGoods(
                                    i,
                                    Quay,
                                    m.Item1,
                                    1m,
                                    [
                                        .. new[]
                                        {
                                            new GoingNeed(_rope, m.Item2),
                                            new GoingNeed(_shackle, m.Item3),
                                        }.Where(n => n.PerUnit > 0),
                                    ]
                                )
                        )
                        .ToArray();
                    var may = May((ShippingRule)rule, lines, rope, shackles);
                    for (var i = 0; i < lines.Length; i++)
                        Assert.True(may[i] >= 0 && may[i] <= lines[i].Open && may[i] == decimal.Truncate(may[i]));
                    Assert.True(lines.Zip(may, (l, q) => l.Needs[0].PerUnit * q).Sum() <= Math.Max(0, rope));
                    if ((ShippingRule)rule == ShippingRule.AllTogether && may.Any(q => q > 0))
                        Assert.Equal(lines.Select(l => l.Open), may);
                }
            );

    [Fact]
    public void The_track_says_how_far_the_goods_are()
    {
        GoodsSoFar[] Lines(params (decimal, decimal, decimal)[] lines) =>
            [.. lines.Select(l => new GoodsSoFar(l.Item1, l.Item2, l.Item3))];
        Assert.Equal(GoodsTrack.Waiting, GoodsSoFar.TrackOf(Lines((5, 0, 0), (2, 0, 0))));
        Assert.Equal(GoodsTrack.Picking, GoodsSoFar.TrackOf(Lines((5, 0, 5), (2, 0, 0))));
        Assert.Equal(GoodsTrack.PartShipped, GoodsSoFar.TrackOf(Lines((5, 5, 0), (2, 0, 2))));
        // What is closed short is no longer waited for.
        Assert.Equal(GoodsTrack.Shipped, GoodsSoFar.TrackOf(Lines((5, 5, 0), (0, 0, 0))));
        Assert.Equal(GoodsTrack.Waiting, GoodsSoFar.TrackOf(Lines((0, 0, 0))));
    }
}
