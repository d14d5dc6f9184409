using System.Collections.Immutable;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>A figure that is beyond a hand's authority.</summary>
/// <param name="Figure">Its code.</param>
/// <param name="Words">The figure against the limit.</param>
public sealed record Fired(string Figure, decimal Value, string Words);

/// <summary>
/// One hand's part of a sheet: its figures, what of them is beyond its authority, and who decides on that.
/// </summary>
/// <param name="IsSender">Whether it is judged as whoever sends or confirms, and not for what it typed.</param>
/// <param name="Lines">The lines that its figures are taken over.</param>
/// <param name="Approver">Null where nobody on the line may.</param>
/// <param name="Policies">The policies that fire, each with its route.</param>
public sealed record HandNeed(
    Hand Hand,
    bool IsSender,
    Authority Authority,
    ImmutableArray<PricedLine> Lines,
    Shown Shown,
    ImmutableArray<Fired> Fired,
    Decider? Approver,
    ApprovalState State,
    ImmutableArray<PolicyNeed> Policies
);

/// <summary>A policy that fires for a hand.</summary>
/// <param name="Figure">The figure that is beyond the hand.</param>
/// <param name="Limit">What the hand may decide alone; null: nothing of the kind.</param>
/// <param name="Route">Who is asked, in order.</param>
public sealed record PolicyNeed(Policy Policy, decimal Figure, decimal? Limit, ImmutableArray<RouteStep> Route);

/// <summary>What a sheet is judged with, beside itself.</summary>
/// <param name="Sender">Who would send or confirm it: whoever looks at it, or does it.</param>
/// <param name="Owner">The seller on the head; does not decide on it.</param>
/// <param name="Asker">Who asks, where somebody does: does not decide on it either.</param>
/// <param name="AsAccepted">An order no worse than what the buyer accepted: its value is not judged again.</param>
public sealed record JudgedBy(
    Head Head,
    Hand Sender,
    Decider Owner,
    IReadOnlyDictionary<PersonId, Decider> People,
    ImmutableArray<MadeAsk> Asks,
    bool AsAccepted = false,
    Hand? Asker = null
)
{
    /// <summary>The day on which it is decided: who is away then is passed over, or stood in for.</summary>
    public DateOnly Day { get; init; }
}

/// <summary>
/// Whose authority a sheet needs (docs/decisions/014): figures of lines per hand that typed their price, terms by the
/// hand that typed the term,
/// the whole by whoever sends.
/// </summary>
public sealed record Judgement(ImmutableArray<HandNeed> Needs)
{
    /// <summary>Nothing is beyond anybody.</summary>
    public static readonly Judgement Nothing = new([]);

    /// <summary>
    /// How it stands: what is still to be asked goes before what waits, and that before what is granted.
    /// </summary>
    public ApprovalState State => Needs.Select(n => n.State).DefaultIfEmpty(ApprovalState.NotNeeded).Min();

    /// <summary>Those who have to be asked, or have the ask; empty where somebody is needed and nobody may.</summary>
    public ImmutableArray<string> Approvers
    {
        get
        {
            var state = State;
            var asked = Needs.Where(n => n.State == state && !n.Fired.IsEmpty).ToList();
            return asked.Exists(n => n.Approver is null) ? [] : [.. asked.Select(n => n.Approver!.Name).Distinct()];
        }
    }

    /// <summary>Everything that is beyond somebody, in words.</summary>
    public IEnumerable<string> Words => Needs.SelectMany(n => n.Fired).Select(f => f.Words).Distinct();

