using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Passing;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ways;

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
                way.FreeLines,
                way.NewAddresses
            );

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
}
