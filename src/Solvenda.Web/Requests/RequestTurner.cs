using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Requests;

/// <summary>Turns a request into a quote or an order in a dossier: nothing is typed again, and what the buyer wrote stays with each line.</summary>
public sealed class RequestTurner(PriceBooks books, Judge judge, SheetLoader loader)
{
    public async Task<Turned> TurnAsync(
        Work work,
        RequestRow request,
        ReadingView reading,
        bool intoOrder,
        CancellationToken cancel
    )
    {
        // A change made into a new order would be the same goods twice.
        if (
            reading.Kind
            is MessageKind.Change
                or MessageKind.Cancellation
                or MessageKind.AnswerToQuote
                or MessageKind.NotForUs
        )
            throw RefusalException.Bad(
                "not_to_turn",
                "It is neither an order nor asks for a price. If it is, say so first: “it is”, at the top.",
                "kind"
            );
        var buyer = reading.BuyerId is { } id
            ? await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
            : null;
        if (buyer is null)
            throw RefusalException.Bad("buyer_unknown", "Who is it from? Pick the buyer first.", "buyer");
        var dossier = await DossierAsync(work, request, reading, buyer, cancel);
        var sheet = DocumentMaker.SheetFor(buyer, work.Today, reading.Currency.Value);
        Head(sheet, reading);
        sheet.Channel = request.Channel;
        await LinesAsync(work, sheet, reading, cancel);
        request.State = RequestState.Turned;
        request.DossierId = dossier.Id;
        request.Version++;
        await foreach (
            var row in work
                .Db.History.Where(h => h.Subject == request.Number && h.DossierId == null)
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
            row.DossierId = dossier.Id;

        Turned turned;
        if (intoOrder)
        {
            var order = await DocumentMaker.OrderAsync(
                work,
                dossier,
                sheet,
                buyer,
                request.Channel == "edi" ? "edi" : "mail",
                cancel
            );
            order.RequestId = request.Id;
            turned = new Turned("order", order.Number);
        }
        else
        {
            var quote = await DocumentMaker.QuoteAsync(work, dossier, sheet, buyer, cancel);
            quote.RequestId = request.Id;
            turned = new Turned("quote", quote.Number);
        }
        work.History(request.Number, dossier.Id, "request.turned", $"became {turned.Number}");
        await work.Db.SaveChangesAsync(cancel);
        await judge.JudgeAsync(work.Db, await loader.BySheetAsync(work.Db, sheet.Id, cancel), cancel);
        return turned;
    }

    private static async Task<DossierRow> DossierAsync(
        Work work,
        RequestRow request,
        ReadingView reading,
        BuyerRow buyer,
        CancellationToken cancel
    )
    {
        var dossier = new DossierRow
        {
            Number = await work.NumberAsync(Series.Dossier, cancel),
            BuyerId = buyer.Id,
            Buyer = buyer,
            Matter =
                reading.Language.Length == 0 && reading.PoNumber.Value is { } po ? $"PO {po}" : Matter(request.Subject),
            CreatedAt = work.Now,
        };
        work.Db.Dossiers.Add(dossier);
        await work.Db.SaveChangesAsync(cancel);
        return dossier;
    }

    private static string Matter(string subject)
    {
        var matter = subject;
        while (
            matter.StartsWith("Re:", StringComparison.OrdinalIgnoreCase)
            || matter.StartsWith("Fw:", StringComparison.OrdinalIgnoreCase)
            || matter.StartsWith("Fwd:", StringComparison.OrdinalIgnoreCase)
        )
            matter = matter[(matter.IndexOf(':', StringComparison.Ordinal) + 1)..].Trim();
        return matter.Length > 120 ? matter[..120] : matter;
    }

    // What they stated goes before what they have by default.
    private static void Head(SheetRow sheet, ReadingView reading)
    {
        sheet.PoNumber = reading.PoNumber.Value;
        if (reading.Wanted.Value is { } wanted)
            sheet.Wanted = DateOnly.ParseExact(wanted, "yyyy-MM-dd", CultureInfo.InvariantCulture);
        sheet.DeliverTo = reading.DeliverTo.Value ?? sheet.DeliverTo;
        sheet.DeliverToCountry = reading.DeliverTo.Value is not null
            ? reading.DeliverToCountry ?? sheet.DeliverToCountry
            : sheet.DeliverToCountry;
        sheet.Note = string.Join("\n", new[] { sheet.Note, reading.Note }.Where(n => n.Length > 0));
        sheet.Incoterm = reading.Incoterm.Value ?? sheet.Incoterm;
        sheet.IncotermPlace = reading.IncotermPlace.Value ?? sheet.IncotermPlace;
        if (reading.PaymentDays.Value is { } days)
            sheet.PaymentDays = int.Parse(days, CultureInfo.InvariantCulture);
        foreach (var charge in reading.Charges)
            sheet.Charges.Add(
                new SheetChargeRow
                {
                    Kind = charge.Kind,
                    Amount = charge.Amount,
                    ByHand = true,
                }
            );
    }

    private async Task LinesAsync(Work work, SheetRow sheet, ReadingView reading, CancellationToken cancel)
    {
        var book = await books.BookAsync(work.Db, cancel);
        foreach (var read in reading.Lines.Where(l => !l.TakenBack))
        {
            var item = read.ItemCode is { } code ? book.FindByCode(code) : null;
            var theirs = UnitTable.FromCode(read.Unit);
            var (unit, quantity) = Ours(item, theirs, read.Quantity ?? 0m);
            sheet.Lines.Add(
                new SheetLineRow
                {
                    Key = sheet.NextKey++,
                    Position = sheet.Lines.Count + 1,
                    Kind = LineKind.Item,
                    ItemId = item?.Id.Value,
                    Words = item?.WordsIn(sheet.Language) ?? read.Words,
                    Quantity = quantity,
                    Unit = unit.Code,
                    Note =
                        read.Wanted.Value is { } wanted && wanted != reading.Wanted.Value
                            ? $"{read.Note}{(read.Note.Length > 0 ? "; " : "")}wanted {wanted}"
                            : read.Note,
                    AskedWords = read.Words,
                    AskedCode = read.TheirCode,
                    AskedQuantity = read.Quantity,
                    AskedUnit = theirs?.Code,
                    // A price with tax is no price to hold against ours, which are without.
                    AskedPrice = read.WithTax ? null : read.Price,
                    AskedPriceBase = read.PriceBase,
                }
            );
        }
    }

    // A unit that the item is sold in stays; another measure (feet) becomes the stock unit by the unit table.
    private static (Unit Unit, decimal Quantity) Ours(Core.Catalogue.Item? item, Unit? theirs, decimal quantity)
    {
        if (item is null || theirs is not { } unit)
            return (theirs ?? Unit.Piece, quantity);
        if (unit == item.StockUnit || item.SalesUnits.Any(u => u.Unit == unit))
            return (unit, quantity);
        return item.Factor(unit) is { } factor ? (item.StockUnit, quantity * factor) : (unit, quantity);
    }
}
