using System.Collections.Immutable;

namespace Solvenda.Data;

/// <summary>
/// Makes values of rows and leaves out those that none can be made of (written past the doors, or before a bound was
/// set).
/// </summary>
internal sealed class SoundRows
{
    /// <summary>No price, cost or rate of anything is larger.</summary>
    private const decimal Largest = 1_000_000_000m;

    private readonly List<string> _leftOut = [];

    public ImmutableArray<string> LeftOut => [.. _leftOut];

    /// <exception cref="OverflowException">It is beyond what anything costs.</exception>
    public static decimal Number(decimal value) =>
        Math.Abs(value) <= Largest
            ? value
            : throw new OverflowException($"{value:0.######} is more than anything costs");

    public ImmutableArray<TValue> Of<TRow, TValue>(
        IEnumerable<TRow> rows,
        Func<TRow, string> called,
        Func<TRow, TValue> make
    )
    {
        var values = ImmutableArray.CreateBuilder<TValue>();
        foreach (var row in rows)
        {
            try
            {
                values.Add(make(row));
            }
            catch (Exception e) when (e is ArgumentException or ArithmeticException or FormatException)
            {
                _leftOut.Add($"{called(row)}: {e.Message}");
            }
        }
        return values.ToImmutable();
    }
}
