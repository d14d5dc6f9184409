using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Documents;

/// <summary>How far a document is: said in a moment, so that a page fetches it anew only where it is behind.</summary>
/// <param name="Sheet">Key of its newest sheet.</param>
/// <param name="Version">Of that sheet.</param>
/// <param name="Event">The last event about it that was no change of its sheet; 0 for none.</param>
public sealed record Newest(long Sheet, long Version, long Event);

public static class NewestEndpoint
{
    public static void MapNewest(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/newest/{number}", Find).WithTags("Documents").Needs(Rights.Look);

    private static async Task<Newest> Find(string number, SolvendaDb db, CancellationToken cancel)
    {
        var sheet =
            await db
                .Quotes.Where(q => q.Number == number)
                .OrderByDescending(q => q.Revision)
                .Select(q => new { q.Sheet.Id, q.Sheet.Version })
                .FirstOrDefaultAsync(cancel)
            ?? await db
                .Orders.Where(o => o.Number == number)
                .Select(o => new { o.Sheet.Id, o.Sheet.Version })
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such quote or order");
        return new Newest(sheet.Id, sheet.Version, await LastEventAsync(db, number, cancel));
    }

    /// <summary>The last event about a document that was no change of its sheet; 0 for none.</summary>
    internal static async Task<long> LastEventAsync(SolvendaDb db, string number, CancellationToken cancel) =>
        await db
            .Events.Where(e => e.Subject == number && !e.Code.StartsWith("sheet."))
            .MaxAsync(e => (long?)e.Id, cancel)
        ?? 0;
}
