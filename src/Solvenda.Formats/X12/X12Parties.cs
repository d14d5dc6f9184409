using System.Collections.Immutable;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>Who an X12 order is from and where its goods go (loop of N1).</summary>
internal static class X12Parties
{
    /// <summary>What tells the buyer: the interchange's sender, numbers, names and mail address.</summary>
    public static ImmutableArray<Clue> Clues(EdiInterchange interchange, List<Segment> set, Segment? contact)
    {
        var clues = ImmutableArray.CreateBuilder<Clue>();
        clues.Add(new Clue("partner", interchange.Sender, [EdiInterchange.Where(interchange.Segments[0], 6)]));
        if (contact is not null && contact[3] == "EM" && contact[4].Trim() is { Length: > 0 } mail)
            clues.Add(new Clue("mail", mail, [EdiInterchange.Where(contact, 4)]));
        foreach (var party in set.Where(s => s.Is("N1") && s[1] is "BY" or "BT" or "OB"))
        {
            if (party[3] == "UL" && party[4].Length > 0)
                clues.Add(new Clue("gln", party[4].Trim(), [EdiInterchange.Where(party, 4)]));
            if (party[2].Trim() is { Length: > 0 } name)
                clues.Add(new Clue("name", name, [EdiInterchange.Where(party, 2)]));
        }
        return clues.ToImmutable();
    }

    /// <summary>The deliver-to of the N1 loop, with its N2, N3 and N4, as words; its country where given.</summary>
    public static (Stated<string>? Words, string? Country) DeliverTo(List<Segment> head)
    {
        var n1 = head.FindIndex(s => s.Is("N1") && s[1] == "ST");
        if (n1 < 0)
            return (null, null);
        var loop = head.Skip(n1 + 1).TakeWhile(s => s.Tag is "N2" or "N3" or "N4").ToList();
        var town = loop.FirstOrDefault(s => s.Is("N4"));
        var country = town?[4].Trim();
        var parts = loop.Where(s => s.Tag is "N2" or "N3")
            .SelectMany(s => new[] { s[1].Trim(), s[2].Trim() })
            .Append(
                town is null
                    ? ""
                    : string.Join(
                        ' ',
                        new[] { town[1], town[2], town[3] }.Select(p => p.Trim()).Where(p => p.Length > 0)
                    )
            );
        var text = string.Join(", ", parts.Prepend(head[n1][2].Trim()).Append(country ?? "").Where(p => p.Length > 0));
        var last = loop.Count > 0 ? loop[^1] : head[n1];
        return text.Length == 0
            ? (null, null)
            : (
                new Stated<string>(text, new Evidence(0, head[n1].Start, last.Start + last.Length - head[n1].Start)),
                CountryOf(country)
            );
    }

    // Two letters as in ISO 3166-1; the three-letter form of the United States is common.
    private static string? CountryOf(string? code) =>
        code switch
        {
            { Length: 2 } => code.ToUpperInvariant(),
            "USA" => "US",
            _ => null,
        };
}
