using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Planning;

/// <summary>
/// Takes what purchasing and production say: what is to come, on which day, and what came. A table with the columns
/// kind (expected, arrived), reference, item, warehouse, quantity, day, delivery, in any order
/// (docs/guide/planning.md).
/// </summary>
public sealed record TakeArrivals(string Name, byte[] Bytes) : IAct<ArrivalsTaken>;

/// <summary>What came of it.</summary>
/// <param name="Known">Rows that were taken before.</param>
public sealed record ArrivalsTaken(int Expected, int Arrived, int Known);

[Leaves(typeof(StockExpected), typeof(StockArrived))]
public sealed class TakeArrivalsAct : Act<TakeArrivals, ArrivalsTaken>
{
    private const int MostRows = 10_000;
    private const int MostLetters = 60;
    private const int MostBytes = 2 * 1024 * 1024;

    public override Right Needs => Rights.Plan;

    /// <summary>All of it or, where a row cannot be taken, nothing: the refusal names the rows.</summary>
    public override async Task<ArrivalsTaken> RunAsync(Work work, TakeArrivals input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (rows, faults) = (Read(input), new List<string>());
        var (expected, arrived, known) = (0, 0, 0);
        foreach (var row in rows)
        {
            try
            {
                var item = await StockSteps.ItemAsync(work, row.Item, cancel);
                var warehouse = await StockSteps.WarehouseAsync(work, row.Warehouse, cancel);
                if (row.Kind == "expected")
                    expected += await ExpectAsync(work, row, item, warehouse, cancel);
                else if (await ArriveAsync(work, row, item, warehouse, cancel))
                    arrived++;
                else
                    known++;
                // The next row may be about the same.
                await work.Db.SaveChangesAsync(cancel);
            }
            catch (RefusedException no)
            {
                faults.Add($"row {row.No}: {no.Message}");
            }
        }
        return faults.Count == 0
            ? new ArrivalsTaken(expected, arrived, known)
            : throw RefusedException.Bad(
                "arrivals",
                $"{faults.Count} of {rows.Count} rows of {input.Name} cannot be taken, so none was: {string.Join(" ", faults.Take(5))}",
                "rows"
            );
    }

    private sealed record Row(
        int No,
        string Kind,
        string Reference,
        string Item,
        string Warehouse,
        decimal Quantity,
        DateOnly Day,
        string Delivery
    );

    private static List<Row> Read(TakeArrivals input)
    {
        if (input.Bytes.Length > MostBytes)
            throw No(input, "It is larger than 2 MB.");
        try
        {
            var table = TableReader.Read(input.Bytes);
            var at = table
                .Head.Select((name, i) => (Name: name.Trim().ToUpperInvariant(), i))
                .ToLookup(h => h.Name, h => h.i);
            var rows = new List<Row>();
            foreach (var (no, cells) in table.Rows)
            {
                if (rows.Count == MostRows)
                    throw No(input, $"It has more than {MostRows} rows.");
                rows.Add(
                    Of(
                        input,
                        no,
                        name => at[name].Select(i => i < cells.Count ? cells[i].Trim() : "").FirstOrDefault() ?? ""
                    )
                );
            }
            return rows;
        }
        catch (TableException e)
        {
            throw No(input, e.Message);
        }
    }

    private static Row Of(TakeArrivals input, int no, Func<string, string> cell)
    {
        var kind = cell("KIND").ToLowerInvariant();
        if (kind is not ("expected" or "arrived"))
            throw No(input, $"Row {no} is neither “expected” nor “arrived”.");
        if (
            !decimal.TryParse(
                cell("QUANTITY"),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var quantity
            ) || quantity is <= 0 or > StockSteps.Most
        )
            throw No(input, $"The quantity of row {no} is no number above 0.");
        if (
            !DateOnly.TryParseExact(
                cell("DAY"),
                "yyyy-MM-dd",
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var day
            )
        )
            throw No(input, $"The day of row {no} is not written as 2026-12-04.");
        if (cell("REFERENCE").Length is 0 or > MostLetters)
            throw No(input, $"Row {no} has no reference, by which it is known again.");
        if (kind == "arrived" && cell("DELIVERY").Length is 0 or > MostLetters)
            throw No(input, $"Row {no} has no delivery, by which it is known again.");
        return new Row(no, kind, cell("REFERENCE"), cell("ITEM"), cell("WAREHOUSE"), quantity, day, cell("DELIVERY"));
    }

