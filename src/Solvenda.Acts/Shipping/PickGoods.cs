using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>What was there of something that is picked.</summary>
/// <param name="Line">Key of the order's line that it is for.</param>
/// <param name="Picked">In stock units: up to what was to be picked, and as much beyond it as the buyer
/// takes.</param>
/// <param name="Serials">Numbers of the pieces, where the item goes by number.</param>
/// <param name="Lots">Which lots it is of, as typed, where the item goes by lot.</param>
public sealed record PickedGoods(
    long Line,
    string Item,
    decimal Picked,
    ImmutableArray<string> Serials,
    string Lots = ""
);

/// <summary>Notes what was picked for a shipment; less than was asked is picked short.</summary>
/// <param name="Seen">Version of the shipment.</param>
public sealed record PickGoods(string Shipment, ImmutableArray<PickedGoods> Picked, long? Seen) : IAct<string>;

[Leaves(typeof(GoodsPicked))]
public sealed class PickGoodsAct : Act<PickGoods, string>
{
    private const int MostLetters = 40;

    public override Right Needs => Rights.Ship;

    public override async Task<string> RunAsync(Work work, PickGoods input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var shipment = await ShipmentSteps.FindAsync(work, input.Shipment, input.Seen, cancel);
        ShipmentSteps.MustBePicked(shipment);
        var ids = shipment.Picks.ConvertAll(p => p.ItemId);
        var items = await work
            .Db.Items.AsNoTracking()
            .Where(i => EF.Parameter(ids).Contains(i.Id))
            .ToDictionaryAsync(i => i.Code, cancel);
        foreach (var one in input.Picked)
        {
            var pick =
                items.TryGetValue(one.Item, out var item)
                && shipment.Picks.Find(p => p.LineKey == one.Line && p.ItemId == item.Id) is { } found
                    ? found
                    : throw RefusedException.Bad(
                        "not_on_it",
                        $"{one.Item} is not to be picked for {shipment.Number}.",
                        "item"
                    );
            if (one.Picked < 0m || one.Picked > pick.Quantity)
                await MustBeTakenAsync(work, shipment, pick, one, cancel);
            pick.Picked = one.Picked;
            pick.Lots = item.HasLots ? await LotsAsync(work, shipment, item, one, cancel) : "";
            pick.Serials = item.HasSerials ? await SerialsAsync(work, shipment, pick, one, cancel) : "";
        }
        shipment.ByName = work.Actor.Name;
        shipment.Version++;
        work.Leave(
            new GoodsPicked(
                shipment.Number,
                [
                    .. input.Picked.Select(p =>
                        FormattableString
                            .Invariant(
                                $"{p.Item}: {p.Picked:0.######} of {shipment.Picks.Find(k => k.LineKey == p.Line && k.ItemId == items[p.Item].Id)!.Quantity:0.######} {string.Join(' ', p.Serials)} {p.Lots}"
                            )
                            .Trim()
                    ),
                ]
            ),
            shipment.Order.Number,
            shipment.Order.DossierId
        );
        return shipment.Number;
    }

    // More than was asked for goes as far as the buyer takes it.
    private static async Task MustBeTakenAsync(
        Work work,
        ShipmentRow shipment,
        ShipmentPickRow pick,
        PickedGoods one,
        CancellationToken cancel
    )
    {
        var beyond = await GoingBeyond.OfAsync(work.Db, shipment, cancel);
        var most = GoingBeyond.MostOf(shipment, pick, beyond);
        if (one.Picked < 0m || one.Picked > most)
            throw RefusedException.Bad(
                "quantity",
                FormattableString.Invariant(
                    $"Of {one.Item} {pick.Quantity:0.######} are asked for{(most > pick.Quantity ? $", and at most {most:0.######} taken" : "")}; {one.Picked:0.######} cannot be picked for it."
                ),
                "picked"
            );
    }

    // All of it is of the lots that are said; one that is said alone is all of it. The last of them lies in front.
    private static async Task<string> LotsAsync(
        Work work,
        ShipmentRow shipment,
        ItemRow item,
        PickedGoods one,
        CancellationToken cancel
    )
    {
        if (one.Picked == 0m)
            return "";
        try
        {
            var parts = Lots.Read(one.Lots, one.Picked);
            if (parts.IsEmpty)
                return "";
            if (parts.Sum(p => p.Quantity) != one.Picked)
                throw new FormatException(
                    FormattableString.Invariant(
                        $"Of {one.Item} {one.Picked:0.######} go, and lots of {parts.Sum(p => p.Quantity):0.######} are said."
                    )
                );
            var shelf = await work.Db.Stock.FirstOrDefaultAsync(
                s => s.ItemId == item.Id && s.Warehouse == shipment.Warehouse,
                cancel
            );
            if (shelf is not null)
                shelf.Lot = parts[^1].Lot;
            return Lots.Write(parts);
        }
        catch (FormatException wrong)
        {
            throw RefusedException.Bad("lots", wrong.Message, "lots");
        }
    }

    // Each number goes once.
    private static async Task<string> SerialsAsync(
        Work work,
        ShipmentRow shipment,
        ShipmentPickRow pick,
        PickedGoods one,
        CancellationToken cancel
    )
    {
        List<string> said = [.. one.Serials.Select(s => s.Trim().ToUpperInvariant()).Where(s => s.Length > 0)];
        if (said.Find(s => s.Length > MostLetters || s.Any(char.IsWhiteSpace)) is { } odd)
            throw RefusedException.Bad("serial", $"“{odd}” is no number of a piece.", "serials");
        if (said.Distinct().Count() < said.Count || said.Count > one.Picked)
            throw RefusedException.Bad(
                "serials_missing",
                FormattableString.Invariant(
                    $"{one.Item} goes by number, each once: {one.Picked:0.###} go, {said.Distinct().Count()} numbers are said."
                ),
                "serials"
            );
        var elsewhere = await (
            from p in work.Db.Set<ShipmentPickRow>()
            join s in work.Db.Shipments on p.ShipmentId equals s.Id
            where
                p.ItemId == pick.ItemId
                && p.Serials != ""
                && s.State != ShipmentState.Dropped
                && !(p.ShipmentId == shipment.Id && p.LineKey == pick.LineKey)
            select new { s.Number, p.Serials }
        ).ToListAsync(cancel);
        foreach (var other in elsewhere)
            if (other.Serials.Split(' ').FirstOrDefault(said.Contains) is { } twice)
                throw RefusedException.Clash("serial_gone", $"{one.Item} {twice} goes with {other.Number}.");
        return string.Join(' ', said);
    }
}
