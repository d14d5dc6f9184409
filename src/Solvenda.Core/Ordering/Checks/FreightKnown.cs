using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// Where the seller carries the goods, freight is known or was typed; and insurance, where the Incoterm asks for it.
/// Never zero for want of a rate.
/// </summary>
public sealed class FreightKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "freight";

    /// <inheritdoc />
    public string Does => "freight and insurance are known where the seller carries";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        var sheet = facts.Sheet;
        // What was paid for carrying it is all that there is, also where that is nothing.
        if (sheet.Sheet.Paid is not null)
            yield break;
        var outcome = facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice;
        var cure = new Cure("T", "type the freight", "focus", "freight", "");
        if (
            sheet.Sold.Any()
            && sheet.Charges.All(c => c.Kind != "freight")
            && Words(sheet.Freight, sheet.Sheet.DeliverToCountry) is { } words
        )
            yield return new Finding(Code, outcome, words, null, "freight") { Cures = [cure] };
        if (
            sheet.Sheet.Kind is { IsCarried: true, IsFree: false }
            && Freight.IsInsured(sheet.Sheet.Incoterm)
            && sheet.Charges.All(c => c.Kind != "insurance")
        )
            yield return new Finding(
                Code,
                outcome,
                $"{sheet.Sheet.Incoterm} asks for insurance, and no premium is set.",
                null,
                "insurance"
            );
    }

    private static string? Words(FreightAnswer freight, string? country) =>
        freight.Gap switch
        {
            FreightGap.NoZone when !string.IsNullOrEmpty(country) => $"No freight zone holds {country}.",
            FreightGap.NoWeight => $"Freight is unknown: nobody weighed {string.Join(", ", freight.Unweighed)}.",
            FreightGap.NoBand => FormattableString.Invariant(
                $"No freight band to zone {freight.Zone} reaches {freight.Kilograms:#,0.##} kg."
            ),
            FreightGap.NoRate => "There is no exchange rate for the freight.",
            _ => null,
        };
}
