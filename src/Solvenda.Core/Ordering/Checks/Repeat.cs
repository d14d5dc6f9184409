using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The same buyer sent the same items and quantities within the last days under another PO number, or none: it may be a
/// repeat.
/// </summary>
public sealed class Repeat : ICheck
{
    /// <summary>Days within which the same lines are suspicious.</summary>
    public const int WithinDays = 10;

    /// <inheritdoc />
    public string Code => "repeat";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        var like = facts.Earlier.Where(e => !e.SamePo).ToList();
        if (facts.Document == DocumentKind.Order && like.Count > 0)
        {
            yield return new Finding(
                Code,
                Outcome.Notice,
                $"The same lines came within {WithinDays} days: {string.Join(", ", like.Select(e => e.Number))}. It may be a repeat."
            )
            {
                Documents = [.. like.Select(e => e.Document)],
            };
        }
    }
}
