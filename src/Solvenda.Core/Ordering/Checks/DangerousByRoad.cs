namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// Dangerous goods with the way that they would go: fast services fly part of the way, and take none (ICAO Technical
/// Instructions, part 2).
/// </summary>
public sealed class DangerousByRoad : ICheck
{
    private static readonly string[] Flies = ["express", "air", "parcel", "post"];

    /// <inheritdoc />
    public string Code => "dangerous";

    /// <inheritdoc />
    public string Does => "dangerous goods do not go by a fast service";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var service = facts.Sheet.Freight.Service ?? facts.Sheet.Sheet.FreightService ?? "";
        if (!Flies.Any(f => service.Contains(f, StringComparison.OrdinalIgnoreCase)))
            yield break;
        foreach (var line in facts.Sheet.Sold.Where(l => l is { Counts: true, Item.DangerousGoods: not null }))
            yield return new Finding(
                Code,
                Outcome.Notice,
                $"{line.Item!.Code} is {line.Item.DangerousGoods}: it does not go by {service}.",
                line.Line.Key,
                "freightService"
            );
    }
}
