using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>A line of an order that a machine brings.</summary>
/// <param name="Item">Our code, or a GTIN.</param>
/// <param name="Unit">Rec 20 code or a word; null: the stock unit.</param>
/// <param name="Price">What the buyer states they pay, per <paramref name="PriceBase"/>; it is compared with ours, and
/// never taken by itself.</param>
public sealed record OrderedLine(
    string Item,
    decimal Quantity,
    string? Unit,
    decimal? Price,
    decimal PriceBase,
    string Note,
    DateOnly? Wanted
);

/// <summary>
/// Takes an order from a machine, whole or not at all: the buyer and the items are known to it. What stops it is found
/// by its checks, as on any order.
/// </summary>
/// <param name="Buyer">Their code or name.</param>
/// <param name="Terms">Of the head, by their names.</param>
/// <param name="Currency">Null: the buyer's.</param>
/// <param name="Channel">The sales channel that it came by; null: none in particular.</param>
public sealed record TakeOrder(
    string Buyer,
    SortedDictionary<string, string> Terms,
    string? Currency,
    string? Channel,
    IReadOnlyList<OrderedLine> Lines
) : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class TakeOrderAct(
    SheetLoader loader,
    Settling settling,
    PriceBooks books,
    HouseBooks houses,
    Seller seller
) : Act<TakeOrder, DocumentRef>
{
    private const string Machine = "machine";
    private const int MostChannel = 40;

    public override Right Needs => Rights.Orders;

    public override async Task<DocumentRef> RunAsync(Work work, TakeOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var sought = input.Buyer.Trim();
        var buyer =
            await work.Db.Buyers.FirstOrDefaultAsync(b => b.Active && (b.Code == sought || b.Name == sought), cancel)
            ?? throw RefusedException.Bad("buyer_unknown", $"We have no buyer “{sought}”.", "buyer");
        if (input.Lines.Count is 0 or > SheetDoor.MostLines)
            throw RefusedException.Bad(
                "too_many_lines",
                $"An order has from 1 to {SheetDoor.MostLines} lines; nothing was taken.",
                "lines"
            );
        if (input.Currency is { } code && !Currency.TryOf(code, out _))
            throw RefusedException.Bad("currency_unknown", $"“{code}” is not a currency of ISO 4217.", "currency");
        if (input.Channel is { Length: > MostChannel })
            throw RefusedException.Bad("too_long", $"A channel has at most {MostChannel} letters.", "channel");
        var sheet = Drafting.SheetFor(buyer, work.Today, input.Currency?.ToUpperInvariant());
        sheet.Channel = input.Channel;
        var facts = await FactsAsync(work, buyer, sheet, cancel);
        var finder = await books.ItemsAsync(work.Db, cancel);
        var draft = WithTerms(sheet.ToDraft(), input.Terms, facts);
        sheet.Take(AskedLines.Add(draft, input.Lines.Select((l, i) => LineOf(l, i, finder)), facts));
        var dossier = await Drafting.DossierAsync(work, buyer, HeadTerms.Matter.In(draft.Head) ?? "", cancel);
        var order = await Drafting.OrderAsync(
            work,
            dossier,
            sheet,
            string.IsNullOrWhiteSpace(input.Channel) ? Machine : input.Channel,
            null,
            null,
            cancel
        );
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }

    private async Task<DoorFacts> FactsAsync(Work work, BuyerRow buyer, SheetRow sheet, CancellationToken cancel)
    {
        var house = await houses.OnAsync(work.Db, work.Today, cancel);
        return new DoorFacts(
            DocumentKind.Order,
            await books.BookAsync(work.Db, cancel),
            buyer.ToBuyer(),
            Currency.Of(sheet.Currency),
            work.Actor.Hand,
            work.Today,
            OpenSheet.Languages,
            house.Warehouses,
            await SheetLoader.PlacesAsync(work.Db, buyer, cancel)
        )
        {
            Incoterms = seller.SellsBy,
            Own = [.. house.Own[OwnOn.Orders].Select(f => f.Term(DocumentKind.Order))],
        };
    }

    private static Draft WithTerms(Draft draft, SortedDictionary<string, string> terms, DoorFacts facts)
    {
        foreach (var (name, text) in terms)
        {
            var edited = SheetDoor.Take(draft, [new SheetEdit(EditKind.Set, null, name, text)], facts);
            if (edited.Refused is { } refused)
                throw RefusedException.Bad(refused.Code, $"{refused.Words.TrimEnd('.')}; nothing was taken.", name);
            draft = edited.Draft;
        }
        return draft;
    }

    private static AskedLine LineOf(OrderedLine line, int at, ItemFinder finder)
    {
        string Field(string name) => $"lines[{at}].{name}";
        var item =
            finder.ByCode(line.Item)
            ?? throw RefusedException.Bad(
                "item_unknown",
                $"There is no item “{line.Item}”; nothing was taken.",
                Field("item")
            );
        if (line.Quantity is <= 0 or > LineFields.MostQuantity)
            throw RefusedException.Bad(
                "number",
                "A quantity is more than nothing, and has its bounds; nothing was taken.",
                Field("quantity")
            );
        if (line.Price is < 0 or > LineFields.MostPrice || line.PriceBase is <= 0 or > LineFields.MostQuantity)
            throw RefusedException.Bad("number", "A price is not negative; nothing was taken.", Field("price"));
        var unit = string.IsNullOrWhiteSpace(line.Unit)
            ? item.StockUnit
            : UnitTable.FromCode(line.Unit.Trim())
                ?? UnitTable.FromWord(line.Unit.Trim())
                ?? throw RefusedException.Bad(
                    "unit",
                    $"“{line.Unit}” is not a unit that we know; nothing was taken.",
                    Field("unit")
                );
        if (item.Factor(unit) is null)
            throw RefusedException.Bad(
                "unit",
                $"{item.Code} is not sold by “{line.Unit}”; nothing was taken.",
                Field("unit")
            );
        return new AskedLine(
            new AskedFor(line.Item, line.Item, line.Quantity, unit, line.Price, line.PriceBase),
            item.Code,
            line.Quantity,
            unit,
            line.Note,
            line.Wanted
        );
    }
}
