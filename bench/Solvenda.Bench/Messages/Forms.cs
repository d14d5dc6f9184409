using System.Collections.Immutable;
using System.Globalization;
using System.Net;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Tables;

namespace Solvenda.Bench.Messages;

/// <summary>The forms in which a message arrives.</summary>
internal static class Forms
{
    public static readonly string[] All =
    [
        "letter",
        "letter",
        "letter",
        "forwarded",
        "html table",
        "csv attached",
        "xlsx attached",
        "pdf attached",
        "x12",
        "edifact",
        "ubl",
        "json",
    ];

    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    public static MadeMessage Make(string form, Composer c, int number)
    {
        var name = string.Create(Plain, $"made-{number:00000}");
        if (form is "letter" or "forwarded" && c.Random.Next(2) == 0)
        {
            var (kind, text) = c.Other();
            // What is not wanted by a date has none.
            return Made(
                Mail(c, number, $"{Hello(c)}{text}\n\n{Bye(c)}", form),
                new Truth(kind, c.Buyer, null, null, [])
            );
        }
        var isOrder = form is "x12" or "edifact" or "ubl" or "json" || c.Random.Next(3) > 0;
        var lines = c.Lines(withUnknown: form is "letter" or "forwarded");
        if (form is not ("letter" or "forwarded" or "json"))
            lines = [.. lines.Select(l => l with { Price = StructuredForms.Net(c, l) })];
        var wanted = form == "json" ? "" : c.Wanted();
        byte[] bytes = form switch
        {
            "letter" or "forwarded" => Letter(c, number, lines, wanted, isOrder, form),
            "html table" => HtmlTable(c, number, lines, wanted, isOrder),
            "csv attached" => Attached(c, number, wanted, isOrder, "csv", "text/csv", Csv(c, lines)),
            "xlsx attached" => Attached(c, number, wanted, isOrder, "xlsx", "application/octet-stream", Xlsx(c, lines)),
            "pdf attached" => Attached(c, number, wanted, isOrder, "pdf", "application/pdf", Pdf(c, lines)),
            "x12" => StructuredForms.X12(c, number, lines),
            "edifact" => StructuredForms.Edifact(c, number, lines),
            "ubl" => StructuredForms.Ubl(c, lines),
            _ => StructuredForms.Json(c, number, lines),
        };
        Truth truth = new(
            isOrder ? MessageKind.Order : MessageKind.RequestForQuotation,
            c.Buyer,
            isOrder ? c.Po : null,
            c.Date,
            lines
        );
        // A channel's own number stands for it.
        if (form == "json")
            truth = truth with { PoNumber = string.Create(Plain, $"HM-{number}") };
        return Made(bytes, truth);

        MadeMessage Made(byte[] raw, Truth t) =>
            new(
                name
                    + form switch
                    {
                        "x12" => ".x12",
                        "edifact" => ".edi",
                        "ubl" => ".xml",
                        "json" => ".json",
                        _ => ".eml",
                    },
                raw,
                form,
                c.Language,
                c.HasSlip,
                t
            );
    }

    private static string Hello(Composer c) => c.Say.One("hello", c.Random) + "\n\n";

    private static string Bye(Composer c) => c.Filled(c.Say.One("bye", c.Random));

    private static byte[] Letter(
        Composer c,
        int number,
        ImmutableArray<TrueLine> lines,
        string wanted,
        bool isOrder,
        string form
    )
    {
        var said = Said(c, isOrder, wanted, c.InText(lines));
        var remark = c.Random.Next(3) == 0 ? "\n" + c.Say.One("remark", c.Random) + "\n" : "";
        return Mail(c, number, $"{Hello(c)}{said}\n{remark}\n{Bye(c)}", form);
    }

    private static string Said(Composer c, bool isOrder, string wanted, string lines)
    {
        var text = c.Say.One(isOrder ? "order" : "rfq", c.Random).Replace("{lines}", lines, StringComparison.Ordinal);
        if (!text.Contains("{date}", StringComparison.Ordinal))
            c.SaidNoDate();
        // Where it says no date, what would have led to it goes too.
        text = wanted.Length > 0 ? text.Replace("{date}", wanted, StringComparison.Ordinal) : WithoutDate(text);
        return c.Filled(text);
    }

