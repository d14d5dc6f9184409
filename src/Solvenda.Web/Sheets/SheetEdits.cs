using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Printing;

namespace Solvenda.Web.Sheets;

/// <summary>What an edit does.</summary>
public enum EditKind
{
    /// <summary>Sets a field of a line, or of the head where no line is named.</summary>
    Set,

    /// <summary>Adds a line from words as typed ("thimble 12 x 20"), behind <c>After</c>, or at the end.</summary>
    Add,

    /// <summary>Adds a heading.</summary>
    AddHeading,

    Remove,

    /// <summary>Moves a line behind <c>After</c>; null: to the front.</summary>
    Move,

    /// <summary>Puts lines back as they were: for undo.</summary>
    Restore,
}

/// <summary>A line as typed, to be put back.</summary>
public sealed record LineState(
    long Key,
    LineKind Kind,
    string? Code,
    string Words,
    decimal Quantity,
    string Unit,
    ByHandKind HandKind,
    decimal HandValue,
    bool Optional,
    string Note
);

/// <summary>One edit of a sheet.</summary>
/// <param name="Line">Key of the line.</param>
/// <param name="Field">item, words, quantity, unit, price, discount, net, margin, optional, note; on the head poNumber, paymentDays, incoterm, incotermPlace, deliverTo (words, or the code of one of the buyer's addresses), deliverToCountry, billTo, shipFrom, shippingRule, language, documentsBy, freightService, wanted, note, matter, validUntil, sheetDiscount, freight.</param>
/// <param name="Value">As typed; empty clears.</param>
public sealed record SheetEdit(
    EditKind Kind,
    long? Line = null,
    string? Field = null,
    string? Value = null,
    long? After = null,
    IReadOnlyList<LineState>? Lines = null
);

/// <summary>Carries edits out on the rows of a sheet. Figures are not touched here; they are worked out anew afterwards.</summary>
public static class SheetEditor
{
    private const int MostLines = 2_000;

