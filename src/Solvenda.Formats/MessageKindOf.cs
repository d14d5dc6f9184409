using System.Text;
using Solvenda.Formats.Tables;

namespace Solvenda.Formats;

/// <summary>The syntaxes that can be told apart at the door.</summary>
public enum Syntax
{
    Mail,
    X12,
    Edifact,
    Xml,
    Json,
    Workbook,
    Csv,
    Pdf,
    Picture,
    Html,
    Text,
    Unknown,
}

/// <summary>
/// Tells what a message is from its own bytes; the name and content type that came with it are only hints.
/// </summary>
public static class MessageKindOf
{
    private static readonly char[] Marks = [';', '\t', '|'];

    // A part of the bytes is enough to know by.
    private const int LookAt = 4096;

    public static Syntax Tell(ReadOnlySpan<byte> raw, string? filename)
    {
        if (raw.StartsWith("PK\u0003\u0004"u8))
            return IsSheets(raw, filename) ? Syntax.Workbook : Syntax.Unknown;
        if (CompoundFile.Is(raw))
            return CompoundFile.IsWorkbook(raw) ? Syntax.Workbook : Syntax.Unknown;
        if (RichText.Is(raw))
            return Syntax.Text;
        if (raw[..Math.Min(raw.Length, 1024)].IndexOf("%PDF-"u8) >= 0)
            return Syntax.Pdf;
        if (IsPicture(raw))
            return Syntax.Picture;
        var head = raw[..Math.Min(raw.Length, LookAt)];
        var text = (
            head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) ? Encoding.Unicode.GetString(head)
            : head.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]) ? Encoding.BigEndianUnicode.GetString(head)
            : Encoding.Latin1.GetString(head)
        ).TrimStart('\uFEFF', ' ', '\r', '\n', '\t', '\u00EF', '\u00BB', '\u00BF');
        if (text.StartsWith("ISA", StringComparison.Ordinal) && text.Length > 3 && !char.IsLetterOrDigit(text[3]))
            return Syntax.X12;
        if (
            (text.StartsWith("UNA", StringComparison.Ordinal) || text.StartsWith("UNB", StringComparison.Ordinal))
            && text.Length > 8
            && !char.IsLetterOrDigit(text[3])
        )
            return Syntax.Edifact;
        if (text.StartsWith('<'))
            return IsHtml(text) ? Syntax.Html : Syntax.Xml;
        if (text.StartsWith('{') || (text.StartsWith('[') && text.Contains('{', StringComparison.Ordinal)))
            return Syntax.Json;
        if (LooksLikeMail(text))
            return Syntax.Mail;
        if (text.Contains('\0', StringComparison.Ordinal) || text.Length == 0)
            return Syntax.Unknown;
        return Path.GetExtension(filename ?? "").ToLowerInvariant() switch
        {
            ".eml" => Syntax.Mail,
            ".csv" or ".tsv" or ".tab" => Syntax.Csv,
            ".txt" => LooksLikeTable(text) ? Syntax.Csv : Syntax.Text,
            _ => LooksLikeTable(text) ? Syntax.Csv
            : IsWords(text) ? Syntax.Text
            : Syntax.Unknown,
        };
    }

    // A text document and an archive are packed in the same way; a workbook says so inside, or in its name.
    private static bool IsSheets(ReadOnlySpan<byte> raw, string? filename) =>
        OpenSheet.Is(raw)
        || raw.IndexOf("xl/"u8) >= 0
        || Path.GetExtension(filename ?? "").ToLowerInvariant() is ".xlsx" or ".xlsm";

    // XHTML begins as XML does.
    private static bool IsHtml(string text) =>
        text.StartsWith("<!doctype html", StringComparison.OrdinalIgnoreCase)
        || text.Contains("<html", StringComparison.OrdinalIgnoreCase)
        || text.StartsWith("<table", StringComparison.OrdinalIgnoreCase)
        || text.StartsWith("<body", StringComparison.OrdinalIgnoreCase);

    private static bool IsPicture(ReadOnlySpan<byte> raw) =>
        raw.StartsWith((ReadOnlySpan<byte>)[0x89, (byte)'P', (byte)'N', (byte)'G'])
        || raw.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF])
        || raw.StartsWith("GIF8"u8)
        || raw.StartsWith("II*\0"u8)
        || raw.StartsWith("MM\0*"u8);

    // Header lines, one of which says who it is from.
    private static bool LooksLikeMail(string text)
    {
        var head = text.Split(["\r\n\r\n", "\n\n"], 2, StringSplitOptions.None)[0];
        var lines = head.Split('\n');
        return lines.Any(l => l.StartsWith("From:", StringComparison.OrdinalIgnoreCase))
            && lines[0].Contains(':', StringComparison.Ordinal)
            && !head.Contains('\0', StringComparison.Ordinal);
    }

    // Most lines are cut alike by one sign.
    private static bool LooksLikeTable(string text)
    {
        var lines = text.Split('\n').SkipLast(1).Where(l => l.Trim().Length > 0).Take(20).ToList();
        return lines.Count >= 2
            && Marks.Any(s => lines.Count(l => l.Contains(s, StringComparison.Ordinal)) * 3 >= lines.Count * 2);
    }

    private static bool IsWords(string text) =>
        !text.Any(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t'))
        && text.Count(char.IsLetter) * 2 > text.Length;
}
