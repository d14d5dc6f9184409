using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>Turns a structured message into a reading: whose codes are whose, in our units.</summary>
public static class DocumentReader
{
    public static Reading Read(OrderDocument document, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(document);
        var clues = new List<(string, string, ImmutableArray<Evidence>)>();
        if (document.PartnerId is { } partner)
            clues.Add(("partner", partner.Value, [partner.Where]));
        if (document.ContactMail is { } mail)
            clues.Add(("mail", mail.Value, [mail.Where]));
        var buyer = BuyerFinder.Find(context, clues);
        return new Reading(
            document.Kind,
            buyer,
            Text(document.Contact),
            Text(document.PoNumber),
            document.Wanted is { } w ? new Field<DateOnly?>(w.Value, 0.98m, "stated", [w.Where]) : Field<DateOnly?>.Missing,
            Text(document.DeliverTo),
            Text(document.Incoterm),
            Text(document.IncotermPlace),
            document.Currency is { } c && Currency.TryOf(c.Value, out var currency) ? new Field<Currency?>(currency, 0.99m, "stated", [c.Where]) : Field<Currency?>.Missing,
            document.PaymentDays is { } days ? new Field<int?>(days.Value, 0.95m, "stated", [days.Where]) : Field<int?>.Missing,
            [.. document.Lines.Select(l => Line(l, buyer, context))],
            document.Charges,
            document.Warnings);
    }

    private static Field<string> Text(Stated<string>? stated) => stated is null ? Field<string>.Missing : new Field<string>(stated.Value, 0.98m, "stated", [stated.Where]);

    private static ReadLine Line(StatedLine line, Field<BuyerId> buyer, ReadingContext context)
    {
        var (item, how, sure, where) = Item(line, buyer, context);
        var theirUnit = UnitTable.FromCode(line.Unit);
        var quantity = line.Quantity;
        var code = line.SellersCode?.Value ?? line.BuyersCode?.Value ?? line.Gtin?.Value;
        ImmutableArray<Evidence> ofQuantity = quantity is null ? line.Evidence : [quantity.Where];
        var proposals = item is null ? Proposals(line, theirUnit, context) : [];
        var unit = theirUnit is not { } u ? new Field<Unit>(item?.StockUnit ?? Unit.Piece, 0.3m, $"the unit {line.Unit} is unknown", ofQuantity)
            : item is not null && item.Factor(u) is null ? new Field<Unit>(u, 0.4m, $"{item.Code} is not sold by {u.Code}", ofQuantity)
            : new Field<Unit>(u, 0.98m, "stated", ofQuantity);
        return new ReadLine(
            new Field<ItemId>(item?.Id ?? default, sure, how, where),
            line.Words.Length > 0 ? line.Words : code ?? "",
            code,
            quantity is null ? new Field<decimal?>(null, 0m, "not stated", []) : new Field<decimal?>(quantity.Value, 0.98m, "stated", ofQuantity),
            unit,
            line.Price?.Value,
            line.PriceBase,
            "",
            proposals,
            line.Evidence);
    }

    private static (Item? Item, string How, decimal Sure, ImmutableArray<Evidence> Where) Item(StatedLine line, Field<BuyerId> buyer, ReadingContext context)
    {
        if (line.SellersCode is { } ours && context.Items.ByCode(ours.Value) is { } bySeller)
            return (bySeller, "our code", 0.99m, [ours.Where]);
        if (line.Gtin is { } gtin && context.Items.ByCode(gtin.Value) is { } byGtin)
            return (byGtin, "GTIN", 0.99m, [gtin.Where]);
        if (line.BuyersCode is { } theirs
            && context.Aliases.FirstOrDefault(a => a.Buyer == buyer.Value && a.Words == ItemFinder.Normal(theirs.Value)) is { } alias
            && context.Items.ById(alias.Item) is { } byAlias)
        {
            return (byAlias, "their code", 0.98m, [theirs.Where]);
        }
        return (null, line.BuyersCode is { } code ? $"{code.Value} is unknown" : "no code that we know", 0.1m, line.Evidence);
    }

    private static ImmutableArray<Proposal> Proposals(StatedLine line, Unit? unit, ReadingContext context) =>
    [
        .. context.Items.Search(line.Words, 4).Select(c => new Proposal(
            c.Item.Id, c.Item.Code, c.Item.Words, line.Quantity?.Value ?? 1m, unit is { } u && c.Item.Factor(u) is not null ? u : c.Item.StockUnit, c.Score,
            string.Create(CultureInfo.InvariantCulture, $"words, {Math.Min(99m, c.Score * 100m):0} of 100"))),
    ];
}
