using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Reading;

namespace Solvenda.Core.Passing;

/// <summary>A line of a request, as far as it matters for letting it through.</summary>
/// <param name="Sure">From 0 to 1.</param>
/// <param name="Known">Whether it is one of our items.</param>
public sealed record WeighedLine(string Words, decimal Sure, bool Known);

/// <summary>What is known of a request before anybody looked at it.</summary>
/// <param name="Sure">Of each value of its head that was read: what it is, and how sure, from 0 to 1.</param>
/// <param name="Again">The earlier request that it names; null where there is none.</param>
/// <param name="NewAddress">Whether it goes where nothing of theirs is on file.</param>
public sealed record WeighFacts(
    MessageKind Kind,
    bool HasBuyer,
    ImmutableArray<(string What, decimal Sure)> Sure,
    ImmutableArray<WeighedLine> Lines,
    ImmutableArray<string> LeftOvers,
    string? Again,
    bool NewAddress,
    ImmutableArray<Finding> Findings
);

/// <summary>A request weighed: how sure its least sure value is, and all that may be in its way.</summary>
/// <param name="Sure">From 0 to 1.</param>
/// <param name="Least">What is least sure of it.</param>
public sealed record Weighed(decimal Sure, string Least, ImmutableArray<Obstacle> InTheWay)
{
    /// <summary>Weighs it.</summary>
    public static Weighed Of(WeighFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        // A line whose item nobody knows stands in the way as such, however well its words were read.
        var (least, sure) = facts
            .Sure.Concat(facts.Lines.Where(l => l.Known).Select(l => ($"“{l.Words}”", l.Sure)))
            .DefaultIfEmpty(("", 1m))
            .MinBy(v => v.Item2);
        return new Weighed(sure, least, [.. OfReading(facts), .. OfChecks(facts.Findings)]);
    }

    private static IEnumerable<Obstacle> OfReading(WeighFacts facts)
    {
        if (facts.Kind is not (MessageKind.Order or MessageKind.RequestForQuotation))
            yield return new Obstacle(Obstacles.Kind, "it is no order");
        if (!facts.HasBuyer)
            yield return new Obstacle(Obstacles.Buyer, "we do not know who this is");
        foreach (var words in facts.LeftOvers)
            yield return new Obstacle(Obstacles.LeftOver, $"not all of it is read: “{words}”");
        foreach (var line in facts.Lines.Where(l => !l.Known))
            yield return new Obstacle(Obstacles.Item, $"one item is unknown: {line.Words}");
        if (facts.Lines.IsEmpty)
            yield return new Obstacle(Obstacles.Empty, "no lines could be read");
        if (facts.Again is { } first)
            yield return new Obstacle(Obstacles.Again, $"names {first}: is it the same again?");
        if (facts.NewAddress)
            yield return new Obstacle(Obstacles.Address, "it goes to an address that is not on file");
    }

    private static IEnumerable<Obstacle> OfChecks(ImmutableArray<Finding> findings) =>
        findings
            .Where(f => f.Outcome != Outcome.Clear)
            .OrderByDescending(f => f.Outcome)
            .Select(f => new Obstacle(
                f.Outcome == Outcome.Stop ? Obstacles.Stop(f.Check) : Obstacles.Notice(f.Check),
                f.Words
            ));

    /// <summary>
    /// What of it stands in the way of a message of its kind by such rules, the worst first; empty: it may go through.
    /// </summary>
    public ImmutableArray<Obstacle> By(WayRules rules, MessageKind kind = MessageKind.Order)
    {
        ArgumentNullException.ThrowIfNull(rules);
        var stands = InTheWay.Where(o => !rules.LetsPass(o.Code, kind));
        return Sure < rules.LeastSure
            ?
            [
                .. stands,
                new Obstacle(
                    Obstacles.Sure,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Least} is {Sure * 100:0} % sure, {rules.LeastSure * 100:0} % is asked"
                    )
                ),
            ]
            : [.. stands];
    }
}
