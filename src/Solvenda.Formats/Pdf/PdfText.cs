using Solvenda.Core.Reading;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Solvenda.Formats.Pdf;

/// <summary>A word and its box on its page, as high as its line; measures in any unit, from the top left.</summary>
public sealed record PageWord(string Text, double Left, double Top, double Width, double Height)
{
    /// <summary>
    /// Where it stands on a page that was turned to be read, in fractions of the page as it is shown; null where it is
    /// shown as it is read.
    /// </summary>
    public (double Left, double Top, double Width, double Height)? Shown { get; init; }
}

/// <summary>A page's words, and its size in the same unit.</summary>
public sealed record PageText(double Width, double Height, IReadOnlyList<PageWord> Words);

/// <summary>
/// What a PDF holds, as far as it was read, and the pictures on pages that have no words; or why there is nothing.
/// </summary>
/// <param name="Count">Pages that it has, read or not.</param>
public sealed record PdfPages(
    IReadOnlyList<PageText> Pages,
    IReadOnlyList<byte[]> Pictures,
    int Count,
    string? Problem
);

/// <summary>Parsers that did not come to an end in time, and go on by themselves.</summary>
public sealed class Runaways
{
    // So many may go on before others have to wait.
    private const int Most = 4;

    private int _count;

    /// <summary>Whether the next one has to wait.</summary>
    public bool AreTooMany => Volatile.Read(ref _count) >= Most;

    internal void OneMore() => Interlocked.Increment(ref _count);

    internal void OneEnded() => Interlocked.Decrement(ref _count);
}

/// <summary>
/// Reads the text of a PDF (ISO 32000) with the places where it stands. Scans have none: their pictures are handed on.
/// </summary>
public static class PdfText
{
    /// <summary>Pages beyond are kept and not read.</summary>
    public const int MostPages = 60;

    private const int MostWords = 60_000;

    // Work is bounded by bytes, pages and words; the clock only stops what goes round in circles, and a busy machine
    // makes no honest file late.
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(2);

    private const string TooMuch = "The PDF unpacks to more than is read; it is kept as it came.";

    private static readonly Runaways _ours = new();

    /// <exception cref="TookTooLongException">It does not come to an end; or others do not, and this one has to
    /// wait.</exception>
    public static PdfPages Read(byte[] raw) => Read(raw, Patience, _ours);

    /// <summary>The same with another patience, and a count of its own, for tests.</summary>
    public static PdfPages Read(byte[] raw, TimeSpan patience, Runaways runaways)
    {
        ArgumentNullException.ThrowIfNull(runaways);
        if (runaways.AreTooMany)
            throw new TookTooLongException(
                "Other PDFs that do not come to an end are being given up; this one is read later."
            );
        if (HasLongPlainStream(raw))
            return new PdfPages([], [], 0, TooMuch);
        var (found, ended) = (new PdfPages([], [], 0, null), 0);
        // On a thread of its own, since a parser that loops cannot be told to stop.
        var work = new Thread(
            () =>
            {
                found = Open(raw);
                if (Interlocked.Exchange(ref ended, 1) == 1)
                    runaways.OneEnded();
            },
            4 * 1024 * 1024
        )
        {
            IsBackground = true,
            Priority = ThreadPriority.BelowNormal,
        };
        work.Start();
        if (work.Join(patience))
            return found;
        // It goes on by itself, and is counted until it ends.
        if (Interlocked.Exchange(ref ended, 1) == 0)
            runaways.OneMore();
        throw new TookTooLongException("The PDF does not come to an end; it is tried again later.");
    }

    // What a page draws takes thirty times its bytes when it is parsed. Packed streams are bounded where they are
    // unpacked; those that are not are told by how far apart their ends are.
    private static bool HasLongPlainStream(ReadOnlySpan<byte> raw)
    {
        for (var at = 0; raw[at..].IndexOf("stream"u8) is >= 0 and var found; )
        {
            at += found + 6;
            if (raw[at..].IndexOf("endstream"u8) is not (>= 0 and var length))
                return false;
            var head = raw[Math.Max(0, at - 500)..at];
            head = head[Math.Max(0, head.LastIndexOf(" obj"u8))..];
            if (length > BoundedFilters.LargestOther && head.IndexOf("/Filter"u8) < 0 && head.IndexOf("/Image"u8) < 0)
                return true;
            at += length + 9;
        }
        return false;
    }

    private static PdfPages Open(byte[] raw)
    {
        try
        {
            using var document = PdfDocument.Open(
                raw,
                new ParsingOptions
                {
                    UseLenientParsing = true,
                    SkipMissingFonts = true,
                    ClipPaths = false,
                    FilterProvider = BoundedFilters.Make(),
                }
            );
            var pages = new List<PageText>();
            var pictures = new List<byte[]>();
            var words = 0;
            foreach (var page in document.GetPages().Take(MostPages))
            {
                var of = PdfWords.Of(page, MostWords - words);
                words += of.Words.Count;
                pages.Add(of);
                if (of.Words.Count == 0)
                    pictures.AddRange(page.GetImages().Select(Picture).OfType<byte[]>().Take(1));
            }
            return new PdfPages(pages, pictures, document.NumberOfPages, null);
        }
        // Whatever a parser of foreign bytes throws, the answer is that it cannot be opened.
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            return new PdfPages(
                [],
                [],
                0,
                e.Message.Contains(BoundedFilters.TooMuch, StringComparison.Ordinal) ? TooMuch
                    : e.Message.Contains("ncrypt", StringComparison.Ordinal)
                    || e.Message.Contains("assword", StringComparison.Ordinal)
                        ? "The PDF is locked with a password."
                    : "The PDF is damaged, or no PDF."
            );
        }
    }

    private static byte[]? Picture(IPdfImage image) =>
        image.RawBytes is { Length: > 2 } bytes && bytes[0] == 0xFF && bytes[1] == 0xD8 ? bytes.ToArray()
        : image.TryGetPng(out var png) ? png
        : null;
}
