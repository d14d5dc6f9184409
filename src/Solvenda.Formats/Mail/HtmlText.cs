using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Ganss.Xss;

namespace Solvenda.Formats.Mail;

/// <summary>A mail's HTML: cleaned to be shown, and as the words that a person would see.</summary>
public static partial class HtmlText
{
    private const int LongestHtml = 2_000_000;

    private const int DeepestHtml = 400;

    private static readonly string[] Voids =
    [
        "br",
        "hr",
        "img",
        "meta",
        "link",
        "input",
        "col",
        "p",
        "li",
        "td",
        "th",
        "tr",
        "option",
        "wbr",
        "area",
        "base",
        "source",
    ];

    private static readonly HashSet<string> Blocks =
    [
        "P",
        "DIV",
        "TR",
        "LI",
        "H1",
        "H2",
        "H3",
        "H4",
        "H5",
        "H6",
        "UL",
        "OL",
        "TABLE",
        "BLOCKQUOTE",
        "HR",
        "PRE",
        "ADDRESS",
        "SECTION",
        "ARTICLE",
        "HEADER",
        "FOOTER",
    ];

    private static readonly HashSet<string> Silent =
    [
        "SCRIPT",
        "STYLE",
        "HEAD",
        "TITLE",
        "NOSCRIPT",
        "TEMPLATE",
        "IFRAME",
        "OBJECT",
    ];

    /// <summary>
    /// Without scripts, forms, remote pictures, frames, or anything that fetches; links lead nowhere.
    /// </summary>
    public static string Clean(string html)
    {
        ArgumentNullException.ThrowIfNull(html);
        if (IsTooDeep(html))
            return "";
        var sanitizer = new HtmlSanitizer();
        foreach (
            var tag in new[]
            {
                "form",
                "input",
                "button",
                "textarea",
                "select",
                "img",
                "picture",
                "video",
                "audio",
                "source",
                "map",
                "area",
                "base",
                "link",
                "meta",
            }
        )
            sanitizer.AllowedTags.Remove(tag);
        foreach (var attribute in new[] { "href", "src", "srcset", "background", "action", "id", "class", "name" })
            sanitizer.AllowedAttributes.Remove(attribute);
        foreach (
            var property in sanitizer
                .AllowedCssProperties.Where(p =>
                    p.Contains("image", StringComparison.Ordinal)
                    || p is "background" or "content" or "cursor" or "list-style" or "position"
                )
                .ToList()
        )
            sanitizer.AllowedCssProperties.Remove(property);
        sanitizer.AllowedSchemes.Clear();
        return sanitizer.Sanitize(html.Length > LongestHtml ? html[..LongestHtml] : html);
    }

    /// <summary>
    /// The words, a line to each block, a tab between the cells of a row; quoted parts marked as in plain text.
    /// </summary>
    public static string Of(string html)
    {
        ArgumentNullException.ThrowIfNull(html);
        // Made to hold a parser up: its words are all that is taken.
        if (IsTooDeep(html))
            return System
                .Net.WebUtility.HtmlDecode(Tag().Replace(html.Length > LongestHtml ? html[..LongestHtml] : html, " "))
                .Trim();
        var document = new HtmlParser().ParseDocument(html.Length > LongestHtml ? html[..LongestHtml] : html);
        var text = new StringBuilder();
        HtmlSpans.Unfold(document);
        if (document.Body is { } body)
            Write(body, text, new Where(0, 0, false));
        var lines = text.ToString()
            .Split('\n')
            .Select(l =>
                string.Join(
                        '\t',
                        l.Split('\t')
                            .Select(c =>
                                string.Join(' ', c.Split([' ', '\r', '\u00a0'], StringSplitOptions.RemoveEmptyEntries))
                            )
                    )
                    .TrimEnd('\t')
            );
        var plain = new StringBuilder();
        var empty = 0;
        foreach (var line in lines)
        {
            empty = line.Trim().Length == 0 ? empty + 1 : 0;
            if (empty < 2)
                plain.Append(line).Append('\n');
        }
        return plain.ToString().Trim();
    }

