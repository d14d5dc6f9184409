using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Begins documents, with everything copied that the buyer has by default. What has no default stays empty, for a check
/// to name.
/// </summary>
public static class Drafting
{
    /// <summary>Days that a quote holds.</summary>
    public const int ValidDays = 21;

    /// <param name="currency">Null: the buyer's own.</param>
    public static SheetRow SheetFor(BuyerRow buyer, DateOnly today, string? currency)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        var sheet = new SheetRow { Currency = currency ?? buyer.Currency, PricingDate = today };
        sheet.Take(HeadTerms.Of(buyer.ToBuyer()));
        return sheet;
    }

    public static async Task<DossierRow> DossierAsync(
        Work work,
        BuyerRow buyer,
        string matter,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(matter);
        var plain = matter.Trim();
        var dossier = new DossierRow
        {
            Number = await work.NumberAsync(NumberSeries.Dossier, cancel),
            BuyerId = buyer.Id,
            Buyer = buyer,
            Matter = plain[..Math.Min(plain.Length, SheetDoor.MostLetters)],
            CreatedAt = work.Now,
        };
        work.Db.Dossiers.Add(dossier);
        await work.Db.SaveChangesAsync(cancel);
        return dossier;
    }

    public static async Task<QuoteRow> QuoteAsync(
        Work work,
        DossierRow dossier,
        SheetRow sheet,
        RequestRow? request,
        CancellationToken cancel,
        long? seller = null
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(dossier);
        var quote = new QuoteRow
        {
            Number = await work.NumberAsync(NumberSeries.Quote, cancel),
            DossierId = dossier.Id,
            Dossier = dossier,
            Sheet = sheet,
            SellerId = SellerOf(dossier.Buyer, work, seller),
            RequestId = request?.Id,
            State = QuoteState.Drafting,
            ValidUntil = work.Today.AddDays(ValidDays),
            CreatedAt = work.Now,
        };
        work.Db.Quotes.Add(quote);
        work.Leave(new QuoteBegun(Revision.Letter(quote.Revision), request?.Number), quote.Number, dossier.Id);
        return quote;
    }

    public static async Task<OrderRow> OrderAsync(
        Work work,
        DossierRow dossier,
        SheetRow sheet,
        string channel,
        QuoteRow? quote,
        RequestRow? request,
        CancellationToken cancel,
        OrderBegun? begun = null,
        long? seller = null
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(dossier);
        ArgumentNullException.ThrowIfNull(sheet);
        var order = new OrderRow
        {
            Number = await work.NumberAsync(NumberSeries.Order, cancel),
            DossierId = dossier.Id,
            Dossier = dossier,
            Sheet = sheet,
            SellerId = quote?.SellerId ?? SellerOf(dossier.Buyer, work, seller),
            RequestId = request?.Id,
            Channel = channel,
            Kind = OrderKinds.KeptOf(sheet.Head),
            PoKey = PoKey.Of(sheet.PoNumber, HeadTerms.Release.In(sheet.Head)),
            Terms = TermsTrack.Open,
            CreatedAt = work.Now,
        };
        work.Db.Orders.Add(order);
        if (quote is not null)
            quote.Order = order;
        work.Leave(begun ?? new OrderBegun(channel, quote?.Number, request?.Number), order.Number, dossier.Id);
        return order;
    }

    /// <summary>Number of the order that a quote became; refused where it became one.</summary>
    public static async Task MustNotBeTurnedAsync(Work work, QuoteRow quote, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(quote);
        if (quote.State != QuoteState.Accepted)
            throw RefusedException.Clash(
                "quote_state",
                $"Only an accepted quote becomes an order; {quote.Number} is none."
            );
        if (quote.OrderId is { } made)
            throw RefusedException.Clash(
                "order_made",
                $"{quote.Number} became {await work.Db.Orders.Where(o => o.Id == made).Select(o => o.Number).FirstAsync(cancel)} already."
            );
    }

    /// <summary>
    /// A copy for an order of its own, at the prices of today: what was of the earlier order alone does not come along.
    /// </summary>
    public static SheetRow AnewOf(Work work, SheetRow from)
    {
        ArgumentNullException.ThrowIfNull(work);
        var sheet = CopyOf(from, work.Actor.Hand);
        (sheet.PricingDate, sheet.FrozenRate, sheet.Kept, sheet.Stated, sheet.Channel) = (
            work.Today,
            null,
            "",
            "",
            null
        );
        var draft = sheet.ToDraft();
        sheet.Take(
            draft with
            {
                Lines = [.. draft.Lines.Select(l => l with { Wanted = null, From = null, ClosedWhy = "" })],
            }
        );
        return sheet;
    }

    /// <summary>
    /// A copy of a sheet for a new revision or for the order; keys, and what the buyer wrote, go along.
    /// </summary>
    /// <param name="retypedBy">Whose hand everything counts as typed by; null keeps the hands, for an order of what was
    /// accepted.</param>
    public static SheetRow CopyOf(SheetRow from, Hand? retypedBy)
    {
        ArgumentNullException.ThrowIfNull(from);
        var copy = new SheetRow
        {
            Currency = from.Currency,
            PricingDate = from.PricingDate,
            FrozenRate = from.FrozenRate,
            Channel = from.Channel,
            Stated = from.Stated,
            Kept = KeptLines.OfLinesOnly(from.Kept),
        };
        var draft = from.ToDraft();
        copy.Take(retypedBy is null ? draft : Retyped(draft, retypedBy));
        return copy;
    }

    private static Draft Retyped(Draft draft, Hand hand) =>
        draft with
        {
            Head = draft
                .Head.All.Where(t => t.Value.By is not null)
                .Aggregate(draft.Head, (head, term) => head.With(term.Key, term.Value.Text, hand)),
            Lines =
            [
                .. draft
                    .Lines.Select(l => l with { Taken = null, CostBy = l.Cost is null ? null : hand })
                    .Select(l =>
                        l.ByHand.Kind == ByHandKind.None
                            ? l
                            : l with
                            {
                                ByHand = l.ByHand with { By = hand },
                                AlsoBy = [],
                            }
                    ),
            ],
        };

    // The buyer's account manager follows it up, whoever typed it; without one whoever is named for it, or typed it.
    // Authority is never theirs for it.
    private static long SellerOf(BuyerRow buyer, Work work, long? named) =>
        buyer.AccountManagerId
        ?? named
        ?? work.Actor.PersonId
        ?? throw RefusedException.Bad(
            "seller_missing",
            $"{buyer.Name} has no account manager, and nobody is signed in."
        );
}
