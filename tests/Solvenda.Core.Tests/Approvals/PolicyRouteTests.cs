using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;
using Xunit;

namespace Solvenda.Core.Tests.Approvals;

/// <summary>Who decides on a figure, whoever is away, left, or may not.</summary>
public sealed class PolicyRouteTests
{
    private static readonly DateOnly Day = new(2026, 12, 1);

    private static Decider Person(int id, int? above, decimal? discount) =>
        new(
            new PersonId(id),
            $"p{id}",
            above is { } a ? new PersonId(a) : null,
            Authority.None with
            {
                DiscountPercent = discount,
            }
        );

    // Seller 1 (8 %) reports to 2 (15 %), who reports to 3 (30 %).
    private static readonly Decider[] Line = [Person(1, 2, 8m), Person(2, 3, 15m), Person(3, null, 30m)];

    private static string Route(RouteKind kind, decimal value, Decider[] people, int[] named, params int[] involved) =>
        string.Join(
            " > ",
            PolicyRoute
                .Of(
                    new Policy("discount", "discount", kind) { Named = [.. named.Select(n => new PersonId(n))] },
                    value,
                    people[0],
                    new HashSet<PersonId>(involved.Select(i => new PersonId(i)).Append(people[0].Id)),
                    people.ToDictionary(p => p.Id),
                    Day
                )
                .Select(s => s.Names ?? "nobody")
        );

    private static Decider Away(Decider person, int? standIn) =>
        person with
        {
            Away = [new Absence(Day, Day, standIn is { } id ? new PersonId(id) : null)],
        };

