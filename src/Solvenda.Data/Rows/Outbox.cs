using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>A file that the house made and sent; kept exactly as it was.</summary>
public sealed class PrintRow
{
    public long Id { get; set; }
    public required string Name { get; set; }
    public required string ContentType { get; set; }
    public required byte[] Bytes { get; set; }
    public DateTime CreatedAt { get; set; }
}

/// <summary>
/// Something to leave the house, written in the same transaction as what caused it; sent by a worker, at least once.
/// </summary>
[
    Index(nameof(SentAt), nameof(NextTryAt)),
    Index(nameof(Key), IsUnique = true),
    Index(nameof(Receipt), nameof(ReceiptBy)),
    Index(nameof(Control))
]
public sealed class OutboxRow
{
    public long Id { get; set; }

    /// <summary>As channels send it: mail, edi, paper, channel, supply.</summary>
    public required string Kind { get; set; }

    /// <summary>Idempotency key, the same at every try.</summary>
    public required string Key { get; set; }
    public required string To { get; set; }
    public required string Name { get; set; }
    public required byte[] Payload { get; set; }
    public DateTime CreatedAt { get; set; }
    public DateTime? SentAt { get; set; }
    public int Tries { get; set; }
    public DateTime NextTryAt { get; set; }
    public string LastError { get; set; } = "";

    /// <summary>Not tried any more, until somebody says so.</summary>
    public bool Apart { get; set; }

    /// <summary>The number of its interchange, by which the receiver acknowledges it; null where there is
    /// none.</summary>
    public string? Control { get; set; }

    /// <summary>Whether they said that they have it.</summary>
    public Receipt Receipt { get; set; }

    /// <summary>When they have to have said so; null where they never do.</summary>
    public DateTime? ReceiptBy { get; set; }

    /// <summary>What they said, or why it did not arrive; empty for nothing.</summary>
    public string ReceiptWords { get; set; } = "";
}

/// <summary>Whether what went out is known to have arrived.</summary>
public enum Receipt
{
    /// <summary>Nobody says so of this kind.</summary>
    None,

    /// <summary>They say so, and have not yet.</summary>
    Awaited,

    /// <summary>They have it.</summary>
    Received,

    /// <summary>It came back, they refused it, or said nothing in time: somebody looks at it.</summary>
    NotReceived,

    /// <summary>Somebody saw to it.</summary>
    Settled,
}
