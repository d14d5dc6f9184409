using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Bench.Messages;

/// <summary>What became of the values of one kind: the four things that can.</summary>
internal sealed class Tally
{
    public int Right { get; set; }
    public int Missing { get; set; }
    public int Asked { get; set; }
    public int SureButWrong { get; set; }
    public int Sure { get; set; }

    public int All => Right + Missing + Asked + SureButWrong;
}

/// <summary>Compares readings with what was meant, value by value.</summary>
internal sealed class Score
{
    /// <summary>By form, by language and by field.</summary>
    public SortedDictionary<string, Tally> By { get; } = new(StringComparer.Ordinal);

    /// <summary>Of the values that said so (in tenths), how many there were and how many were right.</summary>
    public (int All, int Right)[] Calibration { get; } = new (int, int)[11];

    private const int MostShown = 4_000;

    public int Messages { get; private set; }
    public int Clean { get; private set; }
    public int CleanButAsked { get; private set; }
    public int LinesMeant { get; private set; }
    public int LinesFoundOrAsked { get; private set; }
    public int MadeUp { get; private set; }
    public int FalseLeftOvers { get; private set; }
    public List<string> Worst { get; } = [];

    /// <summary>Why clean messages needed somebody, and how often.</summary>
    public SortedDictionary<string, int> Asks { get; } = new(StringComparer.Ordinal);

    public Tally Whole => By["all"];

    /// <summary>Orders without slips.</summary>
    public int CleanOrders { get; private set; }

    /// <summary>Of them, those that reading lets go through untouched by the demo's rules.</summary>
    public int CleanThrough { get; private set; }

    /// <summary>All that would go through, with slips and of whatever kind they were meant.</summary>
    public int Through { get; private set; }

    /// <summary>Of those, the ones in which anything is otherwise than it was meant.</summary>
    public int ThroughWrong { get; private set; }

    /// <summary>Of which form those were and what of them is wrong, and how often; nothing of what they say.</summary>
    public SortedDictionary<string, int> WrongIn { get; } = new(StringComparer.Ordinal);

    private readonly SortedSet<string> _wrongNow = new(StringComparer.Ordinal);

    public void Add(MadeMessage made, IReadOnlyList<Reading?> readings)
    {
        _wrongNow.Clear();
        Compare(made, readings);
        var reading = readings.Count == 1 ? readings[0] : null;
        var through = reading is not null && GoesThrough(reading);
        if (!made.HasSlip && made.Truth.Kind == MessageKind.Order && made.Truth.Lines.All(l => l.Item is not null))
        {
            CleanOrders++;
            CleanThrough += through ? 1 : 0;
        }
        if (!through)
            return;
        Through++;
        if (_wrongNow.Count == 0 && made.Truth.Kind == MessageKind.Order)
            return;
        ThroughWrong++;
        var wrong = $"{made.Form}, {made.Truth.Kind}: {string.Join(" and ", _wrongNow)}";
        Worst.Insert(0, $"through but wrong: {made.Form} {made.Language} [{made.Name}]");
        WrongIn[wrong] = WrongIn.GetValueOrDefault(wrong) + 1;
    }

    // By what the house says of a way where nobody said otherwise: each value 90 % sure, and nothing left open.
    private static bool GoesThrough(Reading reading) =>
        reading.Kind == MessageKind.Order
        && !reading.NeedsYou
        && Weighed
            .Of(
                new WeighFacts(
                    reading.Kind,
                    reading.Buyer.Sure > 0,
                    [
                        ("who", reading.Buyer.Sure),
                        ("what", reading.KindSure),
                        .. reading.PoNumber.Value is null
                            ? Array.Empty<(string, decimal)>()
                            : [("PO", reading.PoNumber.Sure)],
                        .. reading.Wanted.Value is null
                            ? Array.Empty<(string, decimal)>()
                            : [("day", reading.Wanted.Sure)],
                    ],
                    [
                        .. reading.Lines.Select(l => new WeighedLine(
                            l.Words,
                            Math.Min(l.Item.Sure, Math.Min(l.Quantity.Sure, l.Unit.Sure)),
                            l.Item.Value.Value > 0
                        )),
                    ],
                    [.. reading.LeftOvers.Select(l => l.Words)],
                    null,
                    false,
                    []
                )
            )
            .By(WayRules.Usual with { Through = true })
            .IsEmpty;

