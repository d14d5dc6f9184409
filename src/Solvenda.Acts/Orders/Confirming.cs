using System.Collections.Immutable;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Receipts;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Orders;

/// <summary>
/// What confirming does, whoever may: the stock is committed, prices and dates are fixed, and the buyer is told the way
/// their documents go.
/// </summary>
public sealed class Confirming(Seller seller)
{
    /// <summary>How what a sales channel is told goes out.</summary>
    public const string ByChannel = "channel";

    /// <summary>Confirms an order as it was judged; whether it may be is told before.</summary>
    /// <param name="ahead">The acknowledgement where it was printed ahead.</param>
    public async Task ConfirmAsync(Work work, Judged judged, Printed? ahead, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        var order = open.Order!;
        open.Sheet.Keep(judged.Priced);
        open.Sheet.Kept = KeptLines.Write(judged.Priced);
        // What an earlier confirmation took is taken anew, but for what went and what is being picked.
        await OrderSteps.FreeAsync(work, order, null, cancel);
        foreach (var line in open.Sheet.Lines.Where(l => !judged.Facts.Gone.Contains(l.Key)))
            line.Promised = null;
        foreach (var line in judged.Priced.Sold.Where(l => l.Counts))
            Commit(work, open, judged, line);
        await KeepPaidAsync(work, open, cancel);
        var changed = Changes(judged);
        var (by, to) = await AcknowledgeAsync(work, judged, ahead, cancel);
        var before = OrderVersions.Confirmed(work, order);
        OrderSteps.NothingStops(order);
        order.Late = "";
        open.Sheet.Version++;
        if (open.Begun is not null)
        {
            await Follow.GoodsAsync(work, order, cancel);
            await Follow.MoneyAsync(work, order, cancel);
        }
        var total = judged.Priced.Tally.TotalWithTax;
        work.Leave(
            new OrderConfirmed(by, to, total.Value, total.Currency.Code, before, order.Terms) { Changed = changed },
            open.Subject,
            open.Dossier.Id
        );
    }

