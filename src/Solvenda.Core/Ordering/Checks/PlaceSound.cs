using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// Where the goods go can be a place of its country: a carrier asks for the postal code. Looked at where it is another
/// place than the buyer's own, which was looked at when it was put on file.
/// </summary>
public sealed class PlaceSound : ICheck
{
    /// <inheritdoc />
    public string Code => "deliver-to";

    /// <inheritdoc />
    public string Does => "where it goes has a postal code of its country";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            yield break;
        if (
            HeadTerms.DeliverTo.In(facts.Head) is { } place
            && place != facts.Buyer.DeliverTo
            && facts.Sheet.Sheet.DeliverToCountry is { } country
            && Said(place, country) is { } words
        )
            yield return new Finding(Code, Outcome.Notice, words, null, HeadTerms.DeliverTo.Name);
        foreach (var line in facts.Sheet.Sold)
        {
            if (line.Line.DeliverTo is { Code.Length: 0 } own && Said(own.Words, own.Country) is { } its)
                yield return new Finding(Code, Outcome.Notice, its, line.Line.Key, "deliverTo");
        }
    }

    private static string? Said(string place, string country) =>
        PostalCodes.Missing(place, country) is { } like
            ? $"“{place}” has no postal code as in {country}, such as {like}."
            : null;
}
