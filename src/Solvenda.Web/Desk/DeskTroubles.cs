using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>What workers could not do, on the administrator's desk.</summary>
internal static class DeskTroubles
{
    private const int Most = 20;

    public static async Task<IEnumerable<DeskItem>> OfAsync(SolvendaDb db, CancellationToken cancel)
    {
        var rows = await db
            .Troubles.Where(t => !t.Left)
            .OrderByDescending(t => t.Apart)
            .ThenByDescending(t => t.LastAt)
            .Take(Most)
            .ToListAsync(cancel);
        return rows.Select(t => new DeskItem(
            t.Apart ? Urgency.AtOnce : Urgency.Today,
            "trouble",
            t.Worker,
            "/troubles",
            t.Subject.Length > 0 ? t.Subject : "its whole round",
            t.Apart ? "set apart, not tried any more" : "did not work, is tried again",
            t.Words,
            "house",
            t.FirstAt,
            "",
            null,
            "look",
            t.Apart ? 0 : 4
        ));
    }
}