    [Theory]
    [InlineData(RouteKind.FirstAble, "12", "p2")]
    [InlineData(RouteKind.FirstAble, "20", "p3")]
    [InlineData(RouteKind.FirstAble, "40", "nobody")]
    [InlineData(RouteKind.EachLevel, "12", "p2")]
    [InlineData(RouteKind.EachLevel, "20", "p2 > p3")]
    [InlineData(RouteKind.EachLevel, "40", "p2 > p3 > nobody")]
    public void It_climbs_to_the_first_who_covers_it(RouteKind kind, string value, string expected) =>
        Assert.Equal(
            expected,
            Route(kind, decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture), Line, [])
        );

    [Fact]
    public void A_team_is_asked_together_and_beyond_all_of_them_it_climbs()
    {
        Decider[] people = [Line[0], Line[1], Line[2], Person(4, 3, 15m), Person(5, 3, 2m)];
        Assert.Equal("p2 or p4", Route(RouteKind.Named, 12m, people, [2, 4, 5]));
        Assert.Equal("p4", Route(RouteKind.Named, 12m, people, [2, 4, 5], 2));
        Assert.Equal("p3", Route(RouteKind.Named, 20m, people, [2, 4, 5]));
        Assert.Equal("nobody", Route(RouteKind.Named, 12m, people, []));
        Assert.Equal("nobody", Route(RouteKind.Named, 12m, people, [99]));
    }

    [Fact]
    public void A_stand_in_decides_by_their_own_authority_and_only_if_they_are_there_and_may()
    {
        var other = Person(4, 3, 12m);
        Assert.Equal("p4", Route(RouteKind.FirstAble, 12m, [Line[0], Away(Line[1], 4), Line[2], other], []));
        // Beyond the stand-in it climbs, though the one who is away would have covered it.
        Assert.Equal("p3", Route(RouteKind.FirstAble, 14m, [Line[0], Away(Line[1], 4), Line[2], other], []));
        Assert.Equal("p4 > p3", Route(RouteKind.EachLevel, 14m, [Line[0], Away(Line[1], 4), Line[2], other], []));
        foreach (var absent in new[] { Away(other, null), Away(other, 3), other with { Active = false } })
            Assert.Equal("p3", Route(RouteKind.FirstAble, 12m, [Line[0], Away(Line[1], 4), Line[2], absent], []));
        Assert.Equal("p3", Route(RouteKind.FirstAble, 12m, [Line[0], Away(Line[1], 4), Line[2], other], [], 4));
        Assert.Equal("p3", Route(RouteKind.FirstAble, 12m, [Line[0], Away(Line[1], 1), Line[2]], []));
        Assert.Equal("p3", Route(RouteKind.FirstAble, 12m, [Line[0], Away(Line[1], null), Line[2]], []));
    }

    [Fact]
    public void Who_stands_in_for_two_of_the_way_is_asked_once()
    {
        Decider[] people =
        [
            Line[0],
            Away(Line[1], 4),
            Away(Person(3, 5, 15m), 4),
            Person(4, null, 10m),
            Person(5, null, 30m),
        ];
        Assert.Equal("p4 > p5", Route(RouteKind.EachLevel, 20m, people, []));
    }

    [Theory]
    [InlineData("discount", "0", false)]
    [InlineData("discount", "-3", false)]
    [InlineData("credit", "0", false)]
    [InlineData("discount", "0.1", true)]
    [InlineData("margin", "99", true)]
    public void Without_any_authority_what_gives_nothing_away_needs_nobody(string figure, string value, bool fires) =>
        Assert.Equal(
            fires,
            new Policy("x", figure, RouteKind.FirstAble).Fires(
                new Dictionary<string, decimal>
                {
                    [figure] = decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture),
                },
                Authority.None
            )
        );

    [Fact]
    public void Conditions_must_all_hold_and_one_on_a_figure_that_is_not_there_does_not()
    {
        var policy = new Policy("x", "discount", RouteKind.FirstAble)
        {
            When = [new PolicyCondition("value", true, 10_000m), new PolicyCondition("margin", false, 18m)],
        };
        bool Fires(params (string, decimal)[] figures) =>
            policy.Fires(figures.ToDictionary(f => f.Item1, f => f.Item2), Line[0].Authority);
        Assert.True(Fires(("discount", 9m), ("value", 10_000.01m), ("margin", 17.99m)));
        Assert.False(Fires(("discount", 9m), ("value", 10_000m), ("margin", 17m)));
        Assert.False(Fires(("discount", 9m), ("value", 20_000m), ("margin", 18m)));
        Assert.False(Fires(("discount", 9m), ("value", 20_000m)));
        Assert.False(Fires(("discount", 8m), ("value", 20_000m), ("margin", 17m)));
        Assert.False(Fires(("value", 20_000m), ("margin", 17m)));
    }

    /// <summary>
    /// Whatever the line, also one that runs in a ring: nobody decides who may not, nobody twice, all but the last of
    /// "each level" do not cover it, and it ends in nobody only where nobody who decides on the way covers it.
    /// </summary>
    [Fact]
    public void Whatever_the_house_looks_like_only_those_decide_who_may()
    {
        var house =
            from n in Gen.Int[2, 8]
            from people in Gen.Select(
                Gen.Int[0, n - 1],
                Gen.Int[-5, 30],
                Gen.Int[0, 3],
                Gen.Int[0, n - 1],
                Gen.Bool,
                (above, discount, away, standIn, active) => (above, discount, away, standIn, active)
            ).Array[n]
            from kind in Gen.Enum<RouteKind>()
            from value in Gen.Int[1, 30]
            from named in Gen.Int[0, n - 1].Array[0, 3]
            select (people, kind, value, named);
        house.Sample(h =>
        {
            Decider[] people =
            [
                .. h.people.Select(
                    (p, i) =>
                        (
                            p.away == 0
                                ? Away(Person(i, p.above, p.discount), p.standIn)
                                : Person(i, p.above, p.discount)
                        ) with
                        {
                            Active = p.active,
                        }
                ),
            ];
            var policy = new Policy("x", "discount", h.kind) { Named = [.. h.named.Select(n => new PersonId(n))] };
            var involved = new HashSet<PersonId> { new(0) };
            var route = PolicyRoute.Of(policy, h.value, people[0], involved, people.ToDictionary(p => p.Id), Day);
            var asked = route.SelectMany(s => s.AnyOf).ToList();
            Assert.All(asked, d => Assert.True(d.Active && !involved.Contains(d.Id) && d.AwayOn(Day) is null, d.Name));
            var covers = route.Select(s => s.AnyOf.Any(d => d.Authority.DiscountPercent >= h.value)).ToList();
            Assert.Equal(route[^1] == RouteStep.Nobody, !covers[^1]);
            Assert.DoesNotContain(true, covers.SkipLast(1));
            if (h.kind != RouteKind.EachLevel)
                Assert.Single(route);
        });
    }
}
