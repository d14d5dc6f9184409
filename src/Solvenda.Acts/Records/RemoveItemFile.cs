using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Records;

/// <summary>Takes a picture or a data sheet away from an item.</summary>
public sealed record RemoveItemFile(long Item, long File) : IAct<long>;

[Leaves(typeof(RecordFile))]
public sealed class RemoveItemFileAct : Act<RemoveItemFile, long>
{
    public override Right Needs => Rights.Records;

    /// <returns>Key of the item.</returns>
    public override async Task<long> RunAsync(Work work, RemoveItemFile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        RecordKinds.Changeable("items", work.Actor);
        var row =
            await work.Db.ItemFiles.FirstOrDefaultAsync(f => f.Id == input.File && f.ItemId == input.Item, cancel)
            ?? throw RefusedException.NotFound("such file");
        work.Db.ItemFiles.Remove(row);
        work.Leave(new RecordFile(row.Name, false), Work.SubjectOf("items", input.Item));
        return input.Item;
    }
}
