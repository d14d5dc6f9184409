using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;

namespace Solvenda.Web.Sheets;

/// <summary>
/// A sheet as the screen draws it: every figure worked out, rounded, and ready to be shown. What is not theirs to see
/// is null.
/// </summary>
/// <param name="Approvals">The policies that fire, each with who decides; empty where nothing fires.</param>
public sealed record SheetView(
    long Id,
    long Version,
    bool Editable,
    string Currency,
    int Decimals,
    DateOnly PricingDate,
    IReadOnlyList<TermView> Terms,
    IReadOnlyList<LineView> Lines,
    TallyView Tally,
    IReadOnlyList<FindingView> Findings,
    IReadOnlyList<ReachView> Headroom,
    ApprovalView Approval,
    IReadOnlyList<PolicyNeedView> Approvals,
    FreightView Freight
)
{
    /// <summary>Of a sheet that is stored.</summary>
    public static SheetView Of(Judged judged, Actor who)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        var view = Of(
            judged.Priced,
            judged.Findings,
            open.Sheet.Id,
            open.Sheet.Version,
            open.IsEditable,
            TermView.Of(judged),
            judged.Facts.Stock,
            judged.Facts.LineHeadroom,
            judged.Headroom,
            judged.Approval,
            who,
            open.Order is not null && who.PersonId is { } me ? open.People.GetValueOrDefault(new PersonId(me)) : null
        );
        // Once it is confirmed, what was promised is shown, and not what could be promised by now.
        if (judged.Facts.Promised is { } promised)
            view = view.With(l => l with { Promise = promised.GetValueOrDefault(l.Key) ?? l.Promise });
        if (open.Begun is not { } begun)
            return view;
        var told = open.Sheet.Lines.ToDictionary(l => l.Key, l => l.Promised);
        return view.With(l =>
            begun.Lines.TryGetValue(l.Key, out var went)
                ? l with
                {
                    Begun = went.Quantity,
                    Promise = l.Promise ?? told.GetValueOrDefault(l.Key),
                }
                : l
        );
    }

    private SheetView With(Func<LineView, LineView> line) => this with { Lines = [.. Lines.Select(line)] };

    /// <summary>Also of sheets that are not stored: the price door.</summary>
    public static SheetView Of(
        PricedSheet priced,
        IReadOnlyList<Finding> findings,
        long id,
        long version,
        bool editable,
        IReadOnlyList<TermView> terms,
        IReadOnlyDictionary<long, LineStock> stock,
        IReadOnlyDictionary<long, decimal?> lineHeadroom,
        IReadOnlyList<Reach> headroom,
        Judgement approval,
        Actor who,
        Decider? me
    )
    {
        ArgumentNullException.ThrowIfNull(priced);
        ArgumentNullException.ThrowIfNull(who);
        var currency = priced.Sheet.Currency;
        var (numbers, sums) = (LineNumbers.Of(priced.Sheet.Lines), priced.Subtotals());
        return new SheetView(
            id,
            version,
            editable,
            currency.Code,
            currency.Decimals,
            priced.Sheet.PricingDate,
            terms,
            [
                .. priced.Lines.Select(l =>
                    LineView.Of(
                        l,
                        numbers.GetValueOrDefault(l.Line.Key) ?? "",
                        sums.TryGetValue(l.Line.Key, out var sum) ? sum.Value : l.Figures.Net.Value,
                        stock.GetValueOrDefault(l.Line.Key),
                        who.SeesAuthority ? lineHeadroom.GetValueOrDefault(l.Line.Key) : null,
                        who.SeesCost
                    )
                ),
            ],
            TallyView.Of(priced, who.SeesCost),
            [.. findings.Where(f => Judged.IsSeenBy(f, who)).Select(f => FindingView.Of(f, me))],
            who.SeesAuthority ? [.. headroom.Select(r => new ReachView(r.Name, r.UpToPercent))] : [],
            who.SeesAuthority ? ApprovalView.Of(approval) : ApprovalView.None,
            who.SeesAuthority ? PolicyNeedView.Of(approval) : [],
            FreightView.Of(priced.Freight)
        );
    }
}

