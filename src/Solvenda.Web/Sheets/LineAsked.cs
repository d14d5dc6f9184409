using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Sheets;

/// <summary>
/// One line, asked about: what the same buyer would pay for more of it, in another unit, or for its like.
/// </summary>
internal sealed partial class LineAsked(PriceBook book, SheetRow sheet, SheetLineRow line, Item item, Buyer buyer)
{
    private const int LooksAlike = 12;

    // What shares fewer of its words is something else of the same size.
    private const decimal ShareOfWords = 0.6m;

    private readonly Rates _rates = sheet.RatesOf(book);
    private readonly Currency _currency = Currency.Of(sheet.Currency);
    private readonly Unit _unit = Unit.Of(line.Unit);

    // A discount in percent stays with the line, whatever it is made to be; a price that was typed stays itself.
    private decimal Left => line.HandKind == ByHandKind.DiscountPercent ? 1m - (line.HandValue / 100m) : 1m;
    private bool IsTyped => line.HandKind is not (ByHandKind.None or ByHandKind.DiscountPercent);

    private decimal Now => Amount.FromMinor(line.NetMinor, _currency).Value;

    private PriceQuestion Question(Item of, decimal quantity, Unit unit) =>
        new(of, quantity, unit, buyer, _currency, sheet.PricingDate, sheet.Channel);

    // What so many come to, with the line's own discount; null without a price.
    private decimal? Costs(Item of, decimal quantity, Unit unit)
    {
        var build = BasePrice.Find(book, _rates, Question(of, quantity, unit));
        return build.Base is { } price
            ? Amount.Round(quantity * price.Value * Left / build.PriceBase, _currency).Value
            : null;
    }

    /// <summary>What the quantity of the line is of another item, in its stock unit.</summary>
    public decimal InStock(Item of) => line.Quantity * (of.Factor(_unit) ?? 0m);

    /// <summary>The rules that did not make the price.</summary>
    public IReadOnlyList<LostRule> Lost() =>
        BasePrice.Lost(
            book,
            _rates,
            Question(item, line.Quantity, _unit),
            BreakGroups.Of(book, buyer, sheet.ToSheet())
        );

    /// <summary>The next break of an agreement that lowers the price; null where there is none.</summary>
    public NextBreak? NextBreak()
    {
        if (IsTyped || item.Factor(_unit) is not { } factor || factor == 0)
            return null;
        var now = BasePrice.Find(book, _rates, Question(item, line.Quantity, _unit)).Base?.Value;
        var next = book.AgreementsFor(buyer, item)
            .Where(a => a.HoldsOn(sheet.PricingDate))
            .SelectMany(a => a.Breaks)
            .Select(b => b.From / factor)
            .Where(f => f > line.Quantity)
            .Order()
            .Select(f => (From: f, Price: BasePrice.Find(book, _rates, Question(item, f, _unit)).Base?.Value))
            .FirstOrDefault(b => b.Price < now);
        return next.Price is { } price && Costs(item, next.From, _unit) is { } all
            ? new NextBreak(next.From, UnitTable.OnSheet(_unit), price, all - Now)
            : null;
    }

    /// <summary>Whole packs of the same that come to less than the line does.</summary>
    public IEnumerable<Cheaper?> ByAnotherUnit()
    {
        if (IsTyped || item.Factor(_unit) is not { } factor || line.Quantity <= 0)
            yield break;
        foreach (var unit in item.SalesUnits.Where(u => u.Unit != _unit && u.Factor > factor))
        {
            var packs = Math.Ceiling(line.Quantity * factor / unit.Factor);
            var word = UnitTable.OnSheet(unit.Unit);
            var typed = string.Create(CultureInfo.InvariantCulture, $"{packs:0.######} {unit.Unit.Code}");
            if (Costs(item, packs, unit.Unit) is { } all && all < Now)
                yield return new Cheaper(
                    string.Create(CultureInfo.InvariantCulture, $"as {packs:0.######} {word}").TrimEnd(),
                    "quantity",
                    typed,
                    Now - all
                );
        }
    }

    /// <summary>Items of the same family and sizes that are called much the same.</summary>
    public List<Item> Alike(ItemFinder finder)
    {
        ArgumentNullException.ThrowIfNull(finder);
        if (IsTyped)
            return [];
        var (sizes, words) = (Sizes(item.Words), Words(item.Words));
        return
        [
            .. finder
                .Search(item.Words, LooksAlike)
                .Select(c => c.Item)
                .Where(i => i.Id != item.Id && i is { Active: true, Stocked: true } && i.Family == item.Family)
                .Where(i => i.Factor(_unit) is not null && sizes.SetEquals(Sizes(i.Words)))
                .Where(i => Words(i.Words).Count(words.Contains) >= words.Count * ShareOfWords),
        ];
    }

    /// <summary>Another item in place of the line's; null where it costs no less.</summary>
    public Cheaper? Instead(Item other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Costs(other, line.Quantity, _unit) is { } all && all < Now
            ? new Cheaper($"{other.Code} {other.Words}", "item", other.Code, Now - all)
            : null;
    }

    private static HashSet<string> Words(string words) =>
        [.. Word().Matches(words.ToLowerInvariant()).Select(m => m.Value)];

    private static HashSet<string> Sizes(string words) => [.. Size().Matches(words).Select(m => m.Value)];

    [GeneratedRegex(@"\p{L}{3,}")]
    private static partial Regex Word();

    [GeneratedRegex(@"\d+(?:[.,/]\d+)*")]
    private static partial Regex Size();
}