    // What was paid on a channel counts against what is owed as soon as the order does.
    private async Task KeepPaidAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        if (open.Sheet.ToStated().OnChannel is not { Total: var paid })
            return;
        var reference = $"{open.Sheet.Channel} {open.Sheet.PoNumber}";
        if (await work.Db.Deposits.AnyAsync(d => d.OrderId == open.Order!.Id && d.Reference == reference, cancel))
            return;
        var deposit = new DepositRow
        {
            OrderId = open.Order!.Id,
            Minor = Core.Money.Amount.Round(paid, Core.Money.Currency.Of(open.Sheet.Currency)).Minor,
            ReceivedOn = work.Today,
            Reference = reference,
            By = open.Sheet.Channel ?? "",
        };
        work.Db.Deposits.Add(deposit);
        await HeldMoney.BookAsync(work, open, deposit, Core.Ledger.AccountUse.AtChannels, seller, cancel);
        work.Leave(new DepositNoted(paid, open.Sheet.Currency, work.Today, reference), open.Subject, open.Dossier.Id);
    }

    /// <summary>The acknowledgement, printed; null where it goes in the buyer's own form.</summary>
    public Printed? Print(Judged judged, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(judged);
        return Writer(judged.Open) is null ? Printed.Of(Paper(judged, today)) : null;
    }

    /// <summary>What is otherwise than when it was confirmed before, in words; empty the first time.</summary>
    public static ImmutableArray<string> Changes(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        return open.Before is { } before
            ? Differences.Between(
                before.Priced(open.Buyer, open.Book),
                before.Head,
                judged.Priced,
                open.Sheet.Head,
                Differences.Confirmed
            )
            : [];
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
                        Warehouse = StockFacts.WarehouseOf(open, line.Line),
                        Day = day,
                        Quantity = quantity,
                    }
                );
        }
    }

    // By which way it went, and to whom.
    private async Task<(string By, string To)> AcknowledgeAsync(
        Work work,
        Judged judged,
        Printed? ahead,
        CancellationToken cancel
    )
    {
        var open = judged.Open;
        var again = open.Order!.Confirmed > 0 ? $".{open.Order.Confirmed + 1}" : "";
        var key = $"{open.Order.Number}.acknowledgement{again}".ToLowerInvariant();
        if (Writer(open) is { } writer && await InTheirFormAsync(work, judged, writer, cancel) is { } written)
        {
            var by = CameByChannel(open) ? ByChannel : DocumentsBy.Edi;
            var to = by == ByChannel ? open.Sheet.Channel ?? written.To : written.To;
            var sent = work.Send(by, key, to, written.Name, written.Bytes);
            await ReceiptSteps.AwaitAsync(work, sent, written.Control, open.Buyer.Id, cancel);
            return (by, to);
        }
        var document = Paper(judged, work.Today);
        var pdf = ahead is null ? PdfWriter.Write(document) : ahead.For(document);
        if (GoesOnPaper(open))
        {
            Outgoing.Addressed(DocumentsBy.Paper, open.Buyer.Address);
            Outgoing.Post(work, key, open.Buyer.Address, pdf);
            return (DocumentsBy.Paper, open.Buyer.Address);
        }
        var mail = open.Buyer.ContactMail ?? "";
        var letter = Letter(judged);
        Outgoing.Addressed(DocumentsBy.Mail, mail);
        Outgoing.Mail(work, seller, key, mail, letter, ($"{letter.Subject}.pdf", pdf));
        return (DocumentsBy.Mail, mail);
    }

    private static bool GoesOnPaper(OpenSheet open) => HeadTerms.By.In(open.Sheet.Head) == DocumentsBy.Paper;

    private PrintedDocument Paper(Judged judged, DateOnly today)
    {
        var open = judged.Open;
        var letter = GoesOnPaper(open) ? SheetPrint.Letter(open, open.Buyer.Address, Letter(judged).Text) : null;
        return SheetPrint.Acknowledgement(judged, seller, today, letter);
    }

    // The first time it is an acknowledgement, later what is otherwise.
    private BuyerLetter Letter(Judged judged)
    {
        var open = judged.Open;
        return open.Before is { } before
            ? BuyerLetters.Change(
                open,
                seller,
                Comparison.Of(
                    Side.Of(before.Priced(open.Buyer, open.Book), before.Head),
                    Side.Of(judged.Priced, open.Sheet.Head),
                    byKey: true
                )
            )
            : BuyerLetters.Acknowledgement(open, seller);
    }

    /// <summary>By which way it goes, and to whom; what it goes as.</summary>
    public static (string By, string To, string As) WayOf(OpenSheet open)
    {
        ArgumentNullException.ThrowIfNull(open);
        if (Writer(open) is not null)
            return CameByChannel(open)
                ? (ByChannel, open.Sheet.Channel ?? open.Buyer.Name, "as the channel takes it")
                : (DocumentsBy.Edi, open.Buyer.Name, "in the form in which the order came");
        return GoesOnPaper(open)
            ? (DocumentsBy.Paper, open.Buyer.Address, "printed with a letter, to be posted")
            : (DocumentsBy.Mail, open.Buyer.ContactMail ?? "", "as a PDF with a letter");
    }

    /// <summary>Whether a sales channel brought it, which is told in its own form.</summary>
    internal static bool CameByChannel(OpenSheet open) => open.RequestSyntax == nameof(Syntax.Json);

    // What may write it in the form in which the order came; null where it goes as a document for people.
    private static IOrderAnswer? Writer(OpenSheet open) =>
        CameByChannel(open) || HeadTerms.By.In(open.Sheet.Head) == DocumentsBy.Edi
            ? Writers.OrderAnswer(open.RequestSyntax)
            : null;

    // As it was confirmed before. Days are compared as they were told: when it arrives.
    private static ImmutableArray<ConfirmedOrderLine> Before(OpenSheet open, Judged judged)
    {
        if (open.Before is not { } before)
            return [];
        var days = before.Lines.ToDictionary(l => l.Key, l => l.Promised);
        DateOnly? Ready(PricedLine line) =>
            judged.Facts.Stock.GetValueOrDefault(line.Line.Key)?.Promise is { } promise
            && days.GetValueOrDefault(line.Line.Key) == promise.Arrives
                ? promise.Ready
                : days.GetValueOrDefault(line.Line.Key);
        return [.. before.Priced(open.Buyer, open.Book).Sold.Select(l => new ConfirmedOrderLine(l, Ready(l)))];
    }

    // When it is ready; of what went as it was promised.
    private static DateOnly? Ready(Judged judged, long line) =>
        judged.Facts.Gone.Contains(line)
            ? judged.Open.Sheet.Lines.First(l => l.Key == line).Promised
            : judged.Facts.Stock.GetValueOrDefault(line)?.Promise?.Ready;

    private static async Task<WrittenMessage?> InTheirFormAsync(
        Work work,
        Judged judged,
        IOrderAnswer writer,
        CancellationToken cancel
    )
    {
        var open = judged.Open;
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
                    .. judged
                        .Priced.Sold.Where(l => l.Line.ClosedWhy.Length == 0)
                        .Select(l => new ConfirmedOrderLine(l, Ready(judged, l.Line.Key))),
                ]
            )
            {
                Version = open.Order.Confirmed,
                Before = Before(open, judged),
            },
            Encoding.Latin1.GetString(original),
            control,
            work.Now
        );
    }
}
