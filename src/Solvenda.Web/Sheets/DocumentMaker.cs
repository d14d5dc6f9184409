using Solvenda.Core.Ordering;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Sheets;

/// <summary>Makes new documents, with everything copied that the buyer has by default. What has no default stays empty, for a check to name.</summary>
public static class DocumentMaker
{
    /// <summary>Days that a quote holds.</summary>
    public const int ValidDays = 21;

    public static SheetRow SheetFor(BuyerRow buyer, DateOnly today, string? currency)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        return new SheetRow
        {
            Currency = currency ?? buyer.Currency,
            PricingDate = today,
            DeliverTo = buyer.DeliverTo,
            DeliverToCountry = buyer.DeliverToCountry,
            Incoterm = buyer.Incoterm,
            IncotermPlace = buyer.IncotermPlace,
            PaymentDays = buyer.PaymentDays,
            ShipFrom = buyer.ShipFrom,
            BillTo = buyer.BillTo,
            Note = buyer.PrintedNote,
            ShippingRule = buyer.ShippingRule,
            Language = buyer.Language,
            DocumentsBy = buyer.DocumentsBy,
        };
    }

    public static async Task<QuoteRow> QuoteAsync(
        Work work,
        DossierRow dossier,
        SheetRow sheet,
        BuyerRow buyer,
        CancellationToken cancel
    )
    {
        var quote = new QuoteRow
        {
            Number = await work.NumberAsync(Series.Quote, cancel),
            DossierId = dossier.Id,
            Dossier = dossier,
            Sheet = sheet,
            SellerId = SellerOf(buyer, work),
            State = QuoteState.Drafting,
            ValidUntil = work.Today.AddDays(ValidDays),
            CreatedAt = work.Now,
        };
        work.Db.Quotes.Add(quote);
        work.History(quote.Number, dossier.Id, "quote.created", "A begun");
        return quote;
    }

    public static async Task<OrderRow> OrderAsync(
        Work work,
        DossierRow dossier,
        SheetRow sheet,
        BuyerRow buyer,
        string channel,
        CancellationToken cancel
    )
    {
        var order = new OrderRow
        {
            Number = await work.NumberAsync(Series.Order, cancel),
            DossierId = dossier.Id,
            Dossier = dossier,
            Sheet = sheet,
            SellerId = SellerOf(buyer, work),
            Channel = channel,
            PoKey = sheet.PoNumber is { } po ? PoKey.Of(po) : "",
            Terms = TermsTrack.Open,
            CreatedAt = work.Now,
        };
        work.Db.Orders.Add(order);
        work.History(order.Number, dossier.Id, "order.created", "order made");
        return order;
    }

    /// <summary>A copy of a sheet for a new revision or for the order; keys and what the buyer wrote go along.</summary>
    public static SheetRow CopyOf(SheetRow from)
    {
        ArgumentNullException.ThrowIfNull(from);
        return new SheetRow
        {
            Currency = from.Currency,
            PricingDate = from.PricingDate,
            DeliverTo = from.DeliverTo,
            DeliverToCountry = from.DeliverToCountry,
            Incoterm = from.Incoterm,
            IncotermPlace = from.IncotermPlace,
            PaymentDays = from.PaymentDays,
            ShipFrom = from.ShipFrom,
            BillTo = from.BillTo,
            ShippingRule = from.ShippingRule,
            Language = from.Language,
            DocumentsBy = from.DocumentsBy,
            Wanted = from.Wanted,
            PoNumber = from.PoNumber,
            Note = from.Note,
            DiscountPercent = from.DiscountPercent,
            DiscountAmount = from.DiscountAmount,
            FrozenRate = from.FrozenRate,
            Channel = from.Channel,
            FreightService = from.FreightService,
            Kept = KeptLines.OfLinesOnly(from.Kept),
            NextKey = from.NextKey,
            Lines =
            [
                .. from.Lines.Select(l => new SheetLineRow
                {
                    Key = l.Key,
                    Position = l.Position,
                    Kind = l.Kind,
                    ItemId = l.ItemId,
                    Words = l.Words,
                    Quantity = l.Quantity,
                    Unit = l.Unit,
                    HandKind = l.HandKind,
                    HandValue = l.HandValue,
                    HandWho = l.HandWho,
                    Optional = l.Optional,
                    Note = l.Note,
                    AskedWords = l.AskedWords,
                    AskedCode = l.AskedCode,
                    AskedQuantity = l.AskedQuantity,
                    AskedUnit = l.AskedUnit,
                    AskedPrice = l.AskedPrice,
                    AskedPriceBase = l.AskedPriceBase,
                }),
            ],
            Charges =
            [
                .. from.Charges.Select(c => new SheetChargeRow
                {
                    Kind = c.Kind,
                    Amount = c.Amount,
                    ByHand = c.ByHand,
                }),
            ],
        };
    }

    // The buyer's account manager sells, whoever typed it; without one it is whoever typed it.
    private static long SellerOf(BuyerRow buyer, Work work) =>
        buyer.AccountManagerId
        ?? work.Actor.PersonId
        ?? throw RefusalException.Bad(
            "seller_missing",
            $"{buyer.Name} has no account manager, and nobody is signed in."
        );
}
