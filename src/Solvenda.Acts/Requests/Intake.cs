using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// The one door for everything that comes in: stored raw first, then read outside the one writer, then kept. One act
/// each, in this order.
/// </summary>
public sealed class Intake(ActRunner acts, Reader reader, IDbContextFactory<SolvendaDb> factory, HouseClock clock)
{
    /// <summary>The request and whether it is new.</summary>
    public async Task<(RequestRow Request, bool IsNew)> ReceiveAsync(
        Actor actor,
        TakeIn message,
        CancellationToken cancel,
        string? key = null
    )
    {
        var taken = await acts.RunAsync(actor, message, cancel, key);
        if (taken.IsNew)
            await ReadAsync(taken.Request, cancel);
        await using var db = await factory.CreateDbContextAsync(cancel);
        return (await db.Requests.AsNoTracking().FirstAsync(r => r.Id == taken.Request, cancel), taken.IsNew);
    }

    /// <summary>
    /// Reads a request that is only stored. Reading may take its time (pages, pictures), and nobody else waits for it.
    /// </summary>
    public async Task ReadAsync(long request, CancellationToken cancel)
    {
        ReadResult result;
        await using (var db = await factory.CreateDbContextAsync(cancel))
        {
            var raw = await db
                .Requests.AsNoTracking()
                .Where(r => r.Id == request)
                .Select(r => r.Raw)
                .FirstAsync(cancel);
            result = await reader.ReadAsync(db, raw.Bytes, raw.Filename, clock.Today, cancel);
        }
        await acts.RunAsync(Actor.House, new KeepReading(request, result), cancel);
    }
}
