using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Pricing;

/// <summary>What an automatic charge is counted by.</summary>
public enum ChargeBasis
{
    /// <summary>Once for each line that it covers.</summary>
    Line,

    /// <summary>For each unit of the lines that it covers.</summary>
    Piece,

    /// <summary>Once for the sheet.</summary>
    Sheet,
}

/// <summary>A charge that comes by rule: cutting, small order, dangerous goods. Both dates are included.</summary>
/// <param name="Id">Code of the rule; the kind of a charge on the sheet.</param>
/// <param name="DangerousOnly">Only for lines, or sheets with a line, of dangerous goods.</param>
/// <param name="Unit">Only for lines in this unit (cut lengths, not coils); null: in any.</param>
/// <param name="BelowGoods">Only on sheets whose goods are worth less, in the rule's currency; null: on any.</param>
/// <param name="Amount">In the rule's currency.</param>
public sealed record ChargeRule(
    string Id,
    string Words,
    ChargeBasis Basis,
    RuleScope Scope,
    ItemId? Item,
    string? Family,
    bool DangerousOnly,
    Unit? Unit,
    decimal? BelowGoods,
    decimal Amount,
    Currency Currency,
    DateOnly From,
    DateOnly? To
)
{
    /// <summary>Whether it holds on that day, both ends included.</summary>
    public bool HoldsOn(DateOnly day) => From <= day && (To is null || day <= To);

    /// <summary>Whether a line of this item in this unit is meant.</summary>
    public bool Covers(Item item, Unit unit)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (!DangerousOnly || item.DangerousGoods is not null)
            && (Unit is null || Unit == unit)
            && Scope switch
            {
                RuleScope.Item => Item == item.Id,
                RuleScope.Family => Family == item.Family,
                _ => true,
            };
    }
}
