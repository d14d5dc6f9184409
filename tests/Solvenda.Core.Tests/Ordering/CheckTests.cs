using Solvenda.Core.Approvals;
using Solvenda.Core.Credit;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

public sealed class CheckTests
{
    private static readonly HeadTerms Whole = new(
        "TV-1",
        30,
        "DAP",
        "Skerrow",
        "The Yard",
        "Skerrow quay",
        new DateOnly(2026, 3, 12)
    )
    {
        DocumentsBy = DocumentsBy.Mail,
    };

    private static CheckFacts Facts(PricedSheet? sheet = null, HeadTerms? terms = null)
    {
        var priced = sheet ?? World.Sheet(World.Line(World.Shackle, 12m));
        return new CheckFacts(
            DocumentKind.Order,
            priced,
            World.Tressel,
            terms ?? Whole,
            [],
            new Dictionary<long, LineStock>(),
            null,
            ApprovalNeed.Nothing,
            ApprovalState.NotNeeded,
            SheetFigures.Of(priced),
            World.Seller.Authority,
            new Dictionary<long, decimal?>(),
            priced.Tally.TotalWithTax,
            1m,
            []
        );
    }

    private static IEnumerable<string> Stops(CheckFacts facts) =>
        CheckList
            .Run(facts)
            .Where(f => f.Outcome == Outcome.Stop)
            .Select(f => $"{f.Check}{(f.Field.Length > 0 ? "/" + f.Field : "")}");

    private static CreditStanding Owes(decimal open, int overdue = 0) =>
        new(
            Amount.Round(1_000m, World.Eur),
            Amount.Round(open, World.Eur),
            Amount.Zero(World.Eur),
            Amount.Zero(World.Eur),
            Amount.Zero(World.Eur),
            Amount.Zero(World.Eur),
            overdue,
            7
        );

    [Fact]
    public void Nothing_stops_a_whole_order() => Assert.Empty(Stops(Facts()));

    [Fact]
    public void Each_missing_term_is_named_by_its_field()
    {
        Assert.Equal(
            ["terms/paymentDays", "terms/deliverTo", "terms/incoterm", "terms/shipFrom", "terms/documentsBy"],
            Stops(Facts(terms: new HeadTerms("TV-1", null, null, null, " ", null, null)))
        );
        Assert.Equal(["terms/incotermPlace"], Stops(Facts(terms: Whole with { IncotermPlace = "" })));
        var byEdi = Facts(terms: Whole with { DocumentsBy = DocumentsBy.Edi });
        Assert.Contains(
            CheckList.Run(byEdi),
            f => f is { Check: "terms", Outcome: Outcome.Notice, Field: "documentsBy" }
        );
        Assert.DoesNotContain(
            CheckList.Run(byEdi with { Terms = byEdi.Terms with { AnswersByEdi = true } }),
            f => f.Check == "terms"
        );
        Assert.Contains(
            "po-number/poNumber",
            Stops(
                Facts(terms: Whole with { PoNumber = null }) with
                {
                    Buyer = World.Tressel with { PoNumberRequired = true },
                }
            )
        );
    }

    [Fact]
    public void A_po_used_before_names_the_documents_and_a_waiver_of_one_does_not_cover_another()
    {
        var first = new Earlier("S26-00001", "PO TV-1", World.Day, true);
        var facts = Facts() with { Earlier = [first] };
        var finding = Assert.Single(CheckList.Run(facts), f => f.Outcome == Outcome.Stop);
        Assert.Equal(["S26-00001"], finding.Documents);
        var waived = facts with
        {
            Waivers = [new Waiver(finding.Check, null, finding.Fingerprint, 0m, "Nell", "they split it")],
        };
        Assert.Empty(Stops(waived));
        Assert.NotEmpty(Stops(waived with { Earlier = [first, new Earlier("S26-00002", "TV-1", World.Day, true)] }));
    }

    [Fact]
    public void A_credit_waiver_covers_as_much_or_less_never_more()
    {
        var facts = Facts() with { Credit = Owes(1_000m) };
        var finding = Assert.Single(CheckList.Run(facts), f => f.Check == "credit");
        var waiver = new Waiver("credit", null, finding.Fingerprint, finding.Excess, "Ephraim", "they pay on Friday");
        Assert.Empty(Stops(facts with { Waivers = [waiver], Credit = Owes(990m) }));
        Assert.Equal(["credit"], Stops(facts with { Waivers = [waiver], Credit = Owes(1_100m) }));
        Assert.Equal(["credit"], Stops(facts with { Credit = Owes(0m, overdue: 8) }));
        Assert.Empty(Stops(facts with { Credit = Owes(0m, overdue: 7) }));
    }

