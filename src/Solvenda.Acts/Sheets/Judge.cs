using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats;

namespace Solvenda.Acts.Sheets;

/// <summary>A sheet priced and judged for somebody: figures, what it needs, what its checks found.</summary>
/// <param name="Me">For whom: the sender, if they send it.</param>
public sealed record Judged(
    OpenSheet Open,
    PricedSheet Priced,
    Judgement Approval,
    CheckFacts Facts,
    ImmutableArray<Finding> Findings,
    ImmutableArray<Reach> Headroom,
    Hand Me
)
{
    /// <summary>The house's day on which it was judged.</summary>
    public DateOnly Day { get; init; }

    // Checks whose words say what things cost, or who may give how much.
    private static readonly ImmutableArray<string> OfMoney = ["approval", "cost", Core.Ordering.Checks.OwnRules.Name];

    /// <summary>Whether somebody may read what a check found.</summary>
    public static bool IsSeenBy(Finding finding, Actor who)
    {
        ArgumentNullException.ThrowIfNull(finding);
        ArgumentNullException.ThrowIfNull(who);
        return who.SeesAuthority || !OfMoney.Contains(finding.Check);
    }

    public ImmutableArray<Finding> Stops => [.. Findings.Where(f => f.Outcome == Outcome.Stop)];
}

/// <summary>Prices a sheet and runs its checks: gathers the facts, Core decides. Changes nothing.</summary>
public sealed class Judge(HouseClock clock)
{
    /// <summary>The house's day, by which it judges.</summary>
    public DateOnly Today => clock.Today;

    /// <param name="me">Who looks, or acts.</param>
    /// <param name="asker">Who asks for approval, where somebody does.</param>
    public async Task<Judged> JudgeAsync(
        SolvendaDb db,
        OpenSheet open,
        Hand me,
        CancellationToken cancel,
        Hand? asker = null
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        return await JudgeAsync(db, open, open.Sheet.Priced(open.Buyer, open.Book), me, cancel, asker);
    }

