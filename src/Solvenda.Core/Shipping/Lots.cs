using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Shipping;

/// <summary>So much of a lot, in stock units.</summary>
public sealed record LotPart(string Lot, decimal Quantity);

/// <summary>
/// Which lots goods are of, as whoever picks them types it: "L2408A" where all is of one, "L2408A 12, L2409B 3" where
/// not.
/// </summary>
public static class Lots
{
    private const int MostLetters = 40;

    /// <param name="text">As typed; empty: none was said.</param>
    /// <param name="all">What is of one lot that is named alone; above 0.</param>
    /// <exception cref="FormatException">It is not understood; the words say why.</exception>
    public static ImmutableArray<LotPart> Read(string text, decimal all)
    {
        ArgumentNullException.ThrowIfNull(text);
        var parts = text.Split([',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var read = ImmutableArray.CreateBuilder<LotPart>(parts.Length);
        foreach (var part in parts)
        {
            var words = part.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
            if (words.Length > 2 || words[0].Length > MostLetters)
                throw new FormatException($"“{part}” is no lot with its quantity: L2408A 12.");
            var quantity = words.Length == 2 ? QuantityOf(words[1]) : all;
            if (words.Length == 1 && parts.Length > 1)
                throw new FormatException($"Say how much is of {words[0]}: there are several lots.");
            read.Add(new LotPart(words[0].ToUpperInvariant(), quantity));
        }
        if (read.Select(p => p.Lot).Distinct().Count() < read.Count)
            throw new FormatException("Each lot is named once.");
        return read.ToImmutable();
    }

    /// <summary>As it is kept and printed.</summary>
    public static string Write(IEnumerable<LotPart> parts) =>
        string.Join(
            ", ",
            parts.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.Lot} {p.Quantity:0.######}"))
        );

    private static decimal QuantityOf(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var quantity)
        && quantity > 0m
            ? quantity
            : throw new FormatException($"“{text}” is no quantity.");
}
