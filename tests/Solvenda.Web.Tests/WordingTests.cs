using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Solvenda.Acts.Wordings;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Documents are written in the buyer's language, and go out the way that the buyer wants them.</summary>
public sealed partial class WordingTests(House house) : IClassFixture<House>
{
    private const long Paz = 2;
    private const long Nordvass = 9;
    private const long Fulmar = 33;
    private const long Teerling = 6;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public void Every_language_says_everything_with_the_same_places()
    {
        Assert.Equal(["da", "de", "en", "es", "fr", "nl", "no", "sv"], Wording.All.Keys);
        static string Shape(KeyValuePair<string, string> text) =>
            text.Key + string.Concat(Place().Matches(text.Value).Select(m => m.Value).Order(StringComparer.Ordinal));
        var english = Wording.Of("en").Texts.Select(Shape).Order(StringComparer.Ordinal).ToList();
        foreach (var wording in Wording.All.Values)
        {
            Assert.Equal(english, wording.Texts.Select(Shape).Order(StringComparer.Ordinal));
            Assert.All(wording.Texts.Values, t => Assert.NotEmpty(t.Trim()));
            // Every month is there once, and numbers can be told apart again.
            Assert.Equal(
                12,
                Enumerable
                    .Range(1, 12)
                    .Select(m => wording.Day(new DateOnly(2026, m, 3)))
                    .Where(d => !d.Contains("  ", StringComparison.Ordinal))
                    .Distinct()
                    .Count()
            );
            Assert.Equal(
                -1_234_567.5m,
                decimal.Parse(wording.Fixed(-1_234_567.5m, 2), NumberStyles.Number, wording.Culture)
            );
        }
    }

    [Theory]
    [InlineData("en", "1,250.50", "1 March 2026")]
    [InlineData("de", "1.250,50", "1. März 2026")]
    [InlineData("sv", "1\u00a0250,50", "1 mars 2026")]
    [InlineData("es", "1.250,50", "1 de marzo de 2026")]
    public void Numbers_and_days_are_written_as_the_language_does(string language, string number, string day) =>
        Assert.Equal(
            (number, day),
            (Wording.Of(language).Fixed(1250.5m, 2), Wording.Of(language).Day(new DateOnly(2026, 3, 1)))
        );

