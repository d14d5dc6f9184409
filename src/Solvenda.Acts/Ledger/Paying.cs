using Solvenda.Acts.Acting;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ledger;

/// <summary>Takes something of what is owed.</summary>
internal static class Paying
{
    /// <summary>Takes a part of an open item; the last part takes what the ledger has left of it.</summary>
    /// <param name="minor">Of its currency, at most what is open.</param>
    /// <param name="worth">What it is worth in the ledger by whoever pays; null: as the item has it.</param>
    /// <param name="reason">Why it is gone where neither money nor a note took it.</param>
    /// <returns>What was taken in the ledger, in home currency.</returns>
    public static long Take(
        Work work,
        OpenItemRow item,
        long minor,
        long? worth = null,
        long? receiptId = null,
        long? creditId = null,
        string reason = ""
    )
    {
        var home = item.HomeMinor ?? 0;
        var taken = minor == item.OpenMinor ? home : worth ?? Shares.Of(home, minor, item.OpenMinor);
        // What is credited takes its share of what paying early would have brought.
        if (creditId is not null && item.EarlyMinor > 0)
            item.EarlyMinor -= Shares.Of(item.EarlyMinor, minor, item.OpenMinor);
        (item.OpenMinor, item.HomeMinor) = (item.OpenMinor - minor, home - taken);
        if (item.OpenMinor == 0)
            item.PaidOn = work.Today;
        work.Db.Paid.Add(
            new PaidRow
            {
                OpenItemId = item.Id,
                ReceiptId = receiptId,
                CreditId = creditId,
                Reason = reason,
                Minor = minor,
                HomeMinor = taken,
                Day = work.Today,
                At = work.Now,
                ByName = work.Actor.Name,
            }
        );
        return taken;
    }
}
