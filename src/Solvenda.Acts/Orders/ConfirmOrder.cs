using System.Collections.Immutable;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Confirms an order: commits the stock, fixes dates and prices, and acknowledges to the buyer the way their documents
/// go.
/// </summary>
/// <param name="Seen">Version of the sheet.</param>
public sealed record ConfirmOrder(string Order, long? Seen) : IAct<DocumentRef>;

[Leaves(typeof(OrderConfirmed))]
public sealed class ConfirmOrderAct(SheetLoader loader, Judge judge, Seller seller) : Act<ConfirmOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, ConfirmOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (Tracks.TermsTable.After(order.Terms, OrderDoing.Confirm) is not { } confirmed)
            throw RefusedException.Clash(
                "sheet_closed",
                order.Terms == TermsTrack.Held ? $"It is held: {order.HeldWhy}" : "It is confirmed already."
            );
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel);
        var judged = await judge.JudgeAsync(work.Db, open, work.Actor.Hand, cancel);
        if (judged.Stops.FirstOrDefault() is { } stop)
            throw RefusedException.Clash("stopped", stop.Words);
        open.Sheet.Keep(judged.Priced);
        open.Sheet.Kept = KeptLines.Write(judged.Priced);
        foreach (var line in judged.Priced.Sold.Where(l => !l.Line.Optional))
            Commit(work, open, judged, line);
        var before = order.Terms;
        (order.Terms, order.ConfirmedAt, order.Stops, order.FirstStop) = (confirmed, work.Now, 0, "");
        open.Sheet.Version++;
        var (by, to) = await AcknowledgeAsync(work, judged, cancel);
        var total = judged.Priced.Tally.TotalWithTax;
        work.Leave(
            new OrderConfirmed(by, to, total.Value, total.Currency.Code, before, confirmed),
            open.Subject,
            open.Dossier.Id
        );
        return open.Ref;
    }

    private static void Commit(Work work, OpenSheet open, Judged judged, PricedLine line)
    {
        if (!judged.Facts.Stock.TryGetValue(line.Line.Key, out var stock))
            return;
        open.Sheet.Lines.First(l => l.Key == line.Line.Key).Promised = stock.Promise?.Arrives;
        foreach (var need in stock.Needs)
        {
            var parts = stock.Parts.IsEmpty
                ? [(stock.Promise?.Taken ?? work.Today, need.Quantity)]
                : stock.Parts.Select(p => (p.Promise.Taken, p.Quantity)).ToList();
            foreach (var (day, quantity) in parts)
                work.Db.Commitments.Add(
                    new CommitmentRow
                    {
                        OrderId = open.Order!.Id,
                        LineKey = line.Line.Key,
                        ItemId = need.Item.Value,
                        Warehouse = HeadTerms.ShipFrom.In(open.Sheet.Head)!,
                        Day = day,
                        Quantity = quantity,
                    }
                );
        }
    }

    // By which way it went, and to whom.
    private async Task<(string By, string To)> AcknowledgeAsync(Work work, Judged judged, CancellationToken cancel)
    {
        var open = judged.Open;
        var key = $"{open.Order!.Number}.acknowledgement".ToLowerInvariant();
        if (await InTheirFormAsync(work, judged, cancel) is { } written)
        {
            work.Send(DocumentsBy.Edi, key, written.To, written.Name, written.Bytes);
            return (DocumentsBy.Edi, written.To);
        }
        var letter = BuyerLetters.Acknowledgement(open, seller);
        if (HeadTerms.By.In(open.Sheet.Head) == DocumentsBy.Paper)
        {
            var address = open.Buyer.Address;
            Outgoing.Addressed(DocumentsBy.Paper, address);
            var printed = SheetPrint.Letter(open, address, letter.Text);
            Outgoing.Post(work, key, address, SheetPrint.Acknowledgement(judged, seller, work.Today, printed));
            return (DocumentsBy.Paper, address);
        }
        var to = open.Buyer.ContactMail ?? "";
        Outgoing.Addressed(DocumentsBy.Mail, to);
        var pdf = SheetPrint.Acknowledgement(judged, seller, work.Today);
        Outgoing.Mail(work, seller, key, to, letter, ($"{letter.Subject}.pdf", pdf));
        return (DocumentsBy.Mail, to);
    }

    private static async Task<WrittenMessage?> InTheirFormAsync(Work work, Judged judged, CancellationToken cancel)
    {
        var open = judged.Open;
        if (
            HeadTerms.By.In(open.Sheet.Head) != DocumentsBy.Edi
            || Writers.OrderAnswer(open.RequestSyntax) is not { } writer
        )
            return null;
        var original = await work
            .Db.Requests.Where(r => r.Id == open.Order!.RequestId)
            .Select(r => r.Raw.Bytes)
            .FirstAsync(cancel);
        var control = await Series.NextCountInTransactionAsync(work.Db, Series.Interchange, 0, cancel);
        return writer.Write(
            new ConfirmedOrder(
                open.Order!.Number,
                open.Sheet.PoNumber ?? "",
                open.Sheet.Currency,
                [
                    .. judged.Priced.Sold.Select(l => new ConfirmedOrderLine(
                        l,
                        judged.Facts.Stock.GetValueOrDefault(l.Line.Key)?.Promise?.Ready
                    )),
                ]
            ),
            Encoding.Latin1.GetString(original),
            control,
            work.Now
        );
    }
}
