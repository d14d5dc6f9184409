using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>The PO number is there, and no other order of this buyer carries it.</summary>
public sealed class PoNumber : ICheck
{
    /// <inheritdoc />
    public string Code => "po-number";

    /// <inheritdoc />
    public string Does => "the PO number is there, and was not used before";

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
        var same = facts.Earlier.Where(e => e.SamePo).ToList();
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
}
