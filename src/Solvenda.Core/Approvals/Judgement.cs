using System.Collections.Immutable;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>A figure that is beyond a hand's authority.</summary>
/// <param name="Figure">Its code.</param>
/// <param name="Words">The figure against the limit.</param>
public sealed record Fired(string Figure, decimal Value, string Words)
{
    /// <summary>Code of the policy that fired; asks of before there were any are of the figure's own.</summary>
    public string Policy { get; init; } = Figure;
}

/// <summary>
/// One hand's part of a sheet: its figures, what of them is beyond its authority, and who decides on that.
/// </summary>
/// <param name="IsSender">Whether it is judged as whoever sends or confirms, and not for what it typed.</param>
/// <param name="Lines">The lines that its figures are taken over.</param>
/// <param name="Policies">The policies that fire, each with its route and how it stands.</param>
public sealed record HandNeed(
    Hand Hand,
    bool IsSender,
    Authority Authority,
    ImmutableArray<PricedLine> Lines,
    Shown Shown,
    ImmutableArray<PolicyNeed> Policies
)
{
    /// <summary>What is beyond the hand, in the order of the policies.</summary>
    public ImmutableArray<Fired> Fired => [.. Policies.Select(p => p.Fired)];

    /// <summary>What is still to be asked goes before what waits, and that before what is granted.</summary>
    public ApprovalState State => Policies.Select(p => p.State).DefaultIfEmpty(ApprovalState.NotNeeded).Min();

    /// <summary>
    /// Who has to be asked, or has the ask, each once; null among them where nobody may.
    /// </summary>
    public IEnumerable<string?> Asked
    {
        get
        {
            var state = State;
            return Policies.Where(p => p.State == state).Select(p => p.AskedNow.Names).Distinct();
        }
    }

    /// <summary>
    /// What is to be asked, one ask for each way that it goes: policies that lead to the same people in the same order
    /// are one question.
    /// </summary>
    public ImmutableArray<ImmutableArray<PolicyNeed>> ToAsk =>
        [
            .. Policies
                .Where(p => p.State == ApprovalState.Needed)
                .GroupBy(p => string.Join('>', p.Route.Select(s => string.Join('|', s.AnyOf.Select(d => d.Id.Value)))))
                .Select(g => g.ToImmutableArray()),
        ];
}

/// <summary>A policy that fires for a hand.</summary>
/// <param name="Value">The figure that is beyond the hand.</param>
/// <param name="Limit">What the hand may decide alone; null: nothing of the kind.</param>
/// <param name="Route">Who is asked, in order.</param>
/// <param name="AskedNow">Who has to be asked first, or has the ask.</param>
public sealed record PolicyNeed(
    Policy Policy,
    decimal Value,
    decimal? Limit,
    string Words,
    ImmutableArray<RouteStep> Route,
    ApprovalState State,
    RouteStep AskedNow
)
{
    /// <summary>As an ask keeps it.</summary>
    public Fired Fired => new(Policy.Figure, Value, Words) { Policy = Policy.Code };
}

/// <summary>What a sheet is judged with, beside itself.</summary>
/// <param name="Sender">Who would send or confirm it: whoever looks at it, or does it.</param>
/// <param name="Owner">The seller on the head; does not decide on it.</param>
/// <param name="Asker">Who asks, where somebody does: does not decide on it either.</param>
/// <param name="AsAccepted">An order no worse than what the buyer accepted: only their credit is judged anew.</param>
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

    /// <summary>The policies of the house; of them those count that hold on the day.</summary>
    public ImmutableArray<Policy> Policies { get; init; } = HousePolicies.All;

    /// <summary>What the buyer owes with the order; null for a quote, which owes nothing yet.</summary>
    public CreditAtOrder? Credit { get; init; }

    /// <summary>What of a figure of credit somebody let pass already, at its desk: by its code.</summary>
    public ImmutableDictionary<string, decimal> LetPass { get; init; } = [];

    /// <summary>What the administrator gave machines, by the name of their key.</summary>
    public ImmutableDictionary<string, Authority> Machines { get; init; } = [];
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
            var asked = Needs.Where(n => n.State == state).SelectMany(n => n.Asked).Distinct().ToList();
            return asked.Contains(null) ? [] : [.. asked.Select(n => n!)];
        }
    }

    /// <summary>Everything that is beyond somebody, in words.</summary>
    public IEnumerable<string> Words => Needs.SelectMany(n => n.Policies).Select(p => p.Words).Distinct();

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
        return new Judgement([.. needs.Where(n => !n.Policies.IsEmpty)]);
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
    internal static readonly Hand Unknown = new(null, "nobody known");

    private static HandNeed Need(PricedSheet sheet, JudgedBy by, Hand hand, bool isSender)
    {
        var person = hand.Person is { } id ? by.People.GetValueOrDefault(id) : null;
        var authority = person?.Authority ?? by.Machines.GetValueOrDefault(hand.Name) ?? Authority.None;
        var part = new HandPart(sheet, by, hand, isSender);
        var involved = Involved(hand, by);
        return new HandNeed(
            hand,
            isSender,
            authority,
            part.Lines,
            part.Shown,
            [
                .. part.Firing(authority)
                    .Select(f =>
                    {
                        var figure = FigureList.Of(f.Policy.Figure);
                        // A machine reports to nobody: what it typed climbs from whoever follows the sheet up.
                        var route = PolicyRoute.Of(f.Policy, f.Value, person ?? by.Owner, involved, by.People, by.Day);
                        var (state, holders) = StateOf(f.Policy, f.Value, part.Shown, by);
                        return new PolicyNeed(
                            f.Policy,
                            f.Value,
                            figure.LimitOf(authority),
                            figure.Say(f.Value, authority),
                            route,
                            state,
                            holders ?? route[0]
                        );
                    }),
            ]
        );
    }

    /// <summary>Who may not decide on what a hand typed, in whatever part.</summary>
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

    // How it stands, and who has the ask where one waits.
    private static (ApprovalState State, RouteStep? Holders) StateOf(
        Policy policy,
        decimal value,
        Shown now,
        JudgedBy by
    )
    {
        MadeAsk? Covering(AskOutcome outcome) =>
            by.Asks.FirstOrDefault(a =>
                a.Outcome == outcome
                && !(a.Until < by.Day)
                && a.Policies.Contains(policy.Code)
                && a.Shown.Covers(policy.Figure, now)
            );
        if (
            Covering(AskOutcome.Granted) is not null
            || by.LetPass.TryGetValue(policy.Figure, out var let) && value <= let
        )
            return (ApprovalState.Granted, null);
        return Covering(AskOutcome.Waiting) is { } waiting
            ? (
                ApprovalState.Waiting,
                new RouteStep([.. waiting.Holders.Select(by.People.GetValueOrDefault).OfType<Decider>()])
            )
            : (ApprovalState.Needed, null);
    }
}
