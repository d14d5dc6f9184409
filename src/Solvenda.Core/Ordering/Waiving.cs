using Solvenda.Core.Approvals;
using Solvenda.Core.People;

namespace Solvenda.Core.Ordering;

/// <summary>Who may let a stop pass.</summary>
public static class Waiving
{
    private const Roles Writers = Roles.Desk | Roles.Seller;

    /// <summary>Null where this person may; else why not.</summary>
    /// <param name="owner">The seller on the head: nobody lets their own buyer go over a limit.</param>
    public static Refusal? WhyNot(Finding finding, Decider me, PersonId? owner = null)
    {
        ArgumentNullException.ThrowIfNull(finding);
        ArgumentNullException.ThrowIfNull(me);
        return finding.Waive switch
        {
            WaiveBy.Writer when (me.Roles & Writers) != Roles.None => null,
            WaiveBy.Writer => No("Whoever writes orders may let this pass."),
            WaiveBy.Lead when me.Roles.HasFlag(Roles.Lead) => null,
            WaiveBy.Lead => No("A lead may let this pass."),
            WaiveBy.Credit when me.Authority.CreditOver is null => No("That is the credit controller's to decide."),
            WaiveBy.Credit when me.Id == owner => No("Nobody lets credit pass on an order of their own."),
            WaiveBy.Credit when FigureList.Credit.IsBeyond(finding.Excess, me.Authority) => No(
                "That is more than you may let pass."
            ),
            WaiveBy.Credit => null,
            _ => No("Nobody may let this pass; it has to be cured."),
        };
    }

    private static Refusal No(string words) => new("not_allowed", words);
}
