using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;
using Solvenda.Formats;

namespace Solvenda.Acts.Receipts;

/// <summary>Whether what went out arrived: what is awaited, what was said of it, and what is missing.</summary>
public static class ReceiptSteps
{
    /// <summary>Within how many hours a partner acknowledges; 0: never.</summary>
    public static readonly WaySetting Hours = new(
        "acknowledgeHours",
        "hours within which they acknowledge what we send; 0: they never do",
        SettingKind.Number,
        "24",
        OfBuyer: true,
        Most: 24 * 14
    );

    /// <summary>An interchange went out: its receiver acknowledges it within their hours.</summary>
    public static async Task AwaitAsync(
        Work work,
        OutboxRow sent,
        string? control,
        long buyer,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(sent);
        if (control is null)
            return;
        sent.Control = control;
        var way = await WayBook.OfAsync(work.Db, DocumentsBy.Edi, buyer, cancel);
        var hours = WaySettings.Number(WaySettings.Of(way), Hours);
        if (hours > 0)
            (sent.Receipt, sent.ReceiptBy) = (Receipt.Awaited, work.Now.AddHours(hours));
    }

    /// <summary>Takes what somebody said of what we sent.</summary>
    /// <returns>The numbers of the documents that it was about; empty where nothing of ours was meant.</returns>
    public static async Task<IReadOnlyList<string>> TakeAsync(
        Work work,
        IReadOnlyCollection<SaidReceipt> said,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(said);
        var about = new List<string>();
        foreach (var one in said)
        {
            // A mail is known by its id, which begins with the key of what was sent.
            var key = one.Control.Split('@')[0];
            var row = await work
                .Db.Outbox.Where(o =>
                    one.From.Length == 0 ? o.Key == key : o.Control == one.Control && o.To == one.From
                )
                .OrderByDescending(o => o.Id)
                .FirstOrDefaultAsync(cancel);
            if (row is null)
                continue;
            about.Add(NumberOf(row));
            // What came late is good news all the same; what somebody saw to stays so.
            if (row.Receipt == Receipt.Settled)
                continue;
            (row.Receipt, row.ReceiptWords) = one.HasIt
                ? (Receipt.Received, one.Words)
                : (Receipt.NotReceived, one.Words);
            if (one.HasIt)
                work.Leave(new DocumentReceived(row.To, row.Name), NumberOf(row));
            else
                work.Leave(new DocumentNotReceived(row.To, row.Name, one.Words), NumberOf(row));
        }
        return about;
    }

    /// <summary>Number of the document that it was about: the beginning of its key.</summary>
    public static string NumberOf(OutboxRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return row.Key.Split('.')[0].ToUpper(CultureInfo.InvariantCulture);
    }
}
