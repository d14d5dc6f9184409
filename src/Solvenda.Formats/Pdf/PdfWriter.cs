using System.Collections.Immutable;
using System.Globalization;
using SkiaSharp;
using static Solvenda.Formats.Pdf.Type;

namespace Solvenda.Formats.Pdf;

/// <summary>
/// Sets a document on A4 pages: letterhead, lines with page breaks and repeated heads, tax table, totals.
/// </summary>
public static class PdfWriter
{
    // A4 in points (ISO 216), and the margins.
    private const float PageWidth = 595.28f;
    private const float PageHeight = 841.89f;
    private const float Left = 56f;
    private const float Right = PageWidth - 48f;
    private const float Bottom = PageHeight - 64f;

    public static byte[] Write(PrintedDocument document)
    {
        ArgumentNullException.ThrowIfNull(document);
        return Write([document], $"{document.Title} {document.Number}");
    }

    /// <summary>
    /// Several documents in one file, each beginning on a page of its own and counting its own pages.
    /// </summary>
    /// <param name="title">Of the file.</param>
    public static byte[] Write(IReadOnlyList<PrintedDocument> documents, string title)
    {
        ArgumentNullException.ThrowIfNull(documents);
        using var stream = new MemoryStream();
        using (
            var pdf = SKDocument.CreatePdf(
                stream,
                new SKDocumentPdfMetadata
                {
                    Title = title,
                    Author = documents[0].Seller,
                    RasterDpi = 144,
                }
            )
        )
        {
            foreach (var document in documents)
                new Setter(new PdfSheets(pdf), document).Set();
            pdf.Close();
        }
        return stream.ToArray();
    }

