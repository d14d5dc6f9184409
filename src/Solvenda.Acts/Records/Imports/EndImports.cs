using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Says of imports that were under way when the process ended that they changed nothing.</summary>
public sealed record EndImports : IAct<int>;

[Leaves(typeof(ImportMoved))]
public sealed class EndImportsAct : Act<EndImports, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many.</returns>
    public override async Task<int> RunAsync(Work work, EndImports input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var rows = await work
            .Db.Imports.Where(i => i.State == ImportState.Looking || i.State == ImportState.Taking)
            .ToListAsync(cancel);
        foreach (var row in rows)
        {
            (row.State, row.Problem) = (
                ImportState.Failed,
                "It was interrupted; nothing was changed. Bring the file again."
            );
            work.Leave(new ImportMoved(row.Kind, row.FileName, "failed", 0, 0), Work.SubjectOf("imports", row.Id));
        }
        return rows.Count;
    }
}
