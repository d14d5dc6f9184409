using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Attachments;

/// <summary>Shows a file to the buyer, or keeps it for the house.</summary>
public sealed record ShowAttachment(long File, bool ForBuyer) : IAct<long>;

[Leaves(typeof(AttachmentChanged))]
public sealed class ShowAttachmentAct : Act<ShowAttachment, long>
{
    public override Right Needs => Rights.Write;

    /// <returns>Key of the file.</returns>
    public override async Task<long> RunAsync(Work work, ShowAttachment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Attachments.FirstOrDefaultAsync(f => f.Id == input.File, cancel)
            ?? throw RefusedException.NotFound("such file");
        var before = AttachmentWords.Of(row);
        row.ForBuyer = input.ForBuyer;
        AttachmentWords.MustBeFit(row);
        if (AttachmentWords.Of(row) != before)
            work.Leave(
                new AttachmentChanged(row.Name, row.LineKey, before, AttachmentWords.Of(row)),
                row.Document,
                row.DossierId
            );
        return row.Id;
    }
}
