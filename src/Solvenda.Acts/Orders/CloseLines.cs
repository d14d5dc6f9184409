using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Closes lines of a confirmed order short, with the reason: what is left of them is not delivered, their stock is
/// free,
/// and the buyer is told what is otherwise.
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
        var counting = then.Lines.Where(l => l.Counts).Select(l => l.Line.Key).ToHashSet();
        if (keys.Count == 0 || !keys.IsSubsetOf(counting))
            throw RefusedException.Clash("line_gone", "Of what was picked something is no open line of it.");
        if (keys.IsSupersetOf(counting))
            throw RefusedException.Clash("lines_all", "That is all that is left of it: cancel the order.");
        var names = Names(open.Sheet, keys);
        await OrderVersions.OpenAsync(work, open, cancel);
        OrderVersions.Close(open.Sheet, keys, reason);
        var now = open.Sheet.Priced(open.Buyer, open.Book);
        open.Sheet.Keep(now);
        open.Sheet.Kept = KeptLines.Write(now);
        work.Db.Commitments.RemoveRange(
            await work.Db.Commitments.Where(c => c.OrderId == order.Id && keys.Contains(c.LineKey)).ToListAsync(cancel)
        );
        OrderSteps.Move(order, OrderDoing.Confirm);
        (order.ConfirmedAt, order.Confirmed) = (work.Now, order.Confirmed + 1);
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

    internal static ImmutableArray<string> Names(SheetRow sheet, IReadOnlySet<long> keys)
    {
        var numbers = LineNumbers.Of(sheet.ToDraft().Lines);
        return
        [
            .. sheet
                .Lines.Where(l => keys.Contains(l.Key))
                .OrderBy(l => l.Position)
                .Select(l => $"{numbers.GetValueOrDefault(l.Key)} {l.Words}".Trim()),
        ];
    }
}
