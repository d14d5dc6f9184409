using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What is beyond the authority of the hands that typed it has been granted by somebody who may; shown on the lines and
/// terms that cause it.
/// </summary>
public sealed class ApprovalGiven : ICheck
{
    private static readonly ImmutableHashSet<string> OfLines = [.. FigureList.OfLines.Select(f => f.Code)];

    /// <inheritdoc />
    public string Code => "approval";

    /// <inheritdoc />
    public string Does => "what is beyond somebody’s authority was granted";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return facts.Approval.Needs.Select(WithoutCredit).Where(n => !n.Policies.IsEmpty).SelectMany(n => Of(n, facts));
    }

    // What the buyer owes is for the check of credit to say.
    private static HandNeed WithoutCredit(HandNeed need) =>
        need with
        {
            Policies = [.. need.Policies.Where(p => FigureList.Of(p.Policy.Figure) is not CreditFigure)],
        };

    private IEnumerable<Finding> Of(HandNeed need, CheckFacts facts)
    {
        // Lines are shown where a policy on lines asks about them; another one's need is not theirs.
        List<PricedLine> lines = need.Fired.Any(f => OfLines.Contains(f.Figure))
            ? [.. need.Lines.Where(l => !Headroom.Allows(need.Authority, LineMoney.Of(l)))]
            : [];
        foreach (var line in lines)
            yield return Finding(
                need,
                Words(line, need, facts),
                line.Line.Key,
                "discount",
                () => Cures(line, need, facts)
            );
        foreach (var fired in need.Fired.Where(f => lines.Count == 0 || !OfLines.Contains(f.Figure)))
        {
            var sentence = char.ToUpperInvariant(fired.Words[0]) + fired.Words[1..] + ".";
            var field = FigureList.OfTerms.FirstOrDefault(f => f.Code == fired.Figure)?.Term ?? "";
            yield return Finding(need, sentence, null, field, () => [Ask(need)]);
        }
    }

    private Finding Finding(HandNeed need, string words, long? line, string field, Func<ImmutableArray<Cure>> cures) =>
        Found(need, words, line, field, cures) with
        {
            IsAsked = true,
        };

    private Finding Found(HandNeed need, string words, long? line, string field, Func<ImmutableArray<Cure>> cures) =>
        need.State switch
        {
            ApprovalState.Granted => new Finding(Code, Outcome.Notice, $"{words} Granted.", line, field),
            ApprovalState.Waiting => new Finding(
                Code,
                Outcome.Stop,
                $"{words} {Approver(need)} has the ask.",
                line,
                field
            ),
            _ => new Finding(Code, Outcome.Stop, words, line, field) { Cures = cures() },
        };

    private static string Approver(HandNeed need)
    {
        var asked = need.Asked.ToList();
        return asked.Contains(null) ? "nobody on the reporting line" : string.Join(" and ", asked);
    }

    private static Cure Ask(HandNeed need) => new("A", $"ask {Approver(need)}", "ask", "", "");

    private static string Words(PricedLine line, HandNeed need, CheckFacts facts)
    {
        var mine = need.Hand.IsSame(facts.Me);
        var (you, yours) = mine ? ("you", "you may go to") : (need.Hand.Name, $"{need.Hand.Name} may go to");
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
        var over = line.DiscountPercent - (need.Authority.DiscountPercent ?? 0m);
        if (line.DiscountPercent > 0 && over > 0)
            parts.Add(string.Create(CultureInfo.InvariantCulture, $"{over:0.##} % more than {you} may give"));
        if (parts.Count == 0 && LineMoney.Of(line).MarginPercent is { } margin)
            parts.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"margin {margin:0.0} % is under the {need.Authority.LeastMarginPercent ?? 100m:0.##} % that {yours}"
                )
            );
        var text = string.Join(", and ", parts);
        return char.ToUpperInvariant(text[0]) + text[1..] + ".";
    }

    private static ImmutableArray<Cure> Cures(PricedLine line, HandNeed need, CheckFacts facts)
    {
        // What is given away has no price to put right: it is granted, or it is another kind of order.
        if (facts.Sheet.Sheet.Kind.IsFree)
            return [Ask(need)];
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
        cures.Add(Ask(need));
        return cures.ToImmutable();
    }
}
