using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// The words of one language that reading goes by: numbers, units, days, what asks for a price, what columns are
/// called, what things are called in ours.
/// One file each in Languages/; a language is added by adding its file.
/// </summary>
public sealed class Language
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = System.Text.Json.Serialization.JsonUnmappedMemberHandling.Disallow,
    };

    private HashSet<string>? _idle;

    /// <summary>ISO 639-1, as the file is called.</summary>
    public string Code { get; private set; } = "";

    /// <summary>What its speakers call it.</summary>
    public required string Name { get; init; }

    /// <summary>Number words, with dozens.</summary>
    public required Dictionary<string, decimal> Numbers { get; init; }

    /// <summary>What joins the parts of a number: a hundred and twenty.</summary>
    public required string[] NumberJoints { get; init; }

    /// <summary>Words for inches.</summary>
    public required string[] Inches { get; init; }

    /// <summary>Between the least and the most that somebody takes: 8 to 10.</summary>
    public required string[] UpTo { get; init; }

    /// <summary>Behind a number: so many of what was spoken of before.</summary>
    public required string[] Them { get; init; }

    /// <summary>What stands for the thing of the line before.</summary>
    public required string[] Same { get; init; }

    /// <summary>What our own words call colours: in English only.</summary>
    public string[] Colours { get; init; } = [];

    /// <summary>Words for units, and their code in UN/ECE Rec 20.</summary>
    public required Dictionary<string, string> Units { get; init; }

    /// <summary>What multiplies a number in front of it: 3 dozen.</summary>
    public required Dictionary<string, decimal> Groups { get; init; }

    /// <summary>Words for lengths that a quantity is cut into.</summary>
    public required string[] Lengths { get; init; }

    /// <summary>Behind a number that is part of a name: three-strand.</summary>
    public required string[] Strand { get; init; }

    /// <summary>Between "our PO" and its number.</summary>
    public required string[] Is { get; init; }

    /// <summary>What stands for a quantity that only history tells.</summary>
    public required string[] Usual { get; init; }

    /// <summary>Monday first.</summary>
    public required string[] Days { get; init; }

    /// <summary>Names of the months, January first.</summary>
    public required string[] Months { get; init; }

    /// <summary>Words for a week.</summary>
    public required string[] Week { get; init; }

    /// <summary>Words for the next one.</summary>
    public required string[] Next { get; init; }

    /// <summary>Behind a weekday: the one a week later.</summary>
    public required string[] WeekAfter { get; init; }

    /// <summary>Days from the day of the message.</summary>
    public required Dictionary<string, int> Relative { get; init; }

    /// <summary>Days in a span: within 3 weeks.</summary>
    public required Dictionary<string, int> Spans { get; init; }

    /// <summary>Words before a span of days.</summary>
    public required string[] Within { get; init; }

    /// <summary>Words for the end of a month or week.</summary>
    public required string[] EndOf { get; init; }

    /// <summary>Words for the middle of a month or week.</summary>
    public required string[] MiddleOf { get; init; }

    /// <summary>What comes before a date that something is wanted by.</summary>
    public required string[] By { get; init; }

    /// <summary>What comes before the date of the message itself.</summary>
    public required string[] Dated { get; init; }

    /// <summary>Words of an order.</summary>
    public required string[] Order { get; init; }

    /// <summary>Words of a request for a price.</summary>
    public required string[] Quote { get; init; }

    /// <summary>Of these, what names a quote that there is already: "order as per your quote" asks for none.</summary>
    public required string[] QuoteNoun { get; init; }

    /// <summary>Words of a change.</summary>
    public required string[] Change { get; init; }

    /// <summary>Words of a cancellation.</summary>
    public required string[] Cancel { get; init; }

    /// <summary>Says yes to a quote of ours.</summary>
    public required string[] Accept { get; init; }

    /// <summary>Words of goods that are to go back.</summary>
    public required string[] Returns { get; init; }

    /// <summary>Words of somebody who waits for what was ordered.</summary>
    public required string[] Reminders { get; init; }

    /// <summary>Words of something that was not as it should be.</summary>
    public required string[] Complaints { get; init; }

    /// <summary>Words before a number of something that is over: last time under PO 881.</summary>
    public required string[] Past { get; init; }

    /// <summary>Says that it is no order.</summary>
    public required string[] NoOrder { get; init; }

    /// <summary>Words before a number that only names something: gate code 4471, berth 12.</summary>
    public required string[] Naming { get; init; }

    /// <summary>Words of what is no business of the desk.</summary>
    public required string[] NotForUs { get; init; }

    /// <summary>What comes before the buyer's order number.</summary>
    public required string[] Po { get; init; }

    /// <summary>What comes before the number that a request for prices calls itself by.</summary>
    public required string[] Reference { get; init; }

    /// <summary>Words before who writes.</summary>
    public required string[] Contact { get; init; }

    /// <summary>Words before where goods go.</summary>
    public required string[] DeliverTo { get; init; }

    /// <summary>Words before terms of payment.</summary>
    public required string[] Payment { get; init; }

    /// <summary>Words before a total.</summary>
    public required string[] Total { get; init; }

    /// <summary>What comes before a price.</summary>
    public required string[] At { get; init; }

    /// <summary>Words between two things.</summary>
    public required string[] And { get; init; }

    /// <summary>What ends the words for a thing.</summary>
    public required string[] Stop { get; init; }

    /// <summary>What begins the end of a letter.</summary>
    public required string[] Closing { get; init; }

    /// <summary>In the line that announces what is quoted.</summary>
    public required string[] Wrote { get; init; }

    /// <summary>Words of the head of a mail that is quoted: from.</summary>
    public required string[] From { get; init; }

    /// <summary>Words that say nothing about a thing.</summary>
    public required string[] Idle { get; init; }

    /// <summary>What things are called, and what our words call them.</summary>
    public required Dictionary<string, string> Words { get; init; }

    /// <summary>What columns are called, by what they mean.</summary>
    public required Dictionary<string, string[]> Heads { get; init; }

    /// <summary>Words before a thing that is wanted, and nobody says how many: some shackles.</summary>
    public required string[] Some { get; init; }

    /// <summary>Last words of a question about another quantity: what at 1,000 m instead?</summary>
    public required string[] Instead { get; init; }

    /// <summary>Words of what is asked beside the goods, by its kind: delivery, printed, certificate.</summary>
    public required Dictionary<string, string[]> Remarks { get; init; }

    /// <summary>All languages that are read.</summary>
    public static ImmutableArray<Language> All { get; } = [.. Load()];

    /// <summary>English, which everything falls back to.</summary>
    public static Language English { get; } = All.First(l => l.Code == "en");

    /// <summary>A regular expression for inches, in any language or as the sign; without groups.</summary>
    public static string InchPattern { get; } = $@"(?:[""\u2033]|(?:{AnyOf(All.SelectMany(l => l.Inches))})(?!\w))";

    // A coil in one language, a thing in another: "12 ring bolts".
    private static readonly HashSet<string> Things = ["ring", "ringe", "pies"];

    /// <summary>
    /// Words for units that are long enough to be no other word: they count whatever language a letter seems to be in.
    /// </summary>
    public static ImmutableDictionary<string, string> UnitsOfAny { get; } =
        All.SelectMany(l => l.Units)
            .Where(u =>
                u.Key.Length >= LongUnit
                && !Things.Contains(u.Key)
                && !All.Any(l => l.Groups.ContainsKey(u.Key) || l.Words.ContainsKey(u.Key) || l.Idle.Contains(u.Key))
            )
            .GroupBy(u => u.Key)
            .Where(g => g.DistinctBy(u => u.Value).Count() == 1)
            .ToImmutableDictionary(g => g.Key, g => g.First().Value);

    private const int LongUnit = 4;

    /// <summary>Whether a word says nothing about an item.</summary>
    public bool IsIdle(string word) => (_idle ??= [.. Idle]).Contains(word);

    /// <summary>The language a text is in, by its idle words; English where nothing tells.</summary>
    public static Language Of(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var scores = new int[All.Length];
        foreach (
            var word in text.ToLower(CultureInfo.InvariantCulture)
                .Split(WordEnds, 2_001, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Take(2_000)
        )
        {
            if (!Telling.Value.TryGetValue(word, out var points))
                continue;
            for (var i = 0; i < scores.Length; i++)
                scores[i] += points[i];
        }
        return All.Select((l, i) => (Language: l, Score: scores[i]))
            .OrderByDescending(x => x.Score)
            .ThenBy(x => x.Language.Code == "en" ? 0 : 1)
            .First()
            .Language;
    }

    private static readonly char[] WordEnds = [' ', '\n', '\t', ',', '.', ':', ';', '?', '!', '(', ')'];

    // What each word says for each language of All. Words for things, days and greetings tell too, where a letter has
    // hardly any sentence.
    private static readonly Lazy<Dictionary<string, int[]>> Telling = new(() =>
    {
        var telling = new Dictionary<string, int[]>();
        for (var i = 0; i < All.Length; i++)
        {
            var l = All[i];
            var once = l.Units.Keys.Where(u => u.Length > 3).Concat(l.Words.Keys).Concat(l.Order).Concat(l.Quote);
            foreach (var word in once.Concat(l.Days).ToHashSet())
                Points(word)[i] = 1;
            foreach (var word in l.Idle)
                Points(word)[i] |= 2;
        }
        return telling;

        int[] Points(string word) =>
            telling.TryGetValue(word, out var points) ? points : telling[word] = new int[All.Length];
    });

    /// <summary>Any of the words, as a whole one, the longest first; for a regular expression.</summary>
    public static string AnyOf(IEnumerable<string> words) =>
        string.Join(
            '|',
            words
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .OrderByDescending(w => w.Length)
                .Select(w => Regex.Escape(w).Replace("\\ ", @"\s+", StringComparison.Ordinal))
        );

    /// <summary>Whether the text says one of such words, in this language or in English.</summary>
    /// <param name="of">A lambda that holds nothing: the words are looked up once for each place in the code.</param>
    public bool Says(string text, Func<Language, string[]> of) =>
        Sayings.GetOrAdd((Code, of), _ => new Phrases(of(this).Concat(of(English)))).In(text);

    private static readonly ConcurrentDictionary<(string, Func<Language, string[]>), Phrases> Sayings = new();

    private static IEnumerable<Language> Load()
    {
        var assembly = typeof(Language).Assembly;
        foreach (
            var name in assembly
                .GetManifestResourceNames()
                .Where(n => n.Contains(".Languages.", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            using var stream = assembly.GetManifestResourceStream(name)!;
            var language = JsonSerializer.Deserialize<Language>(stream, Json)!;
            language.Code = name.Split('.')[^2];
            yield return language;
        }
    }
}
