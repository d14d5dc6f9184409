using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// A letter as its words: who it is from, when it was written, and its text with the new part told from the quoted.
/// </summary>
/// <param name="FreshLength">Characters of <paramref name="Text"/> that are new; what follows is quoted history or a
/// signature.</param>
public sealed record Letter(
    string FromAddress,
    string FromName,
    string Subject,
    DateOnly Written,
    string Text,
    int FreshLength
)
{
    /// <summary>A machine sent it by itself (RFC 3834): out of office, a bounce.</summary>
    public bool Automatic { get; init; }

    /// <summary>Who wrote it first, where somebody handed it on; null where nobody did.</summary>
    public Writer? First { get; init; }

    /// <summary>Which part of the message its text is.</summary>
    public int Part { get; init; }
}

/// <summary>Who wrote a letter, as its head names them; both may be empty.</summary>
public sealed record Writer(string Address, string Name);

/// <summary>Tells what is new in a letter from what it quotes and from its signature.</summary>
public static class Letters
{
    // Longer texts below the closing words are no signature, unless what is quoted begins there.
    private const int LongestSignature = 1_500;

    // Thanks are said now and then before the end; so often by nobody.
    private const int MostClosings = 20;

    private static readonly Lazy<Regex> Announces = new(() =>
        new Regex(
            $@"^\s*(?:[-_*=]{{2,}}\s*)?(?:.{{0,160}}\b(?:{Language.AnyOf(Language.All.SelectMany(l => l.Wrote))})\b\s*:?\s*(?:[-_*=]{{2,}}\s*)?$|(?:{Language.AnyOf(Language.All.SelectMany(l => l.From))})\s*:\s.*@)",
            RegexOptions.IgnoreCase | RegexOptions.CultureInvariant | RegexOptions.Multiline,
            TookTooLongException.OfPatterns
        )
    );

    private static readonly Lazy<Regex> Closes = new(() =>
        new Regex(
            $@"^\s*(?:{Language.AnyOf(Language.All.SelectMany(l => l.Closing))})\s*[,.!]*\s*(?:\w+\s*)?[,.!]*\s*$",
            RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
            TookTooLongException.OfPatterns
        )
    );

    /// <summary>
    /// Where the new part ends: at the first quoted line, the line that announces it, a signature mark (RFC 3676, 4.3),
    /// or the words that close a letter.
    /// </summary>
    public static int FreshLength(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var at = 0;
        var (said, closings) = (false, 0);
        foreach (var line in text.Split('\n'))
        {
            if (line.StartsWith('>') || line is "-- " or "--" || (line.Length < 400 && Announces.Value.IsMatch(line)))
                return at;
            at = Math.Min(text.Length, at + line.Length + 1);
            // A forwarded letter begins with thanks and goes on below; only what closes something that was said is an
            // end.
            if (
                said
                && closings < MostClosings
                && line.Length < 80
                && Closes.Value.IsMatch(line)
                && ++closings > 0
                && IsSignature(
                    text[at..Math.Min(text.Length, at + LongestSignature)],
                    at + LongestSignature < text.Length
                )
            )
                return at;
            said |= line.Trim().Length > 0;
        }
        return text.Length;
    }

    /// <summary>Who wrote what is quoted or handed on, by the lines of its head; null where they do not say.</summary>
    public static Writer? WriterIn(string head)
    {
        ArgumentNullException.ThrowIfNull(head);
        return From.Value.Match(head) is { Success: true } m
            ? new Writer(m.Groups["mail"].Value, m.Groups["name"].Value.Trim(' ', '"', '\'', '<', '['))
            : null;
    }

    private static readonly Lazy<Regex> From = new(() =>
        new Regex(
            $@"^\W*(?:{Language.AnyOf(Language.All.SelectMany(l => l.From))})\s*:\s*(?<name>[^\n<\[@]*?)\s*[<\[(]?(?:mailto:)?(?<mail>[\w.+-]+@[\w.-]+\w)",
            RegexOptions.IgnoreCase | RegexOptions.CultureInvariant | RegexOptions.Multiline,
            TookTooLongException.OfPatterns
        )
    );

    /// <summary>The name below the words that close a letter; empty where none stands there.</summary>
    public static (int Start, string Name) SignedBy(string text, int fresh)
    {
        ArgumentNullException.ThrowIfNull(text);
        // The words that close it may themselves be part of what is new, or the last of it.
        var at = text.LastIndexOf('\n', Math.Max(0, Math.Min(fresh, text.Length) - 2)) + 1;
        var closed = false;
        foreach (var line in text[at..].Split('\n').Take(6))
        {
            if (closed && Name.IsMatch(line.Trim()))
                return (at + (line.Length - line.TrimStart().Length), line.Trim());
            if (closed && line.Trim().Length > 0)
                break;
            closed |= line.Length < 80 && Closes.Value.IsMatch(line);
            at += line.Length + 1;
        }
        return (0, "");
    }

    private static readonly Regex Name = new(
        @"^\p{Lu}[\p{L}.'’-]*(?: (?:de|van|von|der|den|la|\p{Lu}[\p{L}.'’-]*)){1,3}$",
        RegexOptions.CultureInvariant,
        TookTooLongException.OfPatterns
    );

    // A name and how to reach them; a postscript is still the letter.
    private static bool IsSignature(string rest, bool goesOn)
    {
        if (goesOn && !rest.Contains('>', StringComparison.Ordinal) && !Announces.Value.IsMatch(rest))
            return false;
        var lines = rest.Split('\n')
            .Select(l => l.Trim())
            .Where(l => l.Length > 0)
            .TakeWhile(l => !l.StartsWith('>') && !Announces.Value.IsMatch(l))
            .Take(11)
            .ToList();
        return lines.Count <= 10
            && !lines.Any(l =>
                l.StartsWith("PS", StringComparison.Ordinal) || l.StartsWith("P.S", StringComparison.Ordinal)
            );
    }
}
