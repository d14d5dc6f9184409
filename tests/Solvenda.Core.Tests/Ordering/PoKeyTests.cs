using CsCheck;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

public sealed class PoKeyTests
{
    [Theory]
    [InlineData("PO 4711", "4711")]
    [InlineData("p.o. #004711", "4711")]
    [InlineData("Order no. 4711", "4711")]
    [InlineData("PO-4711", "4711")]
    [InlineData("PO-BOX 12", "POBOX12")]
    [InlineData("NORTH-007", "NORTH7")]
    [InlineData("４７１１", "4711")]
    [InlineData("٤٧١١", "4711")]
    [InlineData("ΤV-17", "TV17")]
    [InlineData("РО-17", "17")]
    [InlineData("A-0", "A0")]
    [InlineData("A0010", "A10")]
    [InlineData("PO", "PO")]
    [InlineData("000", "0")]
    [InlineData(" # ", "")]
    public void Spellings_of_one_number_have_one_key(string written, string key) =>
        Assert.Equal(key, PoKey.Of(written));

    [Fact]
    public void A_key_is_its_own_key_and_leading_zeros_and_marks_do_not_matter() =>
        Gen.Select(Gen.Int[1, 999_999], Gen.Int[0, 4], One.Of("", "PO ", "P.O. ", "order ", "#"))
            .Sample(
                (number, zeros, lead) =>
                {
                    var key = PoKey.Of($"{lead}TV-{new string('0', zeros)}{number}");
                    Assert.Equal($"TV{number}", key);
                    Assert.Equal(key, PoKey.Of(key));
                }
            );
}
