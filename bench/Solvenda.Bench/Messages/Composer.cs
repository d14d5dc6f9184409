using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Bench.Messages;

/// <summary>How prices stand in a table or an interchange.</summary>
internal enum Pricing
{
    None,
    ForOne,
    ForAHundred,
    WithDiscount,
}

/// <summary>
/// Makes up what somebody wants and how they put it: their kind of message, items, quantities and habits. The same seed
/// makes the same messages.
/// </summary>
internal sealed partial class Composer(MadeShelf shelf, Wordings say, Random random, bool apart)
{
    public static readonly DateOnly Written = new(2026, 11, 23);

    private static readonly (MessageKind Kind, string Wording)[] Others =
    [
        (MessageKind.Change, "change"),
        (MessageKind.Cancellation, "cancellation"),
        (MessageKind.Return, "return"),
        (MessageKind.Question, "question"),
        (MessageKind.Reminder, "reminder"),
        (MessageKind.Complaint, "complaint"),
        (MessageKind.AnswerToQuote, "answer"),
        (MessageKind.NotForUs, "ack"),
        (MessageKind.NotForUs, "newsletter"),
        (MessageKind.NotForUs, "office"),
        (MessageKind.NotForUs, "invoice"),
    ];

    public Random Random => random;
    public Wordings Say => say;
    public string Language => say.Language;

    /// <summary>Which buyer writes.</summary>
    public int Buyer { get; } = random.Next(shelf.Buyers.Length);

    public (Core.Buyers.BuyerId Id, string Name, string Contact, string Mail) Who => shelf.Buyers[Buyer];

    // Habits hold through one message.
    private readonly int _numbers = apart ? 2 : random.Next(2);
    private readonly int _dates = apart ? 4 + random.Next(2) : random.Next(4);
    private readonly int _codes = random.Next(4);
    private readonly int _line = apart ? 5 + random.Next(3) : random.Next(5);

    /// <summary>Whether what is structured says prices: none, for one, for a hundred, with a discount.</summary>
    public Pricing Prices { get; } = (Pricing)random.Next(4);

    public bool HasSlip { get; private set; }
    public DateOnly? Date { get; private set; }
    public string Po { get; } =
        random.Next(4) switch
        {
            0 => FormattableString.Invariant($"{random.Next(1000, 99999)}"),
            1 => FormattableString.Invariant($"4500-{random.Next(1000, 9999)}"),
            2 => FormattableString.Invariant($"PO-{random.Next(100, 9999)}"),
            _ => FormattableString.Invariant($"{random.Next(10, 99)}/2026/{random.Next(100, 999)}"),
        };

    public ImmutableArray<TrueLine> Lines(bool withUnknown)
    {
        var lines = ImmutableArray.CreateBuilder<TrueLine>();
        var count = 1 + random.Next(random.Next(4) == 0 ? 12 : 4);
        for (var i = 0; i < count; i++)
        {
            var item = shelf.Items[random.Next(shelf.Items.Length)];
            var unit = item.SalesUnits.Length > 0 && random.Next(4) == 0 ? item.SalesUnits[0].Unit : item.StockUnit;
            if (unit.Code is not ("MTR" or "C62" or "CL" or "BX" or "MTK"))
                unit = item.StockUnit;
            var quantity =
                unit == Unit.Metre || unit == Unit.SquareMetre
                    ? random.Next(6) == 0
                        ? random.Next(20, 400) / 2m
                        : random.Next(1, 60) * (random.Next(5) == 0 ? 100m : 5m)
                    : random.Next(1, random.Next(5) == 0 ? 500 : 40);
            if (lines.All(l => l.Item?.Id != item.Id))
                lines.Add(new TrueLine(item, Words(item), quantity, unit) { Gross = random.Next(20, 9_000) / 20m });
        }
        if (withUnknown && random.Next(5) == 0)
        {
            var text = say.One("unknown", random);
            var (number, words) = (Leading().Match(text).Value, Leading().Replace(text, "").Trim());
            lines.Insert(
                random.Next(lines.Count + 1),
                new TrueLine(null, words, decimal.Parse(number, CultureInfo.InvariantCulture), Unit.Piece)
            );
        }
        return lines.ToImmutable();
    }

    /// <summary>Anything but an order and a request for prices, as it is said; null for those two.</summary>
    public (MessageKind Kind, string Text) Other()
    {
        var (kind, wording) = Others[random.Next(Others.Length)];
        return (kind, Filled(say.One(wording, random)));
    }

    public string Filled(string text)
    {
        var date = text.Contains("{d}", StringComparison.Ordinal) ? Day(Some()) : "";
        return text.Replace("{change2}", say.One("changes2", random), StringComparison.Ordinal)
            .Replace("{change}", say.One("changes", random), StringComparison.Ordinal)
            .Replace("{po}", Po, StringComparison.Ordinal)
            .Replace("{oldpo}", FormattableString.Invariant($"{random.Next(1000, 9999)}-A"), StringComparison.Ordinal)
            .Replace("{ref}", FormattableString.Invariant($"RF-{random.Next(100, 999)}"), StringComparison.Ordinal)
            .Replace(
                "{order}",
                FormattableString.Invariant($"S26-{random.Next(100, 999):00000}"),
                StringComparison.Ordinal
            )
            .Replace(
                "{quote}",
                FormattableString.Invariant($"Q26-{random.Next(1, 99):00000}"),
                StringComparison.Ordinal
            )
            .Replace("{item}", Words(shelf.Items[random.Next(shelf.Items.Length)]), StringComparison.Ordinal)
            .Replace("{d}", date, StringComparison.Ordinal)
            .Replace("{name}", Who.Contact, StringComparison.Ordinal)
            .Replace("{firm}", Who.Name, StringComparison.Ordinal)
            .Replace(
                "{phone}",
                FormattableString.Invariant($"+353 1 555 {random.Next(1000, 9999)}"),
                StringComparison.Ordinal
            );
    }

