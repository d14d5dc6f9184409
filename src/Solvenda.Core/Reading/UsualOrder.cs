using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>What "the usual" is for a buyer: what they took before.</summary>
internal static partial class UsualOrder
{
    public static Field<decimal?> Quantity(Item item, IReadOnlyList<Bought> bought, ImmutableArray<Evidence> evidence)
    {
        var last = bought.Where(b => b.Item == item.Id).OrderByDescending(b => b.Day).FirstOrDefault();
        return last is null
            ? new Field<decimal?>(null, 0.1m, "they never bought it", evidence)
            : new Field<decimal?>(last.Quantity, 0.45m, $"as in {last.Document}", evidence);
    }

    public static Unit UnitOf(Item item, IReadOnlyList<Bought> bought) =>
        bought.Where(b => b.Item == item.Id).OrderByDescending(b => b.Day).FirstOrDefault()?.Unit ?? item.StockUnit;

    // What they took before, each quantity once with the documents it stands in; then what their own "n lengths" times
    // "n x m" of the quoted letter gives; then a whole larger unit.
    public static ImmutableArray<Proposal> Proposals(Item item, IReadOnlyList<Bought> bought, string letter)
    {
        var proposals = ImmutableArray.CreateBuilder<Proposal>();
        Proposal Proposed(decimal quantity, Unit unit, decimal sure, string why) =>
            new(item.Id, item.Code, item.Words, quantity, unit, sure, why);
        if (item.StockUnit == Unit.Metre && Cut(letter) is { } cut)
            proposals.Add(Proposed(cut.Metres, Unit.Metre, 0.5m, cut.Why));
        foreach (
            var same in bought
                .Where(b => b.Item == item.Id)
                .OrderByDescending(b => b.Day)
                .GroupBy(b => (b.Quantity, b.Unit))
                .Take(3)
        )
        {
            if (proposals.All(p => (p.Quantity, p.Unit) != same.Key))
                proposals.Add(
                    Proposed(
                        same.Key.Quantity,
                        same.Key.Unit,
                        0.45m,
                        string.Join(", ", same.Take(2).Select(b => b.Document))
                    )
                );
        }
        if (proposals.Count > 0 && item.SalesUnits.FirstOrDefault(u => u.Factor > 1) is { } larger)
            proposals.Add(
                Proposed(
                    Math.Max(1m, Math.Ceiling(proposals[0].Quantity / larger.Factor)),
                    larger.Unit,
                    0.2m,
                    "next whole unit"
                )
            );
        return proposals.ToImmutable();
    }

    // Their own "n lengths", times the "n x m" of the letter that they quote.
    private static (decimal Metres, string Why)? Cut(string letter)
    {
        var (lengths, cut) = (Lengths().Match(letter), EarlierCut().Match(letter));
        if (!lengths.Success || !cut.Success)
            return null;
        var count = decimal.Parse(lengths.Groups["n"].Value, CultureInfo.InvariantCulture);
        var metres = decimal.Parse(cut.Groups["m"].Value, CultureInfo.InvariantCulture);
        return (
            count * metres,
            string.Create(CultureInfo.InvariantCulture, $"{count:0.##} lengths of {metres:0.##} m, “{cut.Value}”")
        );
    }

    [GeneratedRegex(@"\b(?<n>\d{1,3})\s+lengths?\b", RegexOptions.IgnoreCase)]
    private static partial Regex Lengths();

    [GeneratedRegex(@"\b\d{1,3}\s*x\s*(?<m>\d{1,4})\s*m\b", RegexOptions.IgnoreCase)]
    private static partial Regex EarlierCut();
}
