using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Corrects a field of the head of a reading: kind, buyer (its id), contact, poNumber, reference, wanted, deliverTo,
/// incoterm, incotermPlace, currency, paymentDays. A date may be in the words of the original.
/// </summary>
/// <param name="Where">Where in the original it stands, if it was chosen there.</param>
public sealed record CorrectField(string Request, long Version, string Field, string Value, EvidenceView? Where)
    : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class CorrectFieldAct : ReadingAct<CorrectField>
{
    private const int MostLetters = 300;

    protected override async Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        CorrectField input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var value = string.IsNullOrWhiteSpace(input.Value) ? null : input.Value.Trim();
        if (value?.Length > MostLetters)
            throw RefusedException.Bad("too_long", "That is too long; the old one was kept.", input.Field);
        FieldView Settled(string? text) => FieldView.SettledBy(work.Actor.Name, text, input.Where);
        var after = input.Field switch
        {
            "kind" => reading.As(KindOf(value)) with { KindSure = 1m, KindSettledBy = work.Actor.Name },
            "buyer" => await BuyerAsync(work, reading, value, Settled, cancel),
            "contact" => reading with { Contact = Settled(value) },
            "poNumber" => reading with { PoNumber = Settled(value) },
            "reference" => reading with { Reference = Settled(value) },
            "deliverTo" => reading with { DeliverTo = Settled(value), DeliverToCountry = null },
            "incoterm" => reading with { Incoterm = Settled(IncotermOf(value)) },
            "incotermPlace" => reading with { IncotermPlace = Settled(value) },
            "currency" => reading with { Currency = Settled(CurrencyOf(value)) },
            "paymentDays" => reading with { PaymentDays = Settled(DaysOf(value)) },
            "wanted" => reading with { Wanted = Settled(value is null ? null : DayOf(value, reading, request)) },
            _ => throw RefusedException.Bad("field_unknown", $"There is no field “{input.Field}”.", input.Field),
        };
        // Words that were taken for a field are explained by it.
        after = input.Where is { } where ? after.Explaining(where) : after;
        return (after, new ReadingCorrected("corrected", null, input.Field, null, value));
    }

    private static MessageKind KindOf(string? value) =>
        Enum.GetNames<MessageKind>().FirstOrDefault(n => n.Equals(value, StringComparison.OrdinalIgnoreCase))
            is { } name
            ? Enum.Parse<MessageKind>(name)
            : throw RefusedException.Bad("kind_unknown", $"“{value}” is nothing that a message can be.", "kind");

    private static async Task<ReadingView> BuyerAsync(
        Work work,
        ReadingView reading,
        string? value,
        Func<string?, FieldView> settled,
        CancellationToken cancel
    )
    {
        var buyer = long.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var id)
            ? await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
            : null;
        return buyer is null
            ? throw RefusedException.Bad("buyer_unknown", "We have no such buyer.", "buyer")
            : reading with
            {
                BuyerId = buyer.Id,
                Buyer = settled(buyer.Name),
                BuyerCandidates = [],
            };
    }

    private static string? IncotermOf(string? value)
    {
        var term = value?.ToUpperInvariant();
        return term is null || Incoterms.Is(term)
            ? term
            : throw RefusedException.Bad(
                "incoterm",
                $"“{value}” is not one of the Incoterms 2020; the old one was kept.",
                "incoterm"
            );
    }

    private static string? CurrencyOf(string? value)
    {
        var code = value?.ToUpperInvariant();
        return code is null || Currency.TryOf(code, out _)
            ? code
            : throw RefusedException.Bad(
                "currency_unknown",
                $"“{value}” is not a currency; the old one was kept.",
                "currency"
            );
    }

    private static string? DaysOf(string? value) =>
        value is null
        || (
            int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var days)
            && days <= HeadTerms.MostPaymentDays
        )
            ? value
            : throw RefusedException.Bad(
                "number",
                $"“{value}” is not a number of days; the old one was kept.",
                "paymentDays"
            );

    // As typed into a field of dates, or as it stands in the original.
    private static string DayOf(string text, ReadingView reading, RequestRow request)
    {
        if (DateOnly.TryParseExact(text, "yyyy-MM-dd", out _))
            return text;
        var language = Language.All.FirstOrDefault(l => l.Code == reading.Language) ?? Language.English;
        var written = DateOnly.FromDateTime(request.ReceivedAt);
        var found = DateWords
            .All(text, written, language)
            .Concat(DateWords.All($"by {text}", written, language))
            .FirstOrDefault();
        return found is { Sure: >= Reading.UnsureDate }
            ? found.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
            : throw RefusedException.Bad(
                "date",
                $"“{text}” is not a date that we can read; the old one was kept.",
                "wanted"
            );
    }
}
