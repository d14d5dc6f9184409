using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Closing;

/// <summary>
/// Closes lines of a confirmed order short, with the reason: what is left of them is not delivered, their stock is
/// free, and the buyer is told what is otherwise. What went of a line, or is being picked, stays as it is.
/// </summary>
/// <param name="Lines">Keys of the lines.</param>
/// <param name="Seen">Version of the sheet.</param>
public sealed record CloseLines(string Order, ImmutableArray<long> Lines, string Reason, long? Seen)
    : IAct<DocumentRef>;

[Leaves(typeof(LinesClosed))]
public sealed class CloseLinesAct(SheetLoader loader, Seller seller) : Act<CloseLines, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, CloseLines input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is closed");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel, work.Actor);
        var order = open.Order!;
        if (order.Terms != TermsTrack.Confirmed)
            throw RefusedException.Clash("order_state", $"{order.Number} is not confirmed; take the line out of it.");
        var (keys, then) = (input.Lines.ToHashSet(), open.Sheet.Priced(open.Buyer, open.Book));
        var goods = (await GoodsBook.OfAsync(work.Db, [order.Id], work.Today, cancel))[order.Id];
        var begun = goods.Lines.ToDictionary(l => l.Line.Key, l => l.SoFar.Gone + l.SoFar.InWork);
        MustBeOpen(order, keys, then, begun);
        var names = Names(open.Sheet, keys, begun);
        if (begun.Values.All(q => q == 0m))
            await OrderVersions.OpenAsync(work, open, cancel);
        else
            await OrderVersions.KeepAsync(work, open, cancel);
        var now = Close(open, keys, begun, reason, then);
        await OrderSteps.FreeAsync(work, order, keys, cancel);
        OrderVersions.Confirmed(work, order);
        await Follow.GoodsAsync(work, order, cancel);
        await Follow.MoneyAsync(work, order, cancel);
        var told = Outgoing.Tell(
            work,
            seller,
            $"{order.Number}.closed.{open.Sheet.Version}",
            open.Buyer,
            BuyerLetters.Change(
                open,
                seller,
                Comparison.Of(Side.Of(then, open.Sheet.Head), Side.Of(now, open.Sheet.Head), byKey: true)
            )
        );
        var total = now.Tally.TotalWithTax;
        work.Leave(
            new LinesClosed(names, told, total.Value, total.Currency.Code),
            open.Subject,
            open.Dossier.Id,
            reason
        );
        return open.Ref;
    }

    private static void MustBeOpen(
        OrderRow order,
        HashSet<long> keys,
        PricedSheet sheet,
        Dictionary<long, decimal> begun
    )
    {
        var open = sheet
            .Lines.Where(l => l.Counts && begun.GetValueOrDefault(l.Line.Key) < l.Line.Quantity)
            .Select(l => l.Line.Key)
            .ToHashSet();
        if (keys.Count == 0 || !keys.IsSubsetOf(open))
            throw RefusedException.Clash(
                "line_gone",
                $"Of what was picked something is no open line of {order.Number}, or all of it went or is being picked."
            );
        if (keys.IsSupersetOf(open) && begun.Values.All(q => q == 0m))
            throw RefusedException.Clash("lines_all", "That is all that is left of it: cancel the order.");
    }

    // Lines as they are called; of one that is closed in part how much is.
    private static ImmutableArray<string> Names(SheetRow sheet, HashSet<long> keys, Dictionary<long, decimal> begun)
    {
        var lines = sheet.ToDraft().Lines.Where(l => keys.Contains(l.Key));
        return
        [
            .. OrderVersions
                .Names(sheet, keys)
                .Zip(
                    lines,
                    (name, line) =>
                        begun.GetValueOrDefault(line.Key) is > 0m and var stays
                            ? $"{Releasing.Said(line.Quantity - stays, line.Unit)} of {name}"
                            : name
                ),
        ];
    }

    private static PricedSheet Close(
        OpenSheet open,
        HashSet<long> keys,
        Dictionary<long, decimal> begun,
        string reason,
        PricedSheet then
    )
    {
        var (draft, rests) = ClosingShort.Of(open.ToDraft(), keys, begun, reason);
        var kept = KeptLines.Divided(open.Sheet.Kept, rests);
        var now = OrderVersions.Stand(open, draft, kept);
        // Charges may hang on what is taken off the whole: they are worked out with it.
        now = OrderVersions.Stand(open, draft with { Head = ClosingShort.Discount(draft.Head, then, now) }, kept);
        foreach (var line in open.Sheet.Lines.Where(l => keys.Contains(l.Key) && !rests.ContainsKey(l.Key)))
            line.Promised = null;
        return now;
    }
}
