using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Passing;
using Solvenda.Core.People;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>What a request would be worth as it stands, and what would be in its way.</summary>
/// <param name="Worth">At our prices, with tax; null where nobody can say.</param>
/// <param name="SurePercent">So much of its goods is of lines that were read well.</param>
public sealed record Weight(Weighed Weighed, Amount? Worth, int? SurePercent)
{
    /// <summary>Why it does not go on by itself where others of its kind and way do; empty where it may, or none
    /// does.</summary>
    public string Held { get; init; } = "";

    /// <summary>Whether the rules of its way let it go on by itself.</summary>
    public bool Goes { get; init; }
}

/// <summary>
/// Weighs requests: makes the document that each would become, prices and judges it, and stores nothing of it.
/// </summary>
public sealed class Weighing(Turning turning, SheetLoader loader, Judge judge)
{
    /// <param name="reading">As it stands.</param>
    public async Task<Weight> OfAsync(SolvendaDb db, RequestRow request, ReadingView reading, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        var isOrder = reading.Kind == MessageKind.Order;
        var buyer = reading is { BuyerId: { } id, Kind: MessageKind.Order or MessageKind.RequestForQuotation }
            ? await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            : null;
        var way = await WayBook.OfAsync(db, request.Channel, reading.BuyerId, cancel);
        var rules = WayBook.RulesOf(way);
        Weight Of(Judged? judged, int? sure)
        {
            var weighed = Weighed.Of(FactsOf(request, reading, judged));
            var held =
                rules.Take(reading.Kind) && weighed.By(rules, reading.Kind) is [var first, ..] ? first.Words : "";
            return new Weight(weighed, judged?.Priced.Tally.TotalWithTax, sure)
            {
                Held = held,
                Goes = rules.Take(reading.Kind) && held.Length == 0,
            };
        }
        if (buyer is null || reading.Lines.Count == 0)
            return Of(null, null);
        var sheet = await turning.SheetAsync(db, request, reading, buyer, isOrder, Solvenda, cancel);
        if ((buyer.AccountManagerId ?? way?.KeeperId ?? await SomebodyAsync(db, cancel)) is not { } seller)
            return Of(null, null);
        var open = await loader.ThoughtOfAsync(db, sheet, buyer, request, seller, isOrder, cancel);
        var judged = await judge.JudgeAsync(
            db,
            open,
            await WayBook.KeeperAsync(db, way, cancel) ?? open.Owner.Hand,
            cancel
        );
        return Of(judged, SureOf(judged.Priced, reading));
    }

    /// <summary>What is known of it, as Core weighs it.</summary>
    /// <param name="judged">The document that it became, or would become; null: it cannot be one yet.</param>
    public static WeighFacts FactsOf(RequestRow request, ReadingView reading, Judged? judged)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        return new WeighFacts(
            reading.Kind,
            reading.BuyerId is not null,
            [.. SureOf(reading)],
            [
                .. reading
                    .Lines.Where(l => !l.TakenBack || reading.Kind == MessageKind.Change)
                    .Select(l => new WeighedLine(l.TheirCode ?? l.Words, l.Sure, l.ItemCode is not null)),
            ],
            [.. reading.LeftOvers.Select(l => l.Why.Length > 0 ? l.Why : l.Words)],
            request.Names,
            // What a sales channel brings goes to the channel's own customers.
            judged is { Open.Kind: DocumentKind.Order }
                && request.Syntax != nameof(Formats.Syntax.Json)
                && GoesElsewhere(judged.Open),
            judged?.Findings ?? []
        );
    }

    private static Hand Solvenda => Acting.Actor.House.Hand;

    // Where a line of free text or an unknown item stands, nobody can say what it is worth.
    private static int? SureOf(PricedSheet priced, ReadingView reading)
    {
        var sure = reading
            .Lines.Where(l => !l.TakenBack)
            .Zip(priced.Lines)
            .Where(l => !l.First.NeedsYou && l.First.ItemCode is not null)
            .Sum(l => l.Second.Figures.Net.Value);
        var all = priced.Sold.Sum(l => l.Figures.Net.Value);
        var unknown = reading.Lines.Count(l => !l.TakenBack && l.ItemCode is null);
        // What is not known has no price; each such line is taken for one of the others.
        var known = priced.Sold.Count() - unknown;
        if (all <= 0 || known <= 0)
            return null;
        return (int)Math.Round(100m * sure / (all + (all / known * unknown)), MidpointRounding.ToZero);
    }

    private static IEnumerable<(string What, decimal Sure)> SureOf(ReadingView reading)
    {
        yield return ("who it is from", reading.Buyer.Sure);
        yield return ("what it is", reading.KindSure);
        foreach (
            var (what, field) in new[]
            {
                ("the PO number", reading.PoNumber),
                ("the day", reading.Wanted),
                ("where it goes", reading.DeliverTo),
                ("the currency", reading.Currency),
            }
        )
            if (field.Value is not null)
                yield return (what, field.Sure);
    }

    private static bool GoesElsewhere(OpenSheet open) =>
        open.Sheet.ToStated()?.DeliverTo is { Length: > 0 }
        || (open.DeliverTo is null && HeadTerms.DeliverTo.In(open.Sheet.Head) is { Length: > 0 });

    private static async Task<long?> SomebodyAsync(SolvendaDb db, CancellationToken cancel) =>
        await db
            .People.Where(p => p.Active && p.Roles.HasFlag(Roles.Desk))
            .OrderBy(p => p.Id)
            .Select(p => (long?)p.Id)
            .FirstOrDefaultAsync(cancel);
}
