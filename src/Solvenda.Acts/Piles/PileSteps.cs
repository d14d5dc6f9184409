using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Piles;

/// <summary>What acts on piles have in common.</summary>
public static class PileSteps
{
    private const int MostLetters = 60;

    /// <summary>The piles that somebody has: their own, and those that are shared.</summary>
    public static IQueryable<PileRow> Of(SolvendaDb db, Actor who)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(who);
        var id = who.PersonId;
        return db.Piles.Where(p => p.Shared || p.OwnerId == id);
    }

    internal static async Task<PileRow> FindAsync(Work work, string key, CancellationToken cancel) =>
        await Of(work.Db, work.Actor).FirstOrDefaultAsync(p => p.Key == key, cancel)
        ?? throw RefusedException.NotFound("such pile");

    internal static string Name(string? name)
    {
        var plain = (name ?? "").Trim();
        return plain.Length is > 0 and <= MostLetters
            ? plain
            : throw RefusedException.Bad(
                "name_missing",
                $"A pile takes a name of at most {MostLetters} letters.",
                "name"
            );
    }

    internal static string Subject(PileRow pile) => $"piles:{pile.Key}";
}
