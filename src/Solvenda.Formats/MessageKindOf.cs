using System.Text;

namespace Solvenda.Formats;

/// <summary>The syntaxes that can be told apart at the door.</summary>
public enum Syntax
{
    Mail,
    X12,
    Unknown,
}

/// <summary>Tells what a message is from its own bytes; the name and content type that came with it are only hints.</summary>
public static class MessageKindOf
{
    // A part of the bytes is enough to know by.
    private const int LookAt = 4096;

    public static Syntax Tell(ReadOnlySpan<byte> raw, string? filename)
    {
        var text = Encoding.Latin1.GetString(raw[..Math.Min(raw.Length, LookAt)]).TrimStart('\uFEFF', ' ', '\r', '\n', '\t', '\u00EF', '\u00BB', '\u00BF');
        if (text.StartsWith("ISA", StringComparison.Ordinal) && text.Length > 3 && !char.IsLetterOrDigit(text[3]))
            return Syntax.X12;
        if (LooksLikeMail(text))
            return Syntax.Mail;
        return filename is not null && filename.EndsWith(".eml", StringComparison.OrdinalIgnoreCase) && !text.Contains('\0', StringComparison.Ordinal) ? Syntax.Mail : Syntax.Unknown;
    }

    // Header lines, one of which says who it is from.
    private static bool LooksLikeMail(string text)
    {
        var head = text.Split(["\r\n\r\n", "\n\n"], 2, StringSplitOptions.None)[0];
        var lines = head.Split('\n');
        return lines.Any(l => l.StartsWith("From:", StringComparison.OrdinalIgnoreCase)) && lines[0].Contains(':', StringComparison.Ordinal) && !head.Contains('\0', StringComparison.Ordinal);
    }
}
