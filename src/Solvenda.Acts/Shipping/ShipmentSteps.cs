using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>What acts on shipments have in common.</summary>
internal static class ShipmentSteps
{
    /// <summary>A shipment with its lines and picks, on the version that was seen.</summary>
    public static async Task<ShipmentRow> FindAsync(Work work, string number, long? seen, CancellationToken cancel)
    {
        var shipment =
            await work
                .Db.Shipments.Include(s => s.Lines)
                .Include(s => s.Picks)
                .Include(s => s.Order)
                .FirstOrDefaultAsync(s => s.Number == number, cancel)
            ?? throw RefusedException.NotFound("such shipment");
        return seen is null || seen == shipment.Version
            ? shipment
            : throw RefusedException.Clash(
                "stale",
                $"{number} was changed meanwhile; what is there now is shown. Nothing was changed.",
                shipment.Version
            );
    }

    /// <summary>Moves it; refused where the table has no such move.</summary>
    public static void Move(ShipmentRow shipment, ShipmentDoing doing)
    {
        shipment.State = ShipmentMoves.Table.After(shipment.State, doing) ?? throw Over(shipment);
        shipment.Version++;
    }

    /// <summary>Refuses what only goes while it is picked.</summary>
    public static void MustBePicked(ShipmentRow shipment)
    {
        if (shipment.State != ShipmentState.Picking)
            throw Over(shipment);
    }

    private static RefusedException Over(ShipmentRow shipment) =>
        RefusedException.Clash(
            "shipment_state",
            shipment.State == ShipmentState.Gone
                ? $"{shipment.Number} has gone already."
                : $"{shipment.Number} was dropped; release it anew."
        );

    /// <summary>The lines of a shipment as they are called, with how much of each.</summary>
    public static ImmutableArray<string> Names(SheetRow sheet, ShipmentRow shipment) =>
        Names(sheet, shipment.Lines.ToDictionary(l => l.LineKey, l => l.Quantity));

    /// <summary>Lines as they are called, with how much of each.</summary>
    public static ImmutableArray<string> Names(SheetRow sheet, IReadOnlyDictionary<long, decimal> quantities) =>
        [
            .. sheet
                .ToDraft()
                .Lines.Where(l => quantities.GetValueOrDefault(l.Key) > 0m)
                .Select(l => $"{Releasing.Said(quantities[l.Key], l.Unit)} {l.Words}"),
        ];
}
