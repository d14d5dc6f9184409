using System.Collections.Immutable;

namespace Solvenda.Core.Approvals;

/// <summary>How the limit of a kind of authority is read and said.</summary>
public enum LimitUnit
{
    /// <summary>A percentage, up to.</summary>
    Percent,

    /// <summary>A percentage, down to: less is more authority.</summary>
    LeastPercent,

    /// <summary>An amount in home currency, up to.</summary>
    Money,

    /// <summary>Whole days, up to.</summary>
    Days,
}

/// <summary>A kind of authority: one column of the table that says who may decide what alone.</summary>
/// <param name="Code">Stable, part of the API and of what is kept.</param>
/// <param name="Label">The head of the column.</param>
public sealed record AuthorityKind(
    string Code,
    string Label,
    LimitUnit Unit,
    Func<Authority, decimal?> Get,
    Func<Authority, decimal?, Authority> With
)
{
    /// <summary>The limit beyond which there is none.</summary>
    public decimal Any =>
        Unit switch
        {
            LimitUnit.LeastPercent => Authority.AnyMargin,
            LimitUnit.Percent => 100m,
            LimitUnit.Days => 365m,
            _ => Authority.AnyValue,
        };

    /// <summary>Whether one limit goes as far as another; nothing goes as far as nothing.</summary>
    public bool Reaches(decimal? limit, decimal? other) =>
        other is not { } far || (limit is { } near && (Unit == LimitUnit.LeastPercent ? near <= far : near >= far));

    /// <summary>What is wrong with a limit; null where nothing is.</summary>
    public string? Wrong(decimal limit) =>
        Unit switch
        {
            _ when limit == Any => null,
            LimitUnit.Percent when limit is < 0 or > 100 => "a percentage from 0 to 100, or any",
            LimitUnit.LeastPercent when limit is < -100 or > 100 => "a margin from -100 to 100 %, or any",
            LimitUnit.Days when limit is < 0 or > 365 || limit != decimal.Truncate(limit) => "whole days up to 365",
            LimitUnit.Money when limit is < 0 or > Authority.AnyValue => "an amount that is not negative, or any",
            _ => null,
        };

    /// <summary>A limit as it is said.</summary>
    public string Say(decimal? limit) =>
        limit switch
        {
            null => "none",
            { } l when l == Any => "any",
            { } l => Unit switch
            {
                LimitUnit.Percent or LimitUnit.LeastPercent => FormattableString.Invariant($"{l:0.##} %"),
                LimitUnit.Days => FormattableString.Invariant($"{l:0} days"),
                _ => FormattableString.Invariant($"{l:#,0.##}"),
            },
        };
}

/// <summary>All kinds of authority: the only place that names them.</summary>
public static class AuthorityKinds
{
    /// <summary>In the order of the table's columns.</summary>
    public static readonly ImmutableArray<AuthorityKind> All =
    [
        new(
            "discount",
            "discount",
            LimitUnit.Percent,
            a => a.DiscountPercent,
            (a, l) => a with { DiscountPercent = l }
        ),
        new(
            "margin",
            "least margin",
            LimitUnit.LeastPercent,
            a => a.LeastMarginPercent,
            (a, l) => a with { LeastMarginPercent = l }
        ),
        new("value", "worth up to", LimitUnit.Money, a => a.Value, (a, l) => a with { Value = l }),
        new("terms", "days to pay", LimitUnit.Days, a => a.TermsDays, (a, l) => a with { TermsDays = (int?)l }),
        new(
            "freight",
            "freight under table",
            LimitUnit.Money,
            a => a.FreightUnder,
            (a, l) => a with { FreightUnder = l }
        ),
        new(
            "without-cost",
            "without a cost",
            LimitUnit.Money,
            a => a.WithoutCost,
            (a, l) => a with { WithoutCost = l }
        ),
        new("cost-under", "cost typed under", LimitUnit.Money, a => a.CostUnder, (a, l) => a with { CostUnder = l }),
        new("credit", "over a limit", LimitUnit.Money, a => a.CreditOver, (a, l) => a with { CreditOver = l }),
    ];

    /// <summary>The kind of that code; null where there is none.</summary>
    public static AuthorityKind? Find(string code) => All.FirstOrDefault(k => k.Code == code);

    /// <summary>An authority from its kinds; what is not named is nothing.</summary>
    public static Authority Of(IEnumerable<(string Kind, decimal? Limit)> limits)
    {
        ArgumentNullException.ThrowIfNull(limits);
        return limits.Aggregate(Authority.None, (a, l) => Find(l.Kind)?.With(a, l.Limit) ?? a);
    }
}
