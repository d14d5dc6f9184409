using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The PO number is there, and nothing of this buyer's that came before carries it. Where it is looked for is the
/// house's to say.
/// </summary>
public sealed class PoNumber : ICheck
{
    /// <inheritdoc />
    public string Code => "po-number";

    /// <inheritdoc />
    public string Does => "the PO number is there, and was not used before";

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers =>
        [
            new("open", "looked for in open orders: 1 yes, 0 no", 1, 0, 1),
            new("past", "looked for in past orders: 1 yes, 0 no", 1, 0, 1),
            new("requests", "looked for in requests that are not dealt with: 1 yes, 0 no", 1, 0, 1),
        ];

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        if (facts.Document != DocumentKind.Order)
            yield break;
        if (HeadTerms.PoNumber.In(facts.Head) is not { } po)
        {
            yield return new Finding(
                Code,
                facts.Buyer.PoNumberRequired ? Outcome.Stop : Outcome.Notice,
                facts.Buyer.PoNumberRequired
                    ? "The PO number is missing; this buyer wants it on everything."
                    : "There is no PO number.",
                null,
                "poNumber",
                WaiveBy.Lead,
                "missing"
            )
            {
                Cures = [new Cure("G", "fill it in", "focus", "poNumber", "")],
            };
            yield break;
        }
        var same = facts.Earlier.Where(e => e.SamePo && IsLookedIn(facts, e.In)).ToList();
        if (same.Count > 0)
        {
            var list = string.Join(
                ", ",
                same.Select(e => $"{e.Number} of {e.Day.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}")
            );
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"PO {po} was used before: {list}.",
                null,
                "poNumber",
                WaiveBy.Lead,
                string.Join('+', same.Select(e => e.Number))
            )
            {
                Documents = [.. same.Select(e => e.Document)],
            };
        }
    }

    private bool IsLookedIn(CheckFacts facts, EarlierIn where) =>
        facts.Number(
            this,
            where switch
            {
                EarlierIn.OpenOrders => "open",
                EarlierIn.PastOrders => "past",
                _ => "requests",
            }
        ) != 0m;
}
