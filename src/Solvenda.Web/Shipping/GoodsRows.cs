using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
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
            clock.LocalNow.ToString("HH:mm", CultureInfo.InvariantCulture),
            [
                .. carriers
                    .OrderBy(c => c.CutOff, StringComparer.Ordinal)
                    .Select(c => new CarrierBrief(c.Code, c.Carries, c.CutOff)),
            ],
            await WaitingAsync(db, house, carriers, today, cancel),
            await PickingAsync(db, house, cancel),
            await db.Shipments.CountAsync(
                s => s.State == ShipmentState.Gone && s.Warehouse == house && s.Day == today,
                cancel
            ),
            mayShip
        );
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
            .Select(o => new
            {
                o.Id,
                o.Number,
                o.HeldWhy,
                o.Dossier.Buyer.Name,
                o.Dossier.Buyer.Address,
                o.Sheet.Head,
            })
            .ToListAsync(cancel);
        var goods = await GoodsBook.OfAsync(db, orders.ConvertAll(o => o.Id), today, cancel);
        var weights = await db
            .Items.Where(i => i.Stocked)
            .Select(i => new { i.Id, i.WeightKg })
            .ToDictionaryAsync(i => i.Id, i => i.WeightKg, cancel);
        var rows = new List<GoodsRow>();
        foreach (var order in orders)
        {
            var of = goods[order.Id];
            // From this house alone; how the buyer wants it counts over all of it.
            var open = of.Open().Where(o => o.Warehouse == house && !o.Needs.IsEmpty).ToList();
            if (open.Count == 0)
                continue;
            var could = of.CouldGo().Where(p => p.Warehouse == house).ToList();
            var may = of.MayGo().Where(p => p.Warehouse == house && p.Quantity > 0m).ToList();
            var mayGo = may.Count > 0 && order.HeldWhy.Length == 0;
            var keys = open.Select(o => o.Line).ToHashSet();
            var lines = of.Lines.Where(l => keys.Contains(l.Line.Key)).ToList();
            var weight = WeightOf(open, may.Count > 0 ? may : could, weights);
            rows.Add(
                new GoodsRow(
                    order.Id,
                    order.Number,
                    order.Name,
                    (HeadTerms.DeliverTo.In(order.Head) ?? order.Address).Split(',')[0],
                    Carriers.For(carriers, HeadTerms.FreightService.In(order.Head) ?? "", weight),
                    open.Count,
                    could.Count(p => keys.Contains(p.Line) && !p.IsShort),
                    weight,
                    mayGo,
                    could.Exists(p => p.Quantity > 0m) && order.HeldWhy.Length == 0,
                    mayGo ? ""
                        : order.HeldWhy.Length > 0 ? $"held: {order.HeldWhy}"
                        : of.Rule == ShippingRule.OnCall ? "goes when they call it off"
                        : of.Rule == ShippingRule.AllTogether && could.Exists(p => p.Quantity > 0m)
                            ? "goes all together"
                        : "not there yet",
                    ShippingRules.WordsOf(of.Rule),
                    lines.Min(l => l.Day) ?? today,
                    lines.Min(l => l.Promised)
                )
            );
        }
        return [.. rows.OrderBy(r => r.Leaves).ThenBy(r => r.Promised).ThenBy(r => r.Order, StringComparer.Ordinal)];
    }

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
                s.ByName,
                s.Picks.Count,
                s.Picks.Count(p => p.Picked != null),
                s.WeightKg
            ))
            .ToListAsync(cancel);
}
