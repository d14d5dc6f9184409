using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Puts a picture or a data sheet to an item, as it came.</summary>
public sealed record AddItemFile(long Item, string? FileName, byte[] Bytes) : IAct<long>;

[Leaves(typeof(RecordFile))]
public sealed class AddItemFileAct : Act<AddItemFile, long>
{
    private const int MostFiles = 50;

    public override Right Needs => Rights.Records;

    /// <returns>Key of the item.</returns>
    public override async Task<long> RunAsync(Work work, AddItemFile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        RecordKinds.Changeable("items", work.Actor);
        if (input.Bytes.Length == 0)
            throw RefusedException.Bad("file_empty", "The file is empty; nothing was kept.", "file");
        if (!await work.Db.Items.AnyAsync(i => i.Id == input.Item, cancel))
            throw RefusedException.NotFound("such item");
        if (await work.Db.ItemFiles.CountAsync(f => f.ItemId == input.Item, cancel) >= MostFiles)
            throw RefusedException.Bad(
                "too_many_lines",
                $"An item has at most {MostFiles} files; nothing was kept.",
                "file"
            );
        var kept = FileTypes.NameOf(input.FileName);
        work.Db.ItemFiles.Add(
            new ItemFileRow
            {
                ItemId = input.Item,
                Name = kept,
                ContentType = FileTypes.Of(input.Bytes),
                Bytes = input.Bytes,
                Who = work.Actor.Name,
                At = work.Now,
            }
        );
        work.Leave(new RecordFile(kept, true), Work.SubjectOf("items", input.Item));
        return input.Item;
    }
}
