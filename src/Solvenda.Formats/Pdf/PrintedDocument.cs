using System.Collections.Immutable;

namespace Solvenda.Formats.Pdf;

/// <summary>One line as printed; all texts are ready, numbers already formatted.</summary>
public sealed record PrintedLine(bool IsHeading, string Number, string Code, string Words, string Note, string Quantity, string Price, string Discount, string Amount, bool IsOptional, string When);

/// <summary>One row of the tax table.</summary>
public sealed record PrintedTax(string Words, string Basis, string Tax);

/// <summary>A quote or an order acknowledgement, ready to be set: the writer lays out and breaks pages, it computes nothing.</summary>
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
    string Footer);
