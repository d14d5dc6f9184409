using System.Globalization;
using System.Text;

namespace Solvenda.Formats;

/// <summary>The words of a document in Rich Text Format 1.9: text, paragraphs, tabs and cells; nothing else.</summary>
internal sealed class RichText
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

    public static string Of(byte[] raw) => new RichText(Encoding.Latin1.GetString(raw)).Read();

    private readonly string _text;
    private readonly StringBuilder _words = new();

    // Whether each open group is silent, and how many letters stand for one that is written by its number.
    private readonly Stack<(bool Silent, int Skip)> _groups = new([(false, 1)]);
    private Encoding _page = Encoding.GetEncoding(1252);

    // Letters that stand for one that was written by its number already.
    private int _skip;

    private RichText(string text) => _text = text;

    private string Read()
    {
        for (var i = 0; i < _text.Length && _words.Length < MostLetters; )
            i = Take(i);
        return _words.ToString();
    }

    /// <returns>Where what comes next begins.</returns>
    private int Take(int i)
    {
        switch (_text[i])
        {
            case '{':
                _groups.Push(_groups.Peek());
                return i + 1;
            case '}':
                if (_groups.Count > 1)
                    _groups.Pop();
                return i + 1;
            case '\\' when i + 3 < _text.Length && _text[i + 1] == '\'':
                if (
                    byte.TryParse(
                        _text.AsSpan(i + 2, 2),
                        NumberStyles.HexNumber,
                        CultureInfo.InvariantCulture,
                        out var code
                    )
                )
                    Write(_page.GetString([code]));
                return i + 4;
            case '\\':
                var (word, number, next) = Control(_text, i + 1);
                Do(word, number);
                return next;
            case '\r' or '\n':
                return i + 1;
            default:
                Write(_text[i].ToString());
                return i + 1;
        }
    }

    private void Write(string letters)
    {
        if (_skip > 0)
            _skip--;
        else if (!_groups.Peek().Silent)
            _words.Append(letters);
    }

    private void Do(string word, int? number)
    {
        var (silent, letters) = _groups.Peek();
        if (word == "*" || Silent.Contains(word))
            Replace((true, letters));
        else if (word == "uc")
            Replace((silent, number ?? 1));
        else if (word == "ansicpg" && number is { } page)
            _page = PageOf(page) ?? _page;
        else if (!silent && word == "u" && number is { } code)
        {
            _words.Append((char)(ushort)(short)code);
            _skip = letters;
        }
        else if (!silent)
            _words.Append(Sign(word));
    }

    private void Replace((bool, int) group)
    {
        _groups.Pop();
        _groups.Push(group);
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
