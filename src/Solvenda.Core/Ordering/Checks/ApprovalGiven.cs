using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Approvals;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>What is beyond the seller's authority has been granted by somebody who may; shown on the lines that cause it.</summary>
public sealed class ApprovalGiven : ICheck
{
    public string Code => "approval";

    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        if (facts.ApprovalState is ApprovalState.NotNeeded)
            yield break;
        var granted = facts.ApprovalState == ApprovalState.Granted;
        var waiting = facts.ApprovalState == ApprovalState.Waiting;
        var approver = facts.Approval.Approver?.Name ?? "nobody on the reporting line";
        var lines = facts.Sheet.Sold.Where(l => l.HasPrice && Beyond(l, facts)).ToList();
        var whole = facts
            .Approval.Fired.Where(f => f.Policy is "value" or "sheet-discount" || lines.Count == 0)
            .Select(f => f.Words)
            .ToList();

        foreach (var line in lines)
        {
            var words = Words(line, facts);
            if (granted)
                yield return new Finding(Code, Outcome.Notice, $"{words} Granted.", line.Line.Key, "discount");
            else if (waiting)
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    $"{words} {approver} has the ask.",
                    line.Line.Key,
                    "discount"
                );
            else
                yield return new Finding(Code, Outcome.Stop, words, line.Line.Key, "discount")
                {
                    Cures = Cures(line, facts, approver),
                };
        }
        foreach (var words in whole)
        {
            var sentence = char.ToUpperInvariant(words[0]) + words[1..] + ".";
            yield return granted
                ? new Finding(Code, Outcome.Notice, $"{sentence} Granted.")
                : new Finding(Code, Outcome.Stop, waiting ? $"{sentence} {approver} has the ask." : sentence)
                {
                    Cures = waiting ? [] : [new Cure("A", $"ask {approver}", "ask", "", "")],
                };
        }
    }

    private static bool Beyond(PricedLine line, CheckFacts facts)
    {
        var of = new SheetFigures(
            line.DiscountPercent,
            0m,
            SheetFigures.MarginOf(line),
            null,
            line.BelowFloor ? 1 : 0,
            0m
        );
        return Policies.All.Any(p => p.Fires(of, facts.SellerAuthority));
    }

    private static string Words(PricedLine line, CheckFacts facts)
    {
        var parts = new List<string>();
        var unit =
            line.Terms.PriceBase == 1m
                ? ""
                : string.Create(CultureInfo.InvariantCulture, $" per {line.Terms.PriceBase:0.##}");
        if (line.BelowFloor && line.Floor is { } floor)
            parts.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"under the floor by {floor - line.Figures.NetPrice:0.00##}{unit}"
                )
            );
        var over = line.DiscountPercent - (facts.SellerAuthority.DiscountPercent ?? 0m);
        if (line.DiscountPercent > 0 && over > 0)
            parts.Add(string.Create(CultureInfo.InvariantCulture, $"{over:0.##} % more than you may give"));
        if (parts.Count == 0 && SheetFigures.MarginOf(line) is { } margin)
            parts.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"margin {margin:0.0} % is under the {facts.SellerAuthority.LeastMarginPercent ?? 100m:0.##} % that you may go to"
                )
            );
        var text = string.Join(", and ", parts);
        return char.ToUpperInvariant(text[0]) + text[1..] + ".";
    }

    private static ImmutableArray<Cure> Cures(PricedLine line, CheckFacts facts, string approver)
    {
        var cures = ImmutableArray.CreateBuilder<Cure>();
        if (line.BelowFloor && line.Floor is { } floor && floor <= (line.Terms.Base ?? 0m))
        {
            var text = floor.ToString("0.0000", CultureInfo.InvariantCulture);
            cures.Add(new Cure("F", $"to the floor, {text}", "set", "net", text));
        }
        if (facts.LineHeadroom.TryGetValue(line.Line.Key, out var room) && room is { } most)
        {
            var text = most.ToString("0.##", CultureInfo.InvariantCulture);
            cures.Add(new Cure("Y", $"{text} %, yours to give", "set", "discount", text));
        }
        cures.Add(new Cure("A", $"ask {approver}", "ask", "", ""));
        return cures.ToImmutable();
    }
}
