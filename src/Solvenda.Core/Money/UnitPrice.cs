namespace Solvenda.Core.Money;

/// <summary>A price for one price base of a unit, in a currency, with four decimals.</summary>
/// <remarks>
/// Rounded half away from zero to four decimals at each step that yields one. May be negative (a credit line), never
/// without currency.
/// </remarks>
public readonly record struct UnitPrice : IComparable<UnitPrice>
{
    /// <summary>Steps in one currency unit: prices are stored as whole numbers of a ten-thousandth.</summary>
    public const decimal StepsPerUnit = 10_000m;

    private UnitPrice(decimal value, Currency currency)
    {
        Value = value;
        Currency = currency;
    }

    /// <summary>Currency units, at most four decimals.</summary>
    public decimal Value { get; }

    /// <summary>The currency that it is in.</summary>
    public Currency Currency { get; }

    /// <summary>Whole number of ten-thousandths, for storing.</summary>
    public long Steps => decimal.ToInt64(Value * StepsPerUnit);

    /// <summary>Rounded half away from zero to four decimals.</summary>
    public static UnitPrice Round(decimal value, Currency currency) => new(Round4(value), currency);

    /// <summary>Of steps of a ten-thousandth.</summary>
    public static UnitPrice FromSteps(long steps, Currency currency) => new(steps / StepsPerUnit, currency);

    /// <summary>Whether it is less than another of its currency.</summary>
    public static bool operator <(UnitPrice a, UnitPrice b) => a.CompareTo(b) < 0;

    /// <summary>Whether it is more than another of its currency.</summary>
    public static bool operator >(UnitPrice a, UnitPrice b) => a.CompareTo(b) > 0;

    /// <summary>Whether it is at most another of its currency.</summary>
    public static bool operator <=(UnitPrice a, UnitPrice b) => a.CompareTo(b) <= 0;

    /// <summary>Whether it is at least another of its currency.</summary>
    public static bool operator >=(UnitPrice a, UnitPrice b) => a.CompareTo(b) >= 0;

    /// <inheritdoc />
    public int CompareTo(UnitPrice other) =>
        Currency == other.Currency
            ? Value.CompareTo(other.Value)
            : throw new InvalidOperationException($"{Currency.Code} and {other.Currency.Code} do not compare.");

    /// <summary>The rounding of unit prices: four decimals, half away from zero.</summary>
    public static decimal Round4(decimal value) => decimal.Round(value, 4, MidpointRounding.AwayFromZero);

    /// <inheritdoc />
    public override string ToString() =>
        $"{Value.ToString("0.0000", System.Globalization.CultureInfo.InvariantCulture)} {Currency.Code}";
}
