using System.Collections.Immutable;
using Solvenda.Core.Calendars;

namespace Solvenda.Core.Promising;

/// <summary>What holds for every promise of a warehouse.</summary>
/// <param name="CutOff">From this time on, today counts as the next day.</param>
/// <param name="PickingDays">Working days from taking to ready.</param>
/// <param name="TransitDays">Working days on the road.</param>
public sealed record PromiseTerms(
    TimeOnly CutOff,
    int PickingDays,
    int TransitDays,
    WorkCalendar Warehouse,
    WorkCalendar Receiving
)
{
    // Nobody waits longer for a parcel that lies ready; what bounds the search.
    private const int MostBack = 60;

    /// <summary>What is taken from the shelf on a day: ready and there by when.</summary>
    public Promise From(DateOnly taken, bool fromStock)
    {
        var ready = Warehouse.Add(taken, PickingDays);
        return new Promise(taken, ready, Receiving.OnOrAfter(Warehouse.Add(ready, TransitDays)), fromStock);
    }

    /// <summary>The last day on which it can be taken and is there by the wanted one.</summary>
    public DateOnly LatestFor(DateOnly wanted)
    {
        var taken = wanted;
        for (var i = 0; i < MostBack && (!Warehouse.Works(taken) || From(taken, true).Arrives > wanted); i++)
            taken = taken.AddDays(-1);
        return taken;
    }
}

/// <summary>What a line can be promised: when it leaves the shelf, is ready, and arrives.</summary>
/// <param name="FromStock">False where it has to be bought or made first.</param>
public sealed record Promise(DateOnly Taken, DateOnly Ready, DateOnly Arrives, bool FromStock);

/// <summary>Finds the earliest date for a quantity (docs/calculations.md, "Promise").</summary>
public static class PromiseFinder
{
    /// <summary>The earlier of stock and lead time, as a day number; null where neither gives a date.</summary>
    public static int? ReadyDay(Outlook outlook, decimal quantity, int? leadDays)
    {
        var stock = outlook.FirstDayFor(quantity);
        return (stock, leadDays) switch
        {
            (null, var lead) => lead,
            (var s, null) => s,
            var (s, lead) => Math.Min(s.Value, lead.Value),
        };
    }

    /// <summary>Null where neither stock nor lead time gives a date: a stop.</summary>
    /// <param name="leadDays">Calendar days from today until it is bought or made; null where it cannot be.</param>
    public static Promise? Find(Outlook outlook, decimal quantity, int? leadDays, DateTime now, PromiseTerms terms)
    {
        if (ReadyDay(outlook, quantity, leadDays) is not { } day)
            return null;
        return On(day, outlook.FirstDayFor(quantity) is { } s && s <= day, now, terms);
    }

    /// <summary>
    /// The quantity in the parts that it comes in, each as early as it can be; empty where one date does for all of it,
    /// or where a part has none.
    /// </summary>
    /// <param name="before">What earlier lines take of the same stock.</param>
    public static ImmutableArray<PromisedPart> Split(
        Outlook outlook,
        decimal before,
        decimal quantity,
        int? leadDays,
        DateTime now,
        PromiseTerms terms
    )
    {
        var parts = new List<PromisedPart>();
        var given = 0m;
        foreach (var (day, free) in outlook.Steps)
        {
            if (given >= quantity || day >= leadDays)
                break;
            var more = Math.Min(free - before, quantity) - given;
            if (more <= 0)
                continue;
            parts.Add(new PromisedPart(more, On(day, true, now, terms)));
            given += more;
        }
        if (given < quantity)
        {
            if (leadDays is not { } lead)
                return [];
            parts.Add(new PromisedPart(quantity - given, On(lead, false, now, terms)));
        }
        return parts.Count > 1 ? [.. parts] : [];
    }

    private static Promise On(int day, bool fromStock, DateTime now, PromiseTerms terms)
    {
        var start = TimeOnly.FromDateTime(now) >= terms.CutOff ? 1 : 0;
        var taken = terms.Warehouse.OnOrAfter(DateOnly.FromDateTime(now).AddDays(Math.Max(day, start)));
        return terms.From(taken, fromStock);
    }
}
