using Microsoft.EntityFrameworkCore;
using Solvenda.Core.People;

namespace Solvenda.Data.Rows;

/// <summary>Somebody who signs in. Percentages and values of the authority: null means "may not decide this".</summary>
[Index(nameof(Login), IsUnique = true)]
public sealed class Person
{
    public long Id { get; set; }
    public required string Login { get; set; }
    public required string Name { get; set; }
    public required string Does { get; set; }
    public string PasswordHash { get; set; } = "";
    public Roles Roles { get; set; }
    public long? ReportsToId { get; set; }
    public decimal? DiscountPercent { get; set; }
    public decimal? LeastMarginPercent { get; set; }
    public decimal? Value { get; set; }
    public decimal? CreditOver { get; set; }
    public int? TermsDays { get; set; }
    public decimal? FreightUnder { get; set; }
    public decimal? WithoutCost { get; set; }
    public bool Active { get; set; } = true;

    /// <summary>Part of every cookie; a change of password or of roles makes the old ones worthless.</summary>
    public string Stamp { get; set; } = "";
}

/// <summary>A key of a machine. Only its SHA-256 is kept.</summary>
[Index(nameof(Hash), IsUnique = true)]
public sealed class ApiKey
{
    public long Id { get; set; }
    public required string Name { get; set; }
    public required string Hash { get; set; }

    /// <summary>What it opens, apart by blanks: inbound, read, price, cost, authority.</summary>
    public string Scopes { get; set; } = "";
    public DateTime CreatedAt { get; set; }
    public DateTime? RevokedAt { get; set; }
}

/// <summary>A link that lets one person in once (first administrator). Only its SHA-256 is kept.</summary>
[PrimaryKey(nameof(Hash))]
public sealed class OneTimeLink
{
    public required string Hash { get; set; }
    public DateTime ExpiresAt { get; set; }
    public DateTime? UsedAt { get; set; }
}

/// <summary>Somebody being signed in; gone once they sign out, so that a copied cookie is worth nothing then.</summary>
[PrimaryKey(nameof(Hash)), Index(nameof(PersonId))]
public sealed class SessionRow
{
    /// <summary>SHA-256 of what the cookie carries.</summary>
    public required string Hash { get; set; }
    public long PersonId { get; set; }
    public DateTime BegunAt { get; set; }
}
