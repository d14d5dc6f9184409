using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>Who buys, what for, and what they like to buy.</summary>
internal sealed class DemoHabits
{
    public static readonly string[] Matters =
    [
        "spring refit",
        "mooring renewal",
        "net mending",
        "stock order",
        "winter lay-up",
        "pontoon lines",
        "halyards",
        "training boats",
        "tow gear",
        "fly floor",
        "yard stock",
        "charter fleet",
    ];

    private readonly IReadOnlyList<BuyerRow> _buyers;
    private readonly Random _random;
    private readonly Dictionary<long, DemoCatalogue.Entry[]> _favourites = [];

    public DemoHabits(IReadOnlyList<BuyerRow> buyers, IReadOnlyList<DemoCatalogue.Entry> catalogue, Random random)
    {
        (_buyers, _random) = (buyers, random);
        foreach (var buyer in buyers)
            _favourites[buyer.Id] =
            [
                .. catalogue.Where(e => e.Row.Successor is null).OrderBy(_ => random.Next()).Take(random.Next(6, 14)),
            ];
    }

    public BuyerRow Somebody()
    {
        // Tressel's orders are written on purpose, below; prospects have none.
        while (true)
        {
            var buyer = _buyers[(int)(Math.Pow(_random.NextDouble(), 1.6) * _buyers.Count)];
            if (!buyer.IsProspect && buyer.Name != "Tressel & Vane Rigging")
                return buyer;
        }
    }

    private (DemoCatalogue.Entry, decimal, string, decimal) RandomLine(DemoCatalogue.Entry item)
    {
        var coil = item.CoilPrice is not null && _random.Next(3) == 0;
        var quantity =
            coil ? _random.Next(1, 6)
            : item.Row.StockUnit is "MTR" or "MTK" ? _random.Next(2, 40) * 10
            : Math.Max(1, (int)(_random.Next(4, 80) / Math.Max(1m, item.List / 20m)));
        return (item, quantity, coil ? "CL" : item.Row.StockUnit, _random.Next(5) == 0 ? _random.Next(1, 5) : 0);
    }

    public IEnumerable<(DemoCatalogue.Entry, decimal, string, decimal)> Lines(BuyerRow buyer, int most)
    {
        var favourites = _favourites[buyer.Id];
        return favourites
            .OrderBy(_ => _random.Next())
            .Take(_random.Next(1, Math.Min(most, favourites.Length) + 1))
            .Select(RandomLine);
    }
}
