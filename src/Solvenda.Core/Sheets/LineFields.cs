using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>A line after a field was set, or why it was not.</summary>
internal readonly record struct LineTaken(SheetLine? Line, Refusal? Refused)
{
    public static implicit operator LineTaken(SheetLine line) => new(line, null);

    public static implicit operator LineTaken(Refusal refused) => new(null, refused);
}

/// <summary>
/// A field of a line that can be typed: its name, what the history calls it, and how a text is taken.
/// </summary>
/// <param name="Name">Stable, part of the API.</param>
/// <param name="Label">What it is called in the history.</param>
internal sealed record LineField(string Name, string Label, Func<SheetLine, string, Head, DoorFacts, LineTaken> Set);

/// <summary>The fields of a line: one entry each, with its bounds.</summary>
public static class LineFields
{
    /// <summary>The greatest quantity of a line, in its unit.</summary>
    public const decimal MostQuantity = 10_000_000m;

    /// <summary>The greatest net price, in the sheet's currency per price base.</summary>
    public const decimal MostPrice = 100_000_000m;

    /// <summary>
    /// The greatest surcharge in percent of the base price: ten times the price is a slip of the finger.
    /// </summary>
    public const decimal MostSurcharge = 900m;

    /// <summary>The greatest margin that can be typed, in percent.</summary>
    public const decimal MostMargin = 95m;

    internal static readonly ImmutableArray<LineField> All =
    [
        new("item", "item", (line, text, head, facts) => TakeItem(line, text, head, facts)),
        new("words", "words", (line, text, _, _) => line with { Words = SheetDoor.Short(text) }),
        new("note", "note", (line, text, _, _) => line with { Note = SheetDoor.Short(text) }),
        new("quantity", "quantity", (line, text, _, facts) => Quantity(line, text, facts)),
        new("unit", "unit", (line, text, _, facts) => UnitOf(line, text, facts)),
        new("optional", "if wanted", (line, text, _, _) => Optional(line, text)),
        new("net", "price", (line, text, head, facts) => Priced(line, ByHandKind.NetPrice, text, head, facts)),
        new(
            "discount",
            "less",
            (line, text, head, facts) => Priced(line, ByHandKind.DiscountPercent, text, head, facts)
        ),
        new("wanted", "wanted", (line, text, _, facts) => WantedBy(line, text, facts)),
        new("cost", "cost", (line, text, _, facts) => CostOf(line, text, facts)),
        new("margin", "margin", (line, text, head, facts) => Priced(line, ByHandKind.Margin, text, head, facts)),
        new("inner", "inner note", (line, text, _, _) => line with { Inner = SheetDoor.Short(text) }),
        new(
            "forWarehouse",
            "for the warehouse",
            (line, text, _, _) => line with { ForWarehouse = SheetDoor.Short(text) }
        ),
        new("job", "for job", (line, text, _, _) => line with { Job = SheetDoor.Short(text) }),
        new("orderedBy", "ordered by", (line, text, _, _) => line with { OrderedBy = SheetDoor.Short(text) }),
        new("shipFrom", "ships from", (line, text, _, facts) => ShipFromOf(line, text, facts)),
        new("deliverTo", "deliver to", (line, text, _, facts) => DeliverToOf(line, text, facts)),
        new("oneOf", "one of", (line, text, _, facts) => OneOfThese(line, text, facts)),
    ];

    // What is given away costs nothing, whatever is typed: so nothing can be typed.
    private static LineTaken Priced(SheetLine line, ByHandKind kind, string text, Head head, DoorFacts facts) =>
        OrderKind.In(head) is { IsFree: true } free
            ? new Refusal(
                "order_free",
                $"A {free.Words} costs nothing; make it another kind of order to price it",
                "net"
            )
            : Hand(line, kind, text, facts);

    internal static LineField? Find(string name) => All.FirstOrDefault(f => f.Name == name);

    internal static LineTaken TakeItem(SheetLine line, string code, Head head, DoorFacts facts)
    {
        if (facts.Book.FindByCode(code) is not { } item)
            return new Refusal("item_unknown", $"We have no item “{code}”", "item");
        return line with
        {
            Item = item.Id,
            Words = item.WordsIn(head.Text(Terms.HeadTerms.Language.Name) ?? "en"),
            Cost = null,
            CostWhy = "",
            CostBy = null,
            Unit = line.Quantity == 0 || item.Factor(line.Unit) is null ? item.StockUnit : line.Unit,
        };
    }

