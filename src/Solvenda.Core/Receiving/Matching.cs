using System.Collections.Immutable;
using System.Text;

namespace Solvenda.Core.Receiving;

/// <summary>Something a buyer owes.</summary>
/// <param name="Number">Of the invoice; of one that is paid in parts with the part: F26-00231/2.</param>
/// <param name="Order">Of the order; empty where it is not known.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Open">In minor units; 0: it is paid.</param>
public sealed record Owed(long Id, string Number, string Order, long Buyer, string Currency, long Open, DateOnly Due)
{
    /// <summary>What of it falls away where it is paid by <see cref="EarlyUntil"/>, in minor units.</summary>
    public long EarlyOff { get; init; }

    /// <summary>The last day of paying early; null where there is none.</summary>
    public DateOnly? EarlyUntil { get; init; }

    /// <summary>Number of the invoice that it is, or is a part of.</summary>
    internal string Invoice => Number.Split('/')[0];
}

/// <summary>Money that came, as far as it says whose it is and what for.</summary>
/// <param name="Minor">In minor units.</param>
/// <param name="Account">The payer's; empty where the bank says none.</param>
/// <param name="Words">What the payer wrote.</param>
/// <param name="Day">When it came.</param>
public sealed record Money(long Minor, string Currency, string Payer, string Account, string Words, DateOnly Day);

/// <summary>So much of something owed.</summary>
public sealed record Taking(Owed Owed, long Minor);

/// <summary>What became of money that came.</summary>
/// <param name="Takes">What is paid by it.</param>
/// <param name="Why">Why somebody has to look; empty where nothing is left.</param>
/// <param name="Buyer">Whose it is; null where nobody knows.</param>
public sealed record Match(ImmutableArray<Taking> Takes, string Why, long? Buyer)
{
    /// <summary>What is taken in all, in minor units.</summary>
    public long Taken => Takes.Sum(t => t.Minor);
}

/// <summary>
/// Finds what money that came is for (docs/calculations.md, Money that comes): by the numbers that it names, else by
/// who pays and how much. What may be meant in two ways is left for somebody to say.
/// </summary>
public sealed class Matching
{
    // A number is written in one, or in pieces: F26-00231, F26 00231, F 26 00231.
    private const int MostPieces = 4;

    private readonly Dictionary<long, long> _open;
    private readonly Dictionary<string, Owed> _byNumber = [];
    private readonly Dictionary<string, Owed?> _byDigits = [];
    private readonly ILookup<string, Owed> _parts;
    private readonly ILookup<string, Owed> _byOrder;
    private readonly ILookup<long, Owed> _byBuyer;
    private readonly IReadOnlyDictionary<string, long> _accounts;
    private readonly Dictionary<string, long?> _names = [];

    /// <param name="owed">All there is, also what is paid already.</param>
    /// <param name="accounts">Buyers by the accounts that they paid from.</param>
    /// <param name="names">Buyers by their names.</param>
    public Matching(
        IReadOnlyCollection<Owed> owed,
        IReadOnlyDictionary<string, long> accounts,
        IEnumerable<(string Name, long Buyer)> names
    )
    {
        ArgumentNullException.ThrowIfNull(owed);
        ArgumentNullException.ThrowIfNull(names);
        _open = owed.ToDictionary(o => o.Id, o => o.Open);
        _accounts = accounts;
        foreach (var one in owed)
        {
            var key = KeyOf(one.Number);
            // Of two by one number the open one is meant.
            if (!_byNumber.TryGetValue(key, out var there) || there.Open == 0)
                _byNumber[key] = one;
            var digits = key.TrimStart([.. Letters]);
            _byDigits[digits] = _byDigits.ContainsKey(digits) ? null : one;
        }
        _parts = owed.Where(o => o.Number.Contains('/', StringComparison.Ordinal)).ToLookup(o => KeyOf(o.Invoice));
        _byOrder = owed.Where(o => o.Order.Length > 0).ToLookup(o => KeyOf(o.Order));
        _byBuyer = owed.Where(o => o.Open > 0).ToLookup(o => o.Buyer);
        foreach (var (name, buyer) in names)
        {
            var key = KeyOf(name);
            // Two of one name are told apart by nobody here.
            _names[key] = _names.TryGetValue(key, out var other) && other != buyer ? null : buyer;
        }
    }

    private const string Letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    /// <summary>What it is for. What it takes is not open for the next.</summary>
    public Match Of(Money money)
    {
        ArgumentNullException.ThrowIfNull(money);
        var match = Find(money);
        foreach (var take in match.Takes)
            _open[take.Owed.Id] -= take.Minor;
        return match;
    }

    /// <summary>The buyer who pays, as far as it can be known by their account or their name.</summary>
    public long? PayerOf(Money money)
    {
        ArgumentNullException.ThrowIfNull(money);
        if (money.Account.Length > 0 && _accounts.TryGetValue(KeyOf(money.Account), out var buyer))
            return buyer;
        return _names.GetValueOrDefault(KeyOf(money.Payer));
    }

    private Match Find(Money money)
    {
        var named = Named(money.Words);
        if (named.Count > 0)
            return ByNumber(money, named);
        if (ByOther(money) is { } other)
            return other;
        return PayerOf(money) is { } payer ? ByPayer(money, payer) : new Match([], "nobody knows whose it is", null);
    }

