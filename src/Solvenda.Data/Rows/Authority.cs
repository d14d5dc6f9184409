using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals.Policies;

namespace Solvenda.Data.Rows;

/// <summary>What somebody may decide alone, of one kind, from a day on: the latest that began counts.</summary>
[Index(nameof(PersonId), nameof(Kind), nameof(From)), Index(nameof(KeyId))]
public sealed class AuthorityRow
{
    public long Id { get; set; }

    /// <summary>Whose it is; null where it is a machine's.</summary>
    public long? PersonId { get; set; }

    /// <summary>The machine's key that it belongs to; null where it is a person's.</summary>
    public long? KeyId { get; set; }

    /// <summary>Code of the kind (Core's AuthorityKinds).</summary>
    public required string Kind { get; set; }

    /// <summary>How far; null: not at all from this day on.</summary>
    public decimal? Limit { get; set; }
    public DateOnly From { get; set; }

    /// <summary>Who gave it, or wants to.</summary>
    public long? GivenById { get; set; }
    public required string GivenByName { get; set; }
    public DateTime GivenAt { get; set; }

    /// <summary>
    /// False while somebody who has that much must still agree: an administrator can only propose what they do not
    /// have.
    /// </summary>
    public bool Holds { get; set; } = true;
}

/// <summary>Days on which somebody is away, and who decides for them meanwhile.</summary>
[Index(nameof(PersonId))]
public sealed class AbsenceRow
{
    public long Id { get; set; }
    public long PersonId { get; set; }
    public DateOnly From { get; set; }

    /// <summary>The last day away.</summary>
    public DateOnly To { get; set; }
    public long? StandInId { get; set; }
}

/// <summary>People of whom any one is asked.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class TeamRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }

    /// <summary>Their sign-in names, apart by commas.</summary>
    public string Members { get; set; } = "";
}

/// <summary>A rule that says when approval is needed, and whose (Core's Policy).</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class PolicyRow
{
    public long Id { get; set; }

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Code { get; set; }

    /// <summary>Code of the figure that is decided on.</summary>
    public required string Figure { get; set; }
    public RouteKind Route { get; set; }

    /// <summary>Conditions as they are written: sheet-margin &lt; 18; value &gt; 10000.</summary>
    public string Conditions { get; set; } = "";

    /// <summary>Keys of people, and codes of teams, apart by commas; empty unless the route is named.</summary>
    public string Named { get; set; } = "";

    /// <summary>What it is for, apart by commas; empty is everything.</summary>
    public string Buyers { get; set; } = "";

    /// <inheritdoc cref="Buyers" />
    public string Groups { get; set; } = "";

    /// <inheritdoc cref="Buyers" />
    public string Families { get; set; } = "";

    /// <inheritdoc cref="Buyers" />
    public string Channels { get; set; } = "";

    /// <inheritdoc cref="Buyers" />
    public string Hands { get; set; } = "";

    /// <summary>Working hours; 0: it waits.</summary>
    public int PatienceHours { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }

    /// <summary>False for one that is drafted, or switched off: nothing fires by it.</summary>
    public bool Holds { get; set; }

    /// <summary>Dropped: no longer shown, and kept for what was asked by it.</summary>
    public bool Dropped { get; set; }
}

/// <summary>A day on which the house does not work.</summary>
[Index(nameof(Day), IsUnique = true)]
public sealed class HolidayRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public DateOnly Day { get; set; }
    public required string Words { get; set; }
}
