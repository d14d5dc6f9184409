using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Calendars;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

/// <summary>What policies fire on a sheet, for whom they are, and which asks they lead to.</summary>
public sealed class PolicyJudgementTests
{
    private static readonly DateOnly Day = new(2026, 12, 1);

    private static readonly Decider Director = new(
        new PersonId(30),
        "Aldous Mohr",
        null,
        AuthorityKinds.Of(AuthorityKinds.All.Select(k => (k.Code, (decimal?)k.Any)))
    );

    private static readonly IReadOnlyDictionary<PersonId, Decider> People = new[]
    {
        Director,
        World.Lead with
        {
            ReportsTo = Director.Id,
        },
        World.Seller,
    }.ToDictionary(p => p.Id);

    private static readonly Policy Discount = new("discount", "discount", RouteKind.FirstAble);

    private static SheetLine Braid(decimal percent) =>
        World.Line(World.Braid, 180m, new ByHand(ByHandKind.DiscountPercent, percent, World.Seller.Hand));

    private static Judgement Judge(PricedSheet sheet, ImmutableArray<Policy> policies, params MadeAsk[] asks) =>
        Judgement.Of(
            sheet,
            new JudgedBy(Head.Empty, World.Seller.Hand, World.Seller, People, [.. asks])
            {
                Day = Day,
                Policies = policies,
            }
        );

    private static IEnumerable<string> Firing(PricedSheet sheet, params Policy[] policies) =>
        Judge(sheet, [.. policies]).Needs.SelectMany(n => n.Policies).Select(p => p.Policy.Code);

    [Fact]
    public void Without_a_policy_nobody_is_asked() => Assert.Empty(Firing(World.Sheet(Braid(90m))));

    [Fact]
    public void A_policy_holds_from_its_day_to_its_day()
    {
        var sheet = World.Sheet(Braid(12m));
        Assert.Single(Firing(sheet, Discount with { From = Day, To = Day }));
        Assert.Empty(Firing(sheet, Discount with { From = Day.AddDays(1) }));
        Assert.Empty(Firing(sheet, Discount with { To = Day.AddDays(-1) }));
    }

    [Fact]
    public void Conditions_see_figures_of_the_whole_sheet_also_those_of_others()
    {
        var sheet = World.Sheet(Braid(12m));
        Policy Over(decimal value) => Discount with { When = [new PolicyCondition("value", true, value)] };
        Assert.Single(Firing(sheet, Over(100m)));
        Assert.Empty(Firing(sheet, Over(1_000_000m)));
    }

    [Fact]
    public void A_policy_is_for_those_buyers_hands_channels_and_families_that_it_names()
    {
        var sheet = World.Sheet(Braid(12m), World.Line(World.Shackle, 10m));
        var buyer = sheet.Buyer.Id.Value;
        Policy For(PolicyScope scope) => Discount with { Scope = scope };
        Assert.Single(Firing(sheet, For(PolicyScope.All with { Buyers = [buyer] })));
        Assert.Empty(Firing(sheet, For(PolicyScope.All with { Buyers = [buyer + 1] })));
        Assert.Single(Firing(sheet, For(PolicyScope.All with { Hands = [World.Seller.Id] })));
        Assert.Empty(Firing(sheet, For(PolicyScope.All with { Hands = [World.Lead.Id] })));
        Assert.Empty(Firing(sheet, For(PolicyScope.All with { Channels = ["marketplace"] })));
        Assert.Empty(Firing(sheet, For(PolicyScope.All with { Groups = ["none of theirs"] })));
        Assert.Single(Firing(sheet, For(PolicyScope.All with { Families = [World.Braid.Family] })));
        // The shackle is at its base price: of its family nobody gives anything.
        Assert.NotEqual(World.Braid.Family, World.Shackle.Family);
        Assert.Empty(Firing(sheet, For(PolicyScope.All with { Families = [World.Shackle.Family] })));
    }

