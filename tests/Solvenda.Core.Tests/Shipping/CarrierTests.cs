using Solvenda.Core.Shipping;
using Xunit;

namespace Solvenda.Core.Tests.Shipping;

/// <summary>The files that go to carriers and come back from them.</summary>
public sealed class CarrierTests
{
    private static readonly CarriedShipment _shipment = new(
        "S26-00001/1",
        "S26-00001",
        "PO 7",
        "Tressel & Vane",
        "1 Slip Lane, Skerrow",
        "IE",
        "Fergal",
        "office@tresselvane.example",
        0,
        12.5m,
        new DateOnly(2026, 12, 4)
    );

    [Fact]
    public void A_form_names_its_columns_in_its_own_order() =>
        Assert.Equal(
            ["12.5", "S26-00001/1", "1"],
            CarrierForm.Of("Weight = kg; Our ref = shipment; parcels").Row(_shipment)
        );

    [Theory]
    [InlineData("Weight = kilos; shipment", "kilos")]
    [InlineData("to; address", "number has to be in it")]
    public void A_form_that_cannot_come_back_is_refused(string text, string why) =>
        Assert.Contains(why, CarrierForm.Fault(text), StringComparison.Ordinal);

    [Fact]
    public void A_form_that_was_not_set_holds_everything() =>
        Assert.Equal(CarrierForm.Names, CarrierForm.Of(" ").Columns.Select(c => c.Head));

    [Theory]
    [InlineData("Tracking Number;Your reference;Price;POD", "SKP1;S26-00001/1;9,50;04.12.2026")]
    [InlineData("reference;delivered;odd;cost;consignment", "S26-00001/1;2026-12-04;x;9.5;SKP1")]
    public void What_comes_back_is_known_by_its_heads_in_any_order(string head, string row) =>
        Assert.Equal(
            new CarrierSays("S26-00001/1", "SKP1", 9.5m, new DateOnly(2026, 12, 4)),
            CarrierSays.Of(CarrierSays.ColumnsOf(head.Split(';'))!, row.Split(';'))
        );

    [Fact]
    public void A_file_without_our_number_says_nothing() => Assert.Null(CarrierSays.ColumnsOf(["tracking", "cost"]));

    [Theory]
    [InlineData("1.234,50", "")]
    [InlineData("-3", "")]
    [InlineData("", "12/04/2026")]
    public void What_can_be_read_two_ways_is_refused(string cost, string day) =>
        Assert.Throws<FormatException>(() =>
            CarrierSays.Of(CarrierSays.ColumnsOf(["shipment", "cost", "delivered"])!, ["S26-00001/1", cost, day])
        );
}
