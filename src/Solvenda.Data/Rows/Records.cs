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

/// <summary>One thing that happened: who, when, what, before, after, why. Only ever added to.</summary>
[Index(nameof(DossierId)), Index(nameof(Subject))]
public sealed class HistoryRow
{
    public long Id { get; set; }
    public DateTime At { get; set; }
    public long? WhoId { get; set; }
    public required string Who { get; set; }
    public long? DossierId { get; set; }

    /// <summary>Number of the document, request or record.</summary>
    public required string Subject { get; set; }

    /// <summary>Stable code, such as "quote.sent".</summary>
    public required string What { get; set; }

    /// <summary>The same in words.</summary>
    public required string Words { get; set; }
    public string? Before { get; set; }
    public string? After { get; set; }
    public string? Why { get; set; }
}

/// <summary>Something to leave the house, written in the same transaction as what caused it; sent by a worker, at least once.</summary>
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
}

/// <summary>The next number of a series in a year.</summary>
[PrimaryKey(nameof(Code), nameof(Year))]
public sealed class SeriesRow
{
    public required string Code { get; set; }
    public int Year { get; set; }
    public int Next { get; set; }
}

/// <summary>Something to do at a date for a dossier.</summary>
[Index(nameof(DossierId)), Index(nameof(Due))]
public sealed class FollowUpRow
{
    public long Id { get; set; }
    public long DossierId { get; set; }
    public long PersonId { get; set; }
    public DateTime Due { get; set; }
    public required string Words { get; set; }
    public DateTime? DoneAt { get; set; }
}
