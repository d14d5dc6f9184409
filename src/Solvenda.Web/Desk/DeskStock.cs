using System.Globalization;
using Solvenda.Acts.Planning;
using Solvenda.Core.Promising;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>What planners need to know of the stock: shortages that came, arrivals that slipped.</summary>
internal static class DeskStock
{
    // What is short later than this is on their list, and not on their desk.
    private const int Ahead = 14;

    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, DateOnly today, CancellationToken cancel)
    {
        var book = await PromiseBook.LoadAsync(db, null, today, cancel);
        var items = new List<DeskItem>();
        foreach (var position in book.Positions)
        {
            var late = position.Allotted().Count(a => a.Missing > 0);
            var next = position.Incoming.FirstOrDefault();
            if (Shortage.Of(position.Outlook) is { } shortage && (late > 0 || shortage.From <= Ahead))
                items.Add(
                    Item(
                        position,
                        late > 0 ? Urgency.AtOnce : Urgency.Today,
                        $"short from {Day(today.AddDays(shortage.From))}, by {Number(shortage.By)} {Unit(position)}",
                        late switch
                        {
                            0 => "nothing is on its way for it",
                            1 => "one promise cannot be kept",
                            _ => $"{late} promises cannot be kept",
                        },
                        1
                    )
                );
            else if (next is not null && next.Due < today)
                items.Add(
                    Item(
                        position,
                        Urgency.Today,
                        $"{Number(next.Quantity)} {Unit(position)} should have come {Day(next.Due)}",
                        next.Reference,
                        2
                    )
                );
        }
        return items;
    }

    private static DeskItem Item(StockPosition position, Urgency urgency, string reason, string rest, int rank) =>
        new(
            urgency,
            "stock",
            position.Item.Code,
            $"/planning/{position.Item.Id}?warehouse={Uri.EscapeDataString(position.Warehouse)}",
            $"{position.Item.Code}, {position.Warehouse}",
            reason,
            rest,
            "stock",
            null,
            "",
            null,
            "look",
            rank
        );

    private static string Unit(StockPosition position) =>
        UnitTable.OnSheet(Core.Units.Unit.Of(position.Item.StockUnit));

    private static string Number(decimal value) => value.ToString("#,0.###", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);
}