/// <summary>How freight was worked out, or why it was not.</summary>
public sealed record FreightView(
    FreightGap Gap,
    decimal Kilograms,
    string? Zone,
    string? Service,
    IReadOnlyList<string> Unweighed
)
{
    public static FreightView Of(FreightAnswer freight)
    {
        ArgumentNullException.ThrowIfNull(freight);
        return new FreightView(freight.Gap, freight.Kilograms, freight.Zone, freight.Service, [.. freight.Unweighed]);
    }
}

/// <summary>Something that one key does about a finding.</summary>
public sealed record CureView(string Key, string Words, string Action, string Field, string Value);

/// <summary>What a check found.</summary>
/// <param name="MayWaive">Whether this person may let it pass.</param>
/// <param name="WhyNot">Why they may not; empty where they may.</param>
public sealed record FindingView(
    string Check,
    Outcome Outcome,
    string Words,
    long? Line,
    string Field,
    bool MayWaive,
    string WhyNot,
    IReadOnlyList<CureView> Cures,
    IReadOnlyList<DocumentRef> Documents,
    string? WaivedBy,
    string? WaivedWhy
)
{
    public static FindingView Of(Finding f, Decider? me)
    {
        ArgumentNullException.ThrowIfNull(f);
        var mayNot = f.Outcome == Outcome.Stop && me is not null ? Waiving.WhyNot(f, me)?.Words : null;
        return new FindingView(
            f.Check,
            f.Outcome,
            f.Words,
            f.Line,
            f.Field,
            f.Outcome == Outcome.Stop && me is not null && mayNot is null,
            mayNot ?? "",
            [.. f.Cures.Select(c => new CureView(c.Key, c.Words, c.Action, c.Field, c.Value))],
            [.. f.Documents],
            f.Waived?.Who,
            f.Waived?.Reason
        );
    }
}

/// <summary>Up to which discount on the whole somebody may go alone; null: not even as it is.</summary>
public sealed record ReachView(string Name, decimal? UpToPercent);

/// <summary>A policy that fires, and who decides.</summary>
/// <param name="Policy">Its code.</param>
/// <param name="Figure">What is asked for: a percentage, days, or an amount in home currency.</param>
/// <param name="Limit">What the hand may decide alone; null: nothing of the kind.</param>
/// <param name="Route">Who is asked, in order: "A or B" where any one of them decides; null as the last where nobody
/// covers it.</param>
/// <param name="Hand">Who typed it, or would send it.</param>
/// <param name="Words">The figure against the limit.</param>
public sealed record PolicyNeedView(
    string Policy,
    decimal Figure,
    decimal? Limit,
    IReadOnlyList<string?> Route,
    string Hand,
    string Words
)
{
    public static IReadOnlyList<PolicyNeedView> Of(Judgement judgement)
    {
        ArgumentNullException.ThrowIfNull(judgement);
        return
        [
            .. judgement
                .Needs.SelectMany(n => n.Policies.Select(p => (By: n, Need: p)))
                .Select(p => new PolicyNeedView(
                    p.Need.Policy.Code,
                    p.Need.Value,
                    p.Need.Limit,
                    [.. p.Need.Route.Select(s => s.Names)],
                    p.By.Hand.Name,
                    p.Need.Words
                )),
        ];
    }
}

/// <summary>Whether approval is needed, by whom, and for what.</summary>
public sealed record ApprovalView(ApprovalState State, IReadOnlyList<string> Approvers, IReadOnlyList<string> Why)
{
    public static readonly ApprovalView None = new(ApprovalState.NotNeeded, [], []);

    public static ApprovalView Of(Judgement judgement)
    {
        ArgumentNullException.ThrowIfNull(judgement);
        return new ApprovalView(judgement.State, judgement.Approvers, [.. judgement.Words]);
    }
}
