using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

public sealed class ApprovalTests
{
    private static readonly Hand Machine = new(null, "shop");

    private static readonly Decider Director = new(
        new PersonId(3),
        "Aldous Mohr",
        null,
        new Authority(100m, Authority.AnyMargin, Authority.AnyValue, null)
        {
            TermsDays = 365,
            FreightUnder = Authority.AnyValue,
            WithoutCost = Authority.AnyValue,
        }
    );

    private static readonly IReadOnlyDictionary<PersonId, Decider> WithDirector = new[]
    {
        Director,
        World.Lead with
        {
            ReportsTo = Director.Id,
        },
        World.Seller,
    }.ToDictionary(p => p.Id);

    private static ByHand Less(decimal percent, Hand? by = null) =>
        new(ByHandKind.DiscountPercent, percent, by ?? World.Seller.Hand);

    private static SheetLine Braid(decimal percent, decimal quantity = 180m, Hand? by = null) =>
        World.Line(World.Braid, quantity, Less(percent, by));

    private static Judgement Judge(
        PricedSheet sheet,
        Head? head = null,
        Hand? sender = null,
        Decider? owner = null,
        IReadOnlyDictionary<PersonId, Decider>? people = null,
        params MadeAsk[] asks
    ) =>
        Judgement.Of(
            sheet,
            new JudgedBy(
                head ?? Head.Empty,
                sender ?? World.Seller.Hand,
                owner ?? World.Seller,
                people ?? World.People,
                [.. asks]
            )
        );

    private static bool Needed(PricedSheet sheet) => Judge(sheet).State != ApprovalState.NotNeeded;

    private static IEnumerable<string> Fired(Judgement judgement) =>
        judgement.Needs.SelectMany(n => n.Fired).Select(f => f.Figure);

    [Fact]
    public void Twelve_percent_on_the_braid_is_the_leads_to_decide()
    {
        var judged = Judge(World.Sheet(Braid(12m)));
        Assert.Equal(["discount", "floor", "margin"], Fired(judged).Order());
        Assert.Equal([World.Lead.Name], judged.Approvers);
        Assert.Empty(Judge(World.Sheet(Braid(40m))).Approvers);
        Assert.False(Needed(World.Sheet(Braid(6m))));
    }

    [Fact]
    public void A_price_is_judged_by_the_hand_that_typed_it_whoever_owns_or_sends_the_sheet()
    {
        // The lead may give 12 %; that the seller's name is on the sheet, or that they send it, changes nothing, and
        // the other way about.
        Assert.Equal(ApprovalState.NotNeeded, Judge(World.Sheet(Braid(12m, by: World.Lead.Hand))).State);
        var typed = World.Sheet(Braid(12m));
        Assert.Equal(
            ApprovalState.Needed,
            Judge(typed, sender: Director.Hand, owner: World.Lead, people: WithDirector).State
        );
        Assert.Equal(
            [Director.Name],
            Judge(typed, sender: World.Seller.Hand, owner: World.Lead, people: WithDirector).Approvers
        );
    }

    [Fact]
    public void Each_hand_is_judged_for_its_own_lines()
    {
        var sheet = World.Sheet(Braid(12m, by: World.Lead.Hand), World.Line(World.Shackle, 10m, Less(10m)));
        var need = Assert.Single(Judge(sheet).Needs);
        Assert.Equal(World.Seller.Hand, need.Hand);
        Assert.Equal([World.Shackle.Id], need.Lines.Select(l => l.Item!.Id));
    }

    [Fact]
    public void A_machine_has_nobodys_authority_and_its_ask_climbs_from_who_follows_up()
    {
        var judged = Judge(World.Sheet(Braid(1m, by: Machine)));
        var need = Assert.Single(judged.Needs);
        Assert.Equal((Machine, World.Lead.Name), (need.Hand, need.Asked.Single()));
    }

    [Fact]
    public void Somebody_who_made_the_line_bigger_answers_for_its_price_too()
    {
        var line = Braid(12m, by: World.Lead.Hand) with { AlsoBy = [World.Seller.Hand] };
        Assert.Equal([World.Seller.Hand], Judge(World.Sheet(line)).Needs.Select(n => n.Hand));
    }

    [Fact]
    public void An_option_is_offered_at_its_price_and_judged_so()
    {
        var option = Braid(12m) with { Optional = true };
        Assert.Contains("discount", Fired(Judge(World.Sheet(option))));
        var dear = World.Line(World.Braid, 20_000m) with { Optional = true };
        Assert.Contains("value", Fired(Judge(World.Sheet(World.Line(World.Shackle, 1m), dear))));
    }

    [Theory]
    [InlineData("30", null)]
    [InlineData("14", null)]
    [InlineData("45", "Leandro Paz")]
    [InlineData("46", "")]
    public void Days_beyond_the_buyers_own_are_judged_by_who_typed_them(string days, string? approver)
    {
        var judged = Judge(World.Sheet(World.Line(World.Braid, 1m)), World.Typed((HeadTerms.PaymentDays, days)));
        Assert.Equal(approver is null ? [] : ["terms"], Fired(judged));
        Assert.Equal(approver is null or "" ? [] : [approver], judged.Approvers);
    }

