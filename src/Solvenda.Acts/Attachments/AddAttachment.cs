using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Attachments;

/// <summary>Puts a file to a quote or an order, or to a line of it: for the house, or for the buyer to see.</summary>
/// <param name="Line">Key of the line; null for the whole.</param>
public sealed record AddAttachment(DocumentRef Document, long? Line, string? FileName, byte[] Bytes, bool ForBuyer)
    : IAct<long>;

[Leaves(typeof(AttachmentChanged))]
public sealed class AddAttachmentAct(SheetLoader loader) : Act<AddAttachment, long>
{
    private const int MostFiles = 100;

    public override Right Needs => Rights.Write;

    /// <returns>Key of the file.</returns>
    public override async Task<long> RunAsync(Work work, AddAttachment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Bytes.Length == 0)
            throw RefusedException.Bad("file_empty", "The file is empty; nothing was kept.", "file");
        var open = await loader.DocumentAsync(work.Db, input.Document, cancel);
        if (input.Line is { } key && open.Sheet.Lines.All(l => l.Key != key))
            throw RefusedException.NotFound("such line");
        if (await work.Db.Attachments.CountAsync(f => f.DossierId == open.Dossier.Id, cancel) >= MostFiles)
            throw RefusedException.Bad(
                "too_many_lines",
                $"A matter has at most {MostFiles} files; nothing was kept.",
                "file"
            );
        var row = new AttachmentRow
        {
            DossierId = open.Dossier.Id,
            Document = open.Subject,
            LineKey = input.Line,
            Name = FileTypes.NameOf(input.FileName),
            ContentType = FileTypes.Of(input.Bytes),
            Bytes = input.Bytes,
            ForBuyer = input.ForBuyer,
            Who = work.Actor.Name,
            At = work.Now,
        };
        AttachmentWords.MustBeFit(row);
        work.Db.Attachments.Add(row);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(
            new AttachmentChanged(row.Name, row.LineKey, null, AttachmentWords.Of(row)),
            open.Subject,
            open.Dossier.Id
        );
        return row.Id;
    }
}
