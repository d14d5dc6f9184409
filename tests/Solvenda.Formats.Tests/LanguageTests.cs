using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Languages, what is new in a letter, and what was learned.</summary>
public sealed class LanguageTests
{
    [Fact]
    public void What_is_quoted_and_the_signature_are_told_from_what_is_new()
    {
        var reading = Shelf.Letter(
            "Please send 6 pcs FND-A3-BL.\n\nKind regards\nMaud Ferrier\n12 Dry Dock Road\n\nAm 2.3.2026 schrieb Sorcha Quill:\n> 40 m PS3-12-WH\n"
        );
        Assert.Equal(["FND-A3-BL 6 C62"], Shelf.Lines(reading));
        // Forwarded with hardly a word: what was forwarded is the letter.
        var forwarded = Shelf.Letter(
            "see below\n\n---------- Forwarded message ---------\nFrom: Maud <maud@kestrel.example>\nSubject: rope\n\nPlease send 40 m PS3-12-WH.\n\nMaud\n"
        );
        Assert.Equal(["PS3-12-WH 40 MTR"], Shelf.Lines(forwarded));
    }

    [Fact]
    public void What_was_learned_is_read_so_for_one_or_for_everybody()
    {
        var everybody = new Alias(7, null, ItemFinder.Normal("blue balls"), Shelf.ItemOf("FND-A3-BL").Id, null, null);
        var context = Shelf.Context(everybody);
        Assert.Equal(
            "FND-A3-BL 6 C62",
            Shelf.Say(
                Assert.Single(
                    Shelf.Letter("send 6 pcs blue balls", from: "new@somewhere.example", context: context).Lines
                )
            )
        );
        Assert.Equal([7L], context.Helped);
    }

    [Fact]
    public void Every_language_has_every_word_it_needs()
    {
        Assert.Equal(["de", "en", "es", "nl", "no", "sv"], Language.All.Select(l => l.Code));
        Assert.All(
            Language.All,
            l =>
            {
                Assert.Equal((7, 12), (l.Days.Length, l.Months.Length));
                Assert.All(l.Heads.Keys, k => Assert.Contains(k, TableReading.Meanings));
                Assert.All(l.Units.Values, u => Assert.NotNull(Core.Units.UnitTable.FromCode(u)));
            }
        );
    }
}
