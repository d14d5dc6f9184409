using System.Collections.Immutable;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>A line of a delivery note, in the order's unit.</summary>
/// <param name="Follows">What is still to come of it after this shipment.</param>
/// <param name="Serials">Numbers of its pieces; empty for none.</param>
/// <param name="Lots">The lots that it is of; empty for none.</param>
public sealed record DeliveredLine(SheetLine Line, decimal Delivered, decimal Follows, string Serials, string Lots);

/// <summary>Prints what goes with goods. No price stands on it.</summary>
public static class GoodsPrint
{
    /// <param name="lines">Those that are delivered, in the order of the sheet.</param>
    public static PrintedDocument DeliveryNote(
        OpenSheet open,
        ShipmentRow shipment,
        IReadOnlyList<DeliveredLine> lines,
        Seller seller,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(shipment);
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(seller);
        var wording = open.Wording;
        var numbers = LineNumbers.Of(open.ToDraft().Lines);
        return new PrintedDocument(
            seller.Name,
            seller.Address,
            wording.TitleOf(PaperKind.DeliveryNote),
            shipment.Number,
            SheetPrint.AddressLines(open, shipment.DeliverTo),
            [.. SheetPrint.Facts(open, wording, day), .. Facts(shipment, wording)],
            open.Dossier.Matter,
            wording["toFollow"],
            [.. lines.Select(l => Line(l, numbers[l.Line.Key], open, wording))],
            [],
            [],
            [],
            string.Join(" · ", new[] { seller.Name, seller.Address[0] }),
            new PrintedLabels(wording["what"], wording["delivered"], wording["ordered"], "", "", "", wording["page"]),
            null
        )
            .On(seller)
            .Saying(open.House.Texts, PaperKind.DeliveryNote, wording, open.Buyer);
    }

    private static IEnumerable<(string Label, string Value)> Facts(ShipmentRow shipment, Wording wording)
    {
        if (shipment.Carrier.Length > 0)
            yield return (wording["carrier"], shipment.Carrier);
        if (shipment.Tracking.Length > 0)
            yield return (wording["tracking"], shipment.Tracking);
        if (shipment.WeightKg is { } weight)
            yield return (wording["weight"], $"{wording.Number(weight)} kg");
    }

    private static PrintedLine Line(DeliveredLine line, string number, OpenSheet open, Wording wording)
    {
        var sold = line.Line;
        string Said(decimal quantity) => $"{wording.Number(quantity)} {wording.UnitWord(sold.Unit)}".Trim();
        var item = sold.Item is { } id ? open.Book.Find(id) : null;
        return new PrintedLine(
            false,
            number,
            item?.Code ?? "",
            sold.Words,
            SheetPrint.NoteOf(sold, wording),
            Said(line.Delivered),
            Said(sold.Quantity),
            "",
            line.Follows > 0m ? Said(line.Follows) : "",
            false,
            line.Serials.Length > 0 ? wording.With("serialNumbers", line.Serials)
                : line.Lots.Length > 0 ? wording.With("ofLots", line.Lots)
                : ""
        );
    }
}
