using System.Globalization;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>The ways in which terms are read, each with its bounds.</summary>
internal static class TermReading
{
    public static Func<string, DoorFacts, Taken> Words(int most) =>
        (text, _) =>
            text.Length > most
                ? new Taken(null, new Refusal("too_long", $"That is longer than {most} letters"))
                : new Taken(text);

    public static Func<string, DoorFacts, Taken> Whole(int most, string what) =>
        (text, _) =>
            int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number <= most
                ? new Taken(number.ToString(CultureInfo.InvariantCulture))
                : new Taken(null, new Refusal("number", $"“{text}” is not {what} up to {most}"));

    public static Func<string, DoorFacts, Taken> Amount(decimal most) =>
        (text, facts) =>
            Numbers.Read(text) switch
            {
                null => new Taken(null, new Refusal("number", $"“{text}” is not a number")),
                < 0m => new Taken(null, new Refusal("number", "That is not negative")),
                { } number when number > most => new Taken(
                    null,
                    new Refusal("number", string.Create(CultureInfo.InvariantCulture, $"At most {most:#,0}"))
                ),
                { } number => new Taken(HeadTerms.Canonical(Money.Amount.Round(number, facts.Currency).Value)),
            };

    public static Func<string, DoorFacts, Taken> Day(Func<DoorFacts, DateOnly> first, Func<DoorFacts, DateOnly> last) =>
        (text, facts) =>
        {
            if (Dates.Read(text, facts.Today) is not { } day)
                return new Taken(null, new Refusal("date", $"“{text}” is not a date"));
            return day < first(facts) || day > last(facts)
                ? new Taken(
                    null,
                    new Refusal(
                        "date",
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"That day is between {first(facts):d MMM yyyy} and {last(facts):d MMM yyyy}"
                        )
                    )
                )
                : new Taken(day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        };

    /// <summary>What must exist: picked by its words, in whatever case.</summary>
    public static Func<string, DoorFacts, Taken> OneOf(
        Func<DoorFacts, IEnumerable<string>> all,
        string what,
        string code
    ) =>
        (text, facts) =>
            all(facts).FirstOrDefault(w => string.Equals(w, text, StringComparison.OrdinalIgnoreCase)) is { } found
                ? new Taken(found)
                : new Taken(null, new Refusal(code, $"“{text}” is none of {what}: {string.Join(", ", all(facts))}"));

    public static Func<DoorFacts, IEnumerable<TermChoice>> Places(string use) =>
        facts =>
            facts
                .Places.Where(p => p.Use == use)
                .Select(p => new TermChoice(
                    p.Words,
                    $"{p.Code}, {p.Country}{(p.ReceivingDays.Length > 0 ? $", receives {p.ReceivingDays}" : "")}"
                ));

    /// <summary>An address of the buyer's, by its code or its words.</summary>
    public static Func<string, DoorFacts, Taken> Place(string use) =>
        (text, facts) =>
        {
            var place = facts.Places.FirstOrDefault(p =>
                p.Use == use
                && (
                    string.Equals(p.Code, text, StringComparison.OrdinalIgnoreCase)
                    || string.Equals(p.Words, text, StringComparison.OrdinalIgnoreCase)
                )
            );
            if (place is null)
                return new Taken(
                    null,
                    new Refusal(
                        "address_unknown",
                        $"“{text}” is none of {facts.Buyer.Name}’s addresses; put it in under Addresses first"
                    )
                );
            return use == "deliver-to"
                ? new Taken(place.Words, null, [("deliverToCountry", place.Country)])
                : new Taken(place.Words);
        };
}
