using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets;

/// <summary>A line over many days.</summary>
public static partial class SheetDoor
{
    // What parts the days, and what stands before the day.
    private const char Between = ';';

    private static bool IsSpread(string field, string value) =>
        field == "wanted" && value.Contains(Between, StringComparison.Ordinal);

    /// <summary>
    /// "20 on 10 dec; 30 on 17 dec": the line for the first day, and one behind it for each other, all of it shared
    /// out.
    /// </summary>
    private static Edited Spread(Draft draft, int at, string value, DoorFacts facts)
    {
        var line = draft.Lines[at];
        var (parts, fault) = PartsOf(value, facts);
        if (fault is null && parts.Sum(p => p.Quantity) != line.Quantity)
            fault = string.Create(
                CultureInfo.InvariantCulture,
                $"The parts come to {parts.Sum(p => p.Quantity):#,0.######}, and the line has {line.Quantity:#,0.######}"
            );
        if (fault is not null || parts.IsEmpty)
            return Refuse(draft, new Refusal("spread", fault ?? "Say how much on which day", "wanted"));
        var done = new Edited(draft, []);
        var behind = line.Key;
        for (var i = parts.Length - 1; i > 0 && done.Refused is null; i--)
        {
            var (quantity, day) = parts[i];
            done = And(
                done,
                now =>
                    Insert(
                        now,
                        line with
                        {
                            Key = now.NextKey,
                            Quantity = quantity,
                            Wanted = day,
                            // What they asked for stands with the first.
                            Asked = AskedFor.Nothing,
                        },
                        behind,
                        facts
                    )
            );
        }
        if (done.Refused is null)
            done = And(
                done,
                now =>
                    PutLine(
                        now,
                        At(now, line.Key),
                        line with
                        {
                            Quantity = parts[0].Quantity,
                            Wanted = parts[0].Day,
                        },
                        facts
                    )
            );
        return done.Refused is null ? done : done with { Draft = draft, Changes = [] };
    }

    // How much on which day; or what cannot be read as that.
    private static (ImmutableArray<(decimal Quantity, DateOnly Day)> Parts, string? Fault) PartsOf(
        string value,
        DoorFacts facts
    )
    {
        var parts = ImmutableArray.CreateBuilder<(decimal, DateOnly)>();
        foreach (
            var piece in value.Split(Between, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
        {
            var words = piece.Split(' ', 2, StringSplitOptions.TrimEntries);
            var day = words.Length < 2 ? "" : words[1];
            if (day.StartsWith("on ", StringComparison.Ordinal))
                day = day[3..];
            if (Numbers.Read(words[0]) is not (> 0 and { } quantity) || Dates.Read(day, facts.Today) is not { } wanted)
                return ([], $"“{piece}” is not a quantity and a day, as 20 on 12 dec");
            parts.Add((quantity, wanted));
        }
        return (parts.ToImmutable(), null);
    }
}
