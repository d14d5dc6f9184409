using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Reading;

/// <summary>What a text says about the order as a whole, apart from its lines.</summary>
public sealed partial record TextHead(
    Field<string> PoNumber,
    Field<string> QuoteNumber,
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
    public static TextHead Read(
        Letter letter,
        string fresh,
        Language language,
        Field<BuyerId> buyer,
        ReadingContext context
    )
    {
        var grammar = Grammar.Of(language);
        var part = letter.Part;
        var po = grammar.Po.Match(fresh);
        var inSubject = po.Success ? Match.Empty : grammar.Po.Match(letter.Subject);
        var quote = OurQuote().Match(fresh) is { Success: true } q ? q : OurQuote().Match(letter.Subject);
        var wanted = DateWords.Find(fresh, letter.Written, language);
        var contact = grammar.Contact.Match(fresh);
        var term = IncotermWords.Match(fresh);
        var (deliverTo, country) = PlaceIn(fresh, letter.Written, part, grammar, buyer, context);
        var currency = CurrencySign()
            .Matches(fresh)
            .Select(m => (Match: m, Currency: CurrencyOf(m.Value)))
            .FirstOrDefault(m => m.Currency is not null);
        var payment = grammar.Payment.Match(fresh);
        var total = grammar.Total.Match(fresh);
        var form = NumberForm.Of(TextReader.Numbers().Matches(fresh).Select(m => m.Value));
        Field<T> At<T>(T value, decimal sure, string how, Group at) =>
            new(value, sure, how, [new Evidence(part, at.Index, at.Length)]);
        return new TextHead(
            po.Success ? At(po.Groups["po"].Value.TrimEnd('.', '-', '/'), 0.9m, $"“{po.Value.Trim()}”", po.Groups["po"])
                : inSubject.Success
                    ? new Field<string>(
                        inSubject.Groups["po"].Value.TrimEnd('.', '-', '/'),
                        0.85m,
                        "in the subject",
                        []
                    )
                : Field<string>.Missing,
            quote.Success
                ? new Field<string>(
                    quote.Value,
                    0.95m,
                    "our number",
                    quote.Index < fresh.Length && fresh.AsSpan(quote.Index).StartsWith(quote.Value)
                        ? [new Evidence(part, quote.Index, quote.Length)]
                        : []
                )
                : Field<string>.Missing,
            wanted is { } w
                ? new Field<DateOnly?>(w.Day, w.Sure, w.How, [new Evidence(part, w.Start, w.Length)])
                : Field<DateOnly?>.Missing,
            contact.Success ? At(contact.Groups["who"].Value.Trim(), 0.9m, "named in the text", contact.Groups["who"])
                : letter.FromName.Length > 0 ? new Field<string>(letter.FromName, 0.8m, "sender's name", [])
                : Letters.SignedBy(letter.Text, fresh.Length) is { Name.Length: > 0 } signed
                    ? new Field<string>(
                        signed.Name,
                        0.7m,
                        "signed so",
                        [new Evidence(part, signed.Start, signed.Name.Length)]
                    )
                : Field<string>.Missing,
            deliverTo,
            country,
            term.Success
                ? At(term.Groups["term"].Value, 0.9m, "written so", term.Groups["term"])
                : Field<string>.Missing,
            term.Success && term.Groups["place"].Success
                ? At(term.Groups["place"].Value.Trim(), 0.75m, "behind the term", term.Groups["place"])
                : Field<string>.Missing,
            currency.Currency is { } c
                ? At<Money.Currency?>(c, 0.9m, "written so", currency.Match)
                : Field<Money.Currency?>.Missing,
            payment.Success && int.TryParse(payment.Groups["days"].Value, out var days) && days <= 365
                ? At<int?>(days, 0.85m, $"“{payment.Value.Trim()}”", payment)
                : Field<int?>.Missing,
            total.Success && form.Read(total.Groups["sum"].Value) is { Or: null } sum
                ? At<decimal?>(sum.Value, 0.9m, "stated", total.Groups["sum"])
                : Field<decimal?>.Missing
        );
    }

    // A place that we know of theirs, named by its words or its code; else what stands behind "deliver to".
    private static (Field<string> Words, string? Country) PlaceIn(
        string fresh,
        DateOnly written,
        int part,
        Grammar grammar,
        Field<BuyerId> buyer,
        ReadingContext context
    )
    {
        foreach (
            var address in context
                .Addresses.Where(a => buyer.Sure > 0 && a.Buyer == buyer.Value)
                .OrderByDescending(a => a.Words.Length)
        )
        {
            var whole = address.Words.Split(',')[0].Trim();
            if (
                whole.Length >= 5
                && whole.Any(char.IsDigit)
                && Regex.Match(fresh, $@"(?<!\w){Regex.Escape(whole)}(?!\w)", RegexOptions.IgnoreCase)
                    is { Success: true } there
            )
                return (
                    new Field<string>(
                        address.Words,
                        0.85m,
                        $"“{there.Value}”, an address of theirs",
                        [new Evidence(part, there.Index, there.Length)]
                    ),
                    address.Country
                );
            var name = LeadingName().Match(whole).Value.Trim();
            var at = name.Length >= 5 ? fresh.IndexOf(name, StringComparison.OrdinalIgnoreCase) : -1;
            // "Dry Dock 3" is not "Dry Dock 5"; without a number it may be.
            if (
                at >= 0
                && (
                    NumberBehind(fresh, at + name.Length) is not { Length: > 0 } said
                    || said == NumberBehind(address.Words, name.Length)
                )
            )
                return (
                    new Field<string>(
                        address.Words,
                        0.8m,
                        $"“{fresh.Substring(at, name.Length)}”, an address of theirs",
                        [new Evidence(part, at, name.Length)]
                    ),
                    address.Country
                );
        }
        var m = grammar.DeliverTo.Match(fresh);
        if (!m.Success)
            return (Field<string>.Missing, null);
        // When it is wanted is no part of where: "to the slip by Friday".
        var place = m.Groups["where"].Value;
        if (
            DateWords
                .All(fresh, written, grammar.Language)
                .Select(d => d.Start - m.Groups["where"].Index)
                .Where(at => at > 0 && at < place.Length)
                .Order()
                .Cast<int?>()
                .FirstOrDefault() is
            { } when
        )
            place = grammar.ByAtEnd.Replace(place[..when], "");
        place = place.TrimEnd(' ', ',', '-', '\t');
        return place.Length < 4
            ? (Field<string>.Missing, null)
            : (
                new Field<string>(
                    place.Trim(),
                    0.6m,
                    $"“{Grammar.Short(m.Value)}”",
                    [new Evidence(part, m.Groups["where"].Index, place.Length)]
                ),
                null
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

    [GeneratedRegex(@"\bQ\d\d-\d{5}\b")]
    private static partial Regex OurQuote();

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
