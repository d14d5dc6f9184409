using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Ordering;

namespace Solvenda.Acts.Orders;

/// <summary>What a check found, for machines and in refusals.</summary>
/// <param name="Line">Key of the line; null for the whole.</param>
public sealed record FoundFact(string Check, Outcome Outcome, string Words, long? Line)
{
    /// <summary>
    /// Everything that was found. Of what somebody may not read it says that it is there, and no figure.
    /// </summary>
    public static IReadOnlyList<FoundFact> Of(Judged judged, Actor who)
    {
        ArgumentNullException.ThrowIfNull(judged);
        return [.. judged.Findings.Select(f => Of(f, who))];
    }

    /// <summary>One of them.</summary>
    public static FoundFact Of(Finding finding, Actor who)
    {
        ArgumentNullException.ThrowIfNull(finding);
        return new FoundFact(
            finding.Check,
            finding.Outcome,
            Judged.IsSeenBy(finding, who) ? finding.Words : "Somebody of the house has to look at it first.",
            finding.Line
        );
    }
}
