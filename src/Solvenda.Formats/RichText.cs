using System.Globalization;
using System.Text;

namespace Solvenda.Formats;

/// <summary>The words of a document in Rich Text Format 1.9: text, paragraphs, tabs and cells; nothing else.</summary>
internal static class RichText
{
    private const int MostLetters = 2_000_000;

    // Groups that hold no words of the document.
    private static readonly HashSet<string> Silent =
    [
        "fonttbl",
        "colortbl",
        "stylesheet",
        "info",
        "pict",
        "object",
        "header",
        "footer",
        "generator",
        "listtable",
        "listoverridetable",
        "themedata",
        "xmlnstbl",
    ];

    // Letters and digits in the code pages that Windows programs write.
    static RichText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    public static bool Is(ReadOnlySpan<byte> raw) => raw.StartsWith("{\\rtf"u8);

    public static string Of(byte[] raw)
    {
        var text = Encoding.Latin1.GetString(raw);
        var (words, page) = (new StringBuilder(), Encoding.GetEncoding(1252));
        // Whether each open group is silent, and how many letters stand for one that is written by its number.
        var groups = new Stack<(bool Silent, int Skip)>([(false, 1)]);
        var skip = 0;
        for (var i = 0; i < text.Length && words.Length < MostLetters; )
        {
            var isSilent = groups.Peek().Silent;
            switch (text[i])
            {
                case '{':
                    groups.Push(groups.Peek());
                    i++;
                    break;
                case '}':
                    if (groups.Count > 1)
                        groups.Pop();
                    i++;
                    break;
                case '\\' when i + 3 < text.Length && text[i + 1] == '\'':
                    if (
                        byte.TryParse(
                            text.AsSpan(i + 2, 2),
                            NumberStyles.HexNumber,
                            CultureInfo.InvariantCulture,
                            out var code
                        )
                        && !isSilent
                        && --skip < 0
                    )
                        words.Append(page.GetString([code]));
                    i += 4;
                    break;
                case '\\':
                    var (word, number, next) = Control(text, i + 1);
                    i = next;
                    Do(word, number);
                    break;
                case '\r' or '\n':
                    i++;
                    break;
                default:
                    if (!isSilent && --skip < 0)
                        words.Append(text[i]);
                    i++;
                    break;
            }
            skip = Math.Max(skip, 0);
        }
        return words.ToString();

        void Do(string word, int? number)
        {
            var (silent, letters) = groups.Peek();
            if (word == "*" || Silent.Contains(word))
                Replace((true, letters));
            else if (word == "uc")
                Replace((silent, number ?? 1));
            else if (word == "ansicpg" && number is { } p)
                page = PageOf(p) ?? page;
            else if (!silent)
            {
                if (word == "u" && number is { } code)
                {
                    words.Append((char)(ushort)(short)code);
                    skip = letters;
                }
                else
                    words.Append(Sign(word));
            }
        }

        void Replace((bool, int) group)
        {
            groups.Pop();
            groups.Push(group);
        }
    }

    private static string Sign(string word) =>
        word switch
        {
            "par" or "line" or "row" or "sect" or "page" => "\n",
            "tab" or "cell" => "\t",
            "~" => " ",
            "_" => "-",
            "\\" or "{" or "}" => word,
            "endash" or "emdash" => "–",
            "lquote" or "rquote" => "'",
            "ldblquote" or "rdblquote" => "\"",
            "bullet" => "•",
            _ => "",
        };

    // A word with its number, and where it ends; one blank behind it belongs to it.
    private static (string Word, int? Number, int Next) Control(string text, int at)
    {
        var from = at;
        while (at < text.Length && char.IsAsciiLetter(text[at]))
            at++;
        if (at == from)
            return (at < text.Length ? text[at].ToString() : "", null, at + 1);
        var word = text[from..at];
        var digits = at;
        if (at < text.Length && text[at] == '-')
            at++;
        while (at < text.Length && char.IsAsciiDigit(text[at]))
            at++;
        int? number = int.TryParse(text.AsSpan(digits, at - digits), CultureInfo.InvariantCulture, out var n)
            ? n
            : null;
        return (word, number, at < text.Length && text[at] == ' ' ? at + 1 : at);
    }

    private static Encoding? PageOf(int page)
    {
        try
        {
            return Encoding.GetEncoding(page);
        }
        catch (Exception e) when (e is ArgumentException or NotSupportedException)
        {
            return null;
        }
    }
}
