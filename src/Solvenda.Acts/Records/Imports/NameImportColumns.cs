using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>
/// Says which column of an import is which field, for this and the next file with such a head; it is looked at again.
/// </summary>
/// <param name="Columns">Head of a column to the name of a field; empty: left out.</param>
public sealed record NameImportColumns(long Import, IReadOnlyDictionary<string, string> Columns) : IAct<long>;

[Leaves(typeof(ImportMoved))]
public sealed class NameImportColumnsAct : Act<NameImportColumns, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Key of the import.</returns>
    public override async Task<long> RunAsync(Work work, NameImportColumns input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await ImportSteps.FindAsync(work.Db, input.Import, work.Actor, cancel);
        if (row.State is not (ImportState.Looked or ImportState.Failed))
            throw RefusedException.Clash("import_state", "It is being worked on, or was taken already.");
        var of = await RecordKinds.FindAsync(work.Db, row.Kind, cancel);
        foreach (var (head, named) in input.Columns)
        {
            // The annotations that keep nulls out do not reach into a dictionary.
            var field = named ?? "";
            if (field.Length > 0 && of.AllFields.All(f => f.Name != field))
                throw RefusedException.Bad("field_unknown", $"There is no field “{field}”.", head);
            var plain = head.ToLowerInvariant();
            var said = await work.Db.ImportColumns.FirstOrDefaultAsync(
                c => c.Kind == row.Kind && c.Head == plain,
                cancel
            );
            if (said is null)
                work.Db.ImportColumns.Add(
                    said = new ImportColumnRow
                    {
                        Kind = row.Kind,
                        Head = plain,
                        Field = field,
                    }
                );
            said.Field = field;
        }
        (row.State, row.Columns) = (ImportState.Looking, "");
        work.Leave(new ImportMoved(row.Kind, row.FileName, "named", 0, 0), Work.SubjectOf("imports", row.Id));
        return row.Id;
    }
}
