using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>
/// What an act left behind. Only ever added to, and chained by hash from the first one: facts enter by a hash of their
/// own, with a salt, so that a
/// person's data can be blanked later (name, facts, reason and salt) without breaking the chain.
/// </summary>
[Index(nameof(DossierId)), Index(nameof(Subject)), Index(nameof(Code), nameof(Id))]
public sealed class EventRow
{
    /// <summary>Counted from 1 without a gap.</summary>
    public long Id { get; set; }

    /// <summary>UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>Key of the person; null for a machine, a buyer, the house itself.</summary>
    public long? WhoId { get; set; }

    /// <summary>As they were called; empty once it was blanked.</summary>
    public required string Who { get; set; }
    public long? DossierId { get; set; }

    /// <summary>Number of the document or request; kind and key of a record.</summary>
    public required string Subject { get; set; }

    /// <summary>Stable code, such as "quote.sent".</summary>
    public required string Code { get; set; }

    /// <summary>Version of the facts' shape.</summary>
    public int Version { get; set; }

    /// <summary>As JSON; empty once it was blanked.</summary>
    public required string Facts { get; set; }

    /// <summary>The reason that somebody gave; null where none is asked for.</summary>
    public string? Why { get; set; }

    /// <summary>Random, so that what was blanked cannot be guessed from its hash.</summary>
    public required string Salt { get; set; }

    /// <summary>SHA-256 of salt, name, facts and reason.</summary>
    public required string FactsHash { get; set; }

    /// <summary>SHA-256 of the hash before, and everything of this one with its facts by their hash.</summary>
    public required string Hash { get; set; }
}

/// <summary>
/// What was answered to a change that named a key: the same again gets the same answer and changes nothing.
/// </summary>
[PrimaryKey(nameof(Actor), nameof(Key))]
public sealed class RepeatRow
{
    public required string Actor { get; set; }
    public required string Key { get; set; }

    /// <summary>Name of the act, and SHA-256 of what it was given.</summary>
    public required string Act { get; set; }
    public required string Input { get; set; }
    public required string Answer { get; set; }
    public DateTime At { get; set; }
}
