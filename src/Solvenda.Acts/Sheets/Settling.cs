using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>What else a change moved: asks that are no longer what was asked, and the state of the quote.</summary>
/// <param name="Before">State of the quote; null for an order, and where it did not move.</param>
public sealed record Settled(Judged Judged, ImmutableArray<long> Overtaken, QuoteState? Before, QuoteState? After);

/// <summary>
/// What follows from every change of a sheet, whoever made it and by whatever door: priced anew, hands added where a
/// price got worse by it, kept for
/// lists, and asks and state moved where a grant no longer covers it.
/// </summary>
public sealed class Settling(Judge judge, LinesAtHand lines)
{
    /// <summary>Settles an open sheet after a change.</summary>
    public async Task<Settled> SettleAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        var priced = open.Sheet.Priced(open.Buyer, open.Book);
        if (SheetDoor.Slip(priced) is { } slip)
            throw RefusedException.Of(slip with { Words = slip.Words + "; the old one was kept." });
        if (LostBreaks(work, open.Sheet, priced) | DiscountFollows(open, priced))
            priced = open.Sheet.Priced(open.Buyer, open.Book);
        open.Sheet.Keep(priced);
        work.OnceStored(() => lines.Keep(open.Sheet));
        var judged = await judge.JudgeAsync(work.Db, open, priced, work.Actor.Hand, cancel);
        KeepStops(judged);
        await KeptBack.RenewAsync(work, judged, cancel);
        var overtaken = Overtake(work, open, judged);
        if (open.Quote is not { } quote || Doing(quote.State, judged.Approval.State) is not { } doing)
            return new Settled(judged, overtaken, null, null);
        var before = quote.State;
        quote.State = QuoteMoves.Table.After(before, doing)!.Value;
        return new Settled(judged, overtaken, before, quote.State);
    }

    // What is no longer covered goes back to drafting; what waited only for something that is gone is cleared.
    private static QuoteDoing? Doing(QuoteState state, ApprovalState approval) =>
        (state, approval) switch
        {
            (QuoteState.InApproval, ApprovalState.Granted) => QuoteDoing.Grant,
            (QuoteState.InApproval or QuoteState.Cleared, ApprovalState.NotNeeded or ApprovalState.Needed) =>
                QuoteDoing.Rework,
            _ => null,
        };

    /// <summary>Keeps for lists what stops an order, as it is for the seller on its head.</summary>
    public static void KeepStops(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        if (judged.Open is not { IsEditable: true, Order: { } order } open)
            return;
        order.Kind = OrderKinds.KeptOf(open.Sheet.Head);
        var stops = Judge.StopsFor(judged, open.Owner.Hand);
        (order.Stops, order.FirstStop) = (stops.Length, stops.IsEmpty ? "" : stops[0].Words);
        order.StopChecks = string.Join(' ', stops.Select(s => s.Check).Distinct());
        order.CreditStop = stops.Any(s => s.Check == "credit");
    }

    // A higher base price under the same price by hand is a break that was lost: whoever lost it answers for the line
    // too.
    private static bool LostBreaks(Work work, SheetRow sheet, PricedSheet priced)
    {
        var draft = sheet.ToDraft();
        var bases = sheet.Lines.ToDictionary(l => l.Key, l => (l.BasePrice, l.PriceBase));
        ImmutableArray<SheetLine> lines =
        [
            .. draft.Lines.Zip(
                priced.Lines,
                (line, now) =>
                    line.ByHand.Kind != ByHandKind.None
                    && bases[line.Key].BasePrice is { } before
                    && bases[line.Key].PriceBase == now.Build.PriceBase
                    && now.Build.Base is { } after
                    && after.Value > before
                        ? LineFields.Also(line, work.Actor.Hand)
                        : line
            ),
        ];
        if (lines.SequenceEqual(draft.Lines))
            return false;
        sheet.Take(draft with { Lines = lines });
        return true;
    }

    // Once part of an order is billed, what is taken out of it takes its share of an amount off the whole along
    // (docs/calculations.md, Billing).
    private static bool DiscountFollows(OpenSheet open, PricedSheet priced)
    {
        if (
            open is not { Before: { } before, Begun.IsBilled: true }
            || HeadTerms.DiscountIn(before.Head).Amount is null
        )
            return false;
        var (name, draft) = (HeadTerms.SheetDiscount.Name, open.Sheet.ToDraft());
        var stood = draft.Head.With(name, before.Head.Text(name), before.Head[name]?.By);
        var head = ClosingShort.Discount(stood, before.Priced(open.Buyer, open.Book), priced);
        if (head.Text(name) == draft.Head.Text(name))
            return false;
        open.Sheet.Take(draft with { Head = head });
        return true;
    }

    // An ask that waits and no longer covers what it was made for is withdrawn.
    private static ImmutableArray<long> Overtake(Work work, OpenSheet open, Judged judged)
    {
        var overtaken = ImmutableArray.CreateBuilder<long>();
        foreach (var ask in open.Asks.Where(a => a.Outcome == AskOutcome.Waiting && a.SheetId == open.Sheet.Id))
        {
            var made = AskFacts.Made(ask);
            var stillAsks = judged.Approval.Needs.Any(n =>
                n.Policies.Any(p =>
                    p.State == ApprovalState.Waiting
                    && made.Policies.Contains(p.Policy.Code)
                    && made.Shown.Covers(p.Policy.Figure, n.Shown)
                )
            );
            if (stillAsks)
                continue;
            ask.Outcome = AskMoves.Table.After(ask.Outcome, AskDoing.Withdraw)!.Value;
            (ask.DecidedAt, ask.Note) = (work.Now, "overtaken by a change");
            overtaken.Add(ask.Id);
        }
        return overtaken.ToImmutable();
    }
}
