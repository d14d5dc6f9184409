namespace Solvenda.Core.Money;

/// <summary>A currency by its ISO 4217 code, with the number of decimals of its minor unit.</summary>
/// <remarks>
/// Source of the decimals: ISO 4217 list one, column "minor unit". A code that is not in the table is refused:
/// guessing two decimals would misread an amount by a factor. <c>default</c> is not a currency and throws when used.
/// </remarks>
public readonly record struct Currency
{
    private static readonly Dictionary<string, Currency> Known = Table();

    private readonly string? _code;

    private Currency(string code, int decimals)
    {
        _code = code;
        Decimals = decimals;
    }

    /// <summary>Three capital letters, as in ISO 4217.</summary>
    public string Code => _code ?? throw new InvalidOperationException("A currency was not set.");

    /// <summary>Decimals of the minor unit: 2 for EUR, 0 for JPY, 3 for KWD.</summary>
    public int Decimals { get; }

    /// <exception cref="ArgumentException">The code is not in the table.</exception>
    public static Currency Of(string code) =>
        TryOf(code, out var currency)
            ? currency
            : throw new ArgumentException($"'{code}' is not a known ISO 4217 currency code.", nameof(code));

    /// <summary>False where the code is not in the table; letters may be of either case.</summary>
    public static bool TryOf(string? code, out Currency currency)
    {
        currency = default;
        return code is not null && Known.TryGetValue(code.Trim().ToUpperInvariant(), out currency);
    }

    /// <summary>Every currency that the table knows, by code.</summary>
    public static IReadOnlyCollection<Currency> All => Known.Values;

    /// <inheritdoc />
    public override string ToString() => Code;

    private static Dictionary<string, Currency> Table()
    {
        const string two =
            "AED AUD BGN BRL CAD CHF CNY CZK DKK EGP EUR GBP HKD HUF IDR ILS INR MAD MXN MYR NOK NZD PHP PLN QAR RON SAR SEK SGD THB TRY TWD UAH USD ZAR";
        const string none = "CLP ISK JPY KRW PYG UGX VND XAF XOF XPF";
        const string three = "BHD IQD JOD KWD LYD OMR TND";
        return new[] { (two, 2), (none, 0), (three, 3) }
            .SelectMany(row => row.Item1.Split(' ').Select(code => new Currency(code, row.Item2)))
            .ToDictionary(c => c.Code, StringComparer.Ordinal);
    }
}
