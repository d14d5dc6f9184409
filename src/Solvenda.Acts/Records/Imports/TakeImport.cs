using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>
/// Takes a portion of an import that was looked at and fits. Portions are acts of their own, so that nobody who types
/// waits for 200,000 rows; what is interrupted between two of them goes on by itself, since rows that were taken are
/// the same then.
/// </summary>
/// <param name="Portion">Some of its rows; null: there are no more, and it is done.</param>
public sealed record TakeImport(long Import, IImportRun Run, object? Portion) : IAct<int>;

[Leaves(typeof(ImportMoved), typeof(RecordChanged))]
public sealed class TakeImportAct : Act<TakeImport, int>
{
    public override Right Needs => Rights.Records;

    /// <returns>Rows so far.</returns>
    public override async Task<int> RunAsync(Work work, TakeImport input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var found = await ImportSteps.FindAsync(work.Db, input.Import, work.Actor, cancel);
        if (found.State != ImportState.Taking)
            throw RefusedException.Clash("import_state", "It is not being taken.");
        if (input.Portion is { } portion)
        {
            work.Db.CountsPricesLater = true;
            await input.Run.TakeAsync(work, portion, cancel);
            return input.Run.Outcome.Total;
        }
        var outcome = input.Run.Outcome;
        var row = await work.Db.Imports.FirstAsync(i => i.Id == input.Import, cancel);
        KeepImportAct.Write(row, outcome);
        row.State = ImportState.Taken;
        await work.Db.PricesChangedAsync(cancel);
        work.Leave(
            new ImportMoved(row.Kind, row.FileName, "taken", outcome.New, outcome.Changed),
            Work.SubjectOf("imports", row.Id)
        );
        return outcome.Total;
    }
}
