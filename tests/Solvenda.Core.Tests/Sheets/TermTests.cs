using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>Every term of the head: what is taken of what is typed, and what is refused with a reason.</summary>
public sealed class TermTests
{
    // What the head keeps after somebody typed it through the door; the reason where it was refused.
    private static string Typed(string term, string text)
    {
        var edit = new SheetEdit(EditKind.Set, null, term, text, null);
        var edited = SheetDoor.Take(new Draft(Head.Empty, [], 1), [edit], World.Door());
        return edited.Refused is { } no ? $"no: {no.Code}" : edited.Draft.Head.Text(term) ?? "";
    }

    [Theory]
    [InlineData("poNumber", "TV-77", "no: field_unknown")]
    [InlineData("matter", "  winter refit ", "winter refit")]
    [InlineData("paymentDays", "30", "30")]
    [InlineData("paymentDays", "030", "30")]
    [InlineData("paymentDays", "soon", "no: number")]
    [InlineData("paymentDays", "-5", "no: number")]
    [InlineData("paymentDays", "99999", "no: number")]
    [InlineData("incoterm", "dap", "DAP")]
    [InlineData("incoterm", "XYZ", "no: *")]
    [InlineData("deliverToCountry", "IE", "IE")]
    [InlineData("deliverToCountry", "se", "no: country")]
    [InlineData("deliverToCountry", "Sweden", "no: *")]
    [InlineData("wanted", "2026-03-20", "2026-03-20")]
    [InlineData("wanted", "20.3.2026", "2026-03-20")]
    [InlineData("wanted", "fri", "2026-03-06")]
    [InlineData("wanted", "mon", "2026-03-09")]
    [InlineData("wanted", "+2w", "2026-03-16")]
    [InlineData("wanted", "+10", "2026-03-12")]
    [InlineData("wanted", "today", "2026-03-02")]
    [InlineData("wanted", "+999m", "no: date")]
    [InlineData("wanted", "2020-01-01", "no: date")]
    [InlineData("wanted", "9999-12-31", "no: date")]
    [InlineData("freight", "12,5", "12.5")]
    [InlineData("freight", "-1", "no: number")]
    [InlineData("freight", "free", "no: number")]
    [InlineData("shipFrom", "Antwerp", "Antwerp")]
    [InlineData("shipFrom", "Nowhere", "no: *")]
    [InlineData("language", "de", "de")]
    [InlineData("language", "xx", "no: *")]
    [InlineData("colour", "red", "no: *")]
    public void What_is_taken_and_what_is_not(string term, string text, string kept)
    {
        var is_ = Typed(term, text);
        if (kept == "no: *")
            Assert.StartsWith("no: ", is_, StringComparison.Ordinal);
        else
            Assert.Equal(kept, is_);
    }

    [Fact]
    public void Every_term_can_be_cleared_and_none_takes_text_without_end()
    {
        foreach (var term in HeadTerms.All)
        {
            Assert.StartsWith("no: ", Typed(term.Name, new string('x', 5_000)), StringComparison.Ordinal);
            var cleared = Typed(term.Name, "");
            Assert.True(cleared.Length == 0 || cleared.StartsWith("no: ", StringComparison.Ordinal), term.Name);
        }
    }

    [Fact]
    public void Terms_have_names_of_their_own() =>
        Assert.Equal(HeadTerms.All.Length, HeadTerms.All.Select(t => t.Name.ToUpperInvariant()).Distinct().Count());
}
