using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// The one door for everything that comes in: stored raw first, then read by a worker, whatever becomes of whoever
/// brought it.
/// </summary>
public sealed class Intake(ActRunner acts, ReadingBell bell, IDbContextFactory<SolvendaDb> factory)
{
    // Whoever brings something by HTTP waits so long for the reading; a scan of many pages may take longer.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    /// <summary>Stores it, and waits for nobody.</summary>
    public async Task<TakenIn> StoreAsync(Actor actor, TakeIn message, CancellationToken cancel, string? key = null)
    {
        var taken = await acts.RunAsync(actor, message, cancel, key);
        bell.Signal.Wake();
        return taken;
    }

    /// <summary>The request, read unless that takes very long, and whether it is new.</summary>
    public async Task<(RequestRow Request, bool IsNew)> ReceiveAsync(
        Actor actor,
        TakeIn message,
        CancellationToken cancel,
        string? key = null
    )
    {
        var taken = await StoreAsync(actor, message, cancel, key);
        await bell.ReadAsync(taken.Request, () => IsReadAsync(taken.Request, cancel), Patience, cancel);
        await using var db = await factory.CreateDbContextAsync(cancel);
        return (await db.Requests.AsNoTracking().FirstAsync(r => r.Id == taken.Request, cancel), taken.IsNew);
    }

    private async Task<bool> IsReadAsync(long request, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        return await db.Requests.AnyAsync(r => r.Id == request && r.State != RequestState.Reading, cancel);
    }
}
