using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>What a document adds up to is evidence: contradictions are said, and never lead to a guess.</summary>
public sealed class SumTests
{
    private static readonly ReadingContext Context = World.BareReading;

    private static Stated<T> Says<T>(T value) => new(value, new Evidence(0, 0, 1));

    private static StatedLine Line(
        decimal quantity,
        decimal? price,
        decimal? amount,
        decimal priceBase = 1m,
        decimal allowances = 0m
    ) =>
        new(
            "1",
            Says(quantity),
            "PCE",
            price is { } p ? Says(p) : null,
            priceBase,
            null,
            Says("SHK-BOW-10"),
            null,
            "bow shackle",
            []
        )
        {
            Amount = amount is { } a ? Says(a) : null,
            Allowances = allowances,
        };

    private static Core.Reading.Reading Read(decimal? total, params StatedLine[] lines) =>
        DocumentReader.Read(
            new OrderDocument(MessageKind.Order, [.. lines])
            {
                Goods = total is { } t ? Says(t) : null,
                Currency = Says("EUR"),
            },
            Context,
            []
        );

    [Theory]
    [InlineData(12, 4.15, 49.80, 1, 0, true)]
    [InlineData(12, 4.15, 49.81, 1, 0, true)]
    [InlineData(12, 4.15, 94.80, 1, 0, false)]
    [InlineData(1200, 0.0415, 49.80, 1, 0, true)]
    [InlineData(1000, 41.5, 415, 100, 0, true)]
    [InlineData(1000, 41.5, 41500, 100, 0, false)]
    [InlineData(12, 4.15, 47.31, 1, -2.49, true)]
    [InlineData(12, 4.15, 49.80, 1, -2.49, true)]
    public void Quantity_price_and_amount_agree_or_the_quantity_is_asked(
        double quantity,
        double price,
        double amount,
        double priceBase,
        double allowances,
        bool agrees
    )
    {
        var reading = Read(
            null,
            Line((decimal)quantity, (decimal)price, (decimal)amount, (decimal)priceBase, (decimal)allowances)
        );
        Assert.Equal(agrees, reading.Warnings.IsEmpty);
        Assert.Equal(agrees, reading.Lines[0].Quantity.Sure > 0.5m);
        // It is asked, and not changed.
        Assert.Equal((decimal)quantity, reading.Lines[0].Quantity.Value);
    }

    [Theory]
    [InlineData(99.60, true)]
    [InlineData(99.61, true)]
    [InlineData(149.40, false)]
    public void The_total_is_the_lines(double total, bool agrees) =>
        Assert.Equal(agrees, Read((decimal)total, Line(12m, 4.15m, 49.80m), Line(12m, 4.15m, null)).LeftOvers.IsEmpty);

    [Fact]
    public void A_line_without_price_says_nothing_about_the_total() =>
        Assert.Empty(Read(1m, Line(12m, 4.15m, null), Line(5m, null, null)).LeftOvers);

    [Fact]
    public void Whatever_is_right_to_the_cent_is_never_doubted() =>
        Gen.Select(Gen.Int[1, 5_000], Gen.Int[1, 99_999], One.Of(1, 10, 100, 1_000))
            .Sample(
                (quantity, steps, priceBase) =>
                {
                    var price = steps / 100m;
                    var amount = Math.Round(quantity * price / priceBase, 2, MidpointRounding.AwayFromZero);
                    var reading = Read(amount, Line(quantity, price, amount, priceBase));
                    Assert.Empty(reading.Warnings);
                    Assert.Empty(reading.LeftOvers);
                }
            );

    [Fact]
    public void An_amount_that_is_out_by_a_digit_is_always_said() =>
        Gen.Select(Gen.Int[1, 500], Gen.Int[100, 99_999])
            .Sample(
                (quantity, cents) =>
                    Assert.Single(Read(null, Line(quantity, cents / 100m, quantity * cents / 10m)).Warnings)
            );

    [Fact]
    public void More_lines_than_a_sheet_holds_are_said_and_the_first_are_read()
    {
        var reading = Read(null, [.. Enumerable.Repeat(Line(1m, 4.15m, null), DocumentReader.MostLines + 1)]);
        Assert.Equal(DocumentReader.MostLines, reading.Lines.Length);
        Assert.Contains("2,001 lines are stated", Assert.Single(reading.Warnings), StringComparison.Ordinal);
    }

    [Fact]
    public void A_currency_that_is_none_is_said_and_not_taken_for_ours()
    {
        var reading = DocumentReader.Read(
            new OrderDocument(MessageKind.Order, [Line(1m, 4.15m, null)]) { Currency = Says("XXQ") },
            Context,
            []
        );
        Assert.Null(reading.Currency.Value);
        Assert.Contains("XXQ", Assert.Single(reading.Warnings), StringComparison.Ordinal);
    }
}
