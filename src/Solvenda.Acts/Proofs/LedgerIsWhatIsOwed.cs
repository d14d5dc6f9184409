using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Ledger;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// What the ledger has as receivable is what buyers owe, and what it has on account is the money of theirs that nothing
/// was taken of, each at the worth that it was booked at.
/// </summary>
public sealed class LedgerIsWhatIsOwed : IProof
{
    /// <inheritdoc />
    public string Holds => "the ledger is what is owed";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var owed = await db.OpenItems.SumAsync(o => o.HomeMinor ?? 0, cancel);
        if (await OfAsync(db, AccountUse.Receivable, cancel) is var receivable && receivable != owed)
            yield return $"receivable is {receivable} in the ledger, what is owed {owed}, in minor units";
        var held =
            await db.Deposits.SumAsync(d => d.HomeMinor ?? 0, cancel)
            + await db.Receipts.SumAsync(r => r.LeftHomeMinor, cancel);
        if (await OfAsync(db, AccountUse.OnAccount, cancel) is var onAccount && onAccount != -held)
            yield return $"money on account is {-onAccount} in the ledger, what is held {held}, in minor units";
    }

    // By what accounts are used for now, also those that are switched off.
    private static Task<long> OfAsync(SolvendaDb db, AccountUse use, CancellationToken cancel) =>
        db
            .Entries.Where(e => db.Accounts.Any(a => a.Code == e.Account && a.Use == use))
            .SumAsync(e => e.DebitMinor - e.CreditMinor, cancel);
}
