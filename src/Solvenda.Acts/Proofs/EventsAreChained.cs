using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Events;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// Each event follows the one before it, and says what it said when it was written, unless that was blanked.
/// </summary>
public sealed class EventsAreChained : IProof
{
    /// <inheritdoc />
    public string Holds => "events follow one another unchanged";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var (before, id) = (EventChain.Before, 0L);
        await foreach (
            var row in db.Events.AsNoTracking().OrderBy(e => e.Id).AsAsyncEnumerable().WithCancellation(cancel)
        )
        {
            if (row.Id != ++id)
            {
                yield return $"event {id} is missing before {row.Id}";
                id = row.Id;
            }
            if (EventChain.FactsHash(row) is { } facts && facts != row.FactsHash)
                yield return $"event {row.Id}, {row.Code} of {row.Subject}: its facts were changed";
            if (EventChain.HashAfter(before, row) != row.Hash)
                yield return $"event {row.Id}, {row.Code} of {row.Subject}: does not follow the one before it";
            before = row.Hash;
        }
    }
}
