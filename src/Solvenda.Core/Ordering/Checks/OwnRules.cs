using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Credit;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>The rules that the house made for itself, in the sentences of policies: they stop, or say so.</summary>
public sealed class OwnRules : ICheck
{
    /// <summary>Its code.</summary>
    public const string Name = "own-rule";

    /// <inheritdoc />
    public string Code => Name;

    /// <inheritdoc />
    public string Does => "the rules that the house made for itself are kept";

    // Each rule says itself what it does.
    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        foreach (var rule in facts.Rules.Where(r => r.On(facts.Today)))
        {
            if (Broken(rule, facts.Sheet, facts.Head, facts.Credit, facts.Me.Person) is not { } figures)
                continue;
            yield return new Finding(
                Code,
                rule.Route == RouteKind.Stop ? Outcome.Stop : Outcome.Notice,
                $"{rule.Code}: {string.Join(", ", rule.When.Select(c => Said(c, figures[c.Figure])))}.",
                null,
                "",
                WaiveBy.Lead,
                $"{rule.Code}/{string.Join('/', rule.When.Select(c => FigureList.Of(c.Figure).Show(figures[c.Figure])))}"
            );
        }
    }

    /// <summary>The figures of a sheet that a rule speaks of; null where it says nothing to it.</summary>
    /// <param name="credit">Null for a quote, and where what was owed is not known.</param>
    /// <param name="hand">Who looks, or looked.</param>
    public static IReadOnlyDictionary<string, decimal>? Broken(
        Policy rule,
        PricedSheet sheet,
        Head head,
        CreditAtOrder? credit,
        PersonId? hand
    )
    {
        ArgumentNullException.ThrowIfNull(rule);
        ArgumentNullException.ThrowIfNull(sheet);
        var scope = rule.Scope;
        if (!scope.Holds(sheet.Buyer.Id.Value, sheet.Buyer.Group, sheet.Sheet.Channel, hand))
            return null;
        if (!scope.Families.IsEmpty && !sheet.Sold.Any(l => l.Item is { } item && scope.Families.Contains(item.Family)))
            return null;
        var figures = SheetFigures.Of(sheet, head, credit, scope.Families);
        return rule.When.Length > 0 && rule.When.All(c => c.Holds(figures)) ? figures : null;
    }

    private static string Said(PolicyCondition condition, decimal value)
    {
        var figure = FigureList.Of(condition.Figure);
        return $"{figure.Called} is {figure.Show(value)}, {(condition.Over ? "over" : "under")} {figure.Show(condition.Value)}";
    }
}
