using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Formats;

namespace Solvenda.Bench.Messages;

/// <summary>
/// `./solvenda bench reading learning`: buyers with codes and words of their own write twenty messages each; whatever a
/// person has to correct is remembered, as the desk remembers it. How many corrections does each message need, and does
/// anybody else's reading change?
/// </summary>
internal sealed class Learning(MadeShelf shelf, int seed)
{
    private const int Buyers = 40;
    private const int Messages = 20;
    private const int Things = 8;
    private const int Others = 300;

    private static readonly string[] Sounds = ["kro", "vel", "nip", "sta", "bru", "gal", "mo", "ter", "lis", "pon"];

    private readonly List<Alias> _learned = [];

    // Corrections of what the same buyer's letters had been corrected for before.
    private int _again;

    public static async Task RunAsync(int seed) => (await LoadAsync(seed)).Run();

    private static async Task<Learning> LoadAsync(int seed) => new(await MadeShelf.LoadAsync(), seed);

    private void Run()
    {
        var before = OthersRead();
        var corrections = new int[Messages];
        for (var b = 0; b < Buyers; b++)
        {
            var random = new Random(unchecked((seed * 31) + b));
            var habit = Habit(random);
            var who = shelf.Buyers[b % shelf.Buyers.Length];
            for (var m = 0; m < Messages; m++)
            {
                var wanted = habit.OrderBy(_ => random.Next()).Take(4).ToList();
                corrections[m] += Corrected(who, wanted, random, b % 2 == 0);
            }
        }
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{Buyers} buyers, {Messages} messages each of 4 lines out of {Things} things; half by codes of their own, half by words of their own."
            )
        );
        Console.WriteLine();
        Console.WriteLine("| message | corrections of its 4 lines |");
        Console.WriteLine("|---|---|");
        foreach (var m in new[] { 1, 2, 3, 5, 10, 20 })
            Console.WriteLine(
                string.Create(CultureInfo.InvariantCulture, $"| {m} | {(decimal)corrections[m - 1] / Buyers:0.00} |")
            );
        Console.WriteLine();
        var after = OthersRead();
        var changed = before.Zip(after).Count(x => x.First != x.Second);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{_learned.Count} words and codes learned, {_again} of them more than once; of {Others} messages of everybody, {changed} are read otherwise than before."
            )
        );
    }

    // What a buyer calls eight things of ours: by a code of theirs, or by words that nobody else has.
    private List<(Item Item, string Called)> Habit(Random random)
    {
        var byCode = random.Next(2) == 0;
        string Sound() => Sounds[random.Next(Sounds.Length)] + Sounds[random.Next(Sounds.Length)];
        return
        [
            .. shelf
                .Items.Where(i => i.StockUnit == Core.Units.Unit.Piece && i.SalesUnits.IsEmpty)
                .OrderBy(_ => random.Next())
                .Take(Things)
                .Select(
                    (item, i) =>
                        (
                            item,
                            byCode
                                ? string.Create(CultureInfo.InvariantCulture, $"KB{random.Next(100, 999)}-{i:00}")
                                : $"{Sound()} {Sound()}"
                        )
                ),
        ];
    }

    // The lines that a person had to put right, each remembered for this buyer.
    private int Corrected(
        (Core.Buyers.BuyerId Id, string Name, string Contact, string Mail) who,
        List<(Item Item, string Called)> wanted,
        Random random,
        bool isTable
    )
    {
        var quantities = wanted.ConvertAll(_ => random.Next(2, 60));
        var context = shelf.Context with { Aliases = [.. _learned] };
        var read = Read(Mail(who, wanted, quantities, isTable), context);
        var corrections = 0;
        for (var i = 0; i < wanted.Count; i++)
        {
            var (item, called) = wanted[i];
            var line = read?.Lines.FirstOrDefault(l =>
                l.Quantity.Value == quantities[i]
                && (l.Words.Contains(called, StringComparison.OrdinalIgnoreCase) || l.Code == called)
            );
            if (line is { NeedsYou: false } && line.Item.Value == item.Id)
                continue;
            corrections++;
            _again += _learned.Exists(a => a.Buyer == who.Id && a.Words == ItemFinder.Normal(called)) ? 1 : 0;
            // As the desk remembers it: their code, else their words.
            var words = ItemFinder.Normal(line?.Code ?? line?.Words ?? called);
            _learned.RemoveAll(a => a.Buyer == who.Id && a.Words == words);
            _learned.Add(new Alias(_learned.Count + 1, who.Id, words, item.Id, null, null));
        }
        return corrections;
    }

    private static string Mail(
        (Core.Buyers.BuyerId Id, string Name, string Contact, string Mail) who,
        List<(Item Item, string Called)> wanted,
        List<int> quantities,
        bool isTable
    )
    {
        var text = new StringBuilder($"From: {who.Contact} <{who.Mail}>\nSubject: order\nMIME-Version: 1.0\n");
        var lines = wanted.Zip(quantities);
        if (!isTable)
            return text.Append("Content-Type: text/plain; charset=utf-8\n\nPlease send for our order 4711-2:\n")
                .AppendJoin('\n', lines.Select(l => $"- {l.Second} pcs {l.First.Called}"))
                .ToString();
        return text.Append(
                "Content-Type: multipart/mixed; boundary=c\n\n--c\nContent-Type: text/plain\n\nOur order 4711-2 is attached.\n--c\nContent-Type: text/csv; name=o.csv\nContent-Disposition: attachment; filename=o.csv\n\nOur code;Quantity;Unit\n"
            )
            .AppendJoin('\n', lines.Select(l => $"{l.First.Called};{l.Second};pcs"))
            .Append("\n--c--\n")
            .ToString();
    }

    private static Reading? Read(string mail, ReadingContext context) =>
        MessageReader
            .Read(
                FileReader.Open(Encoding.UTF8.GetBytes(mail), "x.eml", Composer.Written).Messages[0],
                Composer.Written,
                context
            )
            .Reading;

    // How messages of everybody read with what was learned so far.
    private List<string> OthersRead()
    {
        var context = shelf.Context with { Aliases = [.. _learned] };
        return
        [
            .. Enumerable
                .Range(0, Others)
                .Select(i => ReadingMeasure.Make(shelf, seed, i, apart: false))
                .Select(made =>
                    string.Join(
                        '|',
                        FileReader
                            .Open(made.Bytes, made.Name, Composer.Written)
                            .Messages.Select(m => MessageReader.Read(m, Composer.Written, context).Reading)
                            .SelectMany(r => r?.Lines ?? ImmutableArray<ReadLine>.Empty)
                            .Select(l => $"{l.Item.Value.Value} {l.Quantity.Value} {l.Unit.Value.Code} {l.NeedsYou}")
                    )
                ),
        ];
    }
}
