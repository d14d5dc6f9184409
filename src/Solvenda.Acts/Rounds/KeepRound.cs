using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Rounds;

/// <summary>What came of one document of a round.</summary>
/// <param name="Words">Why it was refused; empty where it was done.</param>
public sealed record RoundStep(int No, RoundOutcome Outcome, string Words);

/// <summary>Keeps what came of documents of a round, so that after a restart it goes on where it was.</summary>
/// <param name="Ended">Whether nothing of it is left to do.</param>
public sealed record KeepRound(long Round, ImmutableArray<RoundStep> Steps, bool Ended) : IAct<int>;

public sealed class KeepRoundAct : Act<KeepRound, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many were kept.</returns>
    public override async Task<int> RunAsync(Work work, KeepRound input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var steps = input.Steps.ToDictionary(s => s.No);
        var keys = steps.Keys.ToList();
        foreach (
            var row in await work
                .Db.RoundItems.Where(i => i.RoundId == input.Round && EF.Parameter(keys).Contains(i.No))
                .ToListAsync(cancel)
        )
            (row.Outcome, row.Words) = (steps[row.No].Outcome, steps[row.No].Words);
        if (input.Ended)
            (await work.Db.Rounds.FirstAsync(r => r.Id == input.Round, cancel)).EndedAt = work.Now;
        return input.Steps.Length;
    }
}
