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

    /// <summary>The buyer, where the way itself knows them: their page, who calls. Null where it does not.</summary>
    public long? BuyerId { get; set; }
}

// What was read stands in the row and is long: what is counted or looked for is found in these alone.
[Index(nameof(Number), IsUnique = true)]
[Index(nameof(State), nameof(Ready), nameof(ReceivedAt))]
[Index(nameof(ReceivedAt), nameof(Channel), nameof(Through), nameof(State))]
[Index(nameof(PoKey), nameof(BuyerId))]
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

    /// <summary>The reading in a few words, for lists: most of a reading is evidence.</summary>
    public string Brief { get; set; } = "";

    /// <summary>The form that it came in (Formats' Syntax); empty before it is read.</summary>
    public string Syntax { get; set; } = "";

    /// <summary>Number of the request that it repeats or names; null for the first.</summary>
    public string? Names { get; set; }

    /// <summary>Number of the request that it goes on from: an answer to our answer; null for none.</summary>
    public string? Follows { get; set; }

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

    /// <summary>The version of it that was weighed last; 0: none yet.</summary>
    public long Weighed { get; set; }

    /// <summary>Currency of what it is worth; empty where nobody can say.</summary>
    public string Currency { get; set; } = "";

    /// <summary>With tax, at our prices.</summary>
    public long? WorthMinor { get; set; }

    /// <summary>So much of its goods is sure, in percent: of lines that were read well.</summary>
    public int? SurePercent { get; set; }

    /// <summary>Whether nothing is left open: it was read, is priced, and no check stops it.</summary>
    public bool Ready { get; set; }

    /// <summary>How it was weighed before anybody touched it, as JSON: rules are tried on it later.</summary>
    public string First { get; set; } = "";

    /// <summary>How often somebody corrected it.</summary>
    public int Corrected { get; set; }

    /// <summary>Whether it went through by itself.</summary>
    public bool Through { get; set; }

    /// <summary>Who has it; null: nobody yet.</summary>
    public long? HandId { get; set; }

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>What the house said of a way in, or of one buyer on it: what may go through by itself.</summary>
[Index(nameof(Channel), nameof(BuyerId), IsUnique = true)]
public sealed class WayRow
{
    public long Id { get; set; }

    /// <summary>As requests say that they came by it.</summary>
    public required string Channel { get; set; }

    /// <summary>Of one buyer alone; null: of all others.</summary>
    public long? BuyerId { get; set; }

    /// <summary>Whether orders go through by themselves.</summary>
    public bool Through { get; set; }

    /// <summary>Whether who asks for a price has a quote begun.</summary>
    public bool Quotes { get; set; }

    /// <summary>Whether such a quote may hold lines whose item nobody knows yet.</summary>
    public bool FreeLines { get; set; }

    /// <summary>Whether a change is put onto its order, to be confirmed anew.</summary>
    public bool Changes { get; set; }
    public int LeastSurePercent { get; set; } = 90;

    /// <summary>Checks whose notices do not hold it back, apart by blanks.</summary>
    public string Passes { get; set; } = "";

    /// <summary>Whether it may go to an address that is not on file; it is kept with the order.</summary>
    public bool NewAddresses { get; set; }

    /// <summary>Who answers for what goes through, and has what comes from nobody we know; null: nobody.</summary>
    public long? KeeperId { get; set; }

    /// <summary>Whether it is open: nothing is taken by it while it is not.</summary>
    public bool Open { get; set; } = true;

    /// <summary>How often it is looked after, in minutes; 0: as often as it can be.</summary>
    public int EveryMinutes { get; set; }

    /// <summary>What the way asks to be told, by name, as JSON; secrets are sealed. Empty for nothing.</summary>
    public string Settings { get; set; } = "";

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
}

/// <summary>By which a buyer writes requests on a page of ours: it makes requests, and shows nothing.</summary>
[Index(nameof(TokenHash), IsUnique = true)]
public sealed class PortalKeyRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }

    /// <summary>Who has it, as they are called.</summary>
    public required string Label { get; set; }

    /// <summary>SHA-256 of the token that its address holds, hexadecimal: the token itself is kept nowhere.</summary>
    public required string TokenHash { get; set; }
    public DateTime CreatedAt { get; set; }
    public DateTime ExpiresAt { get; set; }
    public DateTime? EndedAt { get; set; }
}

/// <summary>What we wrote to whoever sent a request: kept as it went.</summary>
[Index(nameof(RequestId))]
public sealed class AnswerRow
{
    public long Id { get; set; }
    public long RequestId { get; set; }
    public DateTime At { get; set; }
    public required string ByName { get; set; }

    /// <summary>A mail address, or the channel.</summary>
    public required string To { get; set; }
    public required string Subject { get; set; }
    public required string Text { get; set; }
}

/// <summary>Words that are often written to buyers, to begin an answer with.</summary>
[Index(nameof(Name), nameof(Language), IsUnique = true)]
public sealed class TemplateRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Name { get; set; }

    /// <summary>As wordings are named: en, de.</summary>
    public string Language { get; set; } = "en";
    public required string Words { get; set; }
}

/// <summary>What was taken by a way in at one time.</summary>
[Index(nameof(Channel), nameof(At))]
public sealed class RunRow
{
    public long Id { get; set; }
    public required string Channel { get; set; }
    public DateTime At { get; set; }

    /// <summary>Files or messages that were taken.</summary>
    public int Taken { get; set; }

    /// <summary>Those that failed: they are kept, and not taken.</summary>
    public int Failed { get; set; }

    /// <summary>A line each: when, and what.</summary>
    public required string Log { get; set; }
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
