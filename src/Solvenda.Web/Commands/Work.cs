using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Commands;

/// <summary>Who acts: a person, a machine, the buyer behind a link, or the house itself.</summary>
public sealed record Actor(long? PersonId, string Name, Roles Roles)
{
    /// <summary>The house itself, for workers.</summary>
    public static readonly Actor House = new(null, "Solvenda", Roles.None);
}

/// <summary>One command being carried out: its transaction, its time, and the two things that every change writes, history and outbox.</summary>
public sealed class Work(SolvendaDb db, Actor actor, DateTime now, DateOnly today)
{
    public SolvendaDb Db => db;

    public Actor Actor => actor;

    /// <summary>UTC.</summary>
    public DateTime Now => now;

    /// <summary>The day at the house.</summary>
    public DateOnly Today => today;

    public void History(
        string subject,
        long? dossier,
        string what,
        string words,
        string? before = null,
        string? after = null,
        string? why = null
    ) =>
        db.History.Add(
            new HistoryRow
            {
                At = now,
                WhoId = actor.PersonId,
                Who = actor.Name,
                DossierId = dossier,
                Subject = subject,
                What = what,
                Words = words,
                Before = before,
                After = after,
                Why = why,
            }
        );

    /// <param name="key">The same for the same thing: the receiver knows a repeat by it.</param>
    public void Send(string kind, string key, string to, string name, byte[] payload) =>
        db.Outbox.Add(
            new OutboxRow
            {
                Kind = kind,
                Key = key,
                To = to,
                Name = name,
                Payload = payload,
                CreatedAt = now,
                NextTryAt = now,
            }
        );

    public Task<string> NumberAsync(string series, CancellationToken cancel) =>
        Series.NextInTransactionAsync(db, series, today.Year, cancel);
}
