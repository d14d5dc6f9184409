using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Xunit;

namespace Solvenda.Core.Tests.Vectors;

/// <summary>
/// Worked cases checked by hand and by a separate program. Reads every *.json in the folder that SOLVENDA_VECTORS
/// names, else the project's own;
/// each kind must be there, so that the test cannot pass on nothing.
/// </summary>
public sealed class WorkedCases
{
    public static TheoryData<string, string> Cases(string kind)
    {
        var data = new TheoryData<string, string>();
        var folder = Environment.GetEnvironmentVariable("SOLVENDA_VECTORS") is { Length: > 0 } named
            ? named
            : Path.Combine(AppContext.BaseDirectory, "Vectors");
        foreach (var file in Directory.GetFiles(folder, "*.json").Order(StringComparer.Ordinal))
        {
            using var document = JsonDocument.Parse(File.ReadAllText(file));
            if (!document.RootElement.TryGetProperty(kind, out var list))
                continue;
            var n = 0;
            foreach (var one in list.EnumerateArray())
            {
                var name = one.TryGetProperty("name", out var given) ? given.GetString()! : $"{kind}-{n}";
                data.Add($"{Path.GetFileName(file)}: {name}", one.GetRawText());
                n++;
            }
        }
        Assert.NotEmpty(data);
        return data;
    }

    [Theory, MemberData(nameof(Cases), "priceBuilds")]
    public void Price_builds_come_out_step_by_step(string name, string json)
    {
        var c = JsonDocument.Parse(json).RootElement;
        var currency = Currency.Of(Text(c, "currency"));
        var rates = Rates.Fixed(
            Currency.Of("EUR"),
            c.GetProperty("rates").EnumerateObject().ToDictionary(p => Currency.Of(p.Name), p => Number(p.Value))
        );
        var listPrice = rates.Convert(
            Number(c.GetProperty("list"), "price") * Number(c, "unitFactor"),
            Currency.Of(Text(c.GetProperty("list"), "currency")),
            currency
        );
        var build = PriceRules.Build(
            new PriceStep(StepKind.List, null, "list", null, null, UnitPrice.Round4(listPrice!.Value)),
            currency,
            1m,
            Each(c, "agreements").Select(AgreementOf),
            Each(c, "campaigns")
                .Select(k => new Campaign(
                    Text(k, "id"),
                    "",
                    Kind(Text(k, "kind")),
                    Number(k, "value"),
                    Date(k, "from")!.Value,
                    Date(k, "to")
                )),
            Number(c, "quantity"),
            Date(c, "pricingDate")!.Value,
            (value, _) => value
        );

        var expected = c.GetProperty("expected");
        Assert.Equal(Number(expected, "base"), build.Base!.Value.Value);
        Assert.Equal(
            Each(expected, "steps")
                .Select(s =>
                    $"{Text(s, "step")} {Maybe(s, "rule")} {Number(s, "price").ToString("0.0000", CultureInfo.InvariantCulture)}"
                ),
            build.Steps.Select(s =>
                $"{s.Kind.ToString().ToLowerInvariant()} {s.Rule} {s.Price.ToString("0.0000", CultureInfo.InvariantCulture)}"
            )
        );
        Assert.NotEmpty(name);
    }

    [Theory, MemberData(nameof(Cases), "sheets")]
    public void Sheets_add_up(string name, string json)
    {
        var c = JsonDocument.Parse(json).RootElement;
        var currency = Currency.Of(Text(c, "currency"));
        var (lines, tally) = SheetArithmetic.Calculate(
            currency,
            [.. Each(c, "lines").Select(TermsOf)],
            new SheetDiscount(MaybeNumber(c, "sheetDiscountPercent"), MaybeNumber(c, "sheetDiscountAmount")),
            [.. Each(c, "charges").Select(k => new SheetCharge(Text(k, "kind"), Number(k, "amount"), TaxOf(k)))],
            MaybeNumber(c, "deposit") ?? 0m
        );

        var expected = c.GetProperty("expected");
        var expectedLines = Each(expected, "lines").ToList();
        Assert.Equal(expectedLines.Count, lines.Length);
        for (var i = 0; i < lines.Length; i++)
        {
            var e = expectedLines[i];
            Assert.Equal(
                (
                    name,
                    i,
                    Number(e, "gross"),
                    Number(e, "allowance"),
                    Number(e, "charges"),
                    Number(e, "net"),
                    MaybeNumber(e, "margin")
                ),
                (
                    name,
                    i,
                    lines[i].Gross.Value,
                    lines[i].Allowance.Value,
                    lines[i].Charges.Value,
                    lines[i].Net.Value,
                    lines[i].Margin?.Value
                )
            );
        }
        Assert.Equal(
            Each(expected, "tax")
                .Select(t => (Text(t, "category"), Number(t, "percent"), Number(t, "basis"), Number(t, "tax")))
                .Order(),
            tally.Taxes.Select(t => (t.Tax.Category, t.Tax.Percent, t.Basis.Value, t.TaxAmount.Value)).Order()
        );
        foreach (
            var (field, value) in new[]
            {
                ("goods", tally.Goods.Value),
                ("sheetDiscount", tally.SheetDiscount.Value),
                ("charges", tally.Charges.Value),
                ("totalWithoutTax", tally.TotalWithoutTax.Value),
                ("totalTax", tally.TotalTax.Value),
                ("totalWithTax", tally.TotalWithTax.Value),
                ("due", tally.Due.Value),
                ("margin", tally.Margin.Value),
                ("linesWithoutCost", tally.LinesWithoutCost),
            }
        )
        {
            Assert.Equal((field, Number(expected, field)), (field, value));
        }
        Assert.Equal(MaybeNumber(expected, "marginPercent"), tally.MarginPercent);
    }