    /// <summary>The first page as a picture (PNG), to be looked at while a letterhead is set.</summary>
    /// <param name="width">In pixels.</param>
    public static byte[] Picture(PrintedDocument document, int width)
    {
        ArgumentNullException.ThrowIfNull(document);
        var scale = width / PageWidth;
        using var surface = SKSurface.Create(new SKImageInfo(width, (int)(PageHeight * scale)));
        surface.Canvas.Clear(SKColors.White);
        surface.Canvas.Scale(scale);
        using var sheets = new FirstSheet(surface.Canvas);
        new Setter(sheets, document).Set();
        using var image = surface.Snapshot();
        using var png = image.Encode(SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    // What pages are drawn on.
    private interface ISheets
    {
        SKCanvas Begin();
        void End();
    }

    private sealed class PdfSheets(SKDocument pdf) : ISheets
    {
        public SKCanvas Begin() => pdf.BeginPage(PageWidth, PageHeight);

        public void End() => pdf.EndPage();
    }

    // All but the first go nowhere.
    private sealed class FirstSheet(SKCanvas canvas) : ISheets, IDisposable
    {
        private readonly SKNoDrawCanvas _nowhere = new((int)PageWidth, (int)PageHeight);
        private bool _begun;

        public SKCanvas Begin()
        {
            if (_begun)
                return _nowhere;
            _begun = true;
            return canvas;
        }

        public void End() { }

        public void Dispose() => _nowhere.Dispose();
    }

    private sealed class Setter(ISheets pdf, PrintedDocument doc)
    {
        private readonly SKColor _accent = SKColor.TryParse(doc.Colour, out var colour) ? colour : Ink;

        // Columns: right edges of the numbers, left edge of the words.
        private const float WordsX = Left + 22f;
        private const float QuantityX = Left + 292f;
        private const float PriceX = Left + 358f;
        private const float DiscountX = Left + 400f;

        private SKCanvas _canvas = null!;
        private float _y;
        private int _page;

        // Zero while the letter is set.
        private int _firstOfSheet = doc.Letter is null ? 1 : 0;

        public void Set()
        {
            if (doc.Letter is { } letter)
                Letter(letter);
            FirstPage();
            Paragraphs(doc.Above, 10f);
            Heads();
            foreach (var line in doc.Lines)
                Line(line);
            Totals();
            Paragraphs(doc.Closing, 0f);
            EndPage();
        }

        // The letter has a page of its own, with the address where a window envelope shows it.
        private void Letter(PrintedLetter letter)
        {
            BeginPage();
            Letterhead(letter.To);
            _y = 260f;
            foreach (var line in letter.Text.Split('\n'))
            {
                foreach (var part in Wrap(line, Serif.Value, 11.5f, Right - Left - 60f))
                {
                    Room(16f);
                    Text(part, Left, _y, Serif.Value, 11.5f, Ink);
                    _y += 16f;
                }
                if (line.Length == 0)
                    _y += 9f;
            }
            EndPage();
            _firstOfSheet = _page + 1;
        }

        // At the left of the name; gives the room that it takes. One that cannot be read is left out.
        private float DrawLogo()
        {
            if (doc.Logo is null || SKImage.FromEncodedData(doc.Logo) is not { Width: > 0, Height: > 0 } logo)
                return 0f;
            using (logo)
            {
                var scale = Math.Min(LogoHeight / logo.Height, LogoWidth / logo.Width);
                var (width, height) = (logo.Width * scale, logo.Height * scale);
                _canvas.DrawImage(
                    logo,
                    new SKRect(Left, LogoFoot - height, Left + width, LogoFoot),
                    new SKSamplingOptions(SKCubicResampler.Mitchell)
                );
                return width + 10f;
            }
        }

        private const float LogoHeight = 34f;
        private const float LogoWidth = 110f;
        private const float LogoFoot = 76f;

        // The house above, the buyer below it; gives the line under the buyer.
        private float Letterhead(ImmutableArray<string> to)
        {
            Text(doc.Seller, Left + DrawLogo(), 66f, Serif.Value, 21f, _accent);
            var y = 54f;
            foreach (var line in doc.SellerLines)
            {
                TextRight(line, Right, y, Sans.Value, 7.8f, Second);
                y += 10.5f;
            }
            Rule(84f, 0.8f, _accent);
            y = 118f;
            foreach (var line in to)
            {
                Text(line, Left, y, line == to[0] ? Bold.Value : Sans.Value, 9.5f, Ink);
                y += 13f;
            }
            return y;
        }

        private void FirstPage()
        {
            BeginPage();
            var y = Letterhead(doc.BuyerLines);
            var facts = 118f;
            foreach (var (label, value) in doc.Facts)
            {
                Text(label, Left + 288f, facts, Sans.Value, 8f, Second);
                foreach (var part in Wrap(value, Sans.Value, 8.8f, Right - Left - 372f))
                {
                    Text(part, Left + 372f, facts, Sans.Value, 8.8f, Ink);
                    facts += 12.5f;
                }
            }
            _y = Math.Max(Math.Max(y, facts) + 22f, 214f);
            Text(doc.Title, Left, _y, Serif.Value, 17f, _accent);
            var x = Left + Width(doc.Title + " ", Serif.Value, 17f);
            Text(doc.Number, x + 4f, _y, Mono.Value, 10.5f, Ink);
            if (doc.Matter.Length > 0)
            {
                _y += 17f;
                Text(doc.Matter, Left, _y, Italic.Value, 11.5f, Second);
            }
            _y += 26f;
        }

        private void BeginPage()
        {
            _page++;
            _canvas = pdf.Begin();
            if (_firstOfSheet == 0)
                _y = 74f;
            else if (_page > _firstOfSheet)
            {
                Text($"{doc.Seller} · {doc.Title} {doc.Number}", Left, 48f, Sans.Value, 8f, Second);
                _y = 74f;
                Heads();
            }
        }

        private void EndPage()
        {
            Text(doc.Footer, Left, PageHeight - 32f, Sans.Value, 7.2f, Second);
            if (doc.Foot.Length > 0)
                Text(doc.Foot, Left, PageHeight - 22f, Sans.Value, 7.2f, Second);
            TextRight(
                string.Format(CultureInfo.InvariantCulture, doc.Labels.Page, _page),
                Right,
                PageHeight - 32f,
                Sans.Value,
                7.2f,
                Second
            );
            pdf.End();
        }

        private void Room(float height)
        {
            if (_y + height <= Bottom)
                return;
            EndPage();
            BeginPage();
        }

        private void Heads()
        {
            Text(doc.Labels.What, WordsX, _y, Sans.Value, 7.8f, Second);
            TextRight(doc.Labels.Quantity, QuantityX, _y, Sans.Value, 7.8f, Second);
            TextRight(doc.Labels.Price, PriceX, _y, Sans.Value, 7.8f, Second);
            TextRight(doc.Labels.Less, DiscountX, _y, Sans.Value, 7.8f, Second);
            TextRight(doc.Currency, Right, _y, Sans.Value, 7.8f, Second);
            Rule(_y + 5f, 0.6f, Ink);
            _y += 19f;
        }

        private void Line(PrintedLine line)
        {
            if (line.IsHeading)
            {
                Room(40f);
                _y += 6f;
                Text(line.Words, Left, _y, Italic.Value, 11.5f, Ink);
                if (line.Amount.Length > 0)
                    TextRight(line.Amount, Right, _y, Sans.Value, 8.6f, Second);
                _y += 16f;
                return;
            }
            var words = Wrap(line.Words, Sans.Value, 9f, QuantityX - 44f - WordsX).ToList();
            var small = new[] { line.Code, line.Note, line.When }.Where(t => t.Length > 0).ToList();
            Room((words.Count * 12f) + (small.Count > 0 ? 11f : 0f) + 6f);
            TextRight(line.Number, Left + 12f, _y, Sans.Value, 8f, Second);
            TextRight(line.Quantity, QuantityX, _y, Sans.Value, 9f, Ink);
            TextRight(line.Price, PriceX, _y, Sans.Value, 9f, Ink);
            TextRight(line.Discount, DiscountX, _y, Sans.Value, 9f, Ink);
            TextRight(
                line.IsOptional ? $"({line.Amount})" : line.Amount,
                Right,
                _y,
                Sans.Value,
                9f,
                line.IsOptional ? Second : Ink
            );
            foreach (var part in words)
            {
                Text(part, WordsX, _y, Sans.Value, 9f, Ink);
                _y += 12f;
            }
            if (small.Count > 0)
            {
                _y -= 1f;
                Text(line.Code, WordsX, _y, Mono.Value, 7f, Second);
                var rest = string.Join(" · ", small.Skip(line.Code.Length > 0 ? 1 : 0));
                var x = WordsX + (line.Code.Length > 0 ? Width(line.Code, Mono.Value, 7f) + 8f : 0f);
                foreach (var part in Wrap(rest, Sans.Value, 7.6f, Right - x))
                {
                    Text(part, x, _y, Sans.Value, 7.6f, Second);
                    _y += 10f;
                }
                if (rest.Length == 0)
                    _y += 10f;
            }
            Rule(_y - 4f, 0.35f, Hairline);
            _y += 9f;
        }

        private void Totals()
        {
            // Why there is no tax takes some words; they stay clear of the figures.
            var taxes = doc.Taxes.Select(t => (Tax: t, Words: Wrap(t.Words, Sans.Value, 8.4f, 112f).ToList())).ToList();
            Room(Math.Max(doc.Totals.Length * 15f, (taxes.Sum(t => t.Words.Count) + 1) * 13f) + 20f);
            _y += 8f;
            var top = _y;
            if (doc.Taxes.Length > 0)
            {
                Text(doc.Labels.Tax, Left, _y, Sans.Value, 7.8f, Second);
                TextRight(doc.Labels.TaxOn, Left + 170f, _y, Sans.Value, 7.8f, Second);
                TextRight($"{doc.Labels.Tax} {doc.Currency}", Left + 232f, _y, Sans.Value, 7.8f, Second);
                var y = _y + 14f;
                foreach (var (tax, words) in taxes)
                {
                    TextRight(tax.Basis, Left + 170f, y, Sans.Value, 8.4f, Ink);
                    TextRight(tax.Tax, Left + 232f, y, Sans.Value, 8.4f, Ink);
                    foreach (var part in words)
                    {
                        Text(part, Left, y, Sans.Value, 8.4f, Ink);
                        y += 13f;
                    }
                }
                top = y;
            }
            foreach (var (label, value, strong) in doc.Totals)
            {
                if (strong)
                {
                    RuleFrom(Left + 288f, _y - 11f, 0.8f, Ink);
                    _y += 3f;
                }
                Text(
                    label,
                    Left + 288f,
                    _y,
                    strong ? Bold.Value : Sans.Value,
                    strong ? 10.5f : 8.8f,
                    strong ? Ink : Second
                );
                TextRight(value, Right, _y, strong ? Bold.Value : Sans.Value, strong ? 10.5f : 8.8f, Ink);
                _y += 15f;
            }
            _y = Math.Max(_y, top) + 14f;
        }

        // Whole sentences, over the lines or under the totals.
        private void Paragraphs(ImmutableArray<string> paragraphs, float after)
        {
            foreach (var paragraph in paragraphs)
            {
                foreach (var part in Wrap(paragraph, Sans.Value, 8.6f, Right - Left))
                {
                    Room(13f);
                    Text(part, Left, _y, Sans.Value, 8.6f, Ink);
                    _y += 12.5f;
                }
                _y += 4f;
            }
            if (!paragraphs.IsEmpty)
                _y += after;
        }

        private void Text(string text, float x, float y, SKTypeface face, float size, SKColor color) =>
            Type.Text(_canvas, text, x, y, face, size, color);

        private void TextRight(string text, float right, float y, SKTypeface face, float size, SKColor color) =>
            Text(text, right - Width(text, face, size), y, face, size, color);

        private void Rule(float y, float width, SKColor color) => RuleFrom(Left, y, width, color);

        private void RuleFrom(float x, float y, float width, SKColor color) =>
            Type.Rule(_canvas, x, Right, y, width, color);

        private static float Width(string text, SKTypeface face, float size) => Type.Width(text, face, size);

        private static IEnumerable<string> Wrap(string text, SKTypeface face, float size, float width) =>
            Type.Wrap(text, face, size, width);
    }
}
