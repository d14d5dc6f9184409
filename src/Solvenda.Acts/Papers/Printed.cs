using System.Security.Cryptography;
using System.Text.Json;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>
/// A document that was printed ahead of the act that sends it. What is sent is what the act decides: where that is not
/// word by word what was printed, it is printed anew.
/// </summary>
public sealed class Printed
{
    private readonly string _words;
    private readonly byte[] _pdf;

    private Printed(PrintedDocument document)
    {
        _words = Words(document);
        _pdf = PdfWriter.Write(document);
    }

    /// <summary>Prints a document.</summary>
    public static Printed Of(PrintedDocument document) => new(document);

    /// <summary>The print of a document: this one where it is the same.</summary>
    public byte[] For(PrintedDocument document) => Words(document) == _words ? _pdf : PdfWriter.Write(document);

    private static readonly JsonSerializerOptions AllOfIt = new() { IncludeFields = true };

    private static string Words(PrintedDocument document) =>
        Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(document, AllOfIt)));
}
