using System.Collections.Immutable;
using Solvenda.Core.Money;

namespace Solvenda.Core.Pricing;

/// <summary>What the arithmetic of one line needs: prices already found, rules already judged.</summary>
/// <param name="Base">Base price per <paramref name="PriceBase"/>; null for a line without price.</param>
/// <param name="Cost">Cost per <paramref name="PriceBase"/>, in the sheet's currency; null where unknown.</param>
/// <param name="Charges">Line charges, rounded one by one.</param>
/// <param name="Counts">False for an optional line or an alternative that was not chosen.</param>
public sealed record LineTerms(
    decimal Quantity,
    decimal? Base,
    decimal PriceBase,
    decimal? Cost,
    ByHand ByHand,
    ImmutableArray<decimal> Charges,
    bool Counts,
    bool Discountable,
    Tax? Tax
)
{
    /// <summary>
    /// For a bundle: the taxes of its parts, each with its weight (list value); empty: all of the line has
    /// <see cref="Tax"/>.
    /// </summary>
    public ImmutableArray<(Tax? Tax, long Weight)> TaxShares { get; init; } = [];

    /// <summary>
    /// The cost as somebody typed it over the catalogue's: what a typed margin is worked out from. Null where nobody
    /// did.
    /// </summary>
    public decimal? TypedCost { get; init; }

    /// <summary>A charge has no cost, and nobody misses it.</summary>
    public bool IsCharge { get; init; }

    /// <summary>Its net as it was paid on a channel; null where it was not.</summary>
    public Amount? PaidNet { get; init; }

    /// <summary>Its part of what the channel keeps, in the sheet's currency.</summary>
    public decimal Fee { get; init; }
}

/// <summary>The figures of one line, each rounded to the minor unit.</summary>
/// <param name="NetPrice">Net unit price per price base, four decimals.</param>
/// <param name="Cost">round(quantity x cost / base); null where the cost is unknown.</param>
/// <param name="SheetDiscountShare">This line's part of the sheet discount.</param>
/// <param name="Margin">Net without charges after the share, less the cost; null without cost or where the line does
/// not count.</param>
/// <param name="MarginPercent">Margin in percent of that net; null where that net is zero.</param>
public sealed record LineFigures(
    decimal NetPrice,
    Amount Gross,
    Amount Allowance,
    Amount Charges,
    Amount Net,
    Amount? Cost,
    Amount SheetDiscountShare,
    Amount? Margin,
    decimal? MarginPercent
)
{
    /// <summary>
    /// What the margin is measured against: net after the share of the sheet discount, without line charges.
    /// </summary>
    public Amount Earned => Net - Charges - SheetDiscountShare;

    /// <summary>Its part of what the channel keeps; null where none does.</summary>
    public Amount? Fee { get; init; }

    /// <summary>What it costs us, with what the channel keeps of it; null where the cost is unknown.</summary>
    public Amount? CostWithFee => Fee is { } fee ? Cost + fee : Cost;
}

/// <summary>A charge on the sheet, with its tax.</summary>
/// <param name="Kind">"freight", "insurance", or the code of the rule that it comes by.</param>
public sealed record SheetCharge(string Kind, decimal Amount, Tax? Tax, bool ByHand = false)
{
    /// <summary>What it is called on paper; the kind where nothing else is said.</summary>
    public string Words { get; init; } = Kind;
}

/// <summary>The lines of a sheet worked out, before its charges and taxes.</summary>
/// <param name="Goods">Sum of the nets of the lines that count.</param>
/// <param name="Taken">The sheet discount, as a positive amount taken off.</param>
/// <param name="Refused">True where an amount above the discountable lines' nets was asked for; nothing is taken off
/// then.</param>
public sealed record LinesDone(ImmutableArray<LineFigures> Figures, Amount Goods, Amount Taken, bool Refused);

/// <summary>The discount on the whole sheet: at most one of the two is set.</summary>
public sealed record SheetDiscount(decimal? Percent, decimal? Amount)
{
    /// <summary>Nothing off.</summary>
    public static readonly SheetDiscount None = new(null, null);
}

/// <summary>One row of the tax table.</summary>
public sealed record TaxRow(Tax Tax, Amount Basis, Amount TaxAmount);

/// <summary>The totals of a sheet.</summary>
/// <param name="SheetDiscount">As a positive amount taken off.</param>
/// <param name="DiscountRefused">True where an amount above the discountable lines' nets was asked for; nothing is
/// taken off then.</param>
public sealed record Tally(
    Amount Goods,
    Amount SheetDiscount,
    bool DiscountRefused,
    Amount Charges,
    ImmutableArray<TaxRow> Taxes,
    Amount TotalWithoutTax,
    Amount TotalTax,
    Amount TotalWithTax,
    Amount Deposit,
    Amount Due,
    Amount Margin,
    decimal? MarginPercent,
    int LinesWithoutCost
)
{
    /// <summary>What was paid beyond the total, or less than it (BT-114); null where nothing was paid with
    /// tax.</summary>
    public Amount? Rounding { get; init; }
}

