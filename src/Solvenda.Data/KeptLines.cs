using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Data;

/// <summary>
/// What a sheet was priced at when it left the house, as JSON on its row: price builds, costs and floors by line, and
/// its charges. Taxes follow the address, so they are not kept.
/// </summary>
public static class KeptLines
{
    private sealed record Step(StepKind Kind, string? Rule, string Words, DateOnly? From, DateOnly? To, decimal Price);

    private sealed record Line(
        long Key,
        long Item,
        string Unit,
        decimal? Quantity,
        IReadOnlyList<Step> Steps,
        decimal? List,
        decimal? Base,
        decimal PriceBase,
        PriceGap Gap,
        decimal? Cost,
        decimal? Floor
    );

    private sealed record Charge(string Kind, string Words, decimal Amount, bool ByHand);

    private sealed record Sheet(IReadOnlyList<Line> Lines, IReadOnlyList<Charge>? Charges);

    public static string Write(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return JsonSerializer.Serialize(
            new Sheet(
                [
                    .. sheet
                        .Sold.Where(l => l.Item is not null)
                        .Select(l => new Line(
                            l.Line.Key,
                            l.Item!.Id.Value,
                            l.Line.Unit.Code,
                            l.Line.Quantity,
                            // What was typed by hand stands on the line itself, and comes again from there.
                            [
                                .. l
                                    .Build.Steps.Where(s =>
                                        s.Kind is StepKind.List or StepKind.Agreement or StepKind.Campaign
                                    )
                                    .Select(s => new Step(s.Kind, s.Rule, s.Words, s.From, s.To, s.Price)),
                            ],
                            l.Build.List?.Value,
                            l.Build.Base?.Value,
                            l.Build.PriceBase,
                            l.Build.Gap,
                            l.Terms.Cost,
                            l.Floor
                        )),
                ],
                [.. sheet.Charges.Select(c => new Charge(c.Kind, c.Words, c.Amount, c.ByHand))]
            )
        );
    }

    /// <summary>
    /// The same without its charges: an order takes over prices, and works freight out for what becomes of it.
    /// </summary>
    public static string OfLinesOnly(string json) =>
        string.IsNullOrEmpty(json)
            ? ""
            : JsonSerializer.Serialize(JsonSerializer.Deserialize<Sheet>(json)! with { Charges = null });

    /// <summary>
    /// The same where prices of some lines hold for any quantity: part of them went, and the rest keeps its price
    /// whatever becomes of it.
    /// </summary>
    public static string ForAnyQuantity(string json, IReadOnlySet<long> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        if (string.IsNullOrEmpty(json) || lines.Count == 0)
            return json;
        var kept = JsonSerializer.Deserialize<Sheet>(json)!;
        return JsonSerializer.Serialize(
            kept with
            {
                Lines = [.. kept.Lines.Select(l => lines.Contains(l.Key) ? l with { Quantity = null } : l)],
            }
        );
    }

    /// <summary>
    /// What lines of other sheets were priced at, for the lines that were taken from them.
    /// </summary>
    /// <param name="froms">What was kept of each of those sheets, by its key.</param>
    /// <param name="lines">The keys of the lines that were taken, and where from.</param>
    /// <param name="forAny">Whether the price holds for any quantity, as of a frame.</param>
    public static string Together(
        IReadOnlyDictionary<long, string> froms,
        IEnumerable<(long Key, LineOrigin From)> lines,
        bool forAny
    )
    {
        ArgumentNullException.ThrowIfNull(froms);
        var kept = froms
            .Where(f => f.Value.Length > 0)
            .ToDictionary(f => f.Key, f => JsonSerializer.Deserialize<Sheet>(f.Value)!.Lines.ToDictionary(l => l.Key));
        return JsonSerializer.Serialize(
            new Sheet(
                [
                    .. from line in lines
                    let of = kept.GetValueOrDefault(line.From.Sheet)?.GetValueOrDefault(line.From.Key)
                    where of is not null
                    select of with
                    {
                        Key = line.Key,
                        Quantity = forAny ? null : of.Quantity,
                    },
                ],
                null
            )
        );
    }

    /// <summary>
    /// The same for lines that were divided: both parts keep the price, whatever is left of the quantity.
    /// </summary>
    /// <param name="rests">Of each line that was divided the key of its rest.</param>
    public static string Divided(string json, IReadOnlyDictionary<long, long> rests)
    {
        ArgumentNullException.ThrowIfNull(rests);
        if (string.IsNullOrEmpty(json) || rests.Count == 0)
            return json;
        var kept = JsonSerializer.Deserialize<Sheet>(json)!;
        return JsonSerializer.Serialize(
            kept with
            {
                Lines =
                [
                    .. kept.Lines.SelectMany(l =>
                        rests.TryGetValue(l.Key, out var rest)
                            ? [l with { Quantity = null }, l with { Key = rest, Quantity = null }]
                            : new[] { l }
                    ),
                ],
            }
        );
    }

    public static (ImmutableDictionary<long, KeptLine> Lines, ImmutableArray<SheetCharge>? Charges) Read(
        string json,
        Currency currency
    )
    {
        if (string.IsNullOrEmpty(json))
            return (ImmutableDictionary<long, KeptLine>.Empty, null);
        UnitPrice? Price(decimal? value) => value is { } v ? UnitPrice.Round(v, currency) : null;
        var kept = JsonSerializer.Deserialize<Sheet>(json)!;
        return (
            kept.Lines.ToImmutableDictionary(
                l => l.Key,
                l => new KeptLine(
                    new ItemId(l.Item),
                    Unit.Of(l.Unit),
                    l.Quantity,
                    new PriceBuild(
                        [.. l.Steps.Select(s => new PriceStep(s.Kind, s.Rule, s.Words, s.From, s.To, s.Price))],
                        Price(l.List),
                        Price(l.Base),
                        l.PriceBase,
                        l.Gap
                    ),
                    l.Cost,
                    l.Floor
                )
            ),
            kept.Charges is null
                ? null
                : [.. kept.Charges.Select(c => new SheetCharge(c.Kind, c.Amount, null, c.ByHand) { Words = c.Words })]
        );
    }
}
