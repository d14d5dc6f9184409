using Microsoft.EntityFrameworkCore;
using Solvenda.Core.People;

namespace Solvenda.Data.Rows;

/// <summary>Somebody who signs in.</summary>
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

    /// <summary>Where letters of the house go to them; empty: nowhere.</summary>
    public string Mail { get; set; } = "";

    /// <summary>Stands under letters that they send; empty: their name.</summary>
    public string Signature { get; set; } = "";

    /// <summary>When they work, house time.</summary>
    public TimeOnly WorksFrom { get; set; } = new(9, 0);

    /// <inheritdoc cref="WorksFrom" />
    public TimeOnly WorksTo { get; set; } = new(17, 0);

    /// <summary>How they are told of what waits for them, beside seeing it here.</summary>
    public TellBy TellBy { get; set; } = TellBy.Mail;

    /// <summary>What their second factor is made from, in base 32; null while they have none.</summary>
    public string? SecondFactor { get; set; }

    /// <summary>The last step of the second factor that was used: none is taken twice.</summary>
    public long SecondFactorStep { get; set; }
    public bool Active { get; set; } = true;

    /// <summary>Part of every cookie; a change of password or of roles makes the old ones worthless.</summary>
    public string Stamp { get; set; } = "";
}

/// <summary>How somebody is told.</summary>
public enum TellBy
{
    /// <summary>Here alone.</summary>
    Here,

    /// <summary>By a letter at once.</summary>
    Mail,

    /// <summary>By one letter in the morning.</summary>
    Digest,
}

/// <summary>Something that somebody is told: what waits for them, or what became of what they asked.</summary>
[Index(nameof(PersonId), nameof(SeenAt))]
public sealed class NoticeRow
{
    public long Id { get; set; }
    public long PersonId { get; set; }
    public required string Words { get; set; }

    /// <summary>Where it leads within the app.</summary>
    public required string Link { get; set; }
    public DateTime At { get; set; }
    public DateTime? SeenAt { get; set; }

    /// <summary>Whether it still goes into the morning's letter.</summary>
    public bool InDigest { get; set; }
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
    public DateTime? ExpiresAt { get; set; }
    public DateTime? RevokedAt { get; set; }
}

/// <summary>
/// A link that lets one person in once: the first administrator, or somebody who was invited. Only its SHA-256 is kept.
/// </summary>
[PrimaryKey(nameof(Hash))]
public sealed class OneTimeLink
{
    public required string Hash { get; set; }
    public DateTime ExpiresAt { get; set; }
    public DateTime? UsedAt { get; set; }

    /// <summary>Whose it is; null: the first administrator's.</summary>
    public long? PersonId { get; set; }
}

/// <summary>Somebody being signed in; gone once they sign out, so that a copied cookie is worth nothing then.</summary>
[PrimaryKey(nameof(Hash)), Index(nameof(PersonId))]
public sealed class SessionRow
{
    /// <summary>SHA-256 of what the cookie carries.</summary>
    public required string Hash { get; set; }
    public long PersonId { get; set; }
    public DateTime BegunAt { get; set; }

    /// <summary>What they sit at, as their browser says it; in few words.</summary>
    public string Device { get; set; } = "";
}
