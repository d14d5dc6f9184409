namespace Solvenda.Core.Sheets.Terms;

/// <summary>How the lines of an order go out.</summary>
public enum ShippingRule
{
    /// <summary>Each line on its own day, whole. Where nobody said otherwise.</summary>
    WholeLines,

    /// <summary>Everything on the day of the latest line.</summary>
    AllTogether,

    /// <summary>What is there goes, the rest follows: a line may have several dates.</summary>
    AsItComes,

    /// <summary>Held until they call it off: no date, and nothing is taken from the shelf.</summary>
    OnCall,
}

/// <summary>The rules as people write them.</summary>
public static class ShippingRules
{
    private static readonly Dictionary<string, ShippingRule> Named = new()
    {
        ["all together"] = ShippingRule.AllTogether,
        ["whole lines"] = ShippingRule.WholeLines,
        ["as it comes"] = ShippingRule.AsItComes,
        ["on call"] = ShippingRule.OnCall,
    };

    /// <summary>How each is called.</summary>
    public static IReadOnlyCollection<string> Words => Named.Keys;

    /// <summary>What a rule is called.</summary>
    public static string WordsOf(ShippingRule rule) => Named.First(n => n.Value == rule).Key;

    /// <summary>The rule of that name; whole lines where nothing is said.</summary>
    public static ShippingRule Of(string? words) =>
        words is not null && Named.TryGetValue(words, out var rule) ? rule : ShippingRule.WholeLines;
}
