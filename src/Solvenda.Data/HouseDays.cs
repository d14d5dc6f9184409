using System.Collections.Frozen;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Calendars;

namespace Solvenda.Data;

/// <summary>When goods leave a warehouse.</summary>
/// <param name="CutOff">What is confirmed later leaves a day later.</param>
/// <param name="PickingDays">Working days from confirming to leaving.</param>
public sealed record WarehouseDays(string Name, TimeOnly CutOff, int PickingDays, WorkCalendar Calendar);

/// <summary>The days on which the house works, and its warehouses.</summary>
public static class HouseDays
{
    private static readonly TimeOnly UsualCutOff = new(15, 0);

    /// <summary>Monday to Friday, less the holidays of the year around a day.</summary>
    public static async Task<WorkCalendar> CalendarAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var (from, to) = (day.AddDays(-7), day.AddDays(400));
        var off = await db
            .Holidays.AsNoTracking()
            .Where(h => h.Active && h.Day >= from && h.Day <= to)
            .Select(h => h.Day)
            .ToListAsync(cancel);
        return WorkCalendar.MondayToFriday with { Holidays = off.ToFrozenSet() };
    }

    /// <summary>The warehouses in use: those that were set up, and those where stock lies all the same.</summary>
    public static async Task<List<string>> WarehouseNamesAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db.Warehouses.AsNoTracking().Select(w => new { w.Code, w.Active }).ToListAsync(cancel);
        var stock = await db.Stock.Select(s => s.Warehouse).Distinct().ToListAsync(cancel);
        return
        [
            .. rows.Where(r => r.Active)
                .Select(r => r.Code)
                .Concat(stock.Where(s => !rows.Exists(r => r.Code == s)))
                .Order(StringComparer.Ordinal),
        ];
    }

    /// <summary>When goods leave each warehouse that was set up, by its name.</summary>
    public static async Task<Dictionary<string, WarehouseDays>> WarehousesAsync(
        SolvendaDb db,
        DateOnly day,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var house = await CalendarAsync(db, day, cancel);
        var rows = await db.Warehouses.AsNoTracking().Where(w => w.Active).ToListAsync(cancel);
        return rows.ToDictionary(
            w => w.Code,
            w => new WarehouseDays(
                w.Code,
                TimeOnly.TryParse(w.CutOff, CultureInfo.InvariantCulture, out var at) ? at : UsualCutOff,
                w.PickingDays,
                WorkCalendar.On(w.WorkingDays) with
                {
                    Holidays = house.Holidays,
                }
            )
        );
    }

    /// <summary>Of a warehouse that nobody set up.</summary>
    public static WarehouseDays Usual(string name, WorkCalendar calendar) => new(name, UsualCutOff, 1, calendar);
}
