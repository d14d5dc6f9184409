using Solvenda.Core.Shipping;
using Xunit;

namespace Solvenda.Core.Tests.Shipping;

/// <summary>Which lots goods are of, as whoever picks them types it.</summary>
public sealed class LotTests
{
    [Theory]
    [InlineData("", "")]
    [InlineData(" l2408a ", "L2408A 15")]
    [InlineData("L2408A 12; L2409B 3", "L2408A 12, L2409B 3")]
    [InlineData("L2408A 0.5", "L2408A 0.5")]
    [InlineData(",,L1", "L1 15")]
    public void It_is_read_as_it_is_typed_and_kept_one_way(string typed, string kept)
    {
        Assert.Equal(kept, Lots.Write(Lots.Read(typed, 15m)));
        // What is kept reads as itself.
        Assert.Equal(kept, Lots.Write(Lots.Read(kept, 15m)));
    }

    [Theory]
    [InlineData("L1, L2 3")]
    [InlineData("L1 1, l1 2")]
    [InlineData("L1 0")]
    [InlineData("L1 -3")]
    [InlineData("L1 many")]
    [InlineData("L1 2 of it")]
    [InlineData("L123456789012345678901234567890123456789012345")]
    public void What_would_be_guessed_is_refused(string typed) =>
        Assert.Throws<FormatException>(() => Lots.Read(typed, 15m));
}
