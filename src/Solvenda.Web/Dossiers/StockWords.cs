using System.Globalization;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Units;

namespace Solvenda.Web.Dossiers;

/// <summary>Events of stock, and of what is promised from it, in words.</summary>
internal static class StockWords
{
    /// <summary>Null for what is no such event.</summary>
    public static EventWord? Of(IEvent facts) =>
        facts switch
        {
            CommitmentMoved e => new(
                $"{Number(e.Quantity)} {UnitTable.OnSheet(Unit.Of(e.Unit))} of {e.Item} {Way(e)}",
                $"{e.From}, {Day(e.Before)}",
                $"{e.To}, {Day(e.After)}"
            ),
            DatesMoved e => new(
                $"{(e.Lines.Length == 1 ? "another day" : $"{e.Lines.Length} lines on other days")}, {(e.ToldTo.Length > 0 ? $"{e.ToldTo} was told" : "nobody could be told: no mail address")}",
                null,
                string.Join(
                    "; ",
                    e.Lines.Select(l => $"line {l.Line}: {(l.Before is { } b ? Day(b) : "none")} → {Day(l.After)}")
                ),
                true
            ),
            StockCounted e => new($"counted in {e.Warehouse}", Number(e.Before), Number(e.After)),
            StockAskedFor e => new(
                $"{e.Number}: {Number(e.Quantity)} {UnitTable.OnSheet(Unit.Of(e.Unit))} asked for, to {e.Warehouse}",
                null,
                Day(e.Wanted)
            ),
            StockExpected e => new(
                $"{e.Reference}: {Number(e.Quantity)} to come to {e.Warehouse}",
                e.Before is { } before ? Day(before) : null,
                Day(e.Due)
            ),
            StockArrived e => new(
                $"{e.Reference}: {Number(e.Quantity)} came to {e.Warehouse}, delivery {e.Delivery}",
                null,
                $"{Number(e.OnHand)} there"
            ),
            _ => null,
        };

    private static string Way(CommitmentMoved e) =>
        e.Way switch
        {
            "elsewhere" => "leaves from another warehouse",
            "take" => "given to another order",
            "split" => "follows later",
            _ => "promised anew",
        };

    private static string Number(decimal value) => value.ToString("#,0.###", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);
}