    /// <summary>What was changed, before and after, in words for the history.</summary>
    public static (string Words, string Before, string After) Apply(OpenSheet open, SheetEdit edit, Work work)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(edit);
        return edit.Kind switch
        {
            EditKind.Set when edit.Line is { } key => SetLine(
                open,
                Line(open, key),
                edit.Field ?? "",
                (edit.Value ?? "").Trim(),
                work
            ),
            EditKind.Set => HeadEditor.Set(open, edit.Field ?? "", (edit.Value ?? "").Trim(), work),
            EditKind.Add => Add(open, edit),
            EditKind.AddHeading => AddHeading(open, edit),
            EditKind.Remove => Remove(open, Line(open, edit.Line ?? 0), work),
            EditKind.Move => Move(open, Line(open, edit.Line ?? 0), edit.After),
            EditKind.Restore => Restore(open, edit.Lines ?? [], work),
            _ => throw RefusalException.Bad("edit_unknown", "That edit is not known."),
        };
    }

    private static SheetLineRow Line(OpenSheet open, long key) =>
        open.Sheet.Lines.FirstOrDefault(l => l.Key == key)
        ?? throw RefusalException.Clash("line_gone", "That line is no longer there; somebody took it out.");

    private static (string, string, string) SetLine(
        OpenSheet open,
        SheetLineRow line,
        string field,
        string value,
        Work work
    )
    {
        switch (field)
        {
            case "item":
                var before = Code(open, line);
                TakeItem(open, line, value);
                return ($"line {line.Position}: item", before, Code(open, line));
            case "words":
                return ($"line {line.Position}: words", line.Words, line.Words = Short(value));
            case "note":
                return ($"line {line.Position}: note", line.Note, line.Note = Short(value));
            case "quantity":
                return SetQuantity(open, line, value);
            case "unit":
                return ($"line {line.Position}: unit", line.Unit, line.Unit = UnitIn(value).Code);
            case "optional":
                return (
                    $"line {line.Position}: if wanted",
                    line.Optional.ToString(),
                    (line.Optional = value is "true" or "True").ToString()
                );
            case "price" or "net":
                return Hand(line, ByHandKind.NetPrice, value, work);
            case "discount":
                return Hand(line, ByHandKind.DiscountPercent, value, work);
            case "margin":
                return Hand(line, ByHandKind.Margin, value, work);
            default:
                throw RefusalException.Bad("field_unknown", $"A line has no field “{field}”.", field);
        }
    }

    private static (string, string, string) SetQuantity(OpenSheet open, SheetLineRow line, string value)
    {
        var before = Say(line.Quantity, line.Unit);
        // "2 coil" sets both.
        var typed = QuickLine.Parse("x-1 " + value);
        var quantity =
            typed.Quantity
            ?? QuickLine.Number(value)
            ?? throw RefusalException.Bad("number", $"“{value}” is not a quantity; the old one was kept.", "quantity");
        if (quantity < 0 || quantity > 10_000_000m)
            throw RefusalException.Bad(
                "number",
                "A quantity is between 0 and 10 million; the old one was kept.",
                "quantity"
            );
        if (typed.Unit is { } unit)
        {
            if (line.ItemId is { } id && open.Book.Find(new(id))?.Factor(unit) is null)
                throw RefusalException.Bad(
                    "unit",
                    $"It is not sold by {unit.Code}; the old quantity was kept.",
                    "quantity"
                );
            line.Unit = unit.Code;
        }
        line.Quantity = decimal.Round(quantity, 6);
        return ($"line {line.Position}: quantity", before, Say(line.Quantity, line.Unit));
    }

    private static (string, string, string) Hand(SheetLineRow line, ByHandKind kind, string value, Work work)
    {
        var before = line.HandKind == ByHandKind.None ? "as priced" : Say(line.HandKind, line.HandValue);
        var plain = value.TrimEnd('%', ' ').TrimStart('\u2212', '@');
        if (plain.Length == 0)
        {
            (line.HandKind, line.HandValue, line.HandWho) = (ByHandKind.None, 0m, null);
            return ($"line {line.Position}: price", before, "as priced");
        }
        var number =
            QuickLine.Number(plain)
            ?? throw RefusalException.Bad(
                "number",
                $"“{value}” is not a number; the old one was kept.",
                kind.ToString()
            );
        var refused = kind switch
        {
            ByHandKind.DiscountPercent when number is > 100m or < -1000m => "A discount is at most 100 %.",
            ByHandKind.Margin when number is >= 100m or < -1000m => "A margin is below 100 %.",
            ByHandKind.NetPrice when number is < 0m or > 100_000_000m => "A price is not negative.",
            _ => null,
        };
        if (refused is not null)
            throw RefusalException.Bad("number", $"{refused} The old one was kept.", kind.ToString());
        if (kind == ByHandKind.DiscountPercent && number == 0)
            (line.HandKind, line.HandValue, line.HandWho) = (ByHandKind.None, 0m, null);
        else
            (line.HandKind, line.HandValue, line.HandWho) = (kind, decimal.Round(number, 4), work.Actor.Name);
        return (
            $"line {line.Position}: price",
            before,
            line.HandKind == ByHandKind.None ? "as priced" : Say(line.HandKind, line.HandValue)
        );
    }

    private static (string, string, string) Add(OpenSheet open, SheetEdit edit)
    {
        if (open.Sheet.Lines.Count >= MostLines)
            throw RefusalException.Bad("too_many_lines", $"A sheet holds {MostLines} lines.");
        var typed = QuickLine.Parse(edit.Value ?? "");
        var line = Insert(open, LineKind.Item, edit.After);
        line.Words = Short(typed.Words);
        if (
            edit.Field is { Length: > 0 } code
            || open.Book.FindByCode(typed.Words) is { } && (code = typed.Words).Length > 0
        )
            TakeItem(open, line, code);
        line.Quantity = typed.Quantity ?? 1m;
        if (typed.Unit is { } unit)
            line.Unit = unit.Code;
        if (typed.Price is { } price)
            (line.HandKind, line.HandValue) = (ByHandKind.NetPrice, UnitPrice.Round4(price));
        else if (typed.DiscountPercent is { } percent)
            (line.HandKind, line.HandValue) = (ByHandKind.DiscountPercent, percent);
        return ($"line {line.Position} added", "", $"{Code(open, line)} {Say(line.Quantity, line.Unit)}".Trim());
    }

    private static (string, string, string) AddHeading(OpenSheet open, SheetEdit edit)
    {
        var line = Insert(open, LineKind.Heading, edit.After);
        line.Words = Short(edit.Value ?? "");
        return ("heading added", "", line.Words);
    }

    private static SheetLineRow Insert(OpenSheet open, LineKind kind, long? after)
    {
        var sheet = open.Sheet;
        var line = new SheetLineRow
        {
            SheetId = sheet.Id,
            Key = sheet.NextKey++,
            Kind = kind,
        };
        var ordered = sheet.Lines.OrderBy(l => l.Position).ToList();
        var at = after is { } key ? ordered.FindIndex(l => l.Key == key) + 1 : ordered.Count;
        ordered.Insert(at, line);
        sheet.Lines.Add(line);
        Number(ordered);
        return line;
    }

    private static (string, string, string) Remove(OpenSheet open, SheetLineRow line, Work work)
    {
        var words =
            line.Kind == LineKind.Heading ? line.Words : $"{Code(open, line)} {Say(line.Quantity, line.Unit)}".Trim();
        open.Sheet.Lines.Remove(line);
        work.Db.Remove(line);
        Number(open.Sheet.Lines.OrderBy(l => l.Position));
        return ("line taken out", words, "");
    }

    private static (string, string, string) Move(OpenSheet open, SheetLineRow line, long? after)
    {
        var before = line.Position;
        var ordered = open.Sheet.Lines.Where(l => l.Key != line.Key).OrderBy(l => l.Position).ToList();
        var at = after is { } key ? ordered.FindIndex(l => l.Key == key) + 1 : 0;
        ordered.Insert(at, line);
        Number(ordered);
        return (
            "line moved",
            before.ToString(CultureInfo.InvariantCulture),
            line.Position.ToString(CultureInfo.InvariantCulture)
        );
    }

    private static (string, string, string) Restore(OpenSheet open, IReadOnlyList<LineState> states, Work work)
    {
        if (states.Count > MostLines)
            throw RefusalException.Bad("too_many_lines", $"A sheet holds {MostLines} lines.");
        var keys = states.Select(s => s.Key).ToHashSet();
        foreach (var gone in open.Sheet.Lines.Where(l => !keys.Contains(l.Key)).ToList())
        {
            open.Sheet.Lines.Remove(gone);
            work.Db.Remove(gone);
        }
        var position = 0;
        foreach (var s in states)
        {
            var line = open.Sheet.Lines.FirstOrDefault(l => l.Key == s.Key);
            if (line is null)
            {
                if (s.Key <= 0 || s.Key >= open.Sheet.NextKey)
                    throw RefusalException.Bad("line_unknown", "That line was never here.");
                line = new SheetLineRow { SheetId = open.Sheet.Id, Key = s.Key };
                open.Sheet.Lines.Add(line);
            }
            line.Position = ++position;
            line.Kind = s.Kind;
            line.ItemId = s.Code is { } code ? open.Book.FindByCode(code)?.Id.Value : null;
            line.Words = Short(s.Words);
            line.Quantity = s.Quantity;
            line.Unit = Unit.Of(s.Unit).Code;
            (line.HandKind, line.HandValue, line.HandWho) = (
                s.HandKind,
                s.HandValue,
                s.HandKind == ByHandKind.None ? null : work.Actor.Name
            );
            line.Optional = s.Optional;
            line.Note = Short(s.Note);
        }
        return ("a step undone", "", $"{states.Count} lines");
    }

    private static void TakeItem(OpenSheet open, SheetLineRow line, string code)
    {
        var item =
            open.Book.FindByCode(code)
            ?? throw RefusalException.Bad(
                "item_unknown",
                $"We have no item “{code}”; the line was kept as it was.",
                "item"
            );
        line.ItemId = item.Id.Value;
        line.Words = item.WordsIn(open.Sheet.Language);
        var unit = Unit.Of(line.Unit);
        if (line.Quantity == 0 || item.Factor(unit) is null)
            line.Unit = item.StockUnit.Code;
    }

    private static Unit UnitIn(string value) =>
        UnitTable.FromCode(value)
        ?? UnitTable.FromWord(value)
        ?? throw RefusalException.Bad("unit", $"“{value}” is not a unit that we know; the old one was kept.", "unit");

    private static void Number(IEnumerable<SheetLineRow> ordered)
    {
        var position = 0;
        foreach (var line in ordered)
            line.Position = ++position;
    }

    private static string Code(OpenSheet open, SheetLineRow line) =>
        line.ItemId is { } id ? open.Book.Find(new(id))?.Code ?? "" : line.Words;

    private static string Say(decimal quantity, string unit) =>
        string.Create(CultureInfo.InvariantCulture, $"{quantity:0.######} {UnitTable.OnSheet(Unit.Of(unit))}").Trim();

    private static string Say(ByHandKind kind, decimal value) =>
        kind switch
        {
            ByHandKind.DiscountPercent => string.Create(CultureInfo.InvariantCulture, $"{value:0.####} % less"),
            ByHandKind.Margin => string.Create(CultureInfo.InvariantCulture, $"{value:0.####} % margin"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{value:0.0000}"),
        };

    internal static string Short(string text) => text.Length <= 500 ? text : text[..500];
}

