using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Reading;

/// <summary>
/// Finds items by code, GTIN or words in any order and any language of <see cref="Language"/>. Sizes are compared as
/// sizes: 10 mm is not 100 mm, and an item of another size is no candidate.
/// Words are weighed by how rare they are over the catalogue; slips of a letter and words written together are
/// forgiven.
/// </summary>
public sealed class ItemFinder
{
    // What a word that nothing in the catalogue is called by counts against a match.
    private const double UnknownWeight = 2;

    // A word that was only guessed (a slip forgiven) counts less than one that stands there.
    private const double GuessedShare = 0.85;

    private const int EnoughNamed = 2_000;

    private readonly Dictionary<string, int> _tokens = new(StringComparer.Ordinal);
    private readonly List<List<int>> _postings = [];
    private readonly List<Indexed> _items = [];
    private readonly Dictionary<string, Item> _byCode = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Item> _byGtin = new(StringComparer.Ordinal);
    private readonly Dictionary<ItemId, Item> _byId = [];
    private readonly double[] _weights;

    private sealed class Indexed
    {
        public required Item Item { get; init; }

        /// <summary>Tokens of our own words; those of other languages find it too, and are not missed.</summary>
        public required int[] Own { get; init; }
        public required string[] Sizes { get; init; }
        public double Total { get; set; }
    }

    /// <summary>Indexes items by their codes and words.</summary>
    public ItemFinder(IEnumerable<Item> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        foreach (var item in items)
        {
            _byCode[Bare(item.Code)] = item;
            _byId[item.Id] = item;
            if (item.Gtin is { } gtin)
                _byGtin[gtin.TrimStart('0')] = item;
            if (!item.Active)
                continue;
            var own = Words(item.Words).Select(Token).Distinct().ToArray();
            foreach (var token in own.Concat(Words(item.WordsElsewhere).Select(Token)).Distinct())
                _postings[token].Add(_items.Count);
            _items.Add(
                new Indexed
                {
                    Item = item,
                    Own = own,
                    Sizes = [.. ItemWords.Split(item.Words).Where(t => ItemWords.IsSize(t)).Distinct()],
                }
            );
        }
        _weights = [.. _postings.Select(p => 1 + Math.Log((_items.Count + 1) / (double)Math.Max(1, p.Count)))];
        foreach (var item in _items)
            item.Total = item.Own.Sum(t => _weights[t]);
    }

    /// <summary>By our code (dashes and case aside) or GTIN (leading zeros aside); null where neither fits.</summary>
    public Item? ByCode(string code)
    {
        ArgumentNullException.ThrowIfNull(code);
        var bare = Bare(code);
        return bare.Length == 0
            ? null
            : _byCode.GetValueOrDefault(bare)
                ?? (
                    bare.Length >= 8 && bare.All(char.IsAsciiDigit)
                        ? _byGtin.GetValueOrDefault(bare.TrimStart('0'))
                        : null
                );
    }

    /// <summary>The item of that key; null where there is none.</summary>
    public Item? ById(ItemId id) => _byId.GetValueOrDefault(id);

    /// <summary>Whether things in the catalogue are called by this word, in whichever language.</summary>
    public bool Knows(string word, Language? language = null) =>
        Resolve(word.ToLower(CultureInfo.InvariantCulture), language).Any(t => t.Known);

    /// <summary>
    /// The best candidates, best first. Two with nearly the same score are a near tie, which the caller must not settle
    /// silently.
    /// </summary>
    /// <param name="boost">Added to an item's score, for what this buyer bought before; at most 0.1.</param>
    /// <param name="language">That the words are in; without it any that knows them.</param>
    public ImmutableArray<Candidate> Search(
        string words,
        int most = 5,
        Func<ItemId, decimal>? boost = null,
        Language? language = null
    )
    {
        var query = Query(words, language);
        var sizes = query.Where(q => ItemWords.IsSize(q.Text)).Select(q => q.Text).ToHashSet();
        var total = query.Sum(q => q.Token >= 0 ? _weights[q.Token] : UnknownWeight);
        if (query.Count == 0 || query.All(q => q.Token < 0))
            return [];
        var matched = System.Buffers.ArrayPool<double>.Shared.Rent(_items.Count);
        var touched = new List<int>();
        var counted = new HashSet<int>();
        var bare = BareNumbers(words);
        List<int>? Counted(string size) =>
            size.EndsWith("mm", StringComparison.Ordinal)
            && bare.Contains(size[..^2])
            && _tokens.TryGetValue(size[..^2], out var token)
                ? _postings[token]
                : null;
        try
        {
            Array.Clear(matched, 0, _items.Count);
            // The rarest word first: once it and its like have named enough, what is only called by the common ones
            // ("rope") cannot come before them.
            foreach (
                var (token, text, guessed) in query.Where(q => q.Token >= 0).OrderBy(q => _postings[q.Token].Count)
            )
            {
                var weight = _weights[token] * (guessed ? GuessedShare : 1);
                Add(_postings[token], weight);
                // "Pack of 4" is no size, where things of ours are called so.
                if (Counted(text) is { } counts)
                    counted.UnionWith(Add(counts, weight));
            }
            return Best(matched, touched, sizes, counted, total, most, boost);

            List<int> Add(List<int> items, double weight)
            {
                var enough = touched.Count >= EnoughNamed;
                foreach (var at in System.Runtime.InteropServices.CollectionsMarshal.AsSpan(items))
                {
                    if (matched[at] == 0)
                    {
                        if (enough)
                            continue;
                        touched.Add(at);
                    }
                    matched[at] += weight;
                }
                return items;
            }
        }
        finally
        {
            System.Buffers.ArrayPool<double>.Shared.Return(matched);
        }
    }

