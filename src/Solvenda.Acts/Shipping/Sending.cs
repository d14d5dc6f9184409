using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Channels;
using Solvenda.Formats.Mail;
using Solvenda.Formats.Pdf;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Shipping;

/// <summary>
/// Sends shipments: what was picked leaves the stock and its promise is kept, what stayed waits on, and the buyer is
/// told.
/// </summary>
public sealed class Sending(Judge judge, Seller seller)
{
    /// <summary>The kind of message by which carriers are told.</summary>
    public const string ByFile = "carrier";

    /// <param name="asAsked">What nobody looked at counts as picked whole.</param>
    /// <param name="tells">Whether the buyer is told, with a delivery note.</param>
    public async Task SendAsync(
        Work work,
        OpenSheet open,
        ShipmentRow shipment,
        bool asAsked,
        CancellationToken cancel,
        bool tells = true
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(shipment);
        await Releasing.MayShipAsync(work, open, judge, cancel);
        await MustBePickedAsync(work, shipment, asAsked, cancel);
        var asked = shipment.Lines.ToDictionary(l => l.LineKey, l => l.Quantity);
        await FromShelves.LeaveAsync(work, shipment, cancel);
        await GoingBeyond.ExtendAsync(work, open, Beyond(shipment, asked), cancel);
        if (shipment.Lines.TrueForAll(l => l.Quantity == 0m))
            throw RefusedException.Clash(
                "nothing_picked",
                $"Nothing was there for {shipment.Number}; drop it, and what it was for waits again."
            );
        ShipmentSteps.Move(shipment, ShipmentDoing.Send);
        (shipment.Day, shipment.GoneAt) = (work.Today, work.Now);
        if (shipment.ByName.Length == 0)
            shipment.ByName = work.Actor.Name;
        var (before, after) = await Follow.GoodsAsync(work, open.Order!, cancel);
        if (open.Order!.Money == MoneyTrack.NotDue)
            open.Order.Money = MoneyTrack.ToInvoice;
        if (after == GoodsTrack.Shipped)
            open.Order.Late = "";
        await TellCarrierAsync(work, shipment, cancel);
        var told = tells ? await TellAsync(work, open, shipment, cancel) : "";
        work.Leave(
            new ShipmentSent(
                shipment.Number,
                shipment.Carrier,
                shipment.Tracking,
                ShipmentSteps.Names(open.Sheet, shipment),
                ShipmentSteps.Names(
                    open.Sheet,
                    shipment.Lines.ToDictionary(l => l.LineKey, l => asked[l.LineKey] - l.Quantity)
                ),
                told,
                before,
                after
            ),
            open.Subject,
            open.Dossier.Id
        );
    }

    private static Dictionary<long, decimal> Beyond(ShipmentRow shipment, Dictionary<long, decimal> asked) =>
        shipment
            .Lines.Where(l => l.Quantity > asked[l.LineKey])
            .ToDictionary(l => l.LineKey, l => l.Quantity - asked[l.LineKey]);

    private static async Task MustBePickedAsync(Work work, ShipmentRow shipment, bool asAsked, CancellationToken cancel)
    {
        ShipmentSteps.MustBePicked(shipment);
        var ids = shipment.Picks.ConvertAll(p => p.ItemId);
        var items = await work
            .Db.Items.AsNoTracking()
            .Where(i => EF.Parameter(ids).Contains(i.Id))
            .ToDictionaryAsync(i => i.Id, cancel);
        if (asAsked)
            await TakeAsAskedAsync(work, shipment, items, cancel);
        foreach (var pick in shipment.Picks)
        {
            if (pick.Picked > 0m && items[pick.ItemId].HasLots && pick.Lots.Length == 0)
                throw RefusedException.Clash(
                    "lots",
                    $"{items[pick.ItemId].Code} goes by lot: say which it is of, before {shipment.Number} goes."
                );
            if (pick.Picked is not { } picked)
                throw RefusedException.Clash(
                    "not_picked",
                    $"{items[pick.ItemId].Code} is not picked yet: say how much of it is there."
                );
            var serials = pick.Serials.Split(' ', StringSplitOptions.RemoveEmptyEntries).Length;
            if (items[pick.ItemId].HasSerials && serials != picked)
                throw RefusedException.Clash(
                    "serials_missing",
                    FormattableString.Invariant(
                        $"{items[pick.ItemId].Code} goes by number: {picked:0.###} go, {serials} numbers are said."
                    )
                );
        }
    }

