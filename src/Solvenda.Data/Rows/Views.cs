using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>A saved list: filter, columns, order; somebody's own, or everybody's.</summary>
[Index(nameof(Kind), nameof(OwnerId), nameof(Name), IsUnique = true)]
public sealed class ViewRow
{
    public long Id { get; set; }
    public required string Kind { get; set; }
    public required string Name { get; set; }

    /// <summary>Whose it is; null: everybody's.</summary>
    public long? OwnerId { get; set; }
    public string Filter { get; set; } = "";

    /// <summary>Names of fields, apart by commas; empty: those that the list shows by itself.</summary>
    public string Columns { get; set; } = "";
    public string? Sort { get; set; }
    public bool Down { get; set; }
}