    [Fact]
    public void Lines_that_nobody_knows_the_cost_of_are_the_senders_and_nobodys_below_the_director()
    {
        // White has no cost.
        var judged = Judge(World.Sheet(World.Line(World.White, 3m)), people: WithDirector);
        Assert.Equal(["without-cost"], Fired(judged));
        Assert.Equal([Director.Name], judged.Approvers);
    }

    [Fact]
    public void A_discount_on_all_is_the_hands_that_typed_it_line_by_line()
    {
        var sheet = World.Sheet(
            new SheetDiscount(7m, null),
            World.Line(World.Splice, 2m),
            World.Line(World.Braid, 50m)
        );
        var head = World.Typed((HeadTerms.SheetDiscount, "7"));
        var fired = Fired(Judge(sheet, head)).ToList();
        Assert.DoesNotContain("sheet-discount", fired);
        Assert.Contains("floor", fired);
        Assert.Contains(
            "sheet-discount",
            Fired(
                Judge(
                    World.Sheet(new SheetDiscount(9m, null), World.Line(World.Splice, 2m)),
                    World.Typed((HeadTerms.SheetDiscount, "9"))
                )
            )
        );
    }

    [Fact]
    public void A_line_given_away_is_the_worst_margin_there_is()
    {
        var sheet = World.Sheet(World.Line(World.Shackle, 1m, new ByHand(ByHandKind.NetPrice, 0m, World.Seller.Hand)));
        Assert.Equal(LineMoney.GivenAway, LineMoney.Of(sheet.Lines[0]).MarginPercent);
        Assert.Empty(Judge(sheet).Approvers);
        // The margin is the director's to decide; the discount and the floor are the lead's already.
        Assert.Equal([Director.Name, World.Lead.Name], Judge(sheet, people: WithDirector).Approvers);
    }

    [Fact]
    public void Headroom_is_the_edge_one_step_more_fires() =>
        Gen.Select(Gen.Decimal[1m, 900m], Gen.Int[0, 2])
            .Sample(
                (quantity, which) =>
                {
                    var item = new[] { World.Braid, World.Shackle, World.Splice }[which];
                    SheetLine At(decimal? less) =>
                        World.Line(item, decimal.Round(quantity, 1), less is { } l ? Less(l) : null);
                    var sheet = World.Sheet(At(null));
                    var room = Headroom.Line(sheet.Lines[0], sheet, World.Seller.Authority)!.Value;
                    Assert.False(Needed(World.Sheet(At(room))));
                    Assert.True(Needed(World.Sheet(At(room + Headroom.Step))));
                }
            );

    [Fact]
    public void Headroom_on_the_sheet_is_the_edge_too()
    {
        var lines = new[] { World.Line(World.Braid, 180m), World.Line(World.Shackle, 12m) };
        var room = Headroom.Sheet(World.Sheet(lines), World.Seller, World.People)[0].UpToPercent!.Value;
        Judgement At(decimal percent) =>
            Judge(
                World.Sheet(new SheetDiscount(percent, null), lines),
                World.Typed(
                    (HeadTerms.SheetDiscount, percent.ToString(System.Globalization.CultureInfo.InvariantCulture))
                )
            );
        Assert.Equal(ApprovalState.NotNeeded, At(room).State);
        Assert.Equal(ApprovalState.Needed, At(room + Headroom.Step).State);
    }

    [Fact]
    public void Nobody_decides_on_what_they_typed_asked_for_or_own_and_a_ring_in_the_reporting_line_ends()
    {
        var fired = Judge(World.Sheet(Braid(12m))).Needs[0].Fired;
        bool MayDecide(Decider person, PersonId involved) =>
            PolicyRoute.WhoDecides(person, new HashSet<PersonId> { involved }, World.People, default) is { } who
            && Route.Covers(who.Authority, fired);
        Assert.True(MayDecide(World.Lead, World.Seller.Id));
        Assert.False(MayDecide(World.Lead, World.Lead.Id));
        Assert.False(MayDecide(World.Lead with { Active = false }, World.Seller.Id));
        Assert.Empty(Judge(World.Sheet(Braid(12m)), owner: World.Lead).Approvers);
        var a = World.Seller with { ReportsTo = World.Lead.Id };
        var b = World.Lead with { ReportsTo = World.Seller.Id };
        Assert.Equal([b], Route.Climb(a, new[] { a, b }.ToDictionary(p => p.Id)));
    }

    private static MadeAsk Made(AskOutcome outcome, HandNeed need) =>
        new(outcome, need.Shown, [.. need.Policies.Select(p => p.Policy.Code)], [World.Lead.Id]);

    private static ApprovalState After(
        AskOutcome outcome,
        PricedSheet asked,
        PricedSheet now,
        Head? then = null,
        Head? since = null
    )
    {
        var need = Judge(asked, then).Needs.Single(n => !n.IsSender);
        return Judge(now, since ?? then, asks: Made(outcome, need)).State;
    }

