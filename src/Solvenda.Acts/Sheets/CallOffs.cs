using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>What was called off of frames.</summary>
public static class CallOffs
{
    /// <summary>How an order and its frame stand to each other; null where it is no frame and of none.</summary>
    /// <param name="frame">The sheet of its frame; its own, where it is one itself.</param>
    public static async Task<CallOff?> OfAsync(SolvendaDb db, OrderRow order, SheetRow? frame, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(order);
        if (frame is null)
            return null;
        var frameId = order.FrameId ?? order.Id;
        var number = order.FrameId is null
            ? order.Number
            : await db.Orders.Where(o => o.Id == frameId).Select(o => o.Number).FirstAsync(cancel);
        var releases = await db
            .Orders.AsNoTracking()
            .Where(o => o.FrameId == frameId && o.Id != order.Id && o.Terms != TermsTrack.Cancelled)
            .SelectMany(o => o.Sheet.StoredLines)
            .Where(l => l.Says != "")
            .ToListAsync(cancel);
        return new CallOff(
            number,
            // Of what was closed short nothing more is called off.
            frame
                .Lines.Select(l => l.AsTyped())
                .Where(l => l is { Kind: LineKind.Item, ClosedWhy.Length: 0 })
                .ToDictionary(l => l.Key, l => l.Quantity),
            releases
                .Select(r => r.AsTyped())
                .Where(l => l.From?.Sheet == frame.Id && l.ClosedWhy.Length == 0)
                .GroupBy(l => l.From!.Key)
                .ToDictionary(g => g.Key, g => g.Sum(l => l.Quantity))
        );
    }
}
