using System.Collections.Immutable;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>
/// What one hand answers for on a sheet: figures of the lines that it typed, of the terms that it typed, and of the
/// whole where it sends (docs/decisions/014).
/// </summary>
internal sealed class HandPart
{
    private readonly PricedSheet _sheet;
    private readonly JudgedBy _by;
    private readonly Hand _hand;
    private readonly List<(PricedLine Line, LineMoney Money)> _money;
    private readonly Dictionary<string, decimal> _judged = [];

    public HandPart(PricedSheet sheet, JudgedBy by, Hand hand, bool isSender)
    {
        (_sheet, _by, _hand) = (sheet, by, hand);
        // Whoever sends answers for what nobody typed and is under its floor all the same: the cost has overtaken it.
        Lines =
        [
            .. sheet.Sold.Where(l =>
                l.HasPrice
                && (
                    isSender
                        // What was paid on a channel is agreed there; what is too far from ours is a check's stop.
                        ? !l.IsPaid
                            && l.Line.ByHand.Kind == ByHandKind.None
                            && l.Figures.SheetDiscountShare.IsZero
                            && l.BelowFloor
                        : Typed(l, hand) || SharedBy(l, by.Head, hand)
                )
            ),
        ];
        // What another hand took off a line is that hand's; its margin and floor are also this one's, who took more off
        // all of them.
        _money =
        [
            .. Lines.Select(l =>
                (l, isSender || Typed(l, hand) ? LineMoney.Of(l) : LineMoney.Of(l) with { DiscountPercent = 0m })
            ),
        ];
        // Nothing of what the buyer accepted is asked again: it was granted before it was sent.
        if (!by.AsAccepted)
            JudgeSheet(sheet, by, hand, isSender);
        if (isSender && !sheet.IsPaid && by.Credit is { } credit)
        {
            foreach (var figure in FigureList.OfCredit)
                Judge(figure, figure.Of(credit));
        }
        Shown = new Shown(Everything(), [.. Lines.Select(Approvals.Shown.Of)], GivenAway());
    }

    /// <summary>The lines that its figures are taken over.</summary>
    public ImmutableArray<PricedLine> Lines { get; }

    /// <summary>All figures of the hand and the sheet, as an ask would show them.</summary>
    public Shown Shown { get; }

    /// <summary>The policies that fire for it, each with its figure.</summary>
    public IEnumerable<(Policy Policy, decimal Value)> Firing(Authority authority)
    {
        var (buyer, group, channel) = (_sheet.Buyer.Id.Value, _sheet.Buyer.Group, _sheet.Sheet.Channel);
        foreach (var policy in _by.Policies)
        {
            if (
                policy.Asks
                && policy.On(_by.Day)
                && policy.Scope.Holds(buyer, group, channel, _hand.Person)
                && Of(policy) is { } value
                && policy.Fires(value, Shown.Figures, authority)
            )
                yield return (policy, value);
        }
    }

    // A policy of some families looks at their lines alone; a figure of the whole, where one of them is sold.
    private decimal? Of(Policy policy)
    {
        if (!_judged.TryGetValue(policy.Figure, out var value))
            return null;
        if (policy.Scope.Families.IsEmpty)
            return value;
        bool Within(PricedLine line) => line.Item is { } item && policy.Scope.Families.Contains(item.Family);
        return FigureList.Of(policy.Figure) is LineFigure figure
                ? figure.Worst(_money.Where(m => Within(m.Line)).Select(m => m.Money))
            : _sheet.Sold.Any(Within) ? value
            : null;
    }

    private void JudgeSheet(PricedSheet sheet, JudgedBy by, Hand hand, bool isSender)
    {
        foreach (var figure in FigureList.OfLines)
            Judge(figure, figure.Worst(_money.Select(m => m.Money)));
        foreach (var figure in FigureList.OfTerms)
        {
            if (!isSender && by.Head[figure.Term]?.By?.IsSame(hand) == true)
                Judge(figure, figure.Of(sheet, by.Head));
        }
        foreach (var figure in isSender ? FigureList.OfTheWhole : [])
            Judge(figure, figure.Of(sheet));
    }

    private void Judge(Figure figure, decimal? value)
    {
        if (value is { } known)
            _judged[figure.Code] = known;
    }

    // What is shown holds the terms and the whole too, so that a grant is tied to them whoever typed them.
    private ImmutableSortedDictionary<string, decimal> Everything()
    {
        var all = new Dictionary<string, decimal>(_judged);
        foreach (var figure in FigureList.OfTerms)
        {
            if (figure.Of(_sheet, _by.Head) is { } value)
                all.TryAdd(figure.Code, value);
        }
        foreach (var figure in FigureList.OfTheWhole)
        {
            if (!all.ContainsKey(figure.Code) && figure.Of(_sheet) is { } value)
                all.Add(figure.Code, value);
        }
        // What the buyer owes is a condition of whatever somebody typed on their order.
        foreach (var figure in FigureList.OfCredit)
        {
            if (_by.Credit is { } credit && figure.Of(credit) is { } value)
                all.TryAdd(figure.Code, value);
        }
        return all.ToImmutableSortedDictionary(StringComparer.Ordinal);
    }

    private decimal GivenAway()
    {
        var away = Lines.Sum(l => l.Figures.Allowance.Value + l.Figures.SheetDiscountShare.Value);
        return _sheet.Rates.Convert(away, _sheet.Sheet.Currency, _sheet.Rates.Home) is { } home
            ? Amount.Round(home, _sheet.Rates.Home).Value
            : away;
    }

    // A discount on the whole is typed on every line that carries a share of it.
    private static bool SharedBy(PricedLine line, Head head, Hand hand) =>
        !line.Figures.SheetDiscountShare.IsZero
        && head[Sheets.Terms.HeadTerms.SheetDiscount.Name]?.By?.IsSame(hand) == true;

    private static bool Typed(PricedLine line, Hand hand) =>
        line.Line.CostBy?.IsSame(hand) == true
        || (
            line.Line.ByHand.Kind != ByHandKind.None
            && ((line.Line.ByHand.By ?? Judgement.Unknown).IsSame(hand) || line.Line.AlsoBy.Any(h => h.IsSame(hand)))
        );
}
