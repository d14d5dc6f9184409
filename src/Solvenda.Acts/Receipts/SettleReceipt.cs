using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receipts;

/// <summary>Sees to something that was not received: it is sent again, or they have it all the same.</summary>
/// <param name="Key">By which the outbox knows it.</param>
/// <param name="Again">Whether it goes out again, with the same id.</param>
public sealed record SettleReceipt(string Key, bool Again) : IAct<string>;

[Leaves(typeof(ReceiptSettled))]
public sealed class SettleReceiptAct : Act<SettleReceipt, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Number of the document.</returns>
    public override async Task<string> RunAsync(Work work, SettleReceipt input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Outbox.FirstOrDefaultAsync(o => o.Key == input.Key, cancel)
            ?? throw RefusedException.NotFound("such message");
        if (row.Receipt != Receipt.NotReceived)
            throw RefusedException.Clash("receipt_settled", "Somebody saw to it already, or they have it by now.");
        if (input.Again)
        {
            var patience = row.ReceiptBy is { } by ? by - row.CreatedAt : (TimeSpan?)null;
            (row.SentAt, row.Tries, row.NextTryAt, row.CreatedAt) = (null, 0, work.Now, work.Now);
            row.Receipt = patience is null ? Receipt.None : Receipt.Awaited;
            row.ReceiptBy = work.Now + patience;
        }
        else
            row.Receipt = Receipt.Settled;
        var number = ReceiptSteps.NumberOf(row);
        work.Leave(new ReceiptSettled(row.To, row.Name, input.Again), number);
        return number;
    }
}
