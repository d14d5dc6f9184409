using Solvenda.Core.Receiving;
using Xunit;

namespace Solvenda.Core.Tests.Receiving;

/// <summary>How late something is, and when somebody is reminded of it.</summary>
public sealed class OwingTests
{
    private static readonly DateOnly _today = new(2026, 11, 28);

    [Theory]
    [InlineData(5, "not due")]
    [InlineData(0, "not due")]
    [InlineData(-1, "up to 30 days")]
    [InlineData(-30, "up to 30 days")]
    [InlineData(-31, "31 to 60")]
    [InlineData(-90, "61 to 90")]
    [InlineData(-91, "over 90")]
    [InlineData(-4000, "over 90")]
    public void Each_is_in_one_band(int due, string band) =>
        Assert.Equal(band, Ageing.Bands[Ageing.BandOf(_today.AddDays(due), _today)]);

    [Theory]
    // late, step so far, days since the last letter, disputed: the step that is due
    [InlineData(6, 0, null, false, 0)]
    [InlineData(7, 0, null, false, 1)]
    [InlineData(60, 0, null, false, 1)]
    [InlineData(60, 0, null, true, 0)]
    [InlineData(21, 1, 14, false, 2)]
    [InlineData(20, 1, 13, false, 0)]
    [InlineData(60, 1, 6, false, 0)]
    [InlineData(60, 1, 7, false, 2)]
    [InlineData(42, 2, 21, false, 3)]
    [InlineData(400, 3, 300, false, 0)]
    public void One_letter_after_the_other_is_due(int late, int step, int? since, bool disputed, int next) =>
        Assert.Equal(
            next,
            ReminderSteps.Usual.NextOf(
                new OwedLate(_today.AddDays(-late), disputed, step, since is { } d ? _today.AddDays(-d) : null),
                _today
            )
        );

    [Fact]
    public void Nobody_is_reminded_where_the_house_says_so_and_steps_never_go_backwards()
    {
        var late = new OwedLate(_today.AddDays(-100), false, 0, null);
        Assert.Equal(0, new ReminderSteps(0, 21, 42).NextOf(late, _today));
        // The second is not sooner than the first, whatever was set.
        var odd = new ReminderSteps(30, 10, 5);
        Assert.Equal(0, odd.NextOf(late with { Due = _today.AddDays(-29), Step = 1 }, _today));
        Assert.Equal(2, odd.NextOf(late with { Due = _today.AddDays(-30), Step = 1 }, _today));
    }
}
