using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Sheets;

/// <summary>The version of a sheet that a change was decided on, as the screen saw it (RFC 9110, If-Match).</summary>
public static class Versions
{
    /// <summary>Refuses a change that was decided on another state of the sheet, and says who changed what.</summary>
    public static async Task MatchAsync(SolvendaDb db, OpenSheet open, string? ifMatch, CancellationToken cancel)
    {
        if (!long.TryParse(ifMatch?.Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var seen))
            throw new RefusalException(428, "version_missing", "A change names the version that it saw, in If-Match.");
        if (seen == open.Sheet.Version)
            return;
        var last = await db
            .History.Where(h => h.Subject == open.Subject && h.What == "sheet.edited")
            .OrderByDescending(h => h.Id)
            .Take(3)
            .Select(h => new
            {
                h.Who,
                h.Words,
                h.Before,
                h.After,
            })
            .ToListAsync(cancel);
        throw RefusalException.Clash(
            "stale",
            $"{last.FirstOrDefault()?.Who ?? "Somebody"} changed this in the meantime; yours was not saved over it.",
            last
        );
    }
}
