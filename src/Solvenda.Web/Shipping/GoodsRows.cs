using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Shipping;

/// <summary>What may go from a warehouse, and what is being picked there.</summary>
internal static class GoodsRows
{
    private sealed record WaitingOrder(
        long Id,
        string Number,
        string Buyer,
        string HeldWhy,
        string Address,
        Core.Sheets.Head Head
    );

    public static async Task<GoodsView> OfAsync(
        SolvendaDb db,
        string? warehouse,
        HouseClock clock,
        bool mayShip,
        CancellationToken cancel
    )
    {
        var houses = await HouseDays.WarehouseNamesAsync(db, cancel);
        var house = warehouse is null
            ? await BusiestAsync(db, houses, cancel)
            : houses.Find(h => h == warehouse) ?? throw RefusedException.NotFound("such warehouse");
        var carriers = await Carriers.InUseAsync(db, cancel);
        var today = clock.Today;
        return new GoodsView(
            houses,
            house,
            today,
            (await HouseDays.WarehousesAsync(db, today, cancel)).GetValueOrDefault(house)?.Calendar.OnOrAfter(today)
                ?? today,
            clock.LocalNow.ToString("HH:mm", CultureInfo.InvariantCulture),
            [
                .. carriers
                    .OrderBy(c => c.CutOff, StringComparer.Ordinal)
                    .Select(c => new CarrierBrief(c.Code, c.Carries, c.CutOff)),
            ],
            await WaitingAsync(db, house, carriers, today, cancel),
            await PickingAsync(db, house, cancel),
            await NextWaveAsync(db, house, clock, cancel),
            await db.Shipments.CountAsync(
                s => s.State == ShipmentState.Gone && s.Warehouse == house && s.Day == today,
                cancel
            ),
            mayShip
        );
    }

    // Counted by the day: "28 Nov 2".
    private static async Task<string> NextWaveAsync(
        SolvendaDb db,
        string house,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var day = string.Create(CultureInfo.InvariantCulture, $"{clock.Today:d MMM} ");
        var had = await db
            .Shipments.Where(s => s.Warehouse == house && s.Wave.StartsWith(day))
            .Select(s => s.Wave)
            .Distinct()
            .CountAsync(cancel);
        return string.Create(CultureInfo.InvariantCulture, $"{day}{had + 1}");
    }

    // Where most of it waits.
    private static async Task<string> BusiestAsync(SolvendaDb db, List<string> houses, CancellationToken cancel) =>
        await db
            .Commitments.Where(c => EF.Parameter(houses).Contains(c.Warehouse))
            .GroupBy(c => c.Warehouse)
            .OrderByDescending(g => g.Count())
            .Select(g => g.Key)
            .FirstOrDefaultAsync(cancel)
        ?? houses.FirstOrDefault()
        ?? "";

    private static async Task<List<GoodsRow>> WaitingAsync(
        SolvendaDb db,
        string house,
        List<CarrierRow> carriers,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var orders = await db
            .Orders.AsNoTracking()
            .Where(o =>
                o.Terms == TermsTrack.Confirmed
                && o.Goods != GoodsTrack.Shipped
                && db.Commitments.Any(c => c.OrderId == o.Id && c.Warehouse == house)
            )
            .Select(o => new WaitingOrder(
                o.Id,
                o.Number,
                o.Dossier.Buyer.Name,
                o.HeldWhy,
                o.Dossier.Buyer.Address,
                o.Sheet.Head
            ))
            .ToListAsync(cancel);
        var goods = await GoodsBook.OfAsync(db, orders.ConvertAll(o => o.Id), today, cancel);
        var weights = await db
            .Items.Where(i => i.Stocked)
            .Select(i => new { i.Id, i.WeightKg })
            .ToDictionaryAsync(i => i.Id, i => i.WeightKg, cancel);
        var rows = orders.Select(o => Row(o, goods[o.Id], house, carriers, weights, today)).OfType<GoodsRow>();
        return [.. rows.OrderBy(r => r.Leaves).ThenBy(r => r.Promised).ThenBy(r => r.Order, StringComparer.Ordinal)];
    }

    // Of one order from this house; null where nothing of it waits here. How the buyer wants it counts over all of it.
    private static GoodsRow? Row(
        WaitingOrder order,
        OrderGoods of,
        string house,
        List<CarrierRow> carriers,
        Dictionary<long, decimal?> weights,
        DateOnly today
    )
    {
        var open = of.Open().Where(o => o.Warehouse == house && !o.Needs.IsEmpty).ToList();
        if (open.Count == 0)
            return null;
        var could = of.CouldGo().Where(p => p.Warehouse == house).ToList();
        var may = of.MayGo().Where(p => p.Warehouse == house && p.Quantity > 0m).ToList();
        var keys = open.Select(o => o.Line).ToHashSet();
        var lines = of.Lines.Where(l => keys.Contains(l.Line.Key)).ToList();
        var weight = WeightOf(open, may.Count > 0 ? may : could, weights);
        var some = could.Exists(p => p.Quantity > 0m);
        return new GoodsRow(
            order.Id,
            order.Number,
            order.Buyer,
            Place(HeadTerms.DeliverTo.In(order.Head) ?? order.Address),
            Carriers.For(carriers, HeadTerms.FreightService.In(order.Head) ?? "", weight),
            open.Count,
            could.Count(p => keys.Contains(p.Line) && !p.IsShort),
            weight,
            may.Count > 0 && order.HeldWhy.Length == 0,
            some && order.HeldWhy.Length == 0,
            Why(order, of.Rule, may.Count > 0, some),
            ShippingRules.WordsOf(of.Rule),
            lines.Min(l => l.Day) ?? today,
            lines.Min(l => l.Promised)
        );
    }

    // The street says less than the town behind it.
    private static string Place(string address)
    {
        var parts = address.Split(',', StringSplitOptions.TrimEntries);
        return parts.Length > 1 ? parts[1] : parts[0];
    }

    private static string Why(WaitingOrder order, ShippingRule rule, bool mayGo, bool some) =>
        order.HeldWhy.Length > 0 ? $"held: {order.HeldWhy}"
        : mayGo ? ""
        : rule == ShippingRule.OnCall ? "goes when they call it off"
        : rule == ShippingRule.AllTogether && some ? "goes all together"
        : "not there yet";

    private static decimal? WeightOf(List<OpenGoods> open, List<GoingPart> going, Dictionary<long, decimal?> weights)
    {
        var sum = 0m;
        foreach (var part in going)
        foreach (var need in open.Find(o => o.Line == part.Line)?.Needs ?? [])
        {
            if (weights.GetValueOrDefault(need.Item.Value) is not { } kg)
                return null;
            sum += kg * need.PerUnit * part.Quantity;
        }
        return decimal.Round(sum, 1, MidpointRounding.AwayFromZero);
    }

    private static Task<List<ShipmentBrief>> PickingAsync(SolvendaDb db, string house, CancellationToken cancel) =>
        db
            .Shipments.Where(s => s.State == ShipmentState.Picking && s.Warehouse == house)
            .OrderBy(s => s.BegunAt)
            .ThenBy(s => s.Id)
            .Select(s => new ShipmentBrief(
                s.Id,
                s.Number,
                s.Order.Number,
                s.Order.Dossier.Buyer.Name,
                s.Carrier,
                s.Wave,
                s.ByName,
                s.Picks.Count,
                s.Picks.Count(p => p.Picked != null),
                s.WeightKg
            ))
            .ToListAsync(cancel);
}
