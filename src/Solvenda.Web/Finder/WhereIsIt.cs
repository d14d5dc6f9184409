using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Data;

namespace Solvenda.Web.Finder;

/// <summary>
/// "Where is my order?": how far the orders are that were found, and which open orders have an item, of a buyer where
/// one
/// is named behind it.
/// </summary>
internal static class WhereIsIt
{
    private const int MostOfItem = 6;

    /// <summary>Open orders with an item: "SHK-BOW-10 havnlys"; none where the first word is no code of ours.</summary>
    public static async Task<List<Found>> OfItemAsync(
        SolvendaDb db,
        ItemFinder finder,
        string text,
        CancellationToken cancel
    )
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 0 || finder.ByCode(words[0]) is not { } item)
            return [];
        var (id, like) = (item.Id.Value, $"%{string.Join(' ', words.Skip(1))}%");
        var orders = await (
            from o in db.Orders
            where
                o.Goods != GoodsTrack.Shipped
                && o.Terms != TermsTrack.Cancelled
                && EF.Functions.Like(o.Dossier.Buyer.Name, like)
                && o.Sheet.StoredLines.Any(l => l.ItemId == id)
            orderby o.Id descending
            select new { o.Number, o.Dossier.Buyer.Name }
        )
            .Take(MostOfItem)
            .ToListAsync(cancel);
        return orders.ConvertAll(o => new Found("order", o.Number, o.Name, "", $"/orders/{o.Number}", null));
    }

    /// <summary>The same finds, with how far the orders among them are.</summary>
    public static async Task<List<Found>> SaidAsync(SolvendaDb db, List<Found> found, CancellationToken cancel)
    {
        var numbers = found.Where(f => f.Kind == "order").Select(f => f.Number).ToList();
        var orders = await db
            .Orders.Where(o => numbers.Contains(o.Number))
            .Select(o => new
            {
                o.Number,
                o.Terms,
                o.Goods,
                o.HeldWhy,
                o.FirstStop,
                o.Late,
                Promised = o.Sheet.StoredLines.Max(l => l.Promised),
            })
            .ToDictionaryAsync(o => o.Number, cancel);
        return found.ConvertAll(f =>
            f.Kind == "order" && orders.TryGetValue(f.Number, out var o)
                ? f with
                {
                    Rest = $"{Words(o.Terms, o.Goods, o.HeldWhy, o.FirstStop, o.Late, o.Promised)} · {f.Rest}".TrimEnd(
                        ' ',
                        '·'
                    ),
                }
                : f
        );
    }

    private static string Words(
        TermsTrack terms,
        GoodsTrack goods,
        string held,
        string stop,
        string late,
        DateOnly? promised
    ) =>
        (terms, goods) switch
        {
            (TermsTrack.Cancelled, _) => "cancelled",
            (_, GoodsTrack.Shipped) => "shipped",
            _ when held.Length > 0 => $"held: {held}",
            (TermsTrack.Open, _) when stop.Length > 0 => $"stopped: {stop}",
            (TermsTrack.Open, _) => "to confirm",
            _ when late.Length > 0 => $"late: {late}",
            (_, GoodsTrack.Picking) => "being picked" + Promised(promised),
            _ => "waits" + Promised(promised),
        };

    private static string Promised(DateOnly? day) =>
        day is { } known ? known.ToString("', promised for 'd MMM", CultureInfo.InvariantCulture) : "";
}
