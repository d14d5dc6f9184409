using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Finds imports: whoever may change the kind may see its imports.</summary>
public static class ImportSteps
{
    public static async Task<ImportRow> FindAsync(SolvendaDb db, long id, Actor actor, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row =
            await db.Imports.FirstOrDefaultAsync(i => i.Id == id, cancel)
            ?? throw RefusedException.NotFound("such import");
        RecordKinds.Changeable(row.Kind, actor);
        return row;
    }
}
