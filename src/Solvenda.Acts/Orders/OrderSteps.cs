using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>What acts on orders have in common.</summary>
internal static class OrderSteps
{
    /// <summary>Moves its terms; refused where the table has no such move.</summary>
    /// <returns>As they were.</returns>
    public static TermsTrack Move(OrderRow order, OrderDoing doing)
    {
        var before = order.Terms;
        order.Terms =
            Tracks.TermsTable.After(before, doing)
            ?? throw RefusedException.Clash(
                "order_state",
                before switch
                {
                    TermsTrack.Cancelled => $"{order.Number} is cancelled; open it again first.",
                    TermsTrack.Confirmed => $"{order.Number} is confirmed.",
                    _ => $"{order.Number} is not confirmed yet; it can simply be changed.",
                }
            );
        return before;
    }

    /// <summary>Refuses what would move goods or money that moved already.</summary>
    public static void MustNotHaveBegun(OrderRow order)
    {
        if (order.Goods != GoodsTrack.Waiting || order.Money != MoneyTrack.NotDue)
            throw RefusedException.Clash(
                "order_begun",
                $"{order.Number} is being picked, or part of it has gone: that is fixed. Nothing was changed."
            );
    }

    /// <summary>The reason, which is kept; refused where there is none.</summary>
    public static string Reason(string? reason, string asked)
    {
        var plain = (reason ?? "").Trim();
        return plain.Length is > 0 and <= Core.Sheets.SheetDoor.MostLetters
            ? plain
            : throw RefusedException.Bad("reason_missing", $"{asked}; the reason is kept.", "reason");
    }

    /// <summary>Which promises of a confirmed order cannot be kept, in words; empty where all can.</summary>
    public static string Late(Judged judged)
    {
        var late = judged.Findings.Where(f => f.Check == StockPromised.Name).ToList();
        return late.Count switch
        {
            0 => "",
            1 => late[0].Words,
            _ => $"{late.Count} lines; {late[0].Words}",
        };
    }

    /// <summary>Forgets for lists what stopped it.</summary>
    public static void NothingStops(OrderRow order)
    {
        (order.Stops, order.FirstStop, order.StopChecks) = (0, "", "");
        order.CreditStop = false;
    }

    /// <summary>What waits of it is free again; what is being picked is still promised.</summary>
    /// <param name="lines">Keys of the lines that it is about; null: all.</param>
    public static async Task FreeAsync(Work work, OrderRow order, IReadOnlySet<long>? lines, CancellationToken cancel)
    {
        List<InHandPick> inHand =
            order.Goods == GoodsTrack.Waiting ? [] : await StockFacts.InHand(work.Db, order.Id).ToListAsync(cancel);
        var stays = inHand
            .GroupBy(p => (p.LineKey, p.ItemId, p.Warehouse))
            .ToDictionary(g => g.Key, g => g.Sum(p => p.Quantity));
        var promised = await work
            .Db.Commitments.Where(c => c.OrderId == order.Id)
            .OrderBy(c => c.Day)
            .ThenBy(c => c.Id)
            .ToListAsync(cancel);
        foreach (var commitment in promised.Where(c => lines?.Contains(c.LineKey) != false))
        {
            var key = (commitment.LineKey, commitment.ItemId, commitment.Warehouse);
            var left = Math.Min(commitment.Quantity, stays.GetValueOrDefault(key));
            stays[key] = stays.GetValueOrDefault(key) - left;
            commitment.Quantity = left;
            if (left == 0m)
                work.Db.Commitments.Remove(commitment);
        }
    }

    /// <summary>Asks that wait about it are withdrawn with it.</summary>
    public static void WithdrawAsks(Work work, OpenSheet open)
    {
        foreach (var ask in open.Asks.Where(a => a.Outcome == AskOutcome.Waiting && a.SheetId == open.Sheet.Id))
            (ask.Outcome, ask.DecidedAt) = (AskMoves.Table.After(ask.Outcome, AskDoing.Withdraw)!.Value, work.Now);
    }
}
