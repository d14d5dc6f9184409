using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Documents;

/// <summary>A line of a frame: what was agreed, called off, and is left.</summary>
/// <param name="Key">Of the line.</param>
/// <param name="Number">As it stands on the sheet.</param>
public sealed record CallOffLine(
    long Key,
    string Number,
    string Words,
    string UnitWord,
    decimal Ordered,
    decimal Called,
    decimal Rest
);

/// <summary>An order that was called off of a frame.</summary>
/// <param name="Release">The buyer's number for it; empty where they gave none.</param>
public sealed record ReleaseView(string Number, string Release, DateOnly? Wanted, TermsTrack Terms, decimal Total);

/// <summary>How a frame stands, or of which frame an order is.</summary>
/// <param name="Frame">Number of the frame.</param>
/// <param name="IsFrame">Whether it is the frame itself; its lines and releases are told then.</param>
public sealed record CallOffView(
    string Frame,
    bool IsFrame,
    IReadOnlyList<CallOffLine> Lines,
    IReadOnlyList<ReleaseView> Releases
)
{
    public static async Task<CallOffView?> OfAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        if (open is not { CallOff: { } of, Order: { } order })
            return null;
        if (order.FrameId is not null)
            return new CallOffView(of.Frame, false, [], []);
        var lines = open.ToDraft().Lines;
        var numbers = LineNumbers.Of(lines);
        var releases = await db
            .Orders.Where(o => o.FrameId == order.Id)
            .OrderBy(o => o.Id)
            .Select(o => new
            {
                o.Number,
                o.Sheet.Head,
                o.Sheet.Wanted,
                o.Terms,
                o.Sheet.TotalWithTaxMinor,
                o.Sheet.Currency,
            })
            .ToListAsync(cancel);
        return new CallOffView(
            of.Frame,
            true,
            [
                .. lines
                    .Where(l => l.Kind == LineKind.Item && l.ClosedWhy.Length == 0)
                    .Select(l => new CallOffLine(
                        l.Key,
                        numbers.GetValueOrDefault(l.Key) ?? "",
                        l.Words,
                        UnitTable.OnSheet(l.Unit),
                        l.Quantity,
                        of.Called.GetValueOrDefault(l.Key),
                        of.RestOf(l.Key)
                    )),
            ],
            releases.ConvertAll(r => new ReleaseView(
                r.Number,
                HeadTerms.Release.In(r.Head) ?? "",
                r.Wanted,
                r.Terms,
                Amount.FromMinor(r.TotalWithTaxMinor, Currency.Of(r.Currency)).Value
            ))
        );
    }
}

/// <summary>Another accepted quote of the buyer, that may go into the same order.</summary>
public sealed record TurnWithView(string Number, string Matter, decimal Total, string Currency)
{
    public static async Task<List<TurnWithView>> OfAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(open);
        if (open.Quote is not { State: QuoteState.Accepted, OrderId: null } quote)
            return [];
        var (buyer, currency) = (open.Buyer.Id, open.Sheet.Currency);
        var others = await db
            .Quotes.Where(q =>
                q.State == QuoteState.Accepted
                && q.OrderId == null
                && q.Id != quote.Id
                && q.Dossier.BuyerId == buyer
                && q.Sheet.Currency == currency
            )
            .OrderBy(q => q.Number)
            .Select(q => new
            {
                q.Number,
                q.Dossier.Matter,
                q.Sheet.TotalWithTaxMinor,
            })
            .ToListAsync(cancel);
        return others.ConvertAll(q => new TurnWithView(
            q.Number,
            q.Matter,
            Amount.FromMinor(q.TotalWithTaxMinor, Core.Money.Currency.Of(currency)).Value,
            currency
        ));
    }
}
