using System.Text;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Solvenda.Formats.Pdf;

/// <summary>A word and its box on its page, as high as its line; measures in any unit, from the top left.</summary>
public sealed record PageWord(string Text, double Left, double Top, double Width, double Height);

/// <summary>A page's words, and its size in the same unit.</summary>
public sealed record PageText(double Width, double Height, IReadOnlyList<PageWord> Words);

/// <summary>What a PDF holds, as far as it was read, and the pictures on pages that have no words; or why there is nothing.</summary>
/// <param name="Count">Pages that it has, read or not.</param>
public sealed record PdfPages(IReadOnlyList<PageText> Pages, IReadOnlyList<byte[]> Pictures, int Count, string? Problem);

/// <summary>Reads the text of a PDF (ISO 32000) with the places where it stands. Scans have none: their pictures are handed on.</summary>
public static class PdfText
{
    /// <summary>Pages beyond are kept and not read.</summary>
    public const int MostPages = 60;

    private const int MostWords = 60_000;

    // A file that is made to go round in circles is given up after this.
    private static readonly TimeSpan Patience = TimeSpan.FromMilliseconds(1_600);

    // The first one after a start waits for the parser itself to be made ready.
    private static readonly TimeSpan FirstPatience = TimeSpan.FromSeconds(8);

    private static volatile bool _ready;

    public static PdfPages Read(byte[] raw)
    {
        var late = new PdfPages([], [], 0, "The PDF takes too long to open; it is kept as it came.");
        var found = late;
        // On a thread of its own, since a parser that loops cannot be told to stop.
        var work = new Thread(() => found = Open(raw), 4 * 1024 * 1024) { IsBackground = true, Priority = ThreadPriority.BelowNormal };
        work.Start();
        var done = work.Join(_ready ? Patience : FirstPatience);
        _ready = true;
        return done ? found : late;
    }

    private static PdfPages Open(byte[] raw)
    {
        try
        {
            using var document = PdfDocument.Open(raw, new ParsingOptions { UseLenientParsing = true, SkipMissingFonts = true, ClipPaths = false });
            var pages = new List<PageText>();
            var pictures = new List<byte[]>();
            var words = 0;
            foreach (var page in document.GetPages().Take(MostPages))
            {
                var of = page.GetWords().Take(MostWords - words).Select(w => Placed(w, page.Height)).ToList();
                words += of.Count;
                pages.Add(new PageText(page.Width, page.Height, of));
                if (of.Count == 0)
                    pictures.AddRange(page.GetImages().Select(Picture).OfType<byte[]>().Take(1));
            }
            return new PdfPages(pages, pictures, document.NumberOfPages, null);
        }
        // Whatever a parser of foreign bytes throws, the answer is that it cannot be opened.
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            return new PdfPages([], [], 0, e.Message.Contains("ncrypt", StringComparison.Ordinal) || e.Message.Contains("assword", StringComparison.Ordinal) ? "The PDF is locked with a password." : "The PDF is damaged, or no PDF.");
        }
    }

    // As high as its letters' size and not as what is drawn of them, so that "mm" and "Qty" stand on one height.
    private static PageWord Placed(Word word, double pageHeight)
    {
        var box = word.BoundingBox;
        var letter = word.Letters[0];
        var (size, drawn) = (letter.PointSize, box.Height);
        // Letters that are turned, or whose size says nothing, are taken as they are drawn.
        var plain = word.TextOrientation == TextOrientation.Horizontal && size > 1 && size < drawn * 4;
        var (top, height) = plain ? (pageHeight - letter.StartBaseLine.Y - (size * 0.8), size) : (pageHeight - box.Top, drawn);
        return new PageWord(word.Text.Normalize(NormalizationForm.FormKC), box.Left, top, box.Width, height);
    }

    private static byte[]? Picture(IPdfImage image) => image.RawBytes is { Length: > 2 } bytes && bytes[0] == 0xFF && bytes[1] == 0xD8 ? bytes.ToArray() : image.TryGetPng(out var png) ? png : null;
}
