using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Units;

namespace Solvenda.Formats;

/// <summary>
/// A confirmed line in the buyer's own unit and price base, where they ordered in ones that the item has; else in ours.
/// </summary>
/// <param name="Price">Net, per <paramref name="PriceBase"/>.</param>
/// <param name="IsTheirs">Whether they ordered it; what we added is ours alone.</param>
internal sealed record AnsweredLine(
    Unit Unit,
    decimal Quantity,
    decimal Price,
    decimal PriceBase,
    bool IsTheirs,
    bool PriceMoved,
    bool QuantityMoved,
    DateOnly? Ready
)
{
    /// <summary>Whether nothing is otherwise than they ordered it.</summary>
    public bool AsOrdered => IsTheirs && !PriceMoved && !QuantityMoved;

    public static AnsweredLine Of(ConfirmedOrderLine confirmed)
    {
        ArgumentNullException.ThrowIfNull(confirmed);
        var (line, asked) = (confirmed.Line, confirmed.Line.Line.Asked);
        var net = line.Figures.NetPrice / line.Terms.PriceBase;
        var theirs = asked.Code is not null || asked.Words.Length > 0;
        var (unit, times, perBase) =
            asked.Unit is { } u && line.Item?.Factor(u) is { } to && line.Item.Factor(line.Line.Unit) is { } from
                ? (u, from / to, asked.PriceBase)
                : (line.Line.Unit, 1m, line.Terms.PriceBase);
        var quantity = decimal.Round(line.Line.Quantity * times, 4);
        var price = UnitPrice.Round4(net / times * perBase);
        return new AnsweredLine(
            unit,
            quantity,
            price,
            perBase,
            theirs,
            // What was paid on a channel is what is confirmed.
            theirs && !line.IsPaid && asked.Price is { } p && p != price,
            theirs && asked.Quantity is { } q && q != quantity,
            confirmed.Ready
        );
    }
}
