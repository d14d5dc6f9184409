using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Requests;

/// <summary>A line of an order beside what the buyer wants of it.</summary>
/// <param name="No">Of the line in the message; null for one that they do not speak of.</param>
/// <param name="Confirmed">As it stands; empty for a new one.</param>
/// <param name="Wanted">As they want it; empty for one that goes.</param>
/// <param name="Moved">What of it they want otherwise: quantity, wanted, price.</param>
/// <param name="Outcome">What taking it comes to: clear, notice, stop.</param>
/// <param name="Effect">The same in words.</param>
public sealed record ChangeLineView(
    int? No,
    WishKind Kind,
    string Number,
    string Code,
    string Words,
    string Confirmed,
    string Wanted,
    IReadOnlyList<string> Moved,
    Outcome Outcome,
    string Effect
);

/// <summary>A buyer's change beside the order, and what taking all of it would come to.</summary>
/// <param name="Orders">Orders that it may be about, the likeliest first.</param>
/// <param name="Whole">They take the whole order back.</param>
/// <param name="Day">The day that they name for the whole, where it is another; null else.</param>
/// <param name="MayTake">Why it cannot be taken; empty where it can.</param>
/// <param name="Does">What taking all of it does: margin, asks, credit.</param>
public sealed record ChangeView(
    string Request,
    long Version,
    IReadOnlyList<string> Orders,
    string Order,
    string Buyer,
    string PoNumber,
    DateTime? ConfirmedAt,
    string Currency,
    decimal Total,
    decimal Becomes,
    bool Whole,
    DateOnly? Day,
    DateOnly? DayBefore,
    IReadOnlyList<ChangeLineView> Lines,
    IReadOnlyList<string> Does,
    string Told,
    string MayTake
);

/// <summary>Works out what a buyer's change would come to; changes nothing.</summary>
internal static class ChangeViews
{
    /// <param name="number">Of the order; null: the likeliest.</param>
    public static async Task<ChangeView> OfAsync(
        SolvendaDb db,
        string request,
        string? number,
        Actor me,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    )
    {
        var row =
            await db.Requests.AsNoTracking().FirstOrDefaultAsync(r => r.Number == request, cancel)
            ?? throw RefusedException.NotFound("such request");
        var reading = row.Reading.Length > 0 ? ReadingView.FromJson(row.Reading) : null;
        if (reading is not { Kind: MessageKind.Change or MessageKind.Cancellation })
            throw RefusedException.NotFound("change in that request");
        var orders = await ChangedOrder.FindAsync(db, row, reading, cancel);
        var of = number ?? row.Changes ?? orders.FirstOrDefault();
        if (of is null)
            throw RefusedException.NotFound(
                $"order of theirs that {(reading.PoNumber.Value is { } po ? $"has the PO {po}" : "it names")}"
            );
        var open = await loader.OrderAsync(db, of, cancel);
        ChangedOrder.MustBeTheirs(open, reading);
        var before = await judge.JudgeAsync(db, open, me.Hand, cancel);
        var facts = open.FactsFor(me.Hand, judge.Today);
        var wishes = ChangedOrder.Wishes(reading, open, facts);
        var day = ChangedOrder.Day(reading, open);
        var whole = ChangedOrder.IsWhole(reading, wishes);
        var stands = Numbered(before);
        var (terms, goods) = (open.Order!.Terms, open.Order.Goods);
        var (after, fault) = await ThenAsync(db, open, wishes, day, me, judge, cancel);
        var told = Confirming.WayOf(after?.Open ?? open);
        return new ChangeView(
            request,
            row.Version,
            orders.Contains(of) ? orders : [of, .. orders],
            of,
            open.Buyer.Name,
            open.Sheet.PoNumber ?? "",
            open.Order.ConfirmedAt,
            open.Sheet.Currency,
            before.Priced.Tally.TotalWithTax.Value,
            whole ? 0m : (after ?? before).Priced.Tally.TotalWithTax.Value,
            whole,
            day,
            day is null ? null : HeadTerms.Wanted.Day(before.Facts.Head),
            [.. wishes.Select(w => Line(w, stands, after))],
            whole ? ["The whole order is taken back; its stock is free again."] : [.. Does(before, after, me)],
            $"when it is confirmed: by {told.By}, to {(told.To.Length > 0 ? told.To : "nobody: there is no address")}",
            WhyNot(terms, goods, whole, reading) ?? fault
        );
    }

    private static string? WhyNot(TermsTrack terms, GoodsTrack goods, bool whole, ReadingView reading) =>
        goods == GoodsTrack.Shipped ? "All of it has gone: that is fixed."
        : whole && goods != GoodsTrack.Waiting
            ? "Part of it has gone, or is being picked: it is not taken back whole; close what is left of it."
        : terms == TermsTrack.Cancelled ? "It is cancelled; open it again first."
        : reading.LeftOvers.Count > 0 ? $"First say what “{reading.LeftOvers[0].Words}” is, or that it means nothing."
        : null;

