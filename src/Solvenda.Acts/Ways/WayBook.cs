using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Passing;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ways;

/// <summary>What came by a way in some time.</summary>
/// <param name="Through">Of it by itself.</param>
/// <param name="Waits">Of it still for somebody.</param>
public sealed record WayCount(string Channel, int Came, int Through, int Waits);

/// <summary>The ways in, and what the house said of them.</summary>
public static class WayBook
{
    /// <summary>What holds for a buyer on a way in: what was said of them there, else of the way; null: nothing
    /// was.</summary>
    public static Task<WayRow?> OfAsync(SolvendaDb db, string channel, long? buyer, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db
            .Ways.AsNoTracking()
            .Where(w => w.Channel == channel && (w.BuyerId == null || w.BuyerId == buyer))
            .OrderBy(w => w.BuyerId == null)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>What it says, as Core looks at it.</summary>
    public static WayRules RulesOf(WayRow? way) =>
        way is null
            ? WayRules.Usual
            : new WayRules(
                way.Through,
                way.LeastSurePercent / 100m,
                [.. way.Passes.Split(' ', StringSplitOptions.RemoveEmptyEntries)],
                way.NewAddresses
            )
            {
                Quotes = way.Quotes,
                FreeLines = way.FreeLines,
                Changes = way.Changes,
            };

    /// <summary>The hand that answers for what goes through; null where nobody does.</summary>
    public static async Task<Hand?> KeeperAsync(SolvendaDb db, WayRow? way, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return
            way?.KeeperId is { } id
            && await db.People.Where(p => p.Id == id && p.Active).Select(p => p.Name).FirstOrDefaultAsync(cancel)
                is { } name
            ? new Hand(new PersonId(id), name)
            : null;
    }

    /// <summary>What came by each way since a moment, the most first.</summary>
    public static async Task<List<WayCount>> CameAsync(SolvendaDb db, DateTime since, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var counts = await db
            .Requests.Where(r => r.ReceivedAt >= since)
            .GroupBy(r => r.Channel)
            .Select(g => new WayCount(
                g.Key,
                g.Count(),
                g.Count(r => r.Through),
                g.Count(r => r.State == RequestState.New || r.State == RequestState.NeedsYou)
            ))
            .ToListAsync(cancel);
        return [.. counts.OrderByDescending(c => c.Came).ThenBy(c => c.Channel, StringComparer.Ordinal)];
    }
}
