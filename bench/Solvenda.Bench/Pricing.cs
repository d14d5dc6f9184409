using BenchmarkDotNet.Attributes;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Bench;

/// <summary>The price build of one line, with its trace.</summary>
[MemoryDiagnoser]
public class PriceBuildOfALine
{
    private MadeBook _made = null!;
    private PriceQuestion[] _questions = null!;

    [Params(2_000, 200_000)]
    public int Agreements { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        _made = Agreements > 10_000 ? new MadeBook(50_000, Agreements, 20_000) : new MadeBook(500, Agreements, 60);
        var random = new Random(11);
        _questions =
        [
            .. Enumerable
                .Range(0, 1_000)
                .Select(_ => new PriceQuestion(
                    _made.Items[random.Next(_made.Items.Length)],
                    random.Next(1, 600),
                    Core.Units.Unit.Metre,
                    _made.Buyers[random.Next(_made.Buyers.Length)],
                    MadeBook.Eur,
                    MadeBook.Day
                )),
        ];
    }

    /// <summary>
    /// What is left of a price when all rules and their trace are taken away: the ratio to stay near.
    /// </summary>
    [Benchmark(Baseline = true, OperationsPerInvoke = 1_000)]
    public decimal ArithmeticAlone()
    {
        var sum = 0m;
        foreach (var q in _questions)
        {
            var agreed = decimal.Round(12.34m * (1 - (4m / 100m)), 4, MidpointRounding.AwayFromZero);
            sum += decimal.Round(q.Quantity * agreed, 2, MidpointRounding.AwayFromZero);
        }
        return sum;
    }

    [Benchmark(OperationsPerInvoke = 1_000)]
    public int WithRulesAndTrace()
    {
        var steps = 0;
        foreach (var q in _questions)
            steps += BasePrice.Find(_made.Book, _made.Rates, q).Steps.Length;
        return steps;
    }
}

/// <summary>A whole sheet, from what was typed to every figure, and the headroom on it.</summary>
[MemoryDiagnoser]
public class WholeSheet
{
    private MadeBook _made = null!;
    private Sheet _sheet = null!;
    private PricedSheet _priced = null!;
    private LineTerms[] _terms = null!;

    [Params(40, 500)]
    public int Lines { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        _made = new MadeBook(500, 2_000, 60);
        _sheet = _made.SheetOf(Lines);
        _priced = Price();
        _terms = [.. _priced.Lines.Select(l => l.Terms)];
    }

    [Benchmark(Baseline = true)]
    public Tally TallyAlone() =>
        SheetArithmetic.Calculate(MadeBook.Eur, _terms, _sheet.Discount, _sheet.Charges, 0m).Tally;

    [Benchmark]
    public PricedSheet Price() => SheetPricer.Price(_made.Book, _made.Rates, _made.Buyers[0], _sheet);

    [Benchmark]
    public decimal HeadroomOfLines() =>
        _priced.Sold.Sum(l => Headroom.Line(l, _priced, MadeBook.Seller.Authority) ?? 0m);

    [Benchmark]
    public int HeadroomOfSheet() => Headroom.Sheet(_priced, MadeBook.Seller, MadeBook.People).Length;
}