    private void Compare(MadeMessage made, IReadOnlyList<Reading?> readings)
    {
        Messages++;
        var reading = readings.Count == 1 ? readings[0] : readings.FirstOrDefault(r => r is not null);
        var truth = made.Truth;
        // What we do not sell is for a person, however cleanly it is written.
        if (!made.HasSlip && truth.Lines.All(l => l.Item is not null))
        {
            Clean++;
            if (
                reading is null
                || (reading.NeedsYou && truth.Kind is MessageKind.Order or MessageKind.RequestForQuotation)
            )
            {
                CleanButAsked++;
                Asks[Reason(reading)] = Asks.GetValueOrDefault(Reason(reading)) + 1;
                if (reading?.Lines.FirstOrDefault(l => l.NeedsYou) is { } open && Worst.Count < MostShown)
                    Worst.Add(
                        $"{made.Form} {made.Language} asked: “{open.Words}” {open.Quantity.Value} {open.Unit.Value.Code}: {open.Item.How}; {open.Quantity.How}; {open.Unit.How} [{made.Name}]"
                    );
            }
        }
        if (reading is null)
        {
            LinesMeant += truth.Lines.Length;
            Value(made, "kind", false, false, 0m, "not read at all");
            return;
        }
        if (reading.Kind != truth.Kind && reading.KindSure >= ReadLine.SureEnough)
        {
            var mixed = $"{truth.Kind} as {reading.Kind} in {made.Language}";
            Mixed[mixed] = Mixed.GetValueOrDefault(mixed) + 1;
        }
        Value(made, "kind", reading.Kind == truth.Kind, true, reading.KindSure, $"{reading.Kind}, meant {truth.Kind}");
        if (truth.Kind is not (MessageKind.Order or MessageKind.RequestForQuotation))
        {
            // No order may be made of it without a word.
            return;
        }
        if (made.Form != "json")
            Field(
                made,
                "buyer",
                reading.Buyer.Value.Value == truth.Buyer + 1L,
                reading.Buyer.Sure > 0,
                reading.Buyer.Sure,
                $"{reading.Buyer.Value.Value}"
            );
        Field(
            made,
            "po",
            reading.PoNumber.Value is { } po ? PoKey.Of(po) : null,
            truth.PoNumber is { } meant ? PoKey.Of(meant) : null,
            reading.PoNumber.Sure
        );
        Field(
            made,
            "wanted",
            reading.Wanted.Value?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            truth.Wanted?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            reading.Wanted.Sure
        );
        Lines(made, reading);
    }

    /// <summary>Kinds that were taken for others, surely, and how often.</summary>
    public SortedDictionary<string, int> Mixed { get; } = new(StringComparer.Ordinal);

    private static string Reason(Reading? reading) =>
        reading switch
        {
            null => "not read",
            { Buyer.Sure: < ReadLine.SureEnough } => "buyer",
            { KindSure: < ReadLine.SureEnough } => "kind",
            { PoNumber.Sure: > 0 and < ReadLine.SureEnough } => "their number",
            { LeftOvers.IsEmpty: false } => "left over",
            { Lines.IsEmpty: true } => "no lines",
            _ => reading.Lines.Any(l => l.Item.Sure < ReadLine.SureEnough) ? "item"
            : reading.Lines.Any(l => l.NeedsYou) ? "quantity or unit"
            : "date",
        };

