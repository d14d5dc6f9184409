using CsCheck;
using Solvenda.Core.Calendars;
using Solvenda.Core.Promising;
using Xunit;

namespace Solvenda.Core.Tests.Promising;

/// <summary>Who gets what when more is promised than lies there; days from today.</summary>
public sealed class AllocationTests
{
    private static readonly StockMove[] Nothing = [];
    private static readonly string[] Ways = ["Elsewhere", "Take", "Split"];

    private static Wait Wait(long key, int day, decimal quantity) => new(key, day, quantity);

    private static string Said(Allotted one) =>
        string.Join(", ", one.Parts.Select(p => FormattableString.Invariant($"{p.Quantity:0.##}@{p.Day} {p.From}")));

    [Fact]
    public void The_earlier_promised_day_gets_it_first_and_the_rest_waits_for_what_comes()
    {
        var got = Allocation.Over(
            640m,
            [new StockMove(12, 900m)],
            [Wait(4, 21, 140), Wait(3, 7, 400), Wait(1, 0, 170), Wait(2, 4, 150)],
            null
        );
        Assert.Equal([1L, 2L, 3L, 4L], got.Select(g => g.Wait.Key));
        Assert.Equal("320@7 Stock, 80@12 Stock", Said(got[2]));
        Assert.Equal((320m, 80m, 12), (got[2].Kept, got[2].Missing, got[2].Last));
        Assert.Equal("140@21 Stock", Said(got[3]));
    }

    [Theory]
    // Nothing comes and it cannot be bought: no day.
    [InlineData(10, null, "10@2 Stock, 20@ Nowhere")]
    // It can be bought by day 9.
    [InlineData(10, 9, "10@2 Stock, 20@9 ToBeHad")]
    // It can be bought before it was promised: it is kept, though nothing is on its way.
    [InlineData(10, 1, "10@2 Stock, 20@2 ToBeHad")]
    [InlineData(0, null, "30@ Nowhere")]
    // More went than was counted.
    [InlineData(-5, null, "30@ Nowhere")]
    public void What_nothing_is_on_its_way_for_says_so(int onHand, int? lead, string expected) =>
        Assert.Equal(expected, Said(Assert.Single(Allocation.Over(onHand, Nothing, [Wait(1, 2, 30)], lead))));

    [Fact]
    public void What_comes_makes_up_first_for_what_is_below_nothing()
    {
        var one = Assert.Single(Allocation.Over(-40m, [new StockMove(3, 60m)], [Wait(1, 0, 25)], null));
        Assert.Equal("20@3 Stock, 5@ Nowhere", Said(one));
    }

    [Fact]
    public void Nobody_waits_longer_for_what_comes_than_it_takes_to_buy_it()
    {
        var one = Assert.Single(Allocation.Over(0m, [new StockMove(30, 100m)], [Wait(1, 2, 10)], 8));
        Assert.Equal("10@8 ToBeHad", Said(one));
    }

    private static readonly Gen<(int OnHand, StockMove[] Comes, Wait[] Waits, int? Lead)> Worlds = Gen.Select(
            Gen.Int[-20, 300],
            Gen.Select(Gen.Int[1, 40], Gen.Int[1, 120], (d, q) => new StockMove(d, q)).Array[0, 5],
            Gen.Select(Gen.Int[0, 40], Gen.Int[1, 90]).Array[1, 12],
            Gen.Int[-1, 50]
        )
        .Select(
            (onHand, comes, waits, lead) =>
                (
                    onHand,
                    comes,
                    waits.Select((w, i) => new Wait(i + 1, w.Item1, w.Item2)).ToArray(),
                    lead < 0 ? (int?)null : lead
                )
        );

    [Fact]
    public void Whatever_waits_gets_all_of_it_once_and_never_more_than_there_is_by_any_day() =>
        Worlds.Sample(w =>
        {
            var got = Allocation.Over(w.OnHand, w.Comes, w.Waits, w.Lead);
            Assert.Equal(w.Waits.Length, got.Length);
            Assert.All(got, g => Assert.Equal(g.Wait.Quantity, g.Parts.Sum(p => p.Quantity)));
            Assert.All(
                got.SelectMany(g => g.Parts.Select(p => (g, p))),
                x => Assert.True(x.p.Day is null || x.p.Day >= x.g.Wait.Day)
            );
            for (var day = 0; day <= 50; day++)
            {
                var given = got.SelectMany(g => g.Parts)
                    .Where(p => p.From == Supply.Stock && p.Day <= day)
                    .Sum(p => p.Quantity);
                Assert.True(given <= Math.Max(0, w.OnHand + w.Comes.Where(c => c.Day <= day).Sum(c => c.Quantity)));
            }
        });

    [Fact]
    public void Where_nothing_is_short_everybody_is_kept_and_nothing_moves() =>
        Worlds.Sample(w =>
        {
            var outlook = Outlook.Over(100, w.OnHand, w.Comes, w.Waits.Select(x => new StockMove(x.Day, x.Quantity)));
            if (Shortage.Of(outlook) is not null)
                return;
            Assert.All(Allocation.Over(w.OnHand, w.Comes, w.Waits, w.Lead), g => Assert.Equal(0m, g.Missing));
            Assert.Empty(Repromise.Over(100, w.OnHand, w.Comes, [.. w.Waits.Select(x => new Wish(x, x.Day))], w.Lead));
        });

