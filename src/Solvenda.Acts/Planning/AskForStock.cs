using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Planning;

/// <summary>Asks purchasing or production for more of an item: a file is written for them.</summary>
/// <param name="Quantity">In stock units.</param>
public sealed record AskForStock(string Item, string Warehouse, decimal Quantity, DateOnly Wanted) : IAct<string>;

[Leaves(typeof(StockAskedFor))]
public sealed class AskForStockAct : Act<AskForStock, string>
{
    /// <summary>As the outbox calls what goes to purchasing and production.</summary>
    public const string Kind = "supply";

    // Nobody plans further.
    private const int MostDays = 730;

    public override Right Needs => Rights.Plan;

    /// <returns>Its number.</returns>
    public override async Task<string> RunAsync(Work work, AskForStock input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var item = await StockSteps.ItemAsync(work, input.Item, cancel);
        var warehouse = await StockSteps.WarehouseAsync(work, input.Warehouse, cancel);
        if (input.Quantity is <= 0 or > StockSteps.Most)
            throw RefusedException.Bad("quantity", "Say how much, above 0.", "quantity");
        if (input.Wanted < work.Today || input.Wanted > work.Today.AddDays(MostDays))
            throw RefusedException.Bad("wanted", "It is wanted today or later, within two years.", "wanted");
        var number = await work.NumberAsync(NumberSeries.Supply, cancel);
        work.Db.SupplyRequests.Add(
            new SupplyRequestRow
            {
                Number = number,
                ItemId = item.Id,
                Warehouse = warehouse,
                Quantity = input.Quantity,
                Wanted = input.Wanted,
                ByName = work.Actor.Name,
                At = work.Now,
            }
        );
        work.Send(
            Kind,
            number.ToLowerInvariant(),
            "purchasing and production",
            $"{number}.csv",
            await FileAsync(item, warehouse, number, input, cancel)
        );
        work.Leave(
            new StockAskedFor(number, item.Code, warehouse, input.Quantity, item.StockUnit, input.Wanted),
            Work.SubjectOf("items", item.Id)
        );
        return number;
    }

    // The columns that an answer has too (docs/guide/planning.md).
    private static async Task<byte[]> FileAsync(
        ItemRow item,
        string warehouse,
        string number,
        AskForStock asked,
        CancellationToken cancel
    )
    {
        using var file = new MemoryStream();
        IReadOnlyList<string> row =
        [
            "asked",
            number,
            item.Code,
            item.Gtin ?? "",
            item.Words,
            warehouse,
            asked.Quantity.ToString("0.######", CultureInfo.InvariantCulture),
            item.StockUnit,
            asked.Wanted.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        ];
        await TableWriter.CsvAsync(
            file,
            ["kind", "reference", "item", "gtin", "words", "warehouse", "quantity", "unit", "day"],
            new[] { row }.ToAsyncEnumerable(),
            cancel
        );
        return file.ToArray();
    }
}
