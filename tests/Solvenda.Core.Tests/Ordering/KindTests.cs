using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>Kinds of order are settings over the one order: what each changes, and nothing else.</summary>
public sealed class KindTests
{
    private static PricedSheet Priced(OrderKind kind, params SheetLine[] lines)
    {
        var plain = World.Sheet(lines.Length > 0 ? lines : [World.Line(World.Shackle, 12m)]);
        return SheetPricer.Price(
            World.Book,
            plain.Rates,
            World.Tressel,
            plain.Sheet with
            {
                Kind = kind,
                FreeBy = kind.IsFree ? World.Seller.Hand : null,
            }
        );
    }

    private static List<Finding> Found(OrderKind kind, CheckFacts facts, string check) =>
        [
            .. CheckList
                .Run(facts with { Head = facts.Head.With(HeadTerms.Kind.Name, kind.Words, World.Seller.Hand) })
                .Where(f => f.Check == check),
        ];

    [Fact]
    public void What_is_given_away_costs_nothing_carries_nothing_and_is_by_whoever_gave_it()
    {
        foreach (var kind in OrderKind.All.Where(k => k.IsFree))
        {
            var sheet = Priced(kind);
            Assert.Equal(0m, sheet.Tally.TotalWithTax.Value);
            Assert.Empty(sheet.Charges);
            var line = Assert.Single(sheet.Sold);
            Assert.Equal((ByHandKind.NetPrice, 0m), (line.Line.ByHand.Kind, line.Line.ByHand.Value));
            Assert.True(line.Line.ByHand.By!.IsSame(World.Seller.Hand));
            Assert.Contains(kind.Words, line.Build.Steps[^1].Words, StringComparison.Ordinal);
            // It costs us all the same.
            Assert.True(sheet.Tally.Margin.Value < 0);
        }
    }

    [Fact]
    public void A_price_that_would_do_nothing_cannot_be_typed_and_freight_that_was_is_billed()
    {
        var line = World.Line(World.Shackle, 12m);
        var head = Head.Empty.With(HeadTerms.Kind.Name, OrderKind.Sample.Words, World.Seller.Hand);
        var typed = SheetDoor.Take(
            new Draft(head, [line], 100),
            [new SheetEdit(EditKind.Set, line.Key, "net", "4")],
            World.Door(kind: DocumentKind.Order)
        );
        Assert.Equal("order_free", typed.Refused?.Code);
        var plain = World.Sheet(line);
        var with = SheetPricer.Price(
            World.Book,
            plain.Rates,
            World.Tressel,
            plain.Sheet with
            {
                Kind = OrderKind.Sample,
                Charges = [new SheetCharge("freight", 9.50m, null, true)],
            }
        );
        Assert.Equal(9.50m, with.Tally.TotalWithoutTax.Value);
    }

    [Fact]
    public void What_is_given_away_needs_its_reason()
    {
        var facts = CheckTests.Facts(Priced(OrderKind.Sample));
        var stop = Assert.Single(Found(OrderKind.Sample, facts, "kind"));
        Assert.Equal((Outcome.Stop, HeadTerms.FreeWhy.Name), (stop.Outcome, stop.Field));
        var said = facts with { Head = facts.Head.With(HeadTerms.FreeWhy.Name, "for the fair", null) };
        Assert.Empty(Found(OrderKind.Sample, said, "kind"));
    }

    [Fact]
    public void Over_the_counter_tax_is_that_of_home_and_nothing_is_carried()
    {
        var abroad = World.Sheet(World.Line(World.Shackle, 12m)).Sheet with { DeliverToCountry = "NO" };
        var rates = World.Sheet(World.Line(World.Shackle, 12m)).Rates;
        PricedSheet At(OrderKind kind) =>
            SheetPricer.Price(World.Book, rates, World.Tressel, abroad with { Kind = kind });
        Assert.Equal("G", At(OrderKind.GoodsNow).Sold.Single().Terms.Tax!.Value.Category);
        var counter = At(OrderKind.Counter);
        Assert.Equal(
            ("S", 23m),
            (counter.Sold.Single().Terms.Tax!.Value.Category, counter.Sold.Single().Terms.Tax!.Value.Percent)
        );
        Assert.DoesNotContain(counter.Charges, c => c.Kind == "freight");
    }