    // What nobody looked at is there, of the lot that lies in front.
    private static async Task TakeAsAskedAsync(
        Work work,
        ShipmentRow shipment,
        Dictionary<long, ItemRow> items,
        CancellationToken cancel
    )
    {
        var byLot = items.Values.Where(i => i.HasLots).Select(i => i.Id).ToList();
        var inFront = await work
            .Db.Stock.Where(s =>
                s.Warehouse == shipment.Warehouse && EF.Parameter(byLot).Contains(s.ItemId) && s.Lot != ""
            )
            .ToDictionaryAsync(s => s.ItemId, s => s.Lot, cancel);
        foreach (var pick in shipment.Picks)
        {
            pick.Picked ??= pick.Quantity;
            if (pick.Lots.Length == 0 && inFront.TryGetValue(pick.ItemId, out var lot))
                pick.Lots = Lots.Write([new LotPart(lot, pick.Picked.Value)]);
        }
    }

    // A sales channel is told in its own form, everybody else by a letter with the delivery note, which is kept as it
    // went.
    private async Task<string> TellAsync(Work work, OpenSheet open, ShipmentRow shipment, CancellationToken cancel)
    {
        var goods = (await GoodsBook.OfAsync(work.Db, [shipment.OrderId], work.Today, cancel))[shipment.OrderId];
        var lines = Delivered(shipment, goods);
        var rest = goods.Lines.Any(l => l.SoFar.Gone < l.SoFar.Ordered);
        var pdf = PdfWriter.Write(GoodsPrint.DeliveryNote(open, shipment, lines, seller, work.Today));
        var name = shipment.FileName;
        var print = new PrintRow
        {
            Name = $"{name}.pdf",
            ContentType = "application/pdf",
            Bytes = pdf,
            CreatedAt = work.Now,
        };
        work.Db.Prints.Add(print);
        await work.Db.SaveChangesAsync(cancel);
        shipment.PrintId = print.Id;
        var key = $"{name}.sent".ToLowerInvariant();
        if (open.RequestSyntax == nameof(Syntax.Json))
        {
            var channel = open.Sheet.Channel ?? "";
            var message = ChannelShipment.Write(
                open.Sheet.PoNumber ?? "",
                open.Order!.Number,
                shipment.Number,
                shipment.Carrier,
                shipment.Tracking,
                [.. lines.Select(l => new ChannelShipped(Sku(open, l.Line), l.Delivered))],
                !rest,
                work.Now
            );
            work.Send(Confirming.ByChannel, key, channel, message.Name, message.Bytes);
            return channel;
        }
        var to = open.Buyer.ContactMail ?? "";
        if (!MailWriter.IsAddress(to))
            return "";
        var letter = BuyerLetters.Sent(open, seller, shipment, await FollowAtAsync(work.Db, shipment, cancel), rest);
        Outgoing.Mail(
            work,
            seller,
            key,
            to,
            letter,
            [($"{name}.pdf", pdf), .. await ForCustomsAsync(work, open, shipment, lines, cancel)]
        );
        return to;
    }

    // What leaves the Union takes its papers along.
    private async Task<IReadOnlyList<(string, byte[])>> ForCustomsAsync(
        Work work,
        OpenSheet open,
        ShipmentRow shipment,
        List<DeliveredLine> lines,
        CancellationToken cancel
    )
    {
        if (!ExportPapers.Needed(open.Sheet.Head, open.Buyer))
            return [];
        var items = await ItemsAsync(work.Db, lines, shipment, cancel);
        var name = shipment.FileName;
        return
        [
            (
                $"{name} commercial invoice.pdf",
                PdfWriter.Write(ExportPapers.CommercialInvoice(open, shipment, lines, items, seller))
            ),
            (
                $"{name} packing list.pdf",
                PdfWriter.Write(ExportPapers.PackingList(open, shipment, lines, items, seller))
            ),
        ];
    }

