using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;

namespace Solvenda.Data.Rows;

/// <summary>What the house says on a kind of paper, in a language, to all buyers or to some.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class PaperTextRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>What it is called in the house.</summary>
    public required string Code { get; set; }
    public PaperKind Paper { get; set; }

    /// <summary>ISO 639-1.</summary>
    public string Language { get; set; } = "en";

    /// <summary>Of one buyer alone; null: of more.</summary>
    public long? BuyerId { get; set; }

    /// <summary>Of a group of buyers alone; empty: of all.</summary>
    public string Group { get; set; } = "";

    /// <summary>Over the lines; empty: nothing.</summary>
    public string Above { get; set; } = "";

    /// <summary>Under the totals; empty: nothing.</summary>
    public string Below { get; set; } = "";
}
