using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>
/// The canonical text of what is stored of a line, field by field, and back: what changes are kept as, and undone from.
/// On the way back everything meets the same bounds as if it were typed.
/// </summary>
internal static class LineText
{
    private static readonly JsonSerializerOptions Json = new()
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault,
        Converters = { new JsonStringEnumConverter(namingPolicy: null, allowIntegerValues: false) },
    };

    /// <summary>Names of what is kept apart of a line.</summary>
    public static readonly ImmutableArray<string> Fields =
    [
        "item",
        "words",
        "quantity",
        "unit",
        "hand",
        "optional",
        "note",
        "wanted",
        "cost",
        "inner",
        "job",
        "orderedBy",
        "shipFrom",
        "deliverTo",
        "oneOf",
    ];

    // Those of them that a text that says nothing takes back, kept by their names alone.
    private static readonly ImmutableArray<string> Others =
    [
        "inner",
        "job",
        "orderedBy",
        "shipFrom",
        "deliverTo",
        "oneOf",
    ];

    public static string? Get(SheetLine line, string field, DoorFacts facts) =>
        field switch
        {
            "item" => line.Item is { } id ? facts.Book.Find(id)?.Code : null,
            "words" => line.Words,
            "quantity" => line.Quantity.ToString("0.######", CultureInfo.InvariantCulture),
            "unit" => line.Unit.Code,
            "hand" => Hand(line.ByHand),
            "optional" => line.Optional ? "true" : null,
            "note" => Said(line.Note),
            "wanted" => line.Wanted?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            "cost" => line.Cost is { } cost
                ? cost.ToString("0.####", CultureInfo.InvariantCulture)
                    + (line.CostWhy.Length > 0 ? " // " + line.CostWhy : "")
                : null,
            "inner" => Said(line.Inner),
            "job" => Said(line.Job),
            "orderedBy" => Said(line.OrderedBy),
            "shipFrom" => line.ShipFrom,
            "deliverTo" => line.DeliverTo?.Words,
            "oneOf" => Said(line.OneOf),
            _ => throw new ArgumentOutOfRangeException(nameof(field), field, "No such field."),
        };

    public static LineTaken Put(SheetLine line, string field, string? text, Head head, DoorFacts facts) =>
        field switch
        {
            "item" when text is null => line with { Item = null },
            "item" => Item(line, text, head, facts),
            "words" => line with { Words = SheetDoor.Short(text ?? "") },
            "note" => line with { Note = SheetDoor.Short(text ?? "") },
            "wanted" => LineFields.WantedBy(line, text ?? "", facts),
            "cost" => LineFields.CostOf(line, text ?? "", facts),
            "quantity" => LineFields.Quantity(line, Number(text), null, facts),
            // Where the item changed with it, one of the two comes first: whether they fit shows when both are there.
            "unit" => line with { Unit = Unit.Of(text!) },
            "optional" => LineFields.Optional(line, text ?? ""),
            "hand" => HandFrom(line, text, facts),
            _ when Others.Contains(field) => LineFields.Find(field)!.Set(line, text ?? "", head, facts),
            _ => throw new ArgumentOutOfRangeException(nameof(field), field, "No such field."),
        };

    /// <summary>What changed between two states of a line.</summary>
    public static IEnumerable<FieldChange> Changes(SheetLine before, SheetLine after, DoorFacts facts) =>
        from field in Fields
        let was = Get(before, field, facts)
        let now = Get(after, field, facts)
        where was != now
        select new FieldChange(after.Key, field, was, now);

    /// <summary>A whole line, with the key of the line that it stands behind.</summary>
    public static string Whole(SheetLine line, long? behind, DoorFacts facts) =>
        JsonSerializer.Serialize(
            new State(
                line.Kind,
                Get(line, "item", facts),
                line.Words,
                line.Quantity,
                line.Unit.Code,
                Hand(line.ByHand),
                line.Optional,
                line.Note,
                behind,
                line.Asked == AskedFor.Nothing
                    ? null
                    : new Asked(
                        line.Asked.Words,
                        line.Asked.Code,
                        line.Asked.Quantity,
                        line.Asked.Unit?.Code,
                        line.Asked.Price,
                        line.Asked.PriceBase,
                        line.Asked.WithTax
                    ),
                Get(line, "wanted", facts),
                Get(line, "cost", facts),
                OthersOf(line, facts)
            ),
            Json
        );

    /// <summary>A whole line back under its old key, and which line it stood behind.</summary>
    public static (LineTaken Line, long? Behind) FromWhole(long key, string whole, Head head, DoorFacts facts)
    {
        var s = JsonSerializer.Deserialize<State>(whole, Json)!;
        var asked = s.Asked is { } a
            ? new AskedFor(a.Words ?? "", a.Code, a.Quantity, a.Unit is { } u ? Unit.Of(u) : null, a.Price, a.PriceBase)
            {
                WithTax = a.WithTax,
            }
            : AskedFor.Nothing;
        var bare = new SheetLine(key, s.Kind, null, "", 0m, Unit.Of(s.Unit), ByHand.None, [], false, "", asked);
        var texts = new (string Field, string? Text)[]
        {
            ("item", s.Item),
            ("words", s.Words),
            ("quantity", s.Quantity.ToString("0.######", CultureInfo.InvariantCulture)),
            ("hand", s.Hand),
            ("optional", s.Optional ? "true" : ""),
            ("note", s.Note),
            ("wanted", s.Wanted),
            ("cost", s.Cost),
        };
        var others = s.Others?.Select(o => (Field: o.Key, Text: (string?)o.Value)) ?? [];
        foreach (var (field, text) in texts.Concat(others))
        {
            var taken = Put(bare, field, text, head, facts);
            if (taken.Line is null)
                return (taken, s.Behind);
            bare = taken.Line;
        }
        return (bare with { Unit = Unit.Of(s.Unit) }, s.Behind);
    }

    private static LineTaken Item(SheetLine line, string code, Head head, DoorFacts facts)
    {
        var taken = LineFields.TakeItem(line, code, head, facts);
        // Words, unit and cost have changes of their own.
        return taken.Line is { } found
            ? found with
            {
                Words = line.Words,
                Unit = line.Unit,
                Cost = line.Cost,
                CostWhy = line.CostWhy,
                CostBy = line.CostBy,
            }
            : taken;
    }

    private static string? Hand(ByHand hand) =>
        hand.Kind == ByHandKind.None
            ? null
            : string.Create(CultureInfo.InvariantCulture, $"{hand.Kind} {hand.Value:0.####}");

    private static LineTaken HandFrom(SheetLine line, string? text, DoorFacts facts)
    {
        if (text is null)
            return LineFields.Hand(line, ByHandKind.None, 0m, facts);
        var at = text.IndexOf(' ', StringComparison.Ordinal);
        return LineFields.Hand(line, Enum.Parse<ByHandKind>(text[..at]), Number(text[(at + 1)..]), facts);
    }

    private static string? Said(string text) => text.Length > 0 ? text : null;

    private static Dictionary<string, string>? OthersOf(SheetLine line, DoorFacts facts)
    {
        var said = Others
            .Select(f => (Field: f, Text: Get(line, f, facts)))
            .Where(o => o.Text is not null)
            .ToDictionary(o => o.Field, o => o.Text!);
        return said.Count == 0 ? null : said;
    }

    private static decimal Number(string? text) => decimal.Parse(text ?? "0", CultureInfo.InvariantCulture);

    private sealed record Asked(
        string? Words,
        string? Code,
        decimal? Quantity,
        string? Unit,
        decimal? Price,
        decimal PriceBase,
        bool WithTax = false
    );

    private sealed record State(
        LineKind Kind,
        string? Item,
        string? Words,
        decimal Quantity,
        string Unit,
        string? Hand,
        bool Optional,
        string? Note,
        long? Behind,
        Asked? Asked,
        string? Wanted,
        string? Cost,
        Dictionary<string, string>? Others = null
    );
}
