using System.Collections.Immutable;
using Solvenda.Core.Credit;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>All figures of a sheet, whoever typed what: what a rule of the house looks at.</summary>
public static class SheetFigures
{
    /// <summary>By the code of the figure; those that the sheet does not have are left out.</summary>
    /// <param name="families">Figures of lines are taken over the lines of these; empty: over all.</param>
    /// <param name="credit">Null for a quote.</param>
    public static IReadOnlyDictionary<string, decimal> Of(
        PricedSheet sheet,
        Head head,
        CreditAtOrder? credit,
        ImmutableArray<string> families
    )
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(head);
        var figures = new Dictionary<string, decimal>();
        void Put(Figure figure, decimal? value)
        {
            if (value is { } known)
                figures[figure.Code] = known;
        }
        var lines = sheet
            .Sold.Where(l => l.HasPrice && (families.IsEmpty || (l.Item is { } item && families.Contains(item.Family))))
            .Select(LineMoney.Of)
            .ToList();
        foreach (var figure in FigureList.OfLines)
            Put(figure, figure.Worst(lines));
        foreach (var figure in FigureList.OfTerms)
            Put(figure, figure.Of(sheet, head));
        foreach (var figure in FigureList.OfTheWhole)
            Put(figure, figure.Of(sheet));
        if (credit is not null)
        {
            foreach (var figure in FigureList.OfCredit)
                Put(figure, figure.Of(credit));
        }
        return figures;
    }
}