    [Theory]
    [InlineData(12, 0)]
    [InlineData(11.5, 1)]
    public void The_counter_sells_what_is_there(decimal free, int stops)
    {
        var sheet = Priced(OrderKind.Counter);
        var facts = CheckTests.Facts(sheet) with
        {
            Stock = new Dictionary<long, LineStock> { [sheet.Sold.Single().Line.Key] = new(free, null) },
        };
        Assert.Equal(stops, Found(OrderKind.Counter, facts, "kind").Count);
    }

    [Fact]
    public void A_schedule_has_a_day_for_each_line_and_work_has_no_goods()
    {
        var without = World.Line(World.Shackle, 12m);
        var with = without with { Key = 102, Wanted = World.Day.AddDays(9) };
        var schedule = Found(OrderKind.Schedule, CheckTests.Facts(Priced(OrderKind.Schedule, without, with)), "kind");
        Assert.Equal([without.Key], schedule.Select(f => f.Line!.Value));
        var splice = World.Line(World.Splice, 2m) with { Key = 102 };
        var work = Found(OrderKind.Service, CheckTests.Facts(Priced(OrderKind.Service, without, splice)), "kind");
        Assert.Equal([without.Key], work.Select(f => f.Line!.Value));
    }

    [Fact]
    public void A_line_is_spread_over_days_with_all_of_it_and_undone_in_one_step()
    {
        var line = World.Line(World.Shackle, 60m);
        var draft = new Draft(Head.Empty, [line, World.Line(World.Splice, 1m)], 100);
        Edited Typed(string text) =>
            SheetDoor.Take(
                draft,
                [new SheetEdit(EditKind.Set, line.Key, "wanted", text)],
                World.Door(kind: DocumentKind.Order)
            );
        var spread = Typed("20 on 10 mar; 30 on 17 mar; 10 2026-03-24");
        Assert.Null(spread.Refused);
        Assert.Equal(
            [(20m, "2026-03-10"), (30m, "2026-03-17"), (10m, "2026-03-24"), (1m, "")],
            spread.Draft.Lines.Select(l =>
                (l.Quantity, l.Wanted?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "")
            )
        );
        Assert.Equal(4, spread.Draft.Lines.Select(l => l.Key).Distinct().Count());
        foreach (var text in new[] { "20 on 10 mar; 30 on 17 mar", "60 on 10 mar; -0 on 17 mar", "x; y", "; ;" })
        {
            var refused = Typed(text);
            Assert.Equal("spread", refused.Refused?.Code);
            Assert.Equal(draft, refused.Draft);
        }
    }

    [Theory]
    [InlineData("goods now", new[] { "paymentDays", "deliverTo", "incoterm", "shipFrom", "documentsBy" })]
    [InlineData("counter sale", new[] { "paymentDays", "shipFrom", "documentsBy" })]
    [InlineData("service", new[] { "paymentDays", "documentsBy" })]
    [InlineData("sample", new[] { "deliverTo", "incoterm", "shipFrom", "documentsBy" })]
    public void A_head_needs_what_its_kind_needs(string words, string[] missing)
    {
        var kind = OrderKind.All.Single(k => k.Words == words);
        var facts = CheckTests.Facts(Priced(kind, World.Line(World.Splice, 1m)), Head.Empty);
        var found = Found(kind, facts, "terms").Where(f => f.Outcome == Outcome.Stop).Select(f => f.Field);
        Assert.Equal(missing, found);
    }

