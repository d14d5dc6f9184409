using System.Collections.Immutable;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The same buyer sent the same items and quantities within the last days under another PO number, or none: it may be a
/// repeat.
/// </summary>
public sealed class Repeat : ICheck
{
    /// <summary>Days within which the same lines are suspicious, where nobody says otherwise.</summary>
    public const int WithinDays = 10;

    /// <summary>The longest that may be looked back.</summary>
    public const int MostDays = 90;

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers => [new("days", "days looked back", WithinDays, 1, MostDays)];

    /// <inheritdoc />
    public string Code => "repeat";

    /// <inheritdoc />
    public string Does => "the same lines did not come a few days ago";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        var days = (int)facts.Number(this, "days");
        var like = facts.Earlier.Where(e => !e.SamePo && facts.Begun.DayNumber - e.Day.DayNumber <= days).ToList();
        if (facts.Document == DocumentKind.Order && like.Count > 0)
        {
            yield return new Finding(
                Code,
                Outcome.Notice,
                $"The same lines came within {days} days: {string.Join(", ", like.Select(e => e.Number))}. It may be a repeat."
            )
            {
                Documents = [.. like.Select(e => e.Document)],
            };
        }
    }
}