    private static string WithoutDate(string text)
    {
        var at = text.IndexOf("{date}", StringComparison.Ordinal);
        if (at < 0)
            return text;
        var from = at;
        while (from > 0 && text[from - 1] is ' ' or ',')
            from--;
        var to = text.IndexOfAny(['.', '\n', '?', ':'], at);
        return text[..from] + (to < 0 ? "" : text[to..]);
    }

    private static byte[] Mail(Composer c, int number, string body, string form, string extra = "")
    {
        var (from, text) = (c.Who, body);
        var subject = c.Language == "de" ? "Anfrage" : "rope and fittings";
        if (form == "forwarded")
        {
            var head =
                c.Random.Next(2) == 0
                    ? $"-------- Original Message --------\nFrom: {from.Contact} <{from.Mail}>\nSubject: {subject}\n\n"
                    : $"---------- Forwarded message ----------\nFrom: {from.Contact} <{from.Mail}>\n\n";
            text = $"For you, Nell\n\n{head}{body}";
            from = (default, "Brinemoor", "Bastian Holt", "bastian.holt@brinemoor.example");
            subject = "Fwd: " + subject;
        }
        return Encoding.UTF8.GetBytes(
            string.Create(
                Plain,
                $"From: {Quoted(from.Contact)} <{from.Mail}>\r\nTo: orders@brinemoor.example\r\nSubject: {subject}\r\nMessage-ID: <made-{number}@made.example>\r\nDate: Mon, 23 Nov 2026 08:41:07 +0000\r\nMIME-Version: 1.0\r\n{(extra.Length > 0 ? extra : $"Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: 8bit\r\n\r\n{text.ReplaceLineEndings("\r\n")}\r\n")}"
            )
        );
    }

    private static string Quoted(string name) =>
        name.Any(ch => ch > 126)
            ? $"=?utf-8?B?{Convert.ToBase64String(Encoding.UTF8.GetBytes(name))}?="
            : $"\"{name}\"";

    private static byte[] HtmlTable(Composer c, int number, ImmutableArray<TrueLine> lines, string wanted, bool isOrder)
    {
        var rows = Rows(c, lines);
        var table = new StringBuilder("<table border=1>");
        foreach (var row in rows)
            table
                .Append("<tr>")
                .AppendJoin("", row.Select(cell => $"<td><p>{WebUtility.HtmlEncode(cell)}</p></td>"))
                .Append("</tr>");
        table.Append("</table>");
        var said = WebUtility
            .HtmlEncode(Hello(c) + Said(c, isOrder, wanted, "@@"))
            .Replace("\n", "<br>", StringComparison.Ordinal);
        var html =
            $"<html><body><p>{said.Replace("@@", $"</p>{table}<p>", StringComparison.Ordinal)}</p><p>{WebUtility.HtmlEncode(Bye(c)).Replace("\n", "<br>", StringComparison.Ordinal)}</p></body></html>";
        return Mail(
            c,
            number,
            "",
            "html table",
            $"Content-Type: text/html; charset=utf-8\r\nContent-Transfer-Encoding: 8bit\r\n\r\n{html}\r\n"
        );
    }

    private static byte[] Attached(
        Composer c,
        int number,
        string wanted,
        bool isOrder,
        string extension,
        string type,
        byte[] file
    )
    {
        var said =
            Hello(c)
            + Said(c, isOrder, wanted, c.Language == "de" ? "die Positionen im Anhang" : "what is attached")
            + "\n\n"
            + Bye(c);
        var base64 = Convert.ToBase64String(file, Base64FormattingOptions.InsertLineBreaks);
        return Mail(
            c,
            number,
            "",
            "attached",
            $"Content-Type: multipart/mixed; boundary=\"cut\"\r\n\r\n--cut\r\nContent-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: 8bit\r\n\r\n{said.ReplaceLineEndings("\r\n")}\r\n--cut\r\nContent-Type: {type}; name=\"list.{extension}\"\r\nContent-Disposition: attachment; filename=\"list.{extension}\"\r\nContent-Transfer-Encoding: base64\r\n\r\n{base64}\r\n--cut--\r\n"
        );
    }

