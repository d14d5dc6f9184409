using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

public sealed class OwnFieldTests
{
    private static OwnField Of(OwnType type) => new("cost centre", type, type == OwnType.Choice ? ["Red", "Blue"] : []);

    [Theory]
    [InlineData(OwnType.Text, "C-14", "C-14")]
    [InlineData(OwnType.Text, "two\nlines", null)]
    [InlineData(OwnType.Number, "1.250,5", "1250.5")]
    [InlineData(OwnType.Number, "-3", "-3")]
    [InlineData(OwnType.Number, "many", null)]
    [InlineData(OwnType.Number, "2000000000", null)]
    [InlineData(OwnType.Date, "2026-03-04", "2026-03-04")]
    [InlineData(OwnType.Date, "4 March", "2026-03-04")]
    [InlineData(OwnType.Date, "soon", null)]
    [InlineData(OwnType.Choice, "blue", "Blue")]
    [InlineData(OwnType.Choice, "green", null)]
    public void A_value_is_taken_in_its_own_form_or_refused(OwnType type, string text, string? kept)
    {
        var taken = Of(type).Read(text, new DateOnly(2026, 3, 2));
        Assert.Equal((kept, kept is null), (taken.Text, taken.Refused is not null));
    }

    [Fact]
    public void Where_no_day_is_known_a_date_is_written_out() =>
        Assert.NotNull(Of(OwnType.Date).Read("4 March", today: null).Refused);

    [Theory]
    [InlineData("cost centre", true)]
    [InlineData("zone 2", true)]
    [InlineData("2nd zone", false)]
    [InlineData("Zone", false)]
    [InlineData("a\"b", false)]
    [InlineData("", false)]
    public void A_field_has_a_plain_name(string label, bool good)
    {
        Assert.Equal(good, OwnField.Fault(label) is null);
        if (good)
            Assert.Equal(label, OwnField.LabelOf(new OwnField(label, OwnType.Text, []).Name));
    }
}
