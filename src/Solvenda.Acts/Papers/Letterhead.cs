using Solvenda.Acts.Wordings;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>Puts documents on the paper of the house: its logo, its colour, its line at the foot.</summary>
public static class Letterhead
{
    /// <summary>What a kind of paper is called, in its language.</summary>
    public static string TitleOf(this Wording wording, PaperKind paper)
    {
        ArgumentNullException.ThrowIfNull(wording);
        var name = paper.ToString();
        return wording[char.ToLowerInvariant(name[0]) + name[1..]];
    }

    /// <summary>With what the house says there to that buyer.</summary>
    /// <param name="texts">All that it says on papers.</param>
    public static PrintedDocument Saying(
        this PrintedDocument document,
        IEnumerable<PaperText> texts,
        PaperKind paper,
        Wording wording,
        BuyerRow buyer
    )
    {
        ArgumentNullException.ThrowIfNull(wording);
        ArgumentNullException.ThrowIfNull(buyer);
        return document.Saying(PaperText.For(texts, paper, wording.Code, buyer.Id, buyer.Group ?? ""));
    }

    /// <summary>With such a text; null: none.</summary>
    public static PrintedDocument Saying(this PrintedDocument document, PaperText? text)
    {
        ArgumentNullException.ThrowIfNull(document);
        return text is null
            ? document
            : document with
            {
                Above = [.. Paragraphs(text.Above)],
                Closing = [.. document.Closing, .. Paragraphs(text.Below)],
            };
    }

    private static string[] Paragraphs(string text) =>
        text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    public static PrintedDocument On(this PrintedDocument document, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(document);
        ArgumentNullException.ThrowIfNull(seller);
        return document with { Logo = seller.Logo, Colour = seller.PaperColour, Foot = seller.PaperFoot };
    }
}
