using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>
/// Whether somebody can be told and billed, where it goes, in what money; and rules of the house's own.
/// </summary>
public sealed class HouseCheckTests
{
    private static CheckFacts Facts(
        Buyer? buyer = null,
        PricedSheet? sheet = null,
        DocumentKind kind = DocumentKind.Order,
        params (HeadTerm, string)[] terms
    ) =>
        new(
            kind,
            sheet ?? World.Sheet(World.Line(World.Shackle, 12m)),
            buyer ?? World.Tressel,
            World.Typed(terms),
            Stated.Nothing,
            [],
            new Dictionary<long, LineStock>(),
            null,
            Judgement.Nothing,
            World.Seller.Hand,
            new Dictionary<long, decimal?>(),
            []
        )
        {
            Today = World.Day,
        };

    [Theory]
    [InlineData("mail", "fionn@tresselvane.example", "Fionn", "")]
    [InlineData("mail", "", "Fionn", "Stop")]
    [InlineData("mail", "fionn at tresselvane", "Fionn", "Stop")]
    [InlineData("mail", "a@b.example c@d.example", "Fionn", "Stop")]
    [InlineData("mail", "fionn@tresselvane.example", "", "Notice")]
    // What goes on paper or by EDI needs no mail address.
    [InlineData("paper", "", "Fionn", "")]
    public void Somebody_can_be_told(string by, string mail, string name, string expected)
    {
        var buyer = World.Tressel with { ContactMail = mail, ContactName = name };
        var found = new Reachable().Run(Facts(buyer, terms: (HeadTerms.By, by)));
        Assert.Equal(expected, string.Join(' ', found.Select(f => f.Outcome)));
        // A quote is written before anybody is told.
        Assert.Empty(new Reachable().Run(Facts(buyer, kind: DocumentKind.Quote, terms: (HeadTerms.By, by))));
    }

    [Fact]
    public void An_invoice_has_somewhere_to_go()
    {
        var nowhere = World.Tressel with { Address = "" };
        Assert.Equal(HeadTerms.BillTo.Name, Assert.Single(new Reachable().Run(Facts(nowhere))).Field);
        Assert.Empty(new Reachable().Run(Facts(nowhere with { BillTo = "Quay 1" })));
        Assert.Empty(new Reachable().Run(Facts(nowhere, terms: (HeadTerms.BillTo, "Quay 1"))));
    }

    [Theory]
    [InlineData("Sail Loft Lane 3, Skerrow, A65 F4E2", "IE", true)]
    [InlineData("Sail Loft Lane 3, Skerrow", "IE", false)]
    [InlineData("1 Pier, Oban PA34 4AB", "GB", true)]
    [InlineData("1 Pier, Oban", "GB", false)]
    [InlineData("Hafenstr. 4, 24103 Kiel", "DE", true)]
    [InlineData("Hafenstr. 4, 2410 Kiel", "DE", false)]
    [InlineData("Kade 9, 3011 AB Rotterdam", "NL", true)]
    [InlineData("Kade 9, 3011 Rotterdam", "NL", false)]
    [InlineData("Varvet 2, 411 04 Göteborg", "SE", true)]
    [InlineData("77 Pier Road, Gannet ME 04002-1234", "US", true)]
    // A country whose form is not known here is not judged.
    [InlineData("somewhere", "JP", true)]
    public void A_place_has_a_postal_code_of_its_country(string place, string country, bool sound)
    {
        Assert.Equal(sound, PostalCodes.Missing(place, country) is null);
        var sheet = SheetPricer.Price(
            World.Book,
            Rates.On(World.Day, World.Eur, World.Book.DatedRates),
            World.Tressel,
            new Sheet(World.Eur, World.Day, country, [World.Line(World.Shackle, 2m)], SheetDiscount.None, [], 0m)
        );
        Assert.Equal(sound, !new PlaceSound().Run(Facts(sheet: sheet, terms: (HeadTerms.DeliverTo, place))).Any());
        // Their own place was looked at when it was put on file.
        var own = World.Tressel with
        {
            DeliverTo = place,
        };
        Assert.Empty(new PlaceSound().Run(Facts(own, sheet, terms: (HeadTerms.DeliverTo, place))));
    }

