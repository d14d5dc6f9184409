using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>A message that changes an order that we have, or takes it back: which order, and what they want.</summary>
public static class ChangedOrder
{
    /// <summary>Orders that it may be about, the likeliest first: its PO, or a number of ours that it names.</summary>
    public static async Task<List<string>> FindAsync(
        SolvendaDb db,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        if (reading.BuyerId is not { } buyer)
            return [];
        var ours = await Series.OursAsync(db, cancel);
        var named = ours.In(request.Subject + "\n" + request.Text).Select(m => m.Value.ToUpperInvariant()).ToList();
        return await db
            .Orders.Where(o =>
                o.Dossier.BuyerId == buyer
                && o.Terms != TermsTrack.Cancelled
                && ((request.PoKey != "" && o.PoKey == request.PoKey) || EF.Parameter(named).Contains(o.Number))
            )
            .OrderByDescending(o => EF.Parameter(named).Contains(o.Number))
            .ThenByDescending(o => o.Id)
            .Select(o => o.Number)
            .Take(10)
            .ToListAsync(cancel);
    }

    /// <summary>
    /// The request with its reading, and the order; refused where it is about no order of that buyer.
    /// </summary>
    public static async Task<(RequestRow Request, ReadingView Reading)> OpenAsync(
        Work work,
        string number,
        long version,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, number, version, cancel);
        return reading.Kind is MessageKind.Change or MessageKind.Cancellation
            ? (request, reading)
            : throw RefusedException.Bad(
                "no_change",
                "It does not change an order. If it does, say so first: “it is”, at the top.",
                "kind"
            );
    }

    /// <summary>Refuses an order of somebody else.</summary>
    public static void MustBeTheirs(OpenSheet order, ReadingView reading)
    {
        ArgumentNullException.ThrowIfNull(order);
        ArgumentNullException.ThrowIfNull(reading);
        if (order.Buyer.Id != reading.BuyerId)
            throw RefusedException.Bad(
                "change_of_other",
                $"{order.Number} is an order of {order.Buyer.Name}, and this is not from them.",
                "order"
            );
    }

    /// <summary>What they want beside what was confirmed.</summary>
    public static ImmutableArray<LineWish> Wishes(ReadingView reading, OpenSheet order, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(reading);
        ArgumentNullException.ThrowIfNull(order);
        return BuyersChange.Of(
            order.ToDraft(),
            [
                .. reading.Lines.Select(l => new WantedLine(l.No, Turning.LineOf(l, reading), l.TakenBack)
                {
                    IsSoMuchLess = reading.Kind == MessageKind.Cancellation,
                }),
            ],
            facts
        );
    }

    /// <summary>Whether they take the whole order back: they name no lines, or all of them.</summary>
    public static bool IsWhole(ReadingView reading, ImmutableArray<LineWish> wishes)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return reading.Kind == MessageKind.Cancellation
            && wishes.Where(w => w.Line is not null).All(w => reading.Lines.Count == 0 || w.Kind == WishKind.Gone);
    }

    /// <summary>The day by which they want the whole, where it is another than the order's; null else.</summary>
    public static DateOnly? Day(ReadingView reading, OpenSheet order)
    {
        ArgumentNullException.ThrowIfNull(reading);
        ArgumentNullException.ThrowIfNull(order);
        return
            DateOnly.TryParseExact(
                reading.Wanted.Value,
                "yyyy-MM-dd",
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var day
            )
            && day != order.Sheet.Wanted
            ? day
            : null;
    }
}
