using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>What is left of an order is closed short, whatever of it has gone.</summary>
public sealed class ClosingShortTests
{
    private static readonly HashSet<long> Both = [World.Braid.Id.Value, World.Shackle.Id.Value];

    private static Draft Draft(params SheetLine[] lines) => new(Head.Empty, [.. lines], 900);

    [Fact]
    public void What_went_stays_as_a_line_and_the_rest_of_it_is_another()
    {
        var draft = Draft(World.Line(World.Braid, 100m) with { Charges = [4m] }, World.Line(World.Shackle, 7m));
        var begun = new Dictionary<long, decimal> { [World.Braid.Id.Value] = 30m };
        var (after, rests) = ClosingShort.Of(draft, Both, begun, "gone under");
        Assert.Equal(
            [(30m, ""), (70m, "gone under"), (7m, "gone under")],
            after.Lines.Select(l => (l.Quantity, l.ClosedWhy))
        );
        Assert.Equal([4m], after.Lines[0].Charges);
        Assert.Empty(after.Lines[1].Charges);
        Assert.Equal((900, 901), (rests[World.Braid.Id.Value], after.NextKey));
        Assert.Equal(900, after.Lines[1].Key);
        // Of what nobody chose nothing changes.
        Assert.Equal(draft.Lines, ClosingShort.Of(draft, new HashSet<long>(), begun, "no").Draft.Lines);
    }

    [Theory]
    [InlineData("50 EUR", "20 EUR")]
    [InlineData("0.01 EUR", null)]
    [InlineData("7.5", "7.5")]
    public void An_amount_off_the_whole_loses_the_share_of_what_is_closed(string before, string? after)
    {
        var head = World.Typed((HeadTerms.SheetDiscount, before));
        var discount = HeadTerms.DiscountIn(head);
        var then = World.Sheet(discount, World.Line(World.Shackle, 10m));
        var now = World.Sheet(discount, World.Line(World.Shackle, 4m));
        Assert.Equal(after, HeadTerms.SheetDiscount.In(ClosingShort.Discount(head, then, now)));
        // What comes to it brings no more off.
        Assert.Equal(before, HeadTerms.SheetDiscount.In(ClosingShort.Discount(head, now, then)));
    }

    [Fact]
    public void A_bill_from_before_stands_line_by_line_beside_what_is_left()
    {
        var whole = BillableSheet.Of(World.Sheet(World.Line(World.Braid, 100m), World.Line(World.Shackle, 10m)))!;
        var bill = BillRules.Invoice(whole.Billable, [], [0m, 4m], Amount.Zero(Currency.Of("EUR")));
        // The rope is closed whole, so that the shackle is the first now; four of ten went.
        var left = BillableSheet.Of(World.Sheet(World.Line(World.Shackle, 6m), World.Line(World.White, 5m)))!;
        var aligned = left.Aligned(bill);
        Assert.Equal([4m, 0m], aligned.Lines.Select(l => l.Quantity));
        var last = BillRules.Invoice(left.Billable, [aligned], [2m, 5m], Amount.Zero(Currency.Of("EUR")));
        Assert.Equal(left.Billable.Lines[0].Net, aligned.Lines[0].Net + last.Lines[0].Net);
        // One from before lines were named stands as it stood.
        var old = bill with
        {
            Lines = [.. bill.Lines.Select(l => l with { Key = 0 })],
        };
        Assert.Equal(old, left.Aligned(old));
    }
}
