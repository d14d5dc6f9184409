using System.Globalization;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>What a head says of a term, and how the terms of its own kind are read.</summary>
public static partial class HeadTerms
{
    /// <summary>The text of a term; null where nothing is said.</summary>
    public static string? In(this HeadTerm term, Head head) => head.Text(term.Name);

    /// <summary>The number of a term; null where nothing is said.</summary>
    public static int? Whole(this HeadTerm term, Head head) =>
        head.Text(term.Name) is { } text ? int.Parse(text, CultureInfo.InvariantCulture) : null;

    /// <summary>When it is to be paid; null where nothing is said.</summary>
    public static PaymentPlan? PlanIn(Head head) =>
        PaymentDays.In(head) is { } text ? PaymentPlan.Read(text, out _) ?? PaymentPlan.Net(0) : null;

    private static Taken PlanOf(string text, DoorFacts facts) =>
        PaymentPlan.Read(text, out var fault) is { } plan
            ? new Taken(plan.ToString())
            : new Taken(null, new Refusal("number", $"Days to pay: {fault}"));

    /// <summary>The amount of a term, in the sheet's currency; null where nothing is said.</summary>
    public static decimal? Number(this HeadTerm term, Head head) =>
        head.Text(term.Name) is { } text ? decimal.Parse(text, CultureInfo.InvariantCulture) : null;

    /// <summary>The day of a term; null where nothing is said.</summary>
    public static DateOnly? Day(this HeadTerm term, Head head) =>
        head.Text(term.Name) is { } text ? DateOnly.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture) : null;

    /// <summary>The discount on the whole: a percentage ("5"), or an amount ("25.00 EUR").</summary>
    public static Pricing.SheetDiscount DiscountIn(Head head)
    {
        if (SheetDiscount.In(head) is not { } text)
            return Pricing.SheetDiscount.None;
        var number = decimal.Parse(text.Split(' ')[0], CultureInfo.InvariantCulture);
        return text.Contains(' ', StringComparison.Ordinal)
            ? new Pricing.SheetDiscount(null, number)
            : new Pricing.SheetDiscount(number, null);
    }

    private static Taken IncotermOf(string text, DoorFacts facts)
    {
        var term = text.ToUpperInvariant();
        if (!Incoterms.Is(term))
            return new Taken(null, new Refusal("incoterm", $"“{text}” is not one of the Incoterms 2020"));
        if (!facts.Incoterms.Contains(term) && facts.Buyer.Incoterm != term)
            return new Taken(
                null,
                new Refusal(
                    "incoterm",
                    $"The house does not sell by {term}; it sells by {string.Join(", ", facts.Incoterms)}"
                )
            );
        return term == Incoterms.DutyPaid && facts.Buyer.Incoterm != Incoterms.DutyPaid
            ? new Taken(
                null,
                new Refusal("incoterm", $"{term} makes us pay their duty; it is only for buyers who have it by default")
            )
            : new Taken(term);
    }

    // Tax and freight hang on the country, so it is one that goods of theirs go to.
    private static Taken CountryOf(string text, DoorFacts facts)
    {
        var country = text.ToUpperInvariant();
        if (country.Length != 2 || !country.All(char.IsAsciiLetter))
            return new Taken(null, new Refusal("country", "A country is two letters (ISO 3166-1)"));
        return facts.Places.Any(p => p.Use == "deliver-to" && p.Country == country)
            ? new Taken(country)
            : new Taken(
                null,
                new Refusal("country", $"No address of {facts.Buyer.Name}’s is in {country}; pick the address first")
            );
    }

    private static Taken DiscountOf(string text, DoorFacts facts)
    {
        var plain = text.TrimStart('\u2212', '-').Trim();
        if (plain.EndsWith(facts.Currency.Code, StringComparison.OrdinalIgnoreCase))
        {
            var amount = Numbers.Read(plain[..^facts.Currency.Code.Length].Trim());
            return amount is > 0 and <= MostFreight
                ? new Taken(
                    Canonical(Money.Amount.Round(amount.Value, facts.Currency).Value) + " " + facts.Currency.Code
                )
                : new Taken(null, new Refusal("number", "An amount off is above nothing, and at most a million"));
        }
        return Numbers.Read(plain.TrimEnd('%', ' ')) is not { } percent
            ? new Taken(null, new Refusal("number", $"“{text}” is not a number"))
            : percent switch
            {
                0m => new Taken(null),
                < 0m or > 100m => new Taken(
                    null,
                    new Refusal("number", "A discount on the sheet is between 0 and 100 %")
                ),
                _ => new Taken(Canonical(decimal.Round(percent, 4))),
            };
    }

    internal static string Canonical(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);
}