    private static HashSet<string> BareNumbers(string words) =>
        words.Any(char.IsDigit) ? [.. ItemWords.Split(words).Where(w => w.All(char.IsDigit))] : [];

    private ImmutableArray<Candidate> Best(
        double[] matched,
        List<int> touched,
        HashSet<string> sizes,
        HashSet<int> counted,
        double total,
        int most,
        Func<ItemId, decimal>? boost
    )
    {
        // An item with words that nobody said is a weaker match than one that was named whole.
        double Score(int at)
        {
            var item = _items[at];
            var score = (matched[at] / total * 0.9) + (Math.Min(1, matched[at] / item.Total) * 0.1);
            return sizes.Count > 0 && item.Sizes.Length == 0 && !counted.Contains(at) ? score * 0.6 : score;
        }
        var best = new PriorityQueue<int, double>();
        // More are kept than asked for, since what was bought before moves some of them up.
        var keep = boost is null ? most : most * 4;
        foreach (var at in touched)
        {
            if (
                sizes.Count > 0
                && _items[at].Sizes is { Length: > 0 } of
                && !Array.Exists(of, sizes.Contains)
                && !counted.Contains(at)
            )
                continue;
            var score = Score(at);
            if (best.Count < keep)
                best.Enqueue(at, score);
            else if (best.TryPeek(out _, out var least) && score > least)
                best.DequeueEnqueue(at, score);
        }
        return
        [
            .. best
                .UnorderedItems.Select(u => new Candidate(
                    _items[u.Element].Item,
                    decimal.Round((decimal)u.Priority, 4) + (boost?.Invoke(_items[u.Element].Item.Id) ?? 0m)
                ))
                .OrderByDescending(c => c.Score)
                .ThenBy(c => c.Item.Code, StringComparer.Ordinal)
                .Take(most),
        ];
    }

