using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

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
