using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

public sealed class ApprovalTests
{
    private static ByHand Less(decimal percent) => new(ByHandKind.DiscountPercent, percent, null);

    private static ApprovalNeed Need(PricedSheet sheet) =>
        Route.Find(SheetFigures.Of(sheet), World.Seller, World.People);

    [Fact]
    public void Twelve_percent_on_the_braid_is_the_leads_to_decide()
    {
        var need = Need(World.Sheet(World.Line(World.Braid, 180m, Less(12m))));
        Assert.Equal(["discount", "margin", "floor"], need.Fired.Select(f => f.Policy));
        Assert.Equal(World.Lead, need.Approver);
        Assert.Null(Need(World.Sheet(World.Line(World.Braid, 180m, Less(40m)))).Approver);
        Assert.False(Need(World.Sheet(World.Line(World.Braid, 180m, Less(6m)))).Needed);
    }

    [Fact]
    public void Headroom_is_the_edge_one_step_more_fires() =>
        Gen.Select(Gen.Decimal[1m, 900m], Gen.Int[0, 2])
            .Sample(
                (quantity, which) =>
                {
                    var item = new[] { World.Braid, World.Shackle, World.Splice }[which];
                    var sheet = World.Sheet(World.Line(item, decimal.Round(quantity, 1)));
                    var room = Headroom.Line(sheet.Lines[0], sheet, World.Seller.Authority)!.Value;
                    Assert.False(Need(World.Sheet(World.Line(item, decimal.Round(quantity, 1), Less(room)))).Needed);
                    Assert.True(
                        Need(
                            World.Sheet(World.Line(item, decimal.Round(quantity, 1), Less(room + Headroom.Step)))
                        ).Needed
                    );
                }
            );

    [Fact]
    public void Headroom_on_the_sheet_is_the_edge_too()
    {
        var lines = new[] { World.Line(World.Braid, 180m), World.Line(World.Shackle, 12m) };
        var room = Headroom.Sheet(World.Sheet(lines), World.Seller, World.People)[0].UpToPercent!.Value;
        Assert.False(Need(World.Sheet(new SheetDiscount(room, null), lines)).Needed);
        Assert.True(Need(World.Sheet(new SheetDiscount(room + Headroom.Step, null), lines)).Needed);
    }

    [Fact]
    public void A_line_given_away_is_the_worst_margin_there_is()
    {
        var figures = SheetFigures.Of(
            World.Sheet(World.Line(World.Shackle, 1m, new ByHand(ByHandKind.NetPrice, 0m, null)))
        );
        Assert.Equal(SheetFigures.GivenAway, figures.LeastLineMargin);
        Assert.False(Route.MayDecide(World.Lead, World.Seller.Id, figures));
    }

    [Fact]
    public void Nobody_decides_on_their_own_and_a_ring_in_the_reporting_line_ends()
    {
        var figures = SheetFigures.Of(World.Sheet(World.Line(World.Shackle, 1m)));
        Assert.False(Route.MayDecide(World.Lead, World.Lead.Id, figures));
        var a = World.Seller with { ReportsTo = World.Lead.Id };
        var b = World.Lead with { ReportsTo = World.Seller.Id };
        Assert.Equal([b], Route.Climb(a, new[] { a, b }.ToDictionary(p => p.Id)));
    }

    [Fact]
    public void A_grant_covers_what_was_asked_and_anything_no_worse()
    {
        SheetFigures At(decimal percent) => SheetFigures.Of(World.Sheet(World.Line(World.Braid, 180m, Less(percent))));
        ApprovalState State(decimal now, AskOutcome outcome, decimal asked) =>
            Approval.State(Route.Find(At(now), World.Seller, World.People), At(now), [(outcome, At(asked))]);
        Assert.Equal(ApprovalState.Granted, State(11m, AskOutcome.Granted, 11m));
        Assert.Equal(ApprovalState.Granted, State(10m, AskOutcome.Granted, 11m));
        Assert.Equal(ApprovalState.Needed, State(11.1m, AskOutcome.Granted, 11m));
        Assert.Equal(ApprovalState.Waiting, State(11m, AskOutcome.Waiting, 11m));
        Assert.Equal(ApprovalState.Needed, State(11m, AskOutcome.SentBack, 11m));
        Assert.Equal(ApprovalState.NotNeeded, State(5m, AskOutcome.SentBack, 11m));
    }

    [Fact]
    public void Every_state_and_act_is_as_approved()
    {
        string[] approved =
        [
            "Drafting Ask InApproval",
            "Drafting Send WithCustomer",
            "Drafting Withdraw Withdrawn",
            "InApproval Grant Cleared",
            "InApproval SendBack Drafting",
            "InApproval Rework Drafting",
            "InApproval Withdraw Withdrawn",
            "Cleared Rework Drafting",
            "Cleared Send WithCustomer",
            "Cleared Withdraw Withdrawn",
            "WithCustomer Accept Accepted",
            "WithCustomer Decline Declined",
            "WithCustomer Lapse Lapsed",
            "WithCustomer Revise Replaced",
            "WithCustomer Withdraw Withdrawn",
            "Declined Revise Replaced",
            "Lapsed Revise Replaced",
        ];
        var all =
            from state in Enum.GetValues<QuoteState>()
            from act in Enum.GetValues<QuoteAct>()
            let to = QuoteMoves.After(state, act)
            where to is not null
            select $"{state} {act} {to}";
        Assert.Equal(approved.Order(), all.Order());
    }

    [Theory]
    [InlineData(1, "A"), InlineData(26, "Z"), InlineData(27, "AA"), InlineData(53, "BA")]
    public void Revisions_have_letters(int revision, string letter) =>
        Assert.Equal(letter, QuoteMoves.Letter(revision));
}
