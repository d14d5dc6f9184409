using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Rounds;

/// <summary>Begins a round: one thing that is done to many documents of a list, one after the other.</summary>
/// <param name="Deed">Its name in that list.</param>
/// <param name="Given">What it takes: a reason, a day; empty where it takes nothing.</param>
/// <param name="Numbers">In the order in which it is done to them.</param>
public sealed record BeginRound(string Kind, string Deed, string Given, ImmutableArray<string> Numbers) : IAct<long>;

[Leaves(typeof(RoundBegun))]
public sealed class BeginRoundAct : Act<BeginRound, long>
{
    public override Right Needs => Rights.Own;

    /// <returns>Key of the round.</returns>
    public override async Task<long> RunAsync(Work work, BeginRound input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var round = new RoundRow
        {
            Kind = input.Kind,
            Deed = input.Deed,
            Given = input.Given,
            PersonId = work.Actor.PersonId!.Value,
            BegunAt = work.Now,
            EndedAt = input.Numbers.IsEmpty ? work.Now : null,
        };
        work.Db.Rounds.Add(round);
        await work.Db.SaveChangesAsync(cancel);
        for (var i = 0; i < input.Numbers.Length; i++)
            work.Db.RoundItems.Add(
                new RoundItemRow
                {
                    RoundId = round.Id,
                    No = i + 1,
                    Number = input.Numbers[i],
                }
            );
        work.Leave(new RoundBegun(input.Kind, input.Deed, input.Numbers.Length), $"rounds:{round.Id}");
        return round.Id;
    }
}