    private void Lines(MadeMessage made, Reading reading)
    {
        var rest = reading.Lines.ToList();
        var overs = reading.LeftOvers.ToList();
        foreach (var line in made.Truth.Lines)
        {
            LinesMeant++;
            var found =
                rest.Find(r => ItemRight(r, line) && r.Quantity.Value == line.Quantity)
                ?? rest.Find(r => ItemRight(r, line))
                ?? rest.Find(r => r.Quantity.Value == line.Quantity);
            if (found is null)
            {
                var asked =
                    overs.RemoveAll(o =>
                        o.Words.Contains(line.Said, StringComparison.OrdinalIgnoreCase)
                        || Numbers(o.Words).Contains(line.Quantity)
                    ) > 0;
                LinesFoundOrAsked += asked ? 1 : 0;
                Value(made, "line", false, false, asked ? 0.1m : 0m, $"“{line.Said}” {line.Quantity} is not there");
                continue;
            }
            rest.Remove(found);
            LinesFoundOrAsked++;
            Value(
                made,
                "item",
                ItemRight(found, line),
                found.Item.Sure >= ReadLine.SureEnough || found.Item.Value.Value > 0,
                line.Item is null ? 1m - found.Item.Sure : found.Item.Sure,
                $"“{line.Said}” as {found.Item.Value.Value} {found.Item.How}"
            );
            Value(
                made,
                "quantity",
                found.Quantity.Value == line.Quantity,
                found.Quantity.Value is not null,
                found.Quantity.Sure,
                $"{found.Quantity.Value} for {line.Quantity} of “{line.Said}”"
            );
            if (line.Price is { } price)
                Value(
                    made,
                    "price",
                    found.Price is { } read && Math.Abs((read / found.PriceBase) - price) < 0.0001m,
                    found.Price is not null,
                    found.Quantity.Sure,
                    $"{found.Price} per {found.PriceBase} for {price} of “{line.Said}”"
                );
            if (line.Item is not null && made.Form != "json")
                Value(
                    made,
                    "unit",
                    found.Unit.Value == line.Unit,
                    true,
                    found.Unit.Sure,
                    $"{found.Unit.Value.Code} for {line.Unit.Code} of “{line.Said}”"
                );
        }
        foreach (var more in rest)
        {
            MadeUp++;
            Value(made, "made up", false, true, more.Sure, $"“{more.Words}” {more.Quantity.Value}");
        }
        FalseLeftOvers += overs.Count;
    }

    private static IEnumerable<decimal> Numbers(string text) =>
        System
            .Text.RegularExpressions.Regex.Matches(text, @"\d+(?:[.,]\d+)?")
            .Select(m => decimal.Parse(m.Value.Replace(',', '.'), CultureInfo.InvariantCulture));

    private static bool ItemRight(ReadLine read, TrueLine meant) =>
        meant.Item is { } item
            ? read.Item.Value == item.Id
            : read.Item.Sure < ReadLine.SureEnough && read.Words.Length > 0;

    private void Field(MadeMessage made, string field, string? read, string? meant, decimal sure)
    {
        if (meant is null && (read is null || sure == 0m))
            return;
        Field(made, field, read == meant, read is not null && sure > 0m, sure, $"{read}, meant {meant}");
    }

    private void Field(MadeMessage made, string field, bool right, bool there, decimal sure, string words) =>
        Value(made, field, right, there, sure, words);

    private void Value(MadeMessage made, string field, bool right, bool there, decimal sure, string words)
    {
        if (!right)
            _wrongNow.Add(field);
        var isSure = sure >= (field == "wanted" ? Reading.UnsureDate : ReadLine.SureEnough);
        foreach (var key in new[] { "all", $"form {made.Form}", $"in {made.Language}", $"field {field}" })
        {
            if (!By.TryGetValue(key, out var tally))
                By[key] = tally = new Tally();
            if (right)
                tally.Right++;
            else if (!there)
                tally.Missing++;
            else if (isSure)
                tally.SureButWrong++;
            else
                tally.Asked++;
            tally.Sure += there && isSure ? 1 : 0;
        }
        if (there)
        {
            var tenth = (int)Math.Clamp(sure * 10m, 0m, 10m);
            Calibration[tenth] = (Calibration[tenth].All + 1, Calibration[tenth].Right + (right ? 1 : 0));
        }
        if (!right && (isSure && there || !there) && Worst.Count < MostShown)
            Worst.Add($"{made.Form} {made.Language} {field}: {words} [{made.Name}]");
    }
}
