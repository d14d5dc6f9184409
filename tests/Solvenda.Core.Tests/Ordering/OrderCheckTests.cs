using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>Checks of what an order says of itself: money that came, days, numbers.</summary>
public sealed class OrderCheckTests
{
    private static Finding? Found(CheckFacts facts, string check) =>
        CheckList.Run(facts).FirstOrDefault(f => f.Check == check);

    private static CheckSetting Number(string check, string name, decimal value) =>
        new(
            check,
            null,
            null,
            CheckLevel.AsItIs,
            null,
            ImmutableSortedDictionary<string, decimal>.Empty.Add(name, value)
        );

    [Fact]
    public void What_was_paid_is_what_we_would_bill_or_somebody_looks_at_it()
    {
        var facts = CheckTests.Facts();
        var ours = facts.Sheet.Tally.TotalWithTax.Value;
        CheckFacts Paid(decimal paid) => facts with { Stated = facts.Stated with { Paid = paid, ByChannel = true } };
        Assert.Null(Found(facts, "paid"));
        Assert.Null(Found(Paid(ours), "paid"));
        var less = Found(Paid(ours - 8.26m), "paid")!;
        Assert.Equal((Outcome.Stop, WaiveBy.Lead), (less.Outcome, less.Waive));
        Assert.Contains("8.26 more", less.Words, StringComparison.Ordinal);
        Assert.Contains("1.00 less", Found(Paid(ours + 1m), "paid")!.Words, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("2026-03-01", "2026-03-02", Outcome.Stop)]
    [InlineData("2026-03-02", "2026-03-02", Outcome.Clear)]
    [InlineData("2026-03-07", "2026-03-02", Outcome.Notice)]
    public void A_wanted_day_lies_ahead_and_is_no_weekend(string wanted, string today, Outcome outcome)
    {
        var facts = CheckTests.Facts();
        facts = facts with
        {
            Head = facts.Head.With(HeadTerms.Wanted.Name, wanted, null),
            Today = DateOnly.Parse(today, CultureInfo.InvariantCulture),
        };
        Assert.Equal(outcome, Found(facts, "days")?.Outcome ?? Outcome.Clear);
    }

    [Fact]
    public void A_check_that_the_house_switched_off_is_silent_after_confirming_too()
    {
        var facts = CheckTests.Facts();
        var key = facts.Sheet.Lines[0].Line.Key;
        facts = facts with
        {
            Promised = new Dictionary<long, DateOnly?> { [key] = World.Day },
            Stock = new Dictionary<long, Core.Promising.LineStock> { [key] = new(0m, null) },
        };
        Assert.Equal(Outcome.Notice, Found(facts, "stock")!.Outcome);
        var off = new CheckSetting(
            "stock",
            null,
            null,
            CheckLevel.Off,
            null,
            ImmutableSortedDictionary<string, decimal>.Empty
        );
        Assert.Null(Found(facts with { Settings = [off] }, "stock"));
    }

    [Fact]
    public void An_order_is_taken_from_the_least_that_the_house_says()
    {
        var facts = CheckTests.Facts();
        var goods = facts.Sheet.Tally.Goods.Value;
        Assert.Null(Found(facts, "least-value"));
        Assert.Null(Found(facts with { Settings = [Number("least-value", "least", goods)] }, "least-value"));
        Assert.Equal(
            Outcome.Stop,
            Found(facts with { Settings = [Number("least-value", "least", goods + 0.01m)] }, "least-value")!.Outcome
        );
    }

    [Theory]
    [InlineData(EarlierIn.OpenOrders, "open")]
    [InlineData(EarlierIn.PastOrders, "past")]
    [InlineData(EarlierIn.Requests, "requests")]
    public void A_PO_number_is_looked_for_where_the_house_says(EarlierIn where, string scope)
    {
        var facts = CheckTests.Facts() with
        {
            Earlier = [new Earlier(new DocumentRef("order", "S26-1"), "TV-1", World.Day, true) { In = where }],
        };
        Assert.Equal(Outcome.Stop, Found(facts, "po-number")!.Outcome);
        Assert.Null(Found(facts with { Settings = [Number("po-number", scope, 0m)] }, "po-number"));
    }

    [Fact]
    public void A_call_off_is_known_by_its_PO_and_its_release_together()
    {
        Assert.Equal(PoKey.Of("TV-9"), PoKey.Of("PO tv 9", null));
        Assert.NotEqual(PoKey.Of("TV-9", "1"), PoKey.Of("TV-9", "2"));
        Assert.NotEqual(PoKey.Of("TV-9", "1"), PoKey.Of("TV-91", null));
        Assert.Equal(PoKey.Of("TV-9", "007"), PoKey.Of("tv9", "7"));
        Assert.Equal("", PoKey.Of(null, "3"));
    }

    // Numbers made up by the rule of each country, and the same with one digit off.
    [Theory]
    [InlineData("DE900000098", true)]
    [InlineData("DE 900 000 099", false)]
    [InlineData("DK90000012", true)]
    [InlineData("DK90000013", false)]
    [InlineData("FI90000011", true)]
    [InlineData("FI90000012", false)]
    [InlineData("LU90000133", true)]
    [InlineData("LU90000134", false)]
    [InlineData("NO900000014MVA", true)]
    [InlineData("NO900000015", false)]
    [InlineData("PL9000000016", true)]
    [InlineData("PL9000000017", false)]
    [InlineData("BE0900000048", true)]
    [InlineData("BE0900000049", false)]
    [InlineData("SE999999999901", true)]
    [InlineData("SE999999999902", false)]
    [InlineData("IE9999999WA", true)]
    [InlineData("IE99", false)]
    [InlineData("NL999999999B01", true)]
    [InlineData("NL9999B01", false)]
    [InlineData("123456", false)]
    // A country of which we know nothing is taken as it stands.
    [InlineData("JP1234", true)]
    public void A_tax_number_can_be_one_of_its_country(string number, bool sound) =>
        Assert.Equal(sound, TaxNumbers.Fault(number) is null);
}
