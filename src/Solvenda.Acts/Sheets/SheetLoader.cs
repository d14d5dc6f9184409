using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>Loads open sheets; the context tracks them where an act means to change them.</summary>
public sealed class SheetLoader(PriceBooks books, HouseBooks houses, LinesAtHand lines, HouseClock clock, Seller seller)
{
    public async Task<OpenSheet> BySheetAsync(SolvendaDb db, long sheetId, CancellationToken cancel)
    {
        var quote = await Quotes(db).FirstOrDefaultAsync(q => q.SheetId == sheetId, cancel);
        var order = quote is null ? await Orders(db).FirstOrDefaultAsync(o => o.SheetId == sheetId, cancel) : null;
        return await OpenAsync(db, quote, order, cancel);
    }

    /// <param name="revision">Null: the newest.</param>
    public async Task<OpenSheet> QuoteAsync(SolvendaDb db, string number, int? revision, CancellationToken cancel)
    {
        var quote = await Quotes(db)
            .Where(q => q.Number == number && (revision == null || q.Revision == revision))
            .OrderByDescending(q => q.Revision)
            .FirstOrDefaultAsync(cancel);
        return await OpenAsync(db, quote, null, cancel);
    }

    public async Task<OpenSheet> OrderAsync(SolvendaDb db, string number, CancellationToken cancel) =>
        await OpenAsync(db, null, await Orders(db).FirstOrDefaultAsync(o => o.Number == number, cancel), cancel);

    /// <summary>An order as it was confirmed before a change, to be looked at.</summary>
    public async Task<OpenSheet> VersionAsync(SolvendaDb db, string number, int version, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var now = await OrderAsync(db, number, cancel);
        var order = now.Order!;
        var sheet =
            await db
                .OrderVersions.AsNoTracking()
                .Where(v => v.OrderId == order.Id && v.No == version)
                .Include(v => v.Sheet.StoredLines)
                .Select(v => v.Sheet)
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such version");
        return now.With(sheet);
    }

    /// <summary>A quote or an order, whichever it is.</summary>
    public Task<OpenSheet> DocumentAsync(SolvendaDb db, Core.Documents.DocumentRef document, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(document);
        return document.Kind == "order"
            ? OrderAsync(db, document.Number, cancel)
            : QuoteAsync(db, document.Number, null, cancel);
    }

    private static IQueryable<QuoteRow> Quotes(SolvendaDb db) =>
        db.Quotes.Include(q => q.Dossier.Buyer).Include(q => q.Sheet);

    private static IQueryable<OrderRow> Orders(SolvendaDb db) =>
        db.Orders.Include(o => o.Dossier.Buyer).Include(o => o.Sheet);

    private async Task LinesAsync(SolvendaDb db, SheetRow sheet, CancellationToken cancel)
    {
        if (sheet.Lines.Count == 0 && lines.Of(sheet) is { } atHand)
            sheet.Have(atHand);
        else
            await db.Entry(sheet).Collection(s => s.StoredLines).LoadAsync(cancel);
    }

    /// <summary>A document that is not there: to see what a request would become. Nothing of it is stored.</summary>
    /// <param name="whose">Who would have it.</param>
    public async Task<OpenSheet> ThoughtOfAsync(
        SolvendaDb db,
        SheetRow sheet,
        BuyerRow buyer,
        RequestRow request,
        long whose,
        bool isOrder,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(request);
        var dossier = new DossierRow
        {
            Number = request.Number,
            BuyerId = buyer.Id,
            Buyer = buyer,
        };
        var now = clock.UtcNow;
        return new OpenSheet
        {
            Sheet = sheet,
            Quote = isOrder
                ? null
                : new QuoteRow
                {
                    Number = request.Number,
                    Dossier = dossier,
                    Sheet = sheet,
                    SellerId = whose,
                    ValidUntil = clock.Today.AddDays(Drafting.ValidDays),
                    CreatedAt = now,
                },
            Order = isOrder
                ? new OrderRow
                {
                    Number = request.Number,
                    Dossier = dossier,
                    Sheet = sheet,
                    SellerId = whose,
                    RequestId = request.Id,
                    Channel = request.Channel,
                    PoKey = PoKey.Of(sheet.PoNumber, HeadTerms.Release.In(sheet.Head)),
                    CreatedAt = now,
                }
                : null,
            Dossier = dossier,
            Places = await PlacesAsync(db, buyer, cancel),
            Incoterms = seller.SellsBy,
            Book = await books.BookAsync(db, cancel),
            House = await houses.OnAsync(db, clock.Today, cancel),
            Asks = [],
            Waivers = [],
            RequestSyntax = request.Syntax,
        };
    }

