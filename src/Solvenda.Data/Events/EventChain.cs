using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Events;

/// <summary>An event to be left: facts, about what, by whom, and why.</summary>
/// <param name="Subject">Number of the document or request; kind and key of a record.</param>
public sealed record Leaving(
    IEvent Facts,
    string Subject,
    long? DossierId,
    string? Why,
    long? WhoId,
    string Who,
    DateTime At
);

/// <summary>
/// The chain of events: each carries the hash of the one before, so that none can be changed, put in or taken out
/// without everybody seeing it.
/// Facts enter by their own salted hash (docs/decisions/012).
/// </summary>
public static class EventChain
{
    private const int SaltBytes = 12;
    private static readonly string Start = new('0', 64);

    /// <summary>
    /// Appends events in their order. Within the caller's transaction, which must be the only writer.
    /// </summary>
    public static async Task AppendInTransactionAsync(
        SolvendaDb db,
        IReadOnlyList<Leaving> events,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(events);
        if (events.Count == 0)
            return;
        var last = await db
            .Events.OrderByDescending(e => e.Id)
            .Select(e => new { e.Id, e.Hash })
            .FirstOrDefaultAsync(cancel);
        var (id, hash) = (last?.Id ?? 0, last?.Hash ?? Start);
        foreach (var e in events)
        {
            var row = Row(e, ++id, hash);
            hash = row.Hash;
            db.Events.Add(row);
        }
    }

    /// <summary>The hash of what a person could be known by; null where that was blanked.</summary>
    public static string? FactsHash(EventRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return row.Salt.Length == 0 ? null : Sha256($"{row.Salt}\n{row.Who}\n{row.Facts}\n{row.Why}");
    }

    /// <summary>The hash of an event after the one before it.</summary>
    public static string HashAfter(string before, EventRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return Sha256(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{before}\n{row.Id}\n{row.At:O}\n{row.WhoId}\n{row.DossierId}\n{row.Subject}\n{row.Code}\n{row.Version}\n{row.FactsHash}"
            )
        );
    }

    /// <summary>The hash that the first event follows.</summary>
    public static string Before => Start;

    private static EventRow Row(Leaving e, long id, string before)
    {
        var code = EventCodes.Of(e.Facts);
        var row = new EventRow
        {
            Id = id,
            At = e.At,
            WhoId = e.WhoId,
            Who = e.Who,
            DossierId = e.DossierId,
            Subject = e.Subject,
            Code = code.Code,
            Version = code.Version,
            Facts = EventCodes.ToJson(e.Facts),
            Why = e.Why,
            Salt = Convert.ToHexString(RandomNumberGenerator.GetBytes(SaltBytes)),
            FactsHash = "",
            Hash = "",
        };
        row.FactsHash = FactsHash(row)!;
        row.Hash = HashAfter(before, row);
        return row;
    }

    private static string Sha256(string text) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
