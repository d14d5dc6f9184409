namespace Solvenda.Core.Money;

/// <summary>One day's rate of a currency: home currency for one unit of it, six decimals.</summary>
public sealed record DatedRate(Currency Currency, DateOnly Day, decimal Rate);

/// <summary>The exchange rates that hold on one day.</summary>
/// <remarks>
/// The latest rate on or before the day counts. A currency without one has no rate: never one to one.
/// </remarks>
public sealed class Rates
{
    private readonly Dictionary<Currency, decimal> _perUnit;

    private Rates(Currency home, Dictionary<Currency, decimal> perUnit)
    {
        Home = home;
        _perUnit = perUnit;
        _perUnit[home] = 1m;
    }

    /// <summary>The house's own currency.</summary>
    public Currency Home { get; }

    /// <summary>The newest rates up to that day.</summary>
    public static Rates On(DateOnly day, Currency home, IEnumerable<DatedRate> rates)
    {
        var latest = rates
            .Where(r => r.Day <= day)
            .GroupBy(r => r.Currency)
            .ToDictionary(g => g.Key, g => g.MaxBy(r => r.Day)!.Rate);
        return new Rates(home, latest);
    }

    /// <summary>Rates that a quote froze, or that a worked case gives.</summary>
    public static Rates Fixed(Currency home, IReadOnlyDictionary<Currency, decimal> perUnit) =>
        new(home, new Dictionary<Currency, decimal>(perUnit));

    /// <summary>Home currency for one unit; null where none is known.</summary>
    public decimal? Of(Currency currency) => _perUnit.TryGetValue(currency, out var rate) ? rate : null;

    /// <summary>
    /// Carries a value from one currency to another, not rounded; null where a rate is missing.
    /// Multiplies before it divides, so that a factor and a rate together are rounded once, by the caller.
    /// </summary>
    public decimal? Convert(decimal value, Currency from, Currency to)
    {
        if (from == to)
            return value;
        return Of(from) is { } a && Of(to) is { } b ? value * a / b : null;
    }
}
