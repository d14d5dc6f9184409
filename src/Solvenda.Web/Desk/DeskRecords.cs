using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Desk;

/// <summary>
/// What others changed on somebody's buyers and agreements that carries money or authority: its owner is told, for some
/// days.
/// </summary>
internal static class DeskRecords
{
    private const int Days = 3;

    // The desk is looked at every few seconds: it reads the end of the chain by its index, and no more.
    private const int Newest = 500;

    public static async Task<IEnumerable<DeskItem>> OfAsync(
        SolvendaDb db,
        long me,
        DateTime now,
        CancellationToken cancel
    )
    {
        var rows = new List<EventRow>();
        foreach (var code in new[] { EventCodes.Of<RecordChanged>(), EventCodes.Of<RecordMade>() })
            rows.AddRange(
                await db
                    .Events.AsNoTracking()
                    .Where(e => e.Code == code)
                    .OrderByDescending(e => e.Id)
                    .Take(Newest)
                    .ToListAsync(cancel)
            );
        var since = now.AddDays(-Days);
        return rows.Where(r => r.At >= since && r.WhoId is { } who && who != me)
            .OrderByDescending(r => r.Id)
            .Select(r => Item(r, EventCodes.FromJson(r.Code, r.Facts), me))
            .OfType<DeskItem>()
            .DistinctBy(i => i.Path);
    }

    private static DeskItem? Item(EventRow row, IEvent? facts, long me) =>
        facts switch
        {
            RecordMade { Money: true } made when made.Owner == me => Of(row, made.Calls, "made", ""),
            RecordChanged changed when changed.Owner == me || changed.OwnerBefore == me => Changed(row, changed),
            _ => null,
        };

    private static DeskItem? Changed(EventRow row, RecordChanged changed)
    {
        var money = changed.Changes.Where(c => c.Money).ToList();
        return money.Count == 0
            ? null
            : Of(
                row,
                changed.Calls,
                string.Join(", ", money.Select(c => c.Label)) + " changed",
                $"{Said(money[0].Before)} → {Said(money[0].After)}"
            );
    }

    private static DeskItem Of(EventRow row, string calls, string what, string rest) =>
        new(
            Urgency.Today,
            "record",
            "",
            "/records/" + row.Subject.Replace(':', '/'),
            calls,
            $"{what} by {row.Who.Split(' ')[^1]}",
            rest,
            "record",
            row.At,
            "",
            null,
            "look",
            3
        );

    private static string Said(string? value) => string.IsNullOrEmpty(value) ? "nothing" : value;
}