    [Fact]
    public void Policies_that_lead_to_the_same_people_are_one_ask_and_others_go_beside()
    {
        var each = new Policy("each", "discount", RouteKind.EachLevel);
        var named = new Policy("named", "margin", RouteKind.Named) { Named = [Director.Id] };
        var need = Assert.Single(Judge(World.Sheet(Braid(12m)), [.. HousePolicies.All, each, named]).Needs);
        Assert.Equal(
            ["discount margin floor each to Beatrix Lead", "named to Aldous Mohr"],
            need.ToAsk.Select(w => $"{string.Join(' ', w.Select(p => p.Policy.Code))} to {w[0].Route[0].Names}")
                .Select(t => t.Replace(World.Lead.Name, "Beatrix Lead", StringComparison.Ordinal))
        );
        // One granted, the other is still to be asked.
        var one = new MadeAsk(
            AskOutcome.Granted,
            need.Shown,
            [.. need.ToAsk[0].Select(p => p.Policy.Code)],
            [World.Lead.Id]
        );
        var after = Judge(World.Sheet(Braid(12m)), [.. HousePolicies.All, each, named], one);
        Assert.Equal((ApprovalState.Needed, Director.Name), (after.State, after.Approvers.Single()));
        var other = one with { Policies = ["named"], Outcome = AskOutcome.Waiting, Holders = [Director.Id] };
        Assert.Equal(
            ApprovalState.Waiting,
            Judge(World.Sheet(Braid(12m)), [.. HousePolicies.All, each, named], one, other).State
        );
    }

    [Fact]
    public void A_grant_is_for_the_policy_that_asked_not_for_another_on_the_same_figure()
    {
        var need = Judge(World.Sheet(Braid(12m)), [Discount]).Needs.Single();
        var granted = new MadeAsk(AskOutcome.Granted, need.Shown, ["discount"], [World.Lead.Id]);
        var stricter = new Policy("stricter", "discount", RouteKind.Named) { Named = [Director.Id] };
        Assert.Equal(ApprovalState.Needed, Judge(World.Sheet(Braid(12m)), [Discount, stricter], granted).State);
    }

    [Fact]
    public void Conditions_are_read_as_they_are_written() =>
        Gen.Select(Gen.Int[0, FigureList.All.Length - 1], Gen.Bool, Gen.Int[-1_000_000, 1_000_000])
            .Select((f, over, v) => new PolicyCondition(FigureList.All[f].Code, over, v / 100m))
            .Array[0, 4]
            .Sample(all => Assert.Equal(all, PolicyCondition.Read(PolicyCondition.Write(all))));

    [Theory]
    [InlineData("value")]
    [InlineData("value = 4")]
    [InlineData("value > four")]
    public void What_is_no_condition_is_refused(string text) =>
        Assert.Throws<FormatException>(() => PolicyCondition.Read(text));

    [Theory]
    // 27 November 2026 is a Friday; the Tuesday after is off.
    [InlineData("2026-11-27T10:00", 4, "2026-11-27T14:00")]
    [InlineData("2026-11-27T15:00", 4, "2026-11-30T11:00")]
    [InlineData("2026-11-27T20:00", 8, "2026-11-30T17:00")]
    [InlineData("2026-11-28T12:00", 0, "2026-11-30T09:00")]
    [InlineData("2026-11-30T16:00", 2, "2026-12-02T10:00")]
    [InlineData("2026-11-30T07:00", 9, "2026-12-02T10:00")]
    public void Patience_counts_working_hours_alone(string from, int hours, string until)
    {
        static DateTime At(string text) => DateTime.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
        var calendar = WorkCalendar.MondayToFriday with { Holidays = new HashSet<DateOnly> { new(2026, 12, 1) } };
        Assert.Equal(At(until), WorkingHours.House.After(At(from), hours, calendar));
    }

    [Fact]
    public void Each_kind_of_authority_is_kept_and_goes_as_far_as_it_says()
    {
        foreach (var kind in AuthorityKinds.All)
        {
            Assert.Null(kind.Get(Authority.None));
            var some = kind.Unit == LimitUnit.LeastPercent ? 20m : 7m;
            Assert.Equal(some, kind.Get(AuthorityKinds.Of([(kind.Code, some)])));
            Assert.True(kind.Reaches(kind.Any, some));
            Assert.False(kind.Reaches(some, kind.Any));
            Assert.False(kind.Reaches(null, some));
            Assert.True(kind.Reaches(null, null));
            Assert.Null(kind.Wrong(kind.Any));
            Assert.NotNull(kind.Wrong(-1_001m));
            Assert.Equal("any", kind.Say(kind.Any));
        }
    }
}
