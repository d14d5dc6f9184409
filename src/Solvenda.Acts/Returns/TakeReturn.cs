using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Planning;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Returns;

/// <summary>What came of a line.</summary>
/// <param name="ToStock">What of it can be sold again, and goes back to the shelf that it left.</param>
public sealed record CameBack(long Key, decimal Quantity, decimal ToStock);

/// <summary>Takes goods that came back.</summary>
/// <param name="Lines">What came; empty: all that was to come, back to the shelf.</param>
/// <param name="Seen">The version that was seen; null: whatever is there.</param>
public sealed record TakeReturn(string Number, ImmutableArray<CameBack> Lines, long? Seen) : IAct<string>;

[Leaves(typeof(ReturnTaken))]
public sealed class TakeReturnAct(SheetLoader loader, Seller seller) : Act<TakeReturn, string>
{
    public override Right Needs => Rights.Ship;

    public override async Task<string> RunAsync(Work work, TakeReturn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await ReturnBook.FindAsync(work, input.Number, input.Seen, cancel);
        var open = await loader.OrderAsync(work.Db, row.Order.Number, cancel);
        ReturnBook.Move(row, ReturnDoing.Take);
        var came = input.Lines.IsDefaultOrEmpty
            ? row.Lines.ConvertAll(l => new CameBack(l.LineKey, l.Quantity, l.Quantity))
            : [.. input.Lines];
        foreach (var line in row.Lines)
        {
            var now = came.Find(c => c.Key == line.LineKey) ?? new CameBack(line.LineKey, 0m, 0m);
            if (now.Quantity < 0m || now.Quantity > line.Quantity || now.ToStock < 0m || now.ToStock > now.Quantity)
                throw RefusedException.Bad(
                    "too_much",
                    FormattableString.Invariant(
                        $"{line.Quantity:0.######} of a line were to come back, not {now.Quantity:0.######}, and no more than came goes to the shelf; nothing was changed."
                    ),
                    "lines"
                );
            (line.Quantity, line.ToStock) = (now.Quantity, now.ToStock);
        }
        if (came.Exists(c => row.Lines.TrueForAll(l => l.LineKey != c.Key)))
            throw RefusedException.Bad("line_unknown", $"That line was not to come back with {row.Number}.", "lines");
        if (row.Lines.TrueForAll(l => l.Quantity == 0m))
            throw RefusedException.Bad("lines_missing", "Nothing came; it stays as it is.", "lines");
        await ShelveAsync(work, row, cancel);
        row.BackOn = work.Today;
        var lines = ShipmentSteps.Names(open.Sheet, row.Lines.ToDictionary(l => l.LineKey, l => l.Quantity));
        var letter = BuyerLetters.ReturnBack(open, seller, row.Number, lines);
        Outgoing.Tell(work, seller, $"{row.Number.Replace('/', '-')}.back", open.Buyer, letter);
        work.Leave(
            new ReturnTaken(
                row.Number,
                lines,
                ShipmentSteps.Names(open.Sheet, row.Lines.ToDictionary(l => l.LineKey, l => l.ToStock))
            ),
            open.Subject,
            open.Dossier.Id
        );
        return row.Number;
    }

    // Onto the shelves that it left, as its items: of a bundle each part.
    private static async Task ShelveAsync(Work work, ReturnRow row, CancellationToken cancel)
    {
        var went = await work
            .Db.Shipments.Include(s => s.Lines)
            .Include(s => s.Picks)
            .Where(s => s.OrderId == row.OrderId && s.State == ShipmentState.Gone)
            .OrderByDescending(s => s.No)
            .AsNoTracking()
            .ToListAsync(cancel);
        foreach (var line in row.Lines.Where(l => l.ToStock > 0m))
        {
            var all = went.SelectMany(s => s.Lines).Where(l => l.LineKey == line.LineKey).Sum(l => l.Quantity);
            var house = went.Find(s => s.Lines.Exists(l => l.LineKey == line.LineKey && l.Quantity > 0m))!.Warehouse;
            var picks = went.SelectMany(s => s.Picks).Where(p => p.LineKey == line.LineKey).GroupBy(p => p.ItemId);
            foreach (var pick in picks)
                await StockSteps.MoveAsync(
                    work,
                    new StockMovementRow
                    {
                        ItemId = pick.Key,
                        Warehouse = house,
                        Day = work.Today,
                        Quantity = Math.Round(
                            pick.Sum(p => p.Quantity) * line.ToStock / all,
                            6,
                            MidpointRounding.AwayFromZero
                        ),
                        Kind = MovementKind.Returned,
                        Document = row.Number,
                    },
                    cancel
                );
        }
    }
}