    internal static LineTaken WantedBy(SheetLine line, string text, DoorFacts facts)
    {
        if (text.Length == 0)
            return line with { Wanted = null };
        return Dates.Read(text, facts.Today) is { } day
            ? WantedBy(line, day, facts)
            : new Refusal("date", $"“{text}” is not a date that we can read", "wanted");
    }

    internal static LineTaken WantedBy(SheetLine line, DateOnly day, DoorFacts facts) =>
        day < facts.Today.AddYears(-1) || day > facts.Today.AddYears(3)
            ? new Refusal("date", "A day is at most three years ahead", "wanted")
            : line with
            {
                Wanted = day,
            };

    // "4.20 // bought at the fair": what the catalogue knows otherwise needs a reason.
    internal static LineTaken CostOf(SheetLine line, string text, DoorFacts facts)
    {
        var at = text.IndexOf("//", StringComparison.Ordinal);
        var (number, why) = at < 0 ? (text, "") : (text[..at].Trim(), SheetDoor.Short(text[(at + 2)..].Trim()));
        if (number.Length == 0)
            return line with { Cost = null, CostWhy = "", CostBy = null };
        if (line.Kind == LineKind.Charge)
            return new Refusal("cost", "What is charged has no cost", "cost");
        if (Numbers.Read(number) is not ({ } cost and >= 0m and <= MostPrice))
            return new Refusal("number", $"“{number}” is not a cost", "cost");
        return line.Item is not null && why.Length == 0
            ? new Refusal("cost_why", "The catalogue has a cost; say why it is another, behind it: 4.20 // why", "cost")
            : line with
            {
                Cost = UnitPrice.Round4(cost),
                CostWhy = why,
                CostBy = facts.Hand,
            };
    }

    internal static LineTaken ShipFromOf(SheetLine line, string text, DoorFacts facts)
    {
        if (text.Length == 0)
            return line with { ShipFrom = null };
        return facts.Warehouses.FirstOrDefault(w => w.Equals(text, StringComparison.OrdinalIgnoreCase)) is { } house
            ? line with
            {
                ShipFrom = house,
            }
            : new Refusal("warehouse", $"“{text}” is not one of our warehouses", "shipFrom");
    }

    internal static LineTaken DeliverToOf(SheetLine line, string text, DoorFacts facts)
    {
        if (text.Length == 0)
            return line with { DeliverTo = null };
        var places = facts.Places.Where(p => p.Use == "deliver-to").ToList();
        var place =
            places.Find(p => p.Words.Equals(text, StringComparison.OrdinalIgnoreCase))
            ?? places.Find(p => p.Code.Equals(text, StringComparison.OrdinalIgnoreCase));
        return place is null
            ? new Refusal(
                "address_unknown",
                $"{facts.Buyer.Name} has no address “{text}” that goods go to",
                "deliverTo"
            )
            : line with
            {
                DeliverTo = place,
            };
    }

    internal static LineTaken OneOfThese(SheetLine line, string text, DoorFacts facts)
    {
        if (text.Length == 0)
            return line with { OneOf = "" };
        var letter = text.ToUpperInvariant();
        if (letter.Length != 1 || !Choices.Letters.Contains(letter[0], StringComparison.Ordinal))
            return new Refusal("choice", "A choice is a letter, from A to Z", "oneOf");
        if (facts.Document == DocumentKind.Order)
            return new Refusal("choice", "An order says what is taken; a choice belongs on a quote", "oneOf");
        return line.HasFigures
            ? line with
            {
                OneOf = letter,
            }
            : new Refusal("choice", "Only what is sold can be chosen", "oneOf");
    }

    // "2 coil" sets both.
    private static LineTaken Quantity(SheetLine line, string text, DoorFacts facts)
    {
        var typed = QuickLine.Parse("x-1 " + text);
        return (typed.Quantity ?? Numbers.Read(text)) is { } quantity
            ? Quantity(line, quantity, typed.Unit, facts)
            : new Refusal("number", $"“{text}” is not a quantity", "quantity");
    }

    internal static LineTaken Quantity(SheetLine line, decimal quantity, Unit? unit, DoorFacts facts)
    {
        if (quantity is < 0 or > MostQuantity)
            return new Refusal("number", "A quantity is between 0 and 10 million", "quantity");
        var item = line.Item is { } id ? facts.Book.Find(id) : null;
        if (unit is { } by && item is not null && item.Factor(by) is null)
            return new Refusal("unit", $"{item.Code} is not sold by {by.Code}", "quantity");
        var after = line with { Quantity = decimal.Round(quantity, 6), Unit = unit ?? line.Unit };
        return InStock(after, item) > InStock(line, item) ? Also(after, facts.Hand) : after;
    }

