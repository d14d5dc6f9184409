using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.People;

namespace Solvenda.Core.Billing;

/// <summary>What a commission is worked out on.</summary>
public enum CommissionOn
{
    /// <summary>What was sold, as far as it is paid.</summary>
    Paid,

    /// <summary>What was sold less what it cost.</summary>
    Margin,

    /// <summary>What was sold, without charges and tax.</summary>
    Net,
}

/// <summary>Somebody's share of a commission, in percent of it.</summary>
/// <param name="Name">"seller" is whoever sold it.</param>
public sealed record CommissionShare(string Name, decimal Percent);

/// <summary>Who shares a commission: "seller 70; Leandro Paz 30".</summary>
public static class CommissionShares
{
    /// <summary>Whoever sold it, whatever their name.</summary>
    public const string Seller = "seller";

    /// <param name="text">Empty: all of it is the seller's.</param>
    /// <exception cref="FormatException">It is not understood, or is not 100 % together; the words say why.</exception>
    public static ImmutableArray<CommissionShare> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (string.IsNullOrWhiteSpace(text))
            return [new CommissionShare(Seller, 100m)];
        ImmutableArray<CommissionShare> shares =
        [
            .. text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(One),
        ];
        if (shares.Select(s => s.Name).Distinct().Count() < shares.Length)
            throw new FormatException("Each has one share.");
        return shares.Sum(s => s.Percent) == 100m
            ? shares
            : throw new FormatException("The shares are 100 % together.");
    }

    private static CommissionShare One(string text)
    {
        var at = text.LastIndexOf(' ');
        return
            at > 0
            && decimal.TryParse(
                text[(at + 1)..].TrimEnd('%'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var percent
            )
            && percent > 0m
            ? new CommissionShare(text[..at].Trim(), percent)
            : throw new FormatException($"“{text}” is no share: Leandro Paz 40.");
    }
}

/// <summary>By which plan somebody earns on what is invoiced.</summary>
/// <param name="Seller">Whose orders it is for; null: of more.</param>
/// <param name="Lead">Of whose team the orders are; null: of all.</param>
/// <param name="Percent">Of what it is on, above 0.</param>
public sealed record CommissionPlan(
    string Name,
    PersonId? Seller,
    PersonId? Lead,
    CommissionOn On,
    decimal Percent,
    ImmutableArray<CommissionShare> Shares,
    DateOnly? From,
    DateOnly? Until
);

/// <summary>What somebody earns of a bill.</summary>
/// <param name="Share">Of the commission, in percent.</param>
/// <param name="Basis">What the plan is on, of the whole bill.</param>
public sealed record CommissionPart(string Name, decimal Share, Amount Basis, Amount Amount);

/// <summary>Works commissions out (docs/calculations.md, Commission).</summary>
public static class Commission
{
    /// <summary>
    /// The plan that an order goes by: one for its seller before one for their team, and that before one for all; of
    /// several the first by name. Null where there is none.
    /// </summary>
    /// <param name="lead">Whom the seller reports to; null: nobody.</param>
    /// <param name="day">Of the invoice.</param>
    public static CommissionPlan? PlanFor(
        IEnumerable<CommissionPlan> plans,
        PersonId seller,
        PersonId? lead,
        DateOnly day
    ) =>
        plans
            .Where(p => (p.From is not { } from || from <= day) && (p.Until is not { } until || day <= until))
            .Where(p => p.Seller is { } of ? of == seller : p.Lead is null || p.Lead == lead)
            .OrderByDescending(p => p.Seller is not null)
            .ThenByDescending(p => p.Lead is not null)
            .ThenBy(p => p.Name, StringComparer.Ordinal)
            .FirstOrDefault();

    /// <summary>What each earns; the shares come to the whole, the cents with the largest.</summary>
    /// <param name="basis">Below 0 where it goes back.</param>
    public static ImmutableArray<CommissionPart> Of(CommissionPlan plan, string seller, Amount basis)
    {
        ArgumentNullException.ThrowIfNull(plan);
        var whole = Amount.Round(basis.Value * plan.Percent / 100m, basis.Currency);
        var shares = whole.SplitOver([.. plan.Shares.Select(s => (long)(s.Percent * 10_000m))]);
        return
        [
            .. plan.Shares.Zip(
                shares,
                (s, a) => new CommissionPart(s.Name == CommissionShares.Seller ? seller : s.Name, s.Percent, basis, a)
            ),
        ];
    }

    /// <summary>What of it is earned by now: of what is paid only as far as it is.</summary>
    /// <param name="open">Of the invoice, not paid yet; 0 or more, as its total.</param>
    public static Amount Earned(CommissionOn on, Amount amount, long open, long total) =>
        on != CommissionOn.Paid || total == 0
            ? amount
            : Amount.Round(amount.Value * (total - Math.Clamp(open, 0, total)) / total, amount.Currency);
}
