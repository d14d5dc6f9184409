namespace Solvenda.Core.Money;

/// <summary>An amount of money: a whole number of the currency's minor unit.</summary>
/// <remarks>
/// Sums are exact and checked for overflow. There is one way in from a fraction, <see cref="Round"/>: half away from
/// zero to the
/// minor unit. Adding two currencies throws. <c>default</c> has no currency and throws when used.
/// </remarks>
public readonly record struct Amount : IComparable<Amount>
{
    private Amount(long minor, Currency currency)
    {
        Minor = minor;
        Currency = currency;
    }

    /// <summary>Whole number of minor units: cents for EUR, fils for KWD.</summary>
    public long Minor { get; }

    /// <summary>The currency that its minor units are of.</summary>
    public Currency Currency { get; }

    /// <summary>The amount in major units, with exactly the currency's decimals.</summary>
    public decimal Value => new decimal(Minor) / Scale(Currency.Decimals);

    /// <summary>Whether it is nothing.</summary>
    public bool IsZero => Minor == 0;

    /// <summary>Nothing, in that currency.</summary>
    public static Amount Zero(Currency currency) => new(0, currency);

    /// <summary>Of minor units: cents, or whole yen.</summary>
    public static Amount FromMinor(long minor, Currency currency) => new(minor, currency);

    /// <summary>Minor units of a currency in major units: 12345 of EUR is 123.45.</summary>
    /// <exception cref="ArgumentException">The code is not in the table.</exception>
    public static decimal Major(long minor, string currency) => FromMinor(minor, Money.Currency.Of(currency)).Value;

    /// <summary>Rounds half away from zero to the minor unit.</summary>
    /// <exception cref="OverflowException">Larger than 9.2e18 minor units.</exception>
    public static Amount Round(decimal value, Currency currency) =>
        new(
            decimal.ToInt64(decimal.Round(value * Scale(currency.Decimals), 0, MidpointRounding.AwayFromZero)),
            currency
        );

    /// <summary>The sum of two of one currency.</summary>
    /// <exception cref="InvalidOperationException">The currencies differ.</exception>
    public static Amount operator +(Amount a, Amount b) => new(checked(a.Minor + b.Same(a).Minor), a.Currency);

    /// <summary>The difference of two of one currency.</summary>
    /// <exception cref="InvalidOperationException">The currencies differ.</exception>
    public static Amount operator -(Amount a, Amount b) => new(checked(a.Minor - b.Same(a).Minor), a.Currency);

    /// <summary>The same with the other sign.</summary>
    public static Amount operator -(Amount a) => new(checked(-a.Minor), a.Currency);

    /// <summary>Whether it is less than another of its currency.</summary>
    public static bool operator <(Amount a, Amount b) => a.CompareTo(b) < 0;

    /// <summary>Whether it is more than another of its currency.</summary>
    public static bool operator >(Amount a, Amount b) => a.CompareTo(b) > 0;

    /// <summary>Whether it is at most another of its currency.</summary>
    public static bool operator <=(Amount a, Amount b) => a.CompareTo(b) <= 0;

    /// <summary>Whether it is at least another of its currency.</summary>
    public static bool operator >=(Amount a, Amount b) => a.CompareTo(b) >= 0;

    /// <summary>The sum of amounts of that currency; nothing where there are none.</summary>
    public static Amount Sum(IEnumerable<Amount> amounts, Currency currency)
    {
        var sum = Zero(currency);
        foreach (var amount in amounts)
            sum += amount;
        return sum;
    }

    /// <inheritdoc />
    public int CompareTo(Amount other) => Minor.CompareTo(other.Same(this).Minor);

    /// <summary>
    /// Splits in proportion to whole weights: each part is cut towards zero, and the minor units left over go to the
    /// largest
    /// remainders, ties to the earlier part. The parts always add back up to the amount. All weights zero: everything
    /// to the first part.
    /// </summary>
    /// <exception cref="ArgumentException">There is no part to split over, while the amount is not zero.</exception>
    public Amount[] SplitOver(ReadOnlySpan<long> weights)
    {
        var shares = new Amount[weights.Length];
        if (weights.Length == 0)
            return IsZero ? shares : throw new ArgumentException("There is nothing to split over.", nameof(weights));
        var total = 0L;
        foreach (var weight in weights)
            total = checked(total + weight);
        var parts = new long[weights.Length];
        if (total == 0)
            parts[0] = Minor;
        else if (Minor != 0)
            Divide(weights, total, parts);
        for (var i = 0; i < parts.Length; i++)
            shares[i] = new Amount(parts[i], Currency);
        return shares;
    }

    private void Divide(ReadOnlySpan<long> weights, long total, long[] parts)
    {
        var remainders = new long[weights.Length];
        var left = Minor;
        for (var i = 0; i < weights.Length; i++)
        {
            var product = (Int128)Minor * weights[i];
            if (product >= long.MinValue && product <= long.MaxValue)
            {
                (parts[i], var remainder) = Math.DivRem((long)product, total);
                remainders[i] = Math.Abs(remainder);
            }
            else
            {
                parts[i] = (long)(product / total);
                remainders[i] = (long)Int128.Abs(product % total);
            }
            left -= parts[i];
        }
        if (left == 0)
            return;
        var order = new int[parts.Length];
        for (var i = 0; i < order.Length; i++)
            order[i] = i;
        Array.Sort(order, (a, b) => remainders[b].CompareTo(remainders[a]) is var c and not 0 ? c : a.CompareTo(b));
        for (var i = 0; i < Math.Abs(left); i++)
            parts[order[i]] += Math.Sign(left);
    }

    /// <inheritdoc />
    public override string ToString() =>
        $"{Value.ToString(System.Globalization.CultureInfo.InvariantCulture)} {Currency.Code}";

    private Amount Same(Amount other) =>
        Currency == other.Currency
            ? this
            : throw new InvalidOperationException($"{Currency.Code} and {other.Currency.Code} do not mix.");

    private static decimal Scale(int decimals) =>
        decimals switch
        {
            0 => 1m,
            2 => 100m,
            3 => 1000m,
            _ => throw new InvalidOperationException("A currency has 0, 2 or 3 decimals."),
        };
}
