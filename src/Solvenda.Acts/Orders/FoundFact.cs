using Solvenda.Acts.Sheets;
using Solvenda.Core.Ordering;

namespace Solvenda.Acts.Orders;

/// <summary>What a check found, as a refusal carries it.</summary>
/// <param name="Line">Key of the line; null for the whole.</param>
public sealed record FoundFact(string Check, Outcome Outcome, string Words, long? Line)
{
    /// <summary>Everything that was found.</summary>
    public static IReadOnlyList<FoundFact> Of(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        return [.. judged.Findings.Select(f => new FoundFact(f.Check, f.Outcome, f.Words, f.Line))];
    }
}
