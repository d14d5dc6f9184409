using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Solvenda.Formats.Pdf;

/// <summary>A word and its box on its page; measures in any unit, from the top left.</summary>
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
                var of = page.GetWords().Take(MostWords - words).Select(w => new PageWord(w.Text.Normalize(NormalizationForm.FormKC), w.BoundingBox.Left, page.Height - w.BoundingBox.Top, w.BoundingBox.Width, w.BoundingBox.Height)).ToList();
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

    private static byte[]? Picture(IPdfImage image) => image.RawBytes is { Length: > 2 } bytes && bytes[0] == 0xFF && bytes[1] == 0xD8 ? bytes.ToArray() : image.TryGetPng(out var png) ? png : null;

    /// <summary>Lays words out as lines of text, a tab where a column ends, with the place of every word; and finds the rows of tables.</summary>
    /// <param name="sure">How well the words themselves are known.</param>
    public static OriginalPart Part(string name, PartKind kind, IReadOnlyList<PageText> pages, decimal sure = 1m)
    {
        ArgumentNullException.ThrowIfNull(pages);
        var text = new StringBuilder();
        var placed = ImmutableArray.CreateBuilder<PlacedWord>();
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        for (var p = 0; p < pages.Count; p++)
        {
            var page = pages[p];
            var lines = Lines(page.Words).Select(Cells).ToList();
            // The line with the most cells tells where the columns are.
            var columns = lines.Count == 0 ? [] : lines.MaxBy(l => l.Count)!;
            foreach (var line in lines)
            {
                var cells = new Cell[Math.Max(columns.Count, 1)];
                for (var c = 0; c < line.Count; c++)
                {
                    if (c > 0)
                        text.Append('\t');
                    var start = text.Length;
                    foreach (var word in line[c].Words)
                    {
                        if (text.Length > start)
                            text.Append(' ');
                        placed.Add(new PlacedWord(text.Length, word.Text.Length, p, word.Left / page.Width, word.Top / page.Height, word.Width / page.Width, word.Height / page.Height));
                        text.Append(word.Text);
                    }
                    var at = Column(line[c], columns);
                    var said = text.ToString(start, text.Length - start);
                    cells[at] = cells[at] is { } there ? new Cell($"{there.Text} {said}", there.Start, text.Length - there.Start) : new Cell(said, start, said.Length);
                }
                for (var c = 0; c < cells.Length; c++)
                    cells[c] ??= new Cell("", text.Length, 0);
                rows.Add([.. cells]);
                text.Append('\n');
            }
            text.Append('\n');
        }
        return new OriginalPart(name, kind, text.ToString()) { Words = placed.ToImmutable(), Rows = rows.Count(r => r.Count(c => c.Text.Length > 0) > 2) >= 2 ? rows.ToImmutable() : [], Pages = pages.Count, Sure = sure };
    }

    private sealed record Box(List<PageWord> Words)
    {
        public double Left => Words[0].Left;

        public double Right => Words[^1].Left + Words[^1].Width;
    }

    // Words whose middles are on one height are a line, from left to right.
    private static List<List<PageWord>> Lines(IReadOnlyList<PageWord> words)
    {
        var lines = new List<List<PageWord>>();
        foreach (var word in words.Where(w => w.Text.Trim().Length > 0 && double.IsFinite(w.Top) && double.IsFinite(w.Left)).OrderBy(w => w.Top + (w.Height / 2)))
        {
            var middle = word.Top + (word.Height / 2);
            var last = lines.Count > 0 ? lines[^1] : null;
            if (last is not null && Math.Abs(last.Average(w => w.Top + (w.Height / 2)) - middle) <= Math.Max(2, Math.Min(last[0].Height, word.Height) * 0.6))
                last.Add(word);
            else
                lines.Add([word]);
        }
        lines.ForEach(l => l.Sort((a, b) => a.Left.CompareTo(b.Left)));
        return lines;
    }

    // A blank is a quarter of the letters' size, the margins of a cell on both sides at least half of it; a box around capitals is about seven tenths high.
    private static List<Box> Cells(List<PageWord> line)
    {
        var cells = new List<Box>();
        foreach (var word in line)
        {
            var height = Math.Max(word.Height, cells.Count > 0 ? cells[^1].Words[^1].Height : word.Height);
            if (cells.Count > 0 && word.Left - cells[^1].Right <= Math.Max(height * 0.65, 2.5))
                cells[^1].Words.Add(word);
            else
                cells.Add(new Box([word]));
        }
        return cells;
    }

    // The column that the cell overlaps most, else the one whose edge is nearest: numbers stand to the right of theirs, words to the left.
    private static int Column(Box cell, List<Box> columns)
    {
        var (best, score) = (0, double.MinValue);
        for (var c = 0; c < columns.Count; c++)
        {
            var overlap = Math.Min(cell.Right, columns[c].Right) - Math.Max(cell.Left, columns[c].Left);
            var fit = overlap > 0 ? overlap + 1_000 : -Math.Min(Math.Abs(cell.Left - columns[c].Left), Math.Abs(cell.Right - columns[c].Right));
            if (fit > score)
                (best, score) = (c, fit);
        }
        return best;
    }
}
