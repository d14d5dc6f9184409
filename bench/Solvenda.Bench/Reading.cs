using System.Globalization;
using System.Text;
using BenchmarkDotNet.Attributes;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Formats;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;

namespace Solvenda.Bench;

/// <summary>
/// Interchanges of many orders, to be parsed and read into documents: envelope, messages, segments, elements, lines.
/// </summary>
internal static class MadeInterchange
{
    public const int Lines = 40;

    public static string X12(int orders)
    {
        var text = new StringBuilder(
            "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000371*0*P*>~\nGS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*371*X*004010~\n"
        );
        for (var o = 1; o <= orders; o++)
        {
            text.Append(
                CultureInfo.InvariantCulture,
                $"ST*850*{o:D4}~\nBEG*00*SA*NG-{o}**20260305~\nCUR*BY*USD~\nREF*DP*204~\nPER*OC*Dale Ferris*EM*dferris@northgannet.example~\nFOB*CC**CIF Port of Gannet~\nITD*01*3*2**10**60~\nDTM*002*20260420~\nN1*ST*Northgannet Depot 7*92*NG-07~\nN3*77 Pier Road~\nN4*Gannet*ME*04002*US~\n"
            );
            for (var l = 1; l <= Lines; l++)
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"PO1*{l}*{l * 10}*FT*63.20*HP*BP*NGD-{l}*VP*PS3-12-WH*UP*2999000101009~\nPID*F****ROPE 3 STRAND POLYESTER 12MM WHITE~\n"
                );
            text.Append(CultureInfo.InvariantCulture, $"CTT*{Lines}~\nSE*{14 + (2 * Lines) - 1}*{o:D4}~\n");
        }
        return text.Append(CultureInfo.InvariantCulture, $"GE*{orders}*371~\nIEA*1*000000371~\n").ToString();
    }

    public static string Edifact(int orders)
    {
        var text = new StringBuilder("UNA:+.? '\nUNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+TS0091'\n");
        for (var o = 1; o <= orders; o++)
        {
            text.Append(
                CultureInfo.InvariantCulture,
                $"UNH+{o}+ORDERS:D:96A:UN:EAN008'\nBGM+220+4711?/{o}+9'\nDTM+137:20260306:102'\nDTM+2:20260316:102'\nFTX+DEL+++Lossen voor 11?:00 ?+ bel eerst'\nNAD+BY+2999000000111::9++Teerling Scheepsbenodigdheden+Kade 4+Zilverhaven++1234 AB+NL'\nNAD+DP+2999000000302::9++Teerling filiaal Oosterwerf+Werfpad 18+Oosterwerf++4321 ZX+NL'\nCUX+2:EUR:9'\n"
            );
            for (var l = 1; l <= Lines; l++)
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"LIN+{l}++2999000101351:EN'\nPIA+1+TSB-{l}:IN'\nIMD+F++:::Harpsluiting 10 mm verz.'\nQTY+21:{l}:BX'\nPRI+AAA:92.50:CT::1:BX'\n"
                );
            text.Append(CultureInfo.InvariantCulture, $"UNS+S'\nCNT+2:{Lines}'\nUNT+{11 + (5 * Lines)}+{o}'\n");
        }
        return text.Append(CultureInfo.InvariantCulture, $"UNZ+{orders}+TS0091'\n").ToString();
    }

    /// <summary>
    /// Megabytes a second, the best of some runs, for the comparison in one run with other programs: parsed (envelope,
    /// messages, segments, every element cut out of the text, as those programs do),
    /// and read into documents.
    /// </summary>
    public static void Measure(string file)
    {
        var raw = File.ReadAllBytes(file);
        var isX12 = MessageKindOf.Tell(raw, file) == Syntax.X12;
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{raw.Length / Best(() => Parse(raw, isX12)) / 1_000_000:0.0} {raw.Length / Best(() => EdiFile.Read(raw, isX12).Messages.Count(m => m.Document is not null)) / 1_000_000:0.0}"
            )
        );
    }

    /// <summary>Opens the interchange and cuts every element out of it; how many there are.</summary>
    public static int Parse(byte[] raw, bool isX12)
    {
        var text = Encoding.Latin1.GetString(raw);
        var x = (isX12 ? X12Interchange.Open(text) : EdifactInterchange.Open(text)).Interchange!;
        var elements = 0;
        foreach (var segment in x.Segments)
        {
            for (var e = 1; e <= segment.Elements; e++)
                elements += segment[e].Length >= 0 ? 1 : 0;
        }
        return x.Faults.Count == 0 ? elements : throw new InvalidOperationException(x.Faults[0].Words);
    }

    private static double Best(Func<int> run)
    {
        var best = double.MaxValue;
        for (var i = 0; i < 10; i++)
        {
            var clock = System.Diagnostics.Stopwatch.StartNew();
            if (run() == 0)
                throw new InvalidOperationException("Nothing was read.");
            best = Math.Min(best, clock.Elapsed.TotalSeconds);
        }
        return best;
    }
}