    private Match ByNumber(Money money, List<Owed> named)
    {
        var buyers = named.Select(o => o.Buyer).Distinct().ToList();
        var buyer = buyers.Count == 1 ? buyers[0] : PayerOf(money);
        Match Look(string why) => new([], why, buyer);
        if (buyers.Count > 1)
            return Look("it names invoices of several buyers");
        if (named.Exists(o => o.Currency != money.Currency))
            return Look($"it is in {money.Currency}, {named[0].Number} is not");
        var open = named.FindAll(o => _open[o.Id] > 0);
        if (open.Count < named.Count)
            return Look($"{named.First(o => _open[o.Id] <= 0).Number} is paid already");
        var sum = open.Sum(o => _open[o.Id]);
        // The parts of one invoice are paid in their order; of several invoices somebody says which.
        if (money.Minor < sum && open.Select(o => o.Invoice).Distinct().Skip(1).Any() && !AllEarly(open, money))
            return Look("it is less than the invoices that it names");
        return new Match(
            [
                .. AllEarly(open, money)
                    ? open.Select(o => new Taking(o, _open[o.Id] - Early(o, money)))
                    : Along(open, money.Minor),
            ],
            money.Minor > sum ? "it is more than the invoices that it names" : "",
            buyer
        );
    }

    private IEnumerable<Taking> Along(List<Owed> open, long minor)
    {
        foreach (var one in open.OrderBy(o => o.Due))
        {
            var off = minor < _open[one.Id] ? minor : _open[one.Id];
            minor -= off;
            if (off > 0)
                yield return new Taking(one, off);
        }
    }

    private bool AllEarly(List<Owed> open, Money money) =>
        open.TrueForAll(o => Early(o, money) > 0) && open.Sum(o => _open[o.Id] - Early(o, money)) == money.Minor;

    private static long Early(Owed owed, Money money) => owed.EarlyUntil >= money.Day ? owed.EarlyOff : 0;

    // All of it, or all but what paying early takes off.
    private bool Fits(Owed owed, Money money) =>
        _open[owed.Id] == money.Minor || (Early(owed, money) is > 0 and var off && _open[owed.Id] - off == money.Minor);

    // A number without its letter, or that of an order, counts where the amount says the same.
    private Match? ByOther(Money money)
    {
        var found = Pieces(money.Words)
            .SelectMany(p => _byOrder[p].Concat(_byDigits.GetValueOrDefault(p) is { } one ? [one] : []))
            .Where(o => o.Currency == money.Currency && _open[o.Id] > 0)
            .DistinctBy(o => o.Id)
            .ToList();
        var exact = found.FindAll(o => Fits(o, money));
        if (exact.Count == 1)
            return new Match([new Taking(exact[0], money.Minor)], "", exact[0].Buyer);
        return null;
    }

    private Match ByPayer(Money money, long payer)
    {
        var theirs = _byBuyer[payer].Where(o => o.Currency == money.Currency && _open[o.Id] > 0).ToList();
        var exact = theirs.FindAll(o => Fits(o, money));
        if (exact.Count == 1)
            return new Match([new Taking(exact[0], money.Minor)], "", payer);
        if (exact.Count > 1)
            return new Match([], "it fits several of their invoices", payer);
        if (theirs.Count > 1 && theirs.Sum(o => _open[o.Id]) == money.Minor)
            return new Match([.. theirs.Select(o => new Taking(o, _open[o.Id]))], "", payer);
        return new Match([], theirs.Count == 0 ? "they owe nothing" : "it fits none of their invoices", payer);
    }

    private List<Owed> Named(string words)
    {
        var (named, parts) = (new List<Owed>(), new List<Owed>());
        foreach (var piece in Pieces(words))
        {
            if (_byNumber.TryGetValue(piece, out var one) && !named.Contains(one))
                named.Add(one);
            // Of one in parts those that are open; where none is, it is paid already.
            var all = _parts[piece].ToList();
            parts.AddRange(all.Exists(p => _open[p.Id] > 0) ? all.FindAll(p => _open[p.Id] > 0) : all);
        }
        // Whoever names a part means that one alone.
        return [.. named, .. parts.Distinct().Where(p => named.TrueForAll(n => n.Invoice != p.Invoice))];
    }

    // Runs of letters and digits, and neighbours of them put together.
    private static IEnumerable<string> Pieces(string words)
    {
        var runs = new List<string>();
        var run = new StringBuilder();
        foreach (var letter in words + " ")
        {
            if (char.IsAsciiLetterOrDigit(letter))
                run.Append(char.ToUpperInvariant(letter));
            else if (run.Length > 0)
            {
                runs.Add(run.ToString());
                run.Clear();
            }
        }
        for (var i = 0; i < runs.Count; i++)
        {
            var piece = "";
            for (var n = i; n < Math.Min(runs.Count, i + MostPieces); n++)
                yield return piece += runs[n];
        }
    }

    /// <summary>As names and numbers are compared: letters and digits alone, in capitals.</summary>
    public static string KeyOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return string.Concat(text.Where(char.IsLetterOrDigit)).ToUpperInvariant();
    }
}