    /// <param name="priced">The sheet, where it is priced already.</param>
    public async Task<Judged> JudgeAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        Hand me,
        CancellationToken cancel,
        Hand? asker = null
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(me);
        var since = SinceAccepted(open, priced);
        var credit = await CreditFacts.OfAsync(db, open, priced, clock.Today, cancel);
        var approval = Judgement.Of(priced, By(open, me, since, asker, Today, credit));
        var decider = me.Person is { } id ? open.People.GetValueOrDefault(id) : null;
        var facts = new CheckFacts(
            open.Kind,
            priced,
            priced.Buyer,
            open.Sheet.Head,
            open.Sheet.ToStated(),
            open.Order is null ? [] : await EarlierFacts.GatherAsync(db, open, cancel),
            await StockFacts.GatherAsync(db, open, priced, clock.LocalNow, cancel),
            credit,
            approval,
            me,
            LineHeadroom(priced, decider),
            [.. Waivers(open, Today)]
        )
        {
            AnswersByEdi =
                HeadTerms.By.In(open.Sheet.Head) == DocumentsBy.Edi && Writers.AnswersOrders(open.RequestSyntax),
            Settings = open.House.Checks,
            Rules = [.. open.House.Policies.Where(p => !p.Asks)],
            Today = Today,
            Promised = Promised(open),
            Gone = open.Begun is { } begun
                ? priced.Sheet.Lines.Where(begun.IsAllOf).Select(l => l.Key).ToHashSet()
                : ImmutableHashSet<long>.Empty,
            Begun = DateOnly.FromDateTime(open.Order?.CreatedAt ?? open.Quote!.CreatedAt),
            SinceAccepted = since,
            SentBack = AskFacts.SentBack(open),
            Restrictions = open.House.Restrictions,
            CallOff = open.CallOff,
            TakenBefore = await TakenFacts.GatherAsync(db, open, priced, cancel),
        };
        return new Judged(
            open,
            priced,
            approval,
            facts,
            IsDone(open) ? [] : CheckList.Run(facts),
            decider is null ? [] : Headroom.Sheet(priced, decider, open.People),
            me
        )
        {
            Day = Today,
        };
    }

    // Of what is done with nothing is newly wrong.
    private static bool IsDone(OpenSheet open) =>
        open.Order is { Terms: TermsTrack.Cancelled } or { Goods: GoodsTrack.Shipped };

    private static Dictionary<long, decimal?> LineHeadroom(PricedSheet priced, Decider? decider) =>
        decider is null
            ? []
            : priced.Sold.ToDictionary(l => l.Line.Key, l => Headroom.Line(l, priced, decider.Authority));

    private static Dictionary<long, DateOnly?>? Promised(OpenSheet open) =>
        open.Order is { Terms: TermsTrack.Confirmed or TermsTrack.Cancelled }
            ? open.Sheet.Lines.ToDictionary(l => l.Key, l => l.Promised)
            : null;

    /// <summary>The stops as they are for somebody else, from the same facts.</summary>
    public static ImmutableArray<Finding> StopsFor(Judged judged, Hand other)
    {
        ArgumentNullException.ThrowIfNull(judged);
        ArgumentNullException.ThrowIfNull(other);
        if (judged.Me.IsSame(other))
            return judged.Stops;
        var facts = judged.Facts with
        {
            Approval = Judgement.Of(
                judged.Priced,
                By(judged.Open, other, judged.Facts.SinceAccepted, null, judged.Day, judged.Facts.Credit)
            ),
            Me = other,
        };
        return [.. CheckList.Run(facts).Where(f => f.Outcome == Outcome.Stop)];
    }

    /// <summary>What the next move hangs on.</summary>
    public static Standing StandingOf(Judged judged, string? order)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        return new Standing(
            open.Kind,
            open.Quote?.State,
            open.Order?.Terms,
            judged.Approval.State,
            judged.Approval.Approvers,
            [.. judged.Stops.Where(f => !f.IsAsked).Select(f => f.Words)],
            judged.Priced.Sold.Any(),
            order
        )
        {
            HeldWhy = open.Order?.HeldWhy ?? "",
            IsChanged = open.Order is { ConfirmedAt: not null },
        };
    }

    // What was let pass until a day counts no longer once it is over.
    private static IEnumerable<Waiver> Waivers(OpenSheet open, DateOnly day) =>
        open
            .Waivers.Where(w => !(w.Until < day))
            .Select(w => new Waiver(w.Check, w.LineKey, w.Fingerprint, w.Excess, w.ByName, w.Reason)
            {
                Until = w.Until,
            });

    // What of a buyer's credit somebody let pass at their desk needs no asking: how far over, and what is overdue.
    private static ImmutableDictionary<string, decimal> LetPass(OpenSheet open, DateOnly day)
    {
        var let = ImmutableDictionary<string, decimal>.Empty;
        foreach (var waiver in Waivers(open, day).Where(w => w.Check == "credit" && !Waiver.IsBlock(w.Fingerprint)))
            let =
                waiver.Excess > 0
                    ? let.SetItem("credit", Math.Max(let.GetValueOrDefault("credit"), waiver.Excess))
                    : let.SetItem("overdue", decimal.MaxValue);
        return let;
    }

    private static JudgedBy By(
        OpenSheet open,
        Hand sender,
        ImmutableArray<string> since,
        Hand? asker,
        DateOnly day,
        CreditAtOrder? credit
    ) =>
        new(
            open.Sheet.Head,
            sender,
            open.Owner,
            open.People,
            [.. open.Asks.Select(AskFacts.Made)],
            open.Accepted is not null && since.IsEmpty,
            asker
        )
        {
            Day = day,
            Policies = open.House.Policies,
            Machines = open.House.Deciders.Machines,
            Credit = credit,
            LetPass = LetPass(open, day),
        };

    private static ImmutableArray<string> SinceAccepted(OpenSheet open, PricedSheet priced) =>
        open.Accepted is { } accepted
            ? Differences.Between(accepted.Priced(open.Buyer, open.Book), accepted.Head, priced, open.Sheet.Head)
            : [];
}
