using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>A way to know a buyer again: an address, a partner id, a tax number, with what kind it is.</summary>
public sealed record BuyerSign(BuyerId Buyer, string Kind, string Value);

/// <summary>
/// A remembered translation: a buyer's words or code for our item, with a usual quantity where one was learned.
/// </summary>
/// <param name="Buyer">Null: everybody's.</param>
/// <param name="Words">Normalised by <see cref="ItemFinder.Normal"/>.</param>
public sealed record Alias(long Id, BuyerId? Buyer, string Words, ItemId Item, decimal? Quantity, Unit? Unit);

/// <summary>What a buyer took before.</summary>
public sealed record Bought(BuyerId Buyer, ItemId Item, string Document, DateOnly Day, decimal Quantity, Unit Unit);

/// <summary>A place that a buyer has goods sent to.</summary>
public sealed record BuyerAddress(BuyerId Buyer, string Code, string Words, string Country);

/// <summary>Everything a reading is made against.</summary>
public sealed record ReadingContext(
    ItemFinder Items,
    IReadOnlyDictionary<BuyerId, string> BuyerNames,
    ImmutableArray<BuyerSign> Signs,
    ImmutableArray<Alias> Aliases,
    Func<BuyerId, IReadOnlyList<Bought>> History
)
{
    private Dictionary<(BuyerId?, string), Alias>? _aliases;
    private ILookup<string, BuyerSign>? _signs;
    private ILookup<string, BuyerId>? _names;

    /// <summary>Domains of our own mail, in small letters: who writes from there is no buyer by that.</summary>
    public ImmutableHashSet<string> OurDomains { get; init; } = [];

    /// <summary>How our own numbers look.</summary>
    public OurNumbers Numbers { get; init; } = OurNumbers.Usual;

    /// <summary>Whether a mail address is of our own house.</summary>
    public bool IsOurs(string address)
    {
        ArgumentNullException.ThrowIfNull(address);
        return OurDomains.Contains(address.Split('@')[^1].ToLowerInvariant());
    }

    /// <summary>What a buyer counts in where the lines of their documents say no unit, as somebody said.</summary>
    public IReadOnlyDictionary<BuyerId, Unit> UnitsLeftOut { get; init; } = new Dictionary<BuyerId, Unit>();

    /// <summary>Their addresses.</summary>
    public ImmutableArray<BuyerAddress> Addresses { get; init; } = [];

    /// <summary>
    /// What the columns of a sender's tables mean, by the words at their heads (<see cref="TableReading.HeadsOf"/>), as
    /// a person said.
    /// </summary>
    public Func<string, string, IReadOnlyDictionary<int, string>?> Columns { get; init; } = (_, _) => null;

    /// <summary>Aliases that helped, by their key, so that it can be counted.</summary>
    public HashSet<long> Helped { get; } = [];

    /// <summary>
    /// What this buyer's words or code mean, else what everybody's do; null where neither was learned.
    /// </summary>
    public Alias? AliasOf(Field<BuyerId> buyer, string normal)
    {
        _aliases ??= Aliases.GroupBy(a => (a.Buyer, a.Words)).ToDictionary(g => g.Key, g => g.First());
        var found =
            (buyer is { Sure: > 0 } && _aliases.TryGetValue((buyer.Value, normal), out var own) ? own : null)
            ?? _aliases.GetValueOrDefault((null, normal));
        if (found is not null)
            Helped.Add(found.Id);
        return found;
    }

    /// <summary>Buyers that carry the sign, by kind and value.</summary>
    public IEnumerable<BuyerId> Carrying(string kind, string value)
    {
        _signs ??= Signs.ToLookup(s => $"{s.Kind}:{s.Value.ToUpperInvariant()}");
        return _signs[$"{kind}:{value.Trim().ToUpperInvariant()}"].Select(s => s.Buyer).Distinct();
    }

    /// <summary>Buyers of that name, forms of company aside.</summary>
    public IEnumerable<BuyerId> Named(string name)
    {
        _names ??= BuyerNames.ToLookup(b => BuyerFinder.Plain(b.Value), b => b.Key);
        return _names[BuyerFinder.Plain(name)];
    }
}
