using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>
/// Takes an import whole: the file is gone through once more, since the house may have changed since it was looked at.
/// All of it is one transaction.
/// </summary>
/// <param name="Table">Its rows, read before.</param>
/// <param name="Progress">Is told how many rows are done.</param>
public sealed record TakeImport(
    long Import,
    HeldRows Table,
    IReadOnlyDictionary<string, string> Columns,
    Action<int> Progress
) : IAct<int>;

[Leaves(typeof(ImportMoved), typeof(RecordChanged))]
public sealed class TakeImportAct : Act<TakeImport, int>
{
    public override Right Needs => Rights.Records;

    /// <returns>Rows that it had.</returns>
    public override async Task<int> RunAsync(Work work, TakeImport input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var found = await ImportSteps.FindAsync(work.Db, input.Import, work.Actor, cancel);
        var outcome = await RecordKinds
            .Find(found.Kind)
            .Importer.RunAsync(work.Db, input.Table, input.Columns, work, input.Progress, cancel);
        if (outcome.Refused.Count > 0)
            throw RefusedException.Clash(
                "import_state",
                $"{outcome.Refused.Count} cells no longer fit, the first in line {outcome.Refused[0].Line}: {outcome.Refused[0].Why}. Nothing was changed; look at it again."
            );
        var row = await work.Db.Imports.FirstAsync(i => i.Id == input.Import, cancel);
        KeepImportAct.Write(row, outcome);
        row.State = ImportState.Taken;
        work.Leave(
            new ImportMoved(row.Kind, row.FileName, "taken", outcome.New, outcome.Changed),
            Work.SubjectOf("imports", row.Id)
        );
        return outcome.Total;
    }
}