    [Fact]
    public async Task A_quote_speaks_the_buyers_language_and_can_be_given_another()
    {
        var paz = await house.AsAsync(Paz);
        var number = (
            await (
                await paz.PostAsJsonAsync("/api/quotes", new { buyerId = Nordvass, matter = "kätting" }, Cancel)
            ).JsonAsync()
        )
            .GetProperty("number")
            .GetString();
        var sheet = (await (await paz.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync()).GetProperty("sheet");
        Assert.Equal(
            ("sv", "buyer"),
            (sheet.Term("language"), sheet.TermOf("language").GetProperty("source").GetString())
        );
        sheet = await paz.EditAsync(sheet, new { kind = "add", value = "CHN-SL-10 x 1250" });
        sheet = await paz.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 8" });
        sheet = await paz.EditAsync(
            sheet,
            new
            {
                kind = "set",
                line = 2,
                field = "words",
                value = "as on the drawing",
            }
        );
        Assert.Equal(["Kortlänkad kätting, galvaniserad, 10 mm", "as on the drawing"], Words(sheet));

        var printed = await PrintedAsync(paz, number);
        Assert.Contains("Offert", printed, StringComparison.Ordinal);
        Assert.Contains("1 250", printed, StringComparison.Ordinal);
        var letter = (await (await paz.GetAsync($"/api/quotes/{number}/letter", Cancel)).JsonAsync()).GetProperty(
            "letter"
        );
        Assert.StartsWith("Hej Ylva,", letter.GetProperty("text").GetString(), StringComparison.Ordinal);
        var seen = await (await paz.GetAsync($"/api/quotes/{number}/preview", Cancel)).JsonAsync();
        Assert.Equal(
            ("sv", "utan moms"),
            (seen.GetProperty("language").GetString(), seen.GetProperty("words").GetProperty("withoutTax").GetString())
        );

        // What the item is called follows; what somebody typed stays.
        sheet = await paz.EditAsync(
            sheet,
            new
            {
                kind = "set",
                field = "language",
                value = "de",
            }
        );
        Assert.Equal(["Kurzgliedrige Kette, verzinkt, 10 mm", "as on the drawing"], Words(sheet));
        Assert.Contains("Angebot", await PrintedAsync(paz, number), StringComparison.Ordinal);
        var refused = await paz.EditAsync(
            sheet,
            new
            {
                kind = "set",
                field = "language",
                value = "it",
            }
        );
        Assert.Equal("language", refused.GetProperty("code").GetString());
    }

    [Fact]
    public async Task On_paper_the_letter_and_the_quote_are_printed_and_posted()
    {
        var paz = await house.AsAsync(Paz);
        var number = (
            await (await paz.PostAsJsonAsync("/api/quotes", new { buyerId = Fulmar, matter = "" }, Cancel)).JsonAsync()
        )
            .GetProperty("number")
            .GetString();
        var sheet = (await (await paz.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync()).GetProperty("sheet");
        sheet = await paz.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 4" });
        var proposal = await (await paz.GetAsync($"/api/quotes/{number}/letter", Cancel)).JsonAsync();
        var letter = proposal.GetProperty("letter");
        Assert.Equal(
            ("paper", "1 Harbour Street, Fulmar"),
            (letter.GetProperty("by").GetString(), letter.GetProperty("to").GetString())
        );
        foreach (var (by, to) in new[] { ("mail", "1 Harbour Street"), ("paper", " "), ("pigeon", "1 Harbour Street") })
            Assert.Equal(
                HttpStatusCode.UnprocessableEntity,
                (
                    await paz.ActAsync(
                        $"/api/quotes/{number}/send",
                        sheet,
                        new
                        {
                            by,
                            to,
                            subject = "x",
                            text = "{link}",
                        }
                    )
                ).StatusCode
            );
        var changed = new
        {
            by = "paper",
            to = "Council House, Fulmar",
            subject = "x",
            text = letter.GetProperty("text").GetString(),
        };
        Assert.Equal(HttpStatusCode.OK, (await paz.ActAsync($"/api/quotes/{number}/send", sheet, changed)).StatusCode);

        var file = await Answers.EventuallyAsync(() =>
            Directory
                .GetFiles(Path.Combine(house.DataFolder, "outside", "paper"), $"{number!.ToLowerInvariant()}*")
                .SingleOrDefault()
        );
        var pages = PdfText.Read(await File.ReadAllBytesAsync(file, Cancel)).Pages;
        Assert.Equal(2, pages.Count);
        Assert.Contains("Council House", TextOf(pages[0]), StringComparison.Ordinal);
        Assert.Contains("/offer/", TextOf(pages[0]), StringComparison.Ordinal);
        Assert.Contains("SHK-BOW-10", TextOf(pages[1]), StringComparison.Ordinal);
        // The post room shows it, as it went.
        var shown = await paz.GetAsync($"/api/demo/post/{Path.GetFileName(file)}/attachment/0", Cancel);
        Assert.Equal("application/pdf", shown.Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task An_order_says_how_its_acknowledgement_goes()
    {
        var paz = await house.AsAsync(Paz);
        var number = (await (await paz.PostAsync($"/api/buyers/{Teerling}/orders", null, Cancel)).JsonAsync())
            .GetProperty("number")
            .GetString();
        var sheet = (await (await paz.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync()).GetProperty("sheet");
        sheet = await paz.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 4" });
        // Theirs go by EDI, but this one did not come by it.
        Assert.Equal("notice", Finding(sheet, "documentsBy").GetProperty("outcome").GetString());
        var without = await paz.EditAsync(
            sheet,
            new
            {
                kind = "set",
                field = "documentsBy",
                value = "",
            }
        );
        Assert.Equal("stop", Finding(without, "documentsBy").GetProperty("outcome").GetString());
        Assert.Equal("documents_by", (
                await paz.EditAsync(
                    without,
                    new
                    {
                        kind = "set",
                        field = "documentsBy",
                        value = "fax",
                    }
                )
            ).GetProperty("code").GetString());
        sheet = await paz.EditAsync(
            without,
            new
            {
                kind = "set",
                field = "documentsBy",
                value = "mail",
            }
        );
        Assert.Equal(HttpStatusCode.OK, (await paz.ActAsync($"/api/orders/{number}/confirm", sheet)).StatusCode);
        var mail = await Answers.EventuallyAsync(() =>
            Directory
                .GetFiles(Path.Combine(house.DataFolder, "outside", "post"), "*.eml")
                .FirstOrDefault(f =>
                    File.ReadAllText(f).Contains($"Orderbevestiging {number}", StringComparison.Ordinal)
                )
        );
        Assert.Contains("inkoop@teerling.example", await File.ReadAllTextAsync(mail, Cancel), StringComparison.Ordinal);
    }

    private static JsonElement Finding(JsonElement sheet, string field) =>
        sheet.GetProperty("findings").EnumerateArray().Single(f => f.GetProperty("field").GetString() == field);

    private static IEnumerable<string?> Words(JsonElement sheet) =>
        sheet.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("words").GetString());

    private static string TextOf(PageText page) => string.Join(' ', page.Words.Select(w => w.Text));

    private static async Task<string> PrintedAsync(HttpClient client, string? number) =>
        string.Join(
            '\n',
            PdfText.Read(await client.GetByteArrayAsync($"/api/quotes/{number}/print", Cancel)).Pages.Select(TextOf)
        );

    [GeneratedRegex(@"\{\d\}")]
    private static partial Regex Place();
}