    // Nobody's letter nests so; a parser's work grows with the square of it.
    private static bool IsTooDeep(string html)
    {
        var depth = 0;
        for (
            var at = html.IndexOf('<', StringComparison.Ordinal);
            at >= 0 && at + 1 < html.Length;
            at = html.IndexOf('<', at + 1)
        )
        {
            depth +=
                html[at + 1] == '/' ? -1
                : char.IsAsciiLetter(html[at + 1]) && !IsVoid(html.AsSpan(at + 1)) ? 1
                : 0;
            if (depth > DeepestHtml)
                return true;
        }
        return false;
    }

    // Elements that are never closed, and those that people leave open.
    private static bool IsVoid(ReadOnlySpan<char> tag)
    {
        foreach (var name in Voids)
        {
            if (
                tag.StartsWith(name, StringComparison.OrdinalIgnoreCase)
                && tag.Length > name.Length
                && !char.IsAsciiLetter(tag[name.Length])
            )
                return true;
        }
        return false;
    }

    // How deep in quotes and markup, and whether in a cell of a table, where paragraphs are one line.
    private readonly record struct Where(int Quoted, int Depth, bool InCell);

    private static void Write(INode node, StringBuilder text, Where at)
    {
        // Markup may be nested without end; words that deep are nobody's.
        if (at.Depth > 200)
            return;
        foreach (var child in node.ChildNodes)
        {
            if (child is IText words)
            {
                var said = words.Data.Replace('\n', ' ').Replace('\t', ' ');
                if (said.Trim().Length > 0 || (text.Length > 0 && text[^1] is not ('\n' or '\t' or ' ')))
                    text.Append(said.Trim().Length == 0 ? " " : said);
            }
            else if (child is IElement element && !Silent.Contains(element.TagName) && !Hidden(element))
                Write(element, text, at);
        }
    }

    private static void Write(IElement element, StringBuilder text, Where at)
    {
        var block = Blocks.Contains(element.TagName);
        var quoted = at.Quoted + (element.TagName == "BLOCKQUOTE" || element.ClassList.Contains("gmail_quote") ? 1 : 0);
        // A table that only lays a page out has tables in its cells.
        var isCell = element.TagName is "TD" or "TH" && element.QuerySelector("table") is null;
        if (at.InCell)
        {
            if ((block || element.TagName == "BR") && text.Length > 0 && text[^1] is not (' ' or '\t' or '\n'))
                text.Append(' ');
        }
        else if (element.TagName == "BR" || (block && text.Length > 0 && text[^1] != '\n'))
            NewLine(text, quoted);
        if (quoted > at.Quoted && text.Length > 0)
            text.Append("> ");
        Write((INode)element, text, new Where(quoted, at.Depth + 1, at.InCell || isCell));
        if (isCell)
            text.Append('\t');
        if (block && !at.InCell && text.Length > 0 && text[^1] != '\n')
            NewLine(text, at.Quoted);
    }

    private static void NewLine(StringBuilder text, int quoted)
    {
        text.Append('\n');
        if (quoted > 0)
            text.Append("> ");
    }

    // What is hidden from the reader says nothing to us either.
    private static bool Hidden(IElement element) =>
        element.HasAttribute("hidden")
        || (element.GetAttribute("style") ?? "").Replace(" ", "", StringComparison.Ordinal) is var style
            && (
                style.Contains("display:none", StringComparison.OrdinalIgnoreCase)
                || style.Contains("visibility:hidden", StringComparison.OrdinalIgnoreCase)
                || style.Contains("font-size:0", StringComparison.OrdinalIgnoreCase)
            );

    [System.Text.RegularExpressions.GeneratedRegex("<[^>]*>", System.Text.RegularExpressions.RegexOptions.None, 1_000)]
    private static partial System.Text.RegularExpressions.Regex Tag();
}
