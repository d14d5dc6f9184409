using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Acting;

/// <summary>
/// One act being carried out: its transaction, its time, and the two things that follow from it, events and outbox.
/// </summary>
public sealed class Work(SolvendaDb db, Actor actor, DateTime now, DateOnly today, Act act)
{
    private readonly List<Leaving> _leaving = [];
    private readonly HashSet<string> _touched = [];
    private readonly List<Action> _once = [];

    public SolvendaDb Db => db;

    public Actor Actor => actor;

    /// <summary>What events were left about.</summary>
    internal IReadOnlyCollection<string> Touched => _touched;

    /// <summary>UTC.</summary>
    public DateTime Now => now;

    /// <summary>The day at the house.</summary>
    public DateOnly Today => today;

    /// <summary>Leaves an event; it enters the chain when the act is done.</summary>
    /// <exception cref="InvalidOperationException">The act does not say that it leaves such events.</exception>
    public void Leave(IEvent facts, string subject, long? dossier = null, string? why = null)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (!act.Leaves.Contains(facts.GetType()))
            throw new InvalidOperationException(
                $"{act.GetType().Name} does not say that it leaves {facts.GetType().Name}."
            );
        _touched.Add(subject);
        _leaving.Add(new Leaving(facts, subject, dossier, why, actor.PersonId, actor.Name, now));
    }

    /// <summary>Wakes who looks at a subject that no event is about.</summary>
    public void Touch(string subject) => _touched.Add(subject);

    /// <summary>Does something when all of it is stored, and only then; it must not fail.</summary>
    public void OnceStored(Action then) => _once.Add(then);

    internal void Stored() => _once.ForEach(then => then());

    /// <summary>Puts the events left so far into the chain, for work that goes in portions.</summary>
    public async Task ChainAsync(CancellationToken cancel)
    {
        await EventChain.AppendInTransactionAsync(db, _leaving, cancel);
        _leaving.Clear();
    }

    /// <param name="key">The same for the same thing: the receiver knows a repeat by it.</param>
    public OutboxRow Send(string kind, string key, string to, string name, byte[] payload)
    {
        var row = new OutboxRow
        {
            Kind = kind,
            Key = key,
            To = to,
            Name = name,
            Payload = payload,
            CreatedAt = now,
            NextTryAt = now,
        };
        db.Outbox.Add(row);
        return row;
    }

    public Task<string> NumberAsync(NumberSeries series, CancellationToken cancel) =>
        Series.NextInTransactionAsync(db, series, today.Year, cancel);

    /// <summary>The subject of a record's events.</summary>
    public static string SubjectOf(string kind, long id) => string.Create(CultureInfo.InvariantCulture, $"{kind}:{id}");
}
