using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Edi;

/// <summary>
/// Takes values out of the segments of one message, and writes down a fault at its segment and element where one is not
/// what it has to be.
/// </summary>
public sealed class EdiValues(EdiMessage message, char decimalMark)
{
    /// <summary>Figures that contradict what else the message says.</summary>
    public List<LeftOver> Overs { get; } = [];

    /// <summary>Text of a component; null where it is empty.</summary>
    public static Stated<string>? Text(Segment? segment, int element, int component = 1) =>
        segment is not null && segment[element, component].Trim() is { Length: > 0 } text
            ? new Stated<string>(text, EdiInterchange.Where(segment, element, component))
            : null;

    /// <summary>A number; null where there is none, with a fault where something else stands there.</summary>
    public Stated<decimal>? Number(Segment segment, int element, int component = 1)
    {
        ArgumentNullException.ThrowIfNull(segment);
        var text = segment[element, component].Trim();
        if (text.Length == 0)
            return null;
        if (Parsed(decimalMark is '.' ? text : text.Replace(decimalMark, '.')) is { } number && !IsOther(text))
            return new Stated<decimal>(number, EdiInterchange.Where(segment, element, component));
        // The other sign than the one that the interchange names: what it most likely means is asked.
        if (text.Count(c => c is ',' or '.') == 1 && Parsed(text.Replace(',', '.')) is { } likely)
        {
            var where = EdiInterchange.Where(segment, element, component);
            Leave(
                new LeftOver(
                    text,
                    where,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The interchange names “{decimalMark}” as its decimal sign; this was read as {likely:0.######}."
                    )
                )
            );
            return new Stated<decimal>(likely, where);
        }
        Fault(FaultKind.NotANumber, $"“{text}” is not a number.", segment, element, component, text);
        return null;
    }

    // A point where the interchange says that a comma is the decimal sign: it may part thousands.
    private bool IsOther(string text) => decimalMark != '.' && text.Contains('.', StringComparison.Ordinal);

    private static decimal? Parsed(string plain) =>
        plain.Length <= 28
        && decimal.TryParse(
            plain,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;

    /// <summary>
    /// A date in one of the forms given; null where there is none, with a fault where something else stands there.
    /// </summary>
    public Stated<DateOnly>? Date(Segment segment, int element, int component, params ReadOnlySpan<string> forms)
    {
        ArgumentNullException.ThrowIfNull(segment);
        var text = segment[element, component].Trim();
        if (text.Length == 0)
            return null;
        foreach (var form in forms)
        {
            if (
                text.Length >= form.Length
                && DateOnly.TryParseExact(
                    text.AsSpan(0, form.Length),
                    form,
                    CultureInfo.InvariantCulture,
                    DateTimeStyles.None,
                    out var day
                )
            )
                return new Stated<DateOnly>(day, EdiInterchange.Where(segment, element, component));
        }
        Fault(FaultKind.NotADate, $"“{text}” is not a date.", segment, element, component, text);
        return null;
    }

    /// <summary>Writes a fault down where an element that has to be there is empty.</summary>
    public void Needs(Segment segment, int element, int component = 1)
    {
        ArgumentNullException.ThrowIfNull(segment);
        if (segment[element, component].Trim().Length == 0)
            Fault(FaultKind.ElementMissing, $"{segment.Tag}{element:00} is empty.", segment, element, component, "");
    }

    public void Fault(
        FaultKind kind,
        string words,
        Segment segment,
        int element = 0,
        int component = 0,
        string bad = ""
    )
    {
        ArgumentNullException.ThrowIfNull(segment);
        var position = 0;
        while (position < message.Segments.Count && message.Segments[position].Start < segment.Start)
            position++;
        var fault = new Fault(kind, words, position + 1, segment.Tag, element, component, bad);
        // A value may be looked at twice.
        if (!message.Faults.Contains(fault))
            message.Faults.Add(fault);
    }

    /// <summary>Where the parts of a line do not add up to it, that is left over: a person says which holds.</summary>
    public void AddUp(StatedLine line, List<StatedLine> parts, Segment head)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(parts);
        var sum = parts.Sum(p => p.Quantity?.Value ?? 0m);
        if (line.Quantity is { } stated && stated.Value != sum)
            Disagrees(
                stated,
                head,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Line {line.Number} says {stated.Value:0.######}; its parts add up to {sum:0.######}."
                )
            );
    }

    /// <summary>A figure that others contradict.</summary>
    public void Disagrees(Stated<decimal> stated, Segment segment, string why)
    {
        ArgumentNullException.ThrowIfNull(stated);
        Leave(
            new LeftOver(
                string.Create(CultureInfo.InvariantCulture, $"{stated.Value:0.######}"),
                stated.Where.Length > 0 ? stated.Where : EdiInterchange.Where(segment),
                why
            )
        );
    }

    private void Leave(LeftOver over)
    {
        if (!Overs.Contains(over))
            Overs.Add(over);
    }
}
