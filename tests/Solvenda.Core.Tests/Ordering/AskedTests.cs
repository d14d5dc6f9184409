using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>What a buyer asked beside the goods, and when they take them, on the sheet that was made of it.</summary>
public sealed class AskedTests
{
    private static CheckFacts Facts(Stated stated, DocumentKind kind = DocumentKind.Order, string note = "")
    {
        var sheet = World.Sheet(World.Line(World.Shackle, 12m));
        return new CheckFacts(
            kind,
            sheet,
            World.Tressel,
            World.Typed((HeadTerms.Note, note)),
            stated,
            [],
            new Dictionary<long, LineStock>
            {
                [1] = new(5m, new Promise(new(2026, 3, 1), new(2026, 3, 2), new(2026, 3, 5), true)),
                [2] = new(5m, null),
            },
            null,
            Judgement.Nothing,
            World.Seller.Hand,
            new Dictionary<long, decimal?>(),
            []
        );
    }

    private static Stated Asking(RemarkKind kind, string words) =>
        Stated.Nothing with
        {
            Remarks = [new StatedRemark(kind, words)],
        };

    [Theory]
    [InlineData(RemarkKind.Question, Outcome.Stop)]
    [InlineData(RemarkKind.Certificate, Outcome.Stop)]
    [InlineData(RemarkKind.Printed, Outcome.Notice)]
    [InlineData(RemarkKind.Delivery, Outcome.Notice)]
    public void A_question_and_a_certificate_hold_an_order_and_nothing_holds_a_quote(RemarkKind kind, Outcome outcome)
    {
        var asked = Asking(kind, "with a 3.1, please");
        var finding = Assert.Single(new RemarksSeenTo().Run(Facts(asked)));
        Assert.Equal(outcome, finding.Outcome);
        Assert.Contains("with a 3.1, please", finding.Words, StringComparison.Ordinal);
        Assert.Equal(Outcome.Notice, Assert.Single(new RemarksSeenTo().Run(Facts(asked, DocumentKind.Quote))).Outcome);
    }

    [Fact]
    public void Its_cure_puts_it_onto_the_papers_and_then_it_is_seen_to()
    {
        var asked = Asking(RemarkKind.Delivery, "Unload before 11.");
        var cure = Assert.Single(Assert.Single(new RemarksSeenTo().Run(Facts(asked, note: "Gate 4"))).Cures);
        Assert.Equal(("set", "note", "Gate 4\nUnload before 11."), (cure.Action, cure.Field, cure.Value));
        Assert.Empty(new RemarksSeenTo().Run(Facts(asked, note: cure.Value)));
    }

    [Fact]
    public void A_question_is_not_answered_by_printing_it()
    {
        var asked = Asking(RemarkKind.Question, "How long does it last?");
        var finding = Assert.Single(new RemarksSeenTo().Run(Facts(asked, note: "How long does it last?")));
        Assert.Equal("waive", Assert.Single(finding.Cures).Action);
        var answered = new Waiver("asked", null, finding.Fingerprint, 0m, "Nell", "It is answered.");
        Assert.True(answered.Covers(finding));
        // Another question is not answered by it.
        Assert.False(
            answered.Covers(Assert.Single(new RemarksSeenTo().Run(Facts(Asking(RemarkKind.Question, "In black too?")))))
        );
    }

    [Theory]
    [InlineData("2026-03-05", false)]
    [InlineData("2026-03-06", true)]
    public void Goods_that_come_before_their_window_are_said(string from, bool early)
    {
        var findings = new DeliveryWindow()
            .Run(Facts(Stated.Nothing with { NotBefore = DateOnly.Parse(from, null) }))
            .ToList();
        Assert.Equal(early ? 1 : 0, findings.Count);
        Assert.All(findings, f => Assert.Equal(Outcome.Notice, f.Outcome));
    }

    [Fact]
    public void What_was_kept_before_there_were_remarks_reads_as_none()
    {
        var kept = System.Text.Json.JsonSerializer.Deserialize<Stated>(
            """{"PaymentDays":30,"Incoterm":null,"IncotermPlace":null,"DeliverTo":null,"Amounts":[],"Total":null}"""
        )!;
        Assert.False(kept.IsNothing);
        Assert.Empty(new RemarksSeenTo().Run(Facts(kept)));
    }
}
