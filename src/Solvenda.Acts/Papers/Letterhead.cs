using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>Puts documents on the paper of the house: its logo, its colour, its line at the foot.</summary>
public static class Letterhead
{
    public static PrintedDocument On(this PrintedDocument document, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(document);
        ArgumentNullException.ThrowIfNull(seller);
        return document with { Logo = seller.Logo, Colour = seller.PaperColour, Foot = seller.PaperFoot };
    }
}
