using Solvenda.Core.Calendars;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Promising;

/// <summary>Monday 2 March 2026, ten in the morning; two days on the road, one to pick.</summary>
public sealed class PromiseTests
{
    private static readonly DateTime Now = new(2026, 3, 2, 10, 0, 0);
    private static readonly ItemId Rope = new(1);
    private static readonly ItemId Shackle = new(2);

    private static PromiseTerms Terms(string receives = "") =>
        new(new TimeOnly(15, 0), 1, 2, WorkCalendar.MondayToFriday, WorkCalendar.On(receives));

    // 100 m here, 50 m more on day 4, 30 m promised away on day 2.
    private static readonly Outlook RopeStock = Outlook.Over(
        60,
        100m,
        [new StockMove(4, 50m)],
        [new StockMove(2, 30m)]
    );
    private static readonly Dictionary<ItemId, Outlook> Stock = new()
    {
        [Rope] = RopeStock,
        [Shackle] = Outlook.Over(60, 12m, [], []),
    };

    private static LineNeeds Line(
        long key,
        decimal quantity,
        ItemId? item = null,
        int? lead = null,
        bool holds = true
    ) => new(key, quantity, holds, [new StockNeed(item ?? Rope, quantity, lead)]);

    private static Dictionary<long, LineStock> Find(ShippingRule rule, params LineNeeds[] lines) =>
        LinePromises.Find(lines, Stock, rule, Now, Terms());

