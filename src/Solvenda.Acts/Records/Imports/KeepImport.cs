using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Keeps how far an import is: which columns were recognised, what it would do, or why it failed.</summary>
/// <param name="Columns">Null where they stay as they are.</param>
/// <param name="Outcome">What it would do; null before it was looked at, and where it failed.</param>
/// <param name="Problem">Why it failed; null where it did not.</param>
public sealed record KeepImport(
    long Import,
    IReadOnlyDictionary<string, string>? Columns,
    ImportOutcome? Outcome,
    string? Problem
) : IAct<int>;

[Leaves(typeof(ImportMoved))]
public sealed class KeepImportAct : Act<KeepImport, int>
{
    public override Right Needs => Rights.House;

    public override async Task<int> RunAsync(Work work, KeepImport input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await work.Db.Imports.FirstAsync(i => i.Id == input.Import, cancel);
        if (input.Columns is { } columns)
            row.Columns = JsonSerializer.Serialize(columns);
        if (input.Outcome is { } outcome)
        {
            Write(row, outcome);
            (row.State, row.Problem) = (ImportState.Looked, "");
        }
        if (input.Problem is { } problem)
        {
            // What was taken before it failed stays, and counts.
            if (row.State == ImportState.Taking)
                await work.Db.PricesChangedAsync(cancel);
            (row.State, row.Problem) = (ImportState.Failed, problem);
        }
        if (input.Outcome is not null || input.Problem is not null)
            work.Leave(
                new ImportMoved(
                    row.Kind,
                    row.FileName,
                    input.Problem is null ? "looked" : "failed",
                    row.New,
                    row.Changed
                ),
                Work.SubjectOf("imports", row.Id)
            );
        return 0;
    }

    internal static void Write(ImportRow row, ImportOutcome outcome) =>
        (row.Total, row.New, row.Changed, row.Same, row.Refused) = (
            outcome.Total,
            outcome.New,
            outcome.Changed,
            outcome.Same,
            JsonSerializer.Serialize(outcome.Refused)
        );
}
