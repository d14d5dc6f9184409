using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>What a typed line is taken for, with a catalogue beside: the first choice is what Enter takes.</summary>
public sealed class EntryChoiceTests
{
    private static readonly ImmutableArray<Item> Shelf =
    [
        Of(1, "FLR-HH-4", "Hand flares, pack of 4 (UN 0191, 1.4G)"),
        Of(2, "THM-SS-10", "Thimble, stainless, 10 mm"),
        Of(3, "THM-SS-12", "Thimble, stainless, 12 mm"),
        Of(4, "THM-SS-14", "Thimble, stainless, 14 mm"),
        Of(5, "SET-MOOR-10", "Mooring set 10 mm (chain, swivel, shackles, rode, two splices)"),
        Of(6, "RSC-LINE-25", "Throwing line 25 m in bag, orange"),
        Of(7, "CTG-AF-RD-5", "Antifouling, red, 5 l (UN 1263, class 3)"),
        Of(8, "PS3-12-WH", "Three-strand polyester rope 12 mm, white", Unit.Metre),
        Of(9, "PS3-12-OR", "Three-strand polyester rope 12 mm, orange", Unit.Metre),
        Of(10, "BB2-10-NV", "Braid-on-braid rope 10 mm, navy", Unit.Metre),
        Of(11, "SHK-BOW-10", "Bow shackle, galvanised, 10 mm") with
        {
            Gtin = "2999000101351",
        },
        Of(12, "SHK-BOW-12", "Bow shackle, galvanised, 12 mm"),
    ];

    private static readonly ItemFinder Finder = new(Shelf);

    private static Item Of(long id, string code, string words, Unit? unit = null) =>
        World.Braid with
        {
            Id = new ItemId(id),
            Code = code,
            Words = words,
            StockUnit = unit ?? Unit.Piece,
            SalesUnits = unit is null ? [] : [new SalesUnit(Unit.Coil, 200m)],
            Gtin = null,
        };

    private static ImmutableArray<EntryChoice> Choices(string text, params long[] bought) =>
        EntryChoices.Of(
            QuickLine.Undecided(text, World.Day, Language.English),
            Finder,
            words => words == "nv 77" || words == "the good stuff" ? Shelf[9] : null,
            bought.Select(id => new ItemId(id)).ToHashSet(),
            Language.English
        );

    private static string Said(EntryChoice choice) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{choice.Item?.Code ?? $"“{choice.Line.Words}”"} {choice.Line.Quantity?.ToString("0.##", CultureInfo.InvariantCulture) ?? "-"}{(choice.Line.Unit is { } u ? " " + u.Code : "")}"
        );

    [Theory]
    // Whatever tells which of the numbers counts: a unit, an x, the end; and what belongs to the name does not.
    [InlineData("hand flares 4 @70 -5%", "FLR-HH-4 4")]
    [InlineData("mooring set 2", "SET-MOOR-10 2")]
    [InlineData("4 mooring set", "SET-MOOR-10 4")]
    [InlineData("thimble 12", "THM-SS-12 -")]
    [InlineData("thimble 12 30", "THM-SS-12 30")]
    [InlineData("30 thimble 12", "THM-SS-12 30")]
    [InlineData("throwing line 25 m", "RSC-LINE-25 -")]
    [InlineData("throwing line 25 m 3", "RSC-LINE-25 3")]
    [InlineData("antifouling red 5 l x 3", "CTG-AF-RD-5 3")]
    [InlineData("antifouling red 5 l", "CTG-AF-RD-5 -")]
    [InlineData("navy rope 30 m", "BB2-10-NV 30 MTR")]
    [InlineData("2 coil rope navy", "BB2-10-NV 2 CL")]
    [InlineData("12 white rope 40m", "PS3-12-WH 40 MTR")]
    // By code, number, their words, and with slips.
    [InlineData("shk-bow-10 12", "SHK-BOW-10 12")]
    [InlineData("2999000101351 3", "SHK-BOW-10 3")]
    [InlineData("nv-77 30 m", "BB2-10-NV 30 MTR")]
    [InlineData("the good stuff x 5", "BB2-10-NV 5")]
    [InlineData("bow shakle 12 x 4", "SHK-BOW-12 4")]
    // What nothing is called by stays as it was typed.
    [InlineData("teak boarding ladder 5 step x 1 @240", "“teak boarding ladder 5 step” 1")]
    [InlineData("boat hook", "“boat hook” -")]
    [InlineData("orange buoy 3 pcs", "“orange buoy” 3 C62")]
    public void The_first_is_what_was_meant(string text, string first) => Assert.Equal(first, Said(Choices(text)[0]));

    [Fact]
    public void Where_a_number_may_be_either_both_stand_there()
    {
        var flares = Choices("hand flares 4").Select(Said).ToList();
        Assert.Equal(["FLR-HH-4 4", "FLR-HH-4 -"], flares.Take(2));
        var thimbles = Choices("thimble 12").Select(Said).ToList();
        Assert.Equal("THM-SS-12 -", thimbles[0]);
        Assert.Contains("THM-SS-10 12", thimbles);
    }

    [Fact]
    public void The_words_themselves_can_always_be_kept_and_the_nearest_say_what_does_not_fit()
    {
        Assert.Null(Choices("hand flares 4")[^1].Item);
        var ladder = Choices("orange rope ladder");
        Assert.Null(ladder[0].Item);
        Assert.Equal(("PS3-12-OR", "ladder"), (ladder[1].Item!.Code, string.Join(' ', ladder[1].Unsaid)));
    }

    [Fact]
    public void Among_equals_what_they_took_before_comes_first()
    {
        Assert.Equal("THM-SS-14", Choices("thimble x 3", 4)[0].Item!.Code);
        Assert.Equal("they took it before", Choices("thimble x 3", 4)[0].How);
        Assert.Equal("SHK-BOW-12", Choices("bow shackle x 3", 12)[0].Item!.Code);
    }

    [Fact]
    public void What_is_not_sold_by_a_unit_is_no_choice_for_it() =>
        Assert.DoesNotContain(Choices("thimble 12 m"), c => c.Item is not null && c.Line.Unit == Unit.Metre);
}
