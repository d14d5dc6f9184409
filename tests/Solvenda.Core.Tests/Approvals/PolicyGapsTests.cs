using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

/// <summary>What is wrong with the policies as a whole is named: nothing where nothing is.</summary>
public sealed class PolicyGapsTests
{
    private static readonly DateOnly Day = new(2026, 12, 1);

    private static Decider Person(int id, int? above, decimal? discount, bool all = false) =>
        new(
            new PersonId(id),
            $"p{id}",
            above is { } a ? new PersonId(a) : null,
            (all ? AuthorityKinds.Of(AuthorityKinds.All.Select(k => (k.Code, (decimal?)k.Any))) : Authority.None) with
            {
                DiscountPercent = discount,
            }
        );

    private static readonly Decider[] House = [Person(1, null, 100m, all: true), Person(2, 1, 15m), Person(3, 2, 8m)];

    private static IReadOnlyList<string> Gaps(IEnumerable<Policy> policies, params Decider[] people) =>
        PolicyGaps.Of([.. policies], (people.Length > 0 ? people : House).ToDictionary(p => p.Id), Day);

    [Fact]
    public void A_house_as_it_begins_has_none() =>
        Assert.Empty(Gaps(HousePolicies.All.Select(p => p with { Scope = new PolicyScope([], [], [], [], []) })));

    [Fact]
    public void A_figure_that_nobody_is_always_asked_about_is_named()
    {
        var some = HousePolicies.All.Select(p =>
            p.Code == "freight" ? p with { Scope = PolicyScope.All with { Channels = ["shop"] } } : p
        );
        Assert.Contains("freight", Assert.Single(Gaps(some)), StringComparison.Ordinal);
        Assert.Contains(
            "days to pay",
            Assert.Single(Gaps(HousePolicies.All.Where(p => p.Code != "terms"))),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_figure_that_nobody_decides_on_is_named() =>
        Assert.Contains(
            Gaps(HousePolicies.All, Person(1, null, 100m), Person(2, 1, 15m)),
            g => g.Contains("“value”", StringComparison.Ordinal)
        );

    [Fact]
    public void Somebody_named_who_left_and_a_rule_that_asks_nobody_are_named()
    {
        Policy Named(params int[] ids) =>
            new("extra", "discount", RouteKind.Named) { Named = [.. ids.Select(i => new PersonId(i))] };
        Decider[] people = [.. House, Person(4, 1, 5m) with { Active = false }];
        Assert.Equal(2, Gaps([.. HousePolicies.All, Named(4)], people).Count);
        Assert.Single(Gaps([.. HousePolicies.All, Named(4, 2)], people));
        Assert.Empty(Gaps([.. HousePolicies.All, Named(2)], people));
    }

    [Fact]
    public void While_the_only_one_who_may_all_is_away_a_stand_in_must_be_as_able()
    {
        Decider Away(int? standIn) =>
            House[0] with
            {
                Away = [new Absence(Day.AddDays(3), Day.AddDays(7), standIn is { } s ? new PersonId(s) : null)],
            };
        Assert.Contains(
            Gaps(HousePolicies.All, Away(null), House[1], House[2]),
            g => g.Contains("away", StringComparison.Ordinal)
        );
        Assert.Contains(
            Gaps(HousePolicies.All, Away(2), House[1], House[2]),
            g => g.Contains("away", StringComparison.Ordinal)
        );
        Assert.Empty(Gaps(HousePolicies.All, Away(4), House[1], House[2], Person(4, 1, 100m, all: true)));
    }

    [Fact]
    public void A_ring_and_a_rule_that_asks_nothing_more_are_named()
    {
        Assert.Contains(
            Gaps(HousePolicies.All, House[0] with { ReportsTo = new PersonId(2) }, House[1], House[2]),
            g => g.Contains("reports to somebody", StringComparison.Ordinal)
        );
        var narrower = new Policy("large", "discount", RouteKind.FirstAble)
        {
            When = [new PolicyCondition("value", true, 10_000m)],
        };
        Assert.Contains(
            "“large” asks nothing",
            Assert.Single(Gaps([.. HousePolicies.All, narrower])),
            StringComparison.Ordinal
        );
        Assert.Empty(Gaps([.. HousePolicies.All, narrower with { Route = RouteKind.EachLevel }]));
    }
}
