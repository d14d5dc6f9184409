using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>What a buyer accepted binds: every difference of the order is named, whichever way it goes.</summary>
public sealed class DifferenceTests
{
    private static readonly SheetLine Braid = World.Line(World.Braid, 180m);
    private static readonly SheetLine Shackle = World.Line(World.Shackle, 12m);

    private static readonly Head Then = World.Typed(
        (HeadTerms.PaymentDays, "30"),
        (HeadTerms.Incoterm, "DAP"),
        (HeadTerms.DeliverTo, "The Yard, Skerrow quay")
    );

    private static string[] Between(SheetLine[] order, Head? now = null) =>
        [.. Differences.Between(World.Sheet(Braid, Shackle), Then, World.Sheet(order), now ?? Then)];

    [Fact]
    public void The_same_differs_in_nothing_in_whatever_order_its_lines_stand()
    {
        Assert.Empty(Between([Braid, Shackle]));
        Assert.Empty(Between([Shackle, Braid]));
    }

    [Fact]
    public void Each_difference_of_a_line_is_said_with_what_was_accepted()
    {
        Assert.Equal(["BB2-10-NV: 200 m, accepted were 180 m"], Between([Braid with { Quantity = 200m }, Shackle]));
        Assert.Equal(["SHK-BOW-10: 12 box, accepted were 12"], Between([Braid, Shackle with { Unit = Unit.Box }]));
        Assert.Equal(
            ["SHK-BOW-10: 4.5000, accepted was 4.1500"],
            Between([Braid, Shackle with { ByHand = new ByHand(ByHandKind.NetPrice, 4.50m, null) }])
        );
        Assert.Equal(
            ["SHK-BOW-10: 4.0000, accepted was 4.1500"],
            Between([Braid, Shackle with { ByHand = new ByHand(ByHandKind.NetPrice, 4m, null) }])
        );
        Assert.Equal(
            ["SVC-EYE in place of SHK-BOW-10"],
            Between([Braid, World.Line(World.Splice, 12m) with { Key = Shackle.Key }])
        );
    }

    [Fact]
    public void Lines_that_came_and_lines_that_went_are_named()
    {
        Assert.Equal(["SVC-EYE was not on the quote"], Between([Braid, Shackle, World.Line(World.Splice, 2m)]));
        Assert.Equal(["SHK-BOW-10 is gone"], Between([Braid]));
    }

    [Fact]
    public void An_option_that_was_left_is_no_difference_and_one_that_was_taken_neither()
    {
        var option = World.Line(World.Splice, 2m) with { Optional = true };
        var offered = World.Sheet(Braid, option);
        Assert.Empty(Differences.Between(offered, Then, World.Sheet(Braid), Then));
        Assert.Empty(Differences.Between(offered, Then, World.Sheet(Braid, option with { Optional = false }), Then));
    }

    [Fact]
    public void Terms_that_moved_are_said()
    {
        var now = Then.With(HeadTerms.PaymentDays.Name, "60", null).With(HeadTerms.Incoterm.Name, null, null);
        Assert.Equal(
            ["days to pay 60 days, accepted was 30 days", "Incoterm not said, accepted was DAP"],
            Between([Braid, Shackle], now)
        );
    }
}
