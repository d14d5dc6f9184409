using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Policies;

/// <summary>Lets a policy hold, or no longer.</summary>
public sealed record HoldPolicy(long Id, bool Holds, long? Seen) : IAct<long>;

[Leaves(typeof(PolicySaved))]
public sealed class HoldPolicyAct(Telling telling) : Act<HoldPolicy, long>
{
    public override Right Needs => Rights.Administer;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, HoldPolicy input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await PolicySteps.FindAsync(work, input.Id, input.Seen, cancel);
        if (row.Holds == input.Holds)
            return row.Id;
        row.Holds = input.Holds;
        row.Version++;
        var sentence = await PolicyDraft.SentenceAsync(work.Db, row, cancel);
        work.Leave(new PolicySaved(row.Code, sentence, sentence, row.Holds), "policies");
        if (!row.Holds)
            await PolicySteps.TellAsync(work, telling, $"{work.Actor.Name} switched off: {sentence}", cancel);
        return row.Id;
    }
}
