using System.Collections.Immutable;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>A line as it was shown to whoever decides.</summary>
/// <param name="Item">Key of the item.</param>
/// <param name="Quantity">Stock units.</param>
/// <param name="DiscountPercent">Under its base price.</param>
/// <param name="MarginPercent">Null without cost.</param>
public sealed record ShownLine(long Key, long Item, decimal Quantity, decimal DiscountPercent, decimal? MarginPercent);

/// <summary>
/// What an ask shows and what its grant is tied to: figures by their code, the lines of the hand with their quantities,
/// and what is given away in money.
/// </summary>
/// <param name="Figures">All figures of the hand and the sheet at that moment, also those that no policy holds
/// on.</param>
/// <param name="GivenAway">Allowances and discounts of these lines together, home currency.</param>
public sealed record Shown(
    ImmutableSortedDictionary<string, decimal> Figures,
    ImmutableArray<ShownLine> Lines,
    decimal GivenAway
)
{
    /// <summary>Terms and freight go with every grant: what is worse in them needs a new ask.</summary>
    private static readonly ImmutableArray<Figure> Always = [.. FigureList.OfTerms];

    /// <summary>
    /// Whether a grant of this covers a figure as it stands now: the figure no worse, the same lines and no more of
    /// them, the same or better terms and
    /// freight, and no more given away. Lines at their base price may come; a line may go.
    /// </summary>
    public bool Covers(string code, Shown now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (!now.Figures.TryGetValue(code, out var value) || !Figures.TryGetValue(code, out var shown))
            return false;
        if (FigureList.Of(code).IsWorse(value, shown))
            return false;
        // What they owe is no matter of lines.
        if (FigureList.Of(code) is CreditFigure)
            return true;
        return now.GivenAway <= GivenAway
            && Always.All(f =>
                !now.Figures.TryGetValue(f.Code, out var n) || n <= Figures.GetValueOrDefault(f.Code, 0m)
            )
            && now.Lines.All(l => Lines.Any(s => IsNoWorse(l, s)));
    }

    /// <summary>The same with one figure held to less: what a grant up to it covers.</summary>
    /// <param name="figure">Code of the figure; of a discount or a margin of lines, also each line is held to
    /// it.</param>
    public Shown UpTo(string figure, decimal most)
    {
        var held = FigureList.Of(figure);
        decimal Better(decimal value) => held.IsWorse(value, most) ? most : value;
        return this with
        {
            Figures = Figures.TryGetValue(figure, out var asked) ? Figures.SetItem(figure, Better(asked)) : Figures,
            Lines = figure switch
            {
                "discount" => [.. Lines.Select(l => l with { DiscountPercent = Better(l.DiscountPercent) })],
                "margin" =>
                [
                    .. Lines.Select(l => l with { MarginPercent = l.MarginPercent is { } m ? Better(m) : null }),
                ],
                _ => Lines,
            },
        };
    }

    /// <summary>A line as it is shown now.</summary>
    public static ShownLine Of(PricedLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new ShownLine(
            line.Line.Key,
            line.Item?.Id.Value ?? 0,
            line.Line.Quantity * (line.Item?.Factor(line.Line.Unit) ?? 1m),
            line.DiscountPercent,
            LineMoney.Of(line).MarginPercent
        );
    }

    private static bool IsNoWorse(ShownLine now, ShownLine then) =>
        now.Key == then.Key
        && now.Item == then.Item
        && now.Quantity <= then.Quantity
        && now.DiscountPercent <= then.DiscountPercent
        && (now.MarginPercent ?? decimal.MaxValue) >= (then.MarginPercent ?? decimal.MaxValue);
}