    private static DateOnly Day(string text) =>
        DateOnly.ParseExact(text, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    private static DateOnly? Arrives(LineStock stock) => stock.Promise?.Arrives;

    [Fact]
    public void What_is_promised_away_later_is_not_free_today()
    {
        Assert.Equal(70m, RopeStock.FreeNow);
        Assert.Equal(0, RopeStock.FirstDayFor(70m));
        Assert.Equal(4, RopeStock.FirstDayFor(71m));
        Assert.Null(RopeStock.FirstDayFor(121m));
        Assert.Equal([100m, 100m, 70m, 70m, 120m], RopeStock.Projected[..5]);
        Assert.Equal([70m, 70m, 70m, 70m, 120m], RopeStock.Free[..5]);
    }

    [Theory]
    // From stock: taken today, ready Tuesday, two days on the road.
    [InlineData(70, null, "2026-03-02", "2026-03-03", "2026-03-05", true)]
    // With what comes on Friday: ready Monday.
    [InlineData(71, null, "2026-03-06", "2026-03-09", "2026-03-11", true)]
    // Bought within three days, before Friday's arrival.
    [InlineData(71, 3, "2026-03-05", "2026-03-06", "2026-03-10", false)]
    // More than ever comes: only bought.
    [InlineData(500, 10, "2026-03-12", "2026-03-13", "2026-03-17", false)]
    public void The_earlier_of_stock_and_lead_time_counts(
        int quantity,
        int? lead,
        string taken,
        string ready,
        string arrives,
        bool fromStock
    ) =>
        Assert.Equal(
            new Promise(Day(taken), Day(ready), Day(arrives), fromStock),
            PromiseFinder.Find(RopeStock, quantity, lead, Now, Terms())
        );

    [Fact]
    public void Neither_stock_nor_lead_time_is_no_date() =>
        Assert.Null(PromiseFinder.Find(RopeStock, 500m, null, Now, Terms()));

    [Theory, InlineData(14, 59, "2026-03-05"), InlineData(15, 0, "2026-03-06")]
    public void After_the_cut_off_today_is_tomorrow(int hour, int minute, string arrives) =>
        Assert.Equal(
            Day(arrives),
            PromiseFinder.Find(RopeStock, 1m, null, Now.Date.AddHours(hour).AddMinutes(minute), Terms())!.Arrives
        );

    [Theory, InlineData("", "2026-03-05"), InlineData("Mon Wed", "2026-03-09"), InlineData("Sat", "2026-03-07")]
    public void It_arrives_on_a_day_on_which_they_receive(string days, string arrives) =>
        Assert.Equal(Day(arrives), PromiseFinder.Find(RopeStock, 1m, null, Now, Terms(days))!.Arrives);

    [Fact]
    public void Holidays_are_worked_by_nobody()
    {
        var closed = WorkCalendar.MondayToFriday with
        {
            Holidays = new HashSet<DateOnly> { new(2026, 3, 3), new(2026, 3, 4) },
        };
        var promise = PromiseFinder.Find(RopeStock, 1m, null, Now, Terms() with { Warehouse = closed })!;
        Assert.Equal((new DateOnly(2026, 3, 5), new DateOnly(2026, 3, 9)), (promise.Ready, promise.Arrives));
        Assert.Throws<InvalidOperationException>(() =>
            (closed with { Days = new HashSet<DayOfWeek>() }).OnOrAfter(new DateOnly(2026, 3, 2))
        );
    }

    [Fact]
    public void Lines_of_one_item_draw_on_the_same_stock_and_the_earlier_goes_first()
    {
        var found = Find(ShippingRule.WholeLines, Line(1, 60m), Line(2, 20m));
        Assert.Equal(new DateOnly(2026, 3, 5), Arrives(found[1]));
        Assert.Equal(new DateOnly(2026, 3, 11), Arrives(found[2]));
    }

    [Fact]
    public void An_optional_line_takes_nothing_from_the_others()
    {
        var found = Find(ShippingRule.WholeLines, Line(1, 60m, holds: false), Line(2, 20m));
        Assert.Equal(Arrives(found[1]), Arrives(found[2]));
    }

    [Fact]
    public void All_together_waits_for_the_latest()
    {
        var found = Find(ShippingRule.AllTogether, Line(1, 5m), Line(2, 100m), Line(3, 5m, Shackle));
        Assert.All(found.Values, s => Assert.Equal(new DateOnly(2026, 3, 11), Arrives(s)));
        // One line without a date leaves the others as they are.
        Assert.Equal(new DateOnly(2026, 3, 5), Arrives(Find(ShippingRule.AllTogether, Line(1, 5m), Line(2, 500m))[1]));
    }

    [Fact]
    public void As_it_comes_splits_a_line_over_its_dates()
    {
        var stock = Find(ShippingRule.AsItComes, Line(1, 150m, lead: 20))[1];
        Assert.Equal(
            [(70m, new DateOnly(2026, 3, 5)), (50m, new DateOnly(2026, 3, 11)), (30m, new DateOnly(2026, 3, 26))],
            stock.Parts.Select(p => (p.Quantity, p.Promise.Arrives))
        );
        Assert.Equal(stock.Parts[^1].Promise.Arrives, Arrives(stock));
        Assert.Empty(Find(ShippingRule.AsItComes, Line(1, 70m))[1].Parts);
        Assert.Empty(Find(ShippingRule.AsItComes, Line(1, 150m))[1].Parts);
        // The line before has taken 60 of what is here.
        Assert.Equal(
            [10m, 10m],
            Find(ShippingRule.AsItComes, Line(1, 60m), Line(2, 20m))[2].Parts.Select(p => p.Quantity)
        );
    }

    [Fact]
    public void On_call_takes_nothing_and_promises_nothing() => Assert.Empty(Find(ShippingRule.OnCall, Line(1, 5m)));

    [Fact]
    public void A_bundle_is_there_when_its_last_part_is()
    {
        // Three metres and two shackles in each set.
        LineNeeds Sets(decimal sets) =>
            new(1, sets, true, [new StockNeed(Rope, sets * 3m, null), new StockNeed(Shackle, sets * 2m, null)]);
        var stock = Find(ShippingRule.WholeLines, Sets(6m))[1];
        Assert.Equal(6m, stock.FreeNow);
        Assert.Equal(new DateOnly(2026, 3, 5), Arrives(stock));
        Assert.Null(Find(ShippingRule.WholeLines, Sets(7m))[1].Promise);
        Assert.Equal([(Rope, 18m), (Shackle, 12m)], stock.Needs.Select(n => (n.Item, n.Quantity)));
    }

    [
        Theory,
        InlineData("all together", ShippingRule.AllTogether),
        InlineData("on call", ShippingRule.OnCall),
        InlineData(null, ShippingRule.WholeLines),
        InlineData("as it comes", ShippingRule.AsItComes)
    ]
    public void A_rule_is_known_by_its_words(string? words, ShippingRule rule) =>
        Assert.Equal(rule, ShippingRules.Of(words));
}
