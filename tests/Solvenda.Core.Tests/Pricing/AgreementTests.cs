using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

/// <summary>Which agreement holds, and which price of which list it starts from.</summary>
public sealed class AgreementTests
{
    private static readonly Buyer Buyer = World.Tressel with { Group = "yards" };

    private static readonly Currency Usd = Currency.Of("USD");

    private static Agreement Rule(
        RuleParty party,
        RuleScope scope,
        decimal value,
        RuleKind kind = RuleKind.Fixed,
        string from = "2026-01-01",
        string? to = null,
        string? id = null
    ) =>
        new(
            id ?? $"{party}-{scope}-{value}",
            "a rule",
            party,
            party == RuleParty.Buyer ? Buyer.Id : null,
            party == RuleParty.Group ? "yards" : null,
            scope,
            scope == RuleScope.Item ? World.Shackle.Id : null,
            scope == RuleScope.Family ? "hardware" : null,
            kind,
            null,
            [new QuantityBreak(0m, value)],
            DateOnly.Parse(from, null),
            to is null ? null : DateOnly.Parse(to, null),
            false
        );

    private static ListPrice List(
        decimal price,
        string list = "house",
        Unit? unit = null,
        string currency = "EUR",
        string from = "2025-01-01",
        string? to = null
    ) =>
        new(
            list,
            World.Shackle.Id,
            unit ?? Unit.Piece,
            UnitPrice.Round(price, Currency.Of(currency)),
            1m,
            DateOnly.Parse(from, null),
            to is null ? null : DateOnly.Parse(to, null)
        );

    private static decimal? PriceOf(
        IEnumerable<Agreement> rules,
        IEnumerable<ListPrice>? prices = null,
        decimal quantity = 10m,
        Unit? unit = null,
        Currency? currency = null,
        Buyer? buyer = null
    )
    {
        var book = new PriceBook(
            new PriceBookContents(
                World.Eur,
                "IE",
                "house",
                [World.Shackle],
                [new Family("hardware", "Hardware", 24m)],
                [.. prices ?? [List(4.15m)]],
                [.. rules],
                [],
                [],
                [],
                [new DatedRate(Usd, new DateOnly(2026, 1, 1), 0.5m)],
                ImmutableDictionary<string, string>.Empty.Add("yards", "of-the-group")
            )
        );
        var question = new PriceQuestion(
            World.Shackle,
            quantity,
            unit ?? Unit.Piece,
            buyer ?? Buyer,
            currency ?? World.Eur,
            World.Day
        );
        return BasePrice.Find(book, Rates.On(World.Day, World.Eur, book.DatedRates), question).Base?.Value;
    }

    // From the widest to the narrowest; the values say which one was taken.
    private static readonly Agreement[] Ranks =
    [
        Rule(RuleParty.Group, RuleScope.All, 1m),
        Rule(RuleParty.Group, RuleScope.Family, 2m),
        Rule(RuleParty.Group, RuleScope.Item, 3m),
        Rule(RuleParty.Buyer, RuleScope.All, 4m),
        Rule(RuleParty.Buyer, RuleScope.Family, 5m),
        Rule(RuleParty.Buyer, RuleScope.Item, 6m),
    ];

    [Fact]
    public void The_narrowest_holds_even_where_a_wider_one_is_cheaper_and_in_whatever_order_they_are_kept() =>
        Gen.Int[1, 63]
            .Sample(
                set =>
                {
                    var some = Ranks.Where((_, i) => (set & (1 << i)) != 0).ToList();
                    var narrowest = some.Max(r => r.Breaks[0].Value);
                    Assert.Equal(narrowest, PriceOf(some));
                    Assert.Equal(narrowest, PriceOf(some.AsEnumerable().Reverse()));
                },
                iter: 100
            );

    [Fact]
    public void Of_one_rank_the_latest_start_holds_then_the_lowest_price()
    {
        Assert.Equal(
            9m,
            PriceOf([
                Rule(RuleParty.Buyer, RuleScope.Item, 2m, from: "2026-01-01"),
                Rule(RuleParty.Buyer, RuleScope.Item, 9m, from: "2026-02-01"),
            ])
        );
        Assert.Equal(
            2m,
            PriceOf([
                Rule(RuleParty.Buyer, RuleScope.Item, 9m, id: "A"),
                Rule(RuleParty.Buyer, RuleScope.Item, 2m, id: "B"),
            ])
        );
    }

