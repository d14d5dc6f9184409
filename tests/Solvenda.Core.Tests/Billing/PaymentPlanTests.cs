using CsCheck;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Xunit;

namespace Solvenda.Core.Tests.Billing;

/// <summary>When an invoice is to be paid: plans as they are typed, and what is due when.</summary>
public sealed class PaymentPlanTests
{
    private static readonly string[] _codes = ["EUR", "JPY", "KWD"];
    private static readonly DateOnly _day = new(2026, 11, 28);

    [Theory]
    [InlineData("30", "30", 30)]
    [InlineData("14 days", "14", 14)]
    [InlineData("10 End of month", "10 end of month", 40)]
    [InlineData("30, less 2% in 10 days", "30, less 2 % in 10", 30)]
    [InlineData("30 % in 0, 70% in 60", "30 % in 0, 70 % in 60", 60)]
    [InlineData("33.33 % in 10, 33.33 % in 20, 33.34 % in 30, less 1.5 % in 5", null, 30)]
    public void What_is_typed_is_understood_and_kept(string typed, string? kept, int longest)
    {
        var plan = PaymentPlan.Read(typed, out var fault);
        Assert.Equal("", fault);
        Assert.Equal((kept ?? typed, longest), (plan!.ToString(), plan.Longest));
        Assert.Equal(plan.ToString(), PaymentPlan.Read(plan.ToString(), out _)!.ToString());
    }

    [Theory]
    [InlineData("", "is not understood")]
    [InlineData("soon", "“soon” is not understood")]
    [InlineData("-5", "“-5” is not understood")]
    [InlineData("366", "at most 365 days")]
    [InlineData("999999", "at most 365 days")]
    [InlineData("less 2 % in 10", "say the days to pay too")]
    [InlineData("30, less 5 % in 10", "at most 3 %")]
    [InlineData("30, less 0 % in 10", "at most 3 %")]
    [InlineData("30, less 2 % in 30", "early is before it is due")]
    [InlineData("30 % in 0, 60 % in 60", "100 % together")]
    [InlineData("50 % in 30, 50 % in 30", "later than the one before")]
    [InlineData("30, 40", "“40” is not understood")]
    public void What_is_none_is_said_in_words(string typed, string said)
    {
        Assert.Null(PaymentPlan.Read(typed, out var fault));
        Assert.Contains(said, fault, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("30", "2026-12-28:100.01")]
    [InlineData("10 end of month", "2026-12-10:100.01")]
    [InlineData("0 end of month", "2026-11-30:100.01")]
    [InlineData("30 % in 0, 70 % in 60", "2026-11-28:30.00 2027-01-27:70.01")]
    public void It_says_what_is_due_when(string typed, string dues)
    {
        var plan = PaymentPlan.Read(typed, out _)!;
        var amount = Amount.FromMinor(100_01, Currency.Of("EUR"));
        Assert.Equal(
            dues,
            string.Join(
                ' ',
                plan.Of(amount, _day)
                    .Select(p => FormattableString.Invariant($"{p.Due:yyyy-MM-dd}:{p.Amount.Value:0.00}"))
            )
        );
    }

    [Fact]
    public void The_parts_are_the_whole_whatever_it_is() =>
        Gen.Select(Gen.Long[0, 100_000_000], Gen.Int[1, 99], Gen.Int[0, 2])
            .Sample(
                (minor, first, at) =>
                {
                    var currency = Currency.Of(_codes[at]);
                    var plan = PaymentPlan.Read($"{first} % in 0, {100 - first} % in 30", out _)!;
                    var parts = plan.Of(Amount.FromMinor(minor, currency), _day);
                    Assert.Equal(minor, parts.Sum(p => p.Amount.Minor));
                    Assert.All(parts, p => Assert.True(p.Amount.Minor >= 0));
                }
            );
}