/// <summary>
/// The arithmetic of lines and tally: exact, rounded only at the named points (docs/calculations.md).
/// </summary>
public static class SheetArithmetic
{
    /// <summary>Works out every line and the tally (docs/calculations.md).</summary>
    public static (ImmutableArray<LineFigures> Lines, Tally Tally) Calculate(
        Currency currency,
        IReadOnlyList<LineTerms> lines,
        SheetDiscount discount,
        IReadOnlyList<SheetCharge> charges,
        decimal deposit
    )
    {
        var done = Lines(currency, lines, discount);
        return (done.Figures, Totals(currency, lines, done, charges, deposit));
    }

    /// <summary>
    /// The lines and what is taken off the sheet: what charges that hang on the value of the goods need first.
    /// </summary>
    public static LinesDone Lines(Currency currency, IReadOnlyList<LineTerms> lines, SheetDiscount discount)
    {
        var plain = new LineFigures[lines.Count];
        for (var i = 0; i < plain.Length; i++)
            plain[i] = Line(lines[i], currency);

        var (taken, refused) = SheetDiscountAmount(currency, lines, plain, discount);
        var shares = taken.SplitOver(Weights(lines, plain));
        var figures = ImmutableArray.CreateBuilder<LineFigures>(plain.Length);
        for (var i = 0; i < plain.Length; i++)
            figures.Add(WithMargin(plain[i], lines[i].Counts, taken.IsZero ? Amount.Zero(currency) : shares[i]));

        var goods = Amount.Zero(currency);
        for (var i = 0; i < plain.Length; i++)
        {
            if (lines[i].Counts)
                goods += plain[i].Net;
        }
        return new LinesDone(figures.MoveToImmutable(), goods, taken, refused);
    }

    /// <summary>Net price for a margin: round4(C / (1 - m)).</summary>
    public static decimal NetForMargin(decimal cost, decimal marginPercent) =>
        UnitPrice.Round4(cost / (1 - (marginPercent / 100m)));

    /// <summary>
    /// The figures of a line on its own, before any sheet discount. A line without a price counts as zero in sums and
    /// carries a stop elsewhere.
    /// </summary>
    public static LineFigures Line(LineTerms line, Currency currency)
    {
        var unitBase = line.Base ?? 0m;
        Amount Extend(decimal price) => Amount.Round(line.Quantity * price / line.PriceBase, currency);

        var typed = line.ByHand.Value;
        var gross = line is { PaidNet: { } paid, ByHand.Kind: ByHandKind.None } ? paid : Extend(unitBase);
        var (net, allowance) = line.ByHand.Kind switch
        {
            ByHandKind.DiscountPercent => (
                UnitPrice.Round4(unitBase * (1 - (typed / 100m))),
                Amount.Round(gross.Value * typed / 100m, currency)
            ),
            ByHandKind.DiscountAmount => (NetAfterAmount(line, unitBase, typed), Amount.Round(typed, currency)),
            ByHandKind.NetPrice => (UnitPrice.Round4(typed), gross - Extend(UnitPrice.Round4(typed))),
            ByHandKind.Margin when (line.TypedCost ?? line.Cost) is { } cost => (
                NetForMargin(cost, typed),
                gross - Extend(NetForMargin(cost, typed))
            ),
            _ => (unitBase, Amount.Zero(currency)),
        };
        var charges = Amount.Zero(currency);
        foreach (var charge in line.Charges)
            charges += Amount.Round(charge, currency);
        Amount? costAmount = line.Cost is { } c ? Extend(c) : null;
        return new LineFigures(
            net,
            gross,
            allowance,
            charges,
            gross - allowance + charges,
            costAmount,
            Amount.Zero(currency),
            null,
            null
        )
        {
            Fee = line.Fee == 0m ? null : Amount.Round(line.Fee, currency),
        };
    }

    private static decimal NetAfterAmount(LineTerms line, decimal unitBase, decimal off) =>
        line.Quantity == 0 ? unitBase : UnitPrice.Round4(unitBase - (off * line.PriceBase / line.Quantity));

    private static (Amount Taken, bool Refused) SheetDiscountAmount(
        Currency currency,
        IReadOnlyList<LineTerms> lines,
        LineFigures[] figures,
        SheetDiscount discount
    )
    {
        var discountable = Amount.Zero(currency);
        for (var i = 0; i < figures.Length; i++)
        {
            if (lines[i].Counts && lines[i].Discountable)
                discountable += figures[i].Net;
        }
        if (discount.Percent is { } percent)
            return (Amount.Round(discountable.Value * percent / 100m, currency), false);
        if (discount.Amount is not { } asked)
            return (Amount.Zero(currency), false);
        var amount = Amount.Round(asked, currency);
        return amount > discountable ? (Amount.Zero(currency), true) : (amount, false);
    }

