using System.Diagnostics;
using System.Globalization;

namespace Solvenda.Bench;

/// <summary>
/// The same few things in a moment, to be run in turn with another commit's: `./solvenda bench beside COMMIT`. Prints a
/// name and nanoseconds each, the best of several rounds.
/// </summary>
internal static class Beside
{
    private const int Rounds = 7;
    private static readonly TimeSpan Round = TimeSpan.FromMilliseconds(400);

    public static void Measure()
    {
        var line = new PriceBuildOfALine { Agreements = 2_000 };
        line.Setup();
        var sheet = new WholeSheet { Lines = 500 };
        sheet.Setup();
        var edi = new Interchanges();
        edi.Setup();
        Print("price build of 1,000 lines", () => line.WithRulesAndTrace());
        Print("whole sheet of 500 lines", () => sheet.Price());
        Print("headroom of its lines", () => sheet.HeadroomOfLines());
        var mail = new MailWithPages();
        mail.Setup();
        var letter = new LetterOfTwenty();
        Print("a letter of twenty lines", () => letter.Read());
        Print("a mail with a PDF of five pages", () => mail.Read());
        Print("X12 into documents", () => edi.X12IntoDocuments());
        Print("EDIFACT into documents", () => edi.EdifactIntoDocuments());
    }

    private static void Print(string name, Action what)
    {
        var best = double.MaxValue;
        for (var round = 0; round < Rounds; round++)
        {
            var (clock, times) = (Stopwatch.StartNew(), 0);
            do
            {
                what();
                times++;
            } while (clock.Elapsed < Round);
            best = Math.Min(best, clock.Elapsed.TotalNanoseconds / times);
        }
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{name}\t{best:0}"));
    }
}

/// <summary>A letter as buyers write them, opened and read against the demo's kind of catalogue.</summary>
internal sealed class LetterOfTwenty
{
    private readonly Core.Reading.ReadingContext _context = MadeMail.Context();

    private readonly byte[] _raw = System.Text.Encoding.UTF8.GetBytes(
        "From: Fionn <fionn@tresselvane.example>\nSubject: our order 4711-2\nDate: Mon, 02 Mar 2026 08:41:07 +0000\n\nHello,\n\nplease send for our order 4711-2, by 20 March:\n"
            + string.Concat(
                Enumerable
                    .Range(1, 20)
                    .Select(i =>
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"- {i * 3} pcs bow shackle galvanised {i + 4} mm\n"
                        )
                    )
            )
            + "\nUnload before 11, phone first.\n\nKind regards\nFionn"
    );

    public int Read() =>
        Core
            .Reading.MessageReader.Read(
                Formats.FileReader.Open(_raw, "x.eml", new DateOnly(2026, 3, 2)).Messages[0],
                new DateOnly(2026, 3, 2),
                _context
            )
            .Reading!.Lines.Length;
}
