using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// Nothing goes to parties or countries on the house's list of restrictions, and what needs an export licence has one.
/// </summary>
public sealed class MayGoThere : ICheck
{
    /// <inheritdoc />
    public string Code => "export";

    /// <inheritdoc />
    public string Does => "nobody and no place is restricted, and licences are there";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var outcome = facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice;
        foreach (
            var name in new[] { facts.Buyer.Name, FirstOf(HeadTerms.DeliverTo.In(facts.Head)) }
                .OfType<string>()
                .Distinct()
        )
        {
            if (Restrictions.Party(name, facts.Buyer.Country, facts.Restrictions) is { } party)
                yield return Party(name, party, outcome);
        }
        foreach (var country in Countries(facts))
        {
            if (Restrictions.Destination(country, facts.Restrictions) is { } place)
                yield return new Finding(
                    Code,
                    outcome,
                    $"Nothing goes to {country}: {place.By.Why}.",
                    null,
                    HeadTerms.DeliverTo.Name
                );
        }
        if (facts.Document == DocumentKind.Order && HeadTerms.Licence.In(facts.Head) is null)
            foreach (var finding in Unlicensed(facts))
                yield return finding;
    }

    private Finding Party(string name, Restricted party, Outcome outcome) =>
        new(
            Code,
            outcome,
            party.IsSame
                ? $"{name} is on the list of restricted parties: {party.By.Why}."
                : $"{name} is much like {party.By.Name} on the list of restricted parties ({party.By.Why}): is it they?",
            null,
            "",
            party.IsSame ? WaiveBy.Nobody : WaiveBy.Lead,
            $"alike/{party.By.Name}"
        );

    private IEnumerable<Finding> Unlicensed(CheckFacts facts) =>
        from line in facts.Sheet.Sold
        where
            line is { Counts: true, Item.ExportNote.Length: > 0 }
            && facts.Sheet.Sheet.CountryOf(line.Line) is { Length: > 0 } country
            && !TaxRules.IsInUnion(country)
        select new Finding(
            Code,
            Outcome.Stop,
            $"{line.Item!.Code} leaves the Union only under a licence: {line.Item.ExportNote}.",
            line.Line.Key,
            HeadTerms.Licence.Name
        )
        {
            Cures = [new Cure("G", "type the licence", "focus", HeadTerms.Licence.Name, "")],
        };

    private static IEnumerable<string> Countries(CheckFacts facts) =>
        facts
            .Sheet.Sold.Select(l => facts.Sheet.Sheet.CountryOf(l.Line))
            .Append(facts.Sheet.Sheet.DeliverToCountry)
            .Append(facts.Buyer.Country)
            .OfType<string>()
            .Where(c => c.Length > 0)
            .Distinct();

    // An address begins with whose it is.
    private static string? FirstOf(string? address) => address?.Split(',', '\n')[0].Trim();
}
