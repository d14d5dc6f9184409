using System.Collections.Immutable;
using BenchmarkDotNet.Attributes;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Bench;

/// <summary>
/// Five hundred policies over a reporting line of ten levels, on a sheet of five hundred lines of which every fifth is
/// given more than its hand may.
/// </summary>
[MemoryDiagnoser]
public class PoliciesOnSheet
{
    private const int Levels = 10;
    private const int Rules = 500;

    private PricedSheet _priced = null!;
    private JudgedBy _by = null!;

    [GlobalSetup]
    public void Setup()
    {
        var made = new MadeBook(500, 2_000, 60);
        var people = Enumerable
            .Range(1, Levels)
            .Select(i => new Decider(
                new PersonId(i),
                $"level {i}",
                i < Levels ? new PersonId(i + 1) : null,
                AuthorityKinds.Of(
                    AuthorityKinds.All.Select(k =>
                        (
                            k.Code,
                            (decimal?)(
                                i == Levels ? k.Any
                                : k.Unit == LimitUnit.LeastPercent ? 40m - i
                                : i * 2m
                            )
                        )
                    )
                )
            ))
            .ToDictionary(d => d.Id);
        var hand = people[new PersonId(1)].Hand;
        var sheet = made.SheetOf(500);
        _priced = SheetPricer.Price(
            made.Book,
            made.Rates,
            made.Buyers[0],
            sheet with
            {
                Lines =
                [
                    .. sheet.Lines.Select(
                        (l, i) =>
                            i % 5 == 0
                                ? l with
                                {
                                    ByHand = new ByHand(ByHandKind.DiscountPercent, 3m + (i % 15), hand),
                                }
                                : l
                    ),
                ],
            }
        );
        var figures = FigureList.All.Select(f => f.Code).ToArray();
        _by = new JudgedBy(Head.Empty, hand, people[new PersonId(1)], people, [])
        {
            Day = new DateOnly(2026, 11, 27),
            Policies =
            [
                .. Enumerable
                    .Range(0, Rules)
                    .Select(i => new Policy(
                        $"rule-{i}",
                        figures[i % figures.Length],
                        i % 3 == 0 ? RouteKind.EachLevel : RouteKind.FirstAble
                    )
                    {
                        When =
                        [
                            new PolicyCondition("value", true, i * 100m),
                            new PolicyCondition("discount", true, i % 12),
                        ],
                    }),
            ],
        };
        if (Judgement.Of(_priced, _by).Needs.IsEmpty)
            throw new InvalidOperationException("Nothing fires.");
    }

    /// <summary>All of it: figures, what fires, whose route.</summary>
    [Benchmark]
    public int Judge() => Judgement.Of(_priced, _by).Needs.Sum(n => n.Policies.Length);

    /// <summary>The same with no policy: what the figures alone take.</summary>
    [Benchmark(Baseline = true)]
    public int FiguresAlone() => Judgement.Of(_priced, _by with { Policies = [] }).Needs.Length;
}
