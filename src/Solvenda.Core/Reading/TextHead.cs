using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Reading;

/// <summary>What a text says about the order as a whole, apart from its lines.</summary>
internal sealed partial record TextHead(
    Field<string> PoNumber,
    Field<string> QuoteNumber,
    Field<string> Reference,
    Field<DateOnly?> Wanted,
    Field<string> Contact,
    Field<string> DeliverTo,
    string? DeliverToCountry,
    Field<string> Incoterm,
    Field<string> IncotermPlace,
    Field<Money.Currency?> Currency,
    Field<int?> PaymentDays,
    Field<decimal?> Goods
)
{
    /// <summary>Of any text that stands for an order: a letter, the text of a PDF.</summary>
    public static TextHead Read(Scene scene)
    {
        var (letter, fresh, grammar, part) = (scene.Letter, scene.Text, scene.Grammar, scene.Letter.Part);
        var term = IncotermWords.Match(fresh);
        var currency = CurrencySign()
            .Matches(fresh)
            .Select(m => (Match: m, Currency: CurrencyOf(m.Value)))
            .FirstOrDefault(m => m.Currency is not null);
        var payment = grammar.Payment.Match(fresh);
        var total = grammar.Total.Match(fresh);
        var (deliverTo, country) = PlaceIn(scene);
        return new TextHead(
            PoIn(scene),
            QuoteIn(scene, part),
            ReferenceIn(scene, part),
            DateWords.Wanted(fresh, letter.Written, scene.Language, scene.Dates) is { } wanted
                ? new Field<DateOnly?>(
                    wanted.Day,
                    wanted.Sure,
                    wanted.How,
                    [new Evidence(part, wanted.Start, wanted.Length)]
                )
                : Field<DateOnly?>.Missing,
            ContactIn(letter, fresh, grammar),
            deliverTo,
            country,
            term.Success
                ? At(part, term.Groups["term"].Value, 0.9m, "written so", term.Groups["term"])
                : Field<string>.Missing,
            term.Success && term.Groups["place"].Success
                ? At(part, term.Groups["place"].Value.Trim(), 0.75m, "behind the term", term.Groups["place"])
                : Field<string>.Missing,
            currency.Currency is { } c
                ? At<Money.Currency?>(part, c, 0.9m, "written so", currency.Match)
                : Field<Money.Currency?>.Missing,
            payment.Success && int.TryParse(payment.Groups["days"].Value, out var days) && days <= 365
                ? At<int?>(part, days, 0.85m, $"“{payment.Value.Trim()}”", payment)
                : Field<int?>.Missing,
            total.Success && scene.Form.Read(total.Groups["sum"].Value) is { Or: null } sum
                ? At<decimal?>(part, sum.Value, 0.9m, "stated", total.Groups["sum"])
                : Field<decimal?>.Missing
        );
    }

    private static Field<T> At<T>(int part, T value, decimal sure, string how, Group at) =>
        new(value, sure, how, [new Evidence(part, at.Index, at.Length)]);

    private static Field<string> PoIn(Scene scene)
    {
        var (grammar, part) = (scene.Grammar, scene.Letter.Part);
        static string Bare(Match m) => m.Groups["po"].Value.TrimEnd('.', '-', '/');
        Field<string>? found = null;
        foreach (var m in scene.Pos.Where(m => !IsPast(scene.Text, m.Index, grammar)))
        {
            var po = At(part, Bare(m), 0.9m, $"“{m.Value.Trim()}”", m.Groups["po"]);
            if (found is null)
                found = po;
            else if (PoKey.Of(found.Value!) != PoKey.Of(po.Value!))
                return TwoOrders(found, po);
        }
        if (found is not null)
            return found;
        return grammar.Po.Match(scene.Letter.Subject) is { Success: true } there
            ? new Field<string>(Bare(there), 0.85m, "in the subject", [])
            : Field<string>.Missing;
    }

    /// <summary>
    /// Two numbers of orders in one message: which one counts, or whether it is two orders, is asked.
    /// </summary>
    public static Field<string> TwoOrders(Field<string> one, Field<string> other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        return one with
        {
            Sure = 0.4m,
            How = $"{one.Value} or {other.Value}? Two orders of theirs are named",
            Evidence = one.Evidence.AddRange(other.Evidence),
        };
    }

    private static Field<string> ReferenceIn(Scene scene, int part)
    {
        var (fresh, subject, grammar) = (scene.Text, scene.Letter.Subject, scene.Grammar);
        static string Bare(Match m) => m.Groups["ref"].Value.TrimEnd('.', '-', '/');
        if (
            grammar.Reference.Match(fresh) is { Success: true } m
            && !scene.Context.Numbers.Quote(m.Groups["ref"].Value).Success
        )
            return At(part, Bare(m), 0.85m, $"“{m.Value.Trim()}”", m.Groups["ref"]);
        return grammar.Reference.Match(subject) is { Success: true } there
            ? new Field<string>(Bare(there), 0.8m, "in the subject", [])
            : Field<string>.Missing;
    }

    // "Last time we ordered under PO 881": the number of something that is over.
    private static bool IsPast(string fresh, int at, Grammar grammar)
    {
        var from = Math.Max(0, fresh.LastIndexOfAny(['.', '\n', '?', '!'], Math.Max(0, at - 1)));
        return grammar.Language.Says(fresh[from..at], l => l.Past);
    }

    private static Field<string> QuoteIn(Scene scene, int part)
    {
        var numbers = scene.Context.Numbers;
        if (numbers.Quote(scene.Text) is { Success: true } quote)
            return At(part, quote.Value, 0.95m, "our number", quote);
        return numbers.Quote(scene.Letter.Subject) is { Success: true } there
            ? new Field<string>(there.Value, 0.95m, "our number", [])
            : Field<string>.Missing;
    }

    private static Field<string> ContactIn(Letter letter, string fresh, Grammar grammar)
    {
        if (grammar.Contact.Match(fresh) is { Success: true } named)
            return At(letter.Part, named.Groups["who"].Value.Trim(), 0.9m, "named in the text", named.Groups["who"]);
        if (letter.FromName.Length > 0)
            return new Field<string>(letter.FromName, 0.8m, "sender's name", []);
        return Letters.SignedBy(letter.Text, fresh.Length) is { Name.Length: > 0 } signed
            ? new Field<string>(
                signed.Name,
                0.7m,
                "signed so",
                [new Evidence(letter.Part, signed.Start, signed.Name.Length)]
            )
            : Field<string>.Missing;
    }

    // A place that we know of theirs, named by its words or its code; else what stands behind "deliver to".
    private static (Field<string> Words, string? Country) PlaceIn(Scene scene)
    {
        var (fresh, buyer) = (scene.Text, scene.Buyer);
        foreach (
            var address in scene
                .Context.Addresses.Where(a => buyer.Sure > 0 && a.Buyer == buyer.Value)
                .OrderByDescending(a => a.Words.Length)
        )
        {
            if (NamedIn(fresh, address.Words) is { } named)
                return (
                    new Field<string>(
                        address.Words,
                        named.Sure,
                        $"“{fresh.Substring(named.At, named.Length)}”, an address of theirs",
                        [new Evidence(scene.Letter.Part, named.At, named.Length)]
                    ),
                    address.Country
                );
        }
        return (BehindDeliverTo(scene), null);
    }

    // The whole first line of an address of theirs, or its name without the number.
    private static (int At, int Length, decimal Sure)? NamedIn(string fresh, string address)
    {
        var whole = address.Split(',')[0].Trim();
        if (
            whole.Length >= 5
            && whole.Any(char.IsDigit)
            && Regex.Match(fresh, $@"(?<!\w){Regex.Escape(whole)}(?!\w)", RegexOptions.IgnoreCase)
                is { Success: true } there
        )
            return (there.Index, there.Length, 0.85m);
        var name = LeadingName().Match(whole).Value.Trim();
        var at = name.Length >= 5 ? fresh.IndexOf(name, StringComparison.OrdinalIgnoreCase) : -1;
        // "Dry Dock 3" is not "Dry Dock 5"; without a number it may be.
        return
            at >= 0
            && (
                NumberBehind(fresh, at + name.Length) is not { Length: > 0 } said
                || said == NumberBehind(address, name.Length)
            )
            ? (at, name.Length, 0.8m)
            : null;
    }

    private static Field<string> BehindDeliverTo(Scene scene)
    {
        var m = scene.Grammar.DeliverTo.Match(scene.Text);
        if (!m.Success)
            return Field<string>.Missing;
        // When it is wanted is no part of where: "to the slip by Friday".
        var place = m.Groups["where"].Value;
        if (
            scene
                .Dates.Select(d => d.Start - m.Groups["where"].Index)
                .Where(at => at > 0 && at < place.Length)
                .Order()
                .Cast<int?>()
                .FirstOrDefault() is
            { } when
        )
            place = scene.Grammar.ByAtEnd.Replace(place[..when], "");
        place = place.TrimEnd(' ', ',', '-', '\t');
        return place.Length < 4
            ? Field<string>.Missing
            : new Field<string>(
                place.Trim(),
                0.6m,
                $"“{Grammar.Short(m.Value)}”",
                [new Evidence(scene.Letter.Part, m.Groups["where"].Index, place.Length)]
            );
    }

    private static string NumberBehind(string text, int at) =>
        LeadingNumber().Match(text[Math.Min(at, text.Length)..Math.Min(at + 8, text.Length)]).Groups[1].Value;

    /// <summary>The currency that a sign or a code means; null where several use it.</summary>
    private static Money.Currency? CurrencyOf(string sign)
    {
        ArgumentNullException.ThrowIfNull(sign);
        var code = sign.Trim() switch
        {
            "€" => "EUR",
            "£" => "GBP",
            "$" or "US$" => "USD",
            var other => other.ToUpperInvariant(),
        };
        return Money.Currency.TryOf(code, out var currency) ? currency : null;
    }

    private static readonly Regex IncotermWords = new(
        $@"\b(?<term>{string.Join('|', Incoterms.All)})\b(?:[ :,]+(?<place>\p{{Lu}}[\p{{L}}'-]+(?: [\p{{L}}\d'-]+){{0,3}}))?",
        RegexOptions.CultureInvariant
    );

    [GeneratedRegex(@"€|£|US\$|\$|\b(?:EUR|SEK|NOK|DKK|USD|GBP|CHF|PLN)\b", RegexOptions.CultureInvariant)]
    private static partial Regex CurrencySign();

    [GeneratedRegex(@"^\s*(\d+)")]
    private static partial Regex LeadingNumber();

    // The name of a place without its number: "Södra kajen" of "Södra kajen 7".
    [GeneratedRegex(@"^\D+")]
    private static partial Regex LeadingName();
}
