using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Documents;

/// <summary>
/// The series of numbers that the house gives, each with how its numbers look where nobody said otherwise.
/// </summary>
public sealed record NumberSeries(string Code, string Words, NumberPattern Usual)
{
    /// <summary>What came in.</summary>
    public static readonly NumberSeries Request = new("R", "requests", NumberPattern.Of("R{yy}-{00000}"));

    /// <summary>Matters.</summary>
    public static readonly NumberSeries Dossier = new("D", "dossiers", NumberPattern.Of("D{yy}-{00000}"));

    /// <summary>Quotes; their revisions follow behind a point.</summary>
    public static readonly NumberSeries Quote = new("Q", "quotes", NumberPattern.Of("Q{yy}-{00000}"));

    /// <summary>Orders.</summary>
    public static readonly NumberSeries Order = new("S", "orders", NumberPattern.Of("S{yy}-{00000}"));

    /// <summary>Invoices and credit notes: without a gap, so nothing but issuing takes a number of it.</summary>
    public static readonly NumberSeries Invoice = new(
        "F",
        "invoices and credit notes",
        NumberPattern.Of("F{yy}-{00000}")
    );

    /// <summary>Money that was noted by hand.</summary>
    public static readonly NumberSeries Receipt = new("H", "money noted by hand", NumberPattern.Of("H{yy}-{00000}"));

    /// <summary>What is asked of purchasing and of production.</summary>
    public static readonly NumberSeries Supply = new(
        "W",
        "what is asked of purchasing and production",
        NumberPattern.Of("W{yy}-{00000}")
    );

    /// <summary>All of them, in the order in which a matter goes.</summary>
    public static readonly ImmutableArray<NumberSeries> All =
    [
        Request,
        Dossier,
        Quote,
        Order,
        Invoice,
        Receipt,
        Supply,
    ];

    /// <summary>The series of that code; null where there is none.</summary>
    public static NumberSeries? Find(string code) => All.FirstOrDefault(s => s.Code == code);
}

/// <summary>Our own numbers as they stand in what others write: by every pattern that a series ever had.</summary>
public sealed class OurNumbers
{
    /// <summary>By the patterns that series have where nobody said otherwise.</summary>
    public static readonly OurNumbers Usual = new([]);

    private readonly Regex _quotes;
    private readonly Regex _orders;
    private readonly Regex _any;

    /// <param name="patterns">What was set beside the usual ones, by the code of the series.</param>
    public OurNumbers(IEnumerable<(string Series, NumberPattern Pattern)> patterns)
    {
        var all = NumberSeries
            .All.Select(s => (Series: s.Code, Pattern: s.Usual))
            .Concat(patterns)
            .ToLookup(p => p.Series, p => p.Pattern.Expression);
        _quotes = Either(all[NumberSeries.Quote.Code]);
        _orders = Either(all[NumberSeries.Order.Code]);
        _any = Either(all.SelectMany(s => s));
    }

    /// <summary>The first number of a quote of ours; not successful where there is none.</summary>
    public Match Quote(string text) => _quotes.Match(text);

    /// <summary>Whether an order of ours is named.</summary>
    public bool NamesOrder(string text) => _orders.IsMatch(text);

    /// <summary>Every number of ours in a text.</summary>
    public IEnumerable<Match> In(string text) => _any.Matches(text);

    private static Regex Either(IEnumerable<string> expressions) =>
        new($@"\b(?:{string.Join('|', expressions.Distinct())})\b", RegexOptions.CultureInvariant);
}
