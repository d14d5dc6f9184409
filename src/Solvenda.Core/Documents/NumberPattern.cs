using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Documents;

/// <summary>
/// How the numbers of a series look: <c>Q{yy}-{00000}</c> gives Q26-00187. Capital letters, digits, points and dashes
/// stand for themselves; <c>{yy}</c> or <c>{yyyy}</c> is the year, and a series that has one begins anew with each;
/// <c>{000}</c> is what counts, with at least so many digits.
/// </summary>
public sealed partial class NumberPattern
{
    /// <summary>The longest number that a pattern may give before its count outgrows its digits.</summary>
    public const int Longest = 20;

    private readonly ImmutableArray<Piece> _pieces;

    private NumberPattern(string text, ImmutableArray<Piece> pieces) => (Text, _pieces) = (text, pieces);

    /// <summary>As it was typed.</summary>
    public string Text { get; }

    /// <summary>Whether its numbers begin anew each year.</summary>
    public bool HasYear => _pieces.Any(p => p.Of == PieceOf.Year);

    /// <summary>A pattern that is known to be one.</summary>
    /// <exception cref="ArgumentException">It is none.</exception>
    public static NumberPattern Of(string text) =>
        Read(text, out var fault) ?? throw new ArgumentException(fault, nameof(text));

    /// <summary>Takes a pattern as typed; null, with what is wrong with it, where it is none.</summary>
    public static NumberPattern? Read(string text, out string fault)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = text.Trim().ToUpperInvariant();
        var whole = Whole().Match(plain);
        if (!whole.Success)
            fault = "A pattern has capital letters, digits, points, dashes, {yy} and one {00000}, as Q{yy}-{00000}";
        else if (!char.IsAsciiLetterUpper(plain[0]))
            fault = "A number begins with a letter, so that nobody reads it as an amount";
        else if (whole.Groups["count"].Captures.Count != 1)
            fault = "A pattern has one {00000} that counts, no more and no fewer";
        else if (whole.Groups["year"].Captures.Count > 1)
            fault = "A pattern has the year once";
        else if (plain.EndsWith('-') || plain.EndsWith('.'))
            fault = "A number ends with a letter or a digit";
        else
        {
            fault = "";
            var pieces = Parts().Matches(plain).Select(m => Piece.From(m.Value)).ToImmutableArray();
            if (pieces.Sum(p => p.Width) <= Longest)
                return new NumberPattern(plain.Replace("{YYYY}", "{yyyy}").Replace("{YY}", "{yy}"), pieces);
            fault = $"A number is at most {Longest} letters long, since other houses keep it too";
        }
        return null;
    }

    /// <summary>A number of the series.</summary>
    /// <param name="count">From 1; it may outgrow its digits.</param>
    public string Format(int year, int count)
    {
        var text = new StringBuilder();
        foreach (var piece in _pieces)
            text.Append(
                piece.Of switch
                {
                    PieceOf.Letters => piece.Text,
                    PieceOf.Year => (piece.Width == 2 ? year % 100 : year).ToString(
                        new string('0', piece.Width),
                        CultureInfo.InvariantCulture
                    ),
                    _ => count.ToString(new string('0', piece.Width), CultureInfo.InvariantCulture),
                }
            );
        return text.ToString();
    }

    /// <summary>What finds its numbers in a text, without the bounds of a word.</summary>
    public string Expression =>
        string.Concat(
            _pieces.Select(p =>
                p.Of switch
                {
                    PieceOf.Letters => Regex.Escape(p.Text),
                    PieceOf.Year => $"[0-9]{{{p.Width}}}",
                    _ => $"[0-9]{{{p.Width},9}}",
                }
            )
        );

    /// <summary>
    /// Whether some number could be of both. Exact: both are walked side by side, letter by letter, where the count of
    /// either may go on for ever.
    /// </summary>
    public bool Meets(NumberPattern other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var (mine, theirs) = (Steps(), other.Steps());
        var seen = new HashSet<(int, int)>();
        var open = new Stack<(int, int)>([(0, 0)]);
        while (open.TryPop(out var at))
        {
            if (!seen.Add(at))
                continue;
            var (a, b) = at;
            if (IsEnd(mine, a) && IsEnd(theirs, b))
                return true;
            foreach (var (x, afterX) in From(mine, a))
            foreach (var (y, afterY) in From(theirs, b))
                if (x == y || (x == Digit && char.IsAsciiDigit(y)) || (y == Digit && char.IsAsciiDigit(x)))
                    open.Push((afterX, afterY));
        }
        return false;
    }

    /// <summary>
    /// Whether a series may go from one to the other and never give a number twice: they have no number in common, or
    /// differ in the digits of the count alone, which goes on.
    /// </summary>
    public bool MayFollow(NumberPattern before)
    {
        ArgumentNullException.ThrowIfNull(before);
        return Counting().Replace(Text, "{0}") == Counting().Replace(before.Text, "{0}") || !Meets(before);
    }

    /// <inheritdoc />
    public override string ToString() => Text;

    private const char Digit = '#';
    private const char More = '+';

    // Each letter of a number, a sharp for any digit, and a plus after the count for digits that may follow it.
    private string Steps() =>
        string.Concat(
            _pieces.Select(p =>
                p.Of switch
                {
                    PieceOf.Letters => p.Text,
                    PieceOf.Year => new string(Digit, p.Width),
                    _ => new string(Digit, p.Width) + More,
                }
            )
        );

    // What may be read at a place, and where that leads.
    private static IEnumerable<(char Letter, int After)> From(string steps, int at)
    {
        if (at < steps.Length && steps[at] == More)
            yield return (Digit, at);
        var next = at < steps.Length && steps[at] == More ? at + 1 : at;
        if (next < steps.Length)
            yield return (steps[next], next + 1);
    }

    private static bool IsEnd(string steps, int at) =>
        at == steps.Length || (at == steps.Length - 1 && steps[at] == More);

    private enum PieceOf
    {
        Letters,
        Year,
        Count,
    }

    private sealed record Piece(PieceOf Of, string Text, int Width)
    {
        internal static Piece From(string part) =>
            part[0] != '{' ? new Piece(PieceOf.Letters, part, part.Length)
            : part[1] == 'Y' ? new Piece(PieceOf.Year, part, part.Length - 2)
            : new Piece(PieceOf.Count, part, part.Length - 2);
    }

    [GeneratedRegex(@"^(?:[A-Z0-9.-]|(?<year>\{YY(?:YY)?\})|(?<count>\{0{1,9}\}))+$")]
    private static partial Regex Whole();

    [GeneratedRegex(@"\{[^}]+\}|[^{]+")]
    private static partial Regex Parts();

    [GeneratedRegex(@"\{0+\}")]
    private static partial Regex Counting();
}
