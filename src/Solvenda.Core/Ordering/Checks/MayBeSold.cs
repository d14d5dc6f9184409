namespace Solvenda.Core.Ordering.Checks;

/// <summary>Items that may be sold: not switched off, to this country, by this channel.</summary>
public sealed class MayBeSold : ICheck
{
    /// <inheritdoc />
    public string Code => "sold-there";

    /// <inheritdoc />
    public string Does => "the item may be sold there and by this channel";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold)
        {
            if (line.Item is not { } item)
                continue;
            var words =
                !item.Active ? $"{item.Code} is sold no more."
                : facts.Sheet.Sheet.DeliverToCountry is { } country && item.NotSoldIn.Contains(country)
                    ? $"{item.Code} may not be sold to {country}."
                : facts.Sheet.Sheet.Channel is { } channel && item.NotByChannel.Contains(channel)
                    ? $"{item.Code} may not be sold by {channel}."
                : null;
            if (words is null)
                continue;
            yield return new Finding(
                Code,
                Outcome.Stop,
                words,
                line.Line.Key,
                "item",
                item.Active ? WaiveBy.Nobody : WaiveBy.Lead,
                item.Code
            )
            {
                Cures = item.Successor is { } successor
                    ? [new Cure("S", $"take {successor}", "set", "item", successor)]
                    : [],
            };
        }
    }
}
