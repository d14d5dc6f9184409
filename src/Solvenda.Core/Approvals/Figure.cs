using Solvenda.Core.Credit;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>
/// A figure that policies look at: how it is read, what is beyond an authority, what is worse, and how it is said. One
/// file each in Figures/,
/// one line in <see cref="FigureList"/>.
/// </summary>
public abstract class Figure
{
    /// <summary>Stable, part of the API and of what asks keep.</summary>
    public abstract string Code { get; }

    /// <summary>What it is called, beside a ruler.</summary>
    public abstract string Label { get; }

    /// <summary>When a policy on it fires, as its sentence begins: "a line is given more than its giver may".</summary>
    public abstract string Beyond { get; }

    /// <summary>What it is called in a condition, before "over 10,000".</summary>
    public abstract string Called { get; }

    /// <summary>What the authority allows; null: nothing of the kind.</summary>
    public abstract decimal? LimitOf(Authority authority);

    /// <summary>The figure against the limit, in words that begin small.</summary>
    public abstract string Say(decimal value, Authority authority);

    /// <summary>The figure alone, as it stands beside a ruler.</summary>
    public virtual string Show(decimal value) => FormattableString.Invariant($"{value:0.0} %");

    /// <summary>Whether more of it is worse; false where less is.</summary>
    public virtual bool MoreIsWorse => true;

    /// <summary>Whether it is more than the authority allows.</summary>
    public virtual bool IsBeyond(decimal value, Authority authority) =>
        MoreIsWorse
            ? value > 0 && value > (LimitOf(authority) ?? 0m)
            : value < (LimitOf(authority) ?? decimal.MaxValue);

    /// <summary>Whether one value is worse for the house than another.</summary>
    public bool IsWorse(decimal value, decimal than) => MoreIsWorse ? value > than : value < than;
}

/// <summary>A figure of lines: the worst of the lines that a hand typed.</summary>
public abstract class LineFigure : Figure
{
    /// <summary>Of one line; null where it has none.</summary>
    public abstract decimal? Of(in LineMoney line);

    /// <summary>The worst of some lines; null where none has it.</summary>
    public virtual decimal? Worst(IEnumerable<LineMoney> lines)
    {
        decimal? worst = null;
        foreach (var line in lines)
        {
            if (Of(line) is { } value && (worst is not { } w || IsWorse(value, w)))
                worst = value;
        }
        return worst;
    }
}

/// <summary>A figure of a term on the head: judged for the hand that typed the term.</summary>
public abstract class TermFigure : Figure
{
    /// <summary>Name of the term; where nobody typed it there is nothing to judge.</summary>
    public abstract string Term { get; }

    /// <summary>Of the sheet as it stands; null where it does not apply.</summary>
    public abstract decimal? Of(PricedSheet sheet, Head head);
}

/// <summary>A figure of the whole: judged for whoever sends or confirms.</summary>
public abstract class WholeFigure : Figure
{
    /// <summary>
    /// Of the sheet as it stands, at the worst that the buyer may choose; null where it does not apply.
    /// </summary>
    public abstract decimal? Of(PricedSheet sheet);

    /// <summary>
    /// The value where no rate leads to the home currency: beyond every authority, for nobody can say that it is not.
    /// </summary>
    public const decimal Unknown = decimal.MaxValue;

    /// <summary>In home currency, rounded; <see cref="Unknown"/> for want of a rate.</summary>
    protected static decimal Home(decimal value, PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return sheet.Rates.Convert(value, sheet.Sheet.Currency, sheet.Rates.Home) is { } home
            ? Amount.Round(home, sheet.Rates.Home).Value
            : Unknown;
    }
}

/// <summary>
/// A figure of what the buyer owes with an order: judged for whoever confirms it, however it came about. A grant of it
/// is for one order, up to a value and a day, whatever else changes.
/// </summary>
public abstract class CreditFigure : Figure
{
    /// <summary>Of an order; null where there is nothing to decide on.</summary>
    public abstract decimal? Of(CreditAtOrder credit);
}

/// <summary>
/// A figure of what is about to be kept on file: judged for whoever keeps it. How it is read stands with the kind of
/// record, which knows what it means.
/// </summary>
public abstract class KeptFigure : Figure;