    /// <summary>When it is wanted, in words; empty for a message that does not say.</summary>
    public string Wanted()
    {
        if (random.Next(5) == 0)
            return "";
        Date = Some();
        return say.One("date", random).Replace("{d}", Day(Date.Value), StringComparison.Ordinal);
    }

    /// <summary>What it was wanted by is not said after all.</summary>
    public void SaidNoDate() => Date = null;

    private DateOnly Some() => Written.AddDays(random.Next(7, 60));

    public string Day(DateOnly day)
    {
        var culture = CultureInfo.GetCultureInfo(
            Language == "no" ? "nb"
            : Language == "en" ? "en-GB"
            : Language
        );
        return _dates switch
        {
            0 => day.ToString(
                Language == "de" || Language == "no" ? "d. MMMM"
                    : Language == "es" ? "d 'de' MMMM"
                    : "d MMMM",
                culture
            ),
            1 => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            2 => day.ToString("dd.MM.yyyy", CultureInfo.InvariantCulture),
            3 => day.ToString(
                Language == "es" ? "d 'de' MMMM 'de' yyyy"
                    : Language is "de" or "no" ? "d. MMMM yyyy"
                    : "d MMMM yyyy",
                culture
            ),
            4 => day.ToString(
                Language == "de" || Language == "no" ? "dddd d. MMMM"
                    : Language == "es" ? "dddd d 'de' MMMM"
                    : "dddd d MMMM",
                culture
            ),
            _ => day.ToString("dd/MM/yyyy", CultureInfo.InvariantCulture),
        };
    }

    public string Number(decimal number)
    {
        var comma = Language != "en";
        var text = _numbers switch
        {
            0 => number.ToString("0.####", CultureInfo.InvariantCulture),
            1 => number.ToString("0.####", CultureInfo.InvariantCulture),
            _ => number.ToString(number == Math.Floor(number) ? "#,##0" : "#,##0.##", CultureInfo.InvariantCulture),
        };
        return comma
            ? text.Replace(",", " ", StringComparison.Ordinal).Replace(".", ",", StringComparison.Ordinal)
            : text;
    }

    /// <summary>The words or the code for an item, as this buyer calls it.</summary>
    public string Words(Item item)
    {
        if (_codes == 0 || (_codes == 1 && random.Next(2) == 0))
            return item.Code;
        var words = (random.Next(3) == 0 ? item.WordsIn("en") : item.WordsIn(Language)).Replace(
            ",",
            "",
            StringComparison.Ordinal
        );
        words = Parenthesis().Replace(words, "").Trim();
        if (random.Next(3) == 0)
            words = Millimetres().Replace(words, "$1mm");
        if (random.Next(14) == 0)
            words = Slipped(words);
        return _codes == 1 ? $"{item.Code} {words}" : words;
    }

    // Two letters change places, as fast fingers do.
    private string Slipped(string words)
    {
        var at = Enumerable
            .Range(0, words.Length - 1)
            .Where(i => char.IsLetter(words[i]) && char.IsLetter(words[i + 1]) && words[i] != words[i + 1])
            .ToList();
        if (at.Count == 0)
            return words;
        HasSlip = true;
        var i = at[random.Next(at.Count)];
        return string.Concat(words.AsSpan(0, i), $"{words[i + 1]}{words[i]}", words.AsSpan(i + 2));
    }

    /// <summary>The lines as they stand in a letter.</summary>
    public string InText(ImmutableArray<TrueLine> lines)
    {
        string Of(TrueLine line)
        {
            var unit = line.Item is null ? "" : say.Unit(line.Unit.Code, random);
            var many = unit.Length > 0 ? $"{Number(line.Quantity)} {unit}" : Number(line.Quantity);
            return _line switch
            {
                0 => $"- {many} {line.Said}",
                1 => $"{line.Said}: {many}",
                2 => $"{many} {line.Said}",
                3 =>
                    $"{Number(line.Quantity)}{(unit.Length > 0 && line.Unit != Unit.Piece ? " " + unit : "x")} {line.Said}",
                4 => $"* {line.Said} - {many}",
                5 => $"{many} {line.Said}",
                6 => $"{line.Said} = {many}",
                _ => $"• {many} {line.Said}",
            };
        }
        var said = lines.Select(Of).ToList();
        // In one sentence, or each in a line of its own.
        return _line == 2 && said.Count < 5
            ? string.Join(", ", said[..^1]) + (said.Count > 1 ? " " + And() + " " : "") + said[^1]
            : "\n" + string.Join('\n', said.Select((s, i) => _line == 5 ? $"{i + 1}) {s}" : s));
    }

    private string And() =>
        Language switch
        {
            "de" => "und",
            "sv" => "och",
            "no" or "da" => "og",
            "nl" => "en",
            "es" => "y",
            "fr" => "et",
            _ => "and",
        };

    [GeneratedRegex(@"^\d+")]
    private static partial Regex Leading();

    [GeneratedRegex(@"\(.*?\)")]
    private static partial Regex Parenthesis();

    [GeneratedRegex(@"(\d) mm")]
    private static partial Regex Millimetres();
}