    private static RefusedException No(TakeArrivals input, string why) =>
        RefusedException.Bad("arrivals", $"{input.Name}: {why} Nothing of it was taken.", "rows");

    // What is said last holds: of one reference, item and warehouse there is one row.
    private static async Task<int> ExpectAsync(
        Work work,
        Row row,
        ItemRow item,
        string warehouse,
        CancellationToken cancel
    )
    {
        var comes = await ComesAsync(work, row, item, warehouse, cancel);
        if (comes is not null && comes.Due == row.Day && comes.Quantity == row.Quantity)
            return 0;
        work.Leave(
            new StockExpected(row.Reference, item.Code, warehouse, row.Quantity, comes?.Due, row.Day),
            Work.SubjectOf("items", item.Id)
        );
        if (comes is null)
        {
            work.Db.Incoming.Add(
                new IncomingRow
                {
                    ItemId = item.Id,
                    Warehouse = warehouse,
                    Due = row.Day,
                    FirstDue = row.Day,
                    Quantity = row.Quantity,
                    Reference = row.Reference,
                }
            );
            await AnswerAsync(work, row.Reference, row.Quantity, cancel);
        }
        else
        {
            await AnswerAsync(work, row.Reference, row.Quantity - comes.Quantity, cancel);
            (comes.Due, comes.Quantity) = (row.Day, row.Quantity);
        }
        return 1;
    }

    private static async Task<bool> ArriveAsync(
        Work work,
        Row row,
        ItemRow item,
        string warehouse,
        CancellationToken cancel
    )
    {
        var document = $"{row.Reference} {row.Delivery}";
        if (
            await work.Db.StockMovements.AnyAsync(
                m => m.Document == document && m.ItemId == item.Id && m.Warehouse == warehouse,
                cancel
            )
        )
            return false;
        var comes = await ComesAsync(work, row, item, warehouse, cancel);
        if (comes is null)
            await AnswerAsync(work, row.Reference, row.Quantity, cancel);
        else if (comes.Quantity <= row.Quantity)
            work.Db.Incoming.Remove(comes);
        else
            comes.Quantity -= row.Quantity;
        var onHand = await StockSteps.MoveAsync(
            work,
            new StockMovementRow
            {
                ItemId = item.Id,
                Warehouse = warehouse,
                Day = row.Day > work.Today ? work.Today : row.Day,
                Quantity = row.Quantity,
                Kind = MovementKind.Arrived,
                Document = document,
            },
            cancel
        );
        work.Leave(
            new StockArrived(row.Reference, row.Delivery, item.Code, warehouse, row.Quantity, onHand),
            Work.SubjectOf("items", item.Id)
        );
        return true;
    }

    private static Task<IncomingRow?> ComesAsync(
        Work work,
        Row row,
        ItemRow item,
        string warehouse,
        CancellationToken cancel
    ) =>
        work.Db.Incoming.FirstOrDefaultAsync(
            i => i.Reference == row.Reference && i.ItemId == item.Id && i.Warehouse == warehouse,
            cancel
        );

    // Where the reference is one of our own requests.
    private static async Task AnswerAsync(Work work, string reference, decimal quantity, CancellationToken cancel)
    {
        if (await work.Db.SupplyRequests.FirstOrDefaultAsync(r => r.Number == reference, cancel) is { } asked)
            asked.Answered += quantity;
    }
}
