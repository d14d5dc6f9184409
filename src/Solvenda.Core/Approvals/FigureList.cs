using System.Collections.Frozen;
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
        new OverAgreed(),
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

    /// <summary>How far an order is over its buyer's credit limit; judged also by who may waive it.</summary>
    public static readonly CreditExcess Credit = new();

    /// <summary>Of what the buyer owes with an order, for whoever confirms it.</summary>
    public static readonly ImmutableArray<CreditFigure> OfCredit = [Credit, new DaysOverdue()];

    /// <summary>Of what is kept on file, for whoever keeps it.</summary>
    public static readonly ImmutableArray<KeptFigure> OfKept =
    [
        new KeptFloor(),
        new LimitRaised(),
        new DaysKept(),
        new KeptChange(),
    ];

    /// <summary>
    /// Codes of the figures that a house begins with a policy on; on the others one may be made.
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
        "credit",
        "overdue",
        "kept-floor",
        "limit-raised",
    ];

    /// <summary>All of them.</summary>
    public static readonly ImmutableArray<Figure> All = [.. OfLines, .. OfTerms, .. OfTheWhole, .. OfCredit, .. OfKept];

    private static readonly FrozenDictionary<string, Figure> ByCode = All.ToFrozenDictionary(f => f.Code);

    /// <summary>The figure of that code.</summary>
    /// <exception cref="KeyNotFoundException">There is none.</exception>
    public static Figure Of(string code) => ByCode[code];

    /// <summary>The figure of that code; null where there is none.</summary>
    public static Figure? Find(string code) => ByCode.GetValueOrDefault(code);
}
