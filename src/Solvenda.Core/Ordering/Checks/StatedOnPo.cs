using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What the PO states beside its lines, against ours: terms, Incoterm, freight, allowances, total. Theirs is never
/// taken without a word.
/// </summary>
public sealed class StatedOnPo : ICheck
{
    /// <summary>
    /// Totals that differ by no more are the same, in the sheet's currency: the small price differences of an order
    /// together (docs/calculations.md).
    /// </summary>
    public const decimal WithinTotal = 5.00m;

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers =>
        [new("total", "of totals that are the same, in the sheet’s currency", WithinTotal, 0m, 1_000m)];

    /// <inheritdoc />
    public string Code => "po-terms";

    /// <inheritdoc />
    public string Does => "terms and total are those on the buyer’s PO";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Stated.IsNothing)
            return [];
        return Terms(facts)
            .Concat(Amounts(facts))
            .Concat(Total(facts))
            .Select(f =>
                facts.Document == DocumentKind.Order ? f : f with { Outcome = Outcome.Notice, Waive = WaiveBy.Nobody }
            );
    }

    private IEnumerable<Finding> Terms(CheckFacts facts)
    {
        var stated = facts.Stated;
        if (stated.PaymentDays is { } days && HeadTerms.PlanIn(facts.Head)?.Longest is var ours && ours != days)
            yield return Differs(
                facts,
                HeadTerms.PaymentDays,
                days.ToString(CultureInfo.InvariantCulture),
                $"Their document says {days} days to pay, ours {(ours is null ? "says nothing" : $"{ours}")}.",
                // What is better for us than our own needs nobody.
                ours is { } o
                    && days < o
            );
        if (stated.Incoterm is { } term && HeadTerms.Incoterm.In(facts.Head) is var incoterm && incoterm != term)
            yield return Differs(
                facts,
                HeadTerms.Incoterm,
                term,
                $"Their document says {term}, ours {incoterm ?? "says nothing"}.",
                false
            );
        if (
            stated.IncotermPlace is { } place
            && HeadTerms.IncotermPlace.In(facts.Head) is var named
            && !string.Equals(place, named, StringComparison.OrdinalIgnoreCase)
        )
            yield return Differs(
                facts,
                HeadTerms.IncotermPlace,
                place,
                $"Their document names {place} as the place, ours {named ?? "none"}.",
                named is not null
            );
        if (
            stated.DeliverTo is { } to
            && HeadTerms.DeliverTo.In(facts.Head) is var goes
            && !string.Equals(to, goes, StringComparison.OrdinalIgnoreCase)
        )
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"Their document says deliver to “{to}”, ours {(goes is null ? "says nothing" : $"“{goes}”")}.",
                null,
                HeadTerms.DeliverTo.Name,
                WaiveBy.Lead,
                $"deliverTo/{to}/{goes}"
            )
            {
                Cures =
                [
                    new Cure("J", "pick the address", "focus", HeadTerms.DeliverTo.Name, ""),
                    new Cure("O", "keep ours", "waive", "", "Ours is right; the acknowledgement tells them."),
                ],
            };
    }

    private IEnumerable<Finding> Amounts(CheckFacts facts)
    {
        // What was paid is with tax, and is ours already.
        if (facts.Stated.Paid is not null)
            yield break;
        foreach (var stated in facts.Stated.Amounts)
        {
            var ours = facts.Sheet.Charges.Where(c => c.Kind == stated.Kind).Sum(c => c.Amount);
            if (ours == stated.Amount)
                continue;
            var words = string.Create(
                CultureInfo.InvariantCulture,
                $"Their document states {Name(stated)} of {Math.Abs(stated.Amount):#,0.00##}, ours has {(ours == 0 ? "none" : $"{ours:#,0.00##}")}."
            );
            var term = stated.Amount switch
            {
                < 0 => HeadTerms.SheetDiscount,
                _ when stated.Kind == HeadTerms.Freight.Name => HeadTerms.Freight,
                _ when stated.Kind == HeadTerms.Insurance.Name => HeadTerms.Insurance,
                _ => null,
            };
            var typed = Math.Abs(stated.Amount).ToString("0.####", CultureInfo.InvariantCulture);
            yield return term is null
                ? new Finding(Code, Outcome.Notice, words)
                : Differs(
                    facts,
                    term,
                    term == HeadTerms.SheetDiscount ? $"{typed} {facts.Sheet.Sheet.Currency.Code}" : typed,
                    words,
                    stated.Amount > ours && term != HeadTerms.SheetDiscount
                );
        }
    }

    private IEnumerable<Finding> Total(CheckFacts facts)
    {
        if (facts.Stated.Total is not { } total)
            yield break;
        var tally = facts.Sheet.Tally;
        // Theirs may be of the goods alone, with charges, or with tax.
        var near = new[] { tally.Goods, tally.TotalWithoutTax, tally.TotalWithTax };
        var within = facts.Number(this, "total");
        if (near.All(n => Math.Abs(n.Value - total) > within))
            yield return new Finding(
                Code,
                Outcome.Notice,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Their document comes to {total:#,0.00##}, ours to {tally.TotalWithoutTax.Value:#,0.00##} without tax."
                )
            );
    }

    private Finding Differs(CheckFacts facts, HeadTerm term, string theirs, string words, bool good)
    {
        var ours = term.In(facts.Head);
        return new Finding(
            Code,
            good ? Outcome.Notice : Outcome.Stop,
            words,
            null,
            term.Name,
            good ? WaiveBy.Nobody : WaiveBy.Writer,
            $"{term.Name}/{theirs}/{ours}"
        )
        {
            Cures =
            [
                new Cure("T", $"take theirs, {theirs}", "set", term.Name, theirs),
                .. good
                    ? Array.Empty<Cure>()
                    : [new Cure("O", "keep ours", "waive", "", "We keep ours; the acknowledgement tells them.")],
            ],
        };
    }

    private static string Name(StatedAmount stated) =>
        stated.Amount < 0 ? "an allowance"
        : stated.Kind is "freight" or "insurance" ? stated.Kind
        : $"a charge “{stated.Kind}”";
}
