using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Data;

namespace Solvenda.Web.Orders;

/// <summary>A day, and what is promised for it.</summary>
/// <param name="Lines">Numbers of the lines as they stand on the sheet; all: every line.</param>
public sealed record PromisedDay(DateOnly Day, IReadOnlyList<string> Lines);

/// <summary>What will happen when an order is confirmed, said before it happens.</summary>
/// <param name="Sends">How the buyer is told, and where.</param>
/// <param name="Stock">What is taken from the shelf, or bought or made for it.</param>
/// <param name="Promised">What the buyer is promised, the earliest day first; not what went.</param>
/// <param name="NoDay">Lines without a date, since nothing of them is kept in stock.</param>
/// <param name="Changed">What is otherwise than it was confirmed before; empty the first time.</param>
/// <param name="Knows">Notices, and what was let pass.</param>
public sealed record ConfirmingView(
    string Sends,
    IReadOnlyList<string> Stock,
    IReadOnlyList<PromisedDay> Promised,
    IReadOnlyList<string> NoDay,
    IReadOnlyList<string> Changed,
    IReadOnlyList<string> Knows
)
{
    public static async Task<ConfirmingView> OfAsync(
        string number,
        Actor me,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(loader);
        ArgumentNullException.ThrowIfNull(judge);
        ArgumentNullException.ThrowIfNull(me);
        var open = await loader.OrderAsync(db, number, cancel);
        if (Tracks.TermsTable.After(open.Order!.Terms, OrderDoing.Confirm) is null)
            throw RefusedException.Clash("sheet_closed", "It is confirmed or cancelled already.");
        var judged = await judge.JudgeAsync(db, open, me.Hand, cancel);
        var numbers = LineNumbers.Of(judged.Priced.Sheet.Lines);
        var counting = judged.Priced.Sold.Where(l => l.Counts && !judged.Facts.Gone.Contains(l.Line.Key)).ToList();
        var (by, to, way) = Confirming.WayOf(open);
        var isFrame = judged.Priced.Sheet.Kind.IsFrame;
        var days = counting
            .Select(l => (Line: numbers.GetValueOrDefault(l.Line.Key) ?? "", At: Arrives(judged, l)))
            .ToList();
        return new ConfirmingView(
            $"{(open.Before is null ? "The acknowledgement" : "What changed, with the new acknowledgement,")} goes {way}, by {by}, to {(to.Length > 0 ? to : "nobody: there is no address")}.",
            isFrame
                ? ["Nothing is taken from stock until a part of it is called off."]
                : [.. StockOf(judged, counting)],
            [
                .. days.Where(d => d.At is not null)
                    .GroupBy(d => d.At!.Value)
                    .OrderBy(g => g.Key)
                    .Select(g => new PromisedDay(g.Key, [.. g.Select(d => d.Line)])),
            ],
            isFrame ? [] : [.. days.Where(d => d.At is null).Select(d => d.Line)],
            [.. Confirming.Changes(judged)],
            [
                .. judged
                    .Findings.Where(f => f.Outcome == Outcome.Notice && Judged.IsSeenBy(f, me))
                    .Select(f => f.Waived is { } w ? $"{f.Words} {w.Who} let it pass." : f.Words),
            ]
        );
    }

    private static DateOnly? Arrives(Judged judged, PricedLine line) =>
        judged.Facts.Stock.GetValueOrDefault(line.Line.Key)?.Promise?.Arrives;

    private static IEnumerable<string> StockOf(Judged judged, List<PricedLine> counting)
    {
        var stocked = counting
            .Select(l => (Line: l, Stock: judged.Facts.Stock.GetValueOrDefault(l.Line.Key)))
            .Where(l => l.Stock?.Promise is not null)
            .ToList();
        foreach (
            var house in stocked
                .Where(l => l.Stock!.Promise!.FromStock)
                .GroupBy(l => StockFacts.WarehouseOf(judged.Open, l.Line.Line))
        )
            yield return $"{Lines(house.Count())} taken from the stock of {house.Key}.";
        foreach (var made in stocked.Where(l => !l.Stock!.Promise!.FromStock))
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"{made.Line.Item!.Code} has to be bought or made: ready on {made.Stock!.Promise!.Ready:d MMM}."
            );
    }

    private static string Lines(int count) => count == 1 ? "1 line is" : $"{count} lines are";
}
