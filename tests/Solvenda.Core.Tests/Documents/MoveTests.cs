using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Quoting;
using Xunit;

namespace Solvenda.Core.Tests.Documents;

public sealed class MoveTests
{
    private static IEnumerable<string> Words<TState, TDoing>(MoveTable<TState, TDoing> table)
        where TState : struct, Enum
        where TDoing : struct, Enum =>
        from state in Enum.GetValues<TState>()
        from doing in Enum.GetValues<TDoing>()
        let to = table.After(state, doing)
        where to is not null
        select $"{state} {doing} {to}";

    [Fact]
    public void Every_move_of_a_quote_is_as_approved()
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
            "Cleared Ask InApproval",
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
        Assert.Equal(approved.Order(), Words(QuoteMoves.Table).Order());
    }

    [Fact]
    public void An_ask_is_decided_once() =>
        Assert.Equal(
            [
                "Waiting Grant Granted",
                "Waiting HandOn Waiting",
                "Waiting Talk Waiting",
                "Waiting PassOn Waiting",
                "Waiting SendBack SentBack",
                "Waiting Withdraw Withdrawn",
            ],
            Words(AskMoves.Table)
        );

    [Fact]
    public void Every_move_of_a_request_is_as_approved()
    {
        string[] approved =
        [
            "Reading Settle New",
            "Reading Doubt NeedsYou",
            "New Settle New",
            "New Doubt NeedsYou",
            "New Turn Turned",
            "New Answer Answered",
            "New SetAside SetAside",
            "NeedsYou Settle New",
            "NeedsYou Doubt NeedsYou",
            "NeedsYou Turn Turned",
            "NeedsYou Answer Answered",
            "NeedsYou SetAside SetAside",
            "NeedsYou ReadAgain Reading",
        ];
        Assert.Equal(approved.Order(), Words(RequestMoves.Table).Order());
        // What was dealt with moves no more, and what is open is what waits for somebody.
        foreach (var state in Enum.GetValues<RequestState>())
            Assert.Equal(RequestMoves.IsOpen(state), RequestMoves.Table.After(state, RequestDoing.Turn) is not null);
    }

    [Fact]
    public void Every_move_of_the_terms_of_an_order_is_as_approved()
    {
        string[] approved =
        [
            "Open Confirm Confirmed",
            "Open LeaveAsConfirmed Confirmed",
            "Open Cancel Cancelled",
            "Confirmed Change Open",
            "Confirmed Cancel Cancelled",
            "Cancelled OpenAgain Open",
        ];
        Assert.Equal(approved.Order(), Words(Tracks.TermsTable).Order());
    }

    [Theory]
    [InlineData(TermsTrack.Open, 0, false, TermsTrack.Open)]
    [InlineData(TermsTrack.Open, 2, false, TermsTrack.Held)]
    // A stop that comes later holds nothing that was confirmed; a hand does, and holds nothing that is cancelled.
    [InlineData(TermsTrack.Confirmed, 3, false, TermsTrack.Confirmed)]
    [InlineData(TermsTrack.Confirmed, 0, true, TermsTrack.Held)]
    [InlineData(TermsTrack.Open, 0, true, TermsTrack.Held)]
    [InlineData(TermsTrack.Cancelled, 2, true, TermsTrack.Cancelled)]
    public void Terms_are_shown_as_held_where_something_or_somebody_holds_them(
        TermsTrack terms,
        int stops,
        bool byHand,
        TermsTrack shown
    ) => Assert.Equal(shown, Tracks.Of(terms, GoodsTrack.Waiting, MoneyTrack.NotDue, stops, byHand).Terms);

    [Theory]
    [InlineData(1, "A"), InlineData(26, "Z"), InlineData(27, "AA"), InlineData(53, "BA")]
    public void Revisions_have_letters(int revision, string letter) => Assert.Equal(letter, Revision.Letter(revision));

    private static Standing Quote(QuoteState state, ApprovalState approval = ApprovalState.NotNeeded) =>
        new(DocumentKind.Quote, state, null, approval, ["Paz"], [], true, null);

    [Fact]
    public void One_move_comes_next_and_says_why_it_cannot_be_done_yet()
    {
        Assert.Equal("send", NextMoves.Of(Quote(QuoteState.Drafting)).Code);
        Assert.Equal("ask", NextMoves.Of(Quote(QuoteState.Drafting, ApprovalState.Needed)).Code);
        Assert.Equal("Paz has the ask.", NextMoves.Of(Quote(QuoteState.InApproval, ApprovalState.Waiting)).Why);
        Assert.Equal("revise", NextMoves.Of(Quote(QuoteState.Lapsed)).Code);
        Assert.Equal("turn", NextMoves.Of(Quote(QuoteState.Accepted)).Code);
        Assert.Equal(
            new DocumentRef("order", "S26-00009"),
            NextMoves.Of(Quote(QuoteState.Accepted) with { Order = "S26-00009" }).Opens
        );
        Assert.Equal(NextMove.None, NextMoves.Of(Quote(QuoteState.Withdrawn)));
        Assert.False(NextMoves.Of(Quote(QuoteState.Drafting) with { HasLines = false }).Possible);
        var order = new Standing(
            DocumentKind.Order,
            null,
            TermsTrack.Open,
            ApprovalState.NotNeeded,
            [],
            [],
            true,
            null
        );
        Assert.True(NextMoves.Of(order).Possible);
        var stopped = NextMoves.Of(order with { Stops = ["No price."] });
        Assert.Equal((false, "No price."), (stopped.Possible, stopped.Why));
        Assert.Equal("2 things stop it", NextMoves.Of(order with { Stops = ["a", "b"] }).Why);
    }
}