    // As if all of it were taken. Nothing of it is saved: what was read is thrown away with the answer.
    private static async Task<(Judged? Judged, string Fault)> ThenAsync(
        SolvendaDb db,
        OpenSheet open,
        IReadOnlyList<LineWish> wishes,
        DateOnly? day,
        Actor me,
        Judge judge,
        CancellationToken cancel
    )
    {
        if (open.Order!.Terms == TermsTrack.Cancelled)
            return (null, "");
        var confirmed = Drafting.CopyOf(open.Sheet, null);
        var all = wishes.Select(w => w.Wanted?.No ?? 0).ToHashSet();
        var edited = BuyersChange.Take(open.ToDraft(), wishes, all, day, open.FactsFor(me.Hand, judge.Today));
        if (edited.Refused is { } no)
            return (null, no.Words + ".");
        db.ChangeTracker.AutoDetectChangesEnabled = false;
        open.Order.Terms = TermsTrack.Open;
        open.Sheet.Kept = OrderVersions.KeptOf(open);
        open.Take(edited);
        return (await judge.JudgeAsync(db, open with { Before = open.Before ?? confirmed }, me.Hand, cancel), "");
    }

    private static Dictionary<long, (string Number, Core.Sheets.PricedLine Line)> Numbered(Judged judged)
    {
        var numbers = LineNumbers.Of(judged.Priced.Sheet.Lines);
        return judged.Priced.Sold.ToDictionary(l => l.Line.Key, l => (numbers.GetValueOrDefault(l.Line.Key) ?? "", l));
    }

    private static ChangeLineView Line(
        LineWish wish,
        Dictionary<long, (string Number, Core.Sheets.PricedLine Line)> stands,
        Judged? after
    )
    {
        var (number, priced) = wish.Line is { } line && stands.TryGetValue(line.Key, out var s) ? s : ("", null);
        var then = wish.Then;
        // A new one has the key that it gets, behind the others in their order.
        var becomes = after?.Priced.Sold.FirstOrDefault(l =>
            wish.Line is not null ? l.Line.Key == wish.Line.Key : then is not null && l.Line.Asked == then.Asked
        );
        var finding = becomes is null
            ? null
            : after!
                .Findings.Where(f => f.Line == becomes.Line.Key && f.Waived is null)
                .OrderByDescending(f => f.Outcome)
                .FirstOrDefault();
        var moved = Moved(wish).ToList();
        var price = moved.Contains("price") || wish.Kind == WishKind.New ? then?.Asked.Price : null;
        return new ChangeLineView(
            wish.Wanted?.No,
            wish.Kind,
            number,
            priced?.Item?.Code ?? becomes?.Item?.Code ?? "",
            (wish.Line ?? then)?.Words ?? "",
            wish.Line is null || priced is null ? "" : Said(wish.Line, priced.Figures.NetPrice, null),
            wish.Kind is WishKind.Gone or WishKind.Same || then is null ? "" : Said(then, null, price),
            moved,
            finding?.Outcome ?? Outcome.Clear,
            finding?.Words ?? Effect(wish, becomes, after)
        );
    }

    private static string Effect(LineWish wish, Core.Sheets.PricedLine? becomes, Judged? after) =>
        wish.Kind switch
        {
            WishKind.Gone when wish.Line is null => "we do not have such a line",
            WishKind.Gone => "its stock is free again",
            WishKind.Same => wish.Wanted is null ? "" : "as it stands",
            _ => becomes is not null
            && after!.Facts.Stock.GetValueOrDefault(becomes.Line.Key) is { Promise: { } promise } stock
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"as they want, there {promise.Arrives:d MMM}; {stock.FreeNow:#,0.###} {(becomes.Item is { } item ? UnitTable.OnSheet(item.StockUnit) : "")} free"
                )
                : "as they want",
        };

    private static IEnumerable<string> Moved(LineWish wish)
    {
        if (wish is not { Line: { } was, Then: { } then })
            yield break;
        if (was.Quantity != then.Quantity || was.Unit != then.Unit)
            yield return "quantity";
        if (was.Wanted != then.Wanted)
            yield return "wanted";
        if (then.Asked.Price is { } price && price != was.Asked.Price)
            yield return "price";
    }

    private static string Said(SheetLine line, decimal? net, decimal? asked)
    {
        var words = string.Create(
                CultureInfo.InvariantCulture,
                $"{line.Quantity:#,0.######} {UnitTable.OnSheet(line.Unit)}"
            )
            .Trim();
        if (line.Wanted is { } day)
            words += string.Create(CultureInfo.InvariantCulture, $" · {day:d MMM}");
        return (net ?? asked) is { } price
            ? words + string.Create(CultureInfo.InvariantCulture, $" · {price:0.0000}")
            : words;
    }

    private static IEnumerable<string> Does(Judged before, Judged? after, Actor me)
    {
        if (after is null)
            yield break;
        if (me.SeesCost)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"margin {before.Priced.MarginAsTyped().Percent:0.0} → {after.Priced.MarginAsTyped().Percent:0.0} %, {(after.Approval.State == ApprovalState.Needed ? "somebody must be asked" : "no ask needed")}"
            );
        foreach (var finding in after.Findings.Where(f => f.Line is null && f.Waived is null && Judged.IsSeenBy(f, me)))
            yield return finding.Words;
    }
}
