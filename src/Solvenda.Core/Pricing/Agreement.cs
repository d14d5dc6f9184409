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
    /// <summary>One buyer.</summary>
    Buyer,

    /// <summary>All buyers of a group.</summary>
    Group,
}

/// <summary>Which items an agreement covers; narrower first.</summary>
public enum RuleScope
{
    /// <summary>One item.</summary>
    Item,

    /// <summary>All items of a family.</summary>
    Family,

    /// <summary>Everything.</summary>
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
    bool Combines
)
{
    /// <summary>
    /// Lines under agreements of one break group reach its breaks together; null: each line counts alone.
    /// </summary>
    public string? BreakGroup { get; init; }

    /// <summary>0 for the narrowest, (buyer, item), to 5 for the widest, (group, all).</summary>
    public int Rank => ((int)Party * 3) + (int)Scope;

    /// <summary>Whether it holds on that day, both ends included.</summary>
    public bool HoldsOn(DateOnly day) => From <= day && (To is null || day <= To);

    /// <summary>
    /// The highest break whose quantity is reached; null where none is: then the agreement does not apply.
    /// </summary>
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

/// <summary>A price for a while, for everybody or for those it names. Both dates are included.</summary>
public sealed record Campaign(string Id, string Words, RuleKind Kind, decimal Value, DateOnly From, DateOnly? To)
{
    /// <summary>Of a value that is money; null: home currency.</summary>
    public Currency? Currency { get; init; }

    /// <summary>What it covers.</summary>
    public RuleScope Scope { get; init; } = RuleScope.All;

    /// <summary>The item, where it covers one.</summary>
    public ItemId? Item { get; init; }

    /// <summary>Code of the family, where it covers one.</summary>
    public string? Family { get; init; }

    /// <summary>Only by this channel; null: by any.</summary>
    public string? Channel { get; init; }

    /// <summary>Only for this buyer; null: for any.</summary>
    public BuyerId? Buyer { get; init; }

    /// <summary>Only for this group; null: for any.</summary>
    public string? Group { get; init; }

    /// <summary>
    /// Whether it is meant for this buyer, item and channel. A sheet without a channel meets no campaign of one.
    /// </summary>
    public bool Covers(Buyer buyer, Item item, string? channel)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(item);
        return (Channel is null || Channel == channel)
            && (Buyer is null || Buyer == buyer.Id)
            && (Group is null || Group == buyer.Group)
            && Scope switch
            {
                RuleScope.Item => Item == item.Id,
                RuleScope.Family => Family == item.Family,
                _ => true,
            };
    }

    /// <summary>Whether it holds on that day, both ends included.</summary>
    public bool HoldsOn(DateOnly day) => From <= day && (To is null || day <= To);
}
