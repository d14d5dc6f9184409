using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Says that an import that was looked at is to be taken; a worker does it.</summary>
public sealed record StartImport(long Import) : IAct<long>;

[Leaves(typeof(ImportMoved))]
public sealed class StartImportAct : Act<StartImport, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Key of the import.</returns>
    public override async Task<long> RunAsync(Work work, StartImport input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await ImportSteps.FindAsync(work.Db, input.Import, work.Actor, cancel);
        if (row.State != ImportState.Looked || row.Refused != "[]" || row.Problem.Length > 0)
            throw RefusedException.Clash(
                "import_state",
                "Only what was looked at and refused nowhere is taken; nothing was changed."
            );
        row.State = ImportState.Taking;
        work.Leave(new ImportMoved(row.Kind, row.FileName, "taking", 0, 0), Work.SubjectOf("imports", row.Id));
        return row.Id;
    }
}
