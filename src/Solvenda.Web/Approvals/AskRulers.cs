using System.Globalization;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Web.Approvals;

/// <summary>The figures of an ask against the limits, and what would do with less.</summary>
public static class AskRulers
{
    // What is shown beside what was asked about: what the whole earns is always worth knowing.
    private static readonly string[] Beside = ["sheet-margin"];

    /// <summary>
    /// A ruler for each figure that is asked about, as it stands now, and for what the whole earns.
    /// </summary>
    public static List<AskRuler> Of(OpenAsk ask, Judged judged, PricedSheet plain, Authority hand, Authority yours)
    {
        ArgumentNullException.ThrowIfNull(ask);
        ArgumentNullException.ThrowIfNull(judged);
        ArgumentNullException.ThrowIfNull(plain);
        var before = plain.Sold.Where(l => l.HasPrice).Select(LineMoney.Of).ToList();
        var now = judged.Approval.Needs.SelectMany(n => n.Fired).ToLookup(f => f.Figure);
        var shown = AskFacts.ShownOf(ask.Row).Figures;
        var rulers = new List<AskRuler>();
        foreach (
            var (code, asked) in ask
                .Fired.Select(f => (f.Figure, true))
                .Concat(Beside.Where(shown.ContainsKey).Select(b => (b, false)))
                .DistinctBy(f => f.Item1)
        )
        {
            var value = now[code].FirstOrDefault()?.Value ?? shown.GetValueOrDefault(code);
            if (code == "floor" || value == WholeFigure.Unknown)
                continue;
            rulers.Add(Ruler(FigureList.Of(code), value, asked, before, hand, yours));
        }
        return rulers;
    }

    private static AskRuler Ruler(
        Figure figure,
        decimal value,
        bool asked,
        List<LineMoney> before,
        Authority hand,
        Authority yours
    )
    {
        var limit = Known(figure.LimitOf(hand));
        var mine = Known(figure.LimitOf(yours));
        var top = new[] { value, limit ?? 0m, figure.MoreIsWorse ? Math.Min(mine ?? 0m, value * 2) : 0m }.Max();
        return new AskRuler(
            figure.Code,
            figure.Label,
            value,
            figure.Show(value),
            limit,
            mine is { } y && y > top * 1.3m ? null : mine,
            figure switch
            {
                LineFigure of when !figure.MoreIsWorse => of.Worst(before),
                _ when figure.MoreIsWorse && figure is not WholeFigure => 0m,
                _ => null,
            },
            Math.Min(0m, value),
            figure.MoreIsWorse ? Math.Max(20m, top * 1.3m) : Math.Max(50m, top + 5m),
            figure.MoreIsWorse,
            asked,
            asked ? Halfway(figure, value, limit) : null
        );
    }

    // What is proposed where somebody grants less: between what the hand may alone and what is asked, in whole steps.
    private static decimal? Halfway(Figure figure, decimal value, decimal? limit)
    {
        var from = limit ?? (figure.MoreIsWorse ? 0m : value + 10m);
        var half = decimal.Round((value + from) / 2m, value >= 100m ? 0 : 1, MidpointRounding.AwayFromZero);
        return figure.IsWorse(value, half) ? half : null;
    }

    /// <summary>What would do with less asked: the hand's own limit, the floor.</summary>
    public static List<AskInstead> Instead(IReadOnlyList<PricedLine> causes, Judged judged, Authority hand)
    {
        ArgumentNullException.ThrowIfNull(causes);
        ArgumentNullException.ThrowIfNull(judged);
        if (causes is not [{ Terms.Base: { } price } line] || price <= 0)
            return [];
        var instead = new List<AskInstead>();
        void Add(decimal? percent, string what)
        {
            if (
                percent is not { } p
                || p < 0
                || p >= line.DiscountPercent
                || instead.Exists(i => i.UpTo == decimal.Round(p, 1))
            )
                return;
            var more = decimal.Round(line.Figures.Gross.Value * (line.DiscountPercent - p) / 100m, 2);
            instead.Add(
                new AskInstead(
                    string.Create(CultureInfo.InvariantCulture, $"{p:0.#} %, {what}: earns {more:#,0.00} more"),
                    "discount",
                    decimal.Round(p, 1)
                )
            );
        }
        Add(Headroom.Line(line, judged.Priced, hand), "theirs to give");
        if (line.Floor is { } floor)
            Add(decimal.Floor((1 - (floor / price)) * 1000m) / 10m, "on the floor");
        return instead;
    }

    private static decimal? Known(decimal? limit) =>
        limit is <= Authority.AnyMargin or >= Authority.AnyValue ? null : limit;
}
