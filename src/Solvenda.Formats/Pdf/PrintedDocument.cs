using System.Collections.Immutable;

namespace Solvenda.Formats.Pdf;

/// <summary>One line as printed; all texts are ready, numbers already formatted.</summary>
public sealed record PrintedLine(
    bool IsHeading,
    string Number,
    string Code,
    string Words,
    string Note,
    string Quantity,
    string Price,
    string Discount,
    string Amount,
    bool IsOptional,
    string When
);

/// <summary>One row of the tax table.</summary>
public sealed record PrintedTax(string Words, string Basis, string Tax);

/// <summary>A letter to be posted.</summary>
/// <param name="To">The lines on the envelope.</param>
/// <param name="Text">Its lines; an empty one parts paragraphs.</param>
public sealed record PrintedLetter(ImmutableArray<string> To, string Text);

/// <summary>
/// The words that the writer itself sets, in the language of the document; <paramref name="Page"/> with a place {0}.
/// </summary>
public sealed record PrintedLabels(
    string What,
    string Quantity,
    string Price,
    string Less,
    string Tax,
    string TaxOn,
    string Page
);

/// <summary>
/// A quote or an order acknowledgement, ready to be set: the writer lays out and breaks pages, it computes nothing.
/// </summary>
/// <param name="Letter">The letter on a page in front of it; null: none.</param>
public sealed record PrintedDocument(
    string Seller,
    ImmutableArray<string> SellerLines,
    string Title,
    string Number,
    ImmutableArray<string> BuyerLines,
    ImmutableArray<(string Label, string Value)> Facts,
    string Matter,
    string Currency,
    ImmutableArray<PrintedLine> Lines,
    ImmutableArray<(string Label, string Value, bool Strong)> Totals,
    ImmutableArray<PrintedTax> Taxes,
    ImmutableArray<string> Closing,
    string Footer,
    PrintedLabels Labels,
    PrintedLetter? Letter
)
{
    /// <summary>Paragraphs over the lines; empty: none.</summary>
    public ImmutableArray<string> Above { get; init; } = [];

    /// <summary>Of the seller, a PNG or JPEG; null: the name alone.</summary>
    public byte[]? Logo { get; init; }

    /// <summary>Of names, titles and rules, as #rrggbb; empty: that of ink.</summary>
    public string Colour { get; init; } = "";

    /// <summary>A line under the footer; empty: none.</summary>
    public string Foot { get; init; } = "";
}
