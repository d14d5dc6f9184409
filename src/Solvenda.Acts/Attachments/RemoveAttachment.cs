using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Attachments;

/// <summary>Takes a file away that was put to a document.</summary>
public sealed record RemoveAttachment(long File) : IAct<long>;

[Leaves(typeof(AttachmentChanged))]
public sealed class RemoveAttachmentAct : Act<RemoveAttachment, long>
{
    public override Right Needs => Rights.Write;

    /// <returns>Key of what was the file.</returns>
    public override async Task<long> RunAsync(Work work, RemoveAttachment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Attachments.FirstOrDefaultAsync(f => f.Id == input.File, cancel)
            ?? throw RefusedException.NotFound("such file");
        work.Db.Attachments.Remove(row);
        work.Leave(
            new AttachmentChanged(row.Name, row.LineKey, AttachmentWords.Of(row), null),
            row.Document,
            row.DossierId
        );
        return row.Id;
    }
}
