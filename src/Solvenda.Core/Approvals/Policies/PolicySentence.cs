using System.Globalization;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>A policy as a sentence.</summary>
public static class PolicySentence
{
    /// <param name="named">Whom a named route begins with, as they are called.</param>
    public static string Of(Policy policy, string named)
    {
        ArgumentNullException.ThrowIfNull(policy);
        if (!policy.Asks)
            return $"When {string.Join(" and ", policy.When.Select(Of))}, {Route(policy.Route, named)}.";
        var when = string.Concat(policy.When.Select(c => " and " + Of(c)));
        var within =
            policy.PatienceHours > 0
                ? string.Create(CultureInfo.InvariantCulture, $", within {policy.PatienceHours} working hours")
                : "";
        var beyond = FigureList.Of(policy.Figure).Beyond;
        return $"When {beyond}{when}, ask {Route(policy.Route, named)}{within}.";
    }

    /// <summary>A condition: "the margin of the whole is under 18.0 %".</summary>
    public static string Of(PolicyCondition condition)
    {
        ArgumentNullException.ThrowIfNull(condition);
        var figure = FigureList.Of(condition.Figure);
        return $"{figure.Called} is {(condition.Over ? "over" : "under")} {figure.Show(condition.Value)}";
    }

    /// <summary>Whom it asks.</summary>
    public static string Route(RouteKind route, string named) =>
        route switch
        {
            RouteKind.FirstAble => "the first above who may",
            RouteKind.Stop => "stop it, until it is cured or a lead lets it pass",
            RouteKind.Notice => "say so",
            RouteKind.EachLevel => "each level up to the first who may",
            _ => $"{(named.Length > 0 ? named : "nobody named")}, and above what they may whoever comes after them",
        };
}