    [Fact]
    public void What_is_called_off_is_at_most_what_is_left_and_a_frame_keeps_what_was_called_off()
    {
        var random = new Random(20261127);
        for (var i = 0; i < 200; i++)
        {
            var (ordered, called, now) = (random.Next(0, 60), random.Next(0, 60), random.Next(1, 60));
            var of = new CallOff(
                "S26-1",
                new Dictionary<long, decimal> { [7] = ordered },
                new Dictionary<long, decimal> { [7] = called }
            );
            Assert.Equal(Math.Max(0, ordered - called), of.RestOf(7));
            var line = World.Line(World.Shackle, now) with { From = new LineOrigin(3, 7) };
            var facts = CheckTests.Facts(Priced(OrderKind.GoodsNow, line)) with { CallOff = of };
            var over = CheckList.Run(facts).Where(f => f.Check == "call-off").ToList();
            Assert.Equal(now > of.RestOf(7), over.Count == 1);
            if (over is [{ Cures: [var cure] }])
                Assert.Equal(of.RestOf(7), decimal.Parse(cure.Value, CultureInfo.InvariantCulture));
            var frame = World.Line(World.Shackle, now) with { Key = 7 };
            var own = CheckTests.Facts(Priced(OrderKind.CallOff, frame)) with { CallOff = of };
            Assert.Equal(called > now, CheckList.Run(own).Any(f => f.Check == "call-off"));
        }
    }

    [Fact]
    public void A_price_that_was_agreed_for_a_frame_holds_for_any_part_of_it()
    {
        var rope = World.Line(World.Braid, 400m);
        var frame = World.Sheet(rope).Sold.Single();
        var part = World.Sheet(rope with { Quantity = 10m });
        Assert.NotEqual(frame.Figures.NetPrice, part.Sold.Single().Figures.NetPrice);
        var kept = new KeptLine(World.Braid.Id, rope.Unit, null, frame.Build, frame.Terms.Cost, frame.Floor);
        var called = SheetPricer.Price(
            World.Book,
            part.Rates,
            World.Tressel,
            part.Sheet with
            {
                Kept = part.Sheet.Kept.Add(rope.Key, kept),
            }
        );
        Assert.Equal(frame.Figures.NetPrice, called.Sold.Single().Figures.NetPrice);
        Assert.Equal(10m * frame.Figures.NetPrice, called.Sold.Single().Figures.Net.Value);
    }

    [Fact]
    public void A_line_that_was_closed_short_counts_for_nothing_and_is_no_difference_later()
    {
        var one = World.Line(World.Shackle, 12m);
        var two = World.Line(World.Splice, 2m) with { Key = 102 };
        var whole = World.Sheet(one, two);
        var closed = World.Sheet(one, two with { ClosedWhy = "not needed any more" });
        Assert.Equal(World.Sheet(one).Tally.TotalWithTax, closed.Tally.TotalWithTax);
        Assert.False(closed.Lines[1].Counts);
        Assert.Empty(Differences.Between(whole, Head.Empty, closed, Head.Empty));
        // For the buyer it is gone.
        var told = Comparison.Of(Side.Of(whole, Head.Empty), Side.Of(closed, Head.Empty), byKey: true);
        Assert.Equal([LineChange.Same, LineChange.Gone], told.Pairs.Select(p => p.Change));
    }

    [Fact]
    public void What_became_of_a_line_since_it_was_confirmed_before()
    {
        ConfirmedOrderLine Line(SheetLine line, int days = 0) =>
            new(World.Sheet(line).Sold.Single(), World.Day.AddDays(days));
        var (kept, less, gone) = (
            World.Line(World.Shackle, 12m),
            World.Line(World.Braid, 40m) with
            {
                Key = 102,
            },
            World.Line(World.Splice, 1m) with
            {
                Key = 103,
            }
        );
        var added = World.Line(World.White, 10m) with { Key = 104 };
        var order = new ConfirmedOrder(
            "S26-1",
            "PO 1",
            "EUR",
            [Line(kept), Line(less with { Quantity = 30m }), Line(added)]
        )
        {
            Version = 1,
            Before = [Line(kept), Line(less), Line(gone)],
        };
        Assert.Equal([LineChange.Same, LineChange.Changed, LineChange.Added], order.Lines.Select(order.SinceBefore));
        Assert.Equal([103L], order.Gone.Select(g => g.Line.Line.Key));
        Assert.Equal(LineChange.Changed, order.SinceBefore(Line(kept, days: 2)));
    }
}
