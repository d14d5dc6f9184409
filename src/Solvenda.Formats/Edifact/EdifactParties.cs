using System.Collections.Immutable;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>Who an EDIFACT order is from and where its goods go (segment group of NAD).</summary>
internal static class EdifactParties
{
    // Parties that goods go to (3035), the one that counts first.
    private static readonly string[] Consignees = ["DP", "ST", "UC", "CN"];

    /// <summary>What tells the buyer: the interchange's sender, numbers, names, tax number and mail address.</summary>
    public static ImmutableArray<Clue> Clues(EdiInterchange interchange, List<Segment> head)
    {
        var clues = ImmutableArray.CreateBuilder<Clue>();
        var sender = interchange.Segments[0];
        clues.Add(
            new Clue(
                interchange.SenderQualifier == "14" && interchange.Sender.Length == 13 ? "gln" : "partner",
                interchange.Sender,
                [EdiInterchange.Where(sender, 2, 1)]
            )
        );
        var inBuyer = false;
        foreach (var s in head)
        {
            if (s.Is("NAD"))
            {
                inBuyer = s[1, 1] is "BY" or "IV" or "OB" or "PR";
                if (!inBuyer)
                    continue;
                if (s[2, 1].Length > 0)
                    clues.Add(
                        new Clue(
                            s[2, 3] == "9" || s[2, 1].Length == 13 ? "gln" : "partner",
                            s[2, 1],
                            [EdiInterchange.Where(s, 2, 1)]
                        )
                    );
                if (Name(s) is { Length: > 0 } name)
                    clues.Add(new Clue("name", name, [EdiInterchange.Where(s)]));
            }
            else if (s.Is("RFF") && s[1, 1] == "VA")
                clues.Add(new Clue("tax", s[1, 2], [EdiInterchange.Where(s, 1, 2)]));
            else if (inBuyer && s.Is("COM") && s[1, 2] == "EM")
                clues.Add(new Clue("mail", s[1, 1], [EdiInterchange.Where(s, 1, 1)]));
        }
        return clues.ToImmutable();
    }

    /// <summary>Where the goods go, as words, and its country as of ISO 3166-1 where it is given.</summary>
    public static (Stated<string>? Words, string? Country) DeliverTo(List<Segment> head)
    {
        var nad = Consignees
            .Select(q => head.FirstOrDefault(s => s.Is("NAD") && s[1, 1] == q))
            .FirstOrDefault(s => s is not null);
        if (nad is null)
            return (null, null);
        var street = string.Join(' ', Enumerable.Range(1, 4).Select(c => nad[5, c]).Where(t => t.Length > 0));
        var parts = new[]
        {
            Name(nad),
            street,
            string.Join(' ', new[] { nad[8, 1], nad[6, 1] }.Where(t => t.Length > 0)),
            nad[9, 1],
        }
            .Where(t => t.Length > 0)
            .ToList();
        // Only a GLN: the place behind the number is for the buyer's addresses to tell.
        var text =
            parts.Count > 0 ? string.Join(", ", parts)
            : nad[2, 1].Length > 0 ? $"GLN {nad[2, 1]}"
            : "";
        return text.Length == 0
            ? (null, null)
            : (
                new Stated<string>(text, EdiInterchange.Where(nad)),
                nad[9, 1].Length == 2 ? nad[9, 1].ToUpperInvariant() : null
            );
    }

    // C080, or C058 where only free text was given.
    private static string Name(Segment nad)
    {
        var element = nad[4, 1].Length > 0 ? 4 : 3;
        return string.Join(' ', Enumerable.Range(1, 5).Select(c => nad[element, c]).Where(t => t.Length > 0));
    }
}
