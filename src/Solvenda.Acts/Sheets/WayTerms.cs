using Solvenda.Core.Calendars;
using Solvenda.Core.Promising;
using Solvenda.Data;

namespace Solvenda.Acts.Sheets;

/// <summary>What holds for promises from a warehouse to a place, worked out once for each way that goods go.</summary>
public sealed class WayTerms
{
    private readonly IReadOnlyDictionary<string, WarehouseDays> _houses;
    private readonly WorkCalendar _working;
    private readonly Dictionary<(string, int, string), PromiseTerms> _known = [];

    private WayTerms(IReadOnlyDictionary<string, WarehouseDays> houses, WorkCalendar working) =>
        (_houses, _working) = (houses, working);

    public static WayTerms Of(HouseBook house)
    {
        ArgumentNullException.ThrowIfNull(house);
        return new WayTerms(house.Days, house.Calendar);
    }

    public static async Task<WayTerms> LoadAsync(SolvendaDb db, DateOnly today, CancellationToken cancel) =>
        new(await HouseDays.WarehousesAsync(db, today, cancel), await HouseDays.CalendarAsync(db, today, cancel));

    /// <summary>Handed over where it lies: ready at once, and there.</summary>
    public PromiseTerms AtCounter(string warehouse)
    {
        var way = Of(warehouse, 0, "");
        return way with { CutOff = TimeOnly.MaxValue, PickingDays = 0, Receiving = way.Warehouse };
    }

    /// <param name="transit">Working days on the road.</param>
    /// <param name="receiving">Days on which goods are received there; empty: Monday to Friday.</param>
    public PromiseTerms Of(string warehouse, int transit, string receiving)
    {
        if (_known.TryGetValue((warehouse, transit, receiving), out var known))
            return known;
        var house = _houses.GetValueOrDefault(warehouse) ?? HouseDays.Usual(warehouse, _working);
        return _known[(warehouse, transit, receiving)] = new PromiseTerms(
            house.CutOff,
            house.PickingDays,
            transit,
            house.Calendar,
            WorkCalendar.On(receiving)
        );
    }
}