    /// <summary>
    /// Which of the words an item is not called by, as they were typed, plain; empty where it is called by all of them.
    /// A bare number may be a size, or how many are in it.
    /// </summary>
    public ImmutableArray<string> Unsaid(string words, Item item, Language? language = null)
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(item);
        var called = Words(item.Words).Concat(Words(item.WordsElsewhere)).Append(Bare(item.Code).ToLowerInvariant());
        var known = called.ToHashSet(StringComparer.Ordinal);
        return
        [
            .. Phrases(ItemWords.Split(words), language)
                .Where(w => !Language.English.IsIdle(w) && language?.IsIdle(w) != true)
                .Where(w =>
                    !known.Contains(ItemWords.Stem(w))
                    && !known.Contains(w + "mm")
                    && !Resolve(w, language).Any(t => t.Known && known.Contains(t.Text))
                ),
        ];
    }

    /// <summary>
    /// Words for an item like another one, but of the sizes and the colour that are said; null where nothing else is
    /// said of it.
    /// </summary>
    public string? Varied(Item like, string said, Language? language)
    {
        ArgumentNullException.ThrowIfNull(like);
        var now = Query(said, language).Select(q => q.Text).ToList();
        if (now.Count == 0)
            return null;
        var (sized, coloured) = (now.Any(t => ItemWords.IsSize(t)), now.Any(IsColour));
        return string.Join(
            ' ',
            Words(like.Words)
                .Where(t => !(sized && ItemWords.IsSize(t)) && !(coloured && IsColour(t)))
                .Concat(now)
                .Distinct()
        );
    }

    private static bool IsColour(string token) => Language.English.Colours.Contains(token);

    /// <summary>
    /// Lower case, sizes joined ("10 mm" to "10mm"), punctuation gone, plain blanks: the form in which aliases are
    /// kept.
    /// </summary>
    public static string Normal(string words) => string.Join(' ', ItemWords.Split(words));

    private int Token(string text)
    {
        if (_tokens.TryGetValue(text, out var token))
            return token;
        _tokens[text] = _postings.Count;
        _postings.Add([]);
        return _postings.Count - 1;
    }

    private static string Bare(string code) => new([.. code.ToUpperInvariant().Where(char.IsLetterOrDigit)]);

    // The catalogue's own words: idle ones gone, plurals as singulars.
    private static IEnumerable<string> Words(string words) =>
        ItemWords.Split(words).Where(t => !Language.English.IsIdle(t)).Select(ItemWords.Stem);

    private List<(int Token, string Text, bool Guessed)> Query(string words, Language? language)
    {
        var found = new List<(int, string, bool)>();
        foreach (var word in Phrases(ItemWords.Split(words), language))
        {
            if (
                !_tokens.ContainsKey(ItemWords.Stem(word))
                && (Language.English.IsIdle(word) || language?.IsIdle(word) == true)
            )
                continue;
            foreach (var (text, known, guessed) in Resolve(word, language))
            {
                if (text.Length > 0 && found.All(f => f.Item2 != text))
                    found.Add((known ? _tokens[text] : -1, text, guessed));
            }
        }
        return found;
    }

    // Names of several words are replaced whole: "azul marino" is navy, not a blue.
    private static IEnumerable<string> Phrases(IEnumerable<string> words, Language? language)
    {
        var text = string.Join(' ', words);
        foreach (var l in language is null ? Language.All : [language, Language.English])
        {
            foreach (var (theirs, ours) in l.Words.Where(w => w.Key.Contains(' ', StringComparison.Ordinal)))
            {
                if (text.Contains(theirs, StringComparison.Ordinal))
                    text = Regex.Replace(text, $@"(?<!\w){Regex.Escape(theirs)}(?!\w)", ours);
            }
        }
        return text.Split([' ', '-'], StringSplitOptions.RemoveEmptyEntries);
    }

    // A word as the catalogue's: as it is, by the language's words, by its stem, as two words written together, or with
    // a slip forgiven.
    private IEnumerable<(string Text, bool Known, bool Guessed)> Resolve(string word, Language? language)
    {
        // "thimble 12": in this trade a bare number in a thing's name is its millimetres.
        if (word.All(char.IsDigit))
            return
            [
                _tokens.ContainsKey(word + "mm") ? (word + "mm", true, false)
                : NumberWord(word) is { } spelled ? (spelled, true, false)
                : (word, _tokens.ContainsKey(word), false),
            ];
        if (ItemWords.IsSize(word))
            return [(word, _tokens.ContainsKey(word), false)];
        if (Known(word, language) is { } known)
            return known;
        for (var cut = 1; cut <= 3 && word.Length - cut >= 4; cut++)
        {
            if (Known(word[..^cut], language) is { } stem)
                return stem;
        }
        for (var at = 3; at <= word.Length - 3; at++)
        {
            if (
                Known(word[..at], language) is { } left
                && (Known(word[at..], language) ?? Known(word[at..].TrimStart('s', 'n'), language)) is { } right
            )
                return [.. left, .. right];
        }
        return Near(word) is { } near ? [(near, true, true)] : [(ItemWords.Stem(word), false, false)];
    }

    private string? NumberWord(string digits) =>
        Language
            .English.Numbers.FirstOrDefault(n =>
                n.Value.ToString(CultureInfo.InvariantCulture) == digits && _tokens.ContainsKey(n.Key)
            )
            .Key;

    private List<(string, bool, bool)>? Known(string word, Language? language)
    {
        // The language's own word comes first: "red" is a net in Spanish. Without a language the catalogue does.
        if (language is not null && language.Words.TryGetValue(word, out var ours))
            return Ours(ours);
        if (_tokens.ContainsKey(ItemWords.Stem(word)))
            return [(ItemWords.Stem(word), true, false)];
        foreach (var other in language is null ? Language.All : [Language.English])
        {
            if (other.Words.TryGetValue(word, out var theirs))
                return Ours(theirs);
        }
        return null;
    }

    private List<(string, bool, bool)> Ours(string ours) =>
        [
            .. ours.Split([' ', '-'], StringSplitOptions.RemoveEmptyEntries)
                .Select(ItemWords.Stem)
                .Select(t => (t, _tokens.ContainsKey(t), false)),
        ];

    // One letter wrong, missing or too much; two in a long word; never in what has a digit.
    private string? Near(string word)
    {
        if (word.Length < 5 || word.Any(char.IsDigit))
            return null;
        var allowed = word.Length >= 8 ? 2 : 1;
        return _tokens
            .Keys.Where(t =>
                t.Length >= 4 && t[0] == word[0] && Math.Abs(t.Length - word.Length) <= allowed && !t.Any(char.IsDigit)
            )
            .Select(t => (Token: t, Distance: ItemWords.Distance(t, word, allowed)))
            .Where(t => t.Distance <= allowed)
            .OrderBy(t => t.Distance)
            .ThenBy(t => t.Token, StringComparer.Ordinal)
            .Select(t => t.Token)
            .FirstOrDefault();
    }
}
