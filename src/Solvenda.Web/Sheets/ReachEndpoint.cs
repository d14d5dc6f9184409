using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>What a wish would take.</summary>
/// <param name="LessPercent">Off all, of the goods; null where the wish is no discount on all.</param>
/// <param name="Approvers">Who would have to agree; empty where nobody would.</param>
/// <param name="Edits">What is sent to do it.</param>
/// <param name="WhyNot">Why it cannot be done; empty where it can.</param>
public sealed record WishView(
    decimal Total,
    decimal? LessPercent,
    decimal? MarginBefore,
    decimal? MarginAfter,
    bool Asks,
    IReadOnlyList<string> Approvers,
    IReadOnlyList<string> Why,
    IReadOnlyList<SheetEdit> Edits,
    string WhyNot
);

/// <summary>When all of it can be there, and what holds it up.</summary>
/// <param name="Line">Number of the line that comes last.</param>
/// <param name="Without">When the rest can be there without that line.</param>
public sealed record AllThere(DateOnly Day, string Line, DateOnly? Without);

/// <summary>What would it take: how far one may go alone, what a wish means, when it can all be there.</summary>
/// <param name="FreePercent">The largest discount on all that needs nobody; null where even none is too much.</param>
/// <param name="FreeTotal">What it would come to with that.</param>
public sealed record ReachesView(
    decimal? FreePercent,
    decimal? FreeTotal,
    string? NextApprover,
    AllThere? There,
    decimal Kilograms,
    decimal Dm3,
    WishView? Wish
);

/// <summary>Answers "what would it take?" for a sheet; changes nothing.</summary>
public static class ReachEndpoint
{
    public static void MapReach(this RouteGroupBuilder sheets)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        sheets.MapGet("/{id:long}/reach", Reach).Needs(Rights.Write);
    }

    private static async Task<ReachesView> Reach(
        long id,
        string? wish,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Reaching reaching,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var judged = await judge.JudgeAsync(db, await loader.BySheetAsync(db, id, cancel), actor.Hand, cancel);
        var priced = judged.Priced;
        var free = actor.SeesAuthority ? judged.Headroom.FirstOrDefault()?.UpToPercent : null;
        var margin = priced.MarginAsTyped().Percent;
        // It tries the wish on the same rows, so it comes last.
        var there = There(judged);
        return new ReachesView(
            free,
            free is { } percent ? priced.Under(new SheetDiscount(percent, null)).Tally.TotalWithTax.Value : null,
            actor.SeesAuthority ? judged.Headroom.Skip(1).FirstOrDefault()?.Name : null,
            there,
            Sum(priced, i => i.WeightKg),
            Sum(priced, i => i.VolumeDm3),
            string.IsNullOrWhiteSpace(wish)
                ? null
                : Of(await reaching.TryAsync(db, id, wish, actor, cancel), margin, actor)
        );
    }

    private static decimal Sum(PricedSheet priced, Func<Core.Catalogue.Item, decimal?> of) =>
        priced
            .Sold.Where(l => l is { Counts: true, Item.Stocked: true })
            .Sum(l => l.Line.Quantity * (l.Item!.Factor(l.Line.Unit) ?? 0m) * (of(l.Item) ?? 0m));

    private static WishView Of(Wished wished, decimal? before, Actor actor)
    {
        if (wished.After is not { } after)
            return new WishView(0m, null, null, null, false, [], [], [], wished.WhyNot);
        var tally = after.Priced.Tally;
        var goods = tally.Goods.Value;
        return new WishView(
            tally.TotalWithTax.Value,
            tally.SheetDiscount.IsZero || goods == 0
                ? null
                : decimal.Round(tally.SheetDiscount.Value * 100m / goods, 2, MidpointRounding.AwayFromZero),
            actor.SeesCost ? before : null,
            actor.SeesCost ? after.Priced.MarginAsTyped().Percent : null,
            after.Approval.State == ApprovalState.Needed,
            actor.SeesAuthority ? [.. after.Approval.Approvers] : [],
            actor.SeesAuthority ? [.. after.Approval.Words] : [],
            wished.Edits,
            ""
        );
    }

    private static AllThere? There(Judged judged)
    {
        var numbers = LineNumbers.Of(judged.Priced.Sheet.Lines);
        var days = judged
            .Priced.Sold.Where(l => l.Counts && judged.Facts.Stock.ContainsKey(l.Line.Key))
            .Select(l => (l.Line.Key, judged.Facts.Stock[l.Line.Key].Promise?.Arrives))
            .ToList();
        if (days.Count == 0 || days.Exists(d => d.Arrives is null))
            return null;
        var last = days.MaxBy(d => d.Arrives);
        var rest = days.Where(d => d.Key != last.Key).Select(d => d.Arrives).DefaultIfEmpty(null).Max();
        return new AllThere(last.Arrives!.Value, numbers[last.Key], rest < last.Arrives ? rest : null);
    }
}