    [Theory]
    [InlineData(11, AskOutcome.Granted, ApprovalState.Granted)]
    [InlineData(10, AskOutcome.Granted, ApprovalState.Granted)]
    [InlineData(11.1, AskOutcome.Granted, ApprovalState.Needed)]
    [InlineData(11, AskOutcome.Waiting, ApprovalState.Waiting)]
    [InlineData(11, AskOutcome.SentBack, ApprovalState.Needed)]
    [InlineData(5, AskOutcome.SentBack, ApprovalState.NotNeeded)]
    public void A_grant_covers_what_was_asked_and_anything_no_worse(
        double now,
        AskOutcome outcome,
        ApprovalState expected
    ) => Assert.Equal(expected, After(outcome, World.Sheet(Braid(11m)), World.Sheet(Braid((decimal)now))));

    [Fact]
    public void A_grant_is_for_those_lines_and_no_more_of_them()
    {
        var asked = World.Sheet(Braid(11m));
        ApprovalState Now(params SheetLine[] lines) => After(AskOutcome.Granted, asked, World.Sheet(lines));
        Assert.Equal(ApprovalState.Granted, Now(Braid(11m, quantity: 100m)));
        Assert.Equal(ApprovalState.Needed, Now(Braid(11m, quantity: 181m)));
        Assert.Equal(ApprovalState.Needed, Now(Braid(11m), World.Line(World.Shackle, 1m, Less(9m))));
        Assert.Equal(ApprovalState.Granted, Now(Braid(11m), World.Line(World.Shackle, 1m)));
    }

    [Theory]
    [InlineData(11, ApprovalState.Needed)]
    [InlineData(10.1, ApprovalState.Needed)]
    [InlineData(10, ApprovalState.Granted)]
    [InlineData(9, ApprovalState.Granted)]
    public void A_grant_up_to_a_figure_covers_that_much_and_no_more(double now, ApprovalState expected)
    {
        var need = Judge(World.Sheet(Braid(11m))).Needs.Single(n => !n.IsSender);
        var upTo = Made(AskOutcome.Granted, need) with { Shown = need.Shown.UpTo("discount", 10m) };
        Assert.Equal(expected, Judge(World.Sheet(Braid((decimal)now)), asks: upTo).State);
    }

    [Fact]
    public void A_grant_is_for_those_terms_too()
    {
        var sheet = World.Sheet(Braid(11m));
        var (thirty, forty) = (World.Typed((HeadTerms.PaymentDays, "30")), World.Typed((HeadTerms.PaymentDays, "40")));
        Assert.Equal(ApprovalState.Granted, After(AskOutcome.Granted, sheet, sheet, forty, thirty));
        Assert.Equal(ApprovalState.Needed, After(AskOutcome.Granted, sheet, sheet, thirty, forty));
    }

    [Fact]
    public void Whatever_is_worse_than_what_was_granted_is_asked_again() =>
        Gen.Select(Gen.Int[90, 120], Gen.Int[90, 120], Gen.Int[1, 200], Gen.Int[1, 200])
            .Sample(
                (asked, now, quantity, nowQuantity) =>
                {
                    var state = After(
                        AskOutcome.Granted,
                        World.Sheet(Braid(asked / 10m, quantity)),
                        World.Sheet(Braid(now / 10m, nowQuantity))
                    );
                    if (now > asked || nowQuantity > quantity)
                        Assert.Equal(ApprovalState.Needed, state);
                    else if (now == asked && nowQuantity == quantity)
                        Assert.Equal(ApprovalState.Granted, state);
                }
            );

    [Fact]
    public void Two_asks_both_have_to_be_granted()
    {
        Hand other = new(new PersonId(9), "Nell Havergal");
        var people = World
            .People.Append(
                new(
                    other.Person!.Value,
                    new Decider(other.Person.Value, other.Name, World.Lead.Id, World.Seller.Authority)
                )
            )
            .ToDictionary();
        var sheet = World.Sheet(Braid(11m), World.Line(World.Shackle, 10m, Less(9m, other)));
        var needs = Judge(sheet, people: people).Needs;
        Assert.Equal(2, needs.Length);
        MadeAsk Granted(int i) => Made(AskOutcome.Granted, needs[i]);
        Assert.Equal(ApprovalState.Needed, Judge(sheet, people: people, asks: Granted(0)).State);
        Assert.Equal(ApprovalState.Granted, Judge(sheet, people: people, asks: [Granted(0), Granted(1)]).State);
    }

    [Fact]
    public void Every_figure_has_its_own_code_and_is_found_by_it()
    {
        Assert.Equal(FigureList.All.Length, FigureList.All.Select(f => f.Code).Distinct().Count());
        Assert.All(FigureList.All, f => Assert.Same(f, FigureList.Of(f.Code)));
        Assert.Subset(FigureList.All.Select(f => f.Code).ToHashSet(), FigureList.Policies.ToHashSet());
    }
}