    // The head, then the lines under it; what a column means is told by its head alone.
    private static List<List<string>> Rows(Composer c, ImmutableArray<TrueLine> lines)
    {
        var heads = c.Say.Heads(c.Random);
        var rows = Heads(c, heads);
        var position = heads.Length > 4 && heads[0].StartsWith('P') || heads[0] == "Line" ? 1 : 0;
        foreach (var (line, i) in lines.Select((l, i) => (l, i)))
        {
            var row = new List<string>();
            if (position == 1)
                row.Add(string.Create(Plain, $"{(i + 1) * 10}"));
            row.Add(line.Item!.Code);
            if (heads.Length - position >= 4)
                row.Add(line.Item.WordsIn(c.Language));
            row.Add(c.Number(line.Quantity));
            row.Add(
                c.Say.Unit(line.Unit.Code, c.Random) is { Length: > 0 } unit ? unit
                : c.Language == "en" ? "pcs"
                : "st"
            );
            while (row.Count < heads.Length)
                row.Add("");
            row.AddRange(Priced(c, line));
            rows.Add(row);
        }
        return rows;
    }

    // The price, and the discount where there is one.
    private static List<string> Priced(Composer c, TrueLine line)
    {
        string Said(decimal number) => number.ToString("0.00", Plain).Replace('.', c.Language == "en" ? '.' : ',');
        return c.Prices switch
        {
            Pricing.None => [],
            Pricing.ForOne => [Said(line.Gross)],
            Pricing.ForAHundred => [Said(line.Gross * 100m)],
            _ => [Said(line.Gross), $"{StructuredForms.Discount} %"],
        };
    }

    // What stands over them; "per 100" may stand in a second row.
    private static List<List<string>> Heads(Composer c, string[] heads)
    {
        var price = c.Language switch
        {
            "de" => "Preis",
            "nl" => "Prijs",
            "es" => "Precio",
            "fr" => "Prix",
            "en" => "Price",
            _ => "Pris",
        };
        return c.Prices switch
        {
            Pricing.None =>
            [
                [.. heads],
            ],
            Pricing.ForOne =>
            [
                [.. heads, price],
            ],
            Pricing.ForAHundred when c.Random.Next(2) == 0 =>
            [
                [.. heads, price],
                [.. heads.Select(_ => ""), c.Language == "de" ? "je 100" : "per 100"],
            ],
            Pricing.ForAHundred =>
            [
                [.. heads, price + "/100"],
            ],
            _ =>
            [
                [.. heads, price, c.Say.Discount],
            ],
        };
    }

    private static byte[] Csv(Composer c, ImmutableArray<TrueLine> lines)
    {
        var separator = c.Language == "en" ? "," : ";";
        return Encoding.UTF8.GetBytes(
            string.Join(
                "\r\n",
                Rows(c, lines)
                    .Select(r =>
                        string.Join(
                            separator,
                            r.Select(x => $"\"{x.Replace("\"", "\"\"", StringComparison.Ordinal)}\"")
                        )
                    )
            )
        );
    }

    private static byte[] Xlsx(Composer c, ImmutableArray<TrueLine> lines)
    {
        var rows = Rows(c, lines);
        using var stream = new MemoryStream();
        TableWriter
            .XlsxAsync(
                stream,
                rows[0],
                [.. rows[0].Select(_ => false)],
                rows.Skip(1).Select(r => (IReadOnlyList<string>)r).ToAsyncEnumerable(),
                CancellationToken.None
            )
            .GetAwaiter()
            .GetResult();
        return stream.ToArray();
    }

    private static byte[] Pdf(Composer c, ImmutableArray<TrueLine> lines) =>
        MadePages.Of(c.Who.Name, Rows(c, lines), c.Random);
}
