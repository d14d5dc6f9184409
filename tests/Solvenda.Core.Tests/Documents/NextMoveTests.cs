using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Core.Tests.Documents;

/// <summary>The one next move, for each way in which a document can stand.</summary>
public sealed class NextMoveTests
{
    private static Standing Quote(QuoteState state, ApprovalState approval = ApprovalState.NotNeeded) =>
        new(DocumentKind.Quote, state, null, approval, ["Leandro Paz"], [], true, null);

    private static Standing Order(TermsTrack terms, ApprovalState approval = ApprovalState.NotNeeded) =>
        new(DocumentKind.Order, null, terms, approval, ["Leandro Paz"], [], true, null);

    [Theory]
    [InlineData(QuoteState.Drafting, ApprovalState.NotNeeded, "send")]
    [InlineData(QuoteState.Drafting, ApprovalState.Needed, "ask")]
    [InlineData(QuoteState.InApproval, ApprovalState.Waiting, "")]
    [InlineData(QuoteState.InApproval, ApprovalState.Needed, "ask")]
    [InlineData(QuoteState.Cleared, ApprovalState.Granted, "send")]
    [InlineData(QuoteState.Cleared, ApprovalState.Needed, "ask")]
    [InlineData(QuoteState.WithCustomer, ApprovalState.Needed, "revise")]
    [InlineData(QuoteState.Declined, ApprovalState.NotNeeded, "revise")]
    [InlineData(QuoteState.Lapsed, ApprovalState.NotNeeded, "revise")]
    [InlineData(QuoteState.Accepted, ApprovalState.NotNeeded, "turn")]
    [InlineData(QuoteState.Withdrawn, ApprovalState.NotNeeded, "")]
    [InlineData(QuoteState.Replaced, ApprovalState.NotNeeded, "")]
    public void Of_a_quote(QuoteState state, ApprovalState approval, string code) =>
        Assert.Equal(code, NextMoves.Of(Quote(state, approval)).Code);

    [Theory]
    [InlineData(TermsTrack.Open, ApprovalState.NotNeeded, "confirm")]
    [InlineData(TermsTrack.Held, ApprovalState.Granted, "confirm")]
    [InlineData(TermsTrack.Open, ApprovalState.Needed, "ask")]
    [InlineData(TermsTrack.Open, ApprovalState.Waiting, "")]
    [InlineData(TermsTrack.Confirmed, ApprovalState.Needed, "")]
    [InlineData(TermsTrack.Cancelled, ApprovalState.NotNeeded, "")]
    public void Of_an_order(TermsTrack terms, ApprovalState approval, string code) =>
        Assert.Equal(code, NextMoves.Of(Order(terms, approval)).Code);

    [Fact]
    public void What_stops_it_is_said_one_by_its_words_and_several_by_their_number()
    {
        var open = Order(TermsTrack.Open);
        Assert.Equal((true, ""), Said(NextMoves.Of(open)));
        Assert.Equal((false, "No address"), Said(NextMoves.Of(open with { Stops = ["No address"] })));
        Assert.Equal((false, "2 things stop it"), Said(NextMoves.Of(open with { Stops = ["No address", "No date"] })));
        static (bool, string) Said(NextMove move) => (move.Possible, move.Why);
    }

    [Fact]
    public void An_empty_sheet_is_not_sent() =>
        Assert.Equal(
            (false, "There is nothing on it yet."),
            NextMoves.Of(Quote(QuoteState.Drafting) with { HasLines = false }) is var m ? (m.Possible, m.Why) : default
        );

    [Fact]
    public void Who_is_asked_is_named_and_where_nobody_may_that_is_said()
    {
        var needed = Quote(QuoteState.Drafting, ApprovalState.Needed);
        Assert.Equal("Ask Leandro Paz", NextMoves.Of(needed).Words);
        var two = needed with { Approvers = ["Leandro Paz", "Aldous Mohr"] };
        Assert.Equal("Ask Leandro Paz and Aldous Mohr", NextMoves.Of(two).Words);
        Assert.Equal(
            "Leandro Paz and Aldous Mohr have the ask.",
            NextMoves.Of(two with { Approval = ApprovalState.Waiting }).Why
        );
        Assert.False(NextMoves.Of(needed with { Approvers = [] }).Possible);
    }

    [Fact]
    public void An_accepted_quote_opens_the_order_that_it_became()
    {
        var move = NextMoves.Of(Quote(QuoteState.Accepted) with { Order = "S26-00101" });
        Assert.Equal(("open", new DocumentRef("order", "S26-00101")), (move.Code, move.Opens));
    }

    [Fact]
    public void Whatever_the_standing_a_move_that_cannot_be_done_says_why()
    {
        foreach (var quote in Enum.GetValues<QuoteState>())
        {
            foreach (var approval in Enum.GetValues<ApprovalState>())
            {
                foreach (var stops in new[] { Array.Empty<string>(), ["x"] })
                {
                    var move = NextMoves.Of(Quote(quote, approval) with { Stops = [.. stops] });
                    Assert.True(
                        move == NextMove.None || move.Possible == (move.Why.Length == 0),
                        $"{quote} {approval}"
                    );
                }
            }
        }
    }
}
