using Solvenda.Core.Approvals;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

public sealed class CheckTests
{
    private static readonly Head Whole = World.Typed(
        (HeadTerms.PoNumber, "TV-1"),
        (HeadTerms.PaymentDays, "30"),
        (HeadTerms.Incoterm, "DAP"),
        (HeadTerms.IncotermPlace, "Skerrow"),
        (HeadTerms.DeliverTo, "The Yard, Skerrow quay"),
        (HeadTerms.ShipFrom, "Skerrow"),
        (HeadTerms.Wanted, "2026-03-12"),
        (HeadTerms.By, DocumentsBy.Mail)
    );

    private static Head Without(params HeadTerm[] terms) =>
        terms.Aggregate(Whole, (head, term) => head.With(term.Name, null, null));

    internal static CheckFacts Facts(PricedSheet? sheet = null, Head? head = null)
    {
        var priced = sheet ?? World.Sheet(World.Line(World.Shackle, 12m));
        return new CheckFacts(
            DocumentKind.Order,
            priced,
            World.Tressel,
            head ?? Whole,
            Stated.Nothing,
            [],
            new Dictionary<long, LineStock>(),
            Owes(0m),
            Judgement.Nothing,
            World.Seller.Hand,
            new Dictionary<long, decimal?>(),
            []
        );
    }

    private static IEnumerable<string> Stops(CheckFacts facts) =>
        CheckList
            .Run(facts)
            .Where(f => f.Outcome == Outcome.Stop)
            .Select(f => $"{f.Check}{(f.Field.Length > 0 ? "/" + f.Field : "")}");

    // Of the order that Facts() makes.
    private static CreditAtOrder Owes(decimal open, int overdue = 0) =>
        new(Standing(open, overdue), World.Sheet(World.Line(World.Shackle, 12m)).Tally.TotalWithTax, 1m);

    private static CreditAtOrder Owes(Func<CreditStanding, CreditStanding> with) =>
        Owes(0m) is var at ? at with { Standing = with(at.Standing) } : at;