    private async Task<OpenSheet> OpenAsync(SolvendaDb db, QuoteRow? quote, OrderRow? order, CancellationToken cancel)
    {
        if (quote is null && order is null)
            throw RefusedException.NotFound("such quote or order");
        var sheet = quote?.Sheet ?? order!.Sheet;
        var dossier = quote?.Dossier ?? order!.Dossier;
        await LinesAsync(db, sheet, cancel);
        var (froms, accepted, callOff) = order is null ? ([], null, null) : await FromsAsync(db, order, sheet, cancel);
        var asked = froms.Select(f => f.Id).Append(sheet.Id).ToList();
        var house = await houses.OnAsync(db, clock.Today, cancel);
        return new OpenSheet
        {
            Sheet = sheet,
            Quote = quote,
            Order = order,
            Dossier = dossier,
            Places = await PlacesAsync(db, dossier.Buyer, cancel),
            Incoterms = seller.SellsBy,
            Book = await books.BookAsync(db, cancel),
            House = house,
            CallOff = callOff,
            // The grants of what it was made from hold for an order, as long as nothing got worse.
            Asks = await db
                .Asks.Include(a => a.Holders)
                .Where(a => a.SheetId != null && EF.Parameter(asked).Contains(a.SheetId.Value))
                .OrderBy(a => a.Id)
                .ToListAsync(cancel),
            Waivers = order is null
                ? []
                : await db
                    .Waivers.AsNoTracking()
                    .Where(w => w.OrderId == order.Id)
                    .OrderBy(w => w.Id)
                    .ToListAsync(cancel),
            Accepted = accepted,
            Begun = await BegunAsync(db, order, cancel),
            Before = order is { ConfirmedAt: not null, Terms: TermsTrack.Open }
                ? await db
                    .OrderVersions.AsNoTracking()
                    .Where(v => v.OrderId == order.Id && v.No == order.Confirmed)
                    .Include(v => v.Sheet.StoredLines)
                    .Select(v => v.Sheet)
                    .FirstOrDefaultAsync(cancel)
                : null,
            RequestSyntax = order?.RequestId is { } request
                ? await db.Requests.Where(r => r.Id == request).Select(r => r.Syntax).FirstAsync(cancel)
                : "",
        };
    }

    private static async Task<Begun?> BegunAsync(SolvendaDb db, OrderRow? order, CancellationToken cancel)
    {
        if (order is null or { Goods: GoodsTrack.Waiting, Money: MoneyTrack.NotDue })
            return null;
        var went = await (
            from l in db.Set<ShipmentLineRow>()
            join s in db.Shipments on l.ShipmentId equals s.Id
            where s.OrderId == order.Id && s.State != ShipmentState.Dropped && l.Quantity > 0m
            select new
            {
                l.LineKey,
                l.Quantity,
                IsBilled = s.Invoice != "",
            }
        ).ToListAsync(cancel);
        return new Begun(
            went.GroupBy(l => l.LineKey)
                .ToImmutableDictionary(g => g.Key, g => new BegunLine(g.Sum(l => l.Quantity), g.Any(l => l.IsBilled))),
            await db.InvoiceParts.AnyAsync(p => p.OrderId == order.Id && p.Invoice.Kind == BillKind.Invoice, cancel)
        );
    }

    // The sheets that an order was made from; what the buyer accepted or agreed to in them, as it stands for this
    // order; and how it stands to its frame.
    private static async Task<(List<SheetRow> Froms, SheetRow? Accepted, CallOff? CallOff)> FromsAsync(
        SolvendaDb db,
        OrderRow order,
        SheetRow sheet,
        CancellationToken cancel
    )
    {
        if (order.FrameId is { } frameId)
        {
            var frame = await db
                .Orders.AsNoTracking()
                .Where(o => o.Id == frameId)
                .Include(o => o.Sheet.StoredLines)
                .Select(o => o.Sheet)
                .FirstAsync(cancel);
            var left = await CallOffs.OfAsync(db, order, frame, cancel);
            return ([frame], Origins.Agreed(sheet, frame, left!), left);
        }
        var froms = await db
            .Quotes.AsNoTracking()
            .Where(q => q.OrderId == order.Id)
            .OrderBy(q => q.Id)
            .Include(q => q.Sheet.StoredLines)
            .Select(q => q.Sheet)
            .ToListAsync(cancel);
        var of = OrderKind.In(sheet.Head).IsFrame ? await CallOffs.OfAsync(db, order, sheet, cancel) : null;
        return froms switch
        {
            [] => ([], null, of),
            [var only] => (froms, only, of),
            _ => (froms, Origins.Accepted(sheet, froms), of),
        };
    }

    /// <summary>The buyer's own address where goods go by default, and the others on file.</summary>
    public static async Task<ImmutableArray<BuyerPlace>> PlacesAsync(
        SolvendaDb db,
        BuyerRow buyer,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(buyer);
        var others = await db
            .Addresses.AsNoTracking()
            .Where(a => a.BuyerId == buyer.Id && a.Active)
            .OrderBy(a => a.Code)
            .Select(a => new BuyerPlace(a.Code, a.Use, a.Words, a.Country, a.ReceivingDays))
            .ToListAsync(cancel);
        var own = new List<BuyerPlace>();
        if (!string.IsNullOrEmpty(buyer.DeliverTo))
            own.Add(new BuyerPlace("own", "deliver-to", buyer.DeliverTo, buyer.DeliverToCountry ?? buyer.Country));
        if (buyer.BillTo is { Length: > 0 } billTo)
            own.Add(new BuyerPlace("own", "bill-to", billTo, buyer.Country));
        if (buyer.Address.Length > 0 && buyer.Address != buyer.DeliverTo)
            own.Add(new BuyerPlace("office", "deliver-to", buyer.Address, buyer.Country));
        return [.. own, .. others];
    }
}
