using System.Collections.Frozen;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Acting;

/// <summary>
/// Carries acts out, and is the only place that opens a transaction to change something: it checks the right, takes a
/// key that makes a repeat safe, runs,
/// saves, appends the events to the chain, commits, and wakes who waits.
/// </summary>
public sealed class ActRunner(
    IDbContextFactory<SolvendaDb> factory,
    HouseClock clock,
    OutboxSignal outbox,
    Pulse pulse,
    PriceBooks books,
    IEnumerable<Act> acts
) : IDisposable
{
    // SQLite has one writer. Waiting here, in order, is fairer than its busy timeout; other processes still meet that
    // one.
    private readonly SemaphoreSlim _writer = new(1, 1);
    private readonly FrozenDictionary<Type, Act> _acts = acts.ToFrozenDictionary(a => a.Input);

    /// <summary>The act that takes such an input.</summary>
    public Act ActOf(Type input) => _acts[input];

    /// <summary>Carries it out for somebody, or throws a <see cref="RefusedException"/> with nothing changed.</summary>
    /// <param name="key">A key of the caller's: the same input with it again gets the same answer, and changes
    /// nothing.</param>
    public async Task<TAnswer> RunAsync<TAnswer>(
        Actor actor,
        IAct<TAnswer> input,
        CancellationToken cancel,
        string? key = null
    ) => (await RunOnceAsync(actor, input, key, cancel)).Answer;

    /// <summary>Carries it out to see what would come of it, and takes all of it back.</summary>
    /// <param name="look">Reads it, before it is taken back.</param>
    /// <inheritdoc cref="RunAsync{TAnswer}" />
    public async Task<TSeen> TryAsync<TAnswer, TSeen>(
        Actor actor,
        IAct<TAnswer> input,
        Func<SolvendaDb, TAnswer, Task<TSeen>> look,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(actor);
        ArgumentNullException.ThrowIfNull(input);
        ArgumentNullException.ThrowIfNull(look);
        var act = ActFor(actor, input);
        var runs = (IRuns<TAnswer>)act;
        var prepared = await PrepareAsync(runs, actor, input, cancel);
        await _writer.WaitAsync(cancel);
        try
        {
            await using var db = await factory.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            var work = new Work(db, actor, clock.UtcNow, clock.Today, act);
            var answer = await runs.RunAsync(work, input, prepared, cancel);
            await db.SaveChangesAsync(cancel);
            return await look(db, answer);
        }
        finally
        {
            _writer.Release();
        }
    }

    /// <summary>The same, and whether it had been done under the key before.</summary>
    /// <inheritdoc cref="RunAsync{TAnswer}" />
    public async Task<(TAnswer Answer, bool Again)> RunOnceAsync<TAnswer>(
        Actor actor,
        IAct<TAnswer> input,
        string? key,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(actor);
        ArgumentNullException.ThrowIfNull(input);
        var act = ActFor(actor, input);
        if (key is { Length: > MostKey })
            throw RefusedException.Bad(
                "too_long",
                $"An idempotency key has at most {MostKey} letters.",
                "Idempotency-Key"
            );
        var runs = (IRuns<TAnswer>)act;
        var repeat = key is null ? null : Repeat(actor, key, act, input);
        object? prepared;
        try
        {
            prepared = await PrepareAsync(runs, actor, input, cancel);
        }
        catch (RefusedException) when (repeat is not null)
        {
            // What was done under this key is not refused for being done.
            if (await BeforeAsync(repeat, cancel) is { } done)
                return (JsonSerializer.Deserialize<TAnswer>(done)!, true);
            throw;
        }
        await _writer.WaitAsync(cancel);
        try
        {
            return await WriteAsync(runs, act, actor, input, prepared, repeat, cancel);
        }
        finally
        {
            _writer.Release();
        }
    }

    // Refused where it is not theirs to do.
    private Act ActFor(Actor actor, object input)
    {
        var act = _acts[input.GetType()];
        return act.Needs.Allows(actor) ? act : throw RefusedException.Forbidden("That is not yours to do.");
    }

    // Everything of it, or nothing.
    private async Task<(TAnswer Answer, bool Again)> WriteAsync<TAnswer>(
        IRuns<TAnswer> runs,
        Act act,
        Actor actor,
        IAct<TAnswer> input,
        object? prepared,
        RepeatRow? repeat,
        CancellationToken cancel
    )
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (repeat is not null)
            await db.Repeats.Where(r => r.At < clock.UtcNow - KeyKept).ExecuteDeleteAsync(cancel);
        if (repeat is not null && await BeforeAsync(db, repeat, cancel) is { } before)
            return (JsonSerializer.Deserialize<TAnswer>(before)!, true);
        var work = new Work(db, actor, clock.UtcNow, clock.Today, act);
        TAnswer answer;
        try
        {
            answer = await runs.RunAsync(work, input, prepared, cancel);
            await db.SaveChangesAsync(cancel);
            // From here on rows only come.
            db.ChangeTracker.AutoDetectChangesEnabled = false;
            await work.ChainAsync(cancel);
            if (repeat is not null)
            {
                (repeat.Answer, repeat.At) = (JsonSerializer.Serialize(answer), work.Now);
                db.Repeats.Add(repeat);
            }
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            throw RefusedException.Clash(
                "stale",
                "Somebody else changed it in the meantime; nothing of yours was saved over theirs."
            );
        }
        await transaction.CommitAsync(cancel);
        work.Stored();
        outbox.Wake();
        pulse.Tell(work.Touched);
        return (answer, false);
    }

    private async Task<object?> PrepareAsync<TAnswer>(
        IRuns<TAnswer> act,
        Actor actor,
        IAct<TAnswer> input,
        CancellationToken cancel
    )
    {
        await using var ahead = await factory.CreateDbContextAsync(cancel);
        // Where prices changed, the book is read anew by whoever comes next, and nobody else waits for it.
        await books.FreshenAsync(ahead, cancel);
        return await act.PrepareAsync(new Ahead(ahead, actor, clock.UtcNow, clock.Today), input, cancel);
    }

    public void Dispose() => _writer.Dispose();

    private const int MostKey = 200;

    /// <summary>So long a key is remembered.</summary>
    public static readonly TimeSpan KeyKept = TimeSpan.FromDays(30);

    private static RepeatRow Repeat(Actor actor, string key, Act act, object input) =>
        new()
        {
            Actor = actor.Name,
            Key = key,
            Act = act.GetType().Name,
            Input = Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(input, input.GetType()))),
            Answer = "",
        };

    private async Task<string?> BeforeAsync(RepeatRow now, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        return await BeforeAsync(db, now, cancel);
    }

    private async Task<string?> BeforeAsync(SolvendaDb db, RepeatRow now, CancellationToken cancel)
    {
        var before = await db
            .Repeats.AsNoTracking()
            .FirstOrDefaultAsync(
                r => r.Actor == now.Actor && r.Key == now.Key && r.At >= clock.UtcNow - KeyKept,
                cancel
            );
        if (before is null)
            return null;
        return before.Act == now.Act && before.Input == now.Input
            ? before.Answer
            : throw RefusedException.Clash("key_used", "That key was used for something else; nothing was changed.");
    }
}
