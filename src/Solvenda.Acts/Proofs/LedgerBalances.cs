using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>Of every document the ledger has as much in debit as in credit, day by day.</summary>
public sealed class LedgerBalances : IProof
{
    /// <inheritdoc />
    public string Holds => "the ledger balances";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var wrong = await db
            .Entries.GroupBy(e => new
            {
                e.Document,
                e.Day,
                e.Currency,
            })
            .Select(g => new { g.Key, Over = g.Sum(e => e.DebitMinor - e.CreditMinor) })
            .Where(g => g.Over != 0)
            .ToListAsync(cancel);
        foreach (var one in wrong)
            yield return FormattableString.Invariant(
                $"{one.Key.Document} of {one.Key.Day:d MMM} is {Amount.Major(one.Over, one.Key.Currency)} {one.Key.Currency} off"
            );
    }
}
