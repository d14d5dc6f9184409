using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Ledger;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>
/// Entries that somebody with the right moves to another account before an invoice is issued. Only what was sold can be
/// moved: what is owed, tax and money stay where the rules put them, since they are held against the documents.
/// </summary>
public static class MovedEntries
{
    private const int MostLetters = 200;

    /// <summary>Whether what is posted on such an account may be moved.</summary>
    public static bool MayMove(AccountUse use) => use is AccountUse.Revenue;

    /// <summary>Refuses moves that nobody may make.</summary>
    internal static async Task MustBeRightAsync(Work work, ImmutableArray<MovedEntry> moves, CancellationToken cancel)
    {
        if (moves.IsDefaultOrEmpty)
            return;
        if (!Rights.MoveEntries.Allows(work.Actor))
            throw RefusedException.Forbidden(
                $"Moving entries is for {Rights.MoveEntries.Words}; nothing was invoiced."
            );
        var accounts = await work.Db.Accounts.AsNoTracking().Where(a => a.Active).ToListAsync(cancel);
        foreach (var move in moves)
        {
            var from = accounts.Find(a => a.Code == move.From);
            var to = accounts.Find(a => a.Code == move.To);
            if (from is null || !MayMove(from.Use))
                throw RefusedException.Bad(
                    "entry_fixed",
                    $"What is posted on {move.From} stays there; only what was sold can be moved. Nothing was invoiced.",
                    "from"
                );
            if (to is null || (to.Use != AccountUse.None && !MayMove(to.Use)) || to.Code == from.Code)
                throw RefusedException.Bad(
                    "entry_fixed",
                    $"Nothing can be moved to {move.To}: it is no other account of what was sold, or is kept by the rules. Nothing was invoiced.",
                    "to"
                );
            if (move.Reason.Trim().Length is 0 or > MostLetters)
                throw RefusedException.Bad(
                    "reason_missing",
                    "Say why it is moved; the reason is kept with the entry. Nothing was invoiced.",
                    "reason"
                );
        }
        if (moves.Select(m => m.From).Distinct().Count() < moves.Length)
            throw RefusedException.Bad("entry_fixed", "An entry is moved once. Nothing was invoiced.", "from");
    }

    /// <summary>Those of an invoice, for its credit notes: they go back from where it went.</summary>
    internal static async Task<ImmutableArray<MovedEntry>> OfAsync(
        SolvendaDb db,
        string invoice,
        CancellationToken cancel
    )
    {
        var moved = await db
            .Entries.Where(e => e.Document == invoice && e.MovedFrom != "")
            .Select(e => new { e.MovedFrom, e.Account })
            .Distinct()
            .ToListAsync(cancel);
        return [.. moved.Select(m => new MovedEntry(m.MovedFrom, m.Account, $"as on {invoice}"))];
    }
}
