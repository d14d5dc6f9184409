using BenchmarkDotNet.Attributes;
using Solvenda.Core.Approvals;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Bench;

/// <summary>
/// All checks on an order of five hundred lines, every one of which has stock, a price on the PO and a past.
/// </summary>
[MemoryDiagnoser]
public class ChecksOnSheet
{
    private CheckFacts _facts = null!;

    [GlobalSetup]
    public void Setup()
    {
        var made = new MadeBook(500, 2_000, 60);
        var sheet = made.SheetOf(500);
        sheet = sheet with
        {
            Lines =
            [
                .. sheet.Lines.Select(l =>
                    l with
                    {
                        Asked = new AskedFor(l.Words, $"T-{l.Key}", l.Quantity, l.Unit, 10m, 1m),
                    }
                ),
            ],
        };
        var priced = SheetPricer.Price(made.Book, made.Rates, made.Buyers[0], sheet);
        var day = new DateOnly(2026, 11, 27);
        _facts = new CheckFacts(
            DocumentKind.Order,
            priced,
            made.Buyers[0],
            Head.Empty.With(HeadTerms.Wanted.Name, "2026-12-04", null),
            Stated.Nothing,
            [],
            sheet.Lines.ToDictionary(
                l => l.Key,
                l => new LineStock(
                    l.Quantity,
                    new Promise(day, day.AddDays(1), day.AddDays(3 + (int)(l.Key % 9)), true)
                )
            ),
            null,
            Judgement.Nothing,
            new Core.People.Hand(null, "bench"),
            sheet.Lines.ToDictionary(l => l.Key, _ => (decimal?)5m),
            []
        )
        {
            Today = day,
        };
    }

    [Benchmark(Description = "all checks, 500 lines")]
    public int Checks() => CheckList.Run(_facts).Length;
}

/// <summary>
/// Ten thousand open lines over two hundred and fifty items, promised anew after half of what comes slipped.
/// </summary>
[MemoryDiagnoser]
public class PromisedAnew
{
    private const int Items = 250;
    private const int Each = 40;

    private readonly List<(decimal OnHand, StockMove[] Comes, Wish[] Waits)> _items = [];

    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(7);
        for (var item = 0; item < Items; item++)
        {
            var waits = Enumerable
                .Range(1, Each)
                .Select(i => new Wait(i, random.Next(0, 60), random.Next(1, 200)))
                .Select(w => new Wish(w, Math.Max(0, w.Day - random.Next(0, 6))))
                .ToArray();
            var half = waits.Sum(w => w.Wait.Quantity) / 2;
            _items.Add((half * 0.8m, [new StockMove(12, half * 0.4m), new StockMove(40, half)], waits));
        }
    }

    [Benchmark(Description = "10,000 open lines promised anew")]
    public int Anew() => _items.Sum(i => Repromise.Over(180, i.OnHand, i.Comes, i.Waits, 30).Length);
}