/// <summary>Edits of the terms on the head.</summary>
internal static class HeadEditor
{
    public static (string, string, string) Set(OpenSheet open, string field, string value, Work work)
    {
        var sheet = open.Sheet;
        var empty = value.Length == 0;
        switch (field)
        {
            case "poNumber":
                var po = sheet.PoNumber;
                sheet.PoNumber = empty ? null : SheetEditor.Short(value);
                if (open.Order is { } order)
                    order.PoKey = PoKey.Of(value);
                return ("PO number", po ?? "", value);
            case "paymentDays":
                return ("payment terms", Say(sheet.PaymentDays), Say(sheet.PaymentDays = empty ? null : Days(value)));
            case "incoterm":
                var term = value.ToUpperInvariant();
                if (!empty && !Incoterms.Is(term))
                    throw RefusalException.Bad(
                        "incoterm",
                        $"“{value}” is not one of the Incoterms 2020; the old one was kept.",
                        field
                    );
                return ("Incoterm", sheet.Incoterm ?? "", (sheet.Incoterm = empty ? null : term) ?? "");
            case "incotermPlace":
                return (
                    "named place",
                    sheet.IncotermPlace ?? "",
                    (sheet.IncotermPlace = empty ? null : SheetEditor.Short(value)) ?? ""
                );
            case "deliverTo":
                var deliverTo = sheet.DeliverTo ?? "";
                var address = Address(open, "deliver-to", value);
                sheet.DeliverTo = empty ? null : address?.Words ?? SheetEditor.Short(value);
                if (address is not null)
                    sheet.DeliverToCountry = address.Country;
                return ("deliver to", deliverTo, sheet.DeliverTo ?? "");
            case "billTo":
                return (
                    "bill to",
                    sheet.BillTo ?? "",
                    (sheet.BillTo = empty ? null : Address(open, "bill-to", value)?.Words ?? SheetEditor.Short(value))
                        ?? ""
                );
            case "shippingRule":
                if (!empty && !ShippingRules.Words.Contains(value))
                    throw RefusalException.Bad(
                        "shipping_rule",
                        $"“{value}” is none of {string.Join(", ", ShippingRules.Words)}; the old rule was kept.",
                        field
                    );
                return ("shipping rule", sheet.ShippingRule ?? "", (sheet.ShippingRule = empty ? null : value) ?? "");
            case "language":
                return SetLanguage(open, value);
            case "documentsBy":
                if (!empty && DocumentsBy.Fault(value) is { } fault)
                    throw RefusalException.Bad("documents_by", $"{fault}; the old way was kept.", field);
                return ("documents go by", sheet.DocumentsBy ?? "", (sheet.DocumentsBy = empty ? null : value) ?? "");
            case "deliverToCountry":
                if (!empty && (value.Length != 2 || !value.All(char.IsAsciiLetter)))
                    throw RefusalException.Bad(
                        "country",
                        "A country is two letters (ISO 3166-1); the old one was kept.",
                        field
                    );
                return (
                    "country",
                    sheet.DeliverToCountry ?? "",
                    (sheet.DeliverToCountry = empty ? null : value.ToUpperInvariant()) ?? ""
                );
            case "shipFrom":
                return (
                    "ship from",
                    sheet.ShipFrom ?? "",
                    (sheet.ShipFrom = empty ? null : SheetEditor.Short(value)) ?? ""
                );
            case "freightService":
                if (!empty && open.Book.FreightBands.All(b => b.Service != value))
                    throw RefusalException.Bad(
                        "service",
                        $"“{value}” is none of our freight services: {string.Join(", ", open.Book.FreightBands.Select(b => b.Service).Distinct())}.",
                        field
                    );
                return (
                    "freight service",
                    sheet.FreightService ?? "the cheapest",
                    (sheet.FreightService = empty ? null : value) ?? "the cheapest"
                );
            case "wanted":
                return ("wanted", Say(sheet.Wanted), Say(sheet.Wanted = empty ? null : Day(value, field)));
            case "validUntil" when open.Quote is { } quote:
                return ("holds until", Say(quote.ValidUntil), Say(quote.ValidUntil = Day(value, field)));
            case "note":
                return ("note", sheet.Note, sheet.Note = SheetEditor.Short(value));
            case "matter":
                return ("matter", open.Dossier.Matter, open.Dossier.Matter = SheetEditor.Short(value));
            case "sheetDiscount":
                var before = sheet.DiscountPercent is { } p ? Percent(p) : "none";
                var percent = empty ? (decimal?)null : Number(value.TrimEnd('%', ' ').TrimStart('\u2212'), field);
                if (percent is < 0 or > 100)
                    throw RefusalException.Bad(
                        "number",
                        "A discount on the sheet is between 0 and 100 %; the old one was kept.",
                        field
                    );
                (sheet.DiscountPercent, sheet.DiscountAmount) = (percent is 0 ? null : percent, null);
                return ("discount on the sheet", before, percent is { } now ? Percent(now) : "none");
            case "freight":
                var row = sheet.Charges.FirstOrDefault(c => c.Kind == field);
                var was = row?.Amount;
                if (empty)
                {
                    if (row is not null)
                    {
                        sheet.Charges.Remove(row);
                        work.Db.Remove(row);
                    }
                    return ("freight", was?.ToString(CultureInfo.InvariantCulture) ?? "none", "none");
                }
                if (row is null)
                    sheet.Charges.Add(row = new SheetChargeRow { SheetId = sheet.Id, Kind = field });
                (row.Amount, row.ByHand) = (Number(value, field), true);
                return (
                    "freight",
                    was?.ToString(CultureInfo.InvariantCulture) ?? "none",
                    row.Amount.ToString(CultureInfo.InvariantCulture)
                );
            default:
                throw RefusalException.Bad("field_unknown", $"There is no field “{field}”.", field);
        }
    }