    [Theory]
    [InlineData(4.15, 1, Outcome.Clear, "")]
    [InlineData(4.16, 1, Outcome.Clear, "")]
    [InlineData(4.30, 1, Outcome.Notice, "")]
    [InlineData(4.00, 1, Outcome.Stop, "")]
    [InlineData(0.0415, 1, Outcome.Stop, "factor of 100")]
    [InlineData(415.00, 100, Outcome.Clear, "")]
    public void A_price_on_the_po_is_compared_per_the_same_unit_and_base(
        double price,
        double priceBase,
        Outcome outcome,
        string cause
    )
    {
        var asked = new AskedFor("shackles", null, 12m, Unit.Piece, (decimal)price, (decimal)priceBase);
        var findings = CheckList
            .Run(Facts(World.Sheet(World.Line(World.Shackle, 12m) with { Asked = asked })))
            .Where(f => f.Check == "po-price")
            .ToList();
        Assert.Equal(outcome, findings.Select(f => f.Outcome).DefaultIfEmpty(Outcome.Clear).Single());
        Assert.Contains(cause, findings.Select(f => f.Words).FirstOrDefault() ?? "", StringComparison.Ordinal);
    }

    [Fact]
    public void A_price_by_the_box_compares_with_ours_by_the_piece()
    {
        var asked = new AskedFor("shackles", null, 1m, Unit.Box, 103.75m, 1m);
        Assert.Equal(
            4.15m,
            Core.Ordering.Checks.PriceAsOnPo.Theirs(
                World.Sheet(World.Line(World.Shackle, 25m) with { Asked = asked }).Lines[0]
            )
        );
    }

    [Fact]
    public void A_date_that_cannot_be_kept_or_given_stops()
    {
        var promise = new Promise(World.Day, World.Day, new DateOnly(2026, 3, 20), true);
        CheckFacts With(Promise? p) =>
            Facts() with
            {
                Stock = new Dictionary<long, LineStock> { [World.Shackle.Id.Value] = new(0m, p) },
            };
        Assert.Equal(["stock/wanted"], Stops(With(promise)));
        Assert.Empty(Stops(With(promise with { Arrives = new DateOnly(2026, 3, 12) })));
        Assert.Equal(["stock/quantity"], Stops(With(null)));
    }

    [Fact]
    public void Unknown_items_missing_quantities_and_prospects_stop()
    {
        var unknown = World.Line(World.Shackle, 0m) with { Item = null };
        Assert.Equal(["item/item", "quantity/quantity"], Stops(Facts(World.Sheet(unknown))));
        Assert.Contains("customer", Stops(Facts() with { Buyer = World.Tressel with { IsProspect = true } }));
    }

    [Fact]
    public void A_promise_counts_working_days_and_the_cut_off()
    {
        var terms = new PromiseTerms(
            new TimeOnly(15, 0),
            1,
            2,
            Calendars.WorkCalendar.MondayToFriday,
            Calendars.WorkCalendar.MondayToFriday
        );
        var outlook = Outlook.Over(30, 100m, [], []);
        DateOnly Arrives(string now) =>
            PromiseFinder
                .Find(
                    outlook,
                    50m,
                    null,
                    DateTime.Parse(now, System.Globalization.CultureInfo.InvariantCulture),
                    terms
                )!
                .Arrives;
        Assert.Equal(new DateOnly(2026, 3, 5), Arrives("2026-03-02 14:59"));
        Assert.Equal(new DateOnly(2026, 3, 6), Arrives("2026-03-02 15:00"));
        Assert.Equal(new DateOnly(2026, 3, 12), Arrives("2026-03-06 16:00"));
        Assert.Null(PromiseFinder.Find(outlook, 101m, null, new DateTime(2026, 3, 2), terms));
        Assert.False(PromiseFinder.Find(outlook, 101m, 8, new DateTime(2026, 3, 2), terms)!.FromStock);
    }
}
