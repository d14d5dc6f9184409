using System.Collections.Immutable;
using Solvenda.Core.Approvals.Figures;

namespace Solvenda.Core.Approvals;

/// <summary>
/// The figures that policies look at: the only place that names them all. A policy fires where its figure is beyond the
/// hand's authority.
/// </summary>
public static class FigureList
{
    /// <summary>Of lines, per hand.</summary>
    public static readonly ImmutableArray<LineFigure> OfLines =
    [
        new LineDiscount(),
        new LineMargin(),
        new BelowFloor(),
        new CostUnder(),
    ];

    /// <summary>Of terms, per the hand that typed the term.</summary>
    public static readonly ImmutableArray<TermFigure> OfTerms =
    [
        new SheetDiscountGiven(),
        new DaysBeyond(),
        new FreightUnderTable(),
    ];

    /// <summary>Of the whole, for whoever sends or confirms.</summary>
    public static readonly ImmutableArray<WholeFigure> OfTheWhole =
    [
        new SheetValue(),
        new SheetMargin(),
        new WithoutCost(),
    ];

    /// <summary>How far an order is over its buyer's credit limit; judged by who may waive it.</summary>
    public static readonly CreditExcess Credit = new();

    /// <summary>
    /// Codes of the figures that a policy holds on; the others are shown, and may not get worse once something was
    /// granted.
    /// </summary>
    public static readonly ImmutableHashSet<string> Policies =
    [
        "discount",
        "margin",
        "floor",
        "cost-under",
        "sheet-discount",
        "terms",
        "freight",
        "value",
        "without-cost",
    ];

    /// <summary>All of them.</summary>
    public static readonly ImmutableArray<Figure> All = [.. OfLines, .. OfTerms, .. OfTheWhole, Credit];

    /// <summary>The figure of that code.</summary>
    /// <exception cref="InvalidOperationException">There is none.</exception>
    public static Figure Of(string code) => All.First(f => f.Code == code);
}
