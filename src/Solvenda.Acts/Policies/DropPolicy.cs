using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Policies;

/// <summary>Drops a policy. It is kept for what was asked by it, and is in nobody's way.</summary>
public sealed record DropPolicy(long Id, long? Seen) : IAct<long>;

[Leaves(typeof(PolicySaved))]
public sealed class DropPolicyAct(Telling telling) : Act<DropPolicy, long>
{
    public override Right Needs => Rights.Administer;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, DropPolicy input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await PolicySteps.FindAsync(work, input.Id, input.Seen, cancel);
        var sentence = await PolicyDraft.SentenceAsync(work.Db, row, cancel);
        (row.Dropped, row.Holds) = (true, false);
        row.Version++;
        work.Leave(new PolicySaved(row.Code, sentence, null, false), "policies");
        await PolicySteps.TellAsync(work, telling, $"{work.Actor.Name} dropped: {sentence}", cancel);
        return row.Id;
    }
}
