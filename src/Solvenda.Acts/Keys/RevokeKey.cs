using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Keys;

/// <summary>Revokes a machine's key: from here on it opens nothing.</summary>
public sealed record RevokeKey(long Key) : IAct<bool>;

[Leaves(typeof(KeyChanged))]
public sealed class RevokeKeyAct : Act<RevokeKey, bool>
{
    public override Right Needs => Rights.Administer;

    /// <returns>True.</returns>
    public override async Task<bool> RunAsync(Work work, RevokeKey input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var key =
            await work.Db.ApiKeys.FirstOrDefaultAsync(k => k.Id == input.Key && k.RevokedAt == null, cancel)
            ?? throw RefusedException.NotFound("such key");
        key.RevokedAt = work.Now;
        work.Leave(new KeyChanged(key.Name, key.Scopes, null, true), Work.SubjectOf("keys", key.Id));
        return true;
    }
}