    private static Task<Dictionary<long, ItemRow>> ItemsAsync(
        SolvendaDb db,
        IReadOnlyList<DeliveredLine> lines,
        ShipmentRow shipment,
        CancellationToken cancel
    )
    {
        var ids = shipment
            .Picks.Select(p => p.ItemId)
            .Concat(lines.Select(l => l.Line.Item?.Value ?? 0))
            .Distinct()
            .ToList();
        return db
            .Items.AsNoTracking()
            .Where(i => EF.Parameter(ids).Contains(i.Id))
            .ToDictionaryAsync(i => i.Id, cancel);
    }

    /// <summary>The paper of a shipment for customs: "packing-list" or "commercial-invoice".</summary>
    public async Task<byte[]> CustomsPaperAsync(
        SolvendaDb db,
        OpenSheet open,
        ShipmentRow shipment,
        string paper,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(shipment);
        var goods = (await GoodsBook.OfAsync(db, [shipment.OrderId], today, cancel))[shipment.OrderId];
        var lines = Delivered(shipment, goods);
        var items = await ItemsAsync(db, lines, shipment, cancel);
        return PdfWriter.Write(
            paper == "packing-list"
                ? ExportPapers.PackingList(open, shipment, lines, items, seller)
                : ExportPapers.CommercialInvoice(open, shipment, lines, items, seller)
        );
    }

    private static string Sku(OpenSheet open, SheetLine line) =>
        line.Asked.Code ?? (line.Item is { } id ? open.Book.Find(id)?.Code : null) ?? line.Words;

    private static List<DeliveredLine> Delivered(ShipmentRow shipment, OrderGoods goods) =>
        [
            .. from line in goods.Lines
            let went = shipment.Lines.Find(l => l.LineKey == line.Line.Key)?.Quantity ?? 0m
            where went > 0m
            select new DeliveredLine(
                line.Line,
                went,
                Math.Max(0m, line.SoFar.Ordered - line.SoFar.Gone),
                string.Join(' ', Said(shipment, line, p => p.Serials)),
                string.Join(", ", Said(shipment, line, p => p.Lots))
            ),
        ];

    private static IEnumerable<string> Said(ShipmentRow shipment, GoodsLine line, Func<ShipmentPickRow, string> what) =>
        shipment.Picks.Where(p => p.LineKey == line.Line.Key).Select(what).Where(t => t.Length > 0);

    // A carrier who is told by file, in the form that the house set for them.
    private static async Task TellCarrierAsync(Work work, ShipmentRow shipment, CancellationToken cancel)
    {
        // What was done and not carried is none of theirs.
        if (shipment.Picks.TrueForAll(p => p.Quantity == 0m))
            return;
        if (!await work.Db.Carriers.AnyAsync(c => c.Code == shipment.Carrier && c.Active && c.ByFile, cancel))
            return;
        await work.Db.SaveChangesAsync(cancel);
        var (head, rows) = await CarrierRows.OfAsync(
            work.Db,
            shipment.Carrier,
            s => s.Id == shipment.Id,
            work.Today,
            cancel
        );
        using var file = new MemoryStream();
        await TableWriter.CsvAsync(file, head, rows.ToAsyncEnumerable(), cancel);
        work.Send(ByFile, $"{shipment.FileName}.carrier", shipment.Carrier, $"{shipment.FileName}.csv", file.ToArray());
    }

    /// <summary>Where a shipment is followed; empty for nowhere.</summary>
    public static async Task<string> FollowAtAsync(SolvendaDb db, ShipmentRow shipment, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(shipment);
        if (shipment.Tracking.Length == 0)
            return "";
        var at = await db
            .Carriers.Where(c => c.Code == shipment.Carrier)
            .Select(c => c.FollowAt)
            .FirstOrDefaultAsync(cancel);
        return at?.Replace("{0}", Uri.EscapeDataString(shipment.Tracking), StringComparison.Ordinal) ?? "";
    }
}
