using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Data;

/// <summary>What the lines of a sheet were priced at when it left the house, as JSON on its row.</summary>
public static class KeptLines
{
    private sealed record Step(StepKind Kind, string? Rule, string Words, DateOnly? From, DateOnly? To, decimal Price);

    private sealed record Line(
        long Key, long Item, string Unit, decimal Quantity, IReadOnlyList<Step> Steps, decimal? List, decimal? Base, decimal PriceBase, PriceGap Gap, decimal? Cost, decimal? Floor, string? Category, decimal? Percent);

    public static string Write(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return JsonSerializer.Serialize(sheet.Sold.Where(l => l.Item is not null).Select(l => new Line(
            l.Line.Key, l.Item!.Id.Value, l.Line.Unit.Code, l.Line.Quantity,
            // What was typed by hand stands on the line itself, and comes again from there.
            [.. l.Build.Steps.Where(s => s.Kind is StepKind.List or StepKind.Agreement or StepKind.Campaign).Select(s => new Step(s.Kind, s.Rule, s.Words, s.From, s.To, s.Price))],
            l.Build.List?.Value, l.Build.Base?.Value, l.Build.PriceBase, l.Build.Gap, l.Terms.Cost, l.Floor, l.Terms.Tax?.Category, l.Terms.Tax?.Percent)));
    }

    public static ImmutableDictionary<long, KeptLine> Read(string json, Currency currency)
    {
        if (string.IsNullOrEmpty(json))
            return ImmutableDictionary<long, KeptLine>.Empty;
        UnitPrice? Price(decimal? value) => value is { } v ? UnitPrice.Round(v, currency) : null;
        return JsonSerializer.Deserialize<List<Line>>(json)!.ToImmutableDictionary(l => l.Key, l => new KeptLine(
            new ItemId(l.Item), Unit.Of(l.Unit), l.Quantity,
            new PriceBuild([.. l.Steps.Select(s => new PriceStep(s.Kind, s.Rule, s.Words, s.From, s.To, s.Price))], Price(l.List), Price(l.Base), l.PriceBase, l.Gap),
            l.Cost, l.Floor, l.Category is { } c ? new Tax(c, l.Percent ?? 0m) : null));
    }
}
