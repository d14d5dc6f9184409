using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Brings a file of records, to be looked at.</summary>
public sealed record BeginImport(string Kind, string? FileName, byte[] Bytes) : IAct<long>;

[Leaves(typeof(ImportMoved))]
public sealed class BeginImportAct : Act<BeginImport, long>
{
    private const int MostLetters = 200;

    public override Right Needs => Rights.Records;

    /// <returns>Key of the import.</returns>
    public override async Task<long> RunAsync(Work work, BeginImport input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var of = RecordKinds.Changeable(input.Kind, work.Actor);
        var name = Path.GetFileName(input.FileName ?? "").Trim();
        var row = new ImportRow
        {
            Kind = of.Name,
            FileName = name.Length == 0 ? "file" : name[..Math.Min(MostLetters, name.Length)],
            Bytes = input.Bytes,
            State = ImportState.Looking,
            ById = work.Actor.PersonId!.Value,
            ByName = work.Actor.Name,
            At = work.Now,
        };
        work.Db.Imports.Add(row);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new ImportMoved(row.Kind, row.FileName, "brought", 0, 0), Work.SubjectOf("imports", row.Id));
        return row.Id;
    }
}