/// <summary>An interchange of a megabyte, parsed to its last element, and read into documents.</summary>
[MemoryDiagnoser]
public class Interchanges
{
    private byte[] _x12 = [];
    private byte[] _edifact = [];

    [GlobalSetup]
    public void Setup()
    {
        (_x12, _edifact) = (
            Encoding.Latin1.GetBytes(MadeInterchange.X12(270)),
            Encoding.Latin1.GetBytes(MadeInterchange.Edifact(180))
        );
        Console.WriteLine($"// 850: {_x12.Length:N0} bytes; ORDERS: {_edifact.Length:N0} bytes");
        if (
            EdiFile.Read(_x12, true).Messages.Any(m => m.Document is null)
            || EdiFile.Read(_edifact, false).Messages.Any(m => m.Document is null)
        )
            throw new InvalidOperationException("Not all were read.");
    }

    [Benchmark]
    public int X12Parsed() => MadeInterchange.Parse(_x12, true);

    [Benchmark]
    public int EdifactParsed() => MadeInterchange.Parse(_edifact, false);

    [Benchmark]
    public int X12IntoDocuments() => EdiFile.Read(_x12, true).Messages.Length;

    [Benchmark]
    public int EdifactIntoDocuments() => EdiFile.Read(_edifact, false).Messages.Length;
}

/// <summary>Words of a line, found among 50,000 items.</summary>
[MemoryDiagnoser, WarmupCount(10), IterationCount(10)]
public class ItemsByWords
{
    private static readonly string[] Kinds =
    [
        "three-strand polyester rope",
        "braid-on-braid rope",
        "bow shackle, galvanised",
        "dee shackle, stainless",
        "thimble, stainless",
        "swivel, galvanised",
        "ball fender",
        "short-link chain",
        "knotless netting",
        "eye splice",
    ];
    private static readonly string[] Colours = ["white", "black", "navy", "red", "blue", "green", "grey", "orange"];
    private static readonly string[] Queries =
    [
        "12mm white three strand rope",
        "Schäkel verzinkt 10 mm",
        "touw driestrengs 16 mm zwart",
        "shakle galvanised bow 24 mm",
        "flätad lina 10 mm marinblå",
        "quite unknown thing 9 mm",
    ];
    private ItemFinder _finder = null!;
    private int _at;

    [GlobalSetup]
    public void Setup() =>
        _finder = new ItemFinder(
            Enumerable
                .Range(0, 50_000)
                .Select(i => new Item(
                    new ItemId(i + 1),
                    $"IT-{i:000000}",
                    $"{Kinds[i % Kinds.Length]} {4 + (i / 80 % 60)} mm, {Colours[i / 10 % Colours.Length]}, series {i / 4_800}",
                    "family",
                    Unit.Metre,
                    [],
                    TaxClass.Standard,
                    null,
                    10,
                    true,
                    null,
                    null,
                    null
                ))
        );

    [Benchmark]
    public int Search() => _finder.Search(Queries[_at++ % Queries.Length], 5, _ => 0m).Length;
}

/// <summary>
/// A mail with a PDF of five pages, opened and read. So much code takes part that it is compiled well only after some
/// rounds.
/// </summary>
[MemoryDiagnoser, WarmupCount(15), IterationCount(10)]
public class MailWithPages
{
    private byte[] _mail = [];
    private ReadingContext _context = null!;

    [GlobalSetup]
    public void Setup()
    {
        _mail = MadeMail.WithPages(5);
        _context = MadeMail.Context();
        if (Read() < 100)
            throw new InvalidOperationException("Its lines were not read.");
    }

    [Benchmark]
    public int Read() =>
        FileReader
            .Open(_mail, "x.eml", new DateOnly(2026, 3, 2))
            .Messages.Sum(m => MessageReader.Read(m, new DateOnly(2026, 3, 2), _context).Reading!.Lines.Length);
}
