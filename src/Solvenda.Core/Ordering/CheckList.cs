using System.Collections.Immutable;
using Solvenda.Core.Ordering.Checks;

namespace Solvenda.Core.Ordering;

/// <summary>The checks that run on every sheet, in the order in which their findings are shown.</summary>
public static class CheckList
{
    /// <summary>All of them, in the order in which they are shown.</summary>
    public static readonly ImmutableArray<ICheck> All =
    [
        new ItemKnown(),
        new PriceKnown(),
        new TaxKnown(),
        new QuantityGiven(),
        new Packing(),
        new UsualQuantity(),
        new OverAgreement(),
        new KindKept(),
        new CallOffRest(),
        new CostCovered(),
        new DangerousByRoad(),
        new MayBeSold(),
        new MayGoThere(),
        new PapersThere(),
        new PriceAsOnPo(),
        new StatedOnPo(),
        new PaidInFull(),
        new RemarksSeenTo(),
        new AsAccepted(),
        new ApprovalGiven(),
        new SentBack(),
        new StockPromised(),
        new DeliveryWindow(),
        new DaysAhead(),
        new LeastValue(),
        new TermsComplete(),
        new FreightKnown(),
        new PoNumber(),
        new Repeat(),
        new CreditLimit(),
        new CustomerReady(),
        new TaxNumberSound(),
        new Reachable(),
        new PlaceSound(),
        new CurrencyKnown(),
        new OwnRules(),
    ];

    /// <summary>
    /// Runs all checks. A waived stop becomes a notice that says who let it pass; a waiver of something else, or of
    /// something less, does not help.
    /// </summary>
    public static ImmutableArray<Finding> Run(CheckFacts facts) =>
        facts.Promised is null
            ? [.. All.SelectMany(c => Of(c, facts)).Select(f => ApplyWaiver(f, facts.Waivers))]
            // What is confirmed is confirmed: nothing stops it any more, and what has come up since is worth knowing.
            :
            [
                .. All.Where(c => c.Goes)
                    .SelectMany(c => Of(c, facts))
                    .Select(f => f with { Outcome = Outcome.Notice, Waive = WaiveBy.Nobody, Cures = [] }),
            ];

    /// <summary>The check of that code; null where there is none.</summary>
    public static ICheck? Find(string code) => All.FirstOrDefault(c => c.Code == code);

    // As the house wants it, where it said so.
    private static IEnumerable<Finding> Of(ICheck check, CheckFacts facts)
    {
        var setting = CheckSetting.For(facts.Settings, check, facts.Document, facts.Sheet.Sheet.Channel);
        var found = check.Run(facts).Where(f => f.Line is not { } line || !facts.Gone.Contains(line));
        return setting is null ? found : found.Select(f => setting.Apply(f, check)).OfType<Finding>();
    }

    private static Finding ApplyWaiver(Finding finding, ImmutableArray<Waiver> waivers)
    {
        if (finding.Outcome != Outcome.Stop || finding.Waive == WaiveBy.Nobody)
            return finding;
        var waiver = waivers.LastOrDefault(w => w.Covers(finding));
        return waiver is null ? finding : finding with { Outcome = Outcome.Notice, Waived = waiver, Cures = [] };
    }
}
