using Solvenda.Core.Pricing;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>What the demo's house did before today: orders, quotes that are out, bills that are open.</summary>
internal static class DemoHistory
{
    private const int Recent = 77;

    /// <summary>Adds the rows; what happened comes back in the order of time, to be chained.</summary>
    public static IReadOnlyList<Leaving> Add(
        SolvendaDb db,
        PriceBook book,
        IReadOnlyList<BuyerRow> buyers,
        IReadOnlyList<DemoCatalogue.Entry> catalogue,
        DemoStock stock,
        Random random,
        DateTime now
    )
    {
        var papers = new DemoPapers(db, book, random, now);
        var habits = new DemoHabits(buyers, catalogue, random);
        var goods = new DemoGoods(db, papers);
        goods.AddCarriers();
        var orders = new DemoOrders(db, papers, habits, catalogue, stock, goods, random);
        orders.AddPast();
        orders.AddTressel(buyers.First(b => b.Name == "Tressel & Vane Rigging"));
        new DemoQuotes(db, papers, orders, habits, buyers, catalogue).Add();
        // One buyer is late beyond what is allowed.
        db.OpenItems.Add(
            new OpenItemRow
            {
                BuyerId = buyers.First(b => b.Name == "Dunmarrow Rescue Trust").Id,
                Number = $"F{papers.Today.Year % 100:00}-0102",
                Due = papers.Today.AddDays(-11),
                OpenMinor = 1_280_40,
            }
        );
        DemoCredit.Add(db, buyers, papers.Today);
        stock.Shorten();
        var by = new Random(Recent);
        orders.AddWaiting(new DemoHabits(buyers, catalogue, by), by);
        stock.Finish();
        papers.KeepSeries();
        return papers.Events;
    }
}
