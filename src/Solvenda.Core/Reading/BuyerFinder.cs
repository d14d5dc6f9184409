using System.Collections.Immutable;
using Solvenda.Core.Buyers;

namespace Solvenda.Core.Reading;

/// <summary>Knows a buyer again by partner id, address of the sender, its domain, or tax number.</summary>
public static class BuyerFinder
{
    // Mail domains that many people share say nothing about a company.
    private static readonly HashSet<string> SharedDomains = ["mail.example"];

    /// <param name="clues">Kind and value as they stand in the message, strongest first, each with its evidence.</param>
    public static Field<BuyerId> Find(ReadingContext context, IEnumerable<(string Kind, string Value, ImmutableArray<Evidence> Evidence)> clues)
    {
        foreach (var (kind, value, evidence) in clues)
        {
            var sought = value.Trim().ToUpperInvariant();
            var hits = context.Signs.Where(s => s.Kind == kind && s.Value.Equals(sought, StringComparison.OrdinalIgnoreCase)).Select(s => s.Buyer).Distinct().ToList();
            if (kind == "domain" && SharedDomains.Contains(value.ToLowerInvariant()))
                continue;
            if (hits.Count == 1)
                return new Field<BuyerId>(hits[0], kind == "domain" ? 0.8m : 0.98m, How(kind), evidence);
            if (hits.Count > 1)
                return new Field<BuyerId>(hits[0], 0.4m, $"{How(kind)}; {hits.Count} buyers share it", evidence);
        }
        return Field<BuyerId>.Missing;
    }

    private static string How(string kind) => kind switch
    {
        "mail" => "sender's address",
        "domain" => "sender's domain",
        "partner" => "partner id of the interchange",
        "tax" => "tax number",
        _ => kind,
    };
}
