using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using Solvenda.Bench;
using Solvenda.Bench.Messages;

switch (args)
{
    case ["world", var folder]:
        await LargeWorld.WriteAsync(folder);
        break;
    case ["sql", var folder]:
        await BareSql.MeasureAsync(folder);
        break;
    case ["edi", var x12, var edifact]:
        await File.WriteAllTextAsync(x12, MadeInterchange.X12(2_700));
        await File.WriteAllTextAsync(edifact, MadeInterchange.Edifact(1_800));
        break;
    case ["bare", var file, var orders]:
        Console.WriteLine(
            BareInserts
                .Measure(file, int.Parse(orders, System.Globalization.CultureInfo.InvariantCulture))
                .ToString("0", System.Globalization.CultureInfo.InvariantCulture)
        );
        break;
    case ["ask", var file, var sql]:
        Console.WriteLine(BareInserts.Ask(file, sql));
        break;
    case ["went", var folder, var many]:
        Console.WriteLine(Went.Write(folder, int.Parse(many, System.Globalization.CultureInfo.InvariantCulture)));
        break;
    case ["bank", var folder]:
        await Bank.MeasureAsync(folder);
        break;
    case ["beside"]:
        Beside.Measure();
        break;
    case ["reading", "learning"]:
        await Learning.RunAsync(20_261_126);
        break;
    case ["reading", .. var rest]:
        await ReadingMeasure.RunAsync(
            rest.Length > 0 ? int.Parse(rest[0], System.Globalization.CultureInfo.InvariantCulture) : 8_000,
            20_261_126,
            rest.Contains("apart"),
            rest.Contains("show"),
            rest.FirstOrDefault(r => r.StartsWith("into=", StringComparison.Ordinal))?[5..]
        );
        break;
    case ["hostile"]:
        await HostileFiles.MeasureAsync();
        break;
    case ["edi-read", var file]:
        MadeInterchange.Measure(file);
        break;
    default:
        // Short by default, so that it is run at all; `--job long` for figures to argue about.
        var config = DefaultConfig.Instance.AddJob(Job.ShortRun.AsDefault());
        BenchmarkSwitcher
            .FromAssembly(typeof(Program).Assembly)
            .Run(args.Length == 0 ? ["--filter", "*"] : args, config);
        break;
}
