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