    /// <summary>
    /// The same line with one more hand that its figures are judged for, where it has a price by hand.
    /// </summary>
    public static SheetLine Also(SheetLine line, Hand hand)
    {
        ArgumentNullException.ThrowIfNull(line);
        return
            line.ByHand.Kind == ByHandKind.None
            || line.ByHand.By?.IsSame(hand) == true
            || line.AlsoBy.Any(h => h.IsSame(hand))
            ? line
            : line with
            {
                AlsoBy = line.AlsoBy.Add(hand),
            };
    }

    private static decimal InStock(SheetLine line, Item? item) => line.Quantity * (item?.Factor(line.Unit) ?? 1m);

    internal static LineTaken UnitOf(SheetLine line, string text, DoorFacts facts)
    {
        if ((UnitTable.FromCode(text) ?? UnitTable.FromWord(text)) is not { } unit)
            return new Refusal("unit", $"“{text}” is not a unit that we know", "unit");
        return line.Item is null ? line with { Unit = unit } : Quantity(line, line.Quantity, unit, facts);
    }

    internal static LineTaken Optional(SheetLine line, string text) =>
        text.ToLowerInvariant() switch
        {
            "true" or "yes" => line with { Optional = true },
            "" or "false" or "no" => line with { Optional = false },
            _ => new Refusal("field_unknown", $"“{text}” is neither yes nor no", "optional"),
        };

    private static LineTaken Hand(SheetLine line, ByHandKind kind, string text, DoorFacts facts)
    {
        var plain = text.TrimEnd('%', ' ').TrimStart('@');
        // "−12 %" in the column of discounts is twelve percent less.
        if (kind == ByHandKind.DiscountPercent)
            plain = plain.TrimStart('\u2212');
        if (plain.Length == 0)
            return AsPriced(line);
        return Numbers.Read(plain) is { } number
            ? Hand(line, kind, number, facts)
            : new Refusal("number", $"“{text}” is not a number", Name(kind));
    }

    internal static LineTaken Hand(SheetLine line, ByHandKind kind, decimal number, DoorFacts facts)
    {
        var refused = kind switch
        {
            ByHandKind.DiscountPercent when number is > 100m => "A discount is at most 100 %",
            ByHandKind.DiscountPercent when number is < -MostSurcharge => "A surcharge is at most 900 %",
            ByHandKind.Margin when number is > MostMargin or < -100m => "A margin is between −100 and 95 %",
            ByHandKind.NetPrice or ByHandKind.DiscountAmount when number is < 0m => "A price is not negative",
            ByHandKind.NetPrice or ByHandKind.DiscountAmount when number is > MostPrice =>
                "A price is at most 100 million",
            _ => null,
        };
        if (refused is not null)
            return new Refusal("number", refused, Name(kind));
        return kind == ByHandKind.None || (kind == ByHandKind.DiscountPercent && number == 0)
            ? AsPriced(line)
            : line with
            {
                ByHand = new ByHand(
                    kind,
                    kind == ByHandKind.NetPrice ? UnitPrice.Round4(number) : decimal.Round(number, 4),
                    facts.Hand
                ),
                AlsoBy = [],
            };
    }

    private static SheetLine AsPriced(SheetLine line) => line with { ByHand = ByHand.None, AlsoBy = [] };

    private static string Name(ByHandKind kind) =>
        kind switch
        {
            ByHandKind.DiscountPercent or ByHandKind.DiscountAmount => "discount",
            ByHandKind.Margin => "margin",
            _ => "net",
        };

    /// <summary>A price, discount or margin as it was typed, in words; empty for a line as it was priced.</summary>
    public static string Say(ByHand hand)
    {
        ArgumentNullException.ThrowIfNull(hand);
        return hand.Kind switch
        {
            ByHandKind.None => "",
            ByHandKind.DiscountPercent => string.Create(CultureInfo.InvariantCulture, $"{hand.Value:0.####} % less"),
            ByHandKind.DiscountAmount => string.Create(CultureInfo.InvariantCulture, $"{hand.Value:0.00##} less"),
            ByHandKind.Margin => string.Create(CultureInfo.InvariantCulture, $"{hand.Value:0.####} % margin"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{hand.Value:0.0000}"),
        };
    }
}
