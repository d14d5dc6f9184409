using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Web.Shipping;

/// <summary>What is being picked, on paper: each shipment on a sheet of its own, along the shelves.</summary>
internal static class PickList
{
    private const int Most = 200;

    /// <param name="shipment">Of this one alone; null: of all that are being picked there.</param>
    /// <param name="wave">Of those that were released together; null: of all.</param>
    public static async Task<byte[]> OfAsync(
        SolvendaDb db,
        string? warehouse,
        string? shipment,
        string? wave,
        Seller seller,
        CancellationToken cancel
    )
    {
        var numbers = await db
            .Shipments.Where(s =>
                s.State == ShipmentState.Picking
                && (warehouse == null || s.Warehouse == warehouse)
                && (shipment == null || s.Number == shipment)
                && (wave == null || s.Wave == wave)
            )
            .OrderBy(s => s.Carrier)
            .ThenBy(s => s.Id)
            .Select(s => s.Number)
            .Take(Most)
            .ToListAsync(cancel);
        if (numbers.Count == 0)
            throw RefusedException.NotFound("such pick list: nothing is being picked");
        var sheets = new List<PrintedDocument>();
        foreach (var number in numbers)
            sheets.Add(Sheet(await ShipmentViews.OfAsync(db, number, mayShip: false, cancel), seller));
        return PdfWriter.Write(sheets, "Pick list");
    }

    private static PrintedDocument Sheet(ShipmentView s, Seller seller)
    {
        (string Label, string Value)[] facts =
        [
            ("from", s.Warehouse),
            ("carrier", s.Carrier),
            ("wave", s.Wave),
            ("note", s.ForWarehouse),
        ];
        return new PrintedDocument(
            seller.Name,
            [],
            "Pick list",
            s.Number,
            [s.Buyer, .. s.DeliverTo.Split(", ", StringSplitOptions.RemoveEmptyEntries)],
            [.. facts.Where(f => f.Value.Length > 0)],
            "",
            "picked",
            [
                .. s.Picks.Select(p => new PrintedLine(
                    false,
                    "",
                    p.Item,
                    $"{(p.Bin.Length > 0 ? p.Bin : "no place")}   {p.Words}",
                    p.BySerial ? "by number: ______________________________"
                        : p.ByLot ? "lot: ______________________________"
                        : "",
                    $"{p.Quantity.ToString("#,0.###", CultureInfo.InvariantCulture)} {p.Unit}".Trim(),
                    "",
                    "",
                    "________",
                    false,
                    ""
                )),
            ],
            [],
            [],
            [.. s.Services.Select(w => $"and {w}")],
            seller.Name,
            new PrintedLabels("place and item", "quantity", "", "", "", "", "page {0}"),
            null
        ).On(seller);
    }
}