    /// <summary>Judges a sheet.</summary>
    public static Judgement Of(PricedSheet sheet, JudgedBy by)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(by);
        var hands = HandsOf(sheet, by.Head);
        var needs = ImmutableArray.CreateBuilder<HandNeed>();
        foreach (var hand in hands)
            needs.Add(Need(sheet, by, hand, isSender: false));
        needs.Add(Need(sheet, by, by.Sender, isSender: true));
        return new Judgement([.. needs.Where(n => !n.Fired.IsEmpty)]);
    }

    /// <summary>Every hand that typed something that is judged.</summary>
    public static ImmutableArray<Hand> HandsOf(PricedSheet sheet, Head head)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(head);
        var hands = ImmutableArray.CreateBuilder<Hand>();
        void Add(Hand? hand)
        {
            if (hand is not null && !hands.Any(h => h.IsSame(hand)))
                hands.Add(hand);
        }
        foreach (var line in sheet.Sold.Where(l => l.Line.ByHand.Kind != ByHandKind.None || l.Line.CostBy is not null))
        {
            if (line.Line.ByHand.Kind != ByHandKind.None)
                Add(line.Line.ByHand.By ?? Unknown);
            Add(line.Line.CostBy);
            foreach (var also in line.Line.AlsoBy)
                Add(also);
        }
        foreach (var figure in FigureList.OfTerms)
            Add(head[figure.Term]?.By);
        return hands.ToImmutable();
    }

    // A price by hand whose hand nobody knows has nobody's authority.
    private static readonly Hand Unknown = new(null, "nobody known");

    // A discount on the whole is typed on every line that carries a share of it.
    private static bool SharedBy(PricedLine line, Head head, Hand hand) =>
        !line.Figures.SheetDiscountShare.IsZero
        && head[Sheets.Terms.HeadTerms.SheetDiscount.Name]?.By?.IsSame(hand) == true;

    private static bool Typed(PricedLine line, Hand hand) =>
        line.Line.CostBy?.IsSame(hand) == true
        || (
            line.Line.ByHand.Kind != ByHandKind.None
            && ((line.Line.ByHand.By ?? Unknown).IsSame(hand) || line.Line.AlsoBy.Any(h => h.IsSame(hand)))
        );

    private static HandNeed Need(PricedSheet sheet, JudgedBy by, Hand hand, bool isSender)
    {
        var person = hand.Person is { } id ? by.People.GetValueOrDefault(id) : null;
        var authority = person?.Authority ?? Authority.None;
        // Whoever sends answers for what nobody typed and is under its floor all the same: the cost has overtaken it.
        ImmutableArray<PricedLine> lines =
        [
            .. sheet.Sold.Where(l =>
                l.HasPrice
                && (
                    isSender
                        ? l.Line.ByHand.Kind == ByHandKind.None && l.Figures.SheetDiscountShare.IsZero && l.BelowFloor
                        : Typed(l, hand) || SharedBy(l, by.Head, hand)
                )
            ),
        ];
        var judged = Figures(sheet, by, hand, isSender, lines);
        var shown = new Shown(
            Everything(sheet, by.Head, judged),
            [.. lines.Select(Approvals.Shown.Of)],
            GivenAway(sheet, lines)
        );
        var figures = judged.ToDictionary(f => f.Key.Code, f => f.Value);
        ImmutableArray<Policy> firing = [.. HousePolicies.All.Where(p => p.Fires(figures, authority))];
        ImmutableArray<Fired> fired =
        [
            .. firing.Select(p => new Fired(
                p.Figure,
                figures[p.Figure],
                FigureList.Of(p.Figure).Say(figures[p.Figure], authority)
            )),
        ];
        if (fired.IsEmpty)
            return new HandNeed(hand, isSender, authority, lines, shown, fired, null, ApprovalState.NotNeeded, []);
        var (state, asked) = StateOf(fired, shown, by);
        // A machine reports to nobody: what it typed climbs from whoever follows the sheet up.
        var approver =
            asked ?? Route.Climb(person ?? by.Owner, by.People).FirstOrDefault(p => MayDecide(p, hand, by, fired));
        return new HandNeed(
            hand,
            isSender,
            authority,
            lines,
            shown,
            fired,
            approver,
            state,
            [
                .. firing.Select(p => new PolicyNeed(
                    p,
                    figures[p.Figure],
                    FigureList.Of(p.Figure).LimitOf(authority),
                    PolicyRoute.Of(p, figures[p.Figure], person ?? by.Owner, Involved(hand, by), by.People, by.Day)
                )),
            ]
        );
    }

    private static bool MayDecide(Decider person, Hand hand, JudgedBy by, ImmutableArray<Fired> fired) =>
        Route.MayDecide(person, Involved(hand, by), fired);

    private static HashSet<PersonId> Involved(Hand hand, JudgedBy by)
    {
        var involved = new HashSet<PersonId> { by.Owner.Id };
        foreach (var hands in new[] { hand, by.Asker })
        {
            if (hands?.Person is { } id)
                involved.Add(id);
        }
        return involved;
    }

    private static Dictionary<Figure, decimal> Figures(
        PricedSheet sheet,
        JudgedBy by,
        Hand hand,
        bool isSender,
        ImmutableArray<PricedLine> lines
    )
    {
        var figures = new Dictionary<Figure, decimal>();
        // What another hand took off a line is that hand's; its margin and floor are also this one's, who took more off
        // all of them.
        var money = lines
            .Select(l => isSender || Typed(l, hand) ? LineMoney.Of(l) : LineMoney.Of(l) with { DiscountPercent = 0m })
            .ToList();
        foreach (var figure in FigureList.OfLines)
        {
            if (figure.Worst(money) is { } worst)
                figures[figure] = worst;
        }
        foreach (var figure in FigureList.OfTerms)
        {
            if (!isSender && by.Head[figure.Term]?.By?.IsSame(hand) == true && figure.Of(sheet, by.Head) is { } value)
                figures[figure] = value;
        }
        foreach (var figure in isSender && !by.AsAccepted ? FigureList.OfTheWhole : [])
        {
            if (figure.Of(sheet) is { } value)
                figures[figure] = value;
        }
        return figures;
    }

    // What is shown holds the terms and the whole too, so that a grant is tied to them whoever typed them.
    private static ImmutableSortedDictionary<string, decimal> Everything(
        PricedSheet sheet,
        Head head,
        Dictionary<Figure, decimal> judged
    )
    {
        var all = judged.ToDictionary(f => f.Key.Code, f => f.Value);
        foreach (var figure in FigureList.OfTerms)
        {
            if (figure.Of(sheet, head) is { } value)
                all.TryAdd(figure.Code, value);
        }
        foreach (var figure in FigureList.OfTheWhole)
        {
            if (figure.Of(sheet) is { } value)
                all.TryAdd(figure.Code, value);
        }
        return all.ToImmutableSortedDictionary(StringComparer.Ordinal);
    }

    private static decimal GivenAway(PricedSheet sheet, ImmutableArray<PricedLine> lines)
    {
        var away = lines.Sum(l => l.Figures.Allowance.Value + l.Figures.SheetDiscountShare.Value);
        return sheet.Rates.Convert(away, sheet.Sheet.Currency, sheet.Rates.Home) is { } home
            ? Amount.Round(home, sheet.Rates.Home).Value
            : away;
    }

    // How it stands, and who has the ask where one waits.
    private static (ApprovalState State, Decider? Asked) StateOf(ImmutableArray<Fired> fired, Shown now, JudgedBy by)
    {
        MadeAsk? Covering(Fired f, AskOutcome outcome) =>
            by.Asks.FirstOrDefault(a => a.Outcome == outcome && a.Shown.Covers(f.Figure, now));
        var open = fired.Where(f => Covering(f, AskOutcome.Granted) is null).ToList();
        if (open.Count == 0)
            return (ApprovalState.Granted, null);
        var waiting = open.ConvertAll(f => Covering(f, AskOutcome.Waiting));
        return waiting.Contains(null)
            ? (ApprovalState.Needed, null)
            : (ApprovalState.Waiting, by.People.GetValueOrDefault(waiting[0]!.Approver));
    }
}
