using System.Text;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>Writes text into segments: what means something to the syntax is released.</summary>
internal static class EdifactText
{
    // No element of the directories has more (C080 of NAD has six).
    private const int MostComponents = 8;

    /// <summary>An identification with its qualifier, where it has one.</summary>
    public static string Party(string id, string qualifier) =>
        Clean(id) + (qualifier.Length > 0 ? ":" + Clean(qualifier) : "");

    /// <summary>Without control characters, and with what means something released.</summary>
    public static string Clean(string text)
    {
        var plain = new StringBuilder(text.Length);
        foreach (var c in text.Where(c => !char.IsControl(c)))
        {
            if (c is '+' or ':' or '\'' or '?')
                plain.Append('?');
            plain.Append(c);
        }
        return plain.ToString();
    }

    /// <summary>A segment of theirs, in the usual service characters.</summary>
    public static string Again(Segment segment)
    {
        var text = new StringBuilder(segment.Tag);
        for (var element = 1; element <= segment.Elements; element++)
        {
            var parts = Enumerable.Range(1, MostComponents).Select(c => Clean(segment[element, c])).ToList();
            text.Append('+').AppendJoin(':', parts[..(parts.FindLastIndex(p => p.Length > 0) + 1)]);
        }
        return text.ToString();
    }
}
