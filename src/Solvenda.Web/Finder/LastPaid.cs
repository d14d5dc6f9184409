using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Data;

namespace Solvenda.Web.Finder;

/// <summary>What a buyer paid last for an item, found by a word of each: "chain 10 nordvass".</summary>
internal static class LastPaid
{
    // A shorter word is part of too many names.
    private const int ShortestName = 3;
    private const int MostBuyers = 3;
    private const int MostItems = 3;
    private const int MostWords = 8;

    public static async Task<List<Found>> FindAsync(
        SolvendaDb db,
        ItemFinder items,
        PriceBook book,
        DateOnly today,
        string text,
        CancellationToken cancel
    )
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length is < 2 or > MostWords)
            return [];
        var found = new List<Found>();
        foreach (var name in words.Where(w => w.Length >= ShortestName && w.All(char.IsLetter)))
        {
            var rest = string.Join(' ', words.Where(w => w != name));
            var meant = Meant(items, rest);
            if (meant.Count == 0)
                continue;
            var buyers = await db
                .Buyers.Where(b => b.Active && EF.Functions.Like(b.Name, $"%{name}%"))
                .OrderBy(b => b.Name)
                .Take(MostBuyers)
                .AsNoTracking()
                .ToListAsync(cancel);
            foreach (var buyer in buyers)
            {
                var paid = found.Count;
                foreach (var item in meant)
                {
                    if (await PastSales.OfAsync(db, item.Id.Value, buyer.Id, 0, 1, cancel) is [var sold, ..])
                        found.Add(
                            new Found(
                                "paid last",
                                item.Code,
                                $"{sold.Currency} {Said(sold)}",
                                buyer.Name,
                                $"/orders/{sold.Document}",
                                null
                            )
                        );
                }
                if (found.Count == paid && Today(book, today, buyer.ToBuyer(), meant[0]) is { } price)
                    found.Add(
                        new Found(
                            "would pay",
                            meant[0].Code,
                            $"{price} today; never took it",
                            buyer.Name,
                            $"/records/buyers/{buyer.Id}",
                            null
                        )
                    );
            }
        }
        return [.. found.Distinct()];
    }

    // Only items that are called by all of the words.
    private static List<Item> Meant(ItemFinder items, string words) =>
        items.ByCode(words) is { } exact
            ? [exact]
            :
            [
                .. items
                    .Search(words, MostItems * 2)
                    .Select(c => c.Item)
                    .Where(i => items.Unsaid(words, i).IsEmpty)
                    .Take(MostItems),
            ];

    private static string? Today(PriceBook book, DateOnly today, Buyer buyer, Item item)
    {
        var question = new PriceQuestion(item, 1m, item.StockUnit, buyer, buyer.Currency, today);
        return BasePrice.Find(book, Rates.On(today, book.Home, book.DatedRates), question).Base is { } price
            ? string.Create(CultureInfo.InvariantCulture, $"{buyer.Currency.Code} {price.Value:0.0000}")
            : null;
    }

    private static string Said(SoldBefore sold) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{sold.NetPrice:0.0000} for {sold.Quantity:#,0.######} {sold.UnitWord} on {sold.Day:d MMM yyyy}"
        );
}