    private static CreditStanding Standing(decimal open, int overdue = 0) =>
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
            Stops(
                Facts(
                    head: Without(
                        HeadTerms.PaymentDays,
                        HeadTerms.DeliverTo,
                        HeadTerms.Incoterm,
                        HeadTerms.ShipFrom,
                        HeadTerms.By
                    )
                )
            )
        );
        Assert.Equal(["terms/incotermPlace"], Stops(Facts(head: Without(HeadTerms.IncotermPlace))));
        var byEdi = Facts(head: Whole.With(HeadTerms.By.Name, DocumentsBy.Edi, null));
        Assert.Contains(
            CheckList.Run(byEdi),
            f => f is { Check: "terms", Outcome: Outcome.Notice, Field: "documentsBy" }
        );
        Assert.DoesNotContain(CheckList.Run(byEdi with { AnswersByEdi = true }), f => f.Check == "terms");
        Assert.Contains(
            "po-number/poNumber",
            Stops(
                Facts(head: Without(HeadTerms.PoNumber)) with
                {
                    Buyer = World.Tressel with { PoNumberRequired = true },
                }
            )
        );
    }

    [Fact]
    public void A_po_used_before_names_the_documents_and_a_waiver_of_one_does_not_cover_another()
    {
        var first = new Earlier(new DocumentRef("order", "S26-00001"), "PO TV-1", World.Day, true);
        var facts = Facts() with { Earlier = [first] };
        var finding = Assert.Single(CheckList.Run(facts), f => f.Outcome == Outcome.Stop);
        Assert.Equal(["S26-00001"], finding.Documents.Select(d => d.Number));
        var waived = facts with
        {
            Waivers = [new Waiver(finding.Check, null, finding.Fingerprint, 0m, "Nell", "they split it")],
        };
        Assert.Empty(Stops(waived));
        Assert.NotEmpty(
            Stops(
                waived with
                {
                    Earlier = [first, new Earlier(new DocumentRef("order", "S26-00002"), "TV-1", World.Day, true)],
                }
            )
        );
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
    [InlineData(4.16, 1, Outcome.Notice, "they are told")]
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

    [Fact]
    public void Small_price_differences_pass_until_they_add_up()
    {
        // 0.30 % under ours on each line: small by itself; over the whole order no more than five.
        PricedSheet Of(decimal quantity) =>
            World.Sheet(
                World.Line(World.Shackle, quantity) with
                {
                    Asked = new AskedFor("shackles", null, quantity, Unit.Piece, 4.1375m, 1m),
                }
            );
        string[] PriceStops(decimal quantity) =>
            [.. Stops(Facts(Of(quantity))).Where(s => s.StartsWith("po-price", StringComparison.Ordinal))];
        Assert.Empty(PriceStops(400m));
        Assert.Equal(["po-price/net"], PriceStops(401m));
    }

    [Fact]
    public void A_price_missing_among_others_is_said()
    {
        SheetLine Asked(Catalogue.Item item, decimal? price) =>
            World.Line(item, 2m) with
            {
                Asked = new AskedFor("words", null, 2m, item.StockUnit, price, 1m),
            };
        var findings = CheckList.Run(Facts(World.Sheet(Asked(World.Shackle, 4.15m), Asked(World.Splice, null))));
        Assert.Equal(
            World.Splice.Id.Value,
            Assert.Single(findings, f => f is { Check: "po-price", Outcome: Outcome.Notice }).Line
        );
    }

    [Fact]
    public void Terms_on_their_document_are_never_taken_without_a_word()
    {
        var facts = Facts() with
        {
            Stated = new Stated(60, "EXW", null, null, [new StatedAmount("allowance", -25m)], null),
        };
        Assert.Equal(["po-terms/paymentDays", "po-terms/incoterm", "po-terms/sheetDiscount"], Stops(facts));
        var days = CheckList.Run(facts).First(f => f.Field == "paymentDays");
        Assert.Contains(days.Cures, c => c is { Action: "set", Field: "paymentDays", Value: "60" });
        var waived = facts with
        {
            Waivers = [new Waiver("po-terms", null, days.Fingerprint, 0m, "Nell", "we keep ours")],
        };
        Assert.DoesNotContain("po-terms/paymentDays", Stops(waived));
        Assert.Contains("po-terms/paymentDays", Stops(waived with { Stated = facts.Stated with { PaymentDays = 90 } }));
    }

    [Fact]
    public void Without_a_limit_or_a_rate_credit_stops()
    {
        Assert.Equal(["credit"], Stops(Facts() with { Credit = Owes(s => s with { HasLimit = false }) }));
        Assert.Equal(["credit"], Stops(Facts() with { Credit = Owes(s => s with { Ended = true }) }));
        Assert.Equal(["credit"], Stops(Facts() with { Credit = Owes(s => s with { Blocked = "cheques" }) }));
        Assert.Equal(["credit"], Stops(Facts() with { Credit = Owes(s => s with { MissingRate = "SEK" }) }));
        Assert.Empty(CheckList.Run(Facts() with { Credit = null }).Where(f => f.Check == "credit"));
    }

    [Fact]
    public void Only_who_may_lets_a_stop_pass()
    {
        Finding Of(WaiveBy by, decimal excess = 0m) => new("x", Outcome.Stop, "", null, "", by, "", excess);
        var desk = World.Seller with { Roles = Roles.Desk };
        var lead = World.Lead with { Roles = Roles.Lead };
        var credit = World.Lead with { Roles = Roles.Credit, Authority = Authority.None with { CreditOver = 500m } };
        Assert.Null(Waiving.WhyNot(Of(WaiveBy.Writer), desk));
        Assert.NotNull(Waiving.WhyNot(Of(WaiveBy.Writer), credit));
        Assert.Null(Waiving.WhyNot(Of(WaiveBy.Lead), lead));
        Assert.NotNull(Waiving.WhyNot(Of(WaiveBy.Lead), desk));
        Assert.Null(Waiving.WhyNot(Of(WaiveBy.Credit, 500m), credit));
        Assert.NotNull(Waiving.WhyNot(Of(WaiveBy.Credit, 501m), credit));
        Assert.NotNull(Waiving.WhyNot(Of(WaiveBy.Credit, 1m), lead));
        Assert.NotNull(Waiving.WhyNot(Of(WaiveBy.Nobody), lead));
    }

    [Fact]
    public void An_order_that_differs_from_what_was_accepted_has_to_be_meant_upward_too()
    {
        var (shackle, braid) = (World.Line(World.Shackle, 12m), World.Line(World.Braid, 50m));
        string[] Since(Head now, params SheetLine[] lines) =>
            [
                .. Differences.Between(
                    World.Sheet(shackle, braid with { Optional = true }),
                    Whole,
                    World.Sheet(lines),
                    now
                ),
            ];
        Assert.Empty(Since(Whole, shackle));
        Assert.Empty(Since(Whole, shackle, braid));
        Assert.Single(Since(Whole, shackle with { Quantity = 13m }));
        var dearer = shackle with { ByHand = new ByHand(ByHandKind.NetPrice, 4.99m, World.Seller.Hand) };
        var differences = Since(Whole.With(HeadTerms.PaymentDays.Name, "60", null), dearer);
        Assert.Equal(2, differences.Length);
        var facts = Facts() with { SinceAccepted = [.. differences] };
        Assert.Equal(["as-accepted"], Stops(facts));
        var meant = new Waiver(
            "as-accepted",
            null,
            CheckList.Run(facts).Single(f => f.Check == "as-accepted").Fingerprint,
            0m,
            "Nell",
            "they asked for it"
        );
        Assert.Empty(Stops(facts with { Waivers = [meant] }));
        Assert.NotEmpty(Stops(facts with { Waivers = [meant], SinceAccepted = [.. differences, "one more"] }));
    }
}