    [Theory, MemberData(nameof(Cases), "promises")]
    public void Promises_keep_every_earlier_one(string name, string json)
    {
        var c = JsonDocument.Parse(json).RootElement;
        var outlook = Outlook.Over(
            (int)Number(c.GetProperty("days")),
            Number(c, "onHand"),
            Each(c, "incoming").Select(m => new StockMove((int)Number(m.GetProperty("day")), Number(m, "quantity"))),
            Each(c, "committed").Select(m => new StockMove((int)Number(m.GetProperty("day")), Number(m, "quantity")))
        );
        var expected = c.GetProperty("expected");
        Assert.Equal(Each(expected, "projected").Select(Number), outlook.Projected);
        Assert.Equal(Each(expected, "free").Select(Number), outlook.Free);
        var ready = PromiseFinder.ReadyDay(outlook, Number(c, "quantity"), (int?)MaybeNumber(c, "leadDays"));
        Assert.Equal((name, (int?)MaybeNumber(expected, "readyDay")), (name, ready));
    }

    [Theory, MemberData(nameof(Cases), "poKeys")]
    public void Po_numbers_have_one_key(string name, string json)
    {
        var c = JsonDocument.Parse(json).RootElement;
        Assert.Equal((name, Text(c, "key")), (name, PoKey.Of(Text(c, "po"))));
    }

    private static Agreement AgreementOf(JsonElement a) =>
        new(
            Text(a, "id"),
            "",
            Text(a, "party") == "buyer" ? RuleParty.Buyer : RuleParty.Group,
            new BuyerId(1),
            null,
            Enum.Parse<RuleScope>(Text(a, "scope"), ignoreCase: true),
            null,
            null,
            Kind(Text(a, "kind")),
            null,
            [.. Each(a, "breaks").Select(b => new QuantityBreak(Number(b, "from"), Number(b, "value")))],
            Date(a, "from")!.Value,
            Date(a, "to"),
            a.GetProperty("combines").GetBoolean()
        );

    private static LineTerms TermsOf(JsonElement l)
    {
        var hand =
            new[]
            {
                ("discountPercent", ByHandKind.DiscountPercent),
                ("discountAmount", ByHandKind.DiscountAmount),
                ("netPrice", ByHandKind.NetPrice),
                ("targetMarginPercent", ByHandKind.Margin),
            }
                .Where(k => MaybeNumber(l, k.Item1) is not null)
                .Select(k => new ByHand(k.Item2, MaybeNumber(l, k.Item1)!.Value, null))
                .FirstOrDefault()
            ?? ByHand.None;
        return new LineTerms(
            Number(l, "quantity"),
            Number(l, "basePrice"),
            MaybeNumber(l, "priceBase") ?? 1m,
            MaybeNumber(l, "cost"),
            hand,
            [.. Each(l, "charges").Select(Number)],
            !Flag(l, "optional", false),
            Flag(l, "discountable", true),
            TaxOf(l)
        );
    }

    private static Tax TaxOf(JsonElement e) => new(Text(e, "taxCategory"), Number(e, "taxPercent"));

    private static RuleKind Kind(string kind) => Enum.Parse<RuleKind>(kind, ignoreCase: true);

    private static bool Flag(JsonElement e, string name, bool otherwise) =>
        e.TryGetProperty(name, out var v) ? v.GetBoolean() : otherwise;

    private static IEnumerable<JsonElement> Each(JsonElement e, string name) =>
        e.TryGetProperty(name, out var v) ? v.EnumerateArray() : [];

    private static string Text(JsonElement e, string name) => e.GetProperty(name).GetString()!;

    private static string? Maybe(JsonElement e, string name) =>
        e.TryGetProperty(name, out var v) ? v.GetString() : null;

    private static DateOnly? Date(JsonElement e, string name) =>
        Maybe(e, name) is { } text ? DateOnly.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture) : null;

    private static decimal Number(JsonElement e, string name) => Number(e.GetProperty(name));

    private static decimal? MaybeNumber(JsonElement e, string name) =>
        e.TryGetProperty(name, out var v) && v.ValueKind != JsonValueKind.Null ? Number(v) : null;

    private static decimal Number(JsonElement e) =>
        e.ValueKind == JsonValueKind.Number
            ? e.GetDecimal()
            : decimal.Parse(e.GetString()!, NumberStyles.Float, CultureInfo.InvariantCulture);
}
