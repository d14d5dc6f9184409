using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>How an own field is typed.</summary>
public enum OwnType
{
    /// <summary>A few words.</summary>
    Text,

    /// <summary>A number, up to six decimals.</summary>
    Number,

    /// <summary>A day.</summary>
    Date,

    /// <summary>One of a few words that the house named.</summary>
    Choice,
}

/// <summary>A field that the house made for itself, on a buyer, an item, a quote or an order.</summary>
/// <param name="Label">What it is called: small letters, digits and blanks. It stays, since values are kept under
/// it.</param>
/// <param name="Choices">What there is to choose from; empty for other types.</param>
/// <param name="OnPaper">Whether documents print it.</param>
public sealed partial record OwnField(
    string Label,
    OwnType Type,
    ImmutableArray<string> Choices,
    bool OnPaper = false,
    string Hint = ""
)
{
    /// <summary>The longest name, and the longest choice, in letters.</summary>
    public const int MostLetters = 40;

    /// <summary>The longest text of one, in letters.</summary>
    public const int MostText = 200;

    /// <summary>The largest number of one, either way.</summary>
    public const decimal MostNumber = 1_000_000_000m;

    // No field of the product's own begins so.
    private const string Prefix = "own-";

    /// <summary>By which it is asked for; part of the API: own-cost-centre.</summary>
    public string Name => Prefix + Label.Replace(' ', '-');

    /// <summary>Whether a name is that of an own field.</summary>
    public static bool Is(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return name.StartsWith(Prefix, StringComparison.Ordinal);
    }

    /// <summary>What a field of that name is called, also where it is no longer there.</summary>
    public static string LabelOf(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return name[Prefix.Length..].Replace('-', ' ');
    }

    /// <summary>What is wrong with a name; null where nothing is.</summary>
    public static string? Fault(string label) =>
        Called().IsMatch(label)
            ? null
            : $"a field is called by at most {MostLetters} small letters, digits and blanks, a letter first";

    /// <summary>Takes a text that is not empty.</summary>
    /// <param name="today">For days as people say them; null: as 2026-12-31 alone.</param>
    public Taken Read(string text, DateOnly? today)
    {
        ArgumentNullException.ThrowIfNull(text);
        return Type switch
        {
            OwnType.Number => Numbers.Read(text) is not { } number ? No("number", $"“{text}” is not a number")
            : Math.Abs(number) > MostNumber ? No("number", "a number is at most a billion")
            : new Taken(HeadTerms.Canonical(decimal.Round(number, 6))),
            OwnType.Date => DayOf(text, today) is { } day
                ? new Taken(day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))
                : No("date", $"“{text}” is not a date"),
            OwnType.Choice => Choices.FirstOrDefault(c => string.Equals(c, text, StringComparison.OrdinalIgnoreCase))
                is { } choice
                ? new Taken(choice)
                : No("choice", $"“{text}” is none of {string.Join(", ", Choices)}"),
            _ => text.Length > MostText ? No("too_long", $"that is longer than {MostText} letters")
            : text.Any(char.IsControl) ? No("too_long", "that has more than one line")
            : new Taken(text),
        };
    }

    /// <summary>As a term on the head of quotes, or of orders.</summary>
    public HeadTerm Term(DocumentKind of) =>
        new(
            Name,
            Label,
            Type switch
            {
                OwnType.Date => TermKind.Date,
                OwnType.Choice => TermKind.Choice,
                _ => TermKind.Text,
            },
            (text, facts) => Read(text, facts.Today)
        )
        {
            Only = of,
            Choices = Type == OwnType.Choice ? _ => Choices.Select(c => new TermChoice(c, c)) : null,
        };

    private static DateOnly? DayOf(string text, DateOnly? today) =>
        today is { } day ? Dates.Read(text, day)
        : DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var exact)
            ? exact
        : null;

    private static Taken No(string code, string words) =>
        new(null, new Refusal(code, char.ToUpperInvariant(words[0]) + words[1..]));

    [GeneratedRegex(@"^[a-z][a-z0-9 ]{0,39}$")]
    private static partial Regex Called();
}
