using CsCheck;
using Solvenda.Core.Credit;
using Solvenda.Core.Money;
using Xunit;

namespace Solvenda.Core.Tests.Credit;

public sealed class StandingTests
{
    private static Amount Eur(decimal value) => Amount.Round(value, World.Eur);

    [Fact]
    public void What_they_owe_and_will_owe_less_what_they_gave()
    {
        var standing = new CreditStanding(
            Eur(8_000m),
            Eur(5_000m),
            Eur(1_000m),
            Eur(2_500m),
            Eur(300m),
            Eur(200m),
            0,
            7
        );
        Assert.Equal(Eur(8_000m), standing.Exposure);
        Assert.Equal(Eur(0m), standing.Headroom(Eur(0m)));
        Assert.Equal(Eur(-0.01m), standing.Headroom(Eur(0.01m)));
    }

    [Theory]
    [InlineData(0, false)]
    [InlineData(7, false)]
    [InlineData(8, true)]
    public void Days_of_grace_are_within_it(int days, bool beyond) =>
        Assert.Equal(
            beyond,
            new CreditStanding(Eur(1m), Eur(0m), Eur(0m), Eur(0m), Eur(0m), Eur(0m), days, 7).OverdueBeyondGrace
        );

    [Fact]
    public void Every_cent_of_the_order_comes_off_the_headroom() =>
        Gen.Select(Gen.Long[0, 10_000_000], Gen.Long[0, 10_000_000], Gen.Long[0, 10_000_000])
            .Sample(
                (limit, open, order) =>
                {
                    var standing = new CreditStanding(
                        Amount.FromMinor(limit, World.Eur),
                        Amount.FromMinor(open, World.Eur),
                        Eur(0m),
                        Eur(0m),
                        Eur(0m),
                        Eur(0m),
                        0,
                        0
                    );
                    Assert.Equal(limit - open - order, standing.Headroom(Amount.FromMinor(order, World.Eur)).Minor);
                }
            );
}
