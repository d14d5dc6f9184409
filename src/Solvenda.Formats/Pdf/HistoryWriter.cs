using System.Collections.Immutable;
using SkiaSharp;
using static Solvenda.Formats.Pdf.Type;

namespace Solvenda.Formats.Pdf;

/// <summary>One thing that was decided or done; all texts are ready.</summary>
/// <param name="Proof">Number and hash of its event, so that it is found again in the chain.</param>
public sealed record PrintedDecision(
    string When,
    string Who,
    string What,
    string From,
    string To,
    string Why,
    string Proof
);

/// <summary>Who decided what about one document, for a reader outside the house.</summary>
/// <param name="About">What the document is, on one line.</param>
/// <param name="Closing">How it can be checked.</param>
public sealed record PrintedHistory(
    string Seller,
    string Title,
    string About,
    ImmutableArray<PrintedDecision> Decisions,
    string Closing
);

/// <summary>
/// Sets a history on A4 pages: one block a decision, no block broken over pages where it fits on one.
/// </summary>
public static class HistoryWriter
{
    // A4 in points (ISO 216), and the margins.
    private const float PageWidth = 595.28f;
    private const float PageHeight = 841.89f;
    private const float Left = 56f;
    private const float Right = PageWidth - 48f;
    private const float Bottom = PageHeight - 58f;
    private const float Words = Left + 112f;
    private const float Size = 9f;
    private const float Lead = 12.5f;

    public static byte[] Write(PrintedHistory history)
    {
        ArgumentNullException.ThrowIfNull(history);
        using var stream = new MemoryStream();
        using (var pdf = SKDocument.CreatePdf(stream, new SKDocumentPdfMetadata { Title = history.Title }))
        {
            new Setter(pdf, history).Set();
            pdf.Close();
        }
        return stream.ToArray();
    }

    private sealed class Setter(SKDocument pdf, PrintedHistory history)
    {
        private SKCanvas _canvas = null!;
        private float _y;
        private int _page;

        public void Set()
        {
            Begin();
            foreach (var decision in history.Decisions)
                Block(decision);
            foreach (var line in Wrap(history.Closing, Sans.Value, Size, Right - Left))
                Line(line, Left, Sans.Value, Second);
            End();
        }

        private void Begin()
        {
            _canvas = pdf.BeginPage(PageWidth, PageHeight);
            _page++;
            Text(_canvas, history.Seller, Left, 54f, Serif.Value, _page == 1 ? 17f : 10f, Ink);
            if (_page > 1)
            {
                Text(_canvas, history.Title, Left + 200f, 54f, Sans.Value, Size, Second);
                _y = 78f;
                return;
            }
            Rule(_canvas, Left, Right, 66f, 0.8f, Ink);
            Text(_canvas, history.Title, Left, 92f, Serif.Value, 15f, Ink);
            Text(_canvas, history.About, Left, 108f, Sans.Value, Size, Second);
            _y = 134f;
        }

        private void End()
        {
            Text(
                _canvas,
                FormattableString.Invariant($"{_page}"),
                Right - 8f,
                PageHeight - 36f,
                Sans.Value,
                8f,
                Second
            );
            pdf.EndPage();
        }

        private void Block(PrintedDecision d)
        {
            var width = Right - Words;
            List<(string Text, SKTypeface Face, SKColor Color)> lines =
            [
                .. Wrap(d.What, Bold.Value, Size, width).Select(t => (t, Bold.Value, Ink)),
                .. Lines("before: ", d.From, width),
                .. Lines("after: ", d.To, width),
                .. Wrap(d.Why, Italic.Value, Size + 1f, width).Select(t => (t, Italic.Value, Ink)),
                .. Wrap(d.Proof, Mono.Value, 6.5f, width).Select(t => (t, Mono.Value, Second)),
            ];
            if (_y + (lines.Count * Lead) + 10f > Bottom)
                Next();
            Text(_canvas, d.When, Left, _y, Sans.Value, Size, Second);
            foreach (var part in Wrap(d.Who, Sans.Value, Size, Words - Left - 10f).Take(1))
                Text(_canvas, part, Left, _y + Lead, Sans.Value, Size, Ink);
            foreach (var (text, face, color) in lines)
                Line(text, Words, face, color);
            _y = Math.Max(_y, _y + (lines.Count < 2 ? Lead : 0f)) + 3f;
            Rule(_canvas, Left, Right, _y - 8f, 0.4f, Hairline);
            _y += 6f;
        }

        private static IEnumerable<(string, SKTypeface, SKColor)> Lines(string label, string text, float width) =>
            text.Length == 0 ? [] : Wrap(label + text, Sans.Value, Size, width).Select(t => (t, Sans.Value, Second));

        private void Line(string text, float x, SKTypeface face, SKColor color)
        {
            if (_y > Bottom)
                Next();
            Text(_canvas, text, x, _y, face, face == Mono.Value ? 6.5f : Size, color);
            _y += Lead;
        }

        private void Next()
        {
            End();
            Begin();
        }
    }
}
