using System.Collections.Immutable;
using Solvenda.Core.Ordering;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Passing;

/// <summary>What may go through by itself, and what stands in its way.</summary>
public sealed class WeighedTests
{
    private static readonly WayRules _open = new(true, 0.9m, [], false);

    private static readonly WeighFacts _clean = new(
        MessageKind.Order,
        true,
        [("who it is from", 0.99m), ("the PO number", 0.98m)],
        [new WeighedLine("SHK-BOW-10", 0.97m, true)],
        [],
        null,
        false,
        []
    );

    private static Finding Found(string check, Outcome outcome) => new(check, outcome, $"{check} says so");

    private static ImmutableArray<string> Codes(WeighFacts facts, WayRules rules) =>
        [.. Weighed.Of(facts).By(rules).Select(o => o.Code)];

    [Fact]
    public void Nothing_left_open_goes_through()
    {
        var weighed = Weighed.Of(_clean);
        Assert.Empty(weighed.By(_open));
        Assert.Equal((0.97m, "“SHK-BOW-10”"), (weighed.Sure, weighed.Least));
    }

    [Fact]
    public void Each_thing_in_the_way_is_named_once_and_stops_by_itself()
    {
        (WeighFacts Facts, string Code)[] cases =
        [
            (_clean with { Kind = MessageKind.Question }, Obstacles.Kind),
            (_clean with { Kind = MessageKind.Change }, Obstacles.Kind),
            (_clean with { HasBuyer = false }, Obstacles.Buyer),
            (_clean with { LeftOvers = ["12 of the other"] }, Obstacles.LeftOver),
            (_clean with { Lines = [new WeighedLine("a thing", 0.95m, false)] }, Obstacles.Item),
            (_clean with { Lines = [] }, Obstacles.Empty),
            (_clean with { Again = "R26-00001" }, Obstacles.Again),
            (_clean with { NewAddress = true }, Obstacles.Address),
            (_clean with { Findings = [Found("stock", Outcome.Stop)] }, "stop:stock"),
            (_clean with { Findings = [Found("stock", Outcome.Notice)] }, "notice:stock"),
        ];
        foreach (var (facts, code) in cases)
            Assert.Equal([code], Codes(facts, _open));
    }

    [Fact]
    public void A_quote_is_begun_and_a_change_is_put_onto_its_order_for_somebody_who_sees_what_the_checks_say()
    {
        var rules = WayRules.Usual with { Quotes = true, Changes = true };
        var loose = rules with { FreeLines = true };
        var stopped = _clean with { NewAddress = true, Findings = [Found("floor", Outcome.Stop)] };
        var unknown = _clean with { Lines = [.. _clean.Lines, new WeighedLine("a thing", 0.3m, false)] };
        ImmutableArray<string> Of(WeighFacts facts, WayRules by, MessageKind kind) =>
            [.. Weighed.Of(facts with { Kind = kind }).By(by, kind).Select(o => o.Code)];

        Assert.False(rules.Take(MessageKind.Order));
        foreach (var kind in new[] { MessageKind.RequestForQuotation, MessageKind.Change })
        {
            Assert.True(rules.Take(kind));
            Assert.False(WayRules.Usual.Take(kind));
            Assert.Empty(Of(stopped, rules, kind));
            Assert.Equal([Obstacles.Item], Of(unknown, rules, kind));
            Assert.Equal([Obstacles.LeftOver], Of(_clean with { LeftOvers = ["and the rest"] }, loose, kind));
            Assert.Equal([Obstacles.Again], Of(_clean with { Again = "R26-00001" }, loose, kind));
            Assert.Equal([Obstacles.Empty], Of(_clean with { Lines = [] }, loose, kind));
        }
        Assert.Empty(Of(unknown, loose, MessageKind.RequestForQuotation));
        Assert.Equal([Obstacles.Item], Of(unknown, loose, MessageKind.Change));
        // Who takes a whole order back, or asks something, always waits.
        Assert.False(loose.Take(MessageKind.Cancellation));
        Assert.False(loose.Take(MessageKind.Question));
    }

    [Fact]
    public void What_a_check_found_clear_stands_in_nobodys_way()
    {
        Assert.Empty(Codes(_clean with { Findings = [Found("stock", Outcome.Clear)] }, _open));
    }

    [Theory]
    [InlineData(0.97, true)]
    [InlineData(0.98, false)]
    [InlineData(1.00, false)]
    public void The_least_sure_value_has_to_be_sure_enough(double asked, bool passes)
    {
        var codes = Codes(_clean, _open with { LeastSure = (decimal)asked });
        Assert.Equal(passes ? [] : [Obstacles.Sure], codes);
    }

    [Fact]
    public void A_value_of_the_head_counts_as_much_as_a_line()
    {
        var facts = _clean with { Sure = [("the day", 0.6m)] };
        var held = Assert.Single(Weighed.Of(facts).By(_open));
        Assert.Equal("the day is 60 % sure, 90 % is asked", held.Words);
    }

    [Fact]
    public void The_house_may_let_notices_and_addresses_pass_but_never_a_stop_or_an_unknown_item()
    {
        var facts = _clean with
        {
            Lines = [new WeighedLine("a thing", 0.95m, false)],
            NewAddress = true,
            Findings = [Found("stock", Outcome.Notice), Found("price", Outcome.Notice), Found("stock", Outcome.Stop)],
        };
        var rules = _open with { NewAddresses = true, Passes = ["stock"] };
        Assert.Equal([Obstacles.Item, "stop:stock", "notice:price"], Codes(facts, rules));
    }

    [Fact]
    public void A_stop_is_said_before_what_is_only_worth_knowing()
    {
        var facts = _clean with { Findings = [Found("a", Outcome.Notice), Found("b", Outcome.Stop)] };
        Assert.Equal(["stop:b", "notice:a"], Codes(facts, _open));
    }

    [Fact]
    public void By_stricter_rules_no_more_goes_through()
    {
        var random = new Random(7);
        for (var i = 0; i < 500; i++)
        {
            var facts = _clean with
            {
                Sure = [("x", random.Next(50, 101) / 100m)],
                NewAddress = random.Next(3) == 0,
                LeftOvers = random.Next(4) == 0 ? ["x"] : [],
                Findings = random.Next(2) == 0 ? [Found("stock", (Outcome)random.Next(3))] : [],
            };
            var loose = new WayRules(true, random.Next(50, 90) / 100m, ["stock"], true);
            var strict = loose with { LeastSure = loose.LeastSure + 0.1m, Passes = [], NewAddresses = false };
            if (Weighed.Of(facts).By(strict).IsEmpty)
                Assert.Empty(Weighed.Of(facts).By(loose));
        }
    }
}
