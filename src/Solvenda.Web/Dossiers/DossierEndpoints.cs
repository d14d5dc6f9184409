using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Dossiers;

public static class DossierEndpoints
{
    public static void MapDossiers(this IEndpointRouteBuilder app) =>
        app.MapGroup("/api/dossiers").WithTags("Dossiers").MapGet("/{number}/history", History).Needs(Rights.Look);

    /// <summary>Who, when, what, before, after, why: everything in the dossier, newest first.</summary>
    private static async Task<List<HistoryView>> History(string number, SolvendaDb db, CancellationToken cancel)
    {
        var id =
            await db.Dossiers.Where(d => d.Number == number).Select(d => (long?)d.Id).FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such dossier");
        return await Strip.HistoryAsync(db, id, cancel);
    }
}
