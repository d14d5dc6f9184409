using Solvenda.Core.People;

namespace Solvenda.Core.Pricing;

/// <summary>What somebody typed over the base price of a line.</summary>
public enum ByHandKind
{
    /// <summary>Nothing was typed.</summary>
    None,

    /// <summary>Percent off; negative is a surcharge.</summary>
    DiscountPercent,

    /// <summary>An amount off the gross, in the sheet's currency.</summary>
    DiscountAmount,

    /// <summary>The net price per price base, four decimals.</summary>
    NetPrice,

    /// <summary>The margin wanted, in percent of the net; below 100.</summary>
    Margin,
}

/// <summary>The typed step of a price, and who typed it.</summary>
public sealed record ByHand(ByHandKind Kind, decimal Value, Hand? By)
{
    /// <summary>Nothing was typed.</summary>
    public static readonly ByHand None = new(ByHandKind.None, 0m, null);
}