    [Theory]
    [InlineData("2026-03-02", "2026-03-02", true)]
    [InlineData("2026-03-03", null, false)]
    [InlineData("2025-01-01", "2026-03-01", false)]
    [InlineData("2025-01-01", null, true)]
    public void Both_days_of_an_agreement_belong_to_it(string from, string? to, bool holds) =>
        Assert.Equal(holds ? 1m : 4.15m, PriceOf([Rule(RuleParty.Buyer, RuleScope.Item, 1m, from: from, to: to)]));

    [Fact]
    public void Somebody_elses_agreement_is_nobodys_here()
    {
        var other = Buyer with { Id = new BuyerId(99), Group = null };
        Assert.Equal(4.15m, PriceOf(Ranks, buyer: other));
        Assert.Equal(3m, PriceOf(Ranks, buyer: other with { Group = "yards" }));
    }

    [Theory]
    [InlineData(RuleKind.Fixed, 3.10, 3.10)]
    [InlineData(RuleKind.PercentOff, 10, 3.735)]
    [InlineData(RuleKind.AmountOff, 0.15, 4.00)]
    public void What_a_rule_does_to_the_list_price(RuleKind kind, double value, double price) =>
        Assert.Equal((decimal)price, PriceOf([Rule(RuleParty.Buyer, RuleScope.Item, (decimal)value, kind)]));

    [Fact]
    public void The_highest_break_that_is_reached_counts_and_below_the_first_there_is_no_agreement()
    {
        var rule = Rule(RuleParty.Buyer, RuleScope.Item, 0m) with
        {
            Breaks = [new QuantityBreak(10m, 4m), new QuantityBreak(50m, 3m), new QuantityBreak(100m, 2m)],
        };
        decimal? At(decimal quantity, Unit? unit = null) => PriceOf([rule], quantity: quantity, unit: unit);
        foreach (var (quantity, price) in new[] { (9m, 4.15m), (10m, 4m), (49m, 4m), (50m, 3m), (1_000m, 2m) })
            Assert.Equal(price, At(quantity));
        // A box has 25: two of them reach the break at fifty, and cost as fifty do.
        Assert.Equal(75m, At(2m, Unit.Box));
        Assert.Equal(100m, At(1m, Unit.Box));
    }

    [Fact]
    public void The_buyers_own_list_comes_before_the_groups_and_that_before_the_houses()
    {
        ListPrice[] prices = [List(4.15m), List(3.90m, "of-the-group"), List(3.50m, "own")];
        Assert.Equal(3.50m, PriceOf([], prices, buyer: Buyer with { PriceList = "own" }));
        Assert.Equal(3.90m, PriceOf([], prices));
        Assert.Equal(4.15m, PriceOf([], prices, buyer: Buyer with { Group = null }));
        // A list without a price of the item passes it on.
        Assert.Equal(4.15m, PriceOf([], [List(4.15m)], buyer: Buyer with { PriceList = "own" }));
    }

    [Fact]
    public void A_price_in_the_sheets_currency_comes_before_one_that_has_to_be_carried_over()
    {
        Assert.Equal(8.30m, PriceOf([], [List(4.15m)], currency: Usd));
        Assert.Equal(7m, PriceOf([], [List(4.15m), List(7m, currency: "USD")], currency: Usd));
        Assert.Null(PriceOf([], [List(4.15m)], currency: Currency.Of("NOK")));
    }

    [Fact]
    public void A_price_for_the_unit_itself_comes_before_so_many_times_the_stock_units()
    {
        Assert.Equal(25m * 4.15m, PriceOf([], [List(4.15m)], unit: Unit.Box));
        Assert.Equal(90m, PriceOf([], [List(4.15m), List(90m, unit: Unit.Box)], unit: Unit.Box));
    }

    [Fact]
    public void Of_two_that_hold_the_later_one_counts_and_one_that_is_over_or_to_come_does_not()
    {
        Assert.Equal(5m, PriceOf([], [List(4m), List(5m, from: "2026-02-01"), List(6m, from: "2026-04-01")]));
        Assert.Equal(4m, PriceOf([], [List(4m), List(5m, from: "2026-02-01", to: "2026-03-01")]));
        Assert.Null(PriceOf([], [List(6m, from: "2026-04-01")]));
    }
}
