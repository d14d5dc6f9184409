using Solvenda.Core.Approvals;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>What is worth knowing while a line is typed, and stops nothing.</summary>
public sealed class NoticeTests
{
    private static Finding? Of(string check, PricedSheet sheet, CheckFacts? facts = null) =>
        CheckList.Run((facts ?? CheckTests.Facts()) with { Sheet = sheet }).FirstOrDefault(f => f.Check == check);

    private static SheetLine By(Item item, decimal quantity, ByHandKind kind, decimal value) =>
        World.Line(item, quantity, new ByHand(kind, value, World.Seller.Hand));

    [Theory]
    [InlineData(2.20, null)]
    [InlineData(2.2264, null)]
    [InlineData(2.30, "2.3000 is over the 2.2264 that is agreed.")]
    public void A_price_typed_over_what_is_agreed_is_said(double price, string? words) =>
        Assert.Equal(
            words,
            Of("over-agreement", World.Sheet(By(World.Braid, 180m, ByHandKind.NetPrice, (decimal)price)))?.Words
        );

    [Fact]
    public void What_brings_in_less_than_it_costs_is_said_and_what_nobody_knows_the_cost_of()
    {
        Assert.Null(Of("cost", World.Sheet(World.Line(World.Shackle, 12m))));
        Assert.Equal(
            "It costs us 27.36 and brings in 24.00.",
            Of("cost", World.Sheet(By(World.Shackle, 12m, ByHandKind.NetPrice, 2m)))?.Words
        );
        Assert.Equal(
            "Nobody knows what PS3-12-WH costs us.",
            Of("cost", World.Sheet(World.Line(World.White, 1m)))?.Words
        );
    }

    [Theory]
    [InlineData(180, "MTR", null, null)]
    [InlineData(750, "MTR", null, null)]
    [InlineData(2000, "MTR", "They took 90 to 180 m at a time before.", null)]
    [InlineData(10, "MTR", "They took 90 to 180 m at a time before.", null)]
    [InlineData(180, "CL", "They took 90 to 180 m at a time before. By coil for m?", "180 MTR")]
    [InlineData(1, "MTR", "They took 90 to 180 m at a time before. By m for coil?", "1 CL")]
    public void A_quantity_unlike_any_before_is_said_with_the_likely_slip(
        double quantity,
        string unit,
        string? words,
        string? cure
    )
    {
        var facts = CheckTests.Facts() with
        {
            TakenBefore = new Dictionary<ItemId, TakenBefore> { [World.Braid.Id] = new(90m, 180m, 3) },
        };
        var found = Of("unusual", World.Sheet(World.Line(World.Braid, (decimal)quantity, null, Unit.Of(unit))), facts);
        Assert.Equal((words, cure), (found?.Words, found?.Cures.FirstOrDefault()?.Value));
        // Twice is no habit.
        var twice = facts with
        {
            TakenBefore = new Dictionary<ItemId, TakenBefore> { [World.Braid.Id] = new(90m, 180m, 2) },
        };
        Assert.Null(Of("unusual", World.Sheet(World.Line(World.Braid, (decimal)quantity, null, Unit.Of(unit))), twice));
    }

    [Theory]
    [InlineData("road", false)]
    [InlineData("express", true)]
    public void Dangerous_goods_do_not_go_by_what_flies(string service, bool said)
    {
        var sheet = World.Sheet(World.Line(World.Shackle, 1m));
        var dangerous = sheet with
        {
            Lines = [sheet.Lines[0] with { Item = World.Shackle with { DangerousGoods = "UN 0191, 1.4G" } }],
            Freight = sheet.Freight with { Service = service },
        };
        Assert.Equal(said, Of("dangerous", dangerous) is not null);
    }
}
