using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

/// <summary>"What would it take?" against the plain way: every tenth of a percent tried one after the other.</summary>
public sealed class HeadroomTests
{
    private static readonly Gen<Authority> Authorities = Gen.Select(
            One.Of<decimal?>(null, 0m, 3m, 8m, 15m, 100m),
            One.Of<decimal?>(null, -50m, 15m, 22m, 30m, 45m)
        )
        .Select((discount, margin) => new Authority(discount, margin, Authority.AnyValue, null));

    private static readonly Gen<SheetLine> Lines = Gen.Select(
            One.Of(World.Braid, World.Shackle, World.Splice, World.White),
            Gen.Int[1, 400],
            Gen.Int[0, 12]
        )
        .Select(
            (item, quantity, less) =>
                World.Line(
                    item,
                    quantity,
                    less == 0 ? null : new ByHand(ByHandKind.DiscountPercent, less, World.Seller.Hand)
                )
        );

    // The line with another discount, judged as it then is.
    private static bool LineHolds(SheetLine line, decimal percent, Authority authority)
    {
        var trial = World.Sheet(line with { ByHand = new ByHand(ByHandKind.DiscountPercent, percent, null) }).Lines[0];
        return Headroom.Allows(authority, LineMoney.Of(trial) with { DiscountPercent = percent });
    }

    [Fact]
    public void On_a_line_it_is_the_last_tenth_before_something_fires() =>
        Gen.Select(Lines, Authorities)
            .Sample(
                (line, authority) =>
                {
                    decimal? plain = null;
                    for (var d = 0m; d <= 100m && LineHolds(line, d, authority); d += Headroom.Step)
                        plain = d;
                    var sheet = World.Sheet(line);
                    Assert.Equal(plain, Headroom.Line(sheet.Lines[0], sheet, authority));
                },
                iter: 150
            );

    [Fact]
    public void A_wider_authority_never_reaches_less_far() =>
        Gen.Select(Lines.Array[1, 4], Authorities, Authorities)
            .Sample(
                (lines, a, b) =>
                {
                    var wider = new Authority(
                        Math.Max(a.DiscountPercent ?? 0m, b.DiscountPercent ?? 0m),
                        Math.Min(a.LeastMarginPercent ?? 1_000m, b.LeastMarginPercent ?? 1_000m),
                        Authority.AnyValue,
                        null
                    );
                    var sheet = World.Sheet(lines);
                    foreach (var line in sheet.Lines)
                    {
                        var room = Headroom.Line(line, sheet, wider) ?? -1m;
                        Assert.True(room >= (Headroom.Line(line, sheet, a) ?? -1m));
                    }
                }
            );

    [Fact]
    public void Without_a_price_there_is_nothing_to_give()
    {
        var unknown = World.Line(World.Braid, 1m, unit: Units.Unit.Box);
        var sheet = World.Sheet(unknown);
        Assert.False(sheet.Lines[0].HasPrice);
        Assert.Null(Headroom.Line(sheet.Lines[0], sheet, World.Lead.Authority));
    }

    [Fact]
    public void Each_on_the_reporting_line_reaches_as_far_as_their_own_authority()
    {
        var reach = Headroom.Sheet(World.Sheet(World.Line(World.Splice, 40m)), World.Seller, World.People);
        Assert.Equal([World.Seller.Name, World.Lead.Name], reach.Select(r => r.Name));
        Assert.Equal([8m, 15m], reach.Select(r => r.UpToPercent));
    }

    [Fact]
    public void Somebody_who_may_give_all_away_may_give_all_away()
    {
        var sheet = World.Sheet(World.Line(World.Braid, 10m), World.Line(World.Shackle, 10m));
        var all = new Authority(100m, Authority.AnyMargin, Authority.AnyValue, null);
        Assert.Equal(100m, Headroom.Line(sheet.Lines[0], sheet, all));
        Assert.Null(Headroom.Line(sheet.Lines[0], sheet, Authority.None));
    }
}
