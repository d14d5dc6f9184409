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
[Index(nameof(SentAt), nameof(NextTryAt)), Index(nameof(Key), IsUnique = true)]
public sealed class OutboxRow
{
    public long Id { get; set; }

    /// <summary>"mail" or "edi".</summary>
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
}
