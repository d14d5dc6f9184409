using System.Text;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;

namespace Solvenda.Formats;

/// <summary>
/// Tells the interchanges of a file apart: some put several behind each other, each with delimiters of its own.
/// </summary>
public static class Interchanges
{
    /// <summary>Nobody sends a file with more; what is beyond is part of the last.</summary>
    public const int Most = 100;

    /// <summary>Where each begins and how long it is, in bytes.</summary>
    public static IReadOnlyList<(int Start, int Length)> In(byte[] raw, bool isX12)
    {
        ArgumentNullException.ThrowIfNull(raw);
        // One character a byte, so that places are those of the bytes; delimiters are ASCII in every character set.
        var text = Encoding.Latin1.GetString(raw);
        var found = new List<(int Start, int Length)>();
        var start = 0;
        while (
            found.Count < Most - 1
            && EndOf(text[start..], isX12) is { } length
            && Begins(text, start + length, isX12) is { } next
        )
        {
            found.Add((start, next - start));
            start = next;
        }
        found.Add((start, raw.Length - start));
        return found;
    }

    /// <summary>The bytes of each.</summary>
    public static IEnumerable<byte[]> Of(byte[] raw, bool isX12)
    {
        var found = In(raw, isX12);
        return found.Count == 1 ? [raw] : found.Select(f => raw[f.Start..(f.Start + f.Length)]);
    }

    // Where the trailer of the first one ends; null where it has none.
    private static int? EndOf(string text, bool isX12)
    {
        var (x, _) = isX12 ? X12Interchange.Open(text) : EdifactInterchange.Open(text);
        return x?.Segments.FirstOrDefault(s => s.Is(isX12 ? "IEA" : "UNZ")) is { } trailer
            ? Math.Min(text.Length, trailer.Start + trailer.Length + 1)
            : null;
    }

    // Behind blanks and line ends another one begins; anything else is nothing of the kind.
    private static int? Begins(string text, int at, bool isX12)
    {
        while (at < text.Length && char.IsWhiteSpace(text[at]))
            at++;
        var rest = text.AsSpan(at);
        return isX12
            ? rest.StartsWith("ISA", StringComparison.Ordinal)
                ? at
                : null
            : rest.StartsWith("UNA", StringComparison.Ordinal) || rest.StartsWith("UNB", StringComparison.Ordinal)
                ? at
                : null;
    }
}
