using CsCheck;
using Solvenda.Core.Shipping;
using Xunit;

namespace Solvenda.Core.Tests.Shipping;

/// <summary>Goods beyond what was ordered.</summary>
public sealed class OverDeliveryTests
{
    [Theory]
    // ordered, gone, being picked, this part, percent, step, beyond it
    [InlineData(10, 3, 7, 7, 10, 1, 1)]
    [InlineData(10, 0, 10, 10, 9.9, 1, 0)]
    [InlineData(33, 0, 33, 33, 5, 0.001, 1.65)]
    // More of it is to come, or is in other hands.
    [InlineData(10, 3, 6, 6, 10, 1, 0)]
    [InlineData(10, 3, 7, 4, 10, 1, 0)]
    // It went beyond before.
    [InlineData(10, 10, 0, 0, 10, 1, 0)]
    [InlineData(10, 0, 10, 10, 0, 1, 0)]
    public void Only_the_last_of_a_line_brings_more(
        double ordered,
        double gone,
        double inWork,
        double part,
        double percent,
        double step,
        double beyond
    ) =>
        Assert.Equal(
            (decimal)beyond,
            OverDelivery.Of(
                new GoodsSoFar((decimal)ordered, (decimal)gone, (decimal)inWork),
                (decimal)part,
                (decimal)percent,
                (decimal)step
            )
        );

    [Fact]
    public void However_it_goes_no_more_goes_than_is_taken() =>
        Gen.Select(Gen.Int[1, 200], Gen.Int[0, 25], Gen.Int[1, 60].Array[1, 12])
            .Sample(
                (ordered, percent, parts) =>
                {
                    var gone = 0m;
                    foreach (var part in parts)
                    {
                        var goes = Math.Min(part, ordered - gone);
                        if (goes > 0m)
                            gone +=
                                goes + OverDelivery.Of(new GoodsSoFar(ordered, gone, goes), goes, percent, step: 1m);
                    }
                    Assert.True(gone <= ordered * (1m + (percent / 100m)));
                }
            );
}
