using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Portal;

/// <summary>Ends a buyer's page: its address leads nowhere from now on.</summary>
public sealed record EndPortalKey(long Key) : IAct<long>;

[Leaves(typeof(PortalKeyChanged))]
public sealed class EndPortalKeyAct : Act<EndPortalKey, long>
{
    public override Right Needs => Rights.Write;

    public override async Task<long> RunAsync(Work work, EndPortalKey input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var key =
            await work.Db.PortalKeys.FirstOrDefaultAsync(k => k.Id == input.Key, cancel)
            ?? throw RefusedException.NotFound("such page");
        if (key.EndedAt is not null)
            throw RefusedException.Clash("portal_ended", "It was ended already.");
        key.EndedAt = work.Now;
        work.Leave(new PortalKeyChanged(key.Label, true), Work.SubjectOf("buyers", key.BuyerId));
        return key.Id;
    }
}