    // Lines that still say what the item is called say so in the new language; what somebody typed stays.
    private static (string, string, string) SetLanguage(OpenSheet open, string value)
    {
        var before = open.Sheet.Language;
        if (Wording.Fault(value) is { } fault)
            throw RefusalException.Bad("language", $"{fault}; the old one was kept.", "language");
        foreach (var line in open.Sheet.Lines)
        {
            if (line.ItemId is { } id && open.Book.Find(new(id)) is { } item && line.Words == item.WordsIn(before))
                line.Words = item.WordsIn(value);
        }
        return ("language", before, open.Sheet.Language = value);
    }

    // An address of the buyer's is named by its code.
    private static AddressRow? Address(OpenSheet open, string use, string value) =>
        open.Addresses.FirstOrDefault(a =>
            a.Use == use && (string.Equals(a.Code, value, StringComparison.OrdinalIgnoreCase) || a.Words == value)
        );

    private static decimal Number(string value, string field) =>
        QuickLine.Number(value)
        ?? throw RefusalException.Bad("number", $"“{value}” is not a number; the old one was kept.", field);

    private static int Days(string value) =>
        int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var days) && days <= 365
            ? days
            : throw RefusalException.Bad(
                "number",
                $"“{value}” is not a number of days; the old terms were kept.",
                "paymentDays"
            );

    private static DateOnly Day(string value, string field) =>
        DateOnly.TryParseExact(value, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day
            : throw RefusalException.Bad("date", $"“{value}” is not a date; the old one was kept.", field);

    private static string Say(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "";

    private static string Say(int? days) => days is { } d ? $"{d} days" : "";

    private static string Percent(decimal percent) =>
        string.Create(CultureInfo.InvariantCulture, $"{percent:0.####} %");
}
