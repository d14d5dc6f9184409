using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Reading;

/// <summary>An item that words may mean, with a score of 0 to 1.</summary>
public sealed record Candidate(Item Item, decimal Score);

/// <summary>
/// Finds items by code, GTIN or words in any order. Sizes are compared as sizes: 10 mm is not 100 mm, and an item of another size is no candidate.
/// Words are weighed by how rare they are over the catalogue.
/// </summary>
public sealed partial class ItemFinder
{
    private static readonly HashSet<string> Idle =
        [.. "the a an of and or for with in on to our your my please some new usual each per it is are we us all them both ends".Split(' ')];

    // What people call things, and what our words call them. One way only: their word to ours.
    private static readonly Dictionary<string, string> Synonyms = new()
    {
        ["rope"] = "rope",
        ["line"] = "line",
        ["strand"] = "strand",
        ["3strand"] = "three strand",
        ["3"] = "three",
        ["wht"] = "white",
        ["blk"] = "black",
        ["gray"] = "grey",
        ["colour"] = "",
        ["galv"] = "galvanised",
        ["galvanized"] = "galvanised",
        ["ss"] = "stainless",
        ["inox"] = "stainless",
        ["lifejacket"] = "life jacket",
        ["lifejackets"] = "life jacket",
        ["vit"] = "white",
        ["svart"] = "black",
        ["sjackel"] = "shackle",
        ["schakel"] = "shackle",
        ["mooring"] = "mooring",
        ["bumper"] = "fender",
        ["braid"] = "braid",
        ["horn"] = "horn",
    };

    private readonly Dictionary<string, List<int>> _byToken = new(StringComparer.Ordinal);
    private readonly List<(Item Item, HashSet<string> Tokens, HashSet<string> Sizes)> _items = [];
    private readonly Dictionary<string, Item> _byCode = new(StringComparer.Ordinal);

    public ItemFinder(IEnumerable<Item> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        foreach (var item in items)
        {
            var tokens = Tokens(item.Words).ToHashSet();
            var sizes = Sizes(item.Words).ToHashSet();
            foreach (var token in tokens)
            {
                if (!_byToken.TryGetValue(token, out var list))
                    _byToken[token] = list = [];
                list.Add(_items.Count);
            }
            _items.Add((item, tokens, sizes));
            _byCode[Bare(item.Code)] = item;
            if (item.Gtin is { } gtin)
                _byCode[gtin] = item;
        }
    }

    /// <summary>By our code (dashes and case aside) or GTIN; null where neither fits.</summary>
    public Item? ByCode(string code) => _byCode.GetValueOrDefault(Bare(code));

    public Item? ById(ItemId id) => _items.FirstOrDefault(i => i.Item.Id == id).Item;

    /// <summary>The best candidates, best first. Two with nearly the same score are a near tie, which the caller must not settle silently.</summary>
    /// <param name="boost">Added to an item's score, for what this buyer bought before; at most 0.1.</param>
    public ImmutableArray<Candidate> Search(string words, int most = 5, Func<ItemId, decimal>? boost = null)
    {
        var tokens = QueryTokens(words);
        var sizes = tokens.Where(t => SizeToken().IsMatch(t)).ToHashSet();
        if (tokens.Count == 0)
            return [];
        var total = tokens.Sum(Weight);
        var hits = tokens.Where(_byToken.ContainsKey).SelectMany(t => _byToken[t]).Distinct();
        return
        [
            .. hits
                .Where(i => sizes.Count == 0 || _items[i].Sizes.Count == 0 || sizes.Overlaps(_items[i].Sizes))
                .Select(i => new Candidate(_items[i].Item, Score(tokens, sizes, total, i) + (boost?.Invoke(_items[i].Item.Id) ?? 0m)))
                .OrderByDescending(c => c.Score).ThenBy(c => c.Item.Code, StringComparer.Ordinal)
                .Take(most),
        ];
    }

    /// <summary>Lower case, sizes joined ("10 mm" to "10mm"), punctuation gone, plain blanks: the form in which aliases are kept.</summary>
    public static string Normal(string words) => string.Join(' ', Split(words));

    private decimal Score(HashSet<string> tokens, HashSet<string> sizes, decimal total, int at)
    {
        var (_, has, hasSizes) = _items[at];
        var matched = tokens.Where(has.Contains).Sum(Weight);
        // An item with words that nobody said is a weaker match than one that was named whole.
        var unsaid = has.Where(t => !tokens.Contains(t)).Sum(Weight) / has.Sum(Weight);
        var score = (matched / total * 0.9m) + ((1 - unsaid) * 0.1m);
        return sizes.Count > 0 && hasSizes.Count == 0 ? score * 0.6m : score;
    }

    private decimal Weight(string token) => _byToken.TryGetValue(token, out var list)
        ? 1m + (decimal)Math.Log((double)(_items.Count + 1) / list.Count)
        : 2m;

    private static string Bare(string code) => new([.. code.ToUpperInvariant().Where(char.IsLetterOrDigit)]);

    private static IEnumerable<string> Sizes(string words) => Split(words).Where(t => SizeToken().IsMatch(t));

    private static IEnumerable<string> Tokens(string words) => Split(words)
        .SelectMany(t => Synonyms.TryGetValue(t, out var ours) ? ours.Split(' ', StringSplitOptions.RemoveEmptyEntries) : [t])
        .Where(t => !Idle.Contains(t))
        .Select(Stem);

    // "thimble 12": in this trade a bare number in a thing's name is its millimetres.
    private HashSet<string> QueryTokens(string words) => [.. Tokens(words).Select(t => t.All(char.IsDigit) && _byToken.ContainsKey(t + "mm") ? t + "mm" : t)];

    private static string Stem(string token) => token.Length > 3 && token[^1] == 's' && token[^2] != 's' ? token[..^1] : token;

    private static IEnumerable<string> Split(string words)
    {
        var plain = new StringBuilder(words.Length);
        foreach (var c in words.Normalize(NormalizationForm.FormKC).ToLower(CultureInfo.InvariantCulture))
            plain.Append(char.IsLetterOrDigit(c) || c is '.' or ',' or '²' ? c : ' ');
        var joined = SizeGap().Replace(plain.ToString(), "$1$2 ");
        return joined.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(t => t.Trim('.', ',')).Where(t => t.Length > 0);
    }

    [GeneratedRegex(@"(\d+(?:[.,]\d+)?)\s*(mm|cm|in|l|kg|n)\b", RegexOptions.CultureInvariant)]
    private static partial Regex SizeGap();

    [GeneratedRegex(@"^\d+(?:[.,]\d+)?(mm|cm|in|l|kg|n)$", RegexOptions.CultureInvariant)]
    private static partial Regex SizeToken();
}
