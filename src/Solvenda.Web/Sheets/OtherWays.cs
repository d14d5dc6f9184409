using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>
/// Another way to deliver a line: what to type for it, and what it would change. Nobody chooses it silently.
/// </summary>
/// <param name="Words">What would be done.</param>
/// <param name="Field">What to type where; of the head where <paramref name="OnHead"/>.</param>
/// <param name="Arrives">When all of the line would be there; null: no date.</param>
/// <param name="Part">Where it would come in parts: how much of it first, and when.</param>
/// <param name="DaysSooner">Than as it stands; less than nothing: later. Null where it has no date as it stands, or
/// would
/// have none.</param>
/// <param name="MoreInAll">What the whole would cost the buyer more, without tax; less than nothing: less.</param>
public sealed record OtherWay(
    string Words,
    string Field,
    string Value,
    bool OnHead,
    DateOnly? Arrives,
    string? Part,
    int? DaysSooner,
    decimal MoreInAll
);

/// <summary>
/// The other ways to deliver a line, each worked out as if it were typed: another warehouse, in parts, another item
/// that
/// does, another service.
/// </summary>
public static class OtherWaysEndpoint
{
    private const int Most = 6;
    private const int MostSubstitutes = 4;

    public static void MapOtherWays(this RouteGroupBuilder sheets)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        sheets.MapGet("/{id:long}/lines/{key:long}/ways", Ways).Needs(Rights.Look);
    }

    private sealed record Way(string Words, string Field, string Value, bool OnHead);

    private sealed record Seen(DateOnly? Arrives, string? Part, decimal Total);

    private static async Task<List<OtherWay>> Ways(
        long id,
        long key,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await loader.BySheetAsync(db, id, cancel);
        if (!open.IsEditable || open.ToDraft().Lines.FirstOrDefault(l => l.Key == key) is not { Item: not null } line)
            return [];
        var facts = open.FactsFor(user.ActorOf().Hand, clock.Today);
        var now = await LookAsync(db, open, key, clock, cancel);
        var found = new List<OtherWay>();
        foreach (var way in Candidates(open, line))
        {
            var edit = new SheetEdit(EditKind.Set, way.OnHead ? null : key, way.Field, way.Value);
            var edited = SheetDoor.Take(open.ToDraft(), [edit], facts);
            if (edited.Refused is not null || edited.Changes.IsEmpty)
                continue;
            var sheet = Drafting.CopyOf(open.Sheet, null);
            sheet.Take(edited.Draft with { Head = edited.Draft.Head.With(HeadTerms.Matter.Name, null, null) });
            var then = await LookAsync(db, open.With(sheet), key, clock, cancel);
            found.Add(
                new OtherWay(
                    way.Words,
                    way.Field,
                    way.Value,
                    way.OnHead,
                    then.Arrives,
                    then.Part,
                    now.Arrives is { } a && then.Arrives is { } b ? a.DayNumber - b.DayNumber : null,
                    then.Total - now.Total
                )
            );
        }
        return
        [
            .. found
                .Where(w => IsBetter(w, now))
                .OrderByDescending(w => w.DaysSooner ?? 0)
                .ThenBy(w => w.MoreInAll)
                .Take(Most),
        ];
    }

    // Sooner, cheaper, a date where there was none, or a part that is there sooner.
    private static bool IsBetter(OtherWay way, Seen now) =>
        way.Arrives is not null
        && (
            now.Arrives is null || way.DaysSooner > 0 || way.MoreInAll < 0 || (way.Part is not null && now.Part is null)
        );

    private static IEnumerable<Way> Candidates(OpenSheet open, SheetLine line)
    {
        var from = StockFacts.WarehouseOf(open, line);
        foreach (var house in open.House.Warehouses.Where(w => w != from))
            yield return new Way($"from {house}", "shipFrom", house, false);
        var rule = ShippingRules.Of(HeadTerms.ShippingRule.In(open.Sheet.Head));
        if (rule is ShippingRule.WholeLines or ShippingRule.AllTogether)
            yield return new Way("what is there now, the rest later", HeadTerms.ShippingRule.Name, "as it comes", true);
        if (rule == ShippingRule.AllTogether)
            yield return new Way("each line on its own day", HeadTerms.ShippingRule.Name, "whole lines", true);
        if (open.Book.Find(line.Item!.Value) is { } item)
            foreach (
                var code in item.Alternatives.Prepend(item.Successor).OfType<string>().Distinct().Take(MostSubstitutes)
            )
                yield return new Way($"{code} in its place", "item", code, false);
        foreach (var service in open.Book.FreightBands.Select(b => b.Service).Distinct())
            yield return new Way($"by {service}", HeadTerms.FreightService.Name, service, true);
    }

    private static async Task<Seen> LookAsync(
        SolvendaDb db,
        OpenSheet open,
        long key,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var priced = open.Sheet.Priced(open.Buyer, open.Book);
        var stock = (await StockFacts.GatherAsync(db, open, priced, clock.LocalNow, cancel)).GetValueOrDefault(key);
        var line = priced.Lines.First(l => l.Line.Key == key);
        var part =
            stock?.Parts is [var first, _, ..] && line.Item is { } item
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{first.Quantity / (item.Factor(line.Line.Unit) ?? 1m):#,0.##} {UnitTable.OnSheet(line.Line.Unit)} on {first.Promise.Arrives:d MMM}"
                )
                : null;
        return new Seen(
            stock?.Parts is { IsEmpty: false } parts ? parts.Max(p => p.Promise.Arrives) : stock?.Promise?.Arrives,
            part,
            priced.Tally.TotalWithoutTax.Value
        );
    }
}
