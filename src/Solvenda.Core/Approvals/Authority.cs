using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>What a person may decide alone. Null: may not decide that kind at all.</summary>
/// <param name="DiscountPercent">Highest discount, line or sheet.</param>
/// <param name="LeastMarginPercent">Least margin of a line.</param>
/// <param name="Value">Highest sheet total without tax, home currency.</param>
/// <param name="CreditOver">How far over a credit limit, home currency.</param>
public sealed record Authority(
    decimal? DiscountPercent,
    decimal? LeastMarginPercent,
    decimal? Value,
    decimal? CreditOver
)
{
    /// <summary>Nothing: a machine's, unless it was given some.</summary>
    public static readonly Authority None = new(null, null, null, null);

    /// <summary>Days of payment beyond the buyer's own.</summary>
    public int? TermsDays { get; init; }

    /// <summary>Freight typed under the table's, home currency.</summary>
    public decimal? FreightUnder { get; init; }

    /// <summary>Net of lines whose cost nobody knows, home currency.</summary>
    public decimal? WithoutCost { get; init; }

    /// <summary>How far costs may be typed under the catalogue's, home currency.</summary>
    public decimal? CostUnder { get; init; }

    /// <summary>A margin that everything is above: "any margin".</summary>
    public const decimal AnyMargin = -1_000_000m;

    /// <summary>A value that everything is under: "any value".</summary>
    public const decimal AnyValue = 1_000_000_000m;

    /// <summary>
    /// Who may pass a floor at all: an authority that reaches down to this margin or further, which sellers' do not.
    /// </summary>
    public const decimal FloorPassMargin = 20m;

    /// <summary>Whether somebody with this authority may sell below a floor.</summary>
    public bool PassesFloors => LeastMarginPercent <= FloorPassMargin;
}

/// <summary>Days on which somebody is away, both included, and who decides for them meanwhile.</summary>
/// <param name="StandIn">Null: nobody; it climbs past them.</param>
public sealed record Absence(DateOnly From, DateOnly To, PersonId? StandIn);

/// <summary>A person as far as deciding goes: authority, whom they report to, and whether they are there.</summary>
public sealed record Decider(
    PersonId Id,
    string Name,
    PersonId? ReportsTo,
    Authority Authority,
    Roles Roles = Roles.None,
    bool Active = true
)
{
    /// <summary>When they are away; none on file is always there.</summary>
    public ImmutableArray<Absence> Away { get; init; } = [];

    /// <summary>The absence that they are in on a day; null where they are there.</summary>
    public Absence? AwayOn(DateOnly day) => Away.FirstOrDefault(a => a.From <= day && day <= a.To);

    /// <summary>Their hand.</summary>
    public Hand Hand => new(Id, Name);
}
