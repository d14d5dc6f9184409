using System.Globalization;
using Solvenda.Core.Calendars;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>The days on which goods are wanted lie ahead, and are days on which they are taken in.</summary>
public sealed class DaysAhead : ICheck
{
    /// <inheritdoc />
    public string Code => "days";

    /// <inheritdoc />
    public string Does => "wanted days lie ahead, and are no weekend";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order || facts.Today == default)
            yield break;
        var days = facts
            .Sheet.Sold.Where(l => l.Line.Wanted is not null)
            .Select(l => (Line: (long?)l.Line.Key, Day: l.Line.Wanted!.Value))
            .ToList();
        if (HeadTerms.Wanted.Day(facts.Head) is { } head)
            days.Insert(0, (null, head));
        foreach (var (line, day) in days)
        {
            if (day < facts.Today)
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    $"Wanted by {Say(day)}, which is over.",
                    line,
                    HeadTerms.Wanted.Name,
                    WaiveBy.Writer,
                    $"over/{Say(day)}"
                )
                {
                    Cures = line is null ? [new Cure("D", "say another day", "focus", HeadTerms.Wanted.Name, "")] : [],
                };
            else if (!WorkCalendar.MondayToFriday.Works(day))
                yield return new Finding(
                    Code,
                    Outcome.Notice,
                    $"{Say(day)} is a {day.DayOfWeek}.",
                    line,
                    HeadTerms.Wanted.Name
                );
        }
    }

    private static string Say(DateOnly day) => day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);
}
