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

    [Theory]
    [InlineData(
        "Bonjour,\n\nnous commandons pour notre commande 4711-2 :\n- 40 manilles lyre galvanisées 10 mm\n- 200 m de cordage polyester 3 torons 12 mm blanc\n\nLivraison souhaitée le 12 avril 2026. Merci de téléphoner avant.\n\nCordialement\nLouise",
        "fr",
        MessageKind.Order
    )]
    [InlineData(
        "Bonjour,\n\npourriez-vous nous faire un devis pour 40 manilles lyre galvanisées 10 mm et 200 mètres de cordage polyester 3 torons 12 mm blanc, livraison avant le 12 avril 2026 ?\n\nMerci d'avance",
        "fr",
        MessageKind.RequestForQuotation
    )]
    [InlineData(
        "Hej,\n\nvi bestiller på vores ordre 4711-2:\n- 40 galvaniserede harpesjækler 10 mm\n- 200 m treslået polyestertov 12 mm hvidt\n\nLevering senest den 12. april 2026. Ring venligst inden.\n\nMed venlig hilsen\nJytte",
        "da",
        MessageKind.Order
    )]
    [InlineData(
        "Hej,\n\nkan vi få jeres pris på 40 galvaniserede harpesjækler 10 mm og 200 meter treslået polyestertov 12 mm hvidt, leveret inden 12. april 2026?\n\nVenlig hilsen",
        "da",
        MessageKind.RequestForQuotation
    )]
    public void French_and_Danish_are_read(string body, string language, MessageKind kind)
    {
        var reading = Shelf.Letter(body);
        Assert.Equal((language, kind), (reading.Language, reading.Kind));
        Assert.Equal(["SHK-BOW-10 40 C62", "PS3-12-WH 200 MTR"], Shelf.Lines(reading));
        Assert.Equal(new DateOnly(2026, 4, 12), reading.Wanted.Value);
        Assert.Empty(reading.LeftOvers);
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
        Assert.Equal(["da", "de", "en", "es", "fr", "nl", "no", "sv"], Language.All.Select(l => l.Code));
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
