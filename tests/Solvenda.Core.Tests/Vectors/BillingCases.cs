using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Xunit;

namespace Solvenda.Core.Tests.Vectors;

/// <summary>Worked cases of billing: invoices part by part, deposits, credit notes.</summary>
public sealed class BillingCases
{
    public static TheoryData<string, string> Billings => WorkedCases.Cases("billings");

    [Theory, MemberData(nameof(Billings))]
    public void Parts_come_out_to_the_cent(string name, string json)
    {
        Assert.NotEmpty(name);
        var c = JsonDocument.Parse(json).RootElement;
        var currency = Currency.Of(c.GetProperty("currency").GetString()!);
        Amount Money(string of, string field) => MoneyOf(c, field, currency, of);
        var order = Billable.Of(
            currency,
            [
                .. c.GetProperty("lines")
                    .EnumerateArray()
                    .Select(l => new BillLine(
                        Number(l, "quantity"),
                        Amount.Round(Number(l, "net"), currency),
                        TaxOf(l, "taxCategory", "taxPercent"),
                        l.GetProperty("discountable").GetBoolean()
                    )),
            ],
            Money("0", "sheetDiscount"),
            c.TryGetProperty("charges", out var charges)
                ?
                [
                    .. charges
                        .EnumerateArray()
                        .Select(x => new BillableCharge(
                            "",
                            Amount.Round(Number(x, "amount"), currency),
                            TaxOf(x, "taxCategory", "taxPercent")
                        )),
                ]
                : []
        );
        var deposit = Money("0", "deposit");
        var bills = new List<(Bill Bill, int? Of)>();
        var expected = c.GetProperty("expected");
        foreach (var e in c.GetProperty("events").EnumerateArray())
        {
            if (e.TryGetProperty("invoice", out var quantities))
            {
                var bill = BillRules.Invoice(order, [.. bills.Select(b => b.Bill)], Numbers(quantities), deposit);
                deposit -= bill.Prepaid;
                bills.Add((bill, null));
            }
            else
            {
                var of = e.GetProperty("of").GetInt32();
                var note = BillRules.Credit(
                    bills[of].Bill,
                    [.. bills.Where(b => b.Of == of).Select(b => b.Bill)],
                    Numbers(e.GetProperty("credit")),
                    e.TryGetProperty("charges", out var with) && with.GetBoolean()
                );
                bills.Add((note, of));
            }
        }
        var documents = expected.GetProperty("documents").EnumerateArray().ToList();
        Assert.Equal(documents.Count, bills.Count);
        foreach (var (document, (bill, _)) in documents.Zip(bills))
            Assert.Equal(Said(document), Said(bill));
        Assert.Equal(Number(expected, "depositLeft"), deposit.Value);
    }

    private static string Said(JsonElement d) =>
        string.Join(
            " | ",
            d.GetProperty("kind").GetString(),
            string.Join(' ', Numbers(d.GetProperty("lines")).Select(Plain)),
            string.Join(
                ' ',
                d.GetProperty("allowances")
                    .EnumerateArray()
                    .Select(a => $"{TaxOf(a, "category", "percent").Words()}={Plain(Number(a, "amount"))}")
            ),
            Plain(Number(d, "charges")),
            string.Join(
                ' ',
                d.GetProperty("tax")
                    .EnumerateArray()
                    .Select(t =>
                        $"{TaxOf(t, "category", "percent").Words()}={Plain(Number(t, "basis"))}+{Plain(Number(t, "tax"))}"
                    )
            ),
            Plain(Number(d, "totalWithoutTax")),
            Plain(Number(d, "totalTax")),
            Plain(Number(d, "totalWithTax")),
            Plain(Number(d, "prepaid")),
            Plain(Number(d, "due"))
        );

    private static string Said(Bill b) =>
        string.Join(
            " | ",
            b.Kind == BillKind.Invoice ? "invoice" : "credit",
            string.Join(' ', b.Lines.Select(l => Plain(l.Net.Value))),
            string.Join(' ', b.Allowances.Select(a => $"{a.Tax.Words()}={Plain(a.Amount.Value)}")),
            Plain(b.ChargeTotal.Value),
            string.Join(' ', b.Taxes.Select(t => $"{t.Tax.Words()}={Plain(t.Basis.Value)}+{Plain(t.TaxAmount.Value)}")),
            Plain(b.TotalWithoutTax.Value),
            Plain(b.TotalTax.Value),
            Plain(b.TotalWithTax.Value),
            Plain(b.Prepaid.Value),
            Plain(b.Due.Value)
        );

    private static Amount MoneyOf(JsonElement e, string field, Currency currency, string without) =>
        Amount.Round(
            decimal.Parse(e.TryGetProperty(field, out var v) ? v.GetString()! : without, CultureInfo.InvariantCulture),
            currency
        );

    private static Tax TaxOf(JsonElement e, string category, string percent) =>
        new(e.GetProperty(category).GetString()!, Number(e, percent));

    private static decimal Number(JsonElement e, string field) =>
        decimal.Parse(e.GetProperty(field).GetString()!, CultureInfo.InvariantCulture);

    private static ImmutableArray<decimal> Numbers(JsonElement list) =>
        [.. list.EnumerateArray().Select(q => decimal.Parse(q.GetString()!, CultureInfo.InvariantCulture))];

    private static string Plain(decimal value) => value.ToString("0.######", CultureInfo.InvariantCulture);
}

file static class TaxWords
{
    public static string Words(this Tax tax) => FormattableString.Invariant($"{tax.Category}{tax.Percent:0.###}");
}
