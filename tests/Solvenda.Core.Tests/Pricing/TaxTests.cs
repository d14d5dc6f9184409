using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

/// <summary>Directive 2006/112/EC, articles 138 and 146, as the house applies them.</summary>
public sealed class TaxTests
{
    private static readonly DateOnly Day = new(2026, 3, 2);

    private static readonly TaxRate[] Rates =
    [
        new(TaxClass.Standard, 21m, new DateOnly(2020, 1, 1), new DateOnly(2025, 12, 31)),
        new(TaxClass.Standard, 23m, new DateOnly(2026, 1, 1), null),
        new(TaxClass.Standard, 25m, new DateOnly(2026, 7, 1), null),
        new(TaxClass.Standard, 20m, new DateOnly(2024, 1, 1), null, "GB"),
    ];

    private static string Of(
        string? to,
        string? taxNumber = "X1",
        TaxClass of = TaxClass.Standard,
        bool exempt = false,
        string day = "2026-03-02"
    ) =>
        TaxRules.Find(
            "IE",
            to,
            World.Tressel with
            {
                TaxNumber = taxNumber,
                TaxExempt = exempt,
            },
            of,
            DateOnly.Parse(day, null),
            Rates
        )
            is { } tax
            ? $"{tax.Category} {tax.Percent:0.##}"
            : "none";

    [Theory]
    [InlineData("IE", "S 23")]
    [InlineData("SE", "K 0")]
    [InlineData("NO", "G 0")]
    [InlineData("US", "G 0")]
    [InlineData("GB", "S 20")]
    [InlineData("", "none")]
    [InlineData(null, "none")]
    public void Where_it_goes_says_whose_tax_it_is(string? to, string tax) => Assert.Equal(tax, Of(to));

    [Fact]
    public void A_rate_of_home_is_kept_without_a_country_or_with_its_own() =>
        Assert.Equal(
            new Tax("S", 13.5m),
            TaxRules.Find(
                "IE",
                "IE",
                World.Tressel,
                TaxClass.Reduced,
                Day,
                [new TaxRate(TaxClass.Reduced, 13.5m, new DateOnly(2020, 1, 1), null, "IE")]
            )
        );

    [Theory]
    [InlineData("2025-12-31", "S 21")]
    [InlineData("2026-01-01", "S 23")]
    [InlineData("2026-06-30", "S 23")]
    [InlineData("2026-07-01", "S 25")]
    [InlineData("2019-12-31", "none")]
    public void The_rate_is_the_days(string day, string tax) => Assert.Equal(tax, Of("IE", day: day));

    [Fact]
    public void Inside_the_union_without_a_number_there_is_no_rule_and_nothing_is_guessed()
    {
        Assert.Equal("none", Of("SE", null));
        Assert.Equal("none", Of("SE", "  "));
        // Outside it, and at home, the number says nothing.
        Assert.Equal("G 0", Of("NO", null));
        Assert.Equal("S 23", Of("IE", null));
    }

    [Theory]
    [InlineData(TaxClass.Zero, "Z 0")]
    [InlineData(TaxClass.Exempt, "E 0")]
    [InlineData(TaxClass.Standard, "S 23")]
    public void At_home_the_class_of_the_item_decides(TaxClass of, string tax) => Assert.Equal(tax, Of("IE", of: of));

    [Fact]
    public void An_exempt_buyer_is_so_at_home_whatever_the_item_and_abroad_the_way_decides()
    {
        Assert.Equal("E 0", Of("IE", exempt: true));
        Assert.Equal("E 0", Of("IE", of: TaxClass.Zero, exempt: true));
        Assert.Equal("K 0", Of("SE", exempt: true));
    }

    [Fact]
    public void A_class_without_a_rate_has_no_tax_rather_than_another_classs() =>
        Assert.Equal("none", Of("IE", of: TaxClass.Reduced));
}
