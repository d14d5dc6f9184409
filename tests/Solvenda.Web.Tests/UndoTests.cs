using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Whatever was typed, undo leads back to where it began, to the cent; and redo to where it was.</summary>
public sealed class UndoTests(House house) : MoneyCalls(house)
{
    private const int Edits = 50;

    private static readonly HttpStatusCode[] Refusals = [HttpStatusCode.UnprocessableEntity, HttpStatusCode.Conflict];

    private static readonly string[] Items = ["BB2-10-NV", "SHK-BOW-10", "SHK-BOW-12", "SVC-EYE", "SET-MOOR-10"];

    private static readonly (string Field, string[] Values)[] OfLines =
    [
        ("quantity", ["1", "12", "40", "7.5", "2 box", "0"]),
        ("discount", ["5", "-3", "", "12.5"]),
        ("net", ["4.10", "2.20", ""]),
        ("margin", ["30", ""]),
        ("words", ["as they call it", "Bow shackle"]),
        ("note", ["with eyes", ""]),
        ("inner", ["they pay late", ""]),
        ("job", ["the Gannet", ""]),
        ("orderedBy", ["Isla", ""]),
        ("wanted", ["+2w", "fri", ""]),
        ("optional", ["yes", "no"]),
        ("cost", ["1.50 // bought at the fair", ""]),
        ("item", ["SHK-BOW-12", "SVC-EYE", "no such thing"]),
        ("unit", ["MTR", "C62", "box"]),
    ];

    private static readonly (string Field, string[] Values)[] OfTheHead =
    [
        ("paymentDays", ["14", "45", "30"]),
        ("sheetDiscount", ["3", "25 EUR", ""]),
        ("freight", ["12.50", ""]),
        ("incoterm", ["EXW", "DAP", "CIP"]),
        ("note", ["thank you", ""]),
        ("wanted", ["+3w", ""]),
        ("job", ["pier 4", ""]),
    ];

    private static object Some(Random random, JsonElement sheet)
    {
        var keys = sheet.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("key").GetInt64()).ToList();
        long? Any() => keys.Count == 0 ? null : keys[random.Next(keys.Count)];
        T Of<T>(T[] all) => all[random.Next(all.Length)];
        switch (random.Next(12))
        {
            case 0:
                return new
                {
                    kind = "add",
                    value = $"{Of(Items)} x {random.Next(1, 60)}",
                    after = Any(),
                };
            case 1:
                return new { kind = "add", value = $"{Of(["? ", "or ", ""])}{Of(Items)} x 3 -2%" };
            case 2:
                return Of<object>([
                    new { kind = "addHeading", value = "Deck" },
                    new { kind = "addComment", value = "all galvanised" },
                    new { kind = "addCharge", value = "certificate @45" },
                    new { kind = "add", value = "teak ladder x 2 @240" },
                ]);
            case 3:
                return new { kind = "remove", line = Any() };
            case 4:
                return new
                {
                    kind = "move",
                    line = Any(),
                    after = Any(),
                };
            case 5:
                return new { kind = "alternative", line = Any() };
            case 6:
                return new
                {
                    kind = "gather",
                    value = "Together",
                    field = string.Join(',', keys.Where(_ => random.Next(3) == 0)),
                };
            case 7 or 8:
                var (term, terms) = Of(OfTheHead);
                return new
                {
                    kind = "set",
                    field = term,
                    value = Of(terms),
                };
            default:
                var (field, values) = Of(OfLines);
                return new
                {
                    kind = "set",
                    line = Any(),
                    field,
                    value = Of(values),
                };
        }
    }

    // All of it that is typed or worked out; not its version, nor who typed a term, nor why it stands there.
    private static string Said(JsonElement sheet) =>
        string.Join(
            '\n',
            [
                sheet.GetProperty("lines").GetRawText(),
                sheet.GetProperty("tally").GetRawText(),
                .. sheet
                    .GetProperty("terms")
                    .EnumerateArray()
                    .Select(t => $"{t.GetProperty("name")} {t.GetProperty("value")} {t.GetProperty("shown")}"),
            ]
        );

    private Task<int> StepsAsync(string number) =>
        House.DbAsync(db => db.Events.CountAsync(e => e.Subject == number && e.Code == "sheet.edited", Cancel));

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    public async Task After_any_fifty_edits_undo_leads_back_to_the_cent_and_redo_forward_again(int seed)
    {
        var random = new Random(seed);
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -2%", "SHK-BOW-10 x 12", "SVC-EYE x 4");
        var begin = Said(sheet);
        var (taken, tried) = (0, 0);
        while (taken < Edits)
        {
            Assert.True(++tried < Edits * 10, $"Of {tried} edits only {taken} were taken (seed {seed}).");
            var events = await StepsAsync(number);
            using var answer = await quill.ActAsync(
                $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
                sheet,
                new[] { Some(random, sheet) }
            );
            if (answer.StatusCode != HttpStatusCode.OK)
            {
                Assert.Contains(answer.StatusCode, Refusals);
                continue;
            }
            sheet = await answer.SheetAsync();
            // What changes nothing is no step.
            if (await StepsAsync(number) > events)
                taken++;
        }
        var (end, steps) = (Said(sheet), taken);
        // The first three lines were typed too: it is taken back as often as something was taken, no more.
        for (var i = 0; i < steps; i++)
        {
            using var back = await quill.UndoAsync(sheet);
            Assert.True(back.IsSuccessStatusCode, await back.Content.ReadAsStringAsync(Cancel));
            sheet = await back.SheetAsync();
        }
        Assert.Equal(begin, Said(await SeenAsync(quill, $"/api/quotes/{number}")));
        for (var i = 0; i < steps; i++)
        {
            using var again = await quill.PostAsync(
                $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/redo",
                null,
                Cancel
            );
            Assert.True(again.IsSuccessStatusCode, await again.Content.ReadAsStringAsync(Cancel));
            sheet = await again.SheetAsync();
        }
        Assert.Equal(end, Said(sheet));
    }
}
