using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Data;

namespace Solvenda.Web.Workers;

/// <summary>
/// What workers could not do, in memory and in the database: how long each waits before it is tried again, and what is
/// set apart.
/// </summary>
public sealed partial class Troubles(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    TimeProvider time,
    ILogger<Troubles> log
) : IDisposable
{
    // What is no passing trouble is tried so often, and then set apart.
    private const int MostTries = 3;
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    private sealed record Met(int Times, DateTimeOffset NextTry, bool Apart);

    private readonly ConcurrentDictionary<(string Worker, string Subject), Met> _met = new();
    private readonly SemaphoreSlim _loading = new(1, 1);
    private volatile bool _loaded;

    /// <summary>Whether something may be tried now.</summary>
    public async Task<bool> MayTryAsync(string worker, string subject, CancellationToken cancel)
    {
        await LoadAsync(cancel);
        return !_met.TryGetValue((worker, subject), out var met) || (!met.Apart && met.NextTry <= time.GetUtcNow());
    }

    /// <summary>Whether something is not tried any more.</summary>
    public bool IsApart(string worker, string subject) => _met.TryGetValue((worker, subject), out var met) && met.Apart;

    /// <summary>Keeps that something failed. Never throws but for cancellation.</summary>
    /// <param name="mayBeSetApart">False for what has to go on, such as a whole round.</param>
    public async Task MetAsync(
        string worker,
        string subject,
        Exception why,
        bool mayBeSetApart,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(why);
        Failed(log, why, worker, subject);
        var met = _met.AddOrUpdate((worker, subject), _ => After(0), (_, before) => After(before.Times));
        await KeepAsync(worker, subject, why.Message, met.Apart, cancel);
        return;

        Met After(int times)
        {
            var wait = TimeSpan.FromSeconds(Math.Min(Longest.TotalSeconds, Math.Pow(2, Math.Min(times, 20))));
            return new Met(times + 1, time.GetUtcNow() + wait, mayBeSetApart && times + 1 >= MostTries && !Passes(why));
        }
    }

    /// <summary>Keeps that something is not tried any more.</summary>
    public Task ApartAsync(string worker, string subject, string words, CancellationToken cancel)
    {
        _met[(worker, subject)] = new Met(MostTries, DateTimeOffset.MaxValue, true);
        return KeepAsync(worker, subject, words, apart: true, cancel);
    }

    /// <summary>Ends a trouble, where there was one: it was done.</summary>
    public async Task OverAsync(string worker, string subject, CancellationToken cancel)
    {
        if (!_met.TryGetValue((worker, subject), out var met) || met.Apart)
            return;
        await acts.RunAsync(Actor.House, new EndTrouble(worker, subject), cancel);
        Forget(worker, subject);
    }

    /// <summary>Lets something be tried at once.</summary>
    public void Forget(string worker, string subject) => _met.TryRemove((worker, subject), out _);

    public void Dispose() => _loading.Dispose();

    // A full disk, a database or a file that somebody else holds: it goes by itself.
    private static bool Passes(Exception e) =>
        e
            is IOException
                or TimeoutException
                or OperationCanceledException
                or System.Net.Sockets.SocketException
                or HttpRequestException
        || e is SqliteException { SqliteErrorCode: not (1 or 19 or 20 or 25) }
        || (e.InnerException is { } inner && Passes(inner));

    private async Task LoadAsync(CancellationToken cancel)
    {
        if (_loaded)
            return;
        await _loading.WaitAsync(cancel);
        try
        {
            await using var db = await factory.CreateDbContextAsync(cancel);
            foreach (var row in await db.Troubles.AsNoTracking().ToListAsync(cancel))
                _met.TryAdd((row.Worker, row.Subject), new Met(row.Times, DateTimeOffset.MinValue, row.Apart));
            _loaded = true;
        }
        finally
        {
            _loading.Release();
        }
    }

    private async Task KeepAsync(string worker, string subject, string words, bool apart, CancellationToken cancel)
    {
        try
        {
            await acts.RunAsync(Actor.House, new KeepTrouble(worker, subject, words, apart), cancel);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // The database itself may be the trouble; it stands in the log, and is met again.
            Failed(log, e, worker, subject);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Worker} stumbled over “{Subject}”")]
    private static partial void Failed(ILogger logger, Exception exception, string worker, string subject);
}
