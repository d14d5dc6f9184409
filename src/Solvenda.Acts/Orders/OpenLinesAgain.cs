using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Opens lines again that were closed short: the order is open to be changed, is checked anew, and is confirmed anew.
/// </summary>
/// <param name="Lines">Keys of the lines; none: all that were closed.</param>
public sealed record OpenLinesAgain(string Order, ImmutableArray<long> Lines) : IAct<DocumentRef>;

[Leaves(typeof(LinesOpened))]
public sealed class OpenLinesAgainAct(SheetLoader loader, Settling settling) : Act<OpenLinesAgain, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, OpenLinesAgain input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var closed = open.ToDraft().Lines.Where(l => l.ClosedWhy.Length > 0).Select(l => l.Key).ToHashSet();
        if (!input.Lines.IsDefaultOrEmpty)
            closed.IntersectWith(input.Lines);
        if (closed.Count == 0)
            throw RefusedException.Clash("line_gone", $"Nothing of {open.Subject} that was named is closed.");
        var (names, before) = (OrderVersions.Names(open.Sheet, closed), open.Order!.Terms);
        if (open.Order.Terms == TermsTrack.Confirmed)
            await OrderVersions.OpenAsync(work, open, cancel);
        else if (open.Order.Terms == TermsTrack.Cancelled)
            throw RefusedException.Clash("order_state", $"{open.Subject} is cancelled; open it again first.");
        var draft = open.ToDraft();
        open.Sheet.Take(
            draft with
            {
                Lines = [.. draft.Lines.Select(l => closed.Contains(l.Key) ? l with { ClosedWhy = "" } : l)],
            }
        );
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new LinesOpened(names, before, open.Order.Terms), open.Subject, open.Dossier.Id);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, input.Order, cancel), cancel);
        return open.Ref;
    }
}