    [Fact]
    public void Promised_anew_nobody_who_could_be_kept_is_made_worse_and_what_is_fixed_stays() =>
        Worlds.Sample(w =>
        {
            var wishes = w.Waits.Select(x => new Wish(x, Math.Max(0, x.Day - 5), x.Key % 4 == 0)).ToList();
            var moved = Repromise.Over(100, w.OnHand, w.Comes, wishes, w.Lead);
            Assert.DoesNotContain(moved, m => m.Wait.Key % 4 == 0);
            Assert.All(moved, m => Assert.Equal(m.Wait.Quantity, m.Parts.Sum(p => p.Quantity)));
            // Nobody is made worse who could be kept.
            var kept = Allocation
                .Over(w.OnHand, w.Comes, w.Waits, w.Lead)
                .Where(g => g.Missing == 0)
                .Select(g => g.Wait.Key)
                .ToHashSet();
            Assert.All(moved.Where(m => kept.Contains(m.Wait.Key)), m => Assert.True(m.Last <= m.Wait.Day));
        });

    [Fact]
    public void What_was_put_off_beyond_the_wanted_day_moves_up_when_more_comes_but_not_before_it_is_wanted()
    {
        var wish = new Wish(Wait(1, 20, 50), 6);
        var moved = Assert.Single(Repromise.Over(60, 0m, [new StockMove(3, 80m)], [wish], null));
        Assert.Equal(6, moved.Last);
        Assert.Empty(Repromise.Over(60, 0m, [new StockMove(25, 80m)], [wish with { IsFixed = true }], null));
    }

    [Fact]
    public void A_promise_that_cannot_be_kept_is_offered_what_hurts_least_first()
    {
        // 100 there; the first wants it only on day 30, the second on day 5 and gets half.
        var all = Allocation.Over(100m, [new StockMove(10, 100m)], [Wait(1, 2, 60), Wait(2, 5, 80)], null);
        Bearing[] bearings = [new(all[0], 30), new(all[1], 5)];
        var offered = Reliefs.For(
            2,
            bearings,
            [("Depot", Outlook.Over(60, 45m, Nothing, Nothing)), ("Barn", Outlook.Over(60, 39m, Nothing, Nothing))]
        );
        Assert.Equal(Ways, offered.Select(o => o.Way.ToString()));
        Assert.Equal(("Depot", 40m, 5), (offered[0].Warehouse, offered[0].Quantity, offered[0].Day));
        Assert.Equal((1L, 0, 10), (offered[1].From, offered[1].Hurts, offered[1].Day));
        // Whoever wants it earlier is hurt, and it is said by how much.
        Bearing[] tight = [new(all[0], 4), new(all[1], 5)];
        var hurting = Reliefs.For(2, tight, [])[^1];
        Assert.Equal((ReliefWay.Take, 6), (hurting.Way, hurting.Hurts));
        Assert.Empty(Reliefs.For(1, bearings, []));
        Assert.Equal(3, offered.Select(o => o.Sign).Distinct().Count());
    }

    [Fact]
    public void Without_any_day_for_the_rest_only_another_warehouse_helps()
    {
        var all = Allocation.Over(0m, Nothing, [Wait(1, 2, 60)], null);
        var offered = Reliefs.For(1, [new(all[0], 2)], [("Depot", Outlook.Over(60, 60m, Nothing, Nothing))]);
        Assert.Equal(ReliefWay.Elsewhere, Assert.Single(offered).Way);
    }

    [Theory]
    [InlineData(70, 0, 1, 70)]
    [InlineData(70, 35.5, 1, 106)]
    [InlineData(70, 35.5, 50, 150)]
    [InlineData(0, 0, 50, 0)]
    public void So_much_more_would_do(double by, double usual, double pack, double expected) =>
        Assert.Equal((decimal)expected, Shortage.Propose((decimal)by, (decimal)usual, (decimal)pack));

    [Fact]
    public void A_shortage_says_from_when_by_how_much_and_whether_it_lasts()
    {
        var passing = Shortage.Of(Outlook.Over(60, 10m, [new StockMove(9, 50m)], [new StockMove(4, 30m)]));
        Assert.Equal(new Shortage(4, 20m, 0m), passing);
        var lasting = Shortage.Of(Outlook.Over(60, 10m, [new StockMove(9, 5m)], [new StockMove(4, 30m)]));
        Assert.Equal(new Shortage(4, 20m, 15m), lasting);
        Assert.Null(Shortage.Of(Outlook.Over(60, 30m, Nothing, [new StockMove(4, 30m)])));
    }

    [Fact]
    public void The_latest_day_to_take_it_is_the_last_that_still_arrives_as_wanted()
    {
        var terms = new PromiseTerms(
            new TimeOnly(15, 0),
            1,
            2,
            WorkCalendar.MondayToFriday,
            WorkCalendar.On("Tue Thu")
        );
        var monday = new DateOnly(2026, 3, 2);
        for (var day = 0; day < 40; day++)
        {
            var wanted = monday.AddDays(14 + day);
            var latest = terms.LatestFor(wanted);
            Assert.True(terms.From(latest, true).Arrives <= wanted);
            Assert.True(terms.From(terms.Warehouse.OnOrAfter(latest.AddDays(1)), true).Arrives > wanted);
        }
    }
}