    [Theory]
    [InlineData("EUR", "")]
    [InlineData("USD", "Notice")]
    [InlineData("SEK", "Stop Notice")]
    public void A_currency_without_a_rate_stops_and_another_than_theirs_is_said(string currency, string expected)
    {
        var sheet = SheetPricer.Price(
            World.Book,
            Rates.On(World.Day, World.Eur, World.Book.DatedRates),
            World.Tressel,
            new Sheet(Currency.Of(currency), World.Day, "IE", [], SheetDiscount.None, [], 0m)
        );
        Assert.Equal(expected, string.Join(' ', new CurrencyKnown().Run(Facts(sheet: sheet)).Select(f => f.Outcome)));
    }

    private static Policy Rule(RouteKind route, PolicyScope? scope, params PolicyCondition[] when) =>
        new("dear-ropes", "value", route) { When = [.. when], Scope = scope ?? PolicyScope.All };

    private static Finding[] Run(Policy rule, params SheetLine[] lines) =>
        [.. new OwnRules().Run(Facts(sheet: World.Sheet(lines)) with { Rules = [rule] })];

    [Fact]
    public void A_rule_of_the_house_stops_or_says_so_where_all_of_its_conditions_hold_and_names_the_figures()
    {
        PolicyCondition[] when = [new("value", true, 40m), new("discount", true, 10m)];
        var line = World.Line(World.Shackle, 20m, new ByHand(ByHandKind.DiscountPercent, 12m, World.Seller.Hand));
        var stop = Assert.Single(Run(Rule(RouteKind.Stop, null, when), line));
        Assert.Equal((Outcome.Stop, WaiveBy.Lead), (stop.Outcome, stop.Waive));
        Assert.Contains("is 12", stop.Words, StringComparison.Ordinal);
        Assert.Contains("over 10", stop.Words, StringComparison.Ordinal);
        Assert.Equal(Outcome.Notice, Assert.Single(Run(Rule(RouteKind.Notice, null, when), line)).Outcome);
        // At the figure it does not hold, nor where one of them does not.
        Assert.Empty(Run(Rule(RouteKind.Stop, null, when[0], new("discount", true, 12m)), line));
        Assert.Empty(Run(Rule(RouteKind.Stop, null, when), line with { Quantity = 2m }));
        // What was let pass is not let pass when it is worse.
        var worse = line with
        {
            ByHand = line.ByHand with { Value = 14m },
        };
        Assert.NotEqual(stop.Fingerprint, Assert.Single(Run(Rule(RouteKind.Stop, null, when), worse)).Fingerprint);
    }

    [Fact]
    public void A_rule_speaks_of_what_it_is_for_and_only_while_it_holds()
    {
        var line = World.Line(World.Shackle, 20m);
        PolicyCondition any = new("value", true, 1m);
        Assert.Empty(Run(Rule(RouteKind.Stop, PolicyScope.All with { Families = ["rope"] }, any), line));
        Assert.Single(Run(Rule(RouteKind.Stop, PolicyScope.All with { Families = ["hardware"] }, any), line));
        Assert.Empty(Run(Rule(RouteKind.Stop, PolicyScope.All with { Buyers = [99] }, any), line));
        Assert.Empty(Run(Rule(RouteKind.Stop, PolicyScope.All with { Hands = [new PersonId(99)] }, any), line));
        Assert.Empty(Run(Rule(RouteKind.Stop, null, any) with { From = World.Day.AddDays(1) }, line));
        Assert.Empty(Run(Rule(RouteKind.Stop, null), line));
    }

    [Fact]
    public void A_rule_asks_nobody_and_is_said_as_one()
    {
        var rule = Rule(RouteKind.Stop, null, new PolicyCondition("value", true, 10_000m));
        Assert.False(rule.Asks);
        var said = PolicySentence.Of(rule, "");
        Assert.StartsWith("When ", said, StringComparison.Ordinal);
        Assert.Contains("stop it", said, StringComparison.Ordinal);
        Assert.DoesNotContain("ask", said, StringComparison.Ordinal);
        var judged = Judgement.Of(
            World.Sheet(World.Line(World.Shackle, 90_000m)),
            new JudgedBy(Head.Empty, World.Seller.Hand, World.Seller, World.People, [])
            {
                Day = World.Day,
                Policies = [rule],
            }
        );
        Assert.Empty(judged.Needs);
        // Gaps and overlaps are of those that ask.
        Assert.Equal(
            PolicyGaps.Of([], World.People, World.Day),
            PolicyGaps.Of([rule, rule with { Code = "again" }], World.People, World.Day)
        );
    }
}
