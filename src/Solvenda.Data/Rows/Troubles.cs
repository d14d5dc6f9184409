using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>Something that a worker could not do: shown to the administrator until it is over.</summary>
[Index(nameof(Worker), nameof(Subject), IsUnique = true)]
public sealed class TroubleRow
{
    public long Id { get; set; }

    /// <summary>Which worker met it: "reading", "post", "upkeep"…</summary>
    public required string Worker { get; set; }

    /// <summary>What it was at: a file, a number; empty for its whole round.</summary>
    public required string Subject { get; set; }

    /// <summary>Why, in a sentence, as far as anybody but an engineer can use it.</summary>
    public required string Words { get; set; }
    public DateTime FirstAt { get; set; }
    public DateTime LastAt { get; set; }
    public int Times { get; set; }

    /// <summary>Not tried any more, until somebody says so.</summary>
    public bool Apart { get; set; }

    /// <summary>Looked at, and left as it is.</summary>
    public bool Left { get; set; }
}
