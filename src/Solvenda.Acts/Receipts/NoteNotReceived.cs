using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receipts;

/// <summary>Notes of what went out that nobody acknowledged it in time.</summary>
public sealed record NoteNotReceived : IAct<int>;

[Leaves(typeof(DocumentNotReceived))]
public sealed class NoteNotReceivedAct : Act<NoteNotReceived, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many there were.</returns>
    public override async Task<int> RunAsync(Work work, NoteNotReceived input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var late = await Late(work.Db, work.Now).ToListAsync(cancel);
        foreach (var row in late)
        {
            (row.Receipt, row.ReceiptWords) = (Receipt.NotReceived, "nothing was said of it in time");
            work.Leave(new DocumentNotReceived(row.To, row.Name, row.ReceiptWords), ReceiptSteps.NumberOf(row));
        }
        return late.Count;
    }

    /// <summary>What is due to be acknowledged and is not.</summary>
    public static IQueryable<OutboxRow> Late(SolvendaDb db, DateTime now)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Outbox.Where(o => o.Receipt == Receipt.Awaited && o.SentAt != null && o.ReceiptBy < now);
    }
}
