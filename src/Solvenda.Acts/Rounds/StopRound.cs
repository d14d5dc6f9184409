using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Rounds;

/// <summary>Stops one's round: what was done is done, the rest is left.</summary>
public sealed record StopRound(long Round) : IAct<long>;

[Leaves(typeof(RoundStopped))]
public sealed class StopRoundAct : Act<StopRound, long>
{
    public override Right Needs => Rights.Own;

    public override async Task<long> RunAsync(Work work, StopRound input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var me = work.Actor.PersonId;
        var round =
            await work.Db.Rounds.FirstOrDefaultAsync(r => r.Id == input.Round && r.PersonId == me, cancel)
            ?? throw RefusedException.NotFound("such round of yours");
        if (round.EndedAt is not null || round.StoppedAt is not null)
            return round.Id;
        round.StoppedAt = work.Now;
        work.Leave(new RoundStopped(round.Kind, round.Deed), $"rounds:{round.Id}");
        return round.Id;
    }
}
