using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;

namespace Solvenda.Data.Rows;

/// <summary>One thing that came in, exactly as it came. Never changed, never deleted.</summary>
[Index(nameof(OwnId)), Index(nameof(Hash)), Index(nameof(Delivery), IsUnique = true)]
public sealed class RawMessage
{
    public long Id { get; set; }
    public required string Channel { get; set; }
    public string? Filename { get; set; }
    public string? ContentType { get; set; }
    public required byte[] Bytes { get; set; }

    /// <summary>SHA-256 of the bytes, hexadecimal.</summary>
    public required string Hash { get; set; }

    /// <summary>
    /// What the sender identifies it by: Message-ID, interchange number; null where they give nothing.
    /// </summary>
    public string? OwnId { get; set; }

    /// <summary>
    /// One delivery by a channel: a file in a folder that is met again before it was moved away. Null where the channel
    /// has none.
    /// </summary>
    public string? Delivery { get; set; }
    public DateTime ReceivedAt { get; set; }
}

[Index(nameof(Number), IsUnique = true), Index(nameof(State))]
public sealed class RequestRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public long RawId { get; set; }
    public RawMessage Raw { get; set; } = null!;

    /// <summary>Which message of its file it is, from 0; several messages in one file are several requests.</summary>
    public int Message { get; set; }
    public long? DossierId { get; set; }
    public RequestState State { get; set; }
    public string Reason { get; set; } = "";
    public required string Channel { get; set; }
    public string Kind { get; set; } = "";
    public long? BuyerId { get; set; }
    public string FromWords { get; set; } = "";
    public string Subject { get; set; } = "";
    public string PoKey { get; set; } = "";

    /// <summary>The form that it came in (Formats' Syntax); empty before it is read.</summary>
    public string Syntax { get; set; } = "";

    /// <summary>Number of the request that it repeats or names; null for the first.</summary>
    public string? Names { get; set; }

    /// <summary>Number of the order that it was about, where it changed one that was there; null else.</summary>
    public string? Changes { get; set; }

    /// <summary>The text of its first part; empty where nothing could be read.</summary>
    public string Text { get; set; } = "";

    /// <summary>The parts that evidence points into, as JSON; empty where nothing could be opened.</summary>
    public string Parts { get; set; } = "";

    /// <summary>The reading as JSON; empty where nothing could be read.</summary>
    public string Reading { get; set; } = "";
    public DateTime ReceivedAt { get; set; }

    /// <summary>How often somebody began to read it: one that ends the process each time is not met for ever.</summary>
    public int ReadTries { get; set; }

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>
/// What the columns of a sender's tables mean, as a person said: remembered by the words at their heads.
/// </summary>
[PrimaryKey(nameof(Sender), nameof(Heads))]
public sealed class ColumnsRow
{
    public required string Sender { get; set; }
    public required string Heads { get; set; }

    /// <summary>Column and meaning, as JSON: {"0":"code","2":"quantity"}.</summary>
    public required string Columns { get; set; }
    public string Who { get; set; } = "";
    public DateTime At { get; set; }
}
