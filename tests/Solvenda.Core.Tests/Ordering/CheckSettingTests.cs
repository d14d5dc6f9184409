using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>What a house makes of its checks.</summary>
public sealed class CheckSettingTests
{
    private static readonly ImmutableSortedDictionary<string, decimal> NoNumbers = ImmutableSortedDictionary<
        string,
        decimal
    >.Empty;

    private static CheckSetting Set(
        string check,
        CheckLevel level,
        WaiveBy? by = null,
        DocumentKind? kind = null,
        string? channel = null
    ) => new(check, kind, channel, level, by, NoNumbers);

    private static Finding? Found(CheckFacts facts, string check, params CheckSetting[] settings) =>
        CheckList.Run(facts with { Settings = [.. settings] }).FirstOrDefault(f => f.Check == check);

    // The PO number is missing, and this buyer does not want one: a notice.
    private static CheckFacts WithoutPo() =>
        CheckTests.Facts() is var facts
            ? facts with
            {
                Head = facts.Head.With(HeadTerms.PoNumber.Name, null, null),
            }
            : facts;

    [Fact]
    public void A_notice_can_stop_and_a_stop_be_a_notice_or_nothing()
    {
        var facts = WithoutPo();
        Assert.Equal(Outcome.Notice, Found(facts, "po-number")!.Outcome);
        var stop = Found(facts, "po-number", Set("po-number", CheckLevel.Stop))!;
        Assert.Equal((Outcome.Stop, WaiveBy.Writer), (stop.Outcome, stop.Waive));
        Assert.Null(Found(facts, "po-number", Set("po-number", CheckLevel.Off)));
        var used = CheckTests.Facts() with
        {
            Earlier = [new Earlier(new DocumentRef("order", "S26-1"), "TV-1", World.Day, true)],
        };
        Assert.Equal(Outcome.Stop, Found(used, "po-number")!.Outcome);
        Assert.Equal(Outcome.Notice, Found(used, "po-number", Set("po-number", CheckLevel.Notice))!.Outcome);
    }

    [Fact]
    public void A_stop_that_the_house_made_can_be_let_pass_by_whom_it_says()
    {
        var facts = WithoutPo() with { Settings = [Set("po-number", CheckLevel.Stop, WaiveBy.Lead)] };
        var stop = CheckList.Run(facts).First(f => f.Check == "po-number");
        Assert.Equal(WaiveBy.Lead, stop.Waive);
        var waiver = new Waiver(stop.Check, stop.Line, stop.Fingerprint, 0m, "Nell", "by telephone");
        Assert.Equal(
            Outcome.Notice,
            CheckList.Run(facts with { Waivers = [waiver] }).First(f => f.Check == "po-number").Outcome
        );
    }

    [Fact]
    public void The_narrowest_counts()
    {
        var facts = WithoutPo();
        CheckSetting[] settings =
        [
            Set("po-number", CheckLevel.Stop),
            Set("po-number", CheckLevel.Notice, kind: DocumentKind.Order),
            Set("po-number", CheckLevel.Off, kind: DocumentKind.Order, channel: "webshop"),
        ];
        Assert.Equal(Outcome.Notice, Found(facts, "po-number", settings)!.Outcome);
        Assert.Equal(Outcome.Stop, Found(facts, "po-number", settings[0])!.Outcome);
        var shop = facts with { Sheet = facts.Sheet with { Sheet = facts.Sheet.Sheet with { Channel = "webshop" } } };
        Assert.Null(Found(shop, "po-number", settings));
    }

    [Fact]
    public void Without_what_is_fixed_something_wrong_would_go_out()
    {
        var nothing = CheckTests.Facts(World.Sheet(World.Line(World.Shackle, 0m)));
        Assert.Equal(Outcome.Stop, Found(nothing, "quantity", Set("quantity", CheckLevel.Off))!.Outcome);
        Assert.Equal(
            ["price", "tax", "quantity", "export", "approval", "credit", "own-rule"],
            CheckList.All.Where(c => c.IsFixed).Select(c => c.Code)
        );
        Assert.All(CheckList.All, c => Assert.NotEmpty(c.Does));
    }

    [Theory]
    [InlineData(CheckLevel.Off)]
    [InlineData(CheckLevel.Notice)]
    public void What_nobody_may_let_pass_stays_a_stop_whatever_is_set(CheckLevel level)
    {
        var finding = new Finding("freight", Outcome.Stop, "no rate");
        Assert.Equal(finding, Set("freight", level).Apply(finding, new FreightKnown()));
        var lead = finding with { Waive = WaiveBy.Lead };
        Assert.NotEqual(lead, Set("freight", level).Apply(lead, new FreightKnown()));
    }

    [Fact]
    public void Who_may_never_let_it_pass_still_may_not()
    {
        var finding = new Finding("item", Outcome.Stop, "x");
        Assert.Equal(
            WaiveBy.Nobody,
            Set("item", CheckLevel.AsItIs, WaiveBy.Writer).Apply(finding, new ItemKnown())!.Waive
        );
    }

    [Fact]
    public void Numbers_are_the_houses_within_what_makes_sense()
    {
        var facts = CheckTests.Facts() with
        {
            Begun = World.Day,
            Earlier = [new Earlier(new DocumentRef("order", "S26-1"), "TV-9", World.Day.AddDays(-12), false)],
        };
        Assert.Null(Found(facts, "repeat"));
        var fortnight = Set("repeat", CheckLevel.AsItIs) with { Numbers = CheckSetting.Read("days 14") };
        Assert.Contains("within 14 days", Found(facts, "repeat", fortnight)!.Words, StringComparison.Ordinal);
        Assert.All(CheckList.All.SelectMany(c => c.Numbers), n => Assert.InRange(n.Usual, n.Least, n.Most));
        Assert.Throws<FormatException>(() => CheckSetting.Read("days"));
        Assert.Equal(0.5m, CheckSetting.Read("percent 0.5; line 2")["percent"]);
    }
}
