using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;

namespace Solvenda.Core.Pricing;

/// <summary>What an agreement or a campaign does to a price.</summary>
public enum RuleKind
{
    /// <summary>The value is the price.</summary>
    Fixed,

    /// <summary>The value is a percentage off.</summary>
    PercentOff,

    /// <summary>The value is an amount off the price, in the rule's currency.</summary>
    AmountOff,
}

/// <summary>Who an agreement is with.</summary>
public enum RuleParty
{
    Buyer,
    Group,
}

/// <summary>Which items an agreement covers; narrower first.</summary>
public enum RuleScope
{
    Item,
    Family,
    All,
}

/// <summary>A value that counts from a quantity on, in the rule's unit (the stock unit).</summary>
public sealed record QuantityBreak(decimal From, decimal Value);

/// <summary>A price agreed with a buyer or a group. Both dates are included.</summary>
public sealed record Agreement(
    string Id,
    string Words,
    RuleParty Party,
    BuyerId? Buyer,
    string? Group,
    RuleScope Scope,
    ItemId? Item,
    string? Family,
    RuleKind Kind,
    Currency? Currency,
    ImmutableArray<QuantityBreak> Breaks,
    DateOnly From,
    DateOnly? To,
    bool Combines)
{
    /// <summary>0 for the narrowest, (buyer, item), to 5 for the widest, (group, all).</summary>
    public int Rank => ((int)Party * 3) + (int)Scope;

    public bool HoldsOn(DateOnly day) => From <= day && (To is null || day <= To);

    /// <summary>The highest break whose quantity is reached; null where none is: then the agreement does not apply.</summary>
    public QuantityBreak? BreakAt(decimal quantity)
    {
        QuantityBreak? reached = null;
        foreach (var b in Breaks)
        {
            if (b.From <= quantity && (reached is null || b.From > reached.From))
                reached = b;
        }
        return reached;
    }
}

/// <summary>A price for everybody for a while. Both dates are included.</summary>
public sealed record Campaign(string Id, string Words, RuleKind Kind, decimal Value, DateOnly From, DateOnly? To)
{
    public bool HoldsOn(DateOnly day) => From <= day && (To is null || day <= To);
}
