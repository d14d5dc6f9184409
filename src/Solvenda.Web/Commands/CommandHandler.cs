using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Web.Commands;

/// <summary>The house's calendar: what day it is there.</summary>
public sealed class HouseClock(TimeProvider time, TimeZoneInfo zone)
{
    public DateTime UtcNow => time.GetUtcNow().UtcDateTime;

    public DateTime LocalNow => TimeZoneInfo.ConvertTimeFromUtc(UtcNow, zone);

    public DateOnly Today => DateOnly.FromDateTime(LocalNow);
}

/// <summary>
/// The one way to change a record: loads, asks Core, saves, writes history and outbox, in one transaction. A refusal rolls all of it back.
/// </summary>
public sealed class CommandHandler(IDbContextFactory<SolvendaDb> factory, HouseClock clock, OutboxSignal outbox)
    : IDisposable
{
    // SQLite has one writer. Waiting here, in order, is fairer than its busy timeout; other processes still meet that one.
    private readonly SemaphoreSlim _writer = new(1, 1);

    public async Task<T> RunAsync<T>(Actor actor, Func<Work, Task<T>> act, CancellationToken cancel)
    {
        await _writer.WaitAsync(cancel);
        try
        {
            await using var db = await factory.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var work = new Work(db, actor, clock.UtcNow, clock.Today);
            T result;
            try
            {
                result = await act(work);
                await db.SaveChangesAsync(cancel);
            }
            catch (DbUpdateConcurrencyException)
            {
                throw RefusalException.Clash(
                    "stale",
                    "Somebody else changed it in the meantime; nothing of yours was saved over theirs."
                );
            }
            await transaction.CommitAsync(cancel);
            outbox.Wake();
            return result;
        }
        finally
        {
            _writer.Release();
        }
    }

    public void Dispose() => _writer.Dispose();
}

/// <summary>Wakes the outbox worker when there may be something to send.</summary>
public sealed class OutboxSignal : IDisposable
{
    private readonly SemaphoreSlim _signal = new(0, 1);

    public void Wake()
    {
        try
        {
            _signal.Release();
        }
        catch (SemaphoreFullException)
        {
            // It is awake already.
        }
    }

    public Task<bool> WaitAsync(TimeSpan atMost, CancellationToken cancel) => _signal.WaitAsync(atMost, cancel);

    public void Dispose() => _signal.Dispose();
}
