using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Lists;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Territories
{
    public static readonly RecordKind<TerritoryRow> Kind = new()
    {
        Name = "territories",
        Title = "Territories",
        One = "territory",
        Key = ["code"],
        Make = () => new TerritoryRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<TerritoryRow>(t => t.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<TerritoryRow>(t => t.Words, "words", required: true, inList: true),
            Fields.Text<TerritoryRow>(
                t => t.Countries,
                "countries",
                inList: true,
                hint: "IE GB: new buyers there are of it",
                check: t =>
                    t.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                        .Select(Checks.Country)
                        .FirstOrDefault(w => w is not null)
            ),
            Fields.Reference<TerritoryRow>(t => t.SellerId, "seller", "people", inList: true),
        ],
    };

    /// <summary>
    /// Gives a new buyer the territory of its country, and the seller of its territory, where nobody said otherwise.
    /// Of several territories of a country the first that was made counts.
    /// </summary>
    public static async Task SettleAsync(SolvendaDb db, BuyerRow buyer, CancellationToken cancel)
    {
        if (buyer.Territory is not null && buyer.AccountManagerId is not null)
            return;
        var territories = await db
            .Territories.AsNoTracking()
            .Where(t => t.Active)
            .OrderBy(t => t.Id)
            .ToListAsync(cancel);
        var its = buyer.Territory is { } code
            ? territories.Find(t => t.Code == code)
            : territories.Find(t => t.Countries.Split(' ').Contains(buyer.Country));
        if (its is null)
            return;
        buyer.Territory = its.Code;
        buyer.AccountManagerId ??= its.SellerId;
    }
}
