using System.Globalization;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;

namespace Solvenda.Acts.Assortments;

/// <summary>
/// Lines as they are typed, one a row: <c># heading</c>, <c>// comment</c>, <c>CODE x 12 C62</c>, and words with
/// a price
/// for what is not in the catalogue.
/// </summary>
public static class AssortmentLines
{
    /// <summary>A line of a sheet as it would be typed again.</summary>
    /// <param name="price">Net, where it is to be typed too; null: as it is priced then.</param>
    public static string Text(SheetLine line, PriceBook book, decimal? price)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(book);
        var words = Plain(line.Words);
        switch (line.Kind)
        {
            case LineKind.Heading:
                return $"# {words}";
            case LineKind.Comment:
                return $"// {words}";
        }
        var code = line.Item is { } id ? book.Find(id)?.Code : null;
        var typed = line.ByHand.Kind == ByHandKind.NetPrice && code is null ? line.ByHand.Value : price;
        var mark = line.Kind == LineKind.Charge ? "+ " : "";
        return mark
            + new QuickLine(words, line.Quantity, line.Unit, typed, null)
            {
                IsOption = line.Optional,
                Note = Plain(line.Note),
            }.Said(code);
    }

    // One row is one line, whatever stands in its words.
    private static string Plain(string words) =>
        string.Join(' ', words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
