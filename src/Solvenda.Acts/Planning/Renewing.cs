using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;

namespace Solvenda.Acts.Planning;

/// <summary>Commitments moved: the lines that they are for are promised for the days that follow from them.</summary>
public sealed class Renewing(SheetLoader loader, Judge judge, Seller seller)
{
    /// <summary>The days on which lines of an order are there by what is committed to them.</summary>
    /// <param name="waits">Of the order, those that are known.</param>
    /// <param name="moved">Keys of the lines whose commitments moved; the others stay as they were told.</param>
    /// <param name="promised">What its lines were promised for, by their keys.</param>
    public static Dictionary<long, DateOnly> Dates(
        IReadOnlyCollection<Waiting> waits,
        IReadOnlySet<long> moved,
        IReadOnlyDictionary<long, DateOnly?> promised,
        DateOnly today
    )
    {
        ArgumentNullException.ThrowIfNull(waits);
        ArgumentNullException.ThrowIfNull(moved);
        ArgumentNullException.ThrowIfNull(promised);
        var dates = waits
            .Where(w => moved.Contains(w.Row.LineKey))
            .GroupBy(w => w.Row.LineKey)
            .ToDictionary(g => g.Key, g => g.Max(w => w.Terms.From(Later(w.Row.Day, today), true).Arrives));
        if (dates.Count == 0 || waits.First().Order.Rule != ShippingRule.AllTogether)
            return dates;
        // All on the day of the latest.
        var others = promised.Where(p => p.Value is not null && !dates.ContainsKey(p.Key));
        var last = dates.Values.Concat(others.Select(o => o.Value!.Value)).Max();
        return promised.Where(p => p.Value is not null).ToDictionary(p => p.Key, _ => last);
    }

    /// <summary>
    /// Writes the days onto the lines, tells the buyer, and leaves the event; nothing where none moves.
    /// </summary>
    /// <param name="waits">Of the order, as they are since.</param>
    /// <param name="of">Keys of the lines whose commitments moved.</param>
    public async Task<DatesMoved?> RenewAsync(
        Work work,
        string number,
        IReadOnlyCollection<Waiting> waits,
        IReadOnlySet<long> of,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(waits);
        var open = await loader.OrderAsync(work.Db, number, cancel);
        var dates = Dates(waits, of, open.Sheet.Lines.ToDictionary(l => l.Key, l => l.Promised), work.Today);
        var moved = new List<LineDate>();
        foreach (var line in open.Sheet.Lines.OrderBy(l => l.Position))
        {
            if (!dates.TryGetValue(line.Key, out var day) || line.Promised == day)
                continue;
            moved.Add(new LineDate(line.Position, line.Words, line.Promised, day));
            line.Promised = day;
        }
        // A promise that could not be kept may be another one by now.
        open.Order!.Late = OrderSteps.Late(await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel));
        if (moved.Count == 0)
            return null;
        open.Sheet.Version++;
        var told = Outgoing.Tell(
            work,
            seller,
            $"{number}.dates.{open.Sheet.Version}",
            open.Buyer,
            BuyerLetters.Dates(open, seller, moved)
        );
        var facts = new DatesMoved([.. moved], told);
        work.Leave(facts, open.Subject, open.Dossier.Id);
        return facts;
    }

    private static DateOnly Later(DateOnly one, DateOnly other) => one > other ? one : other;
}
