using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Which item words mean: languages, slips, sizes, what was bought before.</summary>
public sealed class ItemFinderTests
{
    private static readonly Item Elsewhere = World.Shackle with
    {
        Id = new ItemId(90),
        Code = "XX-90",
        Words = "Pelican hook 10 mm",
        WordsElsewhere = "sv: pelikanhake; de: Sliphaken",
    };

    private static readonly ItemFinder Finder = new([
        .. World.Book.Items,
        Elsewhere,
        World.Shackle with
        {
            Id = new ItemId(91),
            Code = "OFF-1",
            Words = "Bow shackle 99 mm",
            Active = false,
        },
    ]);

    [Theory]
    [InlineData("cleat 3/8\"", "cleat 0.375in")]
    [InlineData("cleat 1 1/2 in", "cleat 1.5in")]
    [InlineData("cleat 2-1/4 inch", "cleat 2.25in")]
    [InlineData("cleat 8\"", "cleat 8in")]
    [InlineData("cleat 1/0\"", "cleat 1 0in")]
    public void A_fraction_of_an_inch_is_one_size(string words, string plain) =>
        Assert.Equal(plain, ItemFinder.Normal(words));

    private static string? Best(string words, string? language = null) =>
        Finder
            .Search(words, 1, null, Language.All.FirstOrDefault(l => l.Code == language))
            .Select(c => c.Item.Code)
            .FirstOrDefault();

    [Theory]
    [
        InlineData("navy braid 10mm", null, "BB2-10-NV"),
        InlineData("10 mm braid, navy", null, "BB2-10-NV"),
        InlineData("1 cm braid navy", null, "BB2-10-NV"),
        InlineData("shakle bow galvanised", null, "SHK-BOW-10"),
        InlineData("bow shackels", null, "SHK-BOW-10")
    ]
    [
        InlineData("Schäkel verzinkt 10 mm", "de", "SHK-BOW-10"),
        InlineData("lyrschackel galvaniserad", "sv", "SHK-BOW-10"),
        InlineData("harpsluitingen verzinkt", "nl", "SHK-BOW-10"),
        InlineData("grilletes lira galvanizados", "es", "SHK-BOW-10"),
        InlineData("tau treslått hvit 12 mm", "no", "PS3-12-WH")
    ]
    [
        InlineData("cabo trenzado azul marino 10 mm", "es", "BB2-10-NV"),
        InlineData("pelikanhake", "sv", "XX-90"),
        InlineData("Sliphaken", "de", "XX-90"),
        InlineData("bow shackle 99 mm", null, null),
        InlineData("quite another thing", null, null)
    ]
    public void Words_mean_the_item_that_they_name(string words, string? language, string? code) =>
        Assert.Equal(code, Best(words, language));

    [Fact]
    public void The_order_of_words_is_no_matter()
    {
        var one = Finder.Search("three strand rope white 12 mm");
        var other = Finder.Search("12 mm white rope strand three");
        Assert.Equal(one.Select(c => (c.Item.Code, c.Score)), other.Select(c => (c.Item.Code, c.Score)));
    }

    [Fact]
    public void What_was_bought_before_comes_first_of_two_alike()
    {
        Assert.Equal(
            "PS3-16-BK",
            Finder.Search("three strand rope", 1, id => id == World.Thick.Id ? 0.08m : 0m)[0].Item.Code
        );
        Assert.Equal(
            "PS3-12-WH",
            Finder.Search("three strand rope", 1, id => id == World.White.Id ? 0.08m : 0m)[0].Item.Code
        );
    }

    [
        Theory,
        InlineData("bb2 10 nv", "BB2-10-NV"),
        InlineData("BB210NV", "BB2-10-NV"),
        InlineData("OFF-1", "OFF-1"),
        InlineData("", null),
        InlineData("---", null)
    ]
    public void Codes_are_codes_whatever_parts_them(string code, string? expected) =>
        Assert.Equal(expected, Finder.ByCode(code)?.Code);
}
