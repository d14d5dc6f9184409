using System.Globalization;
using Solvenda.Core.Reading;
using Solvenda.Formats;

namespace Solvenda.Bench.Messages;

/// <summary>
/// `./solvenda bench reading`: thousands of made-up messages, read, and what was read beside what was meant. The
/// wordings and habits that are kept apart are measured, and never shown one by one.
/// </summary>
internal static class ReadingMeasure
{
    public static async Task RunAsync(int messages, int seed, bool apart, bool show, string? folder)
    {
        var shelf = await MadeShelf.LoadAsync();
        var score = new Score();
        for (var i = 0; i < messages; i++)
        {
            var made = Make(shelf, seed, i, apart);
            if (folder is not null)
                await File.WriteAllBytesAsync(Path.Combine(folder, made.Name), made.Bytes);
            score.Add(made, Read(made, shelf.Context));
        }
        Print(score, apart);
        if (show && !apart)
            foreach (var line in score.Worst)
                Console.WriteLine(line);
    }

    public static MadeMessage Make(MadeShelf shelf, int seed, int number, bool apart)
    {
        var random = new Random(HashCode(seed, number));
        var say = Wordings.Of(Wordings.Languages[random.Next(Wordings.Languages.Length)], apart);
        return Forms.Make(Forms.All[random.Next(Forms.All.Length)], new Composer(shelf, say, random, apart), number);
    }

    // One that is the same in every run.
    private static int HashCode(int seed, int number) => unchecked((seed * 397) ^ (number * 7919));

    private static List<Reading?> Read(MadeMessage made, ReadingContext context) =>
        [
            .. FileReader
                .Open(made.Bytes, made.Name, Composer.Written)
                .Messages.Select(m => MessageReader.Read(m, Composer.Written, context).Reading),
        ];

    private static void Print(Score score, bool apart)
    {
        string Percent(int part, int of) =>
            of == 0 ? "–" : (100m * part / of).ToString("0.0", CultureInfo.InvariantCulture);
        Console.WriteLine(
            $"{score.Messages:N0} messages, {(apart ? "of what is kept apart" : "of what readers are tuned on")}"
        );
        Console.WriteLine();
        Console.WriteLine("| | values | right % | missing % | wrong, asked % | sure but wrong % |");
        Console.WriteLine("|---|---|---|---|---|---|");
        foreach (var (key, t) in score.By)
            Console.WriteLine(
                $"| {key} | {t.All:N0} | {Percent(t.Right, t.All)} | {Percent(t.Missing, t.All)} | {Percent(t.Asked, t.All)} | {(t.Sure == 0 ? "–" : (100m * t.SureButWrong / t.Sure).ToString("0.00", CultureInfo.InvariantCulture))} |"
            );
        Console.WriteLine();
        Console.WriteLine("| sure | values | right % |");
        Console.WriteLine("|---|---|---|");
        for (var i = 0; i < score.Calibration.Length; i++)
            if (score.Calibration[i].All > 0)
                Console.WriteLine(
                    $"| {i / 10m:0.0} | {score.Calibration[i].All:N0} | {Percent(score.Calibration[i].Right, score.Calibration[i].All)} |"
                );
        Console.WriteLine();
        Console.WriteLine(
            "why clean messages need somebody: "
                + string.Join(", ", score.Asks.OrderByDescending(a => a.Value).Select(a => $"{a.Key} {a.Value}"))
        );
        Console.WriteLine();
        Console.WriteLine(
            "kinds surely taken for others: "
                + string.Join(", ", score.Mixed.OrderByDescending(a => a.Value).Select(a => $"{a.Key} {a.Value}"))
        );
        Console.WriteLine();
        Console.WriteLine(
            $"of {score.CleanOrders:N0} orders without slips {Percent(score.CleanThrough, score.CleanOrders)} % go through untouched; of {score.Through:N0} that went through in all, {score.ThroughWrong} are wrong ({string.Join("; ", score.WrongIn.Select(w => $"{w.Value} {w.Key}"))})"
        );
        Console.WriteLine();
        var (wrong, sure) = (score.Whole.SureButWrong, score.Whole.Sure);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"lines found or asked about: {Percent(score.LinesFoundOrAsked, score.LinesMeant)} % of {score.LinesMeant:N0}; made up: {score.MadeUp}; sure but wrong: {wrong} of {sure:N0}, at most {100 * UpperEnd(wrong, sure):0.000} % (95 %, one-sided above); false left-overs a message: {(decimal)score.FalseLeftOvers / score.Messages:0.000}; messages without slips that need somebody: {Percent(score.CleanButAsked, score.Clean)} %"
            )
        );
    }

    // The upper end of Wilson's interval for a share, at 95 %.
    private static double UpperEnd(int part, int of)
    {
        if (of == 0)
            return 1;
        const double z = 1.96;
        var p = (double)part / of;
        var centre = p + (z * z / (2 * of));
        var spread = z * Math.Sqrt((p * (1 - p) / of) + (z * z / (4.0 * of * of)));
        return (centre + spread) / (1 + (z * z / of));
    }
}
