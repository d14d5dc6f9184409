using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Sheets;

/// <summary>Whose sheet it is.</summary>
internal static class BuyerOf
{
    public static async Task<BuyerRow> SheetAsync(SolvendaDb db, long sheet, CancellationToken cancel) =>
        await db
            .Quotes.AsNoTracking()
            .Where(x => x.SheetId == sheet)
            .Select(x => x.Dossier.Buyer)
            .FirstOrDefaultAsync(cancel)
        ?? await db
            .Orders.AsNoTracking()
            .Where(x => x.SheetId == sheet)
            .Select(x => x.Dossier.Buyer)
            .FirstOrDefaultAsync(cancel)
        ?? throw RefusedException.NotFound("such sheet");
}
