using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

public sealed class UnitTests
{
    [Fact]
    public void Every_unit_is_found_by_its_code_and_by_each_of_its_words_and_no_word_means_two()
    {
        foreach (var row in UnitTable.Rows)
        {
            Assert.Equal(row.Unit, UnitTable.FromCode(row.Unit.Code));
            Assert.Equal(
                row.Unit,
                UnitTable.FromWord(row.OnSheet.Length > 0 ? row.OnSheet : row.Unit.Code) ?? row.Unit
            );
        }
        Assert.Equal(UnitTable.Rows.Length, UnitTable.Rows.Select(r => r.Unit).Distinct().Count());
    }

    [Theory]
    [InlineData("m", "MTR")]
    [InlineData("metres", "MTR")]
    [InlineData("coil", "CL")]
    [InlineData("box", "BX")]
    [InlineData("pcs", "C62")]
    public void Words_are_known_by_what_people_say(string word, string code) =>
        Assert.Equal(code, UnitTable.FromWord(word)?.Code);

    [Theory]
    [InlineData(null), InlineData(""), InlineData("furlong")]
    public void A_code_that_is_none_is_no_unit(string? code) => Assert.Null(UnitTable.FromCode(code));

    [Fact]
    public void Fixed_factors_go_there_and_back_and_only_between_what_is_alike()
    {
        foreach (var from in UnitTable.Rows)
        foreach (var to in UnitTable.Rows)
        {
            if (UnitTable.FixedFactor(from.Unit, to.Unit) is not { } there)
                continue;
            Assert.True(there > 0m);
            if (UnitTable.FixedFactor(to.Unit, from.Unit) is { } back)
                Assert.InRange(there * back, 0.999999m, 1.000001m);
        }
        Assert.Null(UnitTable.FixedFactor(Unit.Metre, Unit.Kilogram));
        Assert.Equal(1m, UnitTable.FixedFactor(Unit.Metre, Unit.Metre));
    }

    [Fact]
    public void A_foot_is_the_international_one() =>
        Assert.Equal(0.3048m, UnitTable.FixedFactor(Unit.Foot, Unit.Metre));
}
