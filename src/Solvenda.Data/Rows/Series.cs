using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

/// <summary>The next number of a series in a year.</summary>
[PrimaryKey(nameof(Code), nameof(Year))]
public sealed class SeriesRow
{
    public required string Code { get; set; }
    public int Year { get; set; }
    public int Next { get; set; }
}
