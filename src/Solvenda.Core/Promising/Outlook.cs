using System.Collections.Immutable;

namespace Solvenda.Core.Promising;

/// <summary>
/// A quantity that comes or goes on a day (0 = today; late ones were moved to their day by the caller).
/// </summary>
public sealed record StockMove(int Day, decimal Quantity);

/// <summary>
/// An item's stock over time in one warehouse, in stock units, by day from today = 0: a stepped line, kept by its
/// steps, since most days nothing happens.
/// </summary>
public sealed class Outlook
{
    private readonly int _days;
    private readonly Step[] _steps;

    private Outlook(int days, Step[] steps)
    {
        _days = days;
        _steps = steps;
    }

    // From a day on: the projection, and the least projection from then to the end.
    private readonly record struct Step(int Day, decimal Projected, decimal Least);

    /// <summary>on hand + incoming up to the day - committed up to the day, for each day.</summary>
    public ImmutableArray<decimal> Projected => Spread(s => s.Projected);

    /// <summary>
    /// What can be taken on the day without breaking an earlier promise, for each day: the least projection from then
    /// on, not below zero.
    /// </summary>
    public ImmutableArray<decimal> Free => Spread(s => Math.Max(0m, s.Least));

    /// <summary>What can be taken today.</summary>
    public decimal FreeNow => Math.Max(0m, _steps[0].Least);

    /// <param name="days">How far to look; moves after that are left out.</param>
    public static Outlook Over(
        int days,
        decimal onHand,
        IEnumerable<StockMove> incoming,
        IEnumerable<StockMove> committed
    )
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(days, 1);
        var changes = new SortedDictionary<int, decimal> { [0] = 0m };
        void Put(int day, decimal quantity)
        {
            if (day < days)
                changes[Math.Max(0, day)] = changes.GetValueOrDefault(Math.Max(0, day)) + quantity;
        }
        foreach (var move in incoming)
            Put(move.Day, move.Quantity);
        foreach (var move in committed)
            Put(move.Day, -move.Quantity);

        var steps = new Step[changes.Count];
        var (at, running) = (0, onHand);
        foreach (var (day, change) in changes)
            steps[at++] = new Step(day, running += change, 0m);
        var least = decimal.MaxValue;
        for (var i = steps.Length - 1; i >= 0; i--)
            steps[i] = steps[i] with { Least = least = Math.Min(least, steps[i].Projected) };
        return new Outlook(days, steps);
    }

    /// <summary>
    /// The days on which what can be taken changes, and what it is from then on; never less than before.
    /// </summary>
    public IEnumerable<(int Day, decimal Free)> Steps => _steps.Select(s => (s.Day, Math.Max(0m, s.Least)));

    /// <summary>
    /// The days on which the stock changes, and what it is from then on; below zero where it is short.
    /// </summary>
    public IEnumerable<(int Day, decimal Level)> Levels => _steps.Select(s => (s.Day, s.Projected));

    /// <summary>
    /// First day from which the quantity can be taken; null where it is not within the days looked at.
    /// </summary>
    public int? FirstDayFor(decimal quantity)
    {
        foreach (var step in _steps)
        {
            if (Math.Max(0m, step.Least) >= quantity)
                return step.Day;
        }
        return null;
    }

    private ImmutableArray<decimal> Spread(Func<Step, decimal> of)
    {
        var spread = ImmutableArray.CreateBuilder<decimal>(_days);
        for (var (day, at) = (0, 0); day < _days; day++)
        {
            if (at + 1 < _steps.Length && _steps[at + 1].Day == day)
                at++;
            spread.Add(of(_steps[at]));
        }
        return spread.MoveToImmutable();
    }
}