    private static long[] Weights(IReadOnlyList<LineTerms> lines, LineFigures[] figures)
    {
        var weights = new long[figures.Length];
        for (var i = 0; i < weights.Length; i++)
            weights[i] = lines[i].Counts && lines[i].Discountable ? figures[i].Net.Minor : 0;
        return weights;
    }

    private static LineFigures WithMargin(LineFigures f, bool counts, Amount share)
    {
        if (!counts || f.CostWithFee is not { } cost)
            return share.IsZero ? f : f with { SheetDiscountShare = share };
        var earned = f.Net - f.Charges - share;
        var margin = earned - cost;
        return f with { SheetDiscountShare = share, Margin = margin, MarginPercent = Percent(margin, earned) };
    }

    /// <summary>The totals of lines that are worked out, with charges and taxes.</summary>
    public static Tally Totals(
        Currency currency,
        IReadOnlyList<LineTerms> lines,
        LinesDone done,
        IReadOnlyList<SheetCharge> charges,
        decimal deposit,
        Amount? rounding = null
    )
    {
        var (figures, goods, taken, refused) = done;
        var zero = Amount.Zero(currency);
        var (margin, earned) = (zero, zero);
        var withoutCost = 0;
        for (var i = 0; i < figures.Length; i++)
        {
            if (!lines[i].Counts)
                continue;
            if (figures[i].Margin is { } of)
            {
                margin += of;
                earned += figures[i].Earned;
            }
            else if (!lines[i].IsCharge)
            {
                withoutCost++;
            }
        }
        var chargeTotal = zero;
        foreach (var charge in charges)
            chargeTotal += Amount.Round(charge.Amount, currency);

        var taxes = TaxTable(currency, lines, figures, charges, taken);
        var tax = zero;
        foreach (var row in taxes)
            tax += row.TaxAmount;
        var withoutTax = goods - taken + chargeTotal;
        var withTax = withoutTax + tax;
        var paid = Amount.Round(deposit, currency);
        return new Tally(
            goods,
            taken,
            refused,
            chargeTotal,
            taxes,
            withoutTax,
            tax,
            withTax,
            paid,
            withTax + (rounding ?? zero) - paid,
            margin,
            Percent(margin, earned),
            withoutCost
        )
        {
            Rounding = rounding,
        };
    }

    // EN 16931 works tax out by category and rate, not by line (BR-CO-17). A row without a known tax is left out; the
    // check on it stops the sheet.
    private static ImmutableArray<TaxRow> TaxTable(
        Currency currency,
        IReadOnlyList<LineTerms> lines,
        ImmutableArray<LineFigures> figures,
        IReadOnlyList<SheetCharge> charges,
        Amount taken
    )
    {
        var zero = Amount.Zero(currency);
        var of = new List<(Tax? Tax, Amount Nets, Amount Discountable, Amount Charges)>(4);
        int At(Tax? tax)
        {
            for (var i = 0; i < of.Count; i++)
            {
                if (of[i].Tax == tax)
                    return i;
            }
            of.Add((tax, zero, zero, zero));
            return of.Count - 1;
        }
        void Count(Tax? tax, Amount net, bool discountable)
        {
            var at = At(tax);
            of[at] = of[at] with
            {
                Nets = of[at].Nets + net,
                Discountable = discountable ? of[at].Discountable + net : of[at].Discountable,
            };
        }
        for (var i = 0; i < figures.Length; i++)
        {
            if (!lines[i].Counts)
                continue;
            if (lines[i].TaxShares.IsEmpty)
            {
                Count(lines[i].Tax, figures[i].Net, lines[i].Discountable);
                continue;
            }
            // A bundle's price is taxed part by part.
            var parts = figures[i].Net.SplitOver([.. lines[i].TaxShares.Select(s => s.Weight)]);
            for (var p = 0; p < parts.Length; p++)
                Count(lines[i].TaxShares[p].Tax, parts[p], lines[i].Discountable);
        }
        foreach (var charge in charges)
        {
            var at = At(charge.Tax);
            of[at] = of[at] with { Charges = of[at].Charges + Amount.Round(charge.Amount, currency) };
        }

        var shares = taken.SplitOver([.. of.Select(t => t.Discountable.Minor)]);
        var rows = ImmutableArray.CreateBuilder<TaxRow>(of.Count);
        for (var i = 0; i < of.Count; i++)
        {
            if (of[i].Tax is not { } tax)
                continue;
            var basis = of[i].Nets - shares[i] + of[i].Charges;
            rows.Add(new TaxRow(tax, basis, Amount.Round(basis.Value * tax.Percent / 100m, currency)));
        }
        return rows.ToImmutable();
    }

    private static decimal? Percent(Amount part, Amount whole) =>
        whole.IsZero ? null : decimal.Round(part.Minor * 100m / whole.Minor, 2, MidpointRounding.AwayFromZero);
}
