using Microsoft.EntityFrameworkCore;
using static Solvenda.Data.SolvendaDb;

namespace Solvenda.Data.Rows;

/// <summary>Documents put together by hand, to be worked through together.</summary>
[Index(nameof(Key), IsUnique = true)]
public sealed class PileRow
{
    public long Id { get; set; }

    /// <summary>By which it is asked for; nobody guesses that of another.</summary>
    public required string Key { get; set; }
    public required string Name { get; set; }
    public long OwnerId { get; set; }

    /// <summary>Whether everybody has it.</summary>
    public bool Shared { get; set; }
    public DateTime CreatedAt { get; set; }

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>A document on a pile.</summary>
[PrimaryKey(nameof(PileId), nameof(Kind), nameof(Number))]
public sealed class PileItemRow
{
    public long PileId { get; set; }

    /// <summary>The list that it stands in: requests, quotes, orders.</summary>
    public required string Kind { get; set; }
    public required string Number { get; set; }
    public DateTime PutAt { get; set; }
    public required string PutBy { get; set; }
}

/// <summary>One thing that is done to many documents, one after the other.</summary>
[Index(nameof(EndedAt))]
public sealed class RoundRow
{
    public long Id { get; set; }

    /// <summary>The list that they stand in.</summary>
    public required string Kind { get; set; }

    /// <summary>What is done, by its name in that list.</summary>
    public required string Deed { get; set; }

    /// <summary>What it was given: a reason, a day; empty where it takes none.</summary>
    public string Given { get; set; } = "";
    public long PersonId { get; set; }
    public DateTime BegunAt { get; set; }

    /// <summary>When somebody stopped it; those that were not done yet are left.</summary>
    public DateTime? StoppedAt { get; set; }
    public DateTime? EndedAt { get; set; }
}

/// <summary>One of the documents of a round, and what came of it.</summary>
[PrimaryKey(nameof(RoundId), nameof(No)), Index(nameof(RoundId), nameof(Outcome))]
public sealed class RoundItemRow
{
    public long RoundId { get; set; }
    public int No { get; set; }
    public required string Number { get; set; }
    public RoundOutcome Outcome { get; set; }

    /// <summary>Why it was refused; empty for all others.</summary>
    public string Words { get; set; } = "";
}

/// <summary>What came of one document of a round.</summary>
public enum RoundOutcome
{
    /// <summary>Its turn has not come.</summary>
    Waiting,
    Done,

    /// <summary>It was not done to it, for a reason.</summary>
    Refused,
}
