using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Policies;

/// <summary>Writes a policy, or changes one. A new one is a draft: nothing fires by it until it is let hold.</summary>
/// <param name="Id">Null: a new one.</param>
/// <param name="Seen">Version that was looked at; of a new one nothing.</param>
public sealed record SavePolicy(long? Id, PolicyDraft Draft, long? Seen) : IAct<long>;

[Leaves(typeof(PolicySaved))]
public sealed class SavePolicyAct(Telling telling) : Act<SavePolicy, long>
{
    public override Right Needs => Rights.Administer;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, SavePolicy input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = input.Id is { } id
            ? await PolicySteps.FindAsync(work, id, input.Seen, cancel)
            : new PolicyRow { Code = "", Figure = "" };
        var before = input.Id is null ? null : await PolicyDraft.SentenceAsync(work.Db, row, cancel);
        if (row.Code.Length > 0 && row.Code != input.Draft.Code)
            throw RefusedException.Bad("policy", "What it is called by stays; nothing was saved.", "code");
        await input.Draft.IntoAsync(work.Db, row, cancel);
        if (input.Id is null)
        {
            if (await work.Db.Policies.AnyAsync(p => p.Code == row.Code, cancel))
                throw RefusedException.Bad("policy", "There is, or was, one of that name; nothing was saved.", "code");
            work.Db.Policies.Add(row);
        }
        row.Version++;
        await work.Db.SaveChangesAsync(cancel);
        var after = await PolicyDraft.SentenceAsync(work.Db, row, cancel);
        work.Leave(new PolicySaved(row.Code, before, after, row.Holds), "policies");
        if (row.Holds)
            await PolicySteps.TellAsync(work, telling, $"{work.Actor.Name} changed what is asked: {after}", cancel);
        return row.Id;
    }
}
