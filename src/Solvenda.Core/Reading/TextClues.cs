using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>What stands in a text that a buyer may be known by: mail addresses, GLNs, tax numbers, names.</summary>
public static partial class TextClues
{
    // A short name stands in too many texts by chance.
    private const int ShortestName = 6;

    /// <param name="named">What a name counts as: "name" on a printed order, "text" in a letter, where others are named
    /// too.</param>
    public static IEnumerable<Clue> Of(string text, int part, string named, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(context);
        var read = text.Length > TextReader.LongestRead ? text[..TextReader.LongestRead] : text;
        foreach (var (kind, pattern) in new[] { ("mail", MailAddress()), ("gln", Gln()), ("tax", TaxNumber()) })
        {
            foreach (Match m in pattern.Matches(read))
                yield return new Clue(
                    kind,
                    m.Value.Replace(" ", "", StringComparison.Ordinal),
                    [new Evidence(part, m.Index, m.Length)]
                );
        }
        foreach (var (_, name) in context.BuyerNames.Where(b => b.Value.Length >= ShortestName))
        {
            if (read.IndexOf(name, StringComparison.OrdinalIgnoreCase) is >= 0 and var at)
                yield return new Clue(named, name, [new Evidence(part, at, name.Length)]);
        }
    }

    [GeneratedRegex(@"[\w.+-]+@[\w-]+(?:\.[\w-]+)+", RegexOptions.CultureInvariant)]
    private static partial Regex MailAddress();

    [GeneratedRegex(@"(?<!\d)\d{13}(?!\d)")]
    private static partial Regex Gln();

    [GeneratedRegex(
        @"\b(?:AT ?U|BE ?0?|DE ?|DK ?|ES ?[A-Z]?|FI ?|FR ?|GB ?|IE ?|NL ?|NO ?|PL ?|SE ?)\d[\dA-Z ]{6,13}\d?[A-Z0-9]{0,3}\b",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex TaxNumber();
}
